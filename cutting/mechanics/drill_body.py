"""What a drill's body and the part under it stand: buckling, twisting off, a free floor that bends."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]
# the flutes leave this share of a solid round's second moment about the weaker axis, and of its polar section modulus (common practice)
WEAK_AXIS, TWISTED = 0.15, 0.35
FIXED_AND_GUIDED = 20.19  # of the column that is held at one end and guided at the other: (4.4934)², Euler
POISSON = 0.3  # of metals


def drill_second_moment(diameter: ArrayLike) -> Array:
    """Second moment of area [mm⁴] of a fluted body about its weaker axis: D [mm].

    >>> round(float(drill_second_moment(20.0) / drill_second_moment(10.0)))  # by the fourth power
    16
    """
    return WEAK_AXIS * np.pi / 64.0 * np.asarray(diameter, float) ** 4


@formula("buckling_force", "20.19·{elastic_modulus}·{second_moment}/{unsupported_length}²", "euler", Honesty.MODEL, states="strength")
def buckling_force(elastic_modulus: ArrayLike, second_moment: ArrayLike, unsupported_length: ArrayLike) -> Array:
    """Thrust F_k [N] at which a drill buckles: held in the chuck, its point guided by the hole. E [N/mm²], I [mm⁴], l_u [mm].

    >>> round(float(buckling_force(210_000.0, 10.0, 100.0)))  # Euler, held and guided: 2.046·π²·E·I/l²
    4240
    """
    return FIXED_AND_GUIDED * np.asarray(elastic_modulus) * np.asarray(second_moment) / np.asarray(unsupported_length, float) ** 2


def twist_strength(diameter: ArrayLike, shear_strength: ArrayLike) -> Array:
    """Torque [N·m] that twists a fluted body off: D [mm], τ [N/mm²] of the tool material.

    >>> round(float(twist_strength(20.0, 900.0) / twist_strength(10.0, 900.0)))  # by the cube
    8
    """
    return TWISTED * np.pi / 16.0 * np.asarray(diameter, float) ** 3 * np.asarray(shear_strength) / 1000.0


@formula(
    "deflection",
    "12·(1 − {poisson_ratio}²)·{thrust}·{plate_radius}²/(16·π·{elastic_modulus}·{plate_thickness}³)",
    "roark",
    Honesty.MODEL,
    "springing",
)
def floor_deflection(
    thrust: ArrayLike, plate_radius: ArrayLike, elastic_modulus: ArrayLike, plate_thickness: ArrayLike, poisson_ratio: ArrayLike = POISSON
) -> Array:
    """How far a clamped round plate gives under a push at its middle [mm]: F [N], a and t [mm], E [N/mm²].

    >>> round(float(floor_deflection(1000.0, 50.0, 210000.0, 10.0)), 4)
    0.0026
    """
    stiffness = np.asarray(elastic_modulus) * np.asarray(plate_thickness, float) ** 3 / (12.0 * (1.0 - np.asarray(poisson_ratio) ** 2))
    return np.asarray(thrust) * np.asarray(plate_radius, float) ** 2 / (16.0 * np.pi * stiffness)
