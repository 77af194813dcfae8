"""How far a stepped part springs at the cut, with jaws, centres and steady rest as springs.

Force method on exact beam sections: the strain energy of a piecewise linear moment over piecewise constant E·I is
integrated by Simpson's rule, which is exact for it. Shear is left out: below about two diameters out of the chuck the
jaws give more than the bar does.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.mechanics.deflection import Holding, round_second_moment

Array = NDArray[np.float64]
RIGID = np.inf


@dataclass(frozen=True)
class Supports:
    """What holds the part: springs in N/mm, tilt of the jaws in N·mm/rad, places in mm from the chuck.

    `jaw` is the radial give of the jaws, between centres that of the headstock's centre; `steady` a steady rest's place.
    """

    holding: Holding
    free_length: float
    jaw: float = RIGID
    tilt: float = RIGID
    centre: float = RIGID
    steady: float | None = None
    steady_stiffness: float = RIGID

    @property
    def springs(self) -> list[tuple[float, float]]:
        """Supports beyond the base structure: place and stiffness."""
        found = [(self.free_length, self.centre)] if self.holding is Holding.CHUCK_AND_CENTRE else []
        return found + ([(self.steady, self.steady_stiffness)] if self.steady is not None else [])


@dataclass(frozen=True)
class Sections:
    """Elements of the beam: `nodes` (E+1) [mm] from the chuck, `bending` E·I (..., E) [N·mm²]."""

    nodes: Array
    bending: Array


def sections(nodes: ArrayLike, diameters: ArrayLike, elastic_modulus: float, bore: ArrayLike = 0.0) -> Sections:
    """Round elements between `nodes` [mm] with `diameters` (..., E) [mm], a bore [mm], E [N/mm²]."""
    inertia = round_second_moment(np.asarray(diameters, float), bore)
    return Sections(np.asarray(nodes, float), elastic_modulus * np.maximum(inertia, 1e-9))


def compliance(beam: Sections, supports: Supports, positions: ArrayLike) -> Array:
    """Deflection per newton [mm/N] at a load that stands at each position [mm] in turn.

    `positions` (P) must be nodes of the beam. `beam.bending` has shape (..., P, E): the part may differ for each
    position of the load, as it does while it is turned. Returns (..., P). Source: force method (Roark, chapter 8;
    from memory).
    """
    places = np.asarray(positions, float)
    own = _moments(beam.nodes, supports, places)
    free = _flexibility(beam, supports, places, own, places, own)
    springs = supports.springs
    if not springs:
        return free
    if len(springs) == 1:
        spot, stiffness = np.array([springs[0][0]]), springs[0][1]
        line = _moments(beam.nodes, supports, spot)
        mixed = _flexibility(beam, supports, places, own, spot, line)
        return np.asarray(free - mixed**2 / (_flexibility(beam, supports, spot, line, spot, line) + 1.0 / stiffness))
    spots = [(np.array([place]), _moments(beam.nodes, supports, np.array([place]))) for place, _ in springs]
    mixed = np.stack([_flexibility(beam, supports, places, own, *spot) for spot in spots], -1)
    inner = np.stack([np.stack([_flexibility(beam, supports, *a, *b) for a in spots], -1) for b in spots], -2)
    reactions = np.linalg.solve(inner + np.diag([1.0 / k for _, k in springs]), mixed[..., None])[..., 0]
    return np.asarray(free - np.sum(mixed * reactions, axis=-1))


def deflected_shape(beam: Sections, supports: Supports, position: float) -> Array:
    """Deflection [mm] at every node under 1 N at `position` [mm], which is a node; `beam.bending` has shape (E)."""
    springs = supports.springs
    everywhere = _moments(beam.nodes, supports, beam.nodes)

    def under(place: float) -> Array:
        at = np.array([place])
        return _flexibility(beam, supports, beam.nodes, everywhere, at, _moments(beam.nodes, supports, at))

    shape = under(position)
    if springs:
        places = [int(np.argmin(np.abs(beam.nodes - place))) for place, _ in springs]
        lines = np.stack([under(place) for place, _ in springs], -1)
        inner = lines[places] + np.diag([1.0 / k for _, k in springs])
        shape = shape - lines @ np.linalg.solve(inner, shape[places])
    return np.asarray(shape)


def effective_mass(beam: Sections, supports: Supports, position: float, diameters: ArrayLike, bore: float, density: float) -> float:
    """Mass [kg] that swings with the cut: the part's mass weighed by the square of its static bow (Rayleigh's quotient).

    `diameters` (E) [mm], bore [mm], density [g/cm³]. A cantilever with an end load gives 33/140 of its mass.
    """
    shape = deflected_shape(beam, supports, position)
    shape = shape / float(np.interp(position, beam.nodes, shape))
    middle = (shape[:-1] + shape[1:]) / 2.0
    area = np.pi / 4.0 * (np.asarray(diameters, float) ** 2 - bore**2)
    squares = (shape[:-1] ** 2 + 4 * middle**2 + shape[1:] ** 2) / 6.0
    return float(np.sum(area * np.diff(beam.nodes) * squares) * density * 1e-6)


def _moments(nodes: Array, supports: Supports, places: Array) -> Array:
    """Bending moment of the base structure under 1 N at each place: at start, middle and end of every element (P, E, 3)."""
    left, right = nodes[:-1], nodes[1:]
    x = np.stack([left, (left + right) / 2.0, right], -1)
    a = places[:, None, None]
    if supports.holding is Holding.BETWEEN_CENTRES:
        length = supports.free_length
        return np.asarray(np.maximum(np.minimum(x * (length - a), a * (length - x)), 0.0) / length)
    return np.maximum(a - x, 0.0)


def _flexibility(beam: Sections, supports: Supports, a: Array, moments_a: Array, b: Array, moments_b: Array) -> Array:
    """Deflection of the base structure at a under 1 N at b, pair by pair."""
    weights = np.diff(beam.nodes)[:, None] / 6.0 * np.array([1.0, 4.0, 1.0])
    bent = np.sum(np.sum(weights * moments_a * moments_b, axis=-1) / beam.bending, axis=-1)
    length = supports.free_length
    if supports.holding is Holding.BETWEEN_CENTRES:
        return np.asarray(bent + (1 - a / length) * (1 - b / length) / supports.jaw + a * b / length**2 / supports.centre)
    return np.asarray(bent + 1.0 / supports.jaw + a * b / supports.tilt)
