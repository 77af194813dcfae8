"""Limits of a groove as data: reach, width, corner, feed, side load, bending, springing, chatter, power, life."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Read, Rule
from cutting.operations.slots.groove.numbers import Numbers
from cutting.operations.slots.groove.setup import LAYER_MOST, GrooveWay
from cutting.operations.slots.shared.rules import (
    BENDS_DOWN,
    BOOK_SPEED,
    CORNER_RADIUS,
    CORNERS_LEFT,
    CROWDING,
    DWELL,
    FINISH,
    JAW_GRIP,
    LIFE,
    PLUNGE_FEED,
    SECURE,
    SIDE_BEND,
    SIDE_LOAD,
    SPINDLE_POWER,
    TOUGHNESS,
    bent,
)
from cutting.working import in_words

STEEPEST_RAMP = 15.0  # degrees (common practice: 3 to 10 are usual)
BAR_OVERHANG, BLADE_OVERHANG = 4.0, 1.25  # steel bar: × its diameter; blade: × its height (common practice)


DAMPED = in_words("b_lim·g_d", "altintas-2012")


def _width(x: Numbers) -> Read:
    """One plunge is as wide as its insert: the drawing's limits less the insert's own tolerance."""
    f, tool = x.setup.feature, x.tool
    if (own := x.setup.settings.measured_width) is not None:
        return own, f.narrowest, f.widest
    return tool.width, f.narrowest, f.widest - tool.width_tolerance


def _overhang(x: Numbers) -> Read:
    tool = x.tool
    blade = np.maximum(BLADE_OVERHANG * tool.height * np.minimum(tool.stiffness, 1.0), x.setup.depth + 1.0)
    return tool.overhang, None, np.where(tool.round_shank > 0, BAR_OVERHANG * tool.round_shank, blade)


def _ramp(x: Numbers) -> Read:
    ramps = [abs(move.to_place - move.place) for move in x.strokes.order if move.kind == "ramp"]
    down = [move.to_depth - move.depth for move in x.strokes.order if move.kind == "ramp"]
    return np.degrees(np.arctan2(max(down, default=0.0), min(ramps, default=1.0))), None, STEEPEST_RAMP


def _size(x: Numbers) -> Read:
    house, tolerance = x.setup.house, x.setup.feature.floor.tolerance
    return x.size_error, None, house.share_of_tolerance * tolerance if tolerance else house.rough_size_error


RULES: tuple[Rule[Numbers], ...] = (
    Rule("reach", "reach", "length", Bound.UPPER, Severity.HARD, "machine-data",
         "The blade must reach the floor before its shoulder meets the surface, or a collar that stands beside the groove.",
         lambda x: (x.setup.way_down, None, x.tool.reach)),
    Rule("least_bore", "bar-to-bore size", "length", Bound.LOWER, Severity.HARD, "machine-data",
         "The bar with its edge must pass the bore.",
         lambda x: (x.setup.feature.diameter, x.tool.own.get("least_bore", 0.0), None), (), lambda x: x.setup.inside),
    Rule("width_fit", "width in one plunge", "size", Bound.WINDOW, Severity.HARD, "iso-286",
         "One plunge leaves the insert's width: all of its tolerance must lie inside the groove's.", _width, (),
         lambda x: x.setup.settings.way is GrooveWay.ONE),
    CORNERS_LEFT,
    replace(
        CORNER_RADIUS,
        read=lambda x: (x.tool.corner_radius, None, x.setup.feature.corner),
        applies=lambda x: not x.setup.corners_left,
    ),
    PLUNGE_FEED,
    BOOK_SPEED,
    Rule("layer_depth", "depth of a layer", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "Sideways a grooving edge takes at most about 0.7 of its width.",
         lambda x: (x.setup.layer, None, LAYER_MOST * x.tool.width), (), lambda x: x.strokes.sideways.any()),
    Rule("ramp_angle", "angle of the ramp", "angle", Bound.UPPER, Severity.HARD, "common-practice",
         "Steeper than this a ramp is a plunge: the whole front cuts, and its flank rubs.",
         _ramp, (), lambda x: x.setup.settings.way is GrooveWay.RAMP),
    SIDE_LOAD,
    Rule("bends_sideways", "blade deflection", "length", Bound.UPPER, Severity.HARD, "roark",
         "A cut sideways leans the blade until its front clears; too much of it makes the wall taper and the floor step.",
         lambda x: (x.sideways, None, SIDE_BEND), ("feed_force",), lambda x: x.side_force > 0,
         ends=lambda x: bent(x, x.side_force, x.tool.second_across, x.sideways)),
    Rule("overhang", "tool overhang", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "Reach no further than the groove needs.", _overhang),
    BENDS_DOWN,
    Rule("part_bends", "part deflection, floor Ø", "length", Bound.UPPER, Severity.HARD, "roark",
         "The last cut pushes the part away; the floor comes out larger by twice its deflection.", _size,
         ("specific_force", "cutting_force", "feed_force", "deflection", "size_error")),
    Rule("chatter", "chatter, width of plunge", "length", Bound.UPPER, Severity.HARD, "altintas-2012",
         "A plunge pushes straight at the part: beyond this width of edge each turn's waves feed the next.",
         lambda x: (x.widest_plunge, None, x.stable_width), (), lambda x: x.widest_plunge > 0,
         bounded=("specific_force", "force_slope", "stable_width", "damping_gain"), bound_ends=lambda x: DAMPED),
    SPINDLE_POWER,
    JAW_GRIP,
    FINISH,
    DWELL,
    replace(CROWDING, applies=lambda x: x.setup.settings.way in (GrooveWay.ONE, GrooveWay.SIDE_BY_SIDE)),
    TOUGHNESS,
    LIFE,
    SECURE,
)  # fmt: skip
