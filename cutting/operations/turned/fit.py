"""Whether tool, feature, machine and holding go together: rules with reasons, for one pair or for many."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.machine.condition import FORBIDDEN
from cutting.mechanics.deflection import Holding
from cutting.mechanics.tool_setting import reach_angle
from cutting.operations.frame.outcome import Warning
from cutting.operations.turned.contour import steepest_descent, steepest_rise
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface
from cutting.tooling.crib import Crib, HolderColumns, InsertColumns, crib_of_one
from cutting.tooling.roles import Index

Array = NDArray[np.float64]
Mask = NDArray[np.bool_]
CHUCK_CLEARANCE = 2.0  # mm between tool and jaws at the end of the cut
CENTRE_CLEARANCE = 2.0
BAR_CLEARANCE = 1.0  # mm on diameter between a bar and the bore that it enters
HEAD_BAR = 32.0  # mm, thickest bar of fine boring heads (common practice)
LEAST_LEADING, MOST_LEADING = 15.0, 55.0  # degrees κr when fed away from the chuck (common practice)
COLLAR_LENGTH, COLLAR_HEIGHT = 0.5, 0.2  # mm along the part and on diameter from which something stands in the way
# of its edge that an insert stands free of its holder, and of a neck that the way down may take (common practice)
FREE_FLANK, NECK_SHARE = 0.5, 0.5
COPY_CLEARANCE, ROUND_REACH = 2.0, 60.0  # degrees between flank and contour; of a round insert before its holder rubs
LEANS = (0.5, 80.0)  # ° of a flank behind the edge, between which it is reckoned


@dataclass(frozen=True)
class FitRule:
    """A rule of fit: `fits` is true where the pair may be used."""

    name: str
    fits: Callable[[Setup, InsertColumns, HolderColumns, Index, Index], Any]
    reason: Callable[[Setup], str]


def _nose(s: Setup, i: InsertColumns, h: HolderColumns, a: Index, b: Index) -> Any:
    # a round insert leaves its own radius in a corner, so it is held against the fillet like any nose
    return True if s.feature.fillet is None else i.nose_radius[a] <= s.feature.fillet + 1e-9


def _major(s: Setup, h: HolderColumns, b: Index) -> Array:
    """κr [°] as the post stands."""
    return np.asarray(h.cutting_edge_angle[b] + (s.settings.swivel or 0.0))


def _minor_leads(s: Setup, h: HolderColumns, b: Index) -> Mask:
    """Whether the minor edge goes first: of a right-hand or neutral holder that is fed away from the chuck."""
    return np.asarray(~h.left[b] & s.away)


def _shoulder(s: Setup, i: InsertColumns, h: HolderColumns, a: Index, b: Index) -> Any:
    wanted = s.feature.shoulder and s.surface.keeps_size
    return (_major(s, h, b) >= 90.0) & ~(i.round_shape[a] & (s.feature.fillet is None)) if wanted else True


def _leading_edge(s: Setup, i: InsertColumns, h: HolderColumns, a: Index, b: Index) -> Any:
    """Fed away from the chuck the minor edge leads: it needs room in front of it and a small κr."""
    if not s.away:
        return True
    leading = reach_angle(_major(s, h, b), i.included_angle[a])
    return h.left[b] | (i.round_shape[a] | ((leading >= LEAST_LEADING) & (leading <= MOST_LEADING))) & (_major(s, h, b) >= 90)


def _copies(s: Setup, i: InsertColumns, h: HolderColumns, a: Index, b: Index) -> Any:
    """The edge that follows must clear the contour's descent, the edge that leads its rise."""
    if not s.feature.profile:
        return True
    major, turned = _major(s, h, b), _minor_leads(s, h, b)
    minor = reach_angle(major, i.included_angle[a])
    round_reach = np.full(major.shape, ROUND_REACH)
    leads = np.where(i.round_shape[a], round_reach, np.where(turned, minor, major))
    follows = np.where(i.round_shape[a], round_reach, np.where(turned, major, minor))
    down, up = steepest_descent(s.feature, s.away), steepest_rise(s.feature, s.away)
    falls = (down <= 0) | (follows >= down + COPY_CLEARANCE)
    return falls & ((up <= 0) | (leads >= up))


def _copy_reason(s: Setup) -> str:
    down, up = steepest_descent(s.feature, s.away), steepest_rise(s.feature, s.away)
    return f"the contour falls at {max(down, 0):.0f}° and rises at {max(up, 0):.0f}°; the insert's flank would rub"


def collar_in_front(s: Setup) -> tuple[float, float] | None:
    """Where a thicker part stands between this cut and the free face: place and diameter [mm], None where the way is free."""
    if s.surface is not Surface.OUTSIDE:
        return None
    far = s.feature.distance_from_chuck + s.feature.length
    beyond = [
        (max(start, far), diameter)
        for start, end, diameter in s.holding.stretches
        if end > far + COLLAR_LENGTH and diameter > s.feature.turned_diameter + COLLAR_HEIGHT
    ]
    return beyond[0] if beyond else None


def _neck(s: Setup, i: InsertColumns, h: HolderColumns, a: Index, b: Index) -> Any:
    """Behind a collar only a slim insert gets down: along its minor edge, no deeper than its flank stands free."""
    collar = collar_in_front(s)
    if collar is None:
        return True
    height = (collar[1] - s.feature.turned_diameter) / 2.0
    minor = reach_angle(_major(s, h, b), i.included_angle[a])
    way_down = height / np.tan(np.radians(np.clip(np.where(i.round_shape[a], ROUND_REACH, minor) - COPY_CLEARANCE, *LEANS)))
    return (height <= FREE_FLANK * np.where(i.round_shape[a], i.inscribed_circle[a], i.edge_length[a])) & (
        way_down <= NECK_SHARE * s.feature.length
    )


def _neck_reason(s: Setup) -> str:
    place, diameter = collar_in_front(s) or (0.0, 0.0)
    return (
        f"a collar of Ø{diameter:g} mm stands in front of the cut, {place:g} mm from the jaws: insert or holder would run into it; "
        "groove it, turn it from the other end, or turn it before"
    )


def _centre_clear(s: Setup) -> bool:
    """A tool that faces or turns next to a centre must pass it."""
    if s.holding.style is Holding.CHUCK:
        return True
    return s.feature.end_diameter.nominal / 2 >= s.holding.centre_diameter / 2 + CENTRE_CLEARANCE


RULES: tuple[FitRule, ...] = (
    FitRule(
        "operation",
        lambda s, i, h, a, b: (h.faces if s.surface is Surface.FACE else h.turns)[b],
        lambda s: f"the holder's style does not {s.operation}",
    ),
    FitRule("hand", lambda s, i, h, a, b: h.right_or_neutral[b] | s.away, lambda s: "a left-hand holder cuts away from the chuck"),
    FitRule(
        "shank",
        lambda s, i, h, a, b: s.machine.takes_shank(h.shank_height[b], False),
        lambda s: f"the shank does not suit the {s.machine.shank_height:g} mm seat of {s.machine.name}",
    ),
    FitRule("shoulder", _shoulder, lambda s: "the shoulder is square: κr below 90° or a round edge cannot leave it"),
    FitRule("fillet", _nose, lambda s: f"the corner radius is larger than the drawing's fillet {s.feature.fillet or 0:g} mm"),
    FitRule(
        "leading_edge", _leading_edge, lambda s: "fed away from the chuck, its minor edge would lead at less than 15° or more than 55°"
    ),
    FitRule("copying", _copies, _copy_reason),
    FitRule("collar", _neck, _neck_reason),
    FitRule(
        "chuck",
        lambda s, i, h, a, b: (
            s.feature.distance_from_chuck >= CHUCK_CLEARANCE or s.surface is Surface.FACE or s.holding.guide_bush  # no jaws are near
        ),
        lambda s: f"the tool ends {s.feature.distance_from_chuck:g} mm from the jaws, {CHUCK_CLEARANCE:g} mm are wanted",
    ),
    FitRule(
        "centre", lambda s, i, h, a, b: _centre_clear(s), lambda s: f"the tool would touch the centre of Ø{s.holding.centre_diameter:g} mm"
    ),
)


def _thickest(setup: Setup) -> float:
    """The thickest bar [mm] that a turret's sleeve or a boring head holds."""
    return HEAD_BAR if setup.head_turns else setup.machine.thickest_bar


INSIDE: tuple[FitRule, ...] = (
    FitRule("operation", lambda s, i, h, a, b: h.bores[b], lambda s: "an outside holder reaches into no bore"),
    FitRule("hand", lambda s, i, h, a, b: h.right_or_neutral[b], lambda s: "a left-hand bar cuts on the far side"),
    FitRule(
        "sleeve",
        lambda s, i, h, a, b: h.shank_height[b] <= _thickest(s),
        lambda s: f"the bar is thicker than {'heads' if s.head_turns else 'the sleeves'} of {s.machine.name} hold, {_thickest(s):g} mm",
    ),
    FitRule(
        "least_bore",
        lambda s, i, h, a, b: np.maximum(h.least_bore[b], h.shank_height[b] + BAR_CLEARANCE) <= s.feature.start_diameter + 1e-9,
        lambda s: f"the bar does not enter the bore of Ø{s.feature.start_diameter:g} mm",
    ),
    FitRule("shoulder", _shoulder, lambda s: "the floor or step is square: κr below 90° or a round edge cannot make it"),
    FitRule("fillet", _nose, lambda s: f"the corner radius is larger than the drawing's fillet {s.feature.fillet or 0:g} mm"),
)


def rules_of(setup: Setup) -> tuple[FitRule, ...]:
    """The rules for outside holders, or for bars in a bore."""
    return INSIDE if setup.inside else RULES


def grade_rules(setup: Setup, crib: Crib) -> list[tuple[str, str, Mask]]:
    """Per insert: does geometry and grade suit the metal. Name, reason, mask over the crib's inserts."""
    letter = setup.work.material.group.letter
    suits = np.array([letter in g.suits for g in crib.geometries], bool)
    serves = np.array([letter in g.letters for g in crib.grades], bool)
    columns = crib.insert_columns
    stands = np.array([g.tool_class not in FORBIDDEN[setup.machine.condition] for g in crib.grades], bool)
    return [
        ("condition", f"{setup.machine.name} is {setup.machine.condition}: a loose spindle breaks brittle edges", stands[columns.grade]),
        ("geometry", f"the geometry is not meant for group {letter}", suits[columns.geometry]),
        ("grade", f"the grade's ISO 513 span does not reach {letter}", serves[columns.grade]),
    ]


def check_pairs(setup: Setup, crib: Crib, left: Index, right: Index) -> tuple[Mask, dict[str, tuple[str, int]]]:
    """Which pairs fit, and for each rule its reason with the number of pairs that it alone or first excludes."""
    inserts, holders = crib.insert_columns, crib.holder_columns
    fits: Mask = np.ones(len(left), bool)
    counts: dict[str, tuple[str, int]] = {}
    checks = [
        (rule.name, rule.reason(setup), np.broadcast_to(rule.fits(setup, inserts, holders, left, right), fits.shape))
        for rule in rules_of(setup)
    ]
    checks += [(name, reason, mask[left]) for name, reason, mask in grade_rules(setup, crib)]
    for name, reason, mask in checks:
        lost = int(np.count_nonzero(fits & ~mask))
        if lost:
            counts[name] = (reason, lost)
        fits = fits & mask
    return fits, counts


def fouled(setup: Setup) -> tuple[float, float, str] | None:
    """Where the set-up's own tool would run into something: place and diameter [mm], and what stands there."""
    broken = {warning.name for warning in warnings_of_fit(setup)}
    if "fit_collar" in broken and (collar := collar_in_front(setup)):
        return (*collar, "collar")
    if "fit_chuck" in broken:
        return 0.0, setup.holding.grip_diameter, "jaws"
    if "fit_centre" in broken:
        return setup.holding.free_length, setup.holding.centre_diameter, "centre"
    return None


def misfits(setup: Setup) -> frozenset[str]:
    """Names of the rules that forbid the set-up's own tool."""
    return frozenset(warning.name for warning in warnings_of_fit(setup) if warning.severity == "blocks")


def warnings_of_fit(setup: Setup) -> list[Warning]:
    """The rules that the setup's own tool breaks. Metal mismatch is a care, the others block."""
    crib = crib_of_one(setup.insert, setup.holder)
    left = right = np.array([0], np.intp)
    found = []
    inserts, holders = crib.insert_columns, crib.holder_columns
    for rule in rules_of(setup):
        if not np.all(rule.fits(setup, inserts, holders, left, right)):
            found.append(Warning(f"fit_{rule.name}", _sentence(rule.reason(setup)), "blocks"))
    for name, reason, mask in grade_rules(setup, crib):
        if not mask[0]:
            found.append(Warning(f"fit_{name}", _sentence(reason), "care"))
    return found


def _sentence(text: str) -> str:
    return text[0].upper() + text[1:] + "."
