"""Limits of a face groove as data: the blade's diameter range, clearances, reach, feed, bending, power, life."""

from __future__ import annotations

from dataclasses import replace

from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.slots.face_groove.numbers import Numbers
from cutting.operations.slots.face_groove.setup import Way
from cutting.operations.slots.shared.rules import (
    BENDS_DOWN,
    CORNER_RADIUS,
    CROWDING,
    DWELL,
    JAW_GRIP,
    LIFE,
    SECURE,
    SIDE_BEND,
    SIDE_LOAD,
    SPINDLE_POWER,
)

BEYOND = 3.0  # mm that the reach may be set beyond the depth, at least the blade's own (common practice)
SHORTEST = 1.3  # × the blade's own shortest reach
ROOM = 0.5  # mm that blade and shank keep from hub and jaws (common practice)

RULES: tuple[Rule[Numbers], ...] = (
    Rule("first_plunge", "Ø of the first plunge", "length", Bound.WINDOW, Severity.HARD, "iso-13399",
         "A face blade is curved for a range of outer diameters (DAXN to DAXX): below it its outer flank rubs, above it the inner one.",
         lambda x: (x.first_diameter, x.setup.blade.face_low, x.setup.blade.face_high)),
    Rule("inner_diameter", "inner Ø of the first plunge", "length", Bound.LOWER, Severity.HARD, "iso-13399",
         "The blade's inner flank needs at least this diameter inside (DAXIN).",
         lambda x: (x.first_inner, x.setup.blade.face_inner, None), (), lambda x: x.setup.blade.face_inner > 0),
    Rule("reach", "reach", "length", Bound.UPPER, Severity.HARD, "machine-data",
         "The blade must reach the floor before its shoulder meets the face.",
         lambda x: (x.setup.depth, None, min(x.setup.blade.reach, x.setup.insert.reach))),
    Rule("reach_set", "reach set", "length", Bound.UPPER, Severity.SOFT, "common-practice",
         "Set no longer than the groove: what stands out bends and sings.",
         lambda x: (x.setup.overhang, None, max(x.setup.depth + BEYOND, SHORTEST * x.setup.blade.overhang))),
    Rule("hub", "room beside the hub", "length", Bound.LOWER, Severity.HARD, "machine-data",
         "The shank stands over its edge towards the axis: it must pass the hub.",
         lambda x: (x.hub_clearance or 0.0, ROOM, None), (), lambda x: x.hub_clearance is not None),
    Rule("jaws", "room beside the jaws", "length", Bound.LOWER, Severity.HARD, "machine-data",
         "Jaws that stand in front of the face must clear the blade.",
         lambda x: (x.jaw_clearance or 0.0, ROOM, None), (), lambda x: x.jaw_clearance is not None),
    CORNER_RADIUS,
    Rule("plunge_feed", "feed for this width", "feed_per_rev", Bound.WINDOW, Severity.HARD, "common-practice",
         "Seven tenths of an outside groove's window: the chip leaves sideways past a curved wall.",
         lambda x: (x.setup.feed, *x.feeds)),
    Rule("book_speed", "book window, speed", "cutting_speed", Bound.UPPER, Severity.HARD, "common-practice",
         "Slower than an outside groove: walls and chips hold the heat.",
         lambda x: (x.setup.settings.cutting_speed, 0.4 * x.lasting.book_high, x.lasting.book_high)),
    SIDE_LOAD,
    Rule("bends_sideways", "blade leans sideways", "length", Bound.UPPER, Severity.HARD, "roark",
         "Leaning takes the air between flank and wall.",
         lambda x: (x.sideways, None, SIDE_BEND), (), lambda x: x.side_force > 0),
    BENDS_DOWN,
    SPINDLE_POWER,
    JAW_GRIP,
    DWELL,
    replace(CROWDING, applies=lambda x: x.setup.settings.way is Way.INWARDS),
    LIFE,
    SECURE,
)  # fmt: skip
