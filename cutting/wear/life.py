"""Extended Taylor life, anchored to a reference speed for 15 minutes."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]

REFERENCE_LIFE = 15.0  # minutes
# how far chip thickness and depth may move the speed: beyond, the exponents are extrapolation (common practice)
HEAVY_LOSS, LIGHT_GAIN = 0.7, 1.3
# speed tables gain about a third from κr 90° to 30° at the same chip: its heat spreads along the edge (common practice, from memory)
SMALL_ANGLE_EXPONENT = 0.35


@formula(
    "speed_factor",
    "{speed_factor_at_90}·(1 + held(1 − {nose_radius}·(1 − cos(min({cutting_edge_angle}, 90)))/{depth_of_cut}, 0, 1)"
    "·(sin(min({cutting_edge_angle}, 90))^−0.35 − 1))",
    "common-practice",
    Honesty.RULE,
    "small angle",
)
def factor_along_edge(
    speed_factor_at_90: ArrayLike, cutting_edge_angle: ArrayLike, depth_of_cut: ArrayLike, nose_radius: ArrayLike
) -> Array:
    """Correction kv [–] of the speed, of that at κr 90°: a small κr [°] spreads the chip's heat along the straight edge, of ap and rε [mm].

    What only the corner cuts gains nothing, and nothing is gained or lost beyond 90°. Speed tables give about 1.3 for 30°
    against 90° at the same chip thickness (common practice, from memory).

    >>> [round(float(factor_along_edge(1.0, angle, 3.0, 0.0)), 2) for angle in (95.0, 75.0, 45.0, 30.0)]
    [1.0, 1.01, 1.13, 1.27]
    >>> float(factor_along_edge(0.8, 30.0, 0.1, 0.8))  # inside the corner
    0.8
    """
    turned = np.radians(np.minimum(np.asarray(cutting_edge_angle, float), 90.0))
    straight = np.clip(1.0 - np.asarray(nose_radius, float) * (1.0 - np.cos(turned)) / np.asarray(depth_of_cut, float), 0.0, 1.0)
    return np.asarray(speed_factor_at_90, float) * (1.0 + straight * (np.sin(turned) ** -SMALL_ANGLE_EXPONENT - 1.0))


@formula(
    "tool_life",
    "15·({reference_speed}·{speed_factor}/{cutting_speed}"
    "·held(({reference_feed}/{chip_thickness})^{feed_exponent}·({reference_depth}/{depth_of_cut})^{depth_exponent}, 0.7, 1.3))"
    "^(1/{taylor_exponent})",
    "taylor-1907",
    Honesty.MODEL,
    states="life",
)
def taylor_life(
    reference_speed: ArrayLike,
    speed_factor: ArrayLike,
    cutting_speed: ArrayLike,
    taylor_exponent: ArrayLike,
    reference_feed: ArrayLike,
    chip_thickness: ArrayLike,
    feed_exponent: ArrayLike,
    reference_depth: ArrayLike,
    depth_of_cut: ArrayLike,
    depth_exponent: ArrayLike,
    light_gain: ArrayLike = LIGHT_GAIN,
) -> Array:
    """Median tool life T [min] of the extended Taylor law vc·T^n·h^a·ap^b = C.

    v15 [m/min] holds for 15 min at h = f0 [mm] and ap = a0 [mm]; the corrections come in as one factor. Chip
    thickness stands in place of feed, so that κr and nose count; both together move the speed
    by 0.7 to 1.3 at most, and to 1 where what slows the cut is as hard however light it is. Trust it within a factor of two until a trial
    has calibrated it. Source: Taylor 1907; exponents common practice.

    >>> round(float(taylor_life(200.0, 1.0, 200.0, 0.25, 0.2, 0.2, 0.2, 2.0, 2.0, 0.1)), 6)  # at its own reference: 15 min
    15.0
    >>> round(float(taylor_life(200.0, 1.0, 100.0, 0.25, 0.2, 0.2, 0.2, 2.0, 2.0, 0.1)), 6)  # at half the speed 2⁴ times as long
    240.0
    """
    n = np.asarray(taylor_exponent, float)
    speed = np.asarray(reference_speed) * np.asarray(speed_factor) / np.asarray(cutting_speed)
    thickness = np.asarray(reference_feed) / np.asarray(chip_thickness)
    depth = np.asarray(reference_depth) / np.asarray(depth_of_cut)
    moved = thickness ** np.asarray(feed_exponent) * depth ** np.asarray(depth_exponent)
    return REFERENCE_LIFE * (speed * np.clip(moved, HEAVY_LOSS, light_gain)) ** (1.0 / n)


def speed_for_life(
    tool_life: ArrayLike,
    reference_speed: ArrayLike,
    speed_factor: ArrayLike,
    taylor_exponent: ArrayLike,
    reference_feed: ArrayLike,
    chip_thickness: ArrayLike,
    feed_exponent: ArrayLike,
    reference_depth: ArrayLike,
    depth_of_cut: ArrayLike,
    depth_exponent: ArrayLike,
    light_gain: ArrayLike = LIGHT_GAIN,
) -> Array:
    """Cutting speed vc [m/min] at which `taylor_life` gives T [min]: its closed inverse, same parameters.

    >>> round(float(speed_for_life(240.0, 200.0, 1.0, 0.25, 0.2, 0.2, 0.2, 2.0, 2.0, 0.1)), 6)
    100.0
    """
    thickness = np.asarray(reference_feed) / np.asarray(chip_thickness)
    depth = np.asarray(reference_depth) / np.asarray(depth_of_cut)
    moved = thickness ** np.asarray(feed_exponent) * depth ** np.asarray(depth_exponent)
    return (
        np.asarray(reference_speed)
        * np.asarray(speed_factor)
        * np.clip(moved, HEAVY_LOSS, light_gain)
        * (REFERENCE_LIFE / np.asarray(tool_life)) ** np.asarray(taylor_exponent)
    )


def taylor_from_two_points(first: tuple[float, float], second: tuple[float, float]) -> tuple[float, float]:
    """Exponent n and constant C of vc·T^n = C from two (vc, T) pairs [m/min, min]. Source: Groover, ch. 22.

    Raises ValueError when the two lives are equal.

    Groover's example: 160 m/min lasts 5 min, 100 m/min 41 min.

    >>> round(float(taylor_from_two_points((160.0, 5.0), (100.0, 41.0))[0]), 3)
    0.223
    """
    (v1, t1), (v2, t2) = first, second
    if t1 == t2:
        raise ValueError("the two lives are equal")
    n = float(np.log(v1 / v2) / np.log(t2 / t1))
    return n, float(v1 * t1**n)
