"""What a turned thread's numbers say: results, passes, chip, warnings, scene."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from typing_extensions import TypedDict

from cutting.operations.frame.outcome import ChipVerdict, Pass, Value, Warning
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.threads.shared.sense import Feeds, Turns, feed_for, turns_for
from cutting.operations.threads.turn_thread.groove import whole_depth
from cutting.operations.threads.turn_thread.limits import HARDENS, heaviest, stands_still
from cutting.operations.threads.turn_thread.numbers import Numbers
from cutting.operations.threads.turn_thread.setup import Infeed
from cutting.quantities.kinds import currency
from cutting.working import Recorder

FORMS = {
    Infeed.RADIAL: ("stiff V-shaped ribbon", "both flanks press it together: stiff, hard to break, and it shakes a coarse pitch"),
    Infeed.FLANK: ("curled ribbon", "one flank cuts: it curls away from the other, as in turning"),
    Infeed.ALTERNATING: ("curled ribbon, side to side", "each flank cuts every other pass: both wear alike"),
}
COMPRESSION = 2.5  # times that a chip is thicker than it was cut (common practice: 2 to 3)


def results(x: Numbers, record: Recorder) -> dict[str, Value]:
    """Results by name, in the order in which they are shown."""
    say, setup = ResultsSaid(record), x.setup
    say.money(x)
    say.life(x)
    say.holes("threads per edge", x, 1)
    say.plain("passes", "passes, with spring passes", x.strokes_taken, "count")
    say.plain("whole_depth", "depth of all passes", whole_depth(setup), "length")
    say.plain("certainty", "gauge acceptance", 100.0 * x.certainty, "share", "rule")
    say.plain("risk", "scrap risk", x.at_risk, "money", "rule")
    say.banded(
        "cutting_force",
        "heaviest pass, force",
        np.max(x.cutting_force),
        "force",
        "threading",
        "specific_force",
        "cutting_force",
        ends="the heaviest pass",
    )
    say.plain("load", "load of the tip", np.max(x.load), "edge_load", "model")
    say.plain("size_error", "springs, on the pitch Ø", x.size_error, "length", "model")
    say.plain("lead_angle", "lead angle", setup.feature.thread.lead_angle, "angle")
    say.plain("tilt", "shim inclination", setup.tilt, "angle")
    say.plain("clear_leading", "clearance, leading flank", x.clear_leading, "angle", "exact")
    say.plain("clear_trailing", "clearance, trailing flank", x.clear_trailing, "angle", "exact")
    say.plain("run_in", "run-in", x.run_in, "length", "rule", "run_in")
    say.plain("run_out", "run-out", x.run_out, "length", "rule", "run_in", ends=stands_still(x))
    say.plain("feed_rate", "feed rate", x.feed_rate, "feed_rate")
    say.plain("lead", "feed, the lead", x.feed_set, "feed_per_rev")
    say.plain("power", "power, worn", np.max(x.power), "power", "model", "specific_force", ends=heaviest(x))
    say.plain("spindle_speed", "spindle speed", x.spindle_speed, "spindle_speed")
    say.plain("cutting_speed", "speed", x.cutting_speed, "cutting_speed")
    say.plain("pass_time", "one pass", x.pass_time, "duration")
    say.plain("engaged_time", "in cut", x.engaged_time, "duration")
    return say.found


def chip(x: Numbers) -> ChipVerdict:
    """What the infeed makes of the chip."""
    form, why = FORMS[x.setup.settings.infeed]
    index = last_pass(x.chip_index)
    h = float(np.max(x.chip_thickness))
    verdict, length = ("breaks", "medium") if index >= 60 else ("strings", "long")
    return ChipVerdict(form, length, "1.2", verdict, index, h, COMPRESSION * h, None, None, 0.0, 60.0, why)


def passes(x: Numbers) -> tuple[Pass, ...]:
    """Every pass with its diameter, force and springing."""
    f, cut = x.setup.feature, x.groove
    sign = 1.0 if f.internal else -1.0
    at = [x.setup.there, *(x.setup.there + sign * 2.0 * cut.depth)]
    push = np.broadcast_to(x.passive_force, cut.depth.shape).ravel() if np.ndim(x.passive_force) == 1 else np.ravel(x.passive_force)
    return tuple(
        Pass(k + 1, float(at[k]), float(at[k + 1]), float(cut.infeed[k]), last_pass(x.spindle_speed), last_pass(x.cutting_speed),
             last_pass(x.feed_set), last_pass(x.pass_time), chip(x), float(push[k]), last_pass(x.size_error))
        for k in range(cut.depth.size)
    )  # fmt: skip


def cautions(x: Numbers) -> Iterator[Warning]:
    """Warnings in no order."""
    setup, machine = x.setup, x.setup.machine
    f, t, s = setup.feature, setup.feature.thread, setup.settings
    if feed_for(t.left_hand, setup.turns) is not setup.feeds:
        made, asked = ("right", "left") if t.left_hand else ("left", "right")
        text = f"Spindle {setup.turns.value} and feed {setup.feeds.value} make a {made}-hand thread: the drawing asks a {asked}-hand one."
        yield Warning("hand", text, "blocks")
    if setup.turns is not turns_for(setup.holder.hand):
        own = "left" if setup.holder.hand == "L" else "right"
        text = f"A {own}-hand tool with its face up cuts with the spindle {turns_for(setup.holder.hand).value}."
        yield Warning("face", text, "blocks")
    if setup.lean < 0:
        text = f"Thread and tool are of two hands: the seat leans against the lead, {setup.lean:.1f}° is needed."
        yield Warning("lean", text, "care")
    if setup.feeds is Feeds.AWAY:
        yield Warning("away", "The feed runs away from the chuck: it begins in the groove behind the thread, and needs one there.", "care")
    if setup.turns is Turns.REVERSE:
        text = "Turning in reverse can unscrew a chuck that is held by a thread: only one that is locked on its spindle."
        yield Warning("reverse", text, "care")
    if not setup.insert.full:
        yield Warning("partial", "A partial profile leaves the crest as it was turned: turn it to size, and take the burr off.", "note")
    else:
        yield Warning("topping", "A full profile tops the crest: leave 0.05 to 0.1 mm on it; no burr stays.", "note")
    if s.spring and setup.work.material.work_hardening > HARDENS:
        yield Warning("spring", "This metal hardens as it is cut: a spring pass only rubs and hardens it more.", "care")
    if setup.work.material.group.letter == "H" and setup.insert.grade.tool_class not in ("cbn", "ceramic"):
        yield Warning("hard_edge", "Hardened metal is threaded with CBN, at 100 to 160 m/min in thin passes, dry.", "care")
    if f.internal and f.there <= 0:
        yield Warning("no_hole", f"No bore is there yet: bore Ø{setup.there:.4g} mm first.", "blocks")
    if not machine.takes_shank(setup.holder.height, setup.holder.internal):
        yield Warning("seat", f"{setup.holder.name} does not sit on {machine.name}, which seats {machine.shank_height:g} mm.", "blocks")
    if setup.batch.part_value:
        text = f"The part is worth {setup.batch.part_value:.2f} {currency()} here: {last_pass(x.at_risk):.3f} per piece at risk."
        yield Warning("risk", text, "note")
    text = "Constant speed of the spindle through all passes, never constant surface speed; nobody touches chips or the turning thread."
    yield Warning("spindle", text, "note")


class TurnThreadScene(TypedDict):
    """What its drawing needs: mm and degrees."""

    operation: str
    internal: str
    diameter: float
    there: float
    root: float
    pitch: float
    lead: float
    length: float
    relief: float
    through: str
    turns: str
    feeds: str
    hand: str
    tool_hand: str
    tilt: float
    lean: float
    lead_angle: float
    tip: float
    slope_leading: float
    slope_trailing: float
    run_in: float
    run_out: float
    bend: float


def scene(x: Numbers) -> TurnThreadScene:
    """What the drawing needs, mm."""
    setup, f = x.setup, x.setup.feature
    t = f.thread
    return {
        "operation": setup.operation,
        "internal": "yes" if f.internal else "no",
        "diameter": t.diameter,
        "there": setup.there,
        "root": t.inside_root if f.internal else t.root_diameter,
        "pitch": t.pitch,
        "lead": t.lead,
        "length": f.length,
        "relief": f.relief,
        "through": "yes" if f.through else "no",
        "turns": "forward" if setup.turns is Turns.FORWARD else "reverse",
        "feeds": "towards" if setup.feeds is Feeds.TOWARDS else "away",
        "hand": "left" if t.left_hand else "right",
        "tool_hand": setup.holder.hand,
        "tilt": setup.tilt,
        "lean": setup.lean,
        "lead_angle": t.lead_angle,
        "tip": x.groove.tip,
        "slope_leading": x.groove.slopes[0],
        "slope_trailing": x.groove.slopes[1],
        "run_in": last_pass(x.run_in),
        "run_out": last_pass(x.run_out),
        "bend": last_pass(x.bend),
    }
