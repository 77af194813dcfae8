"""Sizes are stated at 20 °C: what a warm part measures there, and what it will shrink."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

Array = NDArray[np.float64]
REFERENCE = 20.0  # °C, ISO 1


def growth(diameter: ArrayLike, expansion: ArrayLike, temperature: ArrayLike) -> Array:
    """Growth [mm] of a diameter [mm] at a temperature [°C] against 20 °C; expansion in 1e−6/K. Source: ISO 1, α·d·ΔT.

    >>> round(float(growth(200.0, 24.0, 30.0)), 3)
    0.048
    """
    return np.asarray(diameter, float) * np.asarray(expansion) * 1e-6 * (np.asarray(temperature, float) - REFERENCE)


def at_reference(measured: ArrayLike, expansion: ArrayLike, temperature: ArrayLike) -> Array:
    """The diameter [mm] at 20 °C of a part measured [mm] at a temperature [°C]; gauge and air are taken as at 20 °C.

    >>> round(float(at_reference(100.0345, 11.5, 50.0)), 4)
    100.0
    """
    share = np.asarray(expansion) * 1e-6 * (np.asarray(temperature, float) - REFERENCE)
    return np.asarray(measured, float) / (1.0 + share)
