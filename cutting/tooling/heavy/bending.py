"""How a tool of solids bends on its spindle: its first bending frequency, and how far a force moves it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray
from scipy.linalg import eigh, solve

from cutting.tooling.heavy.solids import Lump, Segment

Array = NDArray[np.float64]
PARTS = 4  # elements of each stretch
FIXED = 1e15  # N·mm/rad: what counts as not tilting
PER_KILO = 1e6  # N·mm in a kN·m
LEAST_INERTIA = 1e-9


class BodyBending:
    """A stepped beam that stands out of a spindle's face: bodies of its segments, masses of arms and lumps, a spring that tilts.

    Places in mm from the gripper, E in N/mm², masses kg; `tilt` kN·m/rad of the seat in the spindle, None: fixed.
    """

    def __init__(self, segments: Sequence[Segment], lumps: Iterable[Lump], face: float, tilt: float | None = None) -> None:
        bodies = [one for one in segments if not one.arms]
        cuts = sorted({round(x, 4) for x in (face, *(x for one in bodies for x in (one.start, one.end) if x > face))})
        nodes = [face]
        for a, b in pairwise(cuts):
            nodes += [a + (b - a) * k / PARTS for k in range(1, PARTS + 1)]
        self.nodes = np.array(nodes)
        count = 2 * len(nodes)
        self.stiffness, self.mass = np.zeros((count, count)), np.zeros((count, count))
        for k, (a, b) in enumerate(pairwise(nodes)):
            middle, long = (a + b) / 2.0, b - a
            here = [one for one in bodies if one.start <= middle <= one.end]
            bends = sum(one.material.elastic_modulus * one.share * np.pi / 64.0 * (one.outer**4 - one.inner**4) for one in here)
            line = sum(one.mass / one.length for one in here)
            place = slice(2 * k, 2 * k + 4)
            self.stiffness[place, place] += max(bends, 1.0) / long**3 * _stiffness(long)
            self.mass[place, place] += max(line, LEAST_INERTIA) * long / 420.0 * _inertia(long)
        for arm in segments:
            if arm.arms and arm.middle > face:
                self._add(arm.middle, arm.mass)
        for lump in lumps:
            if lump.place > face:
                self._add(lump.place, lump.mass)
        # the face does not move; it tilts on the seat's spring
        self.stiffness[1, 1] += FIXED if tilt is None else tilt * PER_KILO
        self.kept = np.arange(1, count)

    def _add(self, place: float, mass: float) -> None:
        weights = self._shape(place)
        self.mass += mass * np.outer(weights, weights)

    def _shape(self, place: float) -> Array:
        """Shares of the nodes' movements that the beam moves at a place; beyond its end it goes on straight."""
        found = np.zeros(2 * len(self.nodes))
        k = int(np.clip(np.searchsorted(self.nodes, place) - 1, 0, len(self.nodes) - 2))
        long = self.nodes[k + 1] - self.nodes[k]
        s = (place - self.nodes[k]) / long
        if s > 1.0:
            found[2 * k + 2], found[2 * k + 3] = 1.0, (s - 1.0) * long
            return found
        found[2 * k : 2 * k + 4] = (
            1 - 3 * s**2 + 2 * s**3, long * (s - 2 * s**2 + s**3), 3 * s**2 - 2 * s**3, long * (s**3 - s**2),
        )  # fmt: skip
        return found

    def frequency(self) -> float:
        """First bending frequency [Hz]."""
        k = self.stiffness[np.ix_(self.kept, self.kept)]
        m = self.mass[np.ix_(self.kept, self.kept)]
        scale = np.sqrt(np.diag(k))  # tilt and movement differ by powers of ten
        value = eigh(k / np.outer(scale, scale), m / np.outer(scale, scale), eigvals_only=True, subset_by_index=[0, 0])[0]
        return float(np.sqrt(value * 1e3) / (2.0 * np.pi))  # N/mm and kg: 1/s² × 10³

    def given(self, force: float, at: float, where: float) -> float:
        """How far [mm] a force [N] at a place moves the tool at another."""
        load = force * self._shape(at)[self.kept]
        moved = solve(self.stiffness[np.ix_(self.kept, self.kept)], load, assume_a="pos")
        return float(self._shape(where)[self.kept] @ moved)


def _stiffness(a: float) -> Array:
    return np.array(
        [[12, 6 * a, -12, 6 * a], [6 * a, 4 * a**2, -6 * a, 2 * a**2], [-12, -6 * a, 12, -6 * a], [6 * a, 2 * a**2, -6 * a, 4 * a**2]]
    )


def _inertia(a: float) -> Array:
    return np.array(
        [
            # consistent mass of a beam element (any textbook of finite elements)
            [156, 22 * a, 54, -13 * a],
            [22 * a, 4 * a**2, 13 * a, -3 * a**2],
            [54, 13 * a, 156, -22 * a],
            [-13 * a, -3 * a**2, -22 * a, 4 * a**2],
        ]
    )
