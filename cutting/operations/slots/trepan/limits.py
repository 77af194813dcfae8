"""Limits of a trepanned ring as data: reach, the head's range, feed, power, bending, the changer's mass, life."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from cutting.operations.frame.common_limits import power_of_torque
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.slots.shared.rules import (
    BENDS_DOWN,
    BOOK_SPEED,
    LIFE,
    PLUNGE_FEED,
    REACH,
    SECURE,
    SIDE_BEND,
    SPINDLE_POWER,
    TOUGHNESS,
    bent,
)
from cutting.operations.slots.trepan.numbers import Numbers

RULES: tuple[Rule[Numbers], ...] = (
    replace(REACH, why="The cartridges must reach through before the head meets the plate."),
    Rule("head_range", "Ø that the head cuts", "length", Bound.WINDOW, Severity.HARD, "iso-13399",
         "Cartridges are set between the head's least and largest diameter (DCN to DCX); their curve is made for it.",
         lambda x: (x.outer_diameter, x.tool.own["head_low"], x.tool.own["head_high"])),
    Rule("second_range", "Ø of the second ring", "length", Bound.LOWER, Severity.HARD, "iso-13399",
         "The other cartridge is curved for the head's range too (DCN): a smaller ring would rub its outside.",
         lambda x: (x.second, x.tool.own["head_low"], None), (), lambda x: np.asarray(x.second > 0)),
    replace(
        PLUNGE_FEED, label="feed per edge", kind="feed_per_tooth",
        why="Seven tenths of an outside groove's window, for each edge that shares the feed.",
        read=lambda x: (x.feed / x.setup.effective_edges, *x.feeds),
    ),
    replace(BOOK_SPEED, why="Slower than an outside groove: ring and chips hold the heat."),
    replace(SPINDLE_POWER, ends=power_of_torque),
    Rule("bends_sideways", "cartridge deflection, side", "length", Bound.UPPER, Severity.HARD, "roark",
         "One edge is pushed aside by its own chip; two on one radius hold each other.",
         lambda x: (x.sideways, None, SIDE_BEND), ("feed_force",),
         ends=lambda x: bent(x, x.side_force, x.tool.second_across, x.sideways)),
    replace(BENDS_DOWN, label="cartridge deflection"),
    Rule("changer_mass", "tool mass", "mass", Bound.UPPER, Severity.HARD, "machine-data",
         "A head that the changer cannot carry is loaded by hand, with a helper or a hoist.",
         lambda x: (x.tool.own["mass"], None, x.setup.machine.changer_mass), (),
         lambda x: (x.setup.machine.changer_mass > 0) & (x.tool.own["mass"] > 0)),
    TOUGHNESS,
    LIFE,
    SECURE,
)  # fmt: skip
