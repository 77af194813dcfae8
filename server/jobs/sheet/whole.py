"""The first page of a whole job: how it is clamped, the run order, and every tool with its place, its bin and its spare edges."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any

from django.utils.safestring import mark_safe

from cutting.doors.plain import plain
from cutting.errors import CuttingError
from cutting.operations.registry import kind_of
from cutting.quantities import write
from cutting.quantities.dimension import Dimension
from server.crib.models import Tool
from server.jobs.document.outcomes import outcome_of
from server.jobs.document.plan import setup_of
from server.jobs.kinds.threads import thread_words
from server.jobs.kinds.view import drawn
from server.jobs.models import Revision
from server.jobs.sheet.part_drawing import part_svg
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
        "clamping": mark_safe(part_svg(state["outline"], held, system)),
        "held": held,
        "stop": [f"{row['number']} {in_both(row['title'])[side]}" for row in state["operations"] if row["status"] == "over"],
        "setting": _setting(document, held, stock),
        "first_piece": _first_piece(document, state, system, stock),
        "rows": rows,
        "tools": _tools(document, state, system, stock),
        "pockets": state["pockets"],
        "places": "turret" if stock.library.machine(document["machine"]).turns else "magazine",
        "time": plain(state["tape"]["seconds_display"])[side],
        "sure": in_both(sure["words"])[side] if (sure := state["sure"]) else "",
        "noted": ", ".join(document.get("noted", [])),
        "wanted": [f"{row['number']} {in_both(row['title'])[side]}: {row['problem'][side]}" for row in unplanned],
    }


def _setting(document: dict[str, Any], held: str, stock: Shop) -> list[tuple[str, str]]:
    """What is set before the first piece; what only the machine knows has a line to write on."""
    machine = stock.library.machine(document["machine"])
    turns = bool(machine.turns)
    zero = "Z on the finished face, X on the axis" if turns else "Z on the finished top face, X and Y at the centre of the blank"
    found = [("zero point", zero), ("program number", ""), ("work offset", "")]
    if turns and machine.jaw_force > 0 and held != "between centres":
        share = float(document["holding"].get("grip_share", 1.0))
        force = f"{share * machine.jaw_force / 1000.0:.0f} kN"
        found += [("jaw force at rest", f"{force}, {share:.0%} of the chuck's {machine.jaw_force / 1000.0:.0f} kN"), ("chuck pressure", "")]
    return found


def _first_piece(document: dict[str, Any], state: dict[str, Any], system: str, stock: Shop) -> list[dict[str, str]]:
    """What is measured on the first piece: every toleranced size, thread and finish of the operations that finish what the drawing asks."""
    making = {number for one in state["drawing"] for number in one["makes"]}
    rows = []
    for entry in document["operations"]:
        if making and entry["number"] not in making:
            continue
        try:
            setup = setup_of(document, entry, None, stock)
        except CuttingError:
            continue
        rows += [{"number": str(entry["number"]), "asked": asked, "limits": allowed} for asked, allowed in _asked_of(setup, system)]
    return rows


def _asked_of(setup: Any, system: str) -> Iterator[tuple[str, str]]:
    feature = setup.feature
    for one in kind_of(setup.operation).fields.feature:
        size = getattr(feature, one.name, None)
        if isinstance(size, Dimension) and size.tolerance:
            low, high = (write(size.target + sign * size.tolerance / 2, "size", system) for sign in (-1, 1))
            yield drawn(size, system), f"{low} to {high}"
    if getattr(feature, "thread", None) is not None:
        low, high = feature.limits.pitch.low, feature.limits.pitch.high
        ends = [f"{write(end, 'size', system)} {word}" for end, word in ((low, "min."), (high, "max.")) if end is not None]
        yield f"thread {thread_words(feature)}", f"pitch Ø {', '.join(ends)}"
    if rough := getattr(feature, "roughness", None):
        yield "finish Ra", f"{write(rough, 'small_length', system)} max."


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
