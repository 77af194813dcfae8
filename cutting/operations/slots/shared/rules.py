"""Limits that hold for every narrow cut alike."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.mechanics.blade import STEEL_BLADE
from cutting.operations.frame import common_limits
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.frame.toughness import toughness_asked
from cutting.operations.slots.shared.slot_chip import deepest_slot
from cutting.working import Line, in_words, line

DROP = 0.10  # mm, how far the tip may bend down (common practice)
ALIKE = 0.005  # of a number: closer than this one stroke tells the whole way
SIDE_BEND = 0.10  # mm that a blade may lean while it is pushed aside (common practice)


LARGEST = in_words("the largest of all strokes")


def bent(x: Any, force: Any, second_moment: Any, bend: Any) -> Line:
    """A blade as a cantilever under the worn edge's force [N]; where the largest is another stroke's it is told in words."""
    house, tool = x.setup.house, x.tool
    modulus = STEEL_BLADE * tool.stiffness / x.setup.factors.get("give", 1.0)
    found = house.wear_factor * force * tool.overhang**3 / (3.0 * modulus * second_moment)
    if not np.allclose(found, bend, rtol=ALIKE):
        return in_words("the largest on the way: wear·Fc·l_o³/(3·E·I) of each place")
    return line(
        "{wear}·{force}·{overhang}³/(3·{elastic_modulus}·{second_moment})", "roark", wear=house.wear_factor, force=force,
        overhang=tool.overhang, elastic_modulus=modulus, second_moment=second_moment,
    )  # fmt: skip


def driven(x: Any) -> Line:
    """The worn edge's power; where it is the largest on a way with changing speed and force, that is told in words."""
    worn = x.setup.house.wear_factor
    if not np.allclose(worn * x.cutting_force * x.cutting_speed / 60_000.0, x.power, rtol=ALIKE):
        return in_words("the largest on the way: wear·Fc·vc/60000 of each place")
    text = "{wear}·{cutting_force}·{cutting_speed}/60000"
    return line(text, wear=worn, cutting_force=x.cutting_force, cutting_speed=x.cutting_speed)


def turned_by(x: Any) -> Line:
    """The worn edge's torque about the axis."""
    worn, diameter = x.setup.house.wear_factor, getattr(x.setup.feature, "diameter", 0.0)
    if not np.allclose(worn * x.cutting_force * diameter / 2000.0, x.torque, rtol=ALIKE):
        return in_words("the largest on the way: wear·Fc·d/2000 of each place")
    return line("{wear}·{cutting_force}·{diameter}/2000", wear=worn, cutting_force=x.cutting_force, diameter=diameter)


BENDS_DOWN: Rule[Any] = Rule(
    "bends_down", "tip deflection", "length", Bound.UPPER, Severity.HARD, "roark",
    "The cutting force bends the tool down; the tip leaves its height.",
    lambda x: (x.down, None, DROP), ("chip_thickness", "specific_force", "cutting_force"),
    ends=lambda x: bent(x, x.cutting_force, x.tool.second_upright, x.down),
)  # fmt: skip
SIDE_LOAD: Rule[Any] = Rule(
    "side_load", "side load on the seat", "force", Bound.UPPER, Severity.HARD, "common-practice",
    "A screw-clamped seat holds an edge against a cut sideways; one that only grips lets it tip and fly.",
    lambda x: (x.setup.house.wear_factor * x.side_force, None, x.tool.side_rating),
    ("feed_force",), lambda x: x.side_force > 0,
    ends=lambda x: line("{wear}·{side_force}", wear=x.setup.house.wear_factor, side_force=x.side_force),
)  # fmt: skip
CORNER_RADIUS: Rule[Any] = Rule(
    "corner_radius", "corner radius", "length", Bound.UPPER, Severity.HARD, "common-practice",
    "The insert's corner stays in the groove's corner; a ring or seal must not sit on it.",
    lambda x: (x.tool.corner_radius, None, x.setup.feature.corner_radius), (),
    lambda x: x.setup.feature.corner_radius is not None,
)  # fmt: skip
CORNERS_LEFT: Rule[Any] = Rule(
    "corners", "uncut corners", "length", Bound.UPPER, Severity.SOFT, "common-practice",
    "A full radius clears the groove and leaves more in its corners than the drawing lets stand: another tool must follow.",
    lambda x: (x.tool.corner_radius, None, x.setup.feature.corner), (), lambda x: x.setup.corners_left,
)  # fmt: skip
SPINDLE_POWER: Rule[Any] = common_limits.spindle_power(
    "The spindle must drive the worn edge.", "specific_force", "cutting_force", "cutting_power", ends=driven, turning=lambda x: x.driven_at
)
JAW_GRIP: Rule[Any] = Rule(
    "jaw_grip", "grip torque", "torque", Bound.UPPER, Severity.HARD, "vdi-3106",
    "Jaws lose grip as the spindle speeds up; the part must not turn in them.",
    lambda x: (x.torque, None, x.grip / x.setup.house.grip_safety), ("cutting_force", "torque"), lambda x: x.grip > 0,
    spare=common_limits.house_grip, bounded=("grip_torque",),
    bound_ends=common_limits.grip_kept(lambda x: x.grip), ends=turned_by)  # fmt: skip
FINISH: Rule[Any] = Rule(
    "finish", "finish Ra", "small_length", Bound.UPPER, Severity.HARD, "brammertz-1961",
    "What the drawing asks for on walls and floor.",
    lambda x: (x.roughness, None, x.setup.feature.roughness), (), lambda x: x.setup.feature.roughness is not None,
)  # fmt: skip
PLUNGE_FEED: Rule[Any] = Rule(
    "plunge_feed", "recommended feed", "feed_per_rev", Bound.WINDOW, Severity.HARD, "common-practice",
    "The window by the insert's width; stainless and heat-resistant metals take its lower half.", lambda x: (x.feed, *x.feeds),
)  # fmt: skip
BOOK_SPEED: Rule[Any] = common_limits.book_speed("Grooves run at 0.6 to 0.8 of the turning speed: both walls hold the heat.")
TOUGHNESS: Rule[Any] = Rule(
    "toughness", "edge toughness", "number", Bound.LOWER, Severity.SOFT, "common-practice",
    "Blows, skin, a loose machine and a tool far out chip brittle edges: the grade's ISO 513 number must stand them.",
    lambda x: (x.tool.toughness, toughness_asked(x.setup, x.tool.slenderness), None), (),
)  # fmt: skip
REACH: Rule[Any] = Rule(
    "reach", "reach", "length", Bound.UPPER, Severity.HARD, "machine-data",
    "The blade must reach the floor before its shoulder meets the face.", lambda x: (x.setup.depth, None, x.tool.reach),
)  # fmt: skip
DWELL: Rule[Any] = Rule(
    "dwell", "dwell at the floor, turns", "number", Bound.UPPER, Severity.SOFT, "common-practice",
    "One to two turns round the floor off; longer only rubs, work-hardens and wears.",
    lambda x: (x.setup.settings.dwell, None, 2.0),
)  # fmt: skip
CROWDING: Rule[Any] = Rule(
    "crowding", "depth-to-width ratio", "number", Bound.UPPER, Severity.SOFT, "common-practice",
    "In a deep narrow slot the chips crowd; coolant through the tool lets it be deeper.",
    lambda x: (x.setup.depth / x.tool.width, None, deepest_slot(x.pressure)),
)  # fmt: skip
LIFE: Rule[Any] = common_limits.life()
SECURE: Rule[Any] = common_limits.secure()
