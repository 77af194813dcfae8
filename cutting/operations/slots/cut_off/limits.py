"""Limits of a cut-off as data: reach, relief, width, feed, bending, face, pip, support, power, heat, life."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.frame.toughness import toughness_asked
from cutting.operations.slots.cut_off.numbers import Numbers
from cutting.operations.slots.shared.rules import (
    BENDS_DOWN,
    BOOK_SPEED,
    CROWDING,
    JAW_GRIP,
    LIFE,
    PLUNGE_FEED,
    REACH,
    SECURE,
    SPINDLE_POWER,
    TOUGHNESS,
)
from cutting.operations.slots.shared.slot_chip import deepest_slot
from cutting.working import Line, in_words, line
from cutting.working.line import COMMON

LEAN_RUB = 0.05  # mm that the blade's flank may eat into its clearance (common practice)
CENTRE = 0.1  # mm, height of the tip that cut-off forgives (common practice)
FOLDED, NARROWER = 0.9, 0.97  # of the slot's width that a folded chip has; and that it may have (common practice)
TO_THE_CENTRE = 0.35  # toughness that a cut to the centre asks more, its speed falls to nothing there: P20, not P10 (common practice)
WIDE = 1.25  # of the width that the trade takes for a bar, beyond which it is too much for it (common practice)
OVERHANG = 1.25  # × the blade's height: further out it whips (common practice)


def dished(x: Numbers) -> Line:
    """How far the tip wanders sideways on its way in, in words."""
    return in_words("largest less least of bending and lean on the way in")


def springs(x: Numbers) -> Line:
    """What gives of the bar where it is cut, in words."""
    return in_words("at the bush: nothing" if x.setup.holding.guide_bush else "bar as a cantilever, jaws and their tilt, under wear·Fc")


def _at_the_centre(x: Numbers) -> float:
    return 0.0 if x.setup.feature.bore > 0 else TO_THE_CENTRE


RULES: tuple[Rule[Numbers], ...] = (
    replace(REACH, why="The blade must reach the centre, or the bore, before its shoulder meets the bar."),
    Rule("support_relief", "relief of the blade", "length", Bound.UPPER, Severity.HARD, "machine-data",
         "A bar larger than the blade's relief clears fouls its support.",
         lambda x: (x.setup.feature.diameter, None, x.tool.own["largest_bar"])),
    Rule("width", "min. blade width", "length", Bound.LOWER, Severity.SOFT, "common-practice",
         "A narrower insert saves bar and force; too narrow for the diameter it leans and breaks.",
         lambda x: (x.tool.width, 0.75 * x.usual_width, None)),
    Rule("wide", "max. width", "length", Bound.UPPER, Severity.SOFT, "common-practice",
         "A wider insert than the bar wants pushes harder, wants more grip and takes more of the bar.",
         lambda x: (x.tool.width, None, WIDE * x.usual_width)),
    replace(PLUNGE_FEED, read=lambda x: (x.feed_set, *x.feeds)),
    replace(BOOK_SPEED, why="Cut-off runs at 0.6 to 0.8 of the turning speed: both walls hold the heat."),
    Rule("blade_overhang", "blade overhang", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "Reach no further than the cut needs: a blade far out whips and its insert breaks.",
         lambda x: (x.tool.overhang, None, np.maximum(OVERHANG * x.tool.height * np.minimum(x.tool.stiffness, 1.0), x.setup.depth + 1.0))),
    replace(BENDS_DOWN, ends=lambda x: in_words("the largest on the way in: wear·Fc·l_o³/(3·E·I) of each place")),
    Rule("bends_sideways", "blade deflection", "length", Bound.UPPER, Severity.HARD, "roark",
         "A slanted edge pushes the blade aside: it rubs one wall and dishes the face.",
         lambda x: (x.sideways, None, 0.3 * (x.tool.width - x.tool.thickness) / 2.0 + 0.01),
         ("feed_force", "side_force", "deflection"),
         bound_ends=lambda x: line("0.3·({insert_width} − {blade_thickness})/2 + 0.01", COMMON, insert_width=x.tool.width,
                                   blade_thickness=x.tool.thickness)),
    Rule("flatness", "face dish", "length", Bound.UPPER, Severity.HARD, "roark",
         "Bending and lean carry the tip aside on its way in.",
         lambda x: (x.flatness, None, x.setup.feature.flatness), ("feed_force", "side_force"),
         lambda x: x.setup.feature.flatness is not None, ends=dished),
    Rule("pip", "pip on the part", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "The stub that tears off when the part falls; a lead angle leaves it on the bar, a sub-spindle cuts it through.",
         lambda x: (x.pip_on_part, None, x.setup.feature.pip), (),
         lambda x: x.setup.feature.pip is not None and x.setup.feature.bore <= 0),
    Rule("bar_support", "bar deflection", "length", Bound.UPPER, Severity.HARD, "roark",
         "A bar far in front of collet or jaws is pushed away, climbs the blade and breaks the insert: support or shorten it.",
         lambda x: (x.bar_spring, None, x.setup.house.tool_bend), ("cutting_force",), ends=lambda x: springs(x)),
    Rule("centre_height", "tip off centre", "length", Bound.UPPER, Severity.SOFT, "common-practice",
         "Cut-off forgives 0.1 mm: the working angles turn by asin(2h/d), without end near the centre, and a pip of 2h stays.",
         lambda x: (abs(x.setup.settings.centre_height), None, CENTRE)),
    Rule("lean", "blade out of square", "length", Bound.UPPER, Severity.SOFT, "common-practice",
         "A blade that leans in its holder rubs one wall: lean times reach against its side clearance.",
         lambda x: (x.rub, None, LEAN_RUB)),
    SPINDLE_POWER,
    JAW_GRIP,
    Rule("chip_narrower", "chip width", "length", Bound.UPPER, Severity.SOFT, "common-practice",
         "A breaker folds the chip narrower than its slot; a bare edge leaves it as wide as the slot, where it jams.",
         lambda x: (x.tool.width * np.where(x.tool.breaker, FOLDED, 1.0), None, NARROWER * x.tool.width)),
    replace(CROWDING, read=lambda x: (x.setup.depth / x.slot, None, deepest_slot(x.pressure))),
    Rule("finish", "faces, Ra", "small_length", Bound.UPPER, Severity.HARD, "brammertz-1961",
         "Feed marks of the corner on both faces.",
         lambda x: (x.roughness, None, x.setup.feature.roughness), (), lambda x: x.setup.feature.roughness is not None),
    replace(
        TOUGHNESS,
        why="Blows, skin, and a cut to the centre, where speed falls to nothing, chip brittle edges: the ISO 513 number must stand them.",
        read=lambda x: (x.tool.toughness, toughness_asked(x.setup, x.tool.slenderness, _at_the_centre(x)), None),
    ),
    LIFE,
    SECURE,
)  # fmt: skip
