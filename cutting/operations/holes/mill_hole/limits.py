"""Limits of a milled hole as data: way down, chip, power, bending, what the wall keeps, chips that stay in the hole, life."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.operations.frame import common_limits
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.frame.toughness import toughness_asked
from cutting.operations.holes.mill_hole.numbers import CIRCLES, LEFT_OF_ERROR, LEFT_OF_LAST, Numbers
from cutting.operations.holes.mill_hole.setup import Descent
from cutting.working import Line, in_words, line
from cutting.working.line import COMMON

LEAST_RATIO = 1.15  # hole over tool from which chips come past the mill (common practice)
MINIMUM_CHIP = 0.25  # of the edge's radius (as drilled)
LEAST_SPEED, LEAST_FEED = 0.35, 0.4  # of the book's lowest (as drilled)
STEEPER = 2.5  # × the usual pitch that edges stand at most (common practice)
SLENDER, CALM = 4.0, 5.0  # diameters that a mill stands out before it sings; with teeth of two helices (common practice)
GLEAM = 0.02  # mm of taper that nobody minds where no tolerance is given


def helical(x: Numbers) -> bool:
    """Whether the mill runs down a helix."""
    return x.setup.settings.path is Descent.HELIX


def widest(setup: Any, diameter: Any, corner: Any) -> Any:
    """Largest hole [mm] that a mill clears from what is there: twice its flat end, more where a hole is there already."""
    return 2.0 * (diameter - corner) + setup.feature.pilot


def _asked(x: Numbers) -> float | None:
    return x.setup.feature.diameter.tolerance


def _plunged_size(x: Numbers) -> Any:
    """What is left of the tolerance above the mill's own diameter."""
    size = x.setup.feature.diameter
    return np.maximum(size.nominal + (size.upper_deviation or 0.0) - x.tool.own["diameter"], 1e-4)


def sprung(x: Numbers) -> Any:
    """What the mill springs off the wall, on the diameter [mm], before the path is set outward."""
    return x.size_error + 2.0 * x.setup.settings.offset


TAPERS = "the bent mill at the floor less at the mouth, of the last turn"


def off_size(x: Numbers) -> Line:
    """How far the hole is off its size, on the diameter."""
    return line("{springs_on_diameter} − 2·{offset}", springs_on_diameter=sprung(x), offset=x.setup.settings.offset)


def held_size(x: Numbers) -> Line:
    """The width of sizes that the helix holds."""
    share = LEFT_OF_LAST if x.setup.settings.finish > 0 else LEFT_OF_ERROR
    return line(
        "{circle_of_the_axes} + {share}·|{springs_on_diameter}| + {taper}", COMMON,
        circle_of_the_axes=CIRCLES, share=share, springs_on_diameter=sprung(x), taper=x.taper,
    )  # fmt: skip


RULES: tuple[Rule[Numbers], ...] = (
    Rule("reach", "reach", "length", Bound.UPPER, Severity.HARD, "iso-13399",
         "Deeper the neck or the chuck rubs on the wall.", lambda x: (x.setup.depth, None, x.tool.own["reach"])),
    common_limits.book_speed("Shares of the turning speed by tool material.", contour=True),
    Rule("useful_speed", "minimum speed", "cutting_speed", Bound.LOWER, Severity.SOFT, "common-practice",
         "Far below the recommended speed an edge builds up and carbide chips.",
         lambda x: (x.cutting_speed, LEAST_SPEED * x.book_low, None)),
    Rule("book_feed", "feed per tooth, at wall", "feed_per_tooth", Bound.UPPER, Severity.HARD, "common-practice",
         "A share of the diameter by metal, in a full slot; more where the chip is thinner, up to 1.6 times.",
         lambda x: (x.feed_set, None, x.feed_top), contour=True),
    Rule("useful_feed", "minimum feed", "feed_per_tooth", Bound.LOWER, Severity.SOFT, "common-practice",
         "Far below the recommended feed the teeth rub and harden the wall.", lambda x: (x.feed_set, LEAST_FEED * x.tool.feed_low, None)),
    Rule("minimum_chip", "min. chip thickness", "small_length", Bound.LOWER, Severity.HARD, "brammertz-1961",
         "A chip thinner than a quarter of the edge's radius is not cut: the teeth rub.",
         lambda x: (1000.0 * x.chip_thickness, MINIMUM_CHIP * x.tool.own["edge_radius"], None), ("chip_thickness",), contour=True,
         ends=lambda x: line("1000·{chip_thickness}", chip_thickness=x.chip_thickness)),
    Rule("ramp", "ramp angle", "angle", Bound.UPPER, Severity.HARD, "iso-13399",
         "Steeper than its end is made for, the middle of the mill rubs instead of cutting.",
         lambda x: (x.ramp, None, x.tool.own["ramp"]), ("ramp_angle",), helical, contour=True),
    Rule("pitch", "helix pitch", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "The height that the corner cuts at once: a tenth of the diameter in steel, three in aluminium; edges stand some more.",
         lambda x: (x.pitch, None, STEEPER * x.tool.usual_pitch), (), helical, contour=True),
    Rule("teeth", "pitch, tooth length", "length", Bound.UPPER, Severity.HARD, "iso-13399",
         "What the teeth do not cover stands behind as a thread.", lambda x: (x.pitch, None, x.tool.own["cutting_length"]), (), helical),
    Rule("plunge", "plunge", "length", Bound.UPPER, Severity.HARD, "iso-13399",
         "Its end must cut to the middle and carry the chips away: one diameter where it is gashed open for it, else less or not at all.",
         lambda x: (x.setup.depth, None, np.maximum(x.tool.own["plunge"], 1e-6)), (), lambda x: not helical(x)),
    Rule("room", "hole-to-tool ratio", "number", Bound.LOWER, Severity.HARD, "common-practice",
         "Chips must come up past the mill: from about 1.15 times its diameter.", lambda x: (x.ratio, LEAST_RATIO, None), (), helical),
    Rule("core", "max. hole Ø", "length", Bound.UPPER, Severity.HARD, "geometry",
         "From solid twice the flat of its end: beyond, a core stays in the middle.",
         lambda x: (x.setup.feature.diameter.nominal, None, widest(x.setup, x.tool.own["diameter"], x.tool.own["corner"])), (), helical),
    Rule("floor", "floor corner left", "length", Bound.UPPER, Severity.SOFT, "common-practice",
         "A flat floor wants a sharp corner, or one that the drawing allows: a tenth of the diameter at most.",
         lambda x: (x.tool.own["corner"], None, 0.1 * x.tool.own["diameter"]), (), lambda x: x.setup.feature.flat),
    common_limits.spindle_power("What the removal takes of the spindle.", "removal_rate", "specific_force", "cutting_power", contour=True),
    Rule("chuck_grip", "toolholder torque", "torque", Bound.UPPER, Severity.HARD, "common-practice",
         "A mill that slips is pulled out of its chuck into the part.",
         lambda x: (x.torque, None, x.tool.grip / x.setup.house.grip_safety), ("cutting_power",), contour=True,
         spare=common_limits.house_grip, ends=common_limits.torque_of_power, bound_ends=common_limits.chuck_keeps),
    Rule("body", "bending of the body", "share", Bound.UPPER, Severity.HARD, "common-practice",
         "Stress in the fluted body at its seat, of what its tool material stands for long.",
         lambda x: (100.0 * x.bend / x.tool.own["bends_at"], None, 100.0), ("push_off",), helical, contour=True,
         ends=lambda x: line("100·{stress_at_the_seat}/{stands}", COMMON, stress_at_the_seat=x.bend, stands=x.tool.own["bends_at"])),
    Rule("feed_drive", "tool-centre feed", "feed_rate", Bound.UPPER, Severity.HARD, "machine-data",
         "The axes move no faster.", lambda x: (x.centre_rate, None, x.setup.machine.feed_rate_max)),
    Rule("thrust", "plunge thrust", "force", Bound.UPPER, Severity.HARD, "machine-data", "What the feed drive pushes.",
         lambda x: (0.5 * x.specific_force * x.feed_set * 0.4 * x.tool.own["flutes"] * x.tool.own["diameter"] / 2.0, None,
                    x.setup.machine.axial_force), (), lambda x: not helical(x) and x.setup.machine.axial_force > 0),
    Rule("size", "hole oversize", "length", Bound.UPPER, Severity.HARD, "iso-286",
         "A mill that plunges makes its own size with its runout.", lambda x: (x.width, None, _plunged_size(x)), (),
         lambda x: not helical(x) and _asked(x) is not None),
    Rule("tolerance", "attainable tolerance", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "Roundness of the machine's circle, taper of the bent mill, and a quarter of the push-off, which changes as it wears.",
         lambda x: (x.width, None, _asked(x)), ("push_off",), lambda x: helical(x) and _asked(x) is not None, ends=held_size),
    Rule("setting", "size error, on Ø", "length", Bound.UPPER, Severity.SOFT, "beam-theory",
         "The mill springs off the wall: move the path outward by half of it, or leave less to a last turn.",
         lambda x: (np.abs(x.size_error), None, 0.5 * (_asked(x) or 2.0 * x.setup.house.rough_size_error)), ("push_off",), helical,
         ends=lambda x: line("|{springs_on_diameter} − 2·{offset}|", springs_on_diameter=sprung(x), offset=x.setup.settings.offset)),
    Rule("taper", "taper over the depth", "length", Bound.UPPER, Severity.SOFT, "beam-theory",
         "Bent over its length the mill leaves more metal at the floor.",
         lambda x: (x.taper, None, max(0.5 * (_asked(x) or 0.0), GLEAM)), ("push_off",), lambda x: x.setup.settings.finish > 0,
         ends=lambda x: in_words(TAPERS)),
    Rule("finish", "finish Ra", "small_length", Bound.UPPER, Severity.HARD, "common-practice", "What the drawing asks for on the wall.",
         lambda x: (x.roughness, None, x.setup.feature.roughness), (), lambda x: x.setup.feature.roughness is not None),
    Rule("position", "position, zone Ø", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "A milled hole lies where the axes put it.", lambda x: (x.position, None, x.setup.feature.position), (),
         lambda x: x.setup.feature.position is not None),
    Rule("slender", "stick-out, L/D", "times_diameter", Bound.UPPER, Severity.SOFT, "common-practice",
         "Further out a mill sings; teeth of two helices calm it some.",
         lambda x: (x.tool.own["reach"] / x.tool.own["diameter"], None, np.where(x.tool.own["uneven"] > 0, CALM, SLENDER)), (), helical),
    Rule("chips", "chip evacuation", "share", Bound.UPPER, Severity.SOFT, "common-practice",
         "Chips that stay in the hole are cut again: air or 20 bar through or beside the tool lifts them from deeper.",
         lambda x: (100.0 * x.crowding, None, 100.0), (), helical),
    Rule("runout", "runout at the teeth", "length", Bound.UPPER, Severity.SOFT, "common-practice",
         "One tooth does the work of all where it runs out by half of its feed.",
         lambda x: (x.tool.runout, None, np.maximum(0.5 * x.feed_set, 0.008))),
    Rule("toughness", "edge toughness", "number", Bound.LOWER, Severity.SOFT, "common-practice",
         "Teeth come into the metal at every turn; a long mill and a loose machine chip brittle ones.",
         lambda x: (x.tool.toughness, toughness_asked(x.setup, x.tool.own["reach"] / x.tool.own["diameter"]), None)),
    common_limits.life("mill"),
    common_limits.secure(),
)  # fmt: skip
