"""Temperature at the chip–tool interface after Cook: for comparing, not for measuring."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]


@formula(
    "temperature_rise",
    "0.4·({specific_force}/1000)/{heat_capacity}·(1000·{cutting_speed}/60·{chip_thickness}/{diffusivity})^(1/3)",
    "cook-1973",
    Honesty.MODEL,
    0.4,
)
def cook_temperature_rise(
    specific_force: ArrayLike,
    heat_capacity: ArrayLike,
    cutting_speed: ArrayLike,
    chip_thickness: ArrayLike,
    diffusivity: ArrayLike,
) -> Array:
    """Mean rise ΔT [K] over the room at the interface.

    Specific energy U = kc [N/mm²] taken as N·m/mm³/1000, ρc [J/(mm³·K)] and K [mm²/s] of the work, vc [m/min],
    h [mm]. Source: Cook 1973, quoted by Groover ch. 20 (from memory). Outside its range use differences only.
    """
    speed = 1000.0 * np.asarray(cutting_speed, float) / 60.0
    energy = np.asarray(specific_force) / 1000.0
    return 0.4 * energy / np.asarray(heat_capacity) * np.cbrt(speed * np.asarray(chip_thickness) / np.asarray(diffusivity))
