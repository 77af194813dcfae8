"""Limits of turning and facing, as data: one list of rules, used for one set-up, the map and the ranking."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.turned.case import Case, Cutter
from cutting.operations.turned.over_passes import over_passes
from cutting.operations.turned.physics import Cut
from cutting.wear.life import speed_for_life

Array = NDArray[np.float64]
Numbers = tuple[Any, Any, Any]  # value, lower bound, upper bound; None where there is none

BOOK_LOW, BOOK_HIGH = 0.6, 1.1
SPEED_LOW, SPEED_HIGH, FEED_LOW, FEED_HIGH, DEPTH_LOW, DEPTH_HIGH = range(6)  # columns of a supplier's spans
BOOK_RULES = ("book_speed", "book_feed", "book_depth")
LEAST_CLEARANCE = 2.0  # degrees left between flank and work (common practice)
EDGE_FORCE = 220.0  # N per mm² of thickness squared, for a strong shape and a tough grade


@dataclass(frozen=True)
class Rule:
    """A limit: how to read its value and bounds from a cut, and what breaking it means."""

    name: str
    label: str
    kind: str
    bound: Bound
    severity: Severity
    source: str
    why: str
    read: Callable[[Case, Cutter, Cut], Numbers]
    working: tuple[str, ...] = ()
    applies: Callable[[Case], bool] = lambda case: True
    contour: bool = False


def book_window(cutter: Cutter, cut: Cut) -> tuple[Array, Array]:
    """Least and largest cutting speed [m/min]: the supplier's own where the shop has entered it, else around the starting speed."""
    start = book_start(cutter, cut.chip_thickness, cut.depth_of_cut)
    low, high = cutter.book[..., SPEED_LOW], cutter.book[..., SPEED_HIGH]
    return np.where(np.isnan(low), BOOK_LOW * start, low), np.where(np.isnan(high), BOOK_HIGH * start, high)


def _of_book(column: int) -> Callable[[Cutter], Array]:
    """The supplier's largest value, inf where the book says nothing."""
    return lambda cutter: np.where(np.isnan(cutter.book[..., column]), np.inf, cutter.book[..., column])


def book_start(cutter: Cutter, chip_thickness: Any, depth: Any) -> Array:
    """The book's starting speed: the group's row, corrected, moved to this chip as far as a book does."""
    return speed_for_life(
        15.0,
        cutter.reference_speed,
        cutter.speed_factor,
        cutter.taylor_exponent,
        cutter.reference_feed,
        chip_thickness,
        cutter.feed_exponent,
        cutter.reference_depth,
        depth,
        cutter.depth_exponent,
    )


def edge_force_limit(cutter: Cutter) -> Array:
    """Force [N] that the edge stands: by thickness, shape, geometry, grade and seat (common practice)."""
    seat = np.where(cutter.negative > 0, 1.0, 0.7)
    return EDGE_FORCE * cutter.thickness**2 * cutter.shape_strength * cutter.geometry_strength * seat * (0.55 + 0.5 * cutter.toughness)


def _has_book(case: Case) -> bool:
    """Rules of the supplier's book are shown where the tool has one for this group, and always tried in a ranking."""
    group = case.setup.work.material.group.number
    return case.many or any(window.group == group for window in case.setup.insert.book)


def size_error_limit(case: Case) -> float:
    """Change of diameter from springing that may be [mm]: a share of the tolerance, or the house's roughing number."""
    tolerance = case.setup.feature.end.tolerance
    house = case.setup.house
    return house.share_of_tolerance * tolerance if tolerance else house.rough_size_error


def _depth_limit(case: Case, cutter: Cutter, cut: Cut) -> Numbers:
    length = np.where(cutter.round_shape > 0, cutter.inscribed_circle, cutter.edge_length)
    return cut.depth_of_cut, None, cutter.depth_share * length


NOSE_SHARE = 0.6  # of the corner radius that a feed may be (common practice)


def nose_feed(cutter: Cutter, share: float = NOSE_SHARE) -> Array:
    """A share of the corner radius [mm]; a slanted edge makes a thinner chip of the same feed, up to twice the feed."""
    thin = np.maximum(np.sin(np.radians(cutter.cutting_edge_angle)), 0.5)
    return np.where(cutter.round_shape > 0, share, share / thin) * cutter.nose_radius


def _clearance_limit(case: Case, cutter: Cutter, cut: Cut) -> Numbers:
    return cut.effective_clearance, LEAST_CLEARANCE, None


def _parts_limit(case: Case, cutter: Cutter, cut: Cut) -> Numbers:
    return cut.change_parts, 1.0, None


RULES: tuple[Rule, ...] = (
    Rule(
        "part_bends",
        "part bends, on diameter",
        "length",
        Bound.UPPER,
        Severity.HARD,
        "roark",
        "The passive force pushes the part away; it stays larger by twice its deflection.",
        lambda c, k, x: (x.size_error, None, size_error_limit(c)),
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
        lambda c: not c.facing,
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
        lambda c, k, x: (x.engaged_edge, None, np.minimum(x.stable_part, x.stable_tool)),
        ("engaged_edge", "specific_force", "force_slope", "in_plane_ratio", "chord_angle", "mode_share", "stable_width"),
        contour=True,
    ),
    Rule(
        "spindle_power",
        "spindle power, worn",
        "power",
        Bound.UPPER,
        Severity.HARD,
        "kienzle-1952",
        "The spindle must drive the worn edge at this speed.",
        lambda c, k, x: (x.worn_power, None, x.available_power),
        ("chip_thickness", "rake_factor", "specific_force", "cutting_force", "cutting_power"),
        contour=True,
    ),
    Rule(
        "jaw_grip",
        "grip, torque",
        "torque",
        Bound.UPPER,
        Severity.HARD,
        "vdi-3106",
        "Jaws lose grip at speed; the part must not turn in them.",
        lambda c, k, x: (x.torque, None, x.grip_torque / c.setup.house.grip_safety),
        ("cutting_force", "torque", "grip_torque"),
        contour=True,
    ),
    Rule(
        "edge_strength",
        "edge strength",
        "force",
        Bound.UPPER,
        Severity.HARD,
        "common-practice",
        "The worn edge carries the cutting force; brittle grades and slim shapes carry less.",
        lambda c, k, x: (x.worn_cutting_force, None, edge_force_limit(k)),
        ("chip_area", "specific_force", "cutting_force"),
        contour=True,
    ),
    Rule(
        "edge_heat",
        "edge heat",
        "share",
        Bound.UPPER,
        Severity.SOFT,
        "cook-1973",
        "Cook's rise against the rise at 1.25 of the book's speed for this tool material: for comparing only.",
        lambda c, k, x: (100.0 * x.temperature_rise / x.standing_rise, None, 100.0),
        ("specific_force", "temperature_rise"),
    ),
    Rule(
        "chip_window",
        "chip window",
        "feed_per_rev",
        Bound.WINDOW,
        Severity.HARD,
        "nakayama-1962",
        "Inside the window the chip curls and breaks; to its left it strings, to its right it packs.",
        lambda c, k, x: (x.window_gauge, None, 1.0),
        ("window_gauge",),
    ),
    Rule(
        "thin_chip",
        "chip thickness",
        "length",
        Bound.LOWER,
        Severity.HARD,
        "brammertz-1961",
        "Below about a quarter of its edge radius the edge presses instead of cutting: torn surface, wandering size.",
        lambda c, k, x: (x.chip_thickness, x.minimum_chip, None),
        ("chip_thickness", "minimum_chip"),
        contour=True,
    ),
    Rule(
        "nose_feed",
        "feed for this nose",
        "feed_per_rev",
        Bound.UPPER,
        Severity.HARD,
        "common-practice",
        "Feed stays below about 0.6 of the corner radius, or the corner breaks.",
        lambda c, k, x: (x.feed_per_rev, None, nose_feed(k)),
        (),
    ),
    Rule(
        "book_speed",
        "book window, speed",
        "cutting_speed",
        Bound.WINDOW,
        Severity.HARD,
        "common-practice",
        "The book's range for this tool material and metal at this chip; the house rule is never above.",
        lambda c, k, x: (x.cutting_speed, *book_window(k, x)),
        ("tool_life",),
    ),
    Rule(
        "book_feed",
        "supplier's feed",
        "feed_per_rev",
        Bound.UPPER,
        Severity.HARD,
        "machine-data",
        "What the shop's supplier recommends for this tool in this group; the house rule is never above.",
        lambda c, k, x: (x.feed_per_rev, None, _of_book(FEED_HIGH)(k)),
        (),
        lambda c: _has_book(c),
    ),
    Rule(
        "book_depth",
        "supplier's depth",
        "length",
        Bound.UPPER,
        Severity.HARD,
        "machine-data",
        "What the shop's supplier recommends for this tool in this group; the house rule is never above.",
        lambda c, k, x: (x.depth_of_cut, None, _of_book(DEPTH_HIGH)(k)),
        (),
        lambda c: _has_book(c),
    ),
    Rule(
        "useful_speed",
        "useful speed",
        "cutting_speed",
        Bound.LOWER,
        Severity.SOFT,
        "common-practice",
        "Below this carbide tears ductile metal and builds up edge; high-speed steel or a ground edge suits.",
        lambda c, k, x: (x.cutting_speed, k.minimum_speed, None),
        ("cutting_speed",),
    ),
    Rule(
        "spindle_speed",
        "spindle and chuck speed",
        "spindle_speed",
        Bound.UPPER,
        Severity.HARD,
        "machine-data",
        "The lowest of machine, chuck and the program's own clamp.",
        lambda c, k, x: (x.spindle_speed, None, c.top_speed),
        ("spindle_speed",),
    ),
    Rule(
        "feed_rate",
        "feed drive",
        "feed_rate",
        Bound.UPPER,
        Severity.HARD,
        "machine-data",
        "The slide must follow.",
        lambda c, k, x: (x.feed_rate, None, c.setup.machine.feed_rate_max),
        ("spindle_speed",),
    ),
    Rule(
        "edge_length",
        "depth on this edge",
        "length",
        Bound.UPPER,
        Severity.HARD,
        "common-practice",
        "Strong shapes use two thirds of the edge, slim ones less; round inserts a quarter of the diameter.",
        _depth_limit,
    ),
    Rule(
        "tool_bends",
        "shank bends",
        "length",
        Bound.UPPER,
        Severity.HARD,
        "roark",
        "Overhang bends the shank down under the worn edge's force.",
        lambda c, k, x: (x.tool_bend, None, c.setup.house.tool_bend),
        ("cutting_force",),
        contour=True,
    ),
    Rule(
        "finish",
        "finish Ra",
        "small_length",
        Bound.UPPER,
        Severity.HARD,
        "brammertz-1961",
        "What the drawing asks for against feed marks, the ridge the edge leaves, and built-up edge.",
        lambda c, k, x: (x.roughness, None, c.setup.feature.roughness),
        ("minimum_chip", "peak_height", "finish_factor", "roughness"),
        lambda c: c.setup.feature.roughness is not None,
        contour=True,
    ),
    Rule(
        "rubbing_feed",
        "useful feed",
        "feed_per_rev",
        Bound.LOWER,
        Severity.SOFT,
        "brammertz-1961",
        "Below √(2·rε·h_min) a finer feed only rubs; the finish does not improve.",
        lambda c, k, x: (x.feed_per_rev, x.least_useful_feed, None),
        ("minimum_chip",),
        lambda c: c.setup.feature.roughness is not None,
    ),
    Rule(
        "clearance",
        "clearance left",
        "angle",
        Bound.LOWER,
        Severity.HARD,
        "iso-3002-1",
        "A tip above centre outside loses clearance and presses; below centre it loses rake.",
        _clearance_limit,
        ("height_angle", "effective_clearance"),
        lambda c: c.setup.centre_height != 0.0,
    ),
    Rule(
        "life",
        "life, pieces per edge",
        "count",
        Bound.LOWER,
        Severity.SOFT,
        "taylor-1907",
        "An edge should last at least one piece, so that it is not changed in the cut.",
        _parts_limit,
        ("chip_thickness", "tool_life", "weibull_shape"),
    ),
    Rule(
        "secure",
        "secure run",
        "share",
        Bound.LOWER,
        Severity.SOFT,
        "weibull-1951",
        "Probability that the run to the next planned edge change ends without a stop.",
        lambda c, k, x: (100.0 * x.secure, 100.0 * c.setup.house.change_probability(c.setup.goal) * 0.97, None),
        ("tool_life", "weibull_shape", "completion_probability"),
    ),
)


def utilisation(rule: Rule, value: Any, lower: Any, upper: Any) -> Array:
    """How much of a limit is used: value/upper, lower/value, or the worse side of a window (0 middle, 1 edge)."""
    if rule.name == "chip_window":
        return np.asarray(value, float)
    if rule.bound is Bound.UPPER:
        return np.asarray(value, float) / np.maximum(upper, 1e-12)
    if rule.name == "secure":  # risk taken against risk allowed
        return (100.0 - np.asarray(value, float)) / (100.0 - np.asarray(lower, float))
    if rule.bound is Bound.LOWER:
        return np.asarray(lower, float) / np.maximum(value, 1e-12)
    if rule.name == "book_speed":  # freely below, never above
        return np.asarray(value, float) / np.maximum(upper, 1e-12)
    middle, half = (np.asarray(upper) + lower) / 2.0, (np.asarray(upper) - lower) / 2.0
    return np.abs(np.asarray(value) - middle) / np.maximum(half, 1e-12)


def all_utilisations(case: Case, cutter: Cutter, cut: Cut) -> dict[str, Array]:
    """Utilisation of every limit that applies, the worst over passes: shape (..., 1)."""
    found = {}
    for rule in RULES:
        if rule.applies(case):
            used = utilisation(rule, *rule.read(case, cutter, cut))
            found[rule.name] = over_passes(used)
    return found


def excluded(case: Case, cutter: Cutter, cut: Cut, used: dict[str, Array]) -> NDArray[np.bool_]:
    """Where a hard limit is broken, shape (..., 1). Below the book is always free; above it by the house rule."""
    bad: NDArray[np.bool_] = np.zeros(np.shape(next(iter(used.values()))), bool)
    for rule in RULES:
        if rule.severity is not Severity.HARD or rule.name not in used:
            continue
        if rule.name in BOOK_RULES:
            if case.setup.house.never_above_book:
                value, _, most = rule.read(case, cutter, cut)
                bad = bad | over_passes(value > most * (1 + 1e-6), np.logical_or)
        else:
            bad = bad | (used[rule.name] > 1.0 + 1e-6)
    return bad
