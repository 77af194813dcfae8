"""Laminates under a drill: the thrust that pushes the last plies off."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]


@formula(
    "critical_thrust",
    "π·√(8·{opening_energy}/1000·{elastic_modulus}·{uncut_thickness}³/(3·(1 − {poisson_ratio}²)))",
    "hocheng-dharan-1990",
    Honesty.MODEL,
    "plies",
)
def critical_thrust(opening_energy: ArrayLike, elastic_modulus: ArrayLike, uncut_thickness: ArrayLike, poisson_ratio: ArrayLike) -> Array:
    """Thrust F_A [N] that parts the last plies: G_Ic [J/m²], E [N/mm²], h [mm] still uncut under the chisel edge, ν.

    >>> round(float(critical_thrust(250.0, 16_000.0, 0.25, 0.3)), 1)
    42.5
    """
    energy = np.asarray(opening_energy, float) / 1000.0  # N/mm
    cubed = np.asarray(uncut_thickness, float) ** 3
    return np.pi * np.sqrt(8.0 * energy * np.asarray(elastic_modulus) * cubed / (3.0 * (1.0 - np.asarray(poisson_ratio) ** 2)))
