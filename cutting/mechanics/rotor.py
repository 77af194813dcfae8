"""A heavy tool on its gripper and in its spindle: tilting moment, spin-up, unbalance."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]
GRAVITY = 9.80665  # m/s²
PER_TURN = 2.0 * np.pi / 60.0


@formula("tilting_moment", "{tool_mass}·9.807·{mass_lever}/1000", "beam-theory")
def tilting_moment(tool_mass: ArrayLike, mass_lever: ArrayLike) -> Array:
    """Moment M [N·m] about the gripper: m [kg], lever of the centre of gravity [mm].

    >>> round(float(tilting_moment(10.5, 126.0)), 1)
    13.0
    """
    return np.asarray(tool_mass, float) * GRAVITY * np.asarray(mass_lever) / 1000.0


@formula("spin_up_time", "{rotor_inertia}·2·π·{spindle_speed}/60/{spindle_torque}", "beam-theory", Honesty.MODEL, "balance")
def spin_up_time(rotor_inertia: ArrayLike, spindle_speed: ArrayLike, spindle_torque: ArrayLike) -> Array:
    """Time t [s] from rest to n [1/min]: J [kg·m²] of the tool, torque [N·m] that is left for it.

    >>> round(float(spin_up_time(0.121, 3000.0, 60.0)), 2)
    0.63
    """
    return np.asarray(rotor_inertia, float) * PER_TURN * np.asarray(spindle_speed) / np.asarray(spindle_torque)


@formula("permissible_unbalance", "9549·{balance_grade}/{spindle_speed}·{tool_mass}", "iso-21940-11")
def permissible_unbalance(balance_grade: ArrayLike, spindle_speed: ArrayLike, tool_mass: ArrayLike) -> Array:
    """Unbalance U_per [g·mm] that a grade G [mm/s] permits at n [1/min] to a tool of m [kg].

    >>> round(float(permissible_unbalance(6.3, 10000.0, 1.0)), 1)
    6.0
    """
    return 9549.3 * np.asarray(balance_grade, float) / np.asarray(spindle_speed) * np.asarray(tool_mass)


@formula("unbalance_force", "{unbalance}·10⁻⁶·(2·π·{spindle_speed}/60)²", "beam-theory")
def unbalance_force(unbalance: ArrayLike, spindle_speed: ArrayLike) -> Array:
    """Force F [N] that turns with the tool: U [g·mm], n [1/min].

    >>> round(float(unbalance_force(100.0, 6000.0)), 2)
    39.48
    """
    return np.asarray(unbalance, float) * 1e-6 * (PER_TURN * np.asarray(spindle_speed)) ** 2
