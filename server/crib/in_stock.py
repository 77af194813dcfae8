"""What the crib stocks of the kinds of tool that an operation may use, as the core's things."""

from __future__ import annotations

from typing import Any

from cutting.doors.json_form import Wanted
from cutting.operations.registry import kind_of
from cutting.operations.turned.kinds import ROLES
from cutting.tooling.heavy.tool import HEAVY_KIND
from cutting.tooling.roles import Stock
from server.crib.heavy_tools import find_grade, heavy_in_stock
from server.crib.models import Tool
from server.crib.things import to_core

MOST_EDGES = 6000  # of one role: what a shop of some forty machines has is looked at whole
PRE_ORDER = "in stock first, then the cheapest edge"
TURNING = tuple((role.name, role.kinds) for role in ROLES)  # a large crib of these is narrowed by rules of its own


def in_stock(asked: Wanted) -> Stock:
    """The parts by role. Of many edges those that may serve the material's ISO 513 letter, in a stated pre-order."""
    letter, note = asked.material.group.letter, ""
    parts: dict[str, tuple[Any, ...]] = {}
    for role, kinds in asked.kinds:
        if HEAVY_KIND in kinds:
            parts[role] = heavy_in_stock(find_grade)
            continue
        rows = Tool.objects.filter(kind__in=kinds, archived_at=None).select_related("geometry", "grade")
        count = rows.count()
        if count > MOST_EDGES:
            rows = rows.filter(grade__letters__contains=letter).order_by("-quantity", "edge_price", "pk")[:MOST_EDGES]
            note = f"{count:,} {kinds[0]}s in the crib; at most {MOST_EDGES:,} for group {letter} are looked at: {PRE_ORDER}."
        else:
            rows = rows.order_by("pk")
        parts[role] = tuple(to_core(row) for row in rows.prefetch_related("windows"))
    return kind_of(asked.operation).gather(parts, note)
