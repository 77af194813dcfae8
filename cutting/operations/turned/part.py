"""The part as a beam while this operation turns it: its steps, what holds it, and how it springs along the cut."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.machine.machines import Machine
from cutting.mechanics.chatter import natural_frequency
from cutting.mechanics.deflection import Holding
from cutting.mechanics.stepped_beam import Sections, Supports, compliance, effective_mass, sections
from cutting.operations.frame.setup import Workholding
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface
from cutting.workpiece.materials import Work

Array = NDArray[np.float64]
PLACES = 9  # along the cut, for limits and rankings
BUSH_GAP = 1.5  # mm that the tool stands in front of a guide bush (common practice: 1 to 2)
BUSH_STIFFNESS = 60.0  # N/µm, a guide bush with its play taken up (common practice)
STEADY_STIFFNESS = 60_000.0  # N/mm, a fixed steady rest (common practice)
THINNEST = 0.95  # of its Ø that a bore leaves of a bar that is reckoned with


@dataclass(frozen=True)
class PartBeam:
    """A part with steps before this cut; lengths in mm from the chuck. It does not know speed, feed or depth."""

    steps: tuple[tuple[float, float], ...]  # the part before the cut: (from, diameter), the first at the chuck
    bore: float
    elastic_modulus: float
    density: float
    away: bool  # the tool feeds away from the chuck
    supports: Supports
    near: float
    far: float

    @property
    def places(self) -> Array:
        return np.linspace(self.near, self.far, PLACES) if self.far > self.near else np.array([self.far])

    def spring(self, before: Any, after: Any) -> Array:
        """Deflection per newton [mm/N] at the worst place of a cut from `before` to `after` [mm], any shape."""
        before, after = np.broadcast_arrays(np.asarray(before, float), np.asarray(after, float))
        # a complex number carries the pair through one fast sort
        pairs, back = np.unique(before.ravel() + 1j * after.ravel(), return_inverse=True)
        worst = _worst(self, tuple(pairs.tolist()))
        return np.asarray(worst[back.ravel()].reshape(before.shape))

    def along(self, before: Array, after: Array, places: Array) -> Array:
        """Deflection per newton [mm/N], (cuts, places): each place with the part as it is when the tool stands there."""
        nodes = self._nodes(places)
        return compliance(self._sections(nodes, before, after, places), self.supports, places)

    def frequency(self, diameter: float) -> float:
        """Natural frequency [Hz] of the part at the worst place, turned to a diameter [mm]."""
        return _frequency(self, diameter)

    def _nodes(self, places: Array) -> Array:
        length = self.supports.free_length
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
        if self.away:
            beyond = ~beyond
        turned = np.where(beyond[None], after[:, None, None], before[:, None, None])
        return np.where(inside, np.minimum(stock, turned), stock)

    def _sections(self, nodes: Array, before: Array, after: Array, places: Array) -> Sections:
        diameters = self._diameters(nodes, before, after, places)
        bore = np.minimum(self.bore, THINNEST * diameters)
        return sections(nodes, diameters, self.elastic_modulus, bore)


def part_beam(setup: Setup) -> PartBeam:
    """The beam of a set-up: jaws, centre and steady as the machine's own springs."""
    feature, holding, machine = setup.feature, setup.holding, setup.machine
    if setup.surface is Surface.FACE:
        near = far = max(holding.free_length - feature.length, 1.0)
    else:
        near = max(feature.distance_from_chuck, 0.5)
        far = min(max(feature.distance_from_chuck + feature.length, near), holding.free_length)
    if setup.inside:
        near, far = max(holding.free_length - feature.length, 0.5), holding.free_length
        bored = replace(holding, bore=max(holding.bore, feature.turned_diameter))
        return beam_between(bored, machine, setup.work, near, far, holding.grip_diameter)
    return beam_between(holding, machine, setup.work, near, far, feature.start_diameter, setup.away)


def beam_between(
    holding: Workholding, machine: Machine, work: Work, near: float, far: float, diameter: float, away: bool = False
) -> PartBeam:
    """The beam of a part of a diameter [mm], or with the holding's own steps, that is cut between two places from the chuck [mm]."""
    share = machine.rigidity
    if holding.guide_bush:  # the bar comes out of its bush where the tool stands, however far the part is out in the end
        bush = Supports(Holding.CHUCK, BUSH_GAP, jaw=_spring(BUSH_STIFFNESS * share, 1e3))
        return PartBeam(
            ((0.0, diameter),), holding.bore, work.material.elastic_modulus, work.material.density, False, bush, BUSH_GAP, BUSH_GAP
        )
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
    material = work.material
    steps = holding.steps or ((0.0, diameter),)
    return PartBeam(steps, holding.bore, material.elastic_modulus, material.density, away, supports, near, far)


@lru_cache(maxsize=256)  # speed and feed may be nudged without bending the part anew
def _worst(beam: PartBeam, pairs: tuple[complex, ...]) -> Array:
    """Worst deflection per newton of each pair of diameters, before + after·i."""
    cuts = np.array(pairs)
    worst = beam.along(cuts.real, cuts.imag, beam.places).max(axis=-1)
    worst.setflags(write=False)
    return np.asarray(worst)


@lru_cache(maxsize=256)
def _frequency(beam: PartBeam, diameter: float) -> float:
    before = after = np.array([diameter])
    curve = beam.along(before, after, beam.places)[0]
    place = float(beam.places[int(np.argmax(curve))])
    nodes = beam._nodes(beam.places)
    whole = Sections(nodes, beam._sections(nodes, before, after, np.array([place])).bending[0, 0])
    diameters = beam._diameters(nodes, before, after, np.array([place]))[0, 0]
    mass = effective_mass(whole, beam.supports, place, diameters, beam.bore, beam.density)
    return float(natural_frequency(1.0 / curve.max(), max(mass, 1e-6)))


def slenderness(setup: Setup) -> float:
    """How far the part stands out of the chuck, in its own diameters: of a stepped part each stretch in its own."""
    feature, holding = setup.feature, setup.holding
    out = holding.stretches or ((0.0, holding.free_length, holding.grip_diameter if setup.inside else feature.start_diameter),)
    near, far = feature.distance_from_chuck, feature.distance_from_chuck + feature.length
    total = 0.0
    for start, end, diameter in out:
        cut = max(min(end, far) - max(start, near), 0.0) if setup.surface is Surface.OUTSIDE else 0.0
        total += (end - start - cut) / diameter + cut / min(diameter, max(setup.target_diameter, 0.1))
    return total


def held_otherwise(setup: Setup, **changes: Any) -> Setup:
    """The same set-up held in another way."""
    return replace(setup, holding=replace(setup.holding, **changes))


def _spring(stiffness: float, scale: float) -> float:
    """In N/mm or N·mm/rad; a machine whose row says 0 is taken as rigid there."""
    return stiffness * scale if stiffness > 0 else np.inf
