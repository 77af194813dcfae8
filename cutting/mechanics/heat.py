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
    states="temperature",
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

    >>> round(float(cook_temperature_rise(2000.0, 0.0038, 120.0, 0.2, 10.0)), 1)
    720.0
    """
    speed = 1000.0 * np.asarray(cutting_speed, float) / 60.0
    energy = np.asarray(specific_force) / 1000.0
    return 0.4 * energy / np.asarray(heat_capacity) * np.cbrt(speed * np.asarray(chip_thickness) / np.asarray(diffusivity))


@formula("zone_temperature", "20 + ({softening} − 20)·{temperature_rise}/{reference_rise}", "common-practice", Honesty.RULE, "temperature")
def zone_temperature(softening: ArrayLike, temperature_rise: ArrayLike, reference_rise: ArrayLike) -> Array:
    """Temperature T_z [°C] of the zone in hard turning, by comparison only.

    The trade's starting speed is the one at which the hardened chip gives way, so the rise there stands for the softening
    temperature T_s [°C]; Cook's formula carries it to other speeds. Common practice, no source.

    >>> float(zone_temperature(620.0, 400.0, 400.0)), float(zone_temperature(620.0, 200.0, 400.0))
    (620.0, 320.0)
    """
    share = np.asarray(temperature_rise, float) / np.asarray(reference_rise)
    return 20.0 + (np.asarray(softening, float) - 20.0) * share
