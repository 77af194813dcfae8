"""Limits of a tapped thread as data: speed, hole, depth and chips, torque against tap, holder and spindle, hardness, life."""

from __future__ import annotations

import numpy as np

from cutting.operations.frame import common_limits
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.threads.shared.feature import OPEN_END
from cutting.operations.threads.tap.numbers import Numbers
from cutting.operations.threads.tap.setup import TapHolding
from cutting.operations.threads.tap.tool import Array
from cutting.working import Line, line
from cutting.working.line import COMMON

LEAST_SPEED = 0.35  # of the book's lowest (as drilled)
LEAST_MARGIN, WANTED_MARGIN = 1.25, 2.0  # of the torque that breaks it over the worn torque (common practice)
SQUARE_FROM = 4.0  # mm from which a tap's shank has a square that a collet for taps drives (common practice)
IN_SUPERALLOYS = 8.0
FORMED_STRENGTH = 1200.0  # N/mm² up to which threads are formed (common practice)
LONG_CHIPS = 0.35  # ductility from which chips are long (common practice)
DRIVES_ON = 2.0  # of the clutch's torque a tap should stand


def forms(x: Numbers) -> bool:
    """Whether any of its taps presses the thread."""
    return bool(np.any(x.tool.own["type_forms"] > 0))


def tougher_in(x: Numbers) -> Array:
    """HRC by which more is cut in titanium and nickel, where nothing is formed.

    What is told of a tap is of steel, whose carbides wear it (common practice).
    """
    return np.where(x.tool.own["type_forms"] > 0, 0.0, IN_SUPERALLOYS if x.setup.work.material.group.letter == "S" else 0.0)


def left_over(x: Numbers) -> Line:
    """How many times its torque breaks the tap."""
    return line("{breaking_torque}/{torque}", breaking_torque=x.breaking, torque=x.torque)


RULES: tuple[Rule[Numbers], ...] = (
    common_limits.book_speed(
        "The row of tapping speeds for tool material and metal; above it edges burn, far below they tear.", LEAST_SPEED, contour=True),
    Rule("core_hole", "tapping hole Ø", "size", Bound.WINDOW, Severity.HARD, "iso-965-1",
         "Cut: the crest's own limits. Formed: between 55 and 75 % of thread; a wider hole stays empty, a smaller one breaks the tap.",
         lambda x: (x.tool.hole, x.tool.hole_low, x.tool.hole_high)),
    Rule("depth", "tapping hole depth", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "The chamfer does not cut full thread, and a tap that meets the floor breaks.",
         lambda x: (x.way_needed, None, x.way_there), (), lambda x: x.setup.feature.room < OPEN_END),
    Rule("reach", "tap reach", "length", Bound.UPPER, Severity.HARD, "iso-13399",
         "What stands behind its threads does not enter.",
         lambda x: (x.setup.feature.length + 0.5 * x.tool.own["chamfer_threads"] * x.setup.feature.thread.pitch, None,
                    x.tool.own["reach"])),
    Rule("chips_down", "chip room, blind", "length", Bound.LOWER, Severity.HARD, "common-practice",
         "A spiral point pushes its chips ahead: blind, they need as much room below as two thirds of the thread.",
         lambda x: (np.where(x.tool.down > 0, x.way_there - x.setup.feature.length, 1e6), 0.67 * x.setup.feature.length, None), (),
         lambda x: (x.tool.down > 0) & (not x.setup.feature.through)),
    Rule("chips", "chip evacuation", "share", Bound.UPPER, Severity.SOFT, "common-practice",
         "Deeper than so many diameters chips pack in the flutes and jam on the way back.",
         lambda x: (100.0 * x.chip_depth, None, 100.0)),
    Rule("long_chips", "ductility, chips that stay in straight flutes", "number", Bound.UPPER, Severity.SOFT, "common-practice",
         "Straight flutes hold their chips: only short ones, or thread no longer than its diameter.",
         lambda x: (x.setup.work.material.ductility + 0.0 * x.torque, None, LONG_CHIPS), (),
         lambda x: (x.tool.stays > 0) & (x.setup.feature.length > x.tool.own["diameter"])),
    Rule("twist", "tap torque, worn", "torque", Bound.UPPER, Severity.HARD, "beam-theory",
         "The core twists off beyond it.", lambda x: (x.torque, None, x.breaking / LEAST_MARGIN), ("specific_force", "torque"),
         spare=lambda x: LEAST_MARGIN, bounded=("breaking_torque",),
         bound_ends=lambda x: line("{breaking_torque}/{least_margin}", COMMON, breaking_torque=x.breaking, least_margin=LEAST_MARGIN)),
    Rule("margin", "tap safety factor", "number", Bound.LOWER, Severity.SOFT, "common-practice",
         "Two or more leave room for a hard spot and a chip that jams.", lambda x: (x.margin, WANTED_MARGIN, None),
         ("torque", "breaking_torque"), ends=left_over),
    Rule("clutch", "clutch torque", "torque", Bound.UPPER, Severity.HARD, "common-practice",
         "The clutch slips before the thread is done.", lambda x: (x.torque, None, x.setup.settings.clutch), ("torque",),
         lambda x: x.setup.settings.clutch is not None),
    Rule("clutch_saves", "clutch setting", "torque", Bound.UPPER, Severity.SOFT, "common-practice",
         "A clutch above what breaks the tap saves nothing.",
         lambda x: (x.setup.settings.clutch or 0.0, None, x.breaking), (), lambda x: x.setup.settings.clutch is not None),
    Rule("chuck_grip", "toolholder torque", "torque", Bound.UPPER, Severity.HARD, "common-practice",
         "A shank that slips tears the thread.", lambda x: (x.torque, None, x.tool.grip / x.setup.house.grip_safety), ("torque",),
         lambda x: (x.tool.own["chuck_squares"] <= 0) | (x.tool.own["diameter"] < SQUARE_FROM),
         spare=common_limits.house_grip, bound_ends=common_limits.chuck_keeps),
    Rule("spindle_torque", "spindle torque", "torque", Bound.UPPER, Severity.HARD, "machine-data",
         "What the spindle gives at this speed.", lambda x: (x.torque, None, x.available), ("torque",), contour=True),
    Rule("feed_drive", "feed, speed × lead", "feed_rate", Bound.UPPER, Severity.HARD, "machine-data",
         "The feed must follow the spindle.", lambda x: (x.feed_rate, None, x.setup.machine.feed_rate_max), (),
         lambda x: x.setup.settings.held is not TapHolding.FLOATING and x.setup.machine.feed_rate_max > 0),
    Rule("hardness", "hardness, HRC", "number", Bound.UPPER, Severity.HARD, "common-practice",
         "Harder than it is made for, teeth break out.", lambda x: (x.hardness, None, x.tool.own["hardest"] + tougher_in(x)), (),
         lambda x: x.hardness > 0),
    Rule("forming", "ductility for forming", "number", Bound.LOWER, Severity.HARD, "common-practice",
         "Metal that does not flow tears instead of forming a crest: from about 8 to 10 % of elongation.",
         lambda x: (x.setup.work.material.ductility + 0.0 * x.torque, x.tool.own["type_ductility"], None), (),
         lambda x: x.tool.own["type_forms"] > 0),
    Rule("formed_strength", "strength for forming", "stress", Bound.UPPER, Severity.HARD, "common-practice",
         "Above it forming takes too much torque.", lambda x: (x.work_strength, None, FORMED_STRENGTH), (),
         lambda x: x.tool.own["type_forms"] > 0),
    Rule("gauge", "gauge acceptance", "share", Bound.LOWER, Severity.SOFT, "common-practice",
         "A tap makes its own size: how far threads differ against the class.", lambda x: (100.0 * x.certainty, 99.0, None)),
    common_limits.life("tap"),
    common_limits.secure(),
)  # fmt: skip
