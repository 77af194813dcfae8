"""What the jaws hold of a part."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.mechanics import grip
from cutting.operations.frame.setup import BaseSetup
from cutting.working import Silent

Array = NDArray[np.float64]


def held_torque(setup: BaseSetup, spindle_speed: Any, grip_diameter: float, record: Silent) -> Array:
    """Torque [N·m] that the jaws hold at a spindle speed [1/min] on a diameter [mm]; 0 where no jaws grip."""
    machine = setup.machine
    if machine.jaw_force <= 0:
        return np.zeros_like(spindle_speed, float)
    return np.asarray(
        record(
            grip.grip_torque,
            friction=setup.house.jaw_friction,
            jaw_force=machine.jaw_force * getattr(setup.holding, "grip_share", 1.0),
            jaw_mass=machine.jaw_mass,
            jaw_radius=machine.jaw_radius,
            spindle_speed=spindle_speed,
            grip_diameter=grip_diameter,
        )
    )
