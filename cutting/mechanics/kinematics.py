"""Speeds and times of turning and facing."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import formula

Array = NDArray[np.float64]
LEAST_SPEED = 1e-9  # 1/min, of a spindle that may run as slowly as it likes


@formula("spindle_speed", "1000·{cutting_speed}/(π·{diameter})", "iso-3002-1")
def spindle_speed(cutting_speed: ArrayLike, diameter: ArrayLike) -> Array:
    """Spindle speed n [1/min] for a cutting speed vc [m/min] at a diameter d [mm]. Source: ISO 3002-1.

    Shapes broadcast. Raises nothing; d must be above zero.

    >>> round(float(spindle_speed(150.0, 60.0)), 1)
    795.8
    """
    return 1000.0 * np.asarray(cutting_speed) / (np.pi * np.asarray(diameter))


@formula("cutting_speed", "π·{diameter}·{spindle_speed}/1000", "iso-3002-1")
def cutting_speed(spindle_speed: ArrayLike, diameter: ArrayLike) -> Array:
    """Cutting speed vc [m/min] at a diameter d [mm] for a spindle speed n [1/min]. Source: ISO 3002-1.

    >>> round(float(cutting_speed(1000.0, 50.0)), 2)
    157.08
    """
    return np.pi * np.asarray(diameter) * np.asarray(spindle_speed) / 1000.0


@formula("feed_rate", "{feed_per_rev}·{spindle_speed}", "iso-3002-1")
def feed_rate(feed_per_rev: ArrayLike, spindle_speed: ArrayLike) -> Array:
    """Feed per minute vf [mm/min] from feed f [mm/rev] and spindle speed n [1/min]. Source: ISO 3002-1.

    >>> round(float(feed_rate(0.25, 800.0)), 1)
    200.0
    """
    return np.asarray(feed_per_rev) * np.asarray(spindle_speed)


def nearest_step_below(wanted: ArrayLike, steps: ArrayLike) -> Array:
    """The largest step of a gearbox that does not exceed what is wanted; the lowest step where none fits.

    Parameters: `wanted` any shape, `steps` ascending list of the machine's speeds or feeds. Same unit out.

    >>> round(float(nearest_step_below(399.0, [100.0, 400.0, 1600.0])), 1)
    100.0
    """
    ladder = np.asarray(steps, dtype=float)
    # a hair of tolerance so that a step which was itself the wish is found again
    place = np.searchsorted(ladder, np.asarray(wanted, dtype=float) * (1 + 1e-9), side="right") - 1
    return ladder[np.clip(place, 0, len(ladder) - 1)]


@formula("engaged_time", "60·{length}/({feed_per_rev}·{spindle_speed})", "groover")
def turning_time(length: ArrayLike, feed_per_rev: ArrayLike, spindle_speed: ArrayLike) -> Array:
    """Time tc [s] to turn a length L [mm] at feed f [mm/rev] and n [1/min]. Source: Groover, ch. 22.

    >>> round(float(turning_time(100.0, 0.25, 800.0)), 2)
    30.0
    """
    return 60.0 * np.asarray(length) / (np.asarray(feed_per_rev) * np.asarray(spindle_speed))


@formula(
    "engaged_time",
    "60·[π({diameter}²−d_c²)/(4000·{cutting_speed}·{feed_per_rev}) + (d_c−{inner_diameter})/(2·{feed_per_rev}·{clamp_speed})],"
    " d_c = 1000·{cutting_speed}/(π·{clamp_speed}) held between {inner_diameter} and {diameter}",
    "derived",
)
def facing_time(
    diameter: ArrayLike,
    inner_diameter: ArrayLike,
    cutting_speed: ArrayLike,
    feed_per_rev: ArrayLike,
    clamp_speed: ArrayLike,
    lowest_speed: ArrayLike = 0.0,
) -> Array:
    """Time tc [s] to face from diameter d to d2 [mm] at constant cutting speed vc [m/min] with a speed clamp.

    Below d_c = 1000·vc/(π·n_max) the spindle stays at n_max [1/min]; feed f [mm/rev]. A spindle that runs no slower than
    `lowest_speed` [1/min] stays there above 1000·vc/(π·n_min). Covers the cases clamped from the start and never clamped.
    Source: integration of dr/(f·n(r)).

    >>> round(float(facing_time(100.0, 0.0, 200.0, 0.2, 500.0)), 1)  # clamped all the way: 60·50/(0.2·500)
    30.0
    """
    d1, d2, v = np.asarray(diameter, float), np.asarray(inner_diameter, float), np.asarray(cutting_speed, float)
    f, n_max = np.asarray(feed_per_rev, float), np.asarray(clamp_speed, float)
    clamp_diameter = np.clip(1000.0 * v / (np.pi * n_max), d2, d1)
    slowest = np.maximum(np.asarray(lowest_speed, float), LEAST_SPEED)
    free_from = np.clip(1000.0 * v / (np.pi * slowest), clamp_diameter, d1)
    # 4000: 1000 mm in a metre, and two radii for each Ø twice
    constant = np.pi * (free_from**2 - clamp_diameter**2) / (4000.0 * v * f)
    clamped = (clamp_diameter - d2) / (2.0 * f * n_max)
    return 60.0 * (constant + clamped + (d1 - free_from) / (2.0 * f * slowest))


@formula("engaged_time", "60·({diameter}−{inner_diameter})/(2·{feed_per_rev}·{spindle_speed})", "groover")
def facing_time_at_fixed_speed(diameter: ArrayLike, inner_diameter: ArrayLike, feed_per_rev: ArrayLike, spindle_speed: ArrayLike) -> Array:
    """Time tc [s] to face from d to d2 [mm] at feed f [mm/rev] with one spindle speed n [1/min].

    >>> round(float(facing_time_at_fixed_speed(100.0, 0.0, 0.2, 500.0)), 2)
    30.0
    """
    return 60.0 * (np.asarray(diameter) - np.asarray(inner_diameter)) / (2.0 * np.asarray(feed_per_rev) * np.asarray(spindle_speed))
