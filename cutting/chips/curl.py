"""The chip after the cut: how much thicker it gets, how tightly the groove curls it, and how far it is strained."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]


def friction_angle(adhesion: ArrayLike) -> Array:
    """Friction angle β [°] on the rake face from the metal's adhesion 0 to 1: 25° to 50° (common practice).

    >>> float(friction_angle(0.0)), float(friction_angle(1.0))
    (25.0, 50.0)
    """
    return 25.0 + 25.0 * np.clip(np.asarray(adhesion, float), 0.0, 1.0)


@formula("shear_angle", "45 + {rake}/2 − {friction_angle}/2, held to 8 … 45", "merchant-1945", Honesty.MODEL, "chip")
def shear_angle(rake: ArrayLike, friction_angle: ArrayLike) -> Array:
    """Angle φ [°] of the shear plane for rake γ and friction angle β [°]. Source: Merchant 1945.

    >>> round(float(shear_angle(6.0, 30.0)), 1)
    33.0
    """
    return np.clip(45.0 + np.asarray(rake, float) / 2.0 - np.asarray(friction_angle, float) / 2.0, 8.0, 45.0)


@formula("compression_ratio", "cos({shear_angle} − {rake})/sin({shear_angle})", "merchant-1945")
def compression_ratio(shear_angle: ArrayLike, rake: ArrayLike) -> Array:
    """Chip thickness after over before the cut λh, exact in the shear plane model. φ and γ [°].

    >>> round(float(compression_ratio(33.0, 6.0)), 3)
    1.636
    """
    phi = np.radians(np.asarray(shear_angle, float))
    return np.cos(phi - np.radians(np.asarray(rake, float))) / np.sin(phi)


@formula("chip_after", "{compression_ratio}·{chip_thickness}", "merchant-1945", Honesty.MODEL, "chip")
def chip_after(compression_ratio: ArrayLike, chip_thickness: ArrayLike) -> Array:
    """Thickness h_ch [mm] of the chip as it leaves, from λh and h [mm].

    >>> round(float(chip_after(2.5, 0.2)), 3)
    0.5
    """
    return np.asarray(compression_ratio) * np.asarray(chip_thickness)


@formula("chip_strain", "{chip_after}/(2·{curl_radius})", "nakayama-1962", Honesty.MODEL, "chip")
def chip_strain(chip_after: ArrayLike, curl_radius: ArrayLike) -> Array:
    """Strain of the chip's outer side when the work bends it straight again: h_ch/2·(1/R_c − 0), both in [mm]. Source: Nakayama 1962.

    >>> round(float(chip_strain(0.5, 5.0)), 4)
    0.05
    """
    return np.asarray(chip_after) / (2.0 * np.asarray(curl_radius, float))


def fracture_strain(ductility: ArrayLike) -> Array:
    """Strain at which the chip breaks, by the metal's ductility 0 to 1: 0.01 to 0.08 (common practice, no source).

    >>> round(float(fracture_strain(0.0)), 3), round(float(fracture_strain(1.0)), 3)
    (0.01, 0.08)
    """
    return 0.01 + 0.07 * np.clip(np.asarray(ductility, float), 0.0, 1.0)


def chip_length(code: str, curl_radius: float | None) -> float:
    """Length [mm] of a chip of an ISO 3685 form: arcs about one and a half half-turns of the groove, coils by their class.

    >>> chip_length("6.2", 2.0), chip_length("7", None), chip_length("1.1", None)  # arc, crumbs, ribbon
    (9.4, 2.0, 300.0)
    """
    if code.startswith("6") or code.startswith("7"):
        return round(1.5 * np.pi * (curl_radius or 2.0), 1) if code.startswith("6") else 2.0
    return {"5.2": 40.0, "2.1": 150.0, "2.3": 300.0, "1.1": 300.0, "1.3": 200.0}.get(code, 100.0)
