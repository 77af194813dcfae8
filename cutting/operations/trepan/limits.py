"""Limits of a trepanned ring as data: reach, the head's range, feed, power, bending, the changer's mass, life."""

from __future__ import annotations

from cutting.operations.outcome import Bound, Severity
from cutting.operations.trepan.numbers import Numbers
from cutting.operations.trial.rule import Rule

DROP, SIDE_BEND = 0.10, 0.10  # mm (common practice)

RULES: tuple[Rule[Numbers], ...] = (
    Rule("reach", "reach", "length", Bound.UPPER, Severity.HARD, "machine-data",
         "The cartridges must reach through before the head meets the plate.",
         lambda x: (x.setup.depth, None, min(x.setup.blade.reach, x.setup.insert.reach))),
    Rule("head_range", "Ø that the head cuts", "length", Bound.WINDOW, Severity.HARD, "iso-13399",
         "Cartridges are set between the head's least and largest diameter (DCN to DCX); their curve is made for it.",
         lambda x: (x.setup.outer_diameter, x.setup.blade.head_low, x.setup.blade.head_high)),
    Rule("plunge_feed", "feed per edge", "feed_per_rev", Bound.WINDOW, Severity.HARD, "common-practice",
         "Seven tenths of an outside groove's window, for each edge that shares the feed.",
         lambda x: (x.setup.feed / x.setup.effective_edges, *x.feeds)),
    Rule("book_speed", "book window, speed", "cutting_speed", Bound.UPPER, Severity.HARD, "common-practice",
         "Slower than an outside groove: ring and chips hold the heat.",
         lambda x: (x.setup.settings.cutting_speed, 0.4 * x.lasting.book_high, x.lasting.book_high)),
    Rule("spindle_power", "spindle power, worn", "power", Bound.UPPER, Severity.HARD, "kienzle-1952",
         "The spindle must drive the worn edges.", lambda x: (x.power, None, x.available), ("specific_force", "torque")),
    Rule("bends_sideways", "cartridge leans", "length", Bound.UPPER, Severity.HARD, "roark",
         "One edge is pushed aside by its own chip; two on one radius hold each other.",
         lambda x: (x.sideways, None, SIDE_BEND), ("feed_force",)),
    Rule("bends_down", "cartridge bends back", "length", Bound.UPPER, Severity.HARD, "roark",
         "The cutting force bends the cartridge back.", lambda x: (x.down, None, DROP), ("specific_force", "cutting_force")),
    Rule("changer_mass", "mass for the tool changer", "number", Bound.UPPER, Severity.HARD, "machine-data",
         "A head that the changer cannot carry is loaded by hand, with a helper or a hoist.",
         lambda x: (x.setup.blade.mass, None, x.setup.machine.changer_mass), (),
         lambda x: x.setup.machine.changer_mass > 0 and x.setup.blade.mass > 0),
    Rule("life", "life, pieces per edge", "count", Bound.LOWER, Severity.SOFT, "taylor-1907",
         "An edge should last at least one piece.", lambda x: (x.change_parts, 1.0, None), ("tool_life", "weibull_shape")),
    Rule("secure", "secure run", "share", Bound.LOWER, Severity.SOFT, "weibull-1951",
         "Probability that the run to the next planned edge change ends without a stop.",
         lambda x: (100 * x.secure, 97 * x.setup.house.change_probability(x.setup.goal), None), ("weibull_shape",)),
)  # fmt: skip
