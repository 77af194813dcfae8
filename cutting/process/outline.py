"""The part in half section: stock, what each operation takes away, and what is left."""

from __future__ import annotations

import itertools
from dataclasses import dataclass

from cutting.operations.outcome import Pass
from cutting.operations.setup import Feature, Setup

PLACE_IN_CUT = 0.36  # share of a pass that is done where it is drawn
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


def outline(stock_diameter: float, free_length: float, bore: float, operations: list[tuple[str, Setup]]) -> Outline:
    """Outline of a part held in the chuck, after its operations in run order.

    `stock_diameter`, `free_length` (outside the chuck) and `bore` in mm. Steps are kept as breakpoints with the radius
    from each to the next.
    """
    steps: list[tuple[float, float]] = [(0.0, stock_diameter / 2)]
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
        near, far = f.distance_from_chuck, min(f.distance_from_chuck + f.length, end)
        after = f.end_diameter / 2
        removed.append(Removed(identity, _band(steps, near, far, after)))
        steps = _lower(steps, near, far, after)
    return Outline(
        ((0.0, stock_diameter / 2), (free_length, stock_diameter / 2)),
        tuple(_corners(steps, end)),
        tuple(removed),
        free_length,
        max(stock_diameter / 2, max(r for _, r in steps)),
        bore,
    )


def steps_before(stock_diameter: float, free_length: float, earlier: list[tuple[str, Feature]]) -> tuple[tuple[float, float], ...]:
    """The part as (from the chuck, diameter) after earlier operations, each given as its kind and feature. Lengths in mm."""
    steps, end = [(0.0, stock_diameter / 2)], free_length
    for kind, f in earlier:
        if kind == "face":
            end -= f.length
            if f.end.nominal > 0:
                steps = _lower(steps, end, free_length, max(f.end.nominal / 2, 0.5))
            continue
        near, far = f.distance_from_chuck, min(f.distance_from_chuck + f.length, free_length)
        if near < far:
            steps = _lower(steps, near, far, f.end_diameter / 2)
    return tuple((place, 2 * radius) for place, radius in steps)


@dataclass(frozen=True)
class Stage:
    """The part in the middle of one pass: its outline, where the tip stands, and the band this pass takes away."""

    corners: tuple[Corner, ...]
    tip: Corner
    band: tuple[Corner, ...]


def stages(
    stock_diameter: float, free_length: float, earlier: list[tuple[str, Setup]], setup: Setup, passes: tuple[Pass, ...]
) -> tuple[Stage, ...]:
    """The part in the middle of each pass of an operation, after the operations before it. Lengths in mm."""
    before = outline(stock_diameter, free_length, setup.holding.bore, earlier).finished
    steps = [(a[0], a[1]) for a in before[::2]]
    end = before[-1][0] if before else free_length
    return tuple(_facing(steps, end, setup, one) if setup.operation == "face" else _turning(steps, end, setup, one) for one in passes)


def _turning(steps: list[tuple[float, float]], end: float, setup: Setup, one: Pass) -> Stage:
    f = setup.feature
    near, far = f.distance_from_chuck, min(f.distance_from_chuck + f.length, end)
    tip = far - PLACE_IN_CUT * (far - near)
    uncut, cut = one.from_diameter / 2, one.to_diameter / 2
    steps = _lower(steps, near, far, uncut)
    band = _band(steps, near, tip, cut)
    return Stage(tuple(_corners(_lower(steps, tip, far, cut), end)), (tip, cut), band)


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
