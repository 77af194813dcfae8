"""Limits of a face groove as data: the blade's diameter range, clearances, reach, feed, bending, power, life."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.slots.face_groove.numbers import Numbers
from cutting.operations.slots.face_groove.setup import FaceGrooveWay
from cutting.operations.slots.shared.rules import (
    BENDS_DOWN,
    BOOK_SPEED,
    CORNER_RADIUS,
    CORNERS_LEFT,
    CROWDING,
    DWELL,
    JAW_GRIP,
    LIFE,
    PLUNGE_FEED,
    REACH,
    SECURE,
    SIDE_BEND,
    SIDE_LOAD,
    SPINDLE_POWER,
    TOUGHNESS,
    bent,
)

BEYOND = 3.0  # mm that the reach may be set beyond the depth, at least the blade's own (common practice)
SHORTEST = 1.3  # × the blade's own shortest reach
ROOM = 0.5  # mm that blade and shank keep from hub and jaws (common practice)

RULES: tuple[Rule[Numbers], ...] = (
    Rule("first_plunge", "Ø, first plunge", "length", Bound.WINDOW, Severity.HARD, "iso-13399",
         "A face blade is curved for a range of outer diameters (DAXN to DAXX): below it its outer flank rubs, above it the inner one.",
         lambda x: (x.first_diameter, x.tool.own["face_low"], x.tool.own["face_high"])),
    Rule("inner_diameter", "inner Ø, first plunge", "length", Bound.LOWER, Severity.HARD, "iso-13399",
         "The blade's inner flank needs at least this diameter inside (DAXIN).",
         lambda x: (x.first_diameter - 2.0 * x.tool.width, x.tool.own["face_inner"], None), (), lambda x: x.tool.own["face_inner"] > 0),
    REACH,
    Rule("reach_set", "blade overhang", "length", Bound.UPPER, Severity.SOFT, "common-practice",
         "Set no longer than the groove: what stands out bends and sings.",
         lambda x: (x.tool.overhang, None, np.maximum(x.setup.depth + BEYOND, SHORTEST * x.tool.own_overhang))),
    Rule("hub", "hub clearance", "length", Bound.LOWER, Severity.HARD, "machine-data",
         "The shank stands over its edge towards the axis: it must pass the hub.",
         lambda x: (x.hub_clearance, ROOM, None), (), lambda x: ~np.isnan(x.hub_clearance)),
    Rule("jaws", "jaw clearance", "length", Bound.LOWER, Severity.HARD, "machine-data",
         "Jaws that stand in front of the face must clear the blade.",
         lambda x: (x.jaw_clearance, ROOM, None), (), lambda x: ~np.isnan(x.jaw_clearance)),
    replace(CORNER_RADIUS, applies=lambda x: x.setup.feature.corner_radius is not None and not x.setup.corners_left),
    CORNERS_LEFT,
    replace(PLUNGE_FEED, why="Seven tenths of an outside groove's window: the chip leaves sideways past a curved wall."),
    replace(BOOK_SPEED, why="Slower than an outside groove: walls and chips hold the heat."),
    SIDE_LOAD,
    Rule("bends_sideways", "blade deflection", "length", Bound.UPPER, Severity.HARD, "roark",
         "Leaning takes the air between flank and wall.",
         lambda x: (x.sideways, None, SIDE_BEND), ("feed_force",), lambda x: x.side_force > 0,
         ends=lambda x: bent(x, x.side_force, x.tool.second_across, x.sideways)),
    BENDS_DOWN,
    SPINDLE_POWER,
    JAW_GRIP,
    DWELL,
    replace(CROWDING, applies=lambda x: x.setup.settings.way is FaceGrooveWay.INWARDS),
    TOUGHNESS,
    LIFE,
    SECURE,
)  # fmt: skip
