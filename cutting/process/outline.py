"""The part in half section: stock, what each operation takes away, and what is left."""

from __future__ import annotations

import itertools
from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.operations.frame.outcome import Pass
from cutting.operations.registry import kind_of
from cutting.operations.turned.contour import diameter_at, slices
from cutting.operations.turned.setup import Setup

DRAWN, BENT = 48, 24  # slices of a contour on a drawing, and of a shaped blank as a beam
PLACE_IN_CUT = 0.36  # share of a pass that is done where it is drawn
Shape = tuple[tuple[float, float], ...]  # (distance from the chuck, diameter), mm
Corner = tuple[float, float]  # (distance from the chuck, radius), mm


@dataclass(frozen=True)
class Removed:
    """What one operation takes away: corners of a half-section area."""

    identity: str
    corners: tuple[Corner, ...]


@dataclass(frozen=True)
class Outline:
    """Half-section outlines from the chuck to the free end, mm."""

    stock: tuple[Corner, ...]
    finished: tuple[Corner, ...]
    removed: tuple[Removed, ...]
    length: float
    radius: float
    bore: float


def blank_steps(stock_diameter: float, free_length: float, shape: Shape = (), count: int = DRAWN) -> list[tuple[float, float]]:
    """The blank as breakpoints (from the chuck, radius to the next): a bar, or a shaped one by its points (place, diameter)."""
    if not shape:
        return [(0.0, stock_diameter / 2)]
    places, diameters = zip(*shape, strict=True)
    edges = np.linspace(0.0, free_length, count + 1)
    return [(float(a), float(np.interp((a + b) / 2, places, diameters)) / 2) for a, b in itertools.pairwise(edges)]


def outline(stock_diameter: float, free_length: float, bore: float, operations: list[tuple[str, Any]], shape: Shape = ()) -> Outline:
    """Outline of a part held in the chuck, after its operations in run order.

    `stock_diameter`, `free_length` (outside the chuck) and `bore` in mm, `shape` of a shaped blank. Steps are
    kept as breakpoints with the radius from each to the next.
    """
    steps = blank_steps(stock_diameter, free_length, shape)
    stock = tuple(_corners(steps, free_length))
    end = free_length
    removed = []
    for identity, setup in operations:
        f = setup.feature
        if setup.operation == "face":
            start = end - f.length
            inner = f.end.nominal / 2
            removed.append(Removed(identity, ((start, inner), (start, f.start_diameter / 2), (end, f.start_diameter / 2), (end, inner))))
            if inner <= max(0.5, bore / 2 + 0.01):
                end = start  # faced to the bore or the centre: the part is shorter
            else:
                steps = _lower(steps, start, end, inner)  # a boss stays
            continue
        if (kind := kind_of(setup.operation)).narrow:
            removed.append(Removed(identity, kind.area(setup)))
            for near, stop, diameter in kind.lowers(f):
                steps = _lower(steps, near, min(stop, end), diameter / 2)
            continue
        far = min(f.distance_from_chuck + f.length, end)
        cuts = slices(f, far, DRAWN)
        removed.append(Removed(identity, _band_over(steps, cuts)))
        for near, stop, diameter in cuts:
            steps = _lower(steps, near, stop, diameter / 2)
    return Outline(
        stock,
        tuple(_corners(steps, end)),
        tuple(removed),
        free_length,
        max(stock_diameter / 2, max(r for _, r in steps)),
        bore,
    )


class Standing:
    """The part as it stands, operation after operation; lengths in mm from the chuck, `face` its free end, `bore` of the blank."""

    def __init__(self, stock_diameter: float, free_length: float, shape: Shape = (), bore: float = 0.0) -> None:
        self.free_length, self.bore = max(free_length, 0.0), bore
        self.face = self.free_length
        # a length that cannot be is refused by the set-up that asks
        self._steps = blank_steps(stock_diameter, free_length, shape, BENT) if free_length > 0 else [(0.0, stock_diameter / 2)]

    @property
    def steps(self) -> tuple[tuple[float, float], ...]:
        """(from the chuck, diameter to the next)."""
        return tuple((place, 2 * radius) for place, radius in self._steps)

    def largest(self, near: float, far: float) -> float:
        """The largest diameter between two places, 0 beyond the face."""
        ends = [start for start, _ in self._steps[1:]] + [self.free_length]
        inside = [2 * r for (start, r), end in zip(self._steps, ends, strict=True) if start < far - 1e-9 and end > near + 1e-9]
        return max(inside, default=0.0)

    def at(self, place: float) -> float:
        """The diameter at a place; at a step the one towards the face."""
        return 2 * _radius_at(self._steps, max(place, 0.0))

    def after(self, kind: str, f: Any) -> None:
        """Take away what an operation of that kind takes for its feature."""
        if kind == "face":
            self.face = max(self.face - f.length, 0.0)
            if f.end.nominal > 0:
                self._steps = _lower(self._steps, self.face, self.free_length, max(f.end.nominal / 2, 0.5))
            return
        for near, far, diameter in kind_of(kind).lowers(f):
            self._steps = _lower(self._steps, near, min(far, self.free_length), diameter / 2)


@dataclass(frozen=True)
class Stage:
    """The part in the middle of one pass: its outline, where the tip stands, and the band this pass takes away."""

    corners: tuple[Corner, ...]
    tip: Corner
    band: tuple[Corner, ...]


def stages(
    stock_diameter: float,
    free_length: float,
    earlier: list[tuple[str, Any]],
    setup: Setup,
    passes: tuple[Pass, ...],
    shape: Shape = (),
) -> tuple[Stage, ...]:
    """The part in the middle of each pass of an operation, after the operations before it. Lengths in mm."""
    before = outline(stock_diameter, free_length, setup.holding.bore, earlier, shape).finished
    steps = [(a[0], a[1]) for a in before[::2]]
    end = before[-1][0] if before else free_length
    return tuple(_facing(steps, end, setup, one) if setup.operation == "face" else _turning(steps, end, setup, one) for one in passes)


def _turning(steps: list[tuple[float, float]], end: float, setup: Setup, one: Pass) -> Stage:
    f = setup.feature
    near, far = f.distance_from_chuck, min(f.distance_from_chuck + f.length, end)
    done = PLACE_IN_CUT * (far - near)
    tip = near + done if setup.away else far - done
    left, depth = (one.to_diameter - setup.target_diameter) / 2, one.depth
    cuts = [(a, b, diameter / 2 + left) for a, b, diameter in slices(f, far, DRAWN)]
    for a, b, radius in cuts:
        steps = _lower(steps, a, b, radius + depth)
    waiting = [cut for cut in _parted(cuts, tip) if (cut[0] >= tip - 1e-9) == setup.away]
    band = _band_over(steps, [(a, b, 2 * radius) for a, b, radius in waiting])
    for a, b, radius in _parted(cuts, tip):
        if (a >= tip - 1e-9) != setup.away:
            steps = _lower(steps, a, b, radius)
    return Stage(tuple(_corners(steps, end)), (tip, diameter_at(f, tip) / 2 + left), band)


def _parted(cuts: list[tuple[float, float, float]], place: float) -> list[tuple[float, float, float]]:
    """The cuts with the one that holds a place parted there."""
    found = []
    for a, b, radius in cuts:
        found += [(a, place, radius), (place, b, radius)] if a < place < b else [(a, b, radius)]
    return found


def _facing(steps: list[tuple[float, float]], end: float, setup: Setup, one: Pass) -> Stage:
    outer, inner = setup.feature.start_diameter / 2, setup.feature.end.nominal / 2
    old = end - (one.number - 1) * one.depth
    new = old - one.depth
    radius = outer - PLACE_IN_CUT * (outer - inner)
    corners = _corners(steps, new)
    return Stage((*corners, (new, radius), (old, radius)), (new, radius), ((new, inner), (new, radius), (old, radius), (old, inner)))


def _radius_at(steps: list[tuple[float, float]], place: float) -> float:
    return [radius for start, radius in steps if start <= place + 1e-9][-1]


def _lower(steps: list[tuple[float, float]], near: float, far: float, radius: float) -> list[tuple[float, float]]:
    places = sorted({start for start, _ in steps} | {near, far})
    return [(p, min(_radius_at(steps, p), radius) if near - 1e-9 <= p < far - 1e-9 else _radius_at(steps, p)) for p in places]


def _band_over(steps: list[tuple[float, float]], cuts: list[tuple[float, float, float]]) -> tuple[Corner, ...]:
    """The area that a row of cuts (from, to, diameter) takes away: along the outside, back along the new surface."""
    tops: list[Corner] = []
    floor: list[Corner] = []
    for near, far, diameter in cuts:
        tops += _band(steps, near, far, diameter / 2)[1:-1]
        floor += [(near, diameter / 2), (far, diameter / 2)]
    return (*tops, *reversed(floor))


def _band(steps: list[tuple[float, float]], near: float, far: float, radius: float) -> tuple[Corner, ...]:
    places = sorted({near, far} | {p for p, _ in steps if near < p < far})
    top: list[Corner] = []
    for left, right in itertools.pairwise(places):
        outer = max(_radius_at(steps, left), radius)
        top += [(left, outer), (right, outer)]
    return ((near, radius), *top, (far, radius))


def _corners(steps: list[tuple[float, float]], end: float) -> list[Corner]:
    found: list[Corner] = []
    ordered = [s for s in steps if s[0] < end]
    for k, (start, radius) in enumerate(ordered):
        stop = ordered[k + 1][0] if k + 1 < len(ordered) else end
        found += [(start, radius), (stop, radius)]
    return found
