"""Forces, power and torque after Kienzle, with the in-plane force split along the engaged edge."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]

# range of chip thickness for which Kienzle pairs were fitted, mm
KIENZLE_RANGE = (0.05, 2.5)


@formula("rake_factor", "1 − 0.015·({rake} − {reference_rake})", "kienzle-1952", Honesty.MODEL, "cutting force")
def rake_factor(rake: ArrayLike, reference_rake: ArrayLike) -> Array:
    """Correction Kγ for effective rake γ [°] against the rake γ0 [°] of the coefficient set.

    1.5 % per degree; γ0 is 6° for steel, 2° for cast iron; where no source gives γ0 pass γ itself. Held at 0.5 below.

    >>> round(float(rake_factor(12.0, 6.0)), 3)
    0.91
    """
    return np.maximum(1.0 - 0.015 * (np.asarray(rake) - np.asarray(reference_rake)), 0.5)


@formula(
    "specific_force",
    "{specific_force_1}·{chip_thickness}^(−{force_exponent})·{rake_factor}·{wear_factor}·{form_factor}",
    "kienzle-1952",
    Honesty.MODEL,
    states="force",
)
def specific_cutting_force(
    specific_force_1: ArrayLike,
    chip_thickness: ArrayLike,
    force_exponent: ArrayLike,
    rake_factor: ArrayLike = 1.0,
    wear_factor: ArrayLike = 1.0,
    form_factor: ArrayLike = 1.0,
) -> Array:
    """Specific cutting force kc [N/mm²] at chip thickness h [mm].

    kc1.1 [N/mm²] and mc are a fitted pair of one source. Valid for h about 0.05 to 2.5 mm. Source: Kienzle 1952.

    >>> round(float(specific_cutting_force(1500.0, 0.2, 0.25)), 1)
    2243.0
    """
    h = np.asarray(chip_thickness, float)
    return np.asarray(specific_force_1) * h ** (-np.asarray(force_exponent)) * rake_factor * wear_factor * form_factor


@formula("cutting_force", "{specific_force}·{chip_area}", "kienzle-1952", Honesty.MODEL, "cutting force")
def cutting_force(specific_force: ArrayLike, chip_area: ArrayLike) -> Array:
    """Cutting force Fc [N] = kc [N/mm²] · A [mm²]. Source: Kienzle 1952.

    >>> round(float(cutting_force(2243.0, 0.5)), 1)
    1121.5
    """
    return np.asarray(specific_force) * np.asarray(chip_area)


@formula(
    "in_plane_ratio",
    "√((0.176·{chip_thickness}^−0.44)² + (0.138·{chip_thickness}^−0.23)²)",
    "koenig-essel",
    Honesty.MODEL,
    states="push",
)
def in_plane_ratio(chip_thickness: ArrayLike) -> Array:
    """In-plane force (feed and passive together) as a share of Fc at chip thickness h [mm].

    From the pairs of E295: kf1.1 351/0.70 and kp1.1 274/0.49 against kc1.1 1990/0.26, whose share grows as the
    chip gets thin. Other metals carry it over, said so in the working. Source: König & Essel, from memory.

    >>> round(float(in_plane_ratio(1.0)), 3)  # √(0.176² + 0.138²)
    0.224
    """
    h = np.asarray(chip_thickness, float)
    return np.hypot(0.176 * h**-0.44, 0.138 * h**-0.23)


@formula("feed_force", "{cutting_force}·{in_plane_ratio}·sin({chord_angle})", "colwell-1954", Honesty.MODEL, "push-off")
def feed_force(cutting_force: ArrayLike, in_plane_ratio: ArrayLike, chord_angle: ArrayLike) -> Array:
    """Feed force Ff [N]: the in-plane force along the feed, square to the chord κe [°]. Source: Colwell 1954.

    >>> round(float(feed_force(1000.0, 0.5, 90.0)))  # the chord square to the feed: all of it along the feed
    500
    """
    return np.asarray(cutting_force) * np.asarray(in_plane_ratio) * np.sin(np.radians(chord_angle))


@formula(
    "passive_force",
    "{cutting_force}·{in_plane_ratio}·cos({chord_angle}) + {ploughing_force}",
    "colwell-1954",
    Honesty.MODEL,
    "push-off",
)
def passive_force(cutting_force: ArrayLike, in_plane_ratio: ArrayLike, chord_angle: ArrayLike, ploughing_force: ArrayLike = 0.0) -> Array:
    """Passive force Fp [N], which pushes the part away: grows as the nose takes the cut. Source: Colwell 1954.

    >>> round(float(passive_force(1000.0, 0.5, 60.0, 20.0)))  # 1000·0.5·cos 60° + 20
    270
    """
    share = np.maximum(np.cos(np.radians(chord_angle)), 0.0)
    return np.asarray(cutting_force) * np.asarray(in_plane_ratio) * share + np.asarray(ploughing_force)


@formula(
    "ploughing_force",
    "{specific_force}·{edge_radius}·{engaged_edge}·(1 − {chip_thickness}/0.05), not below 0",
    "common-practice",
    Honesty.RULE,
    "push-off",
)
def ploughing_force(specific_force: ArrayLike, edge_radius: ArrayLike, engaged_edge: ArrayLike, chip_thickness: ArrayLike) -> Array:
    """Force Fpl [N] of the rounded edge that presses instead of cutting, below h 0.05 mm where Kienzle ends.

    rn [mm] edge radius, b [mm] engaged edge. Common practice, no source.

    >>> round(float(ploughing_force(2000.0, 0.02, 2.0, 0.025))), float(ploughing_force(2000.0, 0.02, 2.0, 0.05))
    (40, 0.0)
    """
    below = np.clip(1.0 - np.asarray(chip_thickness) / KIENZLE_RANGE[0], 0.0, 1.0)
    return np.asarray(specific_force) * np.asarray(edge_radius) * np.asarray(engaged_edge) * below


@formula("cutting_power", "{cutting_force}·{cutting_speed}/60000", "iso-3002-4", Honesty.MODEL, "cutting force")
def cutting_power(cutting_force: ArrayLike, cutting_speed: ArrayLike) -> Array:
    """Power Pc [kW] at the spindle from Fc [N] and vc [m/min]. Source: ISO 3002-4.

    >>> round(float(cutting_power(1200.0, 150.0)), 2)
    3.0
    """
    return np.asarray(cutting_force) * np.asarray(cutting_speed) / 60_000.0


@formula("motor_power", "{cutting_power}/{efficiency}", "groover", Honesty.MODEL, "cutting force")
def motor_power(cutting_power: ArrayLike, efficiency: ArrayLike) -> Array:
    """Power Pm [kW] at the motor from the spindle's Pc [kW] and the efficiency η.

    >>> round(float(motor_power(3.0, 0.8)), 2)
    3.75
    """
    return np.asarray(cutting_power) / np.asarray(efficiency)


@formula("torque", "{cutting_force}·{diameter}/2000", "iso-3002-4", Honesty.MODEL, "cutting force")
def torque(cutting_force: ArrayLike, diameter: ArrayLike) -> Array:
    """Torque M [N·m] at the spindle from Fc [N] at diameter d [mm].

    >>> round(float(torque(1200.0, 50.0)), 1)
    30.0
    """
    return np.asarray(cutting_force) * np.asarray(diameter) / 2000.0
