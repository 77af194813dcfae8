"""A drill or an end mill as its sheet shows it: drawn, what its type reaches, and what its regrinds are worth."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from cutting.advice.round_tools import advice_for, one_for_its_metals
from cutting.money.cost import solid_tool_cost
from cutting.operations.holes.mill_hole.limits import LEAST_RATIO
from cutting.quantities import display
from cutting.quantities.drill_gauges import gauge_name
from cutting.tooling.drill_drawing import drawing
from cutting.tooling.drills import CHUCK_KIND, DRILL_KINDS, Drill
from cutting.tooling.mill_drawing import mill_drawing
from cutting.tooling.mills import MILL_KINDS, EndMill
from server.crib.models import Tool
from server.crib.things import to_core

ROUND_KINDS = (*DRILL_KINDS, *MILL_KINDS)


def round_tool_out(tool: Drill | EndMill) -> dict[str, Any]:
    """The sheet of a drill or an end mill."""
    found = mill_out(tool) if isinstance(tool, EndMill) else drill_out(tool)
    last = range(tool.regrinds + 1) if tool.edges < 2 else ()
    lives = [{"regrinds": k, "cost": display(float(solid_tool_cost(tool.price, k, tool.regrind_price)), "money")} for k in last]
    if several := one_for_its_metals(tool.grade):
        found["facts"].append(several)
    return {**found, "advice": [vars(one) for one in advice_for(tool.grade)], "lives": lives}


def mill_out(mill: EndMill) -> dict[str, Any]:
    """An end mill: drawn, and what its end may do."""
    straight = f"straight down to {mill.plunge:g} mm" if mill.plunge > 0 else "not straight down: it does not cut to its middle"
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
    return asdict(mill_drawing(to_core(tool["mill"]))) if "mill" in tool else None
