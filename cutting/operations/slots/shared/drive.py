"""What the machine makes of a wanted speed and feed: clamp, gearbox steps, no constant surface speed."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.machine.machines import Machine
from cutting.mechanics.kinematics import nearest_step_below

Array = NDArray[np.float64]


def top_speed(machine: Machine, cutting_speed: ArrayLike, diameter: ArrayLike, clamp: float | None) -> Array:
    """The highest spindle speed [1/min] of a cut that starts at a diameter [mm] with a wanted speed [m/min].

    A machine without constant surface speed keeps the speed of the rim all the way in; a gearbox takes its step below.
    """
    top = min(machine.top_speed, clamp or machine.top_speed)
    if machine.constant_surface_speed:
        return np.asarray(top, float)
    wanted = np.minimum(1000.0 * np.asarray(cutting_speed) / (np.pi * np.asarray(diameter)), top)
    return nearest_step_below(wanted, machine.speeds) if machine.speeds else wanted


def real_feed(machine: Machine, feed: ArrayLike) -> Array:
    """The feed [mm/rev] that the machine has: as wanted, or the gearbox's step below."""
    return nearest_step_below(feed, machine.feeds) if machine.feeds else np.asarray(feed, float)
