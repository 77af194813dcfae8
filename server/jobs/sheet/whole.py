"""The first page of a whole job: how it is clamped, the run order, and every tool with its place, its bin and its spare edges."""

from __future__ import annotations

import math
from typing import Any

from django.utils.safestring import mark_safe

from cutting.doors.plain import plain
from cutting.errors import CuttingError
from cutting.quantities import write
from server.crib.models import Tool
from server.jobs.document.outcomes import outcome_of
from server.jobs.document.plan import setup_of
from server.jobs.models import Revision
from server.jobs.sheet.drawing import clamping_svg
from server.jobs.shown.state import state_of
from server.sentences import in_both
from server.shop import Shop
from server.words import tool_name

SAID = {"holds": "holds", "close": "close", "over": "OVER A LIMIT", "no tool": "NO TOOL YET"}
SPARE = 1.1  # edges laid out over those that the batch wears (common practice)


def whole_part(revision: Revision, system: str, stock: Shop) -> dict[str, Any]:
    """What stands before the operations: clamping, run order, tools."""
    document, state = revision.document, state_of(revision, None, stock)
    side = "inch" if system == "inch" else "metric"
    rows = [
        {
            "number": row["number"],
            "title": ", ".join(word for word in (in_both(row["title"])[side], row["held"]) if word),
            "tool": next((one["pocket"] for one in state["tools"] if row["number"] in one["operations"]), "–"),
            "seconds": row["seconds_display"][side],
            "state": SAID[row["status"]],
        }
        for row in state["operations"]
    ]
    unplanned = [row for row in state["operations"] if row["status"] == "no tool"]
    held = str(document["holding"].get("style", "chuck"))
    return {
        "clamping": mark_safe(clamping_svg(state["outline"], held)),
        "held": held,
        "rows": rows,
        "tools": _tools(document, state, system, stock),
        "pockets": state["pockets"],
        "time": plain(state["tape"]["seconds_display"])[side],
        "sure": in_both(sure["words"])[side] if (sure := state["sure"]) else "",
        "noted": ", ".join(document.get("noted", [])),
        "wanted": [f"{row['number']} {in_both(row['title'])[side]}: {row['problem'][side]}" for row in unplanned],
    }


def _counted(count: int, what: str) -> str:
    return f"{count} {what}" if count == 1 else f"{count} {what}s"


def _tools(document: dict[str, Any], state: dict[str, Any], system: str, stock: Shop) -> list[dict[str, Any]]:
    names = {name for tool in state["tools"] for name in tool["tool"].values()}
    bins = {tool.name: tool for tool in Tool.objects.filter(name__in=names)}
    used = {entry["number"]: entry for entry in document["operations"]}
    found = []
    for tool in state["tools"]:
        edges, overhang = 0.0, 0.0
        for number in tool["operations"]:
            try:
                setup = setup_of(document, used[number], None, stock)
                edges += document["batch"]["pieces"] / max(outcome_of(setup).results["change_parts"].value, 1e-9)
            except CuttingError:
                continue
            own = setup.overhang
            overhang = max(overhang, float(own))
        row = bins.get(tool["edge"])
        wanted = max(math.ceil(edges * SPARE), 1)
        per_insert = max(row.edges if row else 1, 1)
        each = "insert" if row is None or "insert" in row.kind else row.kind
        found.append(
            {
                **tool,
                "edge": tool_name(tool["edge"]),
                "numbers": ", ".join(str(number) for number in tool["operations"]),
                "overhang": write(overhang, "length", system) if overhang else "–",
                "bin": (row.bin if row else "") or "–",
                "edges": f"{_counted(wanted, 'edge')}, {_counted(math.ceil(wanted / per_insert), each)}" if edges else "–",
                "short": bool(row and edges and row.quantity < math.ceil(wanted / per_insert)),
                "have": row.quantity if row else 0,
            }
        )
    return found
