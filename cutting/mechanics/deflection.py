"""How far part and tool spring: uniform beams held by chuck, chuck and centre, or between centres."""

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
    """Second moment I [mm⁴] of a round section of diameter d [mm] with a bore [mm]."""
    return np.pi / 64.0 * (np.asarray(diameter, float) ** 4 - np.asarray(bore, float) ** 4)


def span_factor(holding: Holding, position: ArrayLike, free_length: ArrayLike) -> Array:
    """Geometry of the beam: deflection at the load = F/(E·I) times this [mm³].

    `position` a [mm] from the chuck, `free_length` l_f [mm] from chuck to centre (or free end).
    Closed forms of beam theory (Roark, table 8.1; from memory): cantilever a³/3, propped a³b²(3l+b)/(12l³),
    between centres a²b²/(3l).
    """
    a, length = np.asarray(position, float), np.asarray(free_length, float)
    b = np.maximum(length - a, 0.0)
    if holding is Holding.CHUCK:
        return a**3 / 3.0
    if holding is Holding.CHUCK_AND_CENTRE:
        return a**3 * b**2 * (3.0 * length + b) / (12.0 * length**3)
    return a**2 * b**2 / (3.0 * length)


def worst_span_factor(holding: Holding, near: float, far: float, free_length: float) -> tuple[float, float]:
    """The largest span factor [mm³] over a cut between two positions [mm] from the chuck, and where it stands [mm]."""
    positions = np.linspace(near, far, 41)
    factors = span_factor(holding, positions, free_length)
    worst = int(np.argmax(factors))
    return float(factors[worst]), float(positions[worst])


@formula("deflection", "{passive_force}·{compliance}", "roark", Honesty.MODEL, 0.4)
def part_deflection(passive_force: ArrayLike, compliance: ArrayLike) -> Array:
    """Deflection δ [mm] of the part at the cut from Fp [N] and the beam's compliance c [mm/N]."""
    return np.asarray(passive_force) * np.asarray(compliance)


@formula("size_error", "2·{deflection}", "beam-theory", Honesty.MODEL, 0.4)
def size_error(deflection: ArrayLike) -> Array:
    """Error of diameter Δd [mm]: the part springs δ [mm] away and stays larger by twice that."""
    return 2.0 * np.asarray(deflection)


@formula("deflection", "{cutting_force}·{overhang}³/(3·{elastic_modulus}·{second_moment})", "roark", Honesty.MODEL, 0.3)
def tool_deflection(
    cutting_force: ArrayLike, overhang: ArrayLike, second_moment: ArrayLike, elastic_modulus: ArrayLike = SHANK_MODULUS
) -> Array:
    """Deflection δ [mm] at the tip of a cantilevered shank or bar.

    Fc [N], overhang l_o [mm], I [mm⁴], E [N/mm²]. Source: Roark, cantilever with end load.
    """
    return np.asarray(cutting_force) * np.asarray(overhang, float) ** 3 / (3.0 * np.asarray(elastic_modulus) * np.asarray(second_moment))


def shank_second_moment(width: ArrayLike, height: ArrayLike) -> Array:
    """Second moment I [mm⁴] of a rectangular shank, width b and height h [mm], bent in height."""
    return np.asarray(width, float) * np.asarray(height, float) ** 3 / 12.0
