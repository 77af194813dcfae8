"""A drill or an end mill as its sheet shows it: drawn, what its type reaches, and what its regrinds are worth."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from cutting.advice.round_tools import advice_for, one_for_its_metals
from cutting.money.cost import solid_tool_cost
from cutting.operations.holes.mill_hole.limits import LEAST_RATIO
from cutting.operations.threads.mill_thread.tool import WIDEST
from cutting.quantities import display
from cutting.quantities.drill_gauges import gauge_name
from cutting.tooling.drill_drawing import drawing
from cutting.tooling.drills import CHUCK_KIND, DRILL_KINDS, Drill
from cutting.tooling.mill_drawing import mill_drawing
from cutting.tooling.mills import MILL_KINDS, EndMill
from cutting.tooling.tap_drawing import tap_drawing, thread_mill_drawing
from cutting.tooling.taps import TAP_KINDS, Tap
from cutting.tooling.thread_mills import THREAD_MILL_KINDS, ThreadMill
from cutting.workpiece.threads.tap_drills import forming_drill, tap_drill
from server.crib.models import Tool
from server.crib.things import to_core

ROUND_KINDS = (*DRILL_KINDS, *MILL_KINDS, *TAP_KINDS, *THREAD_MILL_KINDS)


RoundTool = Drill | EndMill | Tap | ThreadMill


def round_tool_out(tool: RoundTool) -> dict[str, Any]:
    """The sheet of a round tool."""
    if isinstance(tool, Tap):
        return {**tap_out(tool), "advice": [vars(one) for one in advice_for(tool.grade)], "lives": []}
    if isinstance(tool, ThreadMill):
        return {**thread_mill_out(tool), "advice": [vars(one) for one in advice_for(tool.grade)], "lives": []}
    found = mill_out(tool) if isinstance(tool, EndMill) else drill_out(tool)
    last = range(tool.regrinds + 1) if tool.edges < 2 else ()
    lives = [{"regrinds": k, "cost": display(float(solid_tool_cost(tool.price, k, tool.regrind_price)), "money")} for k in last]
    if several := one_for_its_metals(tool.grade):
        found["facts"].append(several)
    return {**found, "advice": [vars(one) for one in advice_for(tool.grade)], "lives": lives}


CHIPS = {"down": "pushes its chips ahead: through holes", "up": "lifts its chips out: blind holes", "stay": "keeps its chips: short ones",
         "none": "presses the thread: no chips, stronger"}  # fmt: skip


def tap_out(tap: Tap) -> dict[str, Any]:
    """A tap: drawn, what hole it wants, where its chips go."""
    drill = forming_drill(tap.thread) if tap.type.forms else tap_drill(tap.thread)
    share = (
        f"{drill.of_full:.0f} % of thread"
        if tap.type.forms
        else f"{drill.of_engagement:.0f} % of 5/8 H, {drill.of_full:.0f} % of full height"
    )
    facts = [
        f"{tap.thread.size} × {tap.pitch:.4g} mm, cuts {tap.class_name or 'the usual class'}",
        f"hole Ø{drill.diameter:.4g}{f' ({drill.name})' if drill.name else ''}: {share}",
        CHIPS[tap.type.chips],
        f"chamfer {tap.chamfer}, {tap.chamfer_threads:g} threads; {tap.flutes} flutes; to {tap.type.deepest:g} diameters deep",
        f"core Ø{tap.core:.3g}; up to {tap.hardest:g} HRC",
        f"{tap.type.speed_low:g} to {tap.type.speed_high:g} of the turning speed",
    ]
    return {"drawing": asdict(tap_drawing(tap)), "facts": facts}


def thread_mill_out(mill: ThreadMill) -> dict[str, Any]:
    """A thread mill: drawn, what it covers, whether it opens its hole."""
    pitches = f"{mill.pitch_low:.4g} mm" if mill.full else f"{mill.pitch_low:.4g} to {mill.pitch_high:.4g} mm"
    opens = {"first": "drills, chamfers and mills in one", "helix": "opens its own hole down its helix", "no": "into a hole that is there"}
    facts = [
        f"pitch {pitches}, flanks {mill.angle:g}°; {mill.teeth:g} teeth along, {mill.flutes} round",
        f"{opens[mill.type.drills]}; threads from about Ø{mill.diameter / WIDEST:.3g}",
        f"{mill.type.deepest:g} diameters deep, reaches {mill.reach:g} mm",
        f"{'left-cutting: the spindle turns M4' if mill.left_cutting else 'right-cutting'}; up to {mill.hardest:g} HRC",
        f"{mill.type.speed_low:g} to {mill.type.speed_high:g} of the turning speed",
    ]
    return {"drawing": asdict(thread_mill_drawing(mill)), "facts": facts}


def mill_out(mill: EndMill) -> dict[str, Any]:
    """An end mill: drawn, and what its end may do."""
    straight = f"plunges to {mill.plunge:g} mm" if mill.plunge > 0 else "no plunge: it does not cut to its middle"
    helices = f"{mill.helix:g}° and {mill.second_helix:g}°, calm" if mill.uneven else f"{mill.helix:g}°"
    facts = [
        f"{mill.flutes} teeth, helix {helices}; corner {mill.corner:g} mm",
        f"reaches {mill.reach:g} mm, its teeth cover {mill.cutting_length:g} mm, neck Ø{mill.neck:g}",
        f"ramps down at {mill.ramp:g}° at most, {straight}",
        f"holes from Ø{LEAST_RATIO * mill.diameter:.3g} to Ø{2 * (mill.diameter - mill.corner):.4g} from solid",
        f"{mill.type.speed_low:g} to {mill.type.speed_high:g} of the turning speed",
    ]
    return {"drawing": asdict(mill_drawing(mill)), "facts": facts}


def drill_out(drill: Drill) -> dict[str, Any]:
    """A drill: drawn, and what its type reaches."""
    made, gauge = drill.type, gauge_name(drill.diameter)
    facts = [
        *([f"Ø{drill.diameter:g} mm is {gauge}"] if gauge else []),
        f"{drill.reach / drill.diameter:.1f} diameters deep at most; point {drill.cone:.2f} mm long",
        f"usually reaches IT{drill.it:g}, Ra {made.finish:g} µm; runs off {made.straightness:g} µm a mm",
        f"stands {made.runout:g} mm of runout at its corner",
        f"{made.speed_low:g} to {made.speed_high:g} of the turning speed; flutes leave {made.flute:.0%} of the hole",
    ]
    return {"drawing": asdict(drawing(drill)), "facts": facts}


def held_with(row: Tool) -> list[str]:
    """Chucks that take a round tool's shank, or tools whose shank a chuck takes."""
    own, chuck = to_core(row), row.kind == CHUCK_KIND
    kinds = ROUND_KINDS if chuck else (CHUCK_KIND,)
    others = Tool.objects.filter(kind__in=kinds, archived_at=None).select_related("geometry", "grade").prefetch_related("windows")[:400]
    pairs = [(one.name, to_core(one)) for one in others]
    return [name for name, other in pairs if (own.takes(other) if chuck else other.takes(own))]


def round_drawing(tool: dict[str, Tool]) -> dict[str, Any] | None:
    """The drawing of an assembly's drill or end mill, None of other tools."""
    if "drill" in tool:
        return asdict(drawing(to_core(tool["drill"])))
    if "tap" in tool:
        return asdict(tap_drawing(to_core(tool["tap"])))
    if "mill" not in tool:
        return None
    mill = to_core(tool["mill"])
    return asdict(thread_mill_drawing(mill) if isinstance(mill, ThreadMill) else mill_drawing(mill))
