"""The part in half section: stock, what each operation takes away, and what is left."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from cutting.operations.frame.outcome import Pass
from cutting.operations.registry import kind_of
from cutting.operations.turned.contour import diameter_at, slices
from cutting.operations.turned.regions import band_over
from cutting.operations.turned.setup import Setup
from cutting.workpiece.solid import DRAWN, Blank, Corner, Shape, Solid, Steps, blank_solid, corners, lowered, solid_after

PLACE_IN_CUT = 0.36  # share of a pass that is done where it is drawn


@dataclass(frozen=True)
class Removed:
    """What one operation takes away: corners of a half-section area."""

    identity: str
    corners: tuple[Corner, ...]


@dataclass(frozen=True)
class Outline:
    """Half-section outlines from the chuck to the free end, mm; `inside` of a part with a bore, `rings` in its face."""

    stock: tuple[Corner, ...]
    finished: tuple[Corner, ...]
    removed: tuple[Removed, ...]
    length: float
    radius: float
    bore: float
    inside: tuple[Corner, ...] = ()
    rings: tuple[tuple[Corner, ...], ...] = ()


def part_after(blank: Blank, operations: list[tuple[str, Any]]) -> Solid:
    """The part after operations (identity, set-up) in run order."""
    return solid_after(blank, tuple(kind_of(setup.operation).removes(setup.feature) for _, setup in operations), DRAWN)


def outline(stock_diameter: float, free_length: float, bore: float, operations: list[tuple[str, Any]], shape: Shape = ()) -> Outline:
    """Outline of a part held in the chuck, after its operations in run order.

    `stock_diameter`, `free_length` (outside the chuck) and `bore` in mm, `shape` of a shaped blank.
    """
    blank = Blank(stock_diameter, free_length, bore, shape)
    start = part = blank_solid(blank, DRAWN)
    removed = []
    for k, (identity, setup) in enumerate(operations):
        removed.append(Removed(identity, kind_of(setup.operation).area(setup, part)))
        part = part_after(blank, operations[: k + 1])
    largest = max(stock_diameter / 2, max(radius for _, radius in part.outside))
    rings = tuple(((r.near, r.inner), (r.near, r.outer), (r.far, r.outer), (r.far, r.inner)) for r in part.rings)
    return Outline(start.outline, part.outline, tuple(removed), free_length, largest, bore, part.inner_outline, rings)


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
    return stages_from(part_after(Blank(stock_diameter, free_length, setup.holding.bore, shape), earlier), setup, passes)


def stages_from(before: Solid, setup: Setup, passes: tuple[Pass, ...]) -> tuple[Stage, ...]:
    """The part in the middle of each pass of an operation that finds it as it stands."""
    steps, end = before.outside, before.end
    return tuple(_facing(steps, end, setup, one) if setup.operation == "face" else _turning(steps, end, setup, one) for one in passes)


def _turning(steps: Steps, end: float, setup: Setup, one: Pass) -> Stage:
    f = setup.feature
    near, far = f.distance_from_chuck, min(f.distance_from_chuck + f.length, end)
    done = PLACE_IN_CUT * (far - near)
    tip = near + done if setup.away else far - done
    left, depth = (one.to_diameter - setup.target_diameter) / 2, one.depth
    cuts = [(a, b, diameter / 2 + left) for a, b, diameter in slices(f, far, DRAWN)]
    for a, b, radius in cuts:
        steps = lowered(steps, a, b, radius + depth)
    waiting = [cut for cut in _parted(cuts, tip) if (cut[0] >= tip - 1e-9) == setup.away]
    band = band_over(steps, [(a, b, 2 * radius) for a, b, radius in waiting])
    for a, b, radius in _parted(cuts, tip):
        if (a >= tip - 1e-9) != setup.away:
            steps = lowered(steps, a, b, radius)
    return Stage(corners(steps, end), (tip, diameter_at(f, tip) / 2 + left), band)


def _parted(cuts: list[tuple[float, float, float]], place: float) -> list[tuple[float, float, float]]:
    """The cuts with the one that holds a place parted there."""
    found = []
    for a, b, radius in cuts:
        found += [(a, place, radius), (place, b, radius)] if a < place < b else [(a, b, radius)]
    return found


def _facing(steps: Steps, end: float, setup: Setup, one: Pass) -> Stage:
    outer, inner = setup.feature.start_diameter / 2, setup.feature.end_diameter.nominal / 2
    old = end - (one.number - 1) * one.depth
    new = old - one.depth
    radius = outer - PLACE_IN_CUT * (outer - inner)
    return Stage(
        (*corners(steps, new), (new, radius), (old, radius)), (new, radius), ((new, inner), (new, radius), (old, radius), (old, inner))
    )
