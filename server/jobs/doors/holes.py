"""What only drilled holes ask over HTTP: the window map of a stack, recorded traces, the simulated dynamometer."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router

from cutting.operations.holes.drill.changes import changes, from_stock
from cutting.operations.holes.drill.evaluate import MODEL
from cutting.operations.holes.drill.setup import DrillSetup
from cutting.operations.holes.drill.window import opens, window
from server.errors import Refusal
from server.jobs.document.plan import entry_of, request_of, setup_of, tried_with
from server.jobs.kept import actions
from server.jobs.schemas.job import TryIn
from server.jobs.shown.state import state_of
from server.jobs.studies.drill_window import CutWindowOut, window_out
from server.shop import shop

router = Router()
PLACE = "/{job_id}/operations/{operation}"


@router.post(PLACE + "/window", response=CutWindowOut)
def window_map(request: HttpRequest, job_id: int, operation: str, payload: TryIn) -> dict[str, Any]:
    """Speed × feed with the limits of every layer, the field that none breaks, and what would open it where there is none."""
    revision, stock = actions.newest(job_id), shop()
    document, entry = drilled(revision.document, operation)
    tried = tried_with(payload.dict(), document, lambda: state_of(revision)["tape"]["seconds"])
    setup: DrillSetup = setup_of(document, entry, tried, stock)
    found = window(setup)
    opening: tuple[Any, ...] = ()
    if found.best is None:
        x = MODEL.quickly(setup)
        _, crib = request_of(document, entry, tried, stock)
        opening = opens([*changes(x), *from_stock(x, crib)])
    return window_out(found, setup, opening, "inch" if payload.units == "inch" else "metric")


def drilled(document: dict[str, Any], operation: str) -> tuple[dict[str, Any], dict[str, Any]]:
    """The document and its operation. Raises a 422 refusal for one that drills nothing."""
    document, entry = entry_of(document, operation)
    if entry["operation"] != "drill":
        raise Refusal(
            422, f"This belongs to drilling, not to '{entry['operation']}'.", [{"field": "operation", "message": "of another kind"}]
        )
    return document, entry
