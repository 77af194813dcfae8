"""The part as a beam while this operation turns it: its steps, what holds it, and how it springs along the cut."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.mechanics.chatter import natural_frequency
from cutting.mechanics.deflection import Holding
from cutting.mechanics.stepped_beam import Sections, Supports, compliance, effective_mass, sections
from cutting.operations.setup import Setup

Array = NDArray[np.float64]
PLACES = 9  # along the cut, for limits and rankings
STEADY_STIFFNESS = 60_000.0  # N/mm, a fixed steady rest (common practice)


@dataclass(frozen=True)
class PartBeam:
    """A part with steps before this cut; lengths in mm from the chuck."""

    setup: Setup
    supports: Supports
    near: float
    far: float

    @cached_property
    def steps(self) -> tuple[tuple[float, float], ...]:
        """The part before the cut: (from, diameter), the first at the chuck."""
        given = self.setup.holding.steps
        return given if given else ((0.0, self.setup.feature.start_diameter),)

    @cached_property
    def places(self) -> Array:
        return np.linspace(self.near, self.far, PLACES) if self.far > self.near else np.array([self.far])

    def spring(self, before: Any, after: Any) -> Array:
        """Deflection per newton [mm/N] at the worst place of a cut from `before` to `after` [mm], any shape."""
        before, after = np.broadcast_arrays(np.asarray(before, float), np.asarray(after, float))
        pairs, back = np.unique(np.stack([before.ravel(), after.ravel()], -1), axis=0, return_inverse=True)
        worst = self.along(pairs[:, 0], pairs[:, 1], self.places).max(axis=-1)
        return np.asarray(worst[back.ravel()].reshape(before.shape))

    def along(self, before: Array, after: Array, places: Array) -> Array:
        """Deflection per newton [mm/N], (cuts, places): each place with the part as it is when the tool stands there."""
        nodes = self._nodes(places)
        return compliance(self._sections(nodes, before, after, places), self.supports, places)

    def frequency(self, diameter: float) -> float:
        """Natural frequency [Hz] of the part at the worst place, turned to a diameter [mm]."""
        before = after = np.array([diameter])
        curve = self.along(before, after, self.places)[0]
        place = float(self.places[int(np.argmax(curve))])
        nodes = self._nodes(self.places)
        beam = self._sections(nodes, before, after, np.array([place]))
        whole = Sections(nodes, beam.bending[0, 0])
        material, bore = self.setup.work.material, self.setup.holding.bore
        diameters = self._diameters(nodes, before, after, np.array([place]))[0, 0]
        mass = effective_mass(whole, self.supports, place, diameters, bore, material.density)
        return float(natural_frequency(1.0 / curve.max(), max(mass, 1e-6)))

    def _nodes(self, places: Array) -> Array:
        length = self.setup.holding.free_length
        own = [start for start, _ in self.steps if start < length]
        spots = [spot for spot, _ in self.supports.springs]
        return np.unique(np.concatenate([[0.0, length, self.near, self.far], own, spots, places]))

    def _diameters(self, nodes: Array, before: Array, after: Array, places: Array) -> Array:
        """Diameter of every element (cuts, places, elements) when the tool stands at a place and feeds its way."""
        middle = (nodes[:-1] + nodes[1:]) / 2.0
        starts = np.array([start for start, _ in self.steps])
        stock = np.array([diameter for _, diameter in self.steps])[np.searchsorted(starts, middle, side="right") - 1]
        inside = (middle > self.near) & (middle < self.far)
        beyond = middle[None, :] > places[:, None]
        if self.setup.away:
            beyond = ~beyond
        turned = np.where(beyond[None], after[:, None, None], before[:, None, None])
        return np.where(inside, np.minimum(stock, turned), stock)

    def _sections(self, nodes: Array, before: Array, after: Array, places: Array) -> Sections:
        diameters = self._diameters(nodes, before, after, places)
        bore = np.minimum(self.setup.holding.bore, 0.95 * diameters)
        return sections(nodes, diameters, self.setup.work.material.elastic_modulus, bore)


def part_beam(setup: Setup) -> PartBeam:
    """The beam of a set-up: jaws, centre and steady as the machine's own springs."""
    feature, holding, machine = setup.feature, setup.holding, setup.machine
    if setup.operation == "face":
        near = far = max(holding.free_length - feature.length, 1.0)
    else:
        near = max(feature.distance_from_chuck, 0.5)
        far = min(max(feature.distance_from_chuck + feature.length, near), holding.free_length)
    share = machine.rigidity
    jaw = machine.centre_stiffness if holding.style is Holding.BETWEEN_CENTRES else machine.chuck_stiffness
    supports = Supports(
        holding.style,
        holding.free_length,
        jaw=_spring(jaw * share, 1e3),
        tilt=_spring(machine.chuck_tilt_stiffness * share, 1e6),
        centre=_spring(machine.centre_stiffness * share, 1e3),
        steady=holding.steady,
        steady_stiffness=STEADY_STIFFNESS * share,
    )
    return PartBeam(setup, supports, near, far)


def held_otherwise(setup: Setup, **changes: Any) -> Setup:
    """The same set-up held in another way."""
    return replace(setup, holding=replace(setup.holding, **changes))


def _spring(stiffness: float, scale: float) -> float:
    """In N/mm or N·mm/rad; a machine whose row says 0 is taken as rigid there."""
    return stiffness * scale if stiffness > 0 else np.inf
