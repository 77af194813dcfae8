"""Limits of turning and facing, as data: one list of rules, used for one set-up, the map and the ranking."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.chips.window import section_that_may_string, span_at_depth, window_sides
from cutting.mechanics.deflection import Holding
from cutting.operations.frame import common_limits
from cutting.operations.frame.common_limits import spindle_runs
from cutting.operations.frame.outcome import TOUCHING, Bound, Severity
from cutting.operations.frame.rule import Array, Rule
from cutting.operations.frame.toughness import toughness_asked
from cutting.operations.turned.book import DEPTH_HIGH, FEED_HIGH, book_source, book_window, has_book, largest_of_book
from cutting.operations.turned.case import Case, Cutter
from cutting.operations.turned.edge_strength import edge_force_limit, edge_toughness, wide_edge
from cutting.operations.turned.part import slenderness
from cutting.operations.turned.physics import Cut
from cutting.working import Line, line
from cutting.workpiece.finish_asked import implied_by

# of the corner radius that a cut is deep at the least, of a round insert's, and of how round the edge is; half to one corner radius is
# stable (common practice: a ground corner of 0.2 takes 0.04, a pressed one of 0.4 takes 0.08 to 0.1, one of 0.8 takes 0.16)
LEAST_DEPTH, LEAST_ROUND, LEAST_OF_EDGE = 0.2, 0.4, 3.5
MOST_SLENDER = 5.0  # diameters out of the chuck without a centre (common practice: 4 to 5)
LEAST_CLEARANCE = 2.0  # degrees left between flank and work (common practice)


def _window_told(x: Cut) -> tuple[float, float | None, float | None, str, str]:
    """The window as the user reads it: feed span at this depth, or depth span where the depth is outside.

    Of a light chip outside it, its section against the largest that may string.
    """
    gauge, harm = float(np.max(x.window_gauge)), float(np.max(x.window_harm))
    if gauge > 1.0 + TOUCHING and harm < gauge - 1e-9 and (most := section_that_may_string(gauge)) > 0.0:
        return float(np.min(x.chip_area)), None, most, "area", "light chip that strings, section"
    sides = window_sides(x.setup.insert.geometry.window)
    across, along = float(x.window_feed_scale.ravel()[-1]), float(np.ravel(x.window_depth_scale)[-1])
    depth = float(np.ravel(x.depth_of_cut)[0])
    if span := span_at_depth(sides, depth, across, along):
        return float(np.ravel(x.feed_per_rev)[0]), *span, "feed_per_rev", "chip window"
    low, high = (bound([p[1] for p in sides.hull]) * along for bound in (min, max))
    return depth, low, high, "length", "chip window"


def _finish_told(x: Cut) -> tuple[float, float | None, float | None, str, str]:
    """The finish as a person reads it: where the drawing is silent, with what implies it."""
    f = x.setup.feature
    label = "finish Ra" if f.roughness is not None else f"finish Ra, implied by {implied_by(f.end_diameter)}"
    return float(np.max(x.roughness)), None, x.setup.finish_asked, "small_length", label


def size_error_limit(case: Case) -> float:
    """Change of diameter from springing that may be [mm]: a share of the tolerance, or the house's roughing number."""
    tolerance = case.setup.feature.end_diameter.tolerance
    house = case.setup.house
    return house.share_of_tolerance * tolerance if tolerance else house.rough_size_error


COPIED = 0.2  # of the next cut's depth that an earlier one may leave uneven: within what its force is known by (common practice)


def _size_error_limits(x: Cut) -> Any:
    """The limit of every pass: the last makes the size; of those before, the next takes what they leave."""
    last = size_error_limit(x.case)
    depths = np.atleast_1d(np.asarray(x.depth_of_cut, float))
    if np.shape(x.size_error)[-1:] < (2,) or depths.shape[-1] < 2:
        return last
    before = np.minimum(x.setup.house.rough_size_error, 2.0 * COPIED * depths[..., 1:])
    return np.maximum(last, np.concatenate([before, np.zeros_like(depths[..., :1])], axis=-1))


def _edge_share(cutter: Cutter) -> Array:
    """The depth [mm] that edge or arc takes."""
    return cutter.depth_share * np.where(cutter.round_shape > 0, cutter.inscribed_circle, cutter.edge_length)


NOSE_SHARE = 0.6  # of the corner radius that a feed may be (common practice)


def nose_feed(cutter: Cutter, share: float = NOSE_SHARE) -> Array:
    """A share of the corner radius [mm]; a slanted edge makes a thinner chip of the same feed, up to twice the feed."""
    thin = np.maximum(np.sin(np.radians(cutter.cutting_edge_angle)), 0.5)
    return np.where(cutter.round_shape > 0, share, share / thin) * cutter.nose_radius


def _least_depth(cutter: Cutter) -> Array:
    """The lightest cut [mm] that corner and edge take without only pushing."""
    of_corner = np.where(cutter.round_shape > 0, LEAST_ROUND, LEAST_DEPTH) * cutter.nose_radius
    return np.maximum(of_corner, LEAST_OF_EDGE * cutter.edge_radius / 1000.0)


def _shank(x: Cut) -> Line:
    """The shank as a cantilever under the worn edge's force."""
    modulus = x.cutter.shank_modulus / x.setup.factors.get("give", 1.0)
    return line(
        "{wear}·{cutting_force}·{overhang}³/(3·{elastic_modulus}·{second_moment})", "roark", wear=x.setup.house.wear_factor,
        cutting_force=x.cutting_force, overhang=x.cutter.overhang, elastic_modulus=modulus, second_moment=x.cutter.shank_second_moment,
    )  # fmt: skip


RULES: tuple[Rule[Cut], ...] = (
    Rule(
        "part_bends",
        "part deflection, on Ø",
        "length",
        Bound.UPPER,
        Severity.HARD,
        "roark",
        "The passive force pushes the part away; it stays larger by twice its deflection.",
        lambda x: (x.size_error, None, _size_error_limits(x)),
        (
            "chip_area",
            "engaged_edge",
            "chip_thickness",
            "specific_force",
            "cutting_force",
            "in_plane_ratio",
            "chord_angle",
            "passive_force",
            "deflection",
            "size_error",
        ),
        lambda x: not x.case.facing,
        contour=True,
    ),
    Rule(
        "chatter",
        "chatter, width of cut",
        "length",
        Bound.UPPER,
        Severity.HARD,
        "altintas-2012",
        "Beyond this width of engaged edge each turn's waves feed the next: slender parts and long shanks sing.",
        lambda x: (x.engaged_edge, None, np.minimum(x.stable_part, x.stable_tool)),
        ("engaged_edge",),
        contour=True,
        bounded=(
            "specific_force",
            "force_slope",
            "in_plane_ratio",
            "direction_factor",
            "mode_share",
            "stable_width",
            "damping_gain",
        ),
        bound_ends=lambda x: line("min({of_the_part}, {of_the_tool})", of_the_part=x.stable_part, of_the_tool=x.stable_tool),
    ),
    Rule(
        "slender",
        "part stick-out, L/D",
        "times_diameter",
        Bound.UPPER,
        Severity.SOFT,
        "common-practice",
        "Beyond about five diameters out of the jaws a part wants a centre or a steady rest, or to be turned before it is bared.",
        lambda x: (slenderness(x.setup), None, MOST_SLENDER),
        (),
        lambda x: x.setup.holding.style is Holding.CHUCK and x.setup.holding.steady is None and not x.setup.holding.guide_bush,
    ),
    common_limits.spindle_power(
        "The spindle must drive the worn edge at this speed.",
        "chip_thickness",
        "rake_factor",
        "specific_force",
        "cutting_force",
        "cutting_power",
        ends=lambda x: line("{wear}·{cutting_power}", wear=x.setup.house.wear_factor, cutting_power=x.cutting_power),
        contour=True,
        read=lambda x: (x.worn_power, None, x.available_power),
    ),
    Rule(
        "jaw_grip",
        "grip torque",
        "torque",
        Bound.UPPER,
        Severity.HARD,
        "vdi-3106",
        "Jaws lose grip at speed; the part must not turn in them.",
        lambda x: (x.torque, None, x.grip_torque / x.setup.house.grip_safety),
        ("cutting_force", "torque"),
        contour=True,
        spare=common_limits.house_grip,
        bounded=("grip_torque",),
        bound_ends=common_limits.grip_kept(lambda x: x.grip_torque),
    ),
    Rule(
        "edge_strength",
        "edge strength",
        "force",
        Bound.UPPER,
        Severity.HARD,
        "common-practice",
        "The worn edge carries the cutting force; brittle grades and slim shapes carry less.",
        lambda x: (x.worn_cutting_force, None, edge_force_limit(x.cutter) * wide_edge(x)),
        ("chip_area", "specific_force", "cutting_force"),
        contour=True,
        ends=lambda x: line("{wear}·{cutting_force}", wear=x.setup.house.wear_factor, cutting_force=x.cutting_force),
    ),
    Rule(
        "toughness",
        "edge toughness",
        "number",
        Bound.LOWER,
        Severity.SOFT,
        "common-practice",
        "Blows, skin, weld, a loose machine and a long shank chip brittle edges: ISO 513 number and edge preparation must stand them.",
        lambda x: (edge_toughness(x.cutter), toughness_asked(x.setup, x.cutter.overhang / x.cutter.shank_height), None),
    ),
    Rule(
        "edge_heat",
        "edge temperature, relative",
        "share",
        Bound.UPPER,
        Severity.SOFT,
        "cook-1973",
        "Cook's rise against the rise at 1.25 of the recommended speed for this tool material: for comparing only.",
        lambda x: (100.0 * x.temperature_rise / x.standing_rise, None, 100.0),
        ("specific_force", "temperature_rise"),
        ends=lambda x: line("100·{temperature_rise}/{stands}", "cook-1973", temperature_rise=x.temperature_rise, stands=x.standing_rise),
    ),
    Rule(
        "chip_window",
        "chip window",
        "feed_per_rev",
        Bound.WINDOW,
        Severity.HARD,
        "nakayama-1962",
        "Inside the window the chip curls and breaks; to its left it strings, to its right it packs. A light chip may string.",
        lambda x: (x.window_harm, None, 1.0),
        told=_window_told,
    ),
    Rule(
        "thin_chip",
        "chip thickness",
        "length",
        Bound.LOWER,
        Severity.HARD,
        "brammertz-1961",
        "Below about a quarter of its edge radius the edge presses instead of cutting: torn surface, wandering size.",
        lambda x: (x.chip_thickness, x.minimum_chip, None),
        ("chip_area", "engaged_edge", "chip_thickness"),
        contour=True,
        bounded=("minimum_chip",),
    ),
    Rule(
        "nose_feed",
        "feed for corner",
        "feed_per_rev",
        Bound.UPPER,
        Severity.HARD,
        "common-practice",
        "Feed stays below about 0.6 of the corner radius, or the corner breaks.",
        lambda x: (x.feed_per_rev, None, nose_feed(x.cutter)),
        (),
    ),
    Rule(
        "book_speed",
        "recommended speed",
        "cutting_speed",
        Bound.WINDOW,
        Severity.HARD,
        "common-practice",
        "The recommended range for this tool material and metal at this chip; the house rule is never above.",
        lambda x: (x.cutting_speed, *book_window(x)),
        ("cutting_speed",),
        free_below=True,
        told_source=book_source,
    ),
    Rule(
        "book_feed",
        "supplier's feed",
        "feed_per_rev",
        Bound.UPPER,
        Severity.HARD,
        "machine-data",
        "What the shop's supplier recommends for this tool in this group; the house rule is never above.",
        lambda x: (x.feed_per_rev, None, largest_of_book(FEED_HIGH)(x.cutter)),
        (),
        has_book,
        told_source=book_source,
    ),
    Rule(
        "book_depth",
        "supplier's depth",
        "length",
        Bound.UPPER,
        Severity.HARD,
        "machine-data",
        "What the shop's supplier recommends for this tool in this group; the house rule is never above.",
        lambda x: (x.depth_of_cut, None, largest_of_book(DEPTH_HIGH)(x.cutter)),
        (),
        has_book,
        told_source=book_source,
    ),
    Rule(
        "useful_speed",
        "minimum speed",
        "cutting_speed",
        Bound.LOWER,
        Severity.SOFT,
        "common-practice",
        "Below this carbide tears ductile metal and builds up edge; high-speed steel or a ground edge suits.",
        lambda x: (x.cutting_speed, x.cutter.minimum_speed, None),
        ("cutting_speed",),
    ),
    Rule(
        "spindle_speed",
        "max. spindle speed",
        "spindle_speed",
        Bound.UPPER,
        Severity.HARD,
        "machine-data",
        "The lowest of machine, chuck and the program's own clamp.",
        lambda x: (x.spindle_speed, None, x.case.top_speed),
        ("spindle_speed",),
        ends=lambda x: spindle_runs(x.setup.settings.cutting_speed, x.diameter, x.spindle_speed),
    ),
    Rule(
        "feed_rate",
        "axis feed rate",
        "feed_rate",
        Bound.UPPER,
        Severity.HARD,
        "machine-data",
        "The slide must follow.",
        lambda x: (x.feed_rate, None, x.setup.machine.feed_rate_max),
        ("spindle_speed",),
        ends=lambda x: line("{feed_per_rev}·{spindle_speed}", feed_per_rev=x.feed_per_rev, spindle_speed=x.spindle_speed),
    ),
    Rule(
        "edge_length",
        "depth for edge length",
        "length",
        Bound.UPPER,
        Severity.HARD,
        "common-practice",
        "Strong shapes use two thirds of the edge, slim ones less; round inserts a quarter of the diameter.",
        lambda x: (x.depth_of_cut, None, _edge_share(x.cutter)),
    ),
    Rule(
        "shallow",
        "min. depth for corner",
        "length",
        Bound.LOWER,
        Severity.SOFT,
        "common-practice",
        "Far below its corner radius, or a few edge radii, a cut only pushes: a smaller corner, a sharper edge, a deeper pass.",
        lambda x: (x.depth_of_cut, _least_depth(x.cutter), None),
        (),
        lambda x: not x.case.hard,
    ),
    Rule(
        "tool_bends",
        "shank deflection",
        "length",
        Bound.UPPER,
        Severity.HARD,
        "roark",
        "Overhang bends the shank down under the worn edge's force.",
        lambda x: (x.tool_bend, None, x.setup.house.tool_bend),
        ("cutting_force",),
        contour=True,
        ends=_shank,
    ),
    Rule(
        "finish",
        "finish Ra",
        "small_length",
        Bound.UPPER,
        Severity.HARD,
        "brammertz-1961",
        "What the drawing asks for against feed marks, the ridge the edge leaves, and built-up edge.",
        lambda x: (x.roughness, None, x.setup.finish_asked),
        ("minimum_chip", "peak_height", "finish_factor", "roughness"),
        lambda x: x.setup.finish_asked is not None,
        contour=True,
        told=_finish_told,
    ),
    Rule(
        "general_finish",
        "finish Ra, where nothing is asked",
        "small_length",
        Bound.UPPER,
        Severity.SOFT,
        "common-practice",
        "Where a drawing is silent a turned face is no rougher than the house rule; a cut that another finishes may be.",
        lambda x: (x.roughness, None, x.setup.house.general_roughness),
        ("minimum_chip", "peak_height", "finish_factor", "roughness"),
        lambda x: x.setup.finish_asked is None and not (x.setup.feature.roughing or x.setup.feature.grinding_allowance),
    ),
    Rule(
        "rubbing_feed",
        "minimum feed",
        "feed_per_rev",
        Bound.LOWER,
        Severity.SOFT,
        "brammertz-1961",
        "Below √(2·rε·h_min) a finer feed only rubs; the finish does not improve.",
        lambda x: (x.feed_per_rev, x.least_useful_feed, None),
        (),
        lambda x: x.setup.finish_asked is not None,
        bounded=("minimum_chip",),
        bound_ends=lambda x: line(
            "√(2·{nose_radius}·{minimum_chip})", "brammertz-1961", nose_radius=x.cutter.nose_radius, minimum_chip=x.minimum_chip
        ),
    ),
    Rule(
        "clearance",
        "clearance left",
        "angle",
        Bound.LOWER,
        Severity.HARD,
        "iso-3002-1",
        "A tip above centre outside loses clearance and presses; below centre it loses rake.",
        lambda x: (x.effective_clearance, LEAST_CLEARANCE, None),
        ("height_angle", "effective_clearance"),
        lambda x: x.setup.centre_height != 0.0,
    ),
    Rule(
        "at_the_bush",
        "passes, guide bush",
        "count",
        Bound.UPPER,
        Severity.SOFT,
        "common-practice",
        "A guide bush holds the bar as it came: what is turned already has left it, so that the whole depth is taken in one pass.",
        lambda x: (float(x.setup.pass_count), None, 1.0),
        (),
        lambda x: x.setup.holding.guide_bush,
    ),
    common_limits.life("edge", "chip_thickness"),
    common_limits.secure("chip_thickness", "tool_life", "weibull_shape", "completion_probability"),
)
