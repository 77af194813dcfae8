"""A drill as its sheet shows it: drawn, what its type reaches, and what its regrinds are worth."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from cutting.money.cost import solid_tool_cost
from cutting.quantities import display
from cutting.quantities.drill_gauges import gauge_name
from cutting.tooling.drill_drawing import drawing
from cutting.tooling.drills import CHUCK_KIND, DRILL_KINDS, Drill
from server.crib.models import Tool
from server.crib.things import to_core


def drill_out(drill: Drill) -> dict[str, Any]:
    """The sheet of a drill."""
    made, gauge = drill.type, gauge_name(drill.diameter)
    facts = [
        *([f"Ø{drill.diameter:g} mm is {gauge}"] if gauge else []),
        f"{drill.reach / drill.diameter:.1f} diameters deep at most; point {drill.cone:.2f} mm long",
        f"usually reaches IT{drill.it:g}, Ra {made.finish:g} µm; runs off {made.straightness:g} µm a mm",
        f"stands {made.runout:g} mm of runout at its corner",
        f"{made.speed_low:g} to {made.speed_high:g} of the turning speed; flutes leave {made.flute:.0%} of the hole",
    ]
    last = range(drill.regrinds + 1) if drill.edges < 2 else ()
    lives = [{"regrinds": k, "cost": display(float(solid_tool_cost(drill.price, k, drill.regrind_price)), "money")} for k in last]
    return {"drawing": asdict(drawing(drill)), "facts": facts, "lives": lives}


def held_with(row: Tool) -> list[str]:
    """Chucks that take a drill's shank, or drills whose shank a chuck takes."""
    own, chuck = to_core(row), row.kind == CHUCK_KIND
    kinds = DRILL_KINDS if chuck else (CHUCK_KIND,)
    others = Tool.objects.filter(kind__in=kinds, archived_at=None).select_related("geometry", "grade").prefetch_related("windows")[:400]
    pairs = [(one.name, to_core(one)) for one in others]
    return [name for name, other in pairs if (own.takes(other) if chuck else other.takes(own))]
