"""Limits of boring as data: those of turning, seen from inside, and what a bar in a bore adds."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np

from cutting.mechanics.thin_ring import lobing
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Array, Rule
from cutting.operations.turned.feature import Bore
from cutting.operations.turned.limits import RULES as TURNED
from cutting.operations.turned.limits import size_error_limit
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.setup import Setup
from cutting.working import line

LEAST_ROOM = 0.4  # of the bore's section that a bar leaves to the chips: a bar of about three quarters of the bore (common practice)
MOST_WIPED = 3.0  # diameters that a bar with a wiper may stand out (common practice)
# share of a bar's bend that changes along a bore and from piece to piece, by entry, depth and hardness: the rest stays the same at
# constant reach, and the offset takes it back (common practice)
NOT_TAKEN_BACK = 0.3
WHIPS = 1.3  # times its usual reach beyond which a bar is not used (common practice)
NARROWER = 0.3  # mm by which a hole may be narrower than is told: as it is drilled or cast (common practice)
LEAST_REACH = 2.0  # mm that the bar stands out beyond the depth
NOT_INSIDE = ("tool_bends", "shallow")
SEEN_FROM_INSIDE: dict[str, dict[str, Any]] = {
    "part_bends": {
        "label": "bore deflection, on Ø",
        "why": "The passive force bends bar and part. At constant reach the bar bends evenly, and the offset takes that back; what it does"
        " not is the change with entry, depth and hardness, and all that the part gives.",
        "read": lambda x: (varying(x), None, size_error_limit(x.case)),
        "ends": lambda x: line(
            "{size_error}·(1 − (1 − {not_taken_back})·{share_of_bar})",
            size_error=x.size_error,
            not_taken_back=NOT_TAKEN_BACK,
            share_of_bar=share_of_bar(x),
        ),
    },
    "chatter": {
        "why": "Beyond this width of engaged edge each turn's waves feed the next: a long bar sings, a damped or stiffer one stays quiet.",
    },
    "clearance": {"why": "A tip below centre inside loses clearance and its heel rubs; above centre it loses rake."},
}


HEAD_SPEED, HEAD_DEPTH = 6000.0, 0.5  # 1/min and mm that a fine boring head stands (common practice)
OF_JAWS = ("jaw_grip",)  # asked of jaws, where there are any


def _seen(rule: Rule[Cut]) -> Rule[Cut]:
    """A limit of turning as it is told inside; what jaws hold is not asked where a head turns."""
    told = replace(rule, **SEEN_FROM_INSIDE.get(rule.name, {}))
    return replace(told, applies=lambda x: not x.setup.head_turns and rule.applies(x)) if rule.name in OF_JAWS else told


JAW_LENGTH = 20.0  # mm along the part that jaws grip (common practice)


def jaw_lobes(setup: Setup) -> float:
    """How far the jaws press the bored wall out of round [mm on the diameter]: what is bored round springs back to so much of lobes.

    Beside the jaws about as much of the ring again as its radius carries with them (common practice).
    """
    outer, inner = setup.holding.grip_diameter, setup.feature.turned_diameter
    wall, radius = (outer - inner) / 2.0, (outer + inner) / 4.0
    long = min(JAW_LENGTH + radius, JAW_LENGTH + setup.holding.free_length)
    each = setup.machine.jaw_force * setup.holding.grip_share / 3.0
    return 2.0 * float(lobing(each, radius, setup.work.material.elastic_modulus, long * wall**3 / 12.0))


def share_of_bar(x: Cut) -> Array:
    """Share of all that gives [–] that is the bar's; the rest is the part's."""
    bar = x.cutter.bar_compliance
    return np.asarray(bar / (bar + x.case.compliance(x.diameter, x.diameter)))


def varying(x: Cut) -> Array:
    """What no offset takes back of the bending [mm on the diameter]: all that the part gives, and a share of what the bar does."""
    return np.asarray(x.size_error * (1.0 - (1.0 - NOT_TAKEN_BACK) * share_of_bar(x)))


def bore_of(x: Cut) -> Bore:
    """The bore that is cut."""
    assert isinstance(x.setup.feature, Bore)
    return x.setup.feature


def chip_room(x: Cut) -> Array:
    """Share of the bore's section that the bar leaves free."""
    return np.asarray(1.0 - (x.cutter.shank_height / x.setup.feature.start_diameter) ** 2)


RULES: tuple[Rule[Cut], ...] = (
    *(_seen(one) for one in TURNED if one.name not in NOT_INSIDE),
    Rule(
        "open_hole",
        "existing hole Ø",
        "size",
        Bound.LOWER,
        Severity.HARD,
        "derived",
        "A bar cuts from an open hole on: where the part stands closed, or narrower than is told, it runs into solid metal.",
        lambda x: (bore_of(x).there, x.setup.feature.start_diameter - NARROWER, None),
        applies=lambda x: bore_of(x).there is not None,
    ),
    Rule(
        "bar_overhang",
        "bar overhang",
        "length",
        Bound.UPPER,
        Severity.SOFT,
        "common-practice",
        "A steel bar holds to about four diameters, heavy metal five, carbide six, damped bars eight and twelve.",
        lambda x: (x.cutter.overhang, None, x.cutter.bar_reach),
    ),
    Rule(
        "bar_whips",
        "max. bar overhang",
        "length",
        Bound.UPPER,
        Severity.HARD,
        "common-practice",
        "A third beyond what it holds to a bar whips: a stiffer or a damped one, or from both ends.",
        lambda x: (x.cutter.overhang, None, WHIPS * x.cutter.bar_reach),
    ),
    Rule(
        "bar_reaches",
        "bar reach",
        "length",
        Bound.LOWER,
        Severity.HARD,
        "common-practice",
        "The bar must stand out further than the bore is deep, or its sleeve meets the face.",
        lambda x: (x.cutter.overhang, x.setup.feature.length + LEAST_REACH, None),
        (),
        lambda x: x.setup.settings.overhang is not None,
    ),
    Rule(
        "chip_room",
        "chip space",
        "share",
        Bound.LOWER,
        Severity.SOFT,
        "common-practice",
        "What the bar leaves of the bore's section: in less, chips wrap around the bar and scratch the wall.",
        lambda x: (100.0 * chip_room(x), 100.0 * LEAST_ROOM, None),
    ),
    Rule(
        "jaw_lobes",
        "clamping distortion, on Ø",
        "length",
        Bound.UPPER,
        Severity.SOFT,
        "roark",
        "Three jaws press a thin wall to three lobes; bored round, it springs back to them. Softer grip, full-round jaws, or gripped by"
        " its face.",
        lambda x: (jaw_lobes(x.setup), None, size_error_limit(x.case)),
        (),
        lambda x: x.setup.machine.jaw_force > 0,
    ),
    Rule(
        "wiper_bar",
        "wiper on a bar, out over its Ø",
        "times_diameter",
        Bound.UPPER,
        Severity.SOFT,
        "common-practice",
        "A wiper's flat pushes the bar off and makes it sing: on a bar that is out no more than three diameters.",
        lambda x: (np.where(x.cutter.wiper > 0, x.cutter.overhang / x.cutter.shank_height, 0.0), None, MOST_WIPED),
        (),
        lambda x: x.cutter.wiper > 0,
    ),
    Rule(
        "head_speed",
        "head speed",
        "spindle_speed",
        Bound.UPPER,
        Severity.HARD,
        "common-practice",
        "A head with its slide out to one side shakes with the square of its speed; beyond this only one that is balanced for it.",
        lambda x: (x.spindle_speed, None, HEAD_SPEED),
        ("spindle_speed",),
        lambda x: x.setup.head_turns,
        contour=True,
    ),
    Rule(
        "head_depth",
        "depth for a fine head",
        "length",
        Bound.UPPER,
        Severity.SOFT,
        "common-practice",
        "Its slide holds a fine cut: some tenths on the radius; more is taken by a drill, a core drill or a mill before it.",
        lambda x: (x.depth_of_cut, None, HEAD_DEPTH),
        (),
        lambda x: x.setup.head_turns,
        contour=True,
    ),
    Rule(
        "one_size",
        "passes of one head",
        "count",
        Bound.UPPER,
        Severity.SOFT,
        "common-practice",
        "A head bores one diameter: for each further pass it is set by hand at the machine, or another head takes over.",
        lambda x: (float(x.setup.pass_count), None, 1.0),
        (),
        lambda x: x.setup.head_turns and x.setup.pass_count > 1,
    ),
    Rule(
        "nose_depth",
        "min. depth for corner",
        "length",
        Bound.LOWER,
        Severity.SOFT,
        "common-practice",
        "A cut shallower than its corner pushes the bar off the wall more than it cuts along it: a corner no larger than the depth.",
        lambda x: (x.depth_of_cut, x.cutter.nose_radius, None),
        contour=True,
    ),
)
