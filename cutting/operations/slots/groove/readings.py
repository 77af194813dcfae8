"""What a groove's numbers say: results with their band, strokes as passes, the chip, the scene."""

from __future__ import annotations

from typing_extensions import TypedDict

from cutting.operations.frame.outcome import ChipVerdict, Pass, Value
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.slots.groove.limits import DAMPED
from cutting.operations.slots.groove.moves import diameter_at
from cutting.operations.slots.groove.numbers import GrooveStroke, Numbers
from cutting.operations.slots.groove.setup import GrooveWay
from cutting.operations.slots.shared.rules import LARGEST
from cutting.operations.slots.shared.slot_chip import slot_chip
from cutting.working import Recorder


def results(x: Numbers, record: Recorder) -> dict[str, Value]:
    """Results by name, in the order in which they are shown."""
    say, setup = ResultsSaid(record), x.setup
    say.money(x)
    say.life(x)
    say.banded("size_error", "floor springs, on Ø", 1000 * x.size_error, "small_length", "springing", "deflection", "size_error")
    say.plain("roughness", "finish Ra", x.roughness, "small_length", "model")
    say.banded("side_force", "side load", x.side_force, "force", "push-off", "feed_force", ends=LARGEST)
    say.banded("cutting_force", "cutting force", x.cutting_force, "force", "cutting force", "specific_force", "cutting_force", ends=LARGEST)
    strokes = x.strokes.taken()
    say.banded("feed_force", "feed force", max(one.push for one in strokes), "force", "push-off", "feed_force", ends=LARGEST)
    say.banded("sideways", "blade leans", 1000 * x.sideways, "small_length", "springing")
    say.plain("engaged_time", "in cut", x.engaged_time, "duration")
    say.plain("strokes", "strokes", float(len(strokes)), "count")
    say.plain("stable_width", "stable width of plunge", x.stable_width, "length", "model", "stable_width", "damping_gain", ends=DAMPED)
    if setup.settings.way is GrooveWay.ONE:
        tolerance = setup.insert.width_tolerance
        say.plain("width_after", f"width after, + {tolerance:g}/0", setup.insert.width, "length")
    say.plain("spindle_speed", "spindle speed, first stroke", strokes[0].spindle_speed, "spindle_speed")
    say.plain("cutting_speed", "speed at the surface", x.cutting_speed, "cutting_speed")
    return say.found


def chip(x: Numbers) -> ChipVerdict:
    """The chip of the stroke that clears the most: in a slot, or open to one side; a rolled full radius makes it thin and short."""
    setup = x.setup
    slot = (
        setup.insert.width
        if setup.settings.way in (GrooveWay.ONE, GrooveWay.SIDE_BY_SIDE)
        else max(setup.feature.width.target, setup.insert.width)
    )
    return slot_chip(float(x.feed), x.feeds, setup.depth, slot, float(x.pressure), setup.work.material.ductility)


def passes(x: Numbers) -> tuple[Pass, ...]:
    """Every stroke as a pass."""
    said = chip(x)
    return tuple(_pass(x, k + 1, stroke, said) for k, stroke in enumerate(x.strokes.taken()))


def _pass(x: Numbers, number: int, stroke: GrooveStroke, said: ChipVerdict) -> Pass:
    setup, move = x.setup, stroke.move
    return Pass(
        number,
        diameter_at(setup, move.depth),
        diameter_at(setup, move.to_depth),
        move.engaged,
        stroke.spindle_speed,
        float(x.cutting_speed),
        stroke.feed,
        stroke.seconds,
        said,
        stroke.push,
        float(x.size_error),
    )


class GrooveScene(TypedDict):
    """What its drawing needs: mm and degrees."""

    operation: str
    where: str
    diameter: float
    floor: float
    groove_width: float
    depth: float
    wall_angle: float
    corner_radius: float
    distance_from_chuck: float
    free_length: float
    bore: float
    grip_diameter: float
    holding: str
    width: float
    insert_radius: float
    thickness: float
    height: float
    reach: float
    overhang: float
    way: str


def scene(x: Numbers) -> GrooveScene:
    """What the drawing needs, mm and degrees."""
    setup = x.setup
    f = setup.feature
    return {
        "operation": setup.operation,
        "where": f.where.value,
        "diameter": f.diameter,
        "floor": f.floor.target,
        "groove_width": f.width.target,
        "depth": setup.depth,
        "wall_angle": f.wall_angle,
        "corner_radius": f.corner_radius or 0.0,
        "distance_from_chuck": f.distance_from_chuck,
        "free_length": setup.holding.free_length,
        "bore": setup.holding.bore,
        "grip_diameter": setup.holding.grip_diameter,
        "holding": setup.holding.style.value,
        "width": setup.insert.width,
        "insert_radius": min(setup.insert.corner_radius, setup.insert.width / 2.0),
        "thickness": setup.blade.thickness,
        "height": setup.blade.height,
        "reach": min(setup.blade.reach, setup.insert.reach),
        "overhang": setup.overhang,
        "way": setup.settings.way.value,
    }
