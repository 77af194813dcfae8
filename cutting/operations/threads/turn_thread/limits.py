"""Limits of a turned thread as data: speed and lead, passes, clearance of the flanks, run-out, springing, size, hardness, life."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.operations.frame import common_limits
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.frame.toughness import toughness_asked
from cutting.operations.threads.turn_thread.groove import whole_depth
from cutting.operations.threads.turn_thread.numbers import Numbers
from cutting.working import Line, in_words, line
from cutting.working.line import COMMON

LEAST_SPEED = 0.3  # of the book's lowest
LEAST_STEP, LEAST_HARDENING = 0.05, 0.08  # mm of the last step; in metals that harden as they are cut (common practice)
LEAST_CLEARANCE = 0.5  # ° beside a flank below which it rubs (common practice)
BY_HAND = 200.0  # 1/min at which a hand still opens the half nut before a shoulder (common practice: 120 to 200)
HARDENS = 0.5  # work hardening from which spring passes only rub (common practice)


TOPPED = 0.3  # mm on the diameter that a full profile takes off a crest (common practice: 0.05 to 0.2)


def crest(x: Numbers) -> tuple[Any, Any]:
    """Least and largest diameter [mm] that a thread of these limits may be cut into: a full profile tops what stands over its crest."""
    f = x.setup.feature
    zone = f.limits.minor if f.internal else f.limits.major
    low, high = zone.low or 0.0, zone.high or 1e6
    tops = TOPPED * x.tool.own["full"]
    return (low - tops, high) if f.internal else (low, high + tops)


def _last_step(x: Numbers) -> Any:
    steps = x.groove.infeed
    return float(steps[steps > 1e-9][-1]) + 0.0 * x.size_error


def heaviest(x: Numbers) -> Line:
    """Power of the pass that takes most."""
    force = x.cutting_force.max(axis=-1, keepdims=True)
    return line("{heaviest_pass}·{cutting_speed}/60000", heaviest_pass=force, cutting_speed=x.cutting_speed)


def stands_still(x: Numbers) -> Line:
    """The way in which the slide stops behind the thread."""
    return line("{run_in}/2 + {pitch}/2", COMMON, run_in=x.run_in, pitch=x.setup.feature.thread.pitch)


RULES: tuple[Rule[Numbers], ...] = (
    common_limits.book_speed("Half to four fifths of the turning speed: the tip is thin and shut in.", LEAST_SPEED),
    Rule("feed_drive", "feed, speed × lead", "feed_rate", Bound.UPPER, Severity.HARD, "machine-data",
         "The slide must follow the spindle.", lambda x: (x.feed_rate, None, x.setup.machine.feed_rate_max)),
    Rule("half_nut", "half-nut speed", "spindle_speed", Bound.UPPER, Severity.HARD, "common-practice",
         "Hand and half nut stop in time up to about 200 rpm, and only where a groove is there to stop in.",
         lambda x: (x.spindle_speed, None, BY_HAND), (), lambda x: x.setup.machine.geared and not x.setup.feature.through),
    Rule("run_out", "run-out groove", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "The slide needs so long to stand still; a groove that is shorter is run into its shoulder.",
         lambda x: (x.run_out, None, x.setup.feature.relief), ("run_in",),
         lambda x: x.setup.feature.relief > 0 and not x.setup.machine.geared, ends=stands_still),
    Rule("depth_share", "total infeed", "length", Bound.WINDOW, Severity.HARD, "geometry",
         "Passes one by one must add up to the thread's depth.",
         lambda x: (float(x.groove.depth[-1]) + 0.0 * x.size_error, 0.985 * whole_depth(x.setup), 1.015 * whole_depth(x.setup)), (),
         lambda x: bool(x.setup.settings.infeeds)),
    Rule("blank", "blank Ø", "length", Bound.WINDOW, Severity.HARD, "iso-965-1",
         "The crest's own limits; a full profile takes some tenths more off it. Wider, turn it down first; smaller, the crest is gone.",
         lambda x: (x.setup.there + 0.0 * x.size_error, *crest(x))),
    Rule("tip_load", "tip load", "edge_load", Bound.UPPER, Severity.HARD, "common-practice",
         "The heaviest pass breaks the tip: more passes, or the first one tamed.",
         lambda x: (x.load.max(axis=-1, keepdims=True), None, x.tool.own["stands"]), ("specific_force",),
         ends=lambda x: in_words("the heaviest pass: worn Fc over the edge that is in the metal")),
    Rule("last_step", "last infeed", "length", Bound.LOWER, Severity.SOFT, "common-practice",
         "Thinner the edge rubs; metals that harden as they are cut want more.",
         lambda x: (_last_step(x), LEAST_HARDENING if x.setup.work.material.work_hardening > HARDENS else LEAST_STEP, None)),
    Rule("leading", "leading clearance", "angle", Bound.LOWER, Severity.HARD, "geometry",
         "The lead turns the flank into the insert: a shim leans the seat with it.",
         lambda x: (x.clear_leading, LEAST_CLEARANCE, None)),
    Rule("trailing", "trailing clearance", "angle", Bound.LOWER, Severity.HARD, "geometry",
         "Leant too far, the other flank rubs.", lambda x: (x.clear_trailing, LEAST_CLEARANCE, None)),
    Rule("enters", "min. bore Ø", "length", Bound.UPPER, Severity.HARD, "iso-13399",
         "The bar with its insert must go in and back out of the thread.",
         lambda x: (x.tool.own["holder_least_bore"], None, x.setup.there), (), lambda x: x.setup.feature.internal),
    Rule("bends", "deflection, pitch Ø", "length", Bound.UPPER, Severity.SOFT, "beam-theory",
         "On the pitch diameter after the spring passes: set off by the offset, but uneven along a thin part.",
         lambda x: (np.abs(x.size_error), None, 0.5 * x.setup.feature.tolerance), (),
         ends=lambda x: in_words("2·(bar and part as beams under the last pass's push), less after each spring pass")),
    Rule("tolerance", "pitch Ø tolerance", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "Setting, and a third of the springing that is set off.", lambda x: (x.width, None, x.setup.feature.tolerance)),
    common_limits.spindle_power(
        "What the heaviest pass takes.", "specific_force", ends=heaviest,
        read=lambda x: (x.power.max(axis=-1, keepdims=True), None, x.available)),
    Rule("hardness", "hardness, HRC", "number", Bound.UPPER, Severity.HARD, "common-practice",
         "Harder than its tool material cuts: CBN to 65 HRC.", lambda x: (x.hardness, None, x.tool.own["hardest"]), (),
         lambda x: x.hardness > 0),
    Rule("toughness", "edge toughness", "number", Bound.LOWER, Severity.SOFT, "common-practice",
         "Blows, skin and a loose machine chip brittle tips.",
         lambda x: (x.tool.toughness, toughness_asked(x.setup, x.tool.overhang / x.tool.own["holder_height"]), None)),
    common_limits.life(),
    common_limits.secure(),
)  # fmt: skip
