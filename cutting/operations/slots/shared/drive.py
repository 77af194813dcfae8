"""What the machine makes of a wanted speed and feed: clamp, gearbox steps, no constant surface speed."""

from __future__ import annotations

import numpy as np

from cutting.machine.machines import Machine
from cutting.mechanics.kinematics import nearest_step_below


def top_speed(machine: Machine, cutting_speed: float, diameter: float, clamp: float | None) -> float:
    """The highest spindle speed [1/min] of a cut that starts at a diameter [mm] with a wanted speed [m/min].

    A machine without constant surface speed keeps the speed of the rim all the way in; a gearbox takes its step below.
    """
    top = min(machine.top_speed, clamp or machine.top_speed)
    if machine.constant_surface_speed:
        return float(top)
    wanted = min(1000.0 * cutting_speed / (np.pi * diameter), top)
    return float(nearest_step_below(wanted, machine.speeds)) if machine.speeds else float(wanted)


def real_feed(machine: Machine, feed: float) -> float:
    """The feed [mm/rev] that the machine has: as wanted, or the gearbox's step below."""
    return float(nearest_step_below(feed, machine.feeds)) if machine.feeds else feed
