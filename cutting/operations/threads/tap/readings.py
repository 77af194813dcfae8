"""What a tapped thread's numbers say: results, chip, warnings, scene."""

from __future__ import annotations

from collections.abc import Iterator

from typing_extensions import TypedDict

from cutting.operations.frame.common_limits import power_of_torque
from cutting.operations.frame.outcome import ChipVerdict, Pass, Value, Warning
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.holes.shared.held import seat_warnings
from cutting.operations.threads.shared.core_hole import engagement, strength
from cutting.operations.threads.tap.limits import left_over
from cutting.operations.threads.tap.numbers import Numbers
from cutting.operations.threads.tap.setup import TapHolding
from cutting.quantities.kinds import currency
from cutting.working import Recorder

GOES = {"down": "ahead of it", "up": "up its flutes", "stay": "in its flutes", "none": "none"}
COMPRESSION = 2.5  # times that a chip is thicker than it was cut (common practice: 2 to 3)


def results(x: Numbers, record: Recorder) -> dict[str, Value]:
    """Results by name, in the order in which they are shown."""
    say, setup = ResultsSaid(record), x.setup
    say.money(x)
    say.life(x)
    say.holes("threads a tap lasts", x, setup.feature.count)
    say.banded("torque", "torque, worn", x.torque, "torque", "tapping", "specific_force", "torque")
    say.banded("breaking", "breaks at", x.breaking, "torque", "strength", "breaking_torque")
    say.plain("margin", "margin", x.margin, "number", "model", "torque", "breaking_torque", ends=left_over(x))
    say.plain("risk", "scrap risk", x.at_risk, "money", "rule")
    say.plain("break_chance", "breaks, in a thousand threads", 1000.0 * x.break_chance, "number", "rule")
    say.plain("certainty", "gauge acceptance", 100.0 * x.certainty, "share", "rule")
    of_engagement, of_full = engagement(setup.feature.thread, setup.hole)
    say.plain("core_hole", "tapping hole Ø", setup.hole, "length")
    say.plain("percent", "thread, of the engagement height 5/8 H", of_engagement, "share")
    say.plain("percent_full", "thread, of the American full height", of_full, "share")
    found = strength(setup.feature.thread, setup.hole, setup.feature.length, setup.work.strength)
    say.plain("strips", "thread in the part strips at", found.inside, "force", "model")
    say.plain("screw_strips", "thread of a screw 8.8 strips at", found.outside, "force", "model")
    say.plain("screw_breaks", "screw 8.8 breaks at", found.screw, "force", "model")
    say.plain("way_needed", "tapping hole needed", x.way_needed, "length")
    say.plain("lead", "feed, the lead", x.feed_set, "feed_per_rev")
    say.plain("feed_rate", "feed rate", x.feed_rate, "feed_rate")
    say.plain("spindle_speed", "spindle speed", x.spindle_speed, "spindle_speed")
    say.plain("cutting_speed", "speed", x.cutting_speed, "cutting_speed")
    say.plain("power", "power, worn", x.power, "power", "model", "torque", ends=power_of_torque(x))
    say.plain("thread_time", "in and out, one thread", x.thread_time, "duration", "exact", "thread_time")
    say.plain("engaged_time", "in cut", x.engaged_time, "duration")
    return say.found


def chip(x: Numbers) -> ChipVerdict:
    """Where the chips go, and whether they get away."""
    tap, f = x.setup.tap, x.setup.feature
    h = f.thread.of.inside_depth * f.thread.pitch / (tap.chamfer_threads * tap.flutes)
    index, packed = last_pass(x.chip_index), last_pass(x.chip_depth) > 1.0
    if tap.type.forms:
        return ChipVerdict("none", "none", "–", "breaks", 100.0, h, h, None, None, 0.0, 0.0, "the thread is pressed, nothing is cut off")
    why = f"chips go {GOES[tap.type.chips]}; from {tap.type.deepest:g} diameters they pack"
    thick, verdict = COMPRESSION * h, "packs" if packed else "breaks"
    return ChipVerdict("coils", "long", "2.1", verdict, index, h, thick, None, None, 0.0, 4.0 * tap.diameter, why)


def passes(x: Numbers) -> tuple[Pass, ...]:
    """In and out, once."""
    f = x.setup.feature
    return (
        Pass(1, x.setup.hole, f.thread.diameter, f.length, last_pass(x.spindle_speed), last_pass(x.cutting_speed), last_pass(x.feed_set),
             last_pass(x.engaged_time), chip(x), 0.0, 0.0),
    )  # fmt: skip


def cautions(x: Numbers) -> Iterator[Warning]:
    """Warnings in no order."""
    setup = x.setup
    yield from seat_warnings(setup)
    f, tap = setup.feature, setup.tap
    if f.there <= 0:
        deep = "" if f.through else f", {last_pass(x.way_needed):.1f} mm deep at least"
        text = f"No hole is there yet: drill Ø{setup.hole:.4g} mm{deep}, and chamfer it."
        yield Warning("no_hole", text, "blocks")
    asked = f.limits.class_name
    if tap.class_name and tap.class_name != asked:
        yield Warning("class", f"{tap.name} cuts {tap.class_name}, the drawing asks {asked}.", "blocks")
    if setup.settings.held is TapHolding.SYNCHRONISED and setup.machine.geared:
        yield Warning(
            "synchronised", f"{setup.machine.name} does not lead its feed by the spindle's angle: take a floating holder.", "blocks"
        )
    if setup.batch.part_value:
        money = f"{last_pass(x.at_risk):.3f} {currency()}"
        worth = f"The part is worth {setup.batch.part_value:.2f} {currency()} here"
        text = f"{worth}; {last_pass(x.break_chance):.2%} of taps break in a thread: {money} per piece."
        yield Warning("risk", text, "note")
    text = "A broken tap is hardened steel in the part: never drive it out by force; the spindle stands before anyone reaches in."
    yield Warning("broken_tap", text, "note")


class TapScene(TypedDict):
    """What its drawing needs: mm and degrees."""

    operation: str
    diameter: float
    pitch: float
    lead: float
    minor: float
    length: float
    hole: float
    through: str
    chamfer: float
    chips: str
    core: float
    shank: float
    reach: float
    flutes: float
    hand: str


def scene(x: Numbers) -> TapScene:
    """What the drawing needs, mm."""
    setup, tap, f = x.setup, x.setup.tap, x.setup.feature
    return {
        "operation": setup.operation,
        "diameter": f.thread.diameter,
        "pitch": f.thread.pitch,
        "lead": f.thread.lead,
        "minor": setup.hole,
        "length": f.length,
        "hole": f.room if not f.through else f.length + 3.0 * f.thread.pitch,
        "through": "yes" if f.through else "no",
        "chamfer": tap.chamfer_threads * f.thread.pitch,
        "chips": tap.type.chips,
        "core": tap.core,
        "shank": tap.shank,
        "reach": tap.reach,
        "flutes": float(tap.flutes),
        "hand": "left" if f.thread.left_hand else "right",
    }
