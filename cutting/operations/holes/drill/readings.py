"""What a drilled hole's numbers say: results, the one pass, the chip, the scene."""

from __future__ import annotations

from typing import Any

import numpy as np
from typing_extensions import TypedDict

from cutting.mechanics.drilling import oxford_thrust, oxford_torque
from cutting.operations.frame.common_limits import power_of_torque
from cutting.operations.frame.outcome import ChipVerdict, Pass, Value
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.holes.drill.limits import worn_thrust, worn_torque
from cutting.operations.holes.drill.numbers import Numbers
from cutting.operations.holes.shared.reached import burr_class, deburr_seconds
from cutting.quantities.write import display
from cutting.wear.spread import completion_probability, life_quantile
from cutting.working import Line, Recorder, in_words, line
from cutting.working.recorder import Pick

SURE = 0.95  # of the drills that reach the planned change
COMPRESSION = 2.0  # of the chip, about (common practice)


def worst(values: Any) -> float:
    """The highest of a number over layers."""
    return float(np.max(values))


def least(values: Any) -> float:
    """The lowest of a number over layers."""
    return float(np.min(values))


def results(x: Numbers, record: Recorder) -> dict[str, Value]:
    """Results by name, in the order in which they are shown; of several layers the hardest."""
    say = ResultsSaid(record)
    say.money(x)
    say.life(x)
    say.holes("holes a drill lasts", x, x.setup.feature.count)
    if x.setup.feature.asked_holes:
        _of_the_count(x, say)
    low, high = model_spread(x, worst(x.torque), "torque", record)
    trail = ("specific_force", "torque", "margin_torque")
    say.between("torque", "torque, worn", worst(x.torque), "torque", low, high, *trail, ends=worn_torque(x), at=_where_worst(x.torque))
    low, high = model_spread(x, worst(x.thrust), "thrust", record)
    trail = ("specific_force", "lip_thrust", "thrust")
    say.between("thrust", "thrust, worn", worst(x.thrust), "force", low, high, *trail, ends=worn_thrust(x), at=_where_worst(x.thrust))
    driven = ("power", "power, worn", worst(x.power), "power")
    say.banded(*driven, "drilling", "torque", "margin_torque", ends=power_of_torque(x), at=_where_worst(x.power))
    say.banded("margin_torque", "of it the margins rub", worst(x.margin_torque), "torque", "margins", "margin_torque", ends=_layered(x))
    say.plain("packing", "depth, of what the flutes stand", 100.0 * worst(x.packing), "share", "rule")
    say.plain("pecks", "pecks", worst(x.pecks), "count", "rule")
    say.plain("peck_time", "lost to pecks", x.setup.feature.count * worst(x.peck_seconds), "duration")
    say.plain("pressure", "pressure through the tool", worst(x.tool.pressure), "pressure", "rule")
    say.plain("pressure_wanted", "wanted without pecks", worst(x.pressure_wanted), "pressure", "rule")
    say.plain("flow", "flow through the tool", worst(x.tool.flow), "flow", "model")
    diameters = x.diameter_cut
    say.between(
        "diameter_cut", "expected hole Ø", float(np.mean(diameters)), "length", least(diameters), worst(diameters) + worst(x.width) / 2
    )
    say.plain("width", "tolerance it reaches", worst(x.width), "length", "rule")
    say.plain("roughness", "finish Ra", worst(x.roughness), "small_length", "rule")
    say.plain("position", "position, zone Ø", worst(x.position), "length", "rule")
    say.plain("straightness", "straightness", worst(x.straightness), "length", "rule")
    burr = float(np.ravel(x.burr)[-1])
    say.banded("burr", "burr at the exit, worn", burr, "length", "burr")
    seconds = deburring(x)
    say.plain("deburr_time", "deburring by hand", seconds, "duration", "rule")
    say.plain("spindle_speed", "spindle speed", least(x.spindle_speed), "spindle_speed")
    say.plain("feed_rate", "feed a minute", least(x.feed_rate), "feed_rate")
    say.plain("cutting_speed", "speed at the corner", worst(x.cutting_speed), "cutting_speed")
    say.plain("runout", "runout at the corner", worst(x.tool.runout), "length", "rule")
    say.plain("engaged_time", "in cut", x.engaged_time, "duration")
    return say.found


def _layered(x: Numbers) -> Line | None:
    """Of several layers the largest is told."""
    return in_words("the largest of the layers") if x.layers.count > 1 else None


def _where_worst(values: Any) -> Pick:
    """The layer in which a number is the largest, of how many."""
    return int(np.argmax(values)), int(np.size(values))


def _of_the_count(x: Numbers, say: ResultsSaid) -> None:
    """How surely one drill makes all that is asked of it, and after how many nineteen in twenty still do."""
    asked, holes, shape = float(x.setup.feature.asked_holes or 0), least(x.holes), least(x.weibull_shape)
    chance = 100.0 * float(completion_probability(asked, holes, shape))
    made = line("100·2^(−({asked}/{half_of_them_last})^{weibull_shape})", asked=asked, half_of_them_last=holes, weibull_shape=shape)
    say.plain("one_drill", f"the edge alone lasts all {asked:.0f}", chance, "share", "model", "tool_life", "weibull_shape", ends=made)
    text = "{half_of_them_last}·(−log2({sure}))^(1/{weibull_shape})"
    sure = line(text, half_of_them_last=holes, sure=SURE, weibull_shape=shape)
    planned = holes * float(life_quantile(SURE, shape))
    say.halved(
        "planned_holes", "change it after, holes", planned, "count", display(planned, "count"), "tool_life", "weibull_shape", ends=sure
    )


def model_spread(x: Numbers, value: float, what: str, record: Recorder) -> tuple[float, float]:
    """The band of torque or thrust, widened to the second model where its steels are drilled from solid."""
    low, high = record.band("drilling").about(value)
    if bool(x.layers.steel.all()) and x.setup.feature.pilot <= 0 and x.setup.drill.flutes == 2:
        other = oxford_torque if what == "torque" else oxford_thrust
        found = float(np.max(other(x.layers.hardness, x.feed, x.setup.drill.diameter)))
        low, high = min(low, found), max(high, found)
    return low, high


def deburring(x: Numbers) -> float:
    """Seconds of deburring by hand that the exits of all holes take."""
    f = x.setup.feature
    return deburr_seconds(float(np.ravel(x.burr)[-1]), x.setup.drill.diameter, f.count)


def burr_words(x: Numbers) -> str:
    """The type of the exit burr."""
    if not x.setup.feature.through:
        return "none: the hole is blind"
    if x.layers.laminate[-1]:
        return "fibres, where the last plies give way"
    return burr_class(float(np.ravel(x.burr)[-1]), x.setup.drill.diameter, float(x.layers.ductility[-1]))


def chip(x: Numbers) -> ChipVerdict:
    """The chip in the flute; form class by ISO 3685, annex G (from memory)."""
    place = int(np.argmax(x.layers.bulk))
    thickness = float(np.ravel(np.broadcast_to(x.chip_thickness, x.layers.bulk.shape))[place])
    ductility, packing = float(x.layers.ductility[place]), worst(x.packing)
    form, length, code, why = (
        ("dust and short commas", "short", "6.2", "a brittle metal breaks at the lip")
        if ductility < 0.35
        else ("conical spirals", "short", "4.2", "they curl at the lip and break on the wall")
        if ductility < 0.65
        else ("long spirals", "long", "4.1", "a tough metal does not break by itself")
    )
    washed = worst(x.tool.pressure) > 0
    verdict = (
        "packs" if packing > 1.0 else "strings" if length == "long" and not washed and x.setup.settings.pecks.value == "none" else "breaks"
    )
    why = f"{why}; they take {float(x.layers.bulk[place]):.0f} times the metal's room"
    index = float(np.min(x.chip_index))
    return ChipVerdict(form, length, code, verdict, index, thickness, COMPRESSION * thickness, None, None, 0.0, 20.0, why)


def passes(x: Numbers) -> tuple[Pass, ...]:
    """The one pass to depth."""
    setup = x.setup
    return (
        Pass(
            1,
            setup.feature.pilot,
            setup.drill.diameter,
            setup.depth,
            least(x.spindle_speed),
            worst(x.cutting_speed),
            least(x.feed),
            float(np.ravel(x.engaged_time)[0]),
            chip(x),
            worst(x.thrust),
            0.0,
        ),
    )


class DrillScene(TypedDict):
    """What its drawing needs: mm and degrees."""

    operation: str
    diameter: float
    hole: float
    point_angle: float
    cone: float
    reams: str
    depth: float
    through: str
    pilot: float
    reach: float
    flute_length: float
    shank: float
    chuck_length: float
    step: float
    step_length: float
    web: float
    helix: float
    flutes: float
    through_tool: str
    entry_angle: float
    exit_angle: float
    cross_hole: float
    turns: str
    burr: str


def scene(x: Numbers) -> DrillScene:
    """What the drawing needs, mm."""
    setup, drill, f = x.setup, x.setup.drill, x.setup.feature
    return {
        "operation": setup.operation,
        "diameter": drill.diameter,
        "hole": f.diameter.nominal,
        "point_angle": drill.point_angle,
        "cone": drill.cone,
        "reams": "yes" if drill.type.reams else "no",
        "depth": setup.depth,
        "through": "yes" if f.through else "no",
        "pilot": f.pilot,
        "reach": drill.reach,
        "flute_length": drill.flute_length,
        "shank": drill.shank or 1.3 * drill.diameter,  # for the eye
        "chuck_length": setup.chuck.length,
        "step": drill.step,
        "step_length": drill.step_length,
        "web": drill.web,
        "helix": drill.helix,
        "flutes": float(drill.flutes),
        "through_tool": "yes" if worst(x.tool.pressure) > 0 else "no",
        "entry_angle": f.entry_angle,
        "exit_angle": f.exit_angle,
        "cross_hole": f.cross_hole,
        "turns": "part" if setup.turns_part else "drill",
        "burr": burr_words(x),
    }
