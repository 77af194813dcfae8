"""The tools that were invented for the demo, as one thing: archived together when a shop enters its own, and restored."""

from __future__ import annotations

from typing import Any

from django.db import transaction
from django.db.models import F
from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Schema

from server.crib.models import Tool
from server.people.roles import require_engineer
from server.records.models import Change, Stamp

router = Router()
INVENTED = "invented for the demo"  # how the source of each begins
AT_ONCE = 2000  # lines of history that are written together


class ShippedOut(Schema):
    """How many of the demo's tools stand in the crib, how many in the archive, and how many of the shop's own there are."""

    in_crib: int
    archived: int
    own: int


class ShippedIn(Schema):
    """Whether they are archived or restored."""

    archived: bool


@router.get("/shipped", response=ShippedOut)
def read_shipped(request: HttpRequest) -> dict[str, int]:
    """Where the demo's tools are."""
    shipped = Tool.objects.filter(source__startswith=INVENTED)
    return {
        "in_crib": shipped.filter(archived_at=None).count(),
        "archived": shipped.exclude(archived_at=None).count(),
        "own": Tool.objects.filter(archived_at=None).exclude(source__startswith=INVENTED).count(),
    }


@router.post("/shipped", response=ShippedOut)
def put_shipped(request: HttpRequest, payload: ShippedIn) -> dict[str, int]:
    """Archive all of the demo's tools, or restore those that are archived; each keeps a line of history."""
    require_engineer(request)
    with transaction.atomic():
        stamp = Stamp.bump("crib")  # locks the room: nobody moves them twice at once
        moved = Tool.objects.filter(source__startswith=INVENTED, archived_at__isnull=payload.archived)
        told: list[dict[str, Any]] = list(moved.values("pk", "name"))
        moved.update(archived_at=timezone.now() if payload.archived else None, version=F("version") + 1, stamp=stamp)
        action = "archived with all of the demo's tools" if payload.archived else "restored with all of the demo's tools"
        lines = (Change(table="tools", thing=row["pk"], label=row["name"], action=action, author=request.user) for row in told)
        Change.objects.bulk_create(lines, batch_size=AT_ONCE)
    return read_shipped(request)
