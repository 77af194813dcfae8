"""Limits of a face groove as data: the blade's diameter range, clearances, reach, feed, bending, power, life."""

from __future__ import annotations

from cutting.operations.face_groove.numbers import Numbers
from cutting.operations.face_groove.setup import Way
from cutting.operations.narrow.slot_chip import deepest_slot
from cutting.operations.outcome import Bound, Severity
from cutting.operations.trial.rule import Rule

DROP, SIDE_BEND = 0.10, 0.10  # mm (common practice)
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
    Rule("corner_radius", "corner radius", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "The insert's corner stays in the groove's corner.",
         lambda x: (x.setup.insert.corner_radius, None, x.setup.feature.corner_radius), (),
         lambda x: x.setup.feature.corner_radius is not None),
    Rule("plunge_feed", "feed for this width", "feed_per_rev", Bound.WINDOW, Severity.HARD, "common-practice",
         "Seven tenths of an outside groove's window: the chip leaves sideways past a curved wall.",
         lambda x: (x.setup.feed, *x.feeds)),
    Rule("book_speed", "book window, speed", "cutting_speed", Bound.UPPER, Severity.HARD, "common-practice",
         "Slower than an outside groove: walls and chips hold the heat.",
         lambda x: (x.setup.settings.cutting_speed, 0.4 * x.lasting.book_high, x.lasting.book_high)),
    Rule("side_load", "side load on the seat", "force", Bound.UPPER, Severity.HARD, "common-practice",
         "A cut across loads the thin blade sideways.",
         lambda x: (x.setup.house.wear_factor * x.side_force, None, x.setup.blade.side_rating(x.setup.insert.width)),
         ("feed_force",), lambda x: x.side_force > 0),
    Rule("bends_sideways", "blade leans sideways", "length", Bound.UPPER, Severity.HARD, "roark",
         "Leaning takes the air between flank and wall.",
         lambda x: (x.sideways, None, SIDE_BEND), (), lambda x: x.side_force > 0),
    Rule("bends_down", "tip bends down", "length", Bound.UPPER, Severity.HARD, "roark",
         "The cutting force bends the blade down; the tip leaves its height.",
         lambda x: (x.down, None, DROP), ("specific_force", "cutting_force")),
    Rule("spindle_power", "spindle power, worn", "power", Bound.UPPER, Severity.HARD, "kienzle-1952",
         "The spindle must drive the worn edge.", lambda x: (x.power, None, x.available), ("cutting_force", "cutting_power")),
    Rule("jaw_grip", "grip, torque", "torque", Bound.UPPER, Severity.HARD, "vdi-3106",
         "Jaws lose grip at speed; the part must not turn in them.",
         lambda x: (x.torque, None, x.grip / x.setup.house.grip_safety), ("cutting_force", "torque", "grip_torque"),
         lambda x: x.grip > 0),
    Rule("dwell", "dwell at the floor, turns", "number", Bound.UPPER, Severity.SOFT, "common-practice",
         "One to two turns round the floor off; longer only rubs.", lambda x: (x.setup.settings.dwell, None, 2.0)),
    Rule("crowding", "slot depth over width", "number", Bound.UPPER, Severity.SOFT, "common-practice",
         "In a deep narrow slot the chips crowd; coolant through the tool lets it be deeper.",
         lambda x: (x.setup.depth / x.setup.insert.width, None, deepest_slot(x.pressure)), (),
         lambda x: x.setup.settings.way is Way.INWARDS),
    Rule("life", "life, pieces per edge", "count", Bound.LOWER, Severity.SOFT, "taylor-1907",
         "An edge should last at least one piece.", lambda x: (x.change_parts, 1.0, None), ("tool_life", "weibull_shape")),
    Rule("secure", "secure run", "share", Bound.LOWER, Severity.SOFT, "weibull-1951",
         "Probability that the run to the next planned edge change ends without a stop.",
         lambda x: (100 * x.secure, 97 * x.setup.house.change_probability(x.setup.goal), None), ("weibull_shape",)),
)  # fmt: skip
