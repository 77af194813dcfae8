"""What the jaws hold while they turn."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]


@formula(
    "grip_torque",
    "{friction}·max({jaw_force} − 3·{jaw_mass}·{jaw_radius}/1000·(π·{spindle_speed}/30)², 0)·{grip_diameter}/2000",
    "vdi-3106",
    Honesty.MODEL,
    states="grip",
)
def grip_torque(
    friction: ArrayLike,
    jaw_force: ArrayLike,
    jaw_mass: ArrayLike,
    jaw_radius: ArrayLike,
    spindle_speed: ArrayLike,
    grip_diameter: ArrayLike,
) -> Array:
    """Torque Mg [N·m] that three jaws hold at speed.

    Total grip force at rest Fj [N] less the centrifugal force of three jaws of mass m_j [kg] at radius r_j [mm],
    n [1/min], friction μ, grip diameter d_g [mm]. Source: VDI 3106, from memory.

    >>> round(float(grip_torque(0.25, 60_000.0, 2.0, 90.0, 0.0, 80.0)))  # at rest: 0.25 · 60 kN · 40 mm
    600
    """
    turning = np.pi * np.asarray(spindle_speed, float) / 30.0
    lost = 3.0 * np.asarray(jaw_mass) * np.asarray(jaw_radius) / 1000.0 * turning**2
    force = np.maximum(np.asarray(jaw_force) - lost, 0.0)
    return np.asarray(friction) * force * np.asarray(grip_diameter) / 2000.0


def speed_that_holds(
    torque: ArrayLike, friction: ArrayLike, jaw_force: ArrayLike, jaw_mass: ArrayLike, jaw_radius: ArrayLike, grip_diameter: ArrayLike
) -> Array:
    """Spindle speed n [1/min] up to which three jaws hold a torque [N·m]: `grip_torque` the other way round.

    0 where the torque is more than they hold at rest, without end where their mass is none. Source: VDI 3106, from memory.

    >>> n = speed_that_holds(300.0, 0.25, 60_000.0, 2.0, 90.0, 80.0)
    >>> round(float(grip_torque(0.25, 60_000.0, 2.0, 90.0, n, 80.0)))
    300
    """
    spare = np.asarray(jaw_force) - 2000.0 * np.asarray(torque) / (np.asarray(friction) * np.asarray(grip_diameter))
    pull = 3.0 * np.asarray(jaw_mass) * np.asarray(jaw_radius) / 1000.0
    with np.errstate(divide="ignore"):
        return np.where(spare > 0, 30.0 / np.pi * np.sqrt(np.maximum(spare, 0.0) / pull), 0.0)
