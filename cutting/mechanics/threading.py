"""Mechanics of threads: the groove and its passes, torque of a tap, what a cutter without a lead leaves on the flanks."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working.formula import Honesty, formula

Array = NDArray[np.float64]
TAMED = 0.3  # share of a usual pass's metal that the first one takes (common practice)


def groove_area(opening: ArrayLike, depth: ArrayLike, slopes: ArrayLike) -> Array:
    """Cross-section [mm²] of a groove of an opening width and depth [mm]; `slopes` is the sum of the tangents of its flanks.

    >>> float(groove_area(2.0, 1.0, 2.0))  # a triangle 2 wide and 1 deep
    1.0
    """
    t = np.asarray(depth, float)
    return np.asarray(np.asarray(opening) * t - np.asarray(slopes) * t**2 / 2.0)


def depths_of_equal_area(depth: float, passes: int, tip: float = 0.0, slopes: float = 1.0, tamed: float = TAMED) -> Array:
    """Depth after each pass [mm] where each takes the same metal, the first less: total depth h, passes n, tip width [mm].

    A form of tip width w and slopes s has taken w·x + s·x²/2 at depth x. Of a pointed form (w = 0) this is the trade's root law,
    x_1 = h·√(0.3/(n−1)), x_i = h·√((i−1)/(n−1)). Common practice.

    >>> [round(float(x), 3) for x in depths_of_equal_area(1.0, 5)]  # √(0.3/4), √(1/4), √(2/4), √(3/4), 1
    [0.274, 0.5, 0.707, 0.866, 1.0]
    """
    if passes < 2:
        return np.array([depth])
    whole = tip * depth + slopes * depth**2 / 2.0
    shares = np.array([tamed, *range(1, passes)]) / (passes - 1)
    return np.asarray(_depth_at(whole * shares, tip, slopes))


def _depth_at(area: Array, tip: float, slopes: float) -> Array:
    """Depth at which a form has taken an area."""
    if slopes <= 0:
        return area / tip
    return np.asarray((-tip + np.sqrt(tip**2 + 2.0 * slopes * area)) / slopes)


@formula(
    "torque",
    "{pitch}²·{diameter}·{specific_force}/8000·{friction_factor}·{area_share}",
    "common-practice",
    Honesty.MODEL,
    "tapping",
)
def tap_torque(
    pitch: ArrayLike, diameter: ArrayLike, specific_force: ArrayLike, friction_factor: ArrayLike, area_share: ArrayLike = 1.0
) -> Array:
    """Torque of a tap [N·m]: P, D [mm], kc [N/mm²], friction and wear 1.2 to 2, metal against that of the usual drill. Common practice.

    >>> float(tap_torque(1.5, 10.0, 2000.0, 1.6))  # M10 in steel: 1.5²·10·2000/8000·1.6
    9.0
    """
    return np.asarray(
        # 8000: half of a quarter, from N·mm to N·m
        np.asarray(pitch) ** 2 * np.asarray(diameter) * np.asarray(specific_force) / 8000.0 * np.asarray(friction_factor) * area_share
    )


@formula("breaking_torque", "π/16·{shear_strength}·{core_diameter}³/1000", "beam-theory", Honesty.MODEL, states="strength")
def breaking_torque(shear_strength: ArrayLike, core_diameter: ArrayLike) -> Array:
    """Torque that twists a core off [N·m]: τ [N/mm²], core [mm]. Source: a round bar in torsion.

    >>> round(float(breaking_torque(600.0, 6.0)), 2)
    25.45
    """
    return np.asarray(np.pi / 16.0 * np.asarray(shear_strength) * np.asarray(core_diameter, float) ** 3 / 1000.0)


@formula(
    "flank_error",
    "{lead}²·({radius} − {path_radius})/tan({half_angle})/(8·π²·{radius}·{path_radius})",
    "derived",
)
def flank_error(lead: ArrayLike, radius: ArrayLike, path_radius: ArrayLike, half_angle: ArrayLike) -> Array:
    """What a cutter without a lead cuts away beside each flank inside [mm along the axis]: lead, radius in the work, path [mm], α/2 [°].

    Source: the envelope of a tooth on its helix to second order; the tests hold it against the envelope by numbers.

    >>> float(flank_error(1.5, 5.0, 5.0, 30.0))  # on a path of the thread's own radius none is left
    0.0
    """
    r, path = np.asarray(radius, float), np.asarray(path_radius, float)
    cot = 1.0 / np.tan(np.radians(np.asarray(half_angle, float)))
    return np.asarray(np.asarray(lead, float) ** 2 * (r - path) * cot / (8.0 * np.pi**2 * r * path))


@formula("run_in", "{spindle_speed}·{lead}·{acceleration_time}/60", "common-practice", Honesty.RULE, "run-in")
def run_in(spindle_speed: ArrayLike, lead: ArrayLike, acceleration_time: ArrayLike) -> Array:
    """Way [mm] before the feed stands at n·lead: n [1/min], lead [mm], time to speed [s]. Common practice.

    >>> round(float(run_in(500.0, 2.0, 0.06)), 3)
    1.0
    """
    return np.asarray(spindle_speed, float) * np.asarray(lead) * np.asarray(acceleration_time) / 60.0


def flank_clearance(clearance: ArrayLike, flank: ArrayLike, lead_angle: ArrayLike, tilt: ArrayLike) -> tuple[Array, Array]:
    """Clearance [°] left at the leading and at the trailing flank: the insert's under its nose, flank angle, φ and the seat's tilt [°].

    tan of the clearance along a flank is tan of that under the nose times tan of the flank; the lead turns it by φ less the tilt,
    away from the leading flank and into the trailing one. Source: geometry.

    >>> leading, trailing = flank_clearance(11.0, 30.0, 2.0, 2.0)  # a seat tilted by the lead: both flanks alike
    >>> round(float(leading), 1), round(float(trailing), 1)
    (6.4, 6.4)
    """
    own = np.degrees(np.arctan(np.tan(np.radians(np.asarray(clearance, float))) * np.tan(np.radians(np.asarray(flank, float)))))
    turned = np.asarray(lead_angle, float) - np.asarray(tilt, float)
    return np.asarray(own - turned), np.asarray(own + turned)
