"""Coolant jets: speed, flow through nozzles and pump power."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]

EMULSION_DENSITY = 1000.0  # kg/m³
VELOCITY_COEFFICIENT, DISCHARGE_COEFFICIENT = 0.97, 0.7
PASCAL = 1e5  # in a bar
PUMP = 0.7  # efficiency of a pump with its motor (common practice)


@formula("jet_speed", "{velocity_coefficient}·√(2·10⁵·{pressure}/1000)", "bernoulli", Honesty.MODEL, "jet")
def jet_speed(pressure: ArrayLike, velocity_coefficient: ArrayLike = VELOCITY_COEFFICIENT) -> Array:
    """Speed v_j [m/s] of a jet of emulsion driven by p [bar]; Cv about 0.97.

    >>> round(float(jet_speed(70.0, 1.0)), 0)
    118.0
    """
    return np.asarray(velocity_coefficient) * np.sqrt(2.0 * PASCAL * np.asarray(pressure, float) / EMULSION_DENSITY)


@formula(
    "nozzle_flow",
    "{nozzles}·{discharge_coefficient}·π/4·{nozzle_diameter}²·√(2·10⁵·{pressure}/1000)·0.06",
    "bernoulli",
    Honesty.MODEL,
    "flow",
)
def nozzle_flow(
    nozzles: ArrayLike, nozzle_diameter: ArrayLike, pressure: ArrayLike, discharge_coefficient: ArrayLike = DISCHARGE_COEFFICIENT
) -> Array:
    """Flow Q [l/min] through nozzles of d_n [mm] at p [bar]; Cd 0.62 for a sharp hole to 0.8 for a rounded one.

    >>> round(float(nozzle_flow(1, 1.0, 70.0, 1.0)), 2)  # √(2 · 7 MPa / 1000 kg/m³) = 118.3 m/s through 0.785 mm²
    5.58
    """
    area = np.pi / 4.0 * np.asarray(nozzle_diameter, float) ** 2 * 1e-6
    speed = np.sqrt(2.0 * PASCAL * np.asarray(pressure, float) / EMULSION_DENSITY)
    return np.asarray(nozzles) * np.asarray(discharge_coefficient) * area * speed * 60_000.0


def pump_power(flow: ArrayLike, pressure: ArrayLike, efficiency: ArrayLike = PUMP) -> Array:
    """Power [kW] of the pump: Q [l/min] · p [bar]/(600·η).

    >>> round(float(pump_power(30.0, 70.0)), 2)
    5.0
    """
    # 600: l/min times bar in a kW
    return np.asarray(flow) * np.asarray(pressure) / (600.0 * np.asarray(efficiency))
