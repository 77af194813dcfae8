"""Limits of a milled thread as data: speed, chip, size of the mill, reach, hardness, bending, taper, flanks, coolant, life."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.operations.frame import common_limits
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.frame.toughness import toughness_asked
from cutting.operations.threads.mill_thread.numbers import CHILLS_FROM, Numbers
from cutting.operations.threads.mill_thread.tool import WIDEST
from cutting.operations.threads.shared.feature import OPEN_END
from cutting.working import Line, in_words, line
from cutting.working.line import COMMON

LEAST_SPEED, LEAST_FEED = 0.35, 0.4  # of the book's lowest (as drilled)
MINIMUM_CHIP = 0.25  # of the edge's radius (as drilled)
EDGE_RADIUS = 0.004  # mm of a ground thread mill (common practice)
TOO_WIDE = 0.9  # of the thread's diameter beyond which flanks are lost whatever is set off (common practice)
BELOW = 1.0  # pitches that a blind hole must leave below the thread, more where the mill comes in from below
SLOWED = 0.999  # of the feed rate: below it the machine, not the thread, holds the feed


def finds_hole(x: Numbers) -> Any:
    """Whether a hole is there, or drilled, for each of its mills."""
    return x.tool.hole > 0


TAPERS = "the bent mill at the floor less at the mouth, on the pitch Ø, after repeats"
OFF_MIDDLE = "push-off less the flank error, on the pitch Ø, less twice the path's offset"


def on_flank(x: Numbers) -> Line:
    """The chip on the flank: as thin as its angle makes it."""
    half = x.setup.feature.thread.half_angles[0]
    return line("{chip_thickness}·sin({flank})", chip_thickness=x.chip_thickness / np.sin(np.radians(half)), flank=half)


def middle_fed(x: Numbers) -> Line:
    """Feed of the mill's middle: slower where its front drills at the same time."""
    whole = x.feed_rate * (x.setup.feature.thread.diameter - x.tool.own["diameter"]) / x.setup.feature.thread.diameter
    text = "{middle}·{share_while_it_drills}" if np.any(x.centre_rate < SLOWED * whole) else "{middle}"
    return line(text, middle=whole, share_while_it_drills=x.centre_rate / whole)


RULES: tuple[Rule[Numbers], ...] = (
    common_limits.book_speed("The row of milling speeds for tool material and metal.", LEAST_SPEED),
    Rule("book_feed", "feed at the wall", "feed_per_tooth", Bound.WINDOW, Severity.HARD, "common-practice",
         "Thin teeth of a profile: below they rub, above they chip.",
         lambda x: (x.feed_set, LEAST_FEED * x.tool.feed_low, x.tool.feed_high), free_below=True),
    Rule("chip", "chip on the flank", "small_length", Bound.LOWER, Severity.SOFT, "brammertz-1961",
         "Thinner than a quarter of the edge's radius a tooth presses instead of cutting.",
         lambda x: (1000.0 * x.chip_thickness, 1000.0 * MINIMUM_CHIP * EDGE_RADIUS, None), ("chip_thickness",),
         ends=lambda x: line("1000·{on_the_flank}", on_the_flank=x.chip_thickness)),
    Rule("widest", "mill-to-thread ratio", "share", Bound.UPPER, Severity.SOFT, "common-practice",
         "Two thirds to three quarters: a wider mill cuts away the flanks, and chips have no room.",
         lambda x: (100.0 * x.ratio, None, 100.0 * (WIDEST + 0.03))),
    Rule("too_wide", "max. mill-to-thread", "share", Bound.UPPER, Severity.HARD, "common-practice",
         "Beyond, the flanks are lost whatever the path is set off.", lambda x: (100.0 * x.ratio, None, 100.0 * TOO_WIDE)),
    Rule("enters", "mill-to-hole ratio", "length", Bound.UPPER, Severity.HARD, "geometry",
         "It must come in and leave room for its arc.",
         lambda x: (x.tool.own["diameter"], None, np.maximum(x.tool.hole - 0.1, 1e-6)), (), finds_hole),
    Rule("core_hole", "tapping hole Ø", "size", Bound.WINDOW, Severity.HARD, "iso-965-1", "The crest's own limits.",
         lambda x: (x.tool.hole, x.setup.feature.limits.minor.low, x.setup.feature.limits.minor.high), (),
         lambda x: finds_hole(x) & (x.setup.feature.limits.minor.low is not None)),
    Rule("reach", "mill reach", "length", Bound.UPPER, Severity.HARD, "iso-13399", "What stands behind its teeth does not enter.",
         lambda x: (x.setup.feature.length + 0.5 * x.setup.feature.thread.pitch, None, x.tool.own["reach"])),
    Rule("depth", "hole below thread", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "A mill's last tooth stands a pitch below the thread.",
         lambda x: (x.setup.feature.length + BELOW * x.setup.feature.thread.pitch + 0.0 * x.bend, None, x.setup.feature.room), (),
         lambda x: x.setup.feature.room < OPEN_END),
    Rule("deepest", "depth over diameter", "times_diameter", Bound.UPPER, Severity.HARD, "common-practice",
         "So deep its kind mills without leaning: 2.5 diameters with many rows, 4 with three teeth or one row.",
         lambda x: (x.setup.feature.length / x.setup.feature.thread.diameter + 0.0 * x.bend, None, x.tool.own["type_deepest"])),
    Rule("fixed_depth", "drill part depth", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "A drill thread mill drills as deep as it is long to its chamfer: the thread must fit into that length.",
         lambda x: (x.setup.feature.length + 1.0 * x.setup.feature.thread.pitch, None, np.maximum(x.tool.own["step"], 1e-6)), (),
         lambda x: (x.tool.own["type_first"] > 0) & (x.tool.own["step"] > 0)),
    Rule("hardness", "hardness, HRC", "number", Bound.UPPER, Severity.HARD, "common-practice",
         "Harder than it is made for, teeth break out.", lambda x: (x.hardness, None, x.tool.own["hardest"]), (), lambda x: x.hardness > 0),
    Rule("body", "bending of the neck", "share", Bound.UPPER, Severity.HARD, "common-practice",
         "Stress at the seat, of what carbide stands for long.",
         lambda x: (100.0 * x.bend / x.tool.own["type_bends_at"], None, 100.0), ("push_off",),
         ends=lambda x: line("100·{stress_at_the_seat}/{stands}", COMMON, stress_at_the_seat=x.bend, stands=x.tool.own["type_bends_at"])),
    Rule("taper", "taper, pitch Ø", "length", Bound.UPPER, Severity.HARD, "beam-theory",
         "Bent over its length a mill leaves the thread tight at the floor: more radial passes, a repeat at size, or three teeth.",
         lambda x: (x.taper, None, 0.5 * x.setup.feature.tolerance), ("push_off",),
         ends=lambda x: in_words(TAPERS)),
    Rule("tolerance", "pitch Ø tolerance", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "Circle of the machine, a third of the push-off, taper, and what of the flank error is an angle.",
         lambda x: (x.width, None, x.setup.feature.tolerance), ("push_off", "flank_error"),
         ends=lambda x: in_words("circle of the axes, a third of the push-off, taper, and half of what is left of the flank's angle")),
    Rule("setting", "pitch Ø error", "length", Bound.UPPER, Severity.SOFT, "geometry",
         "Flank error makes the thread wide, push-off makes it tight: the path's offset takes both back.",
         lambda x: (np.abs(x.size_error), None, 0.25 * x.setup.feature.tolerance), ("flank_error", "push_off"),
         ends=lambda x: in_words(OFF_MIDDLE)),
    common_limits.spindle_power("What the removal takes of the spindle.", "removal_rate", "specific_force", "cutting_power"),
    Rule("chuck_grip", "toolholder torque", "torque", Bound.UPPER, Severity.HARD, "common-practice",
         "A mill that slips is pulled out of its chuck.", lambda x: (x.torque, None, x.tool.grip / x.setup.house.grip_safety),
         ("cutting_power",),
         spare=common_limits.house_grip, ends=common_limits.torque_of_power, bound_ends=common_limits.chuck_keeps),
    Rule("feed_drive", "tool-centre feed", "feed_rate", Bound.UPPER, Severity.HARD, "machine-data", "The axes move no faster.",
         lambda x: (x.centre_rate, None, x.setup.machine.feed_rate_max), ("centre_feed_rate",), ends=middle_fed),
    Rule("chill", "coolant on hot teeth, bar", "number", Bound.UPPER, Severity.SOFT, "common-practice",
         "Above about 54 HRC wet teeth crack as they cool: air. Below, emulsion washes the chips out.",
         lambda x: ((x.setup.machine.pressure(x.setup.settings.coolant) or 0.0) + 0.0 * x.bend, None, 0.5), (),
         lambda x: x.hardness > CHILLS_FROM),
    Rule("runout", "runout at the teeth", "length", Bound.UPPER, Severity.SOFT, "common-practice",
         "One tooth does the work of all where it runs out by half of its feed.",
         lambda x: (x.tool.runout, None, np.maximum(0.5 * x.feed_set, 0.01))),
    Rule("toughness", "edge toughness", "number", Bound.LOWER, Severity.SOFT, "common-practice",
         "Teeth come into the metal at every turn; a long mill and a loose machine chip brittle ones.",
         lambda x: (x.tool.toughness, toughness_asked(x.setup, x.tool.own["reach"] / x.tool.own["diameter"] - 1.0), None)),
    common_limits.life("mill"),
    common_limits.secure(),
)  # fmt: skip
