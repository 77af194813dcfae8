"""What a milled hole's numbers say: results, its passes, the chip, the scene."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import numpy as np
from typing_extensions import TypedDict

from cutting.operations.frame.common_limits import torque_of_power
from cutting.operations.frame.outcome import ChipVerdict, Pass, Value, Warning
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.holes.mill_hole.limits import TAPERS, helical, off_size
from cutting.operations.holes.mill_hole.numbers import Numbers
from cutting.operations.holes.shared.held import seat_warnings
from cutting.working import Recorder

COMPRESSION = 2.0  # of the chip, about (common practice)


def results(x: Numbers, record: Recorder) -> dict[str, Value]:
    """Results by name, in the order in which they are shown."""
    say = ResultsSaid(record)
    say.money(x)
    say.life(x)
    say.holes("holes a mill lasts", x, x.setup.feature.count)
    if helical(x):
        say.plain("pitch", "pitch of the helix", x.pitch, "length", "rule")
        say.plain("ramp", "ramp angle", x.ramp, "angle", "exact", "ramp_angle")
        say.plain("turns", "turns of the helix", x.turns, "number")
    say.plain("centre_rate", "tool-centre feed", x.centre_rate, "feed_rate", "exact", "feed_rate", "centre_feed_rate")
    say.plain("feed_rate", "feed at the wall", x.feed_rate, "feed_rate", "exact", "feed_rate")
    say.plain("engagement", "in the metal", x.engagement, "angle", "exact", "engagement_angle")
    say.plain("chip_thickness", "mean chip", x.chip_thickness, "length", "model", "chip_thickness")
    say.banded("power", "power, worn", x.power, "power", "milling", "removal_rate", "specific_force", "cutting_power")
    say.banded("torque", "torque, worn", x.torque, "torque", "milling", "cutting_power", ends=torque_of_power(x))
    if helical(x):
        say.banded("push_off", "push off the wall, worn", x.push_off, "force", "milling", "push_off")
        say.banded("size_error", "hole off its size", x.size_error, "length", "milling", "push_off", ends=off_size(x))
        say.plain("taper", "taper over the depth", x.taper, "length", "model", "push_off", ends=TAPERS)
    say.plain("width", "tolerance it reaches", x.width, "length", "rule")
    say.plain("diameter_cut", "expected hole Ø", x.diameter_cut, "length", "model")
    say.plain("roughness", "finish Ra", x.roughness, "small_length", "rule")
    say.plain("position", "position, zone Ø", x.position, "length", "rule")
    say.plain("crowding", "depth, of what chips come up from", 100.0 * x.crowding, "share", "rule")
    say.plain("removal", "metal removed, cm³/min", x.removal, "number", "exact", "removal_rate")
    say.plain("spindle_speed", "spindle speed", x.spindle_speed, "spindle_speed")
    say.plain("cutting_speed", "speed", x.cutting_speed, "cutting_speed")
    say.plain("helix_time", "down", x.helix_time, "duration")
    if x.setup.settings.finish > 0:
        say.plain("finish_time", "last turn", x.finish_time, "duration")
    say.plain("engaged_time", "in cut", x.engaged_time, "duration")
    return say.found


def chip(x: Numbers) -> ChipVerdict:
    """A milled chip is as long as its arc: it always breaks, but it must come up."""
    thickness, arc = last_pass(x.chip_thickness), float(np.radians(last_pass(x.engagement))) * x.setup.mill.diameter / 2.0
    crowded = last_pass(x.crowding) > 1.0
    why = f"each is as long as the tooth's way through the metal, {arc:.0f} mm before it curls"
    verdict = "packs" if crowded else "breaks"
    index = last_pass(x.chip_index)
    return ChipVerdict("commas", "short", "6.2", verdict, index, thickness, COMPRESSION * thickness, None, None, 0.0, arc, why)


def passes(x: Numbers) -> tuple[Pass, ...]:
    """The way down, and the last turn where one is taken."""
    setup, f = x.setup, x.setup.feature
    whole = f.diameter.nominal if helical(x) else setup.mill.diameter
    left = 2.0 * setup.settings.finish

    def told(number: int, start: float, end: float, seconds: Any) -> Pass:
        return Pass(number, start, end, setup.depth, last_pass(x.spindle_speed), last_pass(x.cutting_speed), last_pass(x.feed_set),
                    last_pass(seconds), chip(x), last_pass(x.push_off), last_pass(x.size_error))  # fmt: skip

    if left <= 0 or not helical(x):
        return (told(1, f.pilot, whole, x.engaged_time),)
    return told(1, f.pilot, whole - left, x.helix_time), told(2, whole - left, whole, x.finish_time)


def cautions(x: Numbers) -> Iterator[Warning]:
    """Warnings in no order."""
    setup, machine = x.setup, x.setup.machine
    yield from seat_warnings(setup)
    if setup.mill.grade.coating == "diamond" and setup.work.material.group.letter in "PMKH":
        yield Warning("diamond", "Diamond dissolves in hot iron: not in steel, stainless or iron.", "blocks")
    if setup.settings.sense.value != "climb" and helical(x):
        text = "Against the feed the tooth rubs before it cuts and pulls the mill into the wall: the hole comes out wide."
        yield Warning("sense", text, "care")
    if setup.feature.through:
        text = "A core that comes free, or the last ring under a through hole, is thrown: nothing loose below, doors closed."
        yield Warning("slug", text, "note")
    if machine.pressure(setup.settings.coolant) and setup.work.material.group.letter == "H":
        text = "Hard metal is milled with air or dry: coolant on hot teeth cracks them."
        yield Warning("thermal_cracks", text, "care")
    text = "A mill pulls at its part as it comes round: part and tool gripped before it turns; long hair, sleeves and gloves stay away."
    yield Warning("grip", text, "note")


class MillHoleScene(TypedDict):
    """What its drawing needs: mm and degrees."""

    operation: str
    path: str
    sense: str
    diameter: float
    hole: float
    rough: float
    pilot: float
    depth: float
    through: str
    corner: float
    cutting_length: float
    reach: float
    neck: float
    shank: float
    flutes: float
    helix: float
    pitch: float
    turns: float
    engagement: float
    bend: float
    push: float


def scene(x: Numbers) -> MillHoleScene:
    """What the drawing needs, mm."""
    setup, mill, f = x.setup, x.setup.mill, x.setup.feature
    return {
        "operation": setup.operation,
        "path": setup.settings.path.value,
        "sense": setup.settings.sense.value,
        "diameter": mill.diameter,
        "hole": f.diameter.nominal,
        "rough": f.diameter.nominal - 2.0 * setup.settings.finish,
        "pilot": f.pilot,
        "depth": setup.depth,
        "through": "yes" if f.through else "no",
        "corner": mill.corner,
        "cutting_length": mill.cutting_length,
        "reach": mill.reach,
        "neck": mill.neck,
        "shank": mill.shank,
        "flutes": float(mill.flutes),
        "helix": mill.helix,
        "pitch": last_pass(x.pitch),
        "turns": last_pass(x.turns),
        "engagement": last_pass(x.engagement),
        "bend": last_pass(x.size_error) / 2.0,
        "push": last_pass(x.push_off),
    }
