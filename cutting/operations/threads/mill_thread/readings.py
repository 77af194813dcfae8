"""What a milled thread's numbers say: results, its passes, the chip, warnings, the scene."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from typing_extensions import TypedDict

from cutting.operations.frame.common_limits import torque_of_power
from cutting.operations.frame.outcome import ChipVerdict, Pass, Value, Warning
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.holes.shared.held import seat_warnings
from cutting.operations.threads.mill_thread.limits import OFF_MIDDLE, TAPERS, middle_fed, on_flank
from cutting.operations.threads.mill_thread.numbers import CHILLS_FROM, Numbers
from cutting.operations.threads.shared.sense import climbs, makes_left_hand
from cutting.quantities.kinds import currency
from cutting.working import Recorder

COMPRESSION = 2.0  # of the chip, about (common practice)


def results(x: Numbers, record: Recorder) -> dict[str, Value]:
    """Results by name, in the order in which they are shown."""
    say, setup = ResultsSaid(record), x.setup
    say.money(x)
    say.life(x)
    say.holes("threads a mill lasts", x, setup.feature.count)
    say.plain("certainty", "gauge acceptance", 100.0 * x.certainty, "share", "rule")
    say.plain("risk", "scrap risk", x.at_risk, "money", "rule")
    say.plain(
        "offset_wanted",
        "path to set outward",
        x.offset_wanted,
        "length",
        "model",
        "flank_error",
        "push_off",
        ends="half of push-off less flank error",
    )
    say.plain("flank_error", "flank error of the mill, each", 1000.0 * x.flank_error, "small_length", "exact", "flank_error")
    say.plain(
        "angle_left",
        "of it an angle, on the pitch Ø",
        1000.0 * x.angle_left,
        "small_length",
        "exact",
        "flank_error",
        ends="twice what the error at the crest and at the root differ, over tan of the flank",
    )
    say.banded("push_off", "push off the wall, worn", x.push_off, "force", "milling", "push_off")
    say.plain("taper", "taper of the pitch Ø", x.taper, "length", "model", "push_off", ends=TAPERS)
    say.plain("width", "pitch Ø that it holds", x.width, "length", "rule")
    say.plain("size_error", "pitch Ø off its middle, small", x.size_error, "length", "model", "flank_error", "push_off", ends=OFF_MIDDLE)
    say.plain("centre_rate", "tool-centre feed", x.centre_rate, "feed_rate", "exact", "feed_rate", "centre_feed_rate", ends=middle_fed(x))
    say.plain("feed_rate", "feed at the wall", x.feed_rate, "feed_rate", "exact", "feed_rate")
    say.plain("turns", "turns of the helix", x.turns, "number", "exact")
    say.plain("engagement", "in the metal", x.engagement, "angle", "exact", "engagement_angle")
    say.plain("chip_thickness", "mean chip on the flank", x.chip_thickness, "length", "model", "chip_thickness", ends=on_flank(x))
    say.banded("power", "power, worn", x.power, "power", "milling", "removal_rate", "specific_force", "cutting_power")
    say.banded("torque", "torque, worn", x.torque, "torque", "milling", "cutting_power", ends=torque_of_power(x))
    say.plain("hardness", "work, HRC", x.hardness, "number")
    say.plain("spindle_speed", "spindle speed", x.spindle_speed, "spindle_speed")
    say.plain("cutting_speed", "speed", x.cutting_speed, "cutting_speed")
    say.plain("helix_time", "one thread, all passes", x.helix_time, "duration")
    if setup.mill.type.drills == "first" and setup.feature.there <= 0:
        say.plain("opening_time", "of it drilling", x.opening_time, "duration")
    say.plain("engaged_time", "in cut", x.engaged_time, "duration")
    return say.found


def chip(x: Numbers) -> ChipVerdict:
    """A milled chip is as long as its arc: it always breaks."""
    h, arc = last_pass(x.chip_thickness), float(np.radians(last_pass(x.engagement))) * x.setup.mill.diameter / 2.0
    why = f"each is as long as the tooth's way through the metal, {arc:.1f} mm"
    return ChipVerdict("commas", "short", "6.2", "breaks", last_pass(x.chip_index), h, COMPRESSION * h, None, None, 0.0, arc, why)


def passes(x: Numbers) -> tuple[Pass, ...]:
    """Radial passes from the core hole to size, and the repeats."""
    setup, f = x.setup, x.setup.feature
    start, end, runs = setup.hole if last_pass(x.tool.hole) > 0 else 0.0, f.thread.diameter, setup.settings.passes
    each = last_pass(x.engaged_time) / x.strokes_taken
    sizes = [start + (end - start) * np.sqrt((k + 1) / runs) for k in range(runs)] + [end] * setup.settings.repeats
    before = [start, *sizes[:-1]]
    return tuple(
        Pass(k + 1, float(a), float(b), f.length, last_pass(x.spindle_speed), last_pass(x.cutting_speed), last_pass(x.feed_set), each,
             chip(x), last_pass(x.push_off), last_pass(x.size_error))
        for k, (a, b) in enumerate(zip(before, sizes, strict=True))
    )  # fmt: skip


def cautions(x: Numbers) -> Iterator[Warning]:
    """Warnings in no order."""
    setup, machine = x.setup, x.setup.machine
    yield from seat_warnings(setup)
    f, mill = setup.feature, setup.mill
    if makes_left_hand(setup.path, setup.goes) != f.thread.left_hand:
        made = "right" if f.thread.left_hand else "left"
        text = f"{setup.path.value.capitalize()} and {setup.goes.value} makes a {made}-hand thread: the drawing asks the other hand."
        yield Warning("hand", text, "blocks")
    if not climbs(setup.path, mill.left_cutting):
        text = "Against the feed teeth rub before they cut and pull the mill into the wall: the thread comes out wide, teeth break sooner."
        yield Warning("sense", text, "care")
    if mill.left_cutting:
        text = "This mill is left-cutting: the spindle turns counter-clockwise, M4. Turning the usual way it breaks at once."
        yield Warning("left_cutting", text, "care")
    if f.there <= 0 and not mill.type.opens:
        yield Warning(
            "no_hole", f"No hole is there yet: drill Ø{setup.hole:.4g} mm, a pitch deeper than the thread, and chamfer it.", "blocks"
        )
    if last_pass(x.hardness) > CHILLS_FROM and (machine.pressure(setup.settings.coolant) or 0.0) > 0:
        yield Warning(
            "thermal_cracks", "Above 54 HRC teeth are hot at every turn: coolant quenches them and they crack. Air, or dry.", "care"
        )
    if setup.settings.arc < 90:
        yield Warning(
            "arc",
            "Straight onto the flank the mill leaves a mark there: come in on an arc of 90 to 180° that climbs its share of the pitch.",
            "care",
        )
    if setup.batch.part_value:
        money = f"{last_pass(x.at_risk):.3f} {currency()}"
        yield Warning(
            "risk",
            f"A broken thread mill falls out and the same path is run again: {money} per piece at risk of {setup.batch.part_value:.2f}.",
            "note",
        )
    text = (
        "A mill pulls at its part as it comes round: part and tool gripped before it turns; doors closed, nothing loose near the spindle."
    )
    yield Warning("grip", text, "note")


class MillThreadScene(TypedDict):
    """What its drawing needs: mm and degrees."""

    operation: str
    diameter: float
    pitch: float
    lead: float
    minor: float
    hole: float
    length: float
    through: str
    deep: float
    mill: float
    neck: float
    shank: float
    reach: float
    teeth: float
    rows: str
    flutes: float
    turns: float
    path: str
    goes: str
    cutting: str
    climb: str
    hand: str
    arc: float
    engagement: float


def scene(x: Numbers) -> MillThreadScene:
    """What the drawing needs, mm."""
    setup, mill, f = x.setup, x.setup.mill, x.setup.feature
    return {
        "operation": setup.operation,
        "diameter": f.thread.diameter,
        "pitch": f.thread.pitch,
        "lead": f.thread.lead,
        "minor": f.thread.inside_diameter,
        "hole": setup.hole if last_pass(x.tool.hole) > 0 else 0.0,
        "length": f.length,
        "through": "yes" if f.through else "no",
        "deep": f.room if not f.through else f.length + 3.0 * f.thread.pitch,
        "mill": mill.diameter,
        "neck": mill.neck,
        "shank": mill.shank,
        "reach": mill.reach,
        "teeth": mill.teeth,
        "rows": mill.type.rows,
        "flutes": float(mill.flutes),
        "turns": last_pass(x.turns),
        "path": setup.path.value,
        "goes": "up" if setup.goes.value.startswith("up") else "down",
        "cutting": "left" if mill.left_cutting else "right",
        "climb": "yes" if climbs(setup.path, mill.left_cutting) else "no",
        "hand": "left" if makes_left_hand(setup.path, setup.goes) else "right",
        "arc": setup.settings.arc,
        "engagement": last_pass(x.engagement),
    }
