"""How far part and tool spring at the cut; the part's own compliance comes from the stepped beam."""

from __future__ import annotations

from enum import StrEnum

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]

SHANK_MODULUS = 210_000.0  # steel shank, N/mm²


class Holding(StrEnum):
    """How the part is held."""

    CHUCK = "chuck"
    CHUCK_AND_CENTRE = "chuck and centre"
    BETWEEN_CENTRES = "between centres"


def round_second_moment(diameter: ArrayLike, bore: ArrayLike = 0.0) -> Array:
    """Second moment I [mm⁴] of a round section of diameter d [mm] with a bore [mm].

    >>> round(float(round_second_moment(40.0, 20.0)), 0)
    117810.0
    """
    return np.pi / 64.0 * (np.asarray(diameter, float) ** 4 - np.asarray(bore, float) ** 4)


@formula("deflection", "{passive_force}·{compliance}", "roark", Honesty.MODEL, "springing")
def part_deflection(passive_force: ArrayLike, compliance: ArrayLike) -> Array:
    """Deflection δ [mm] of the part at the cut from Fp [N] and the beam's compliance c [mm/N].

    >>> round(float(part_deflection(500.0, 2e-5)), 4)
    0.01
    """
    return np.asarray(passive_force) * np.asarray(compliance)


@formula("size_error", "2·{deflection}", "beam-theory", Honesty.MODEL, "springing")
def size_error(deflection: ArrayLike) -> Array:
    """Error of diameter Δd [mm]: the part springs δ [mm] away and stays larger by twice that.

    >>> round(float(size_error(0.01)), 3)
    0.02
    """
    return 2.0 * np.asarray(deflection)


@formula(
    "deflection", "{cutting_force}·{overhang}³/(3·{elastic_modulus}·{second_moment})", "roark", Honesty.MODEL, "springing", states="give"
)
def tool_deflection(
    cutting_force: ArrayLike, overhang: ArrayLike, second_moment: ArrayLike, elastic_modulus: ArrayLike = SHANK_MODULUS
) -> Array:
    """Deflection δ [mm] at the tip of a cantilevered shank or bar.

    Fc [N], overhang l_o [mm], I [mm⁴], E [N/mm²]. Source: Roark, cantilever with end load.

    >>> round(float(tool_deflection(1500.0, 40.0, 32552.0, 210000.0)), 5)
    0.00468
    """
    return np.asarray(cutting_force) * np.asarray(overhang, float) ** 3 / (3.0 * np.asarray(elastic_modulus) * np.asarray(second_moment))


def shank_second_moment(width: ArrayLike, height: ArrayLike) -> Array:
    """Second moment I [mm⁴] of a rectangular shank, width b and height h [mm], bent in height.

    >>> round(float(shank_second_moment(25.0, 25.0)), 1)
    32552.1
    """
    return np.asarray(width, float) * np.asarray(height, float) ** 3 / 12.0
