"""The moves that clear a groove: where the edge goes, in which order, how much of it cuts."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from cutting.operations.slots.groove.setup import ALLOWANCE, LAYER_SHARE, GrooveSetup, GrooveWay

RIDGE_SHARE = 0.8  # of the insert's width that a ridge between two full plunges may be (common practice)
PLUNGE, SIDEWAYS, THIN = range(3)  # sorts of cut: straight down, along the axis, the finishing pass
RANKS = {"plunge": PLUNGE, "ridge": PLUNGE, "turn": SIDEWAYS, "ramp": SIDEWAYS, "arc": SIDEWAYS, "wall": THIN, "floor": THIN}
BACK_OFF = 0.1  # mm that the blade lifts before it turns sideways, so that its front does not rub (common practice)


@dataclass(frozen=True)
class GrooveMove:
    """One stroke at feed. Places of the edge's left corner along the axis and depths below the surface, mm.

    `kind` is plunge, ridge, turn, ramp, arc, wall or floor; `engaged` the width of cut, `sideways` whether it loads the side.
    """

    kind: str
    place: float
    depth: float
    to_place: float
    to_depth: float
    engaged: float
    dwell: bool = False

    @property
    def rank(self) -> int:
        """What sort of cut it is."""
        return RANKS[self.kind]

    @property
    def sideways(self) -> bool:
        return self.rank == SIDEWAYS

    @property
    def length(self) -> float:
        return float(np.hypot(self.to_place - self.place, self.to_depth - self.depth))


def diameter_at(setup: GrooveSetup, depth: float) -> float:
    """Diameter [mm] at a depth [mm] below the surface."""
    return setup.feature.diameter + (2.0 if setup.inside else -2.0) * depth


def moves_of(setup: GrooveSetup) -> tuple[GrooveMove, ...]:
    """All strokes of the way that is set, roughing first, then walls and floor. Raises nothing: what does not fit is a limit's."""
    left = ALLOWANCE if setup.finished else 0.0
    width, depth = max(setup.feature.width.target - 2.0 * left, setup.insert.width), setup.depth - left
    build = {
        GrooveWay.ONE: _one,
        GrooveWay.SIDE_BY_SIDE: _side_by_side,
        GrooveWay.TURNED: _turned,
        GrooveWay.RAMP: _ramped,
        GrooveWay.ROUND: _round,
    }[setup.settings.way]
    rough = [_shifted(move, left) for move in build(setup, width, depth)]
    return (*rough, *_wedges(setup), *(_finish(setup) if setup.finished else ()))


def layers(depth: float, most: float) -> int:
    """How many layers of at most so many mm clear a depth [mm].

    >>> layers(6.0, 1.6)
    4
    """
    return max(1, int(np.ceil(depth / most - 1e-9)))


def ridge_plan(width: float, edge: float) -> tuple[int, float]:
    """Full plunges and the ridge between two of them [mm]: as few as leave ridges of at most 0.8 of the edge (common practice).

    >>> ridge_plan(24.0, 4.0)
    (4, 2.6666666666666665)
    """
    full = max(1, int(np.ceil((width + RIDGE_SHARE * edge) / ((1.0 + RIDGE_SHARE) * edge) - 1e-9)))
    return full, (width - full * edge) / (full - 1) if full > 1 else 0.0


def _shifted(move: GrooveMove, by: float) -> GrooveMove:
    return replace(move, place=move.place + by, to_place=move.to_place + by)


def _one(setup: GrooveSetup, width: float, depth: float) -> Iterator[GrooveMove]:
    middle = max((width - setup.insert.width) / 2.0, 0.0)
    yield GrooveMove("plunge", middle, 0.0, middle, depth, setup.insert.width, True)


def _side_by_side(setup: GrooveSetup, width: float, depth: float) -> Iterator[GrooveMove]:
    w = setup.insert.width
    full, ridge = ridge_plan(width, w)
    step = w + ridge
    for k in range(full):
        yield GrooveMove("plunge", k * step, 0.0, k * step, depth, w if ridge >= 0 or k == 0 else w + ridge, not setup.finished)
    for k in range(full - 1):
        if ridge > 1e-6:
            place = k * step + (w + ridge) / 2.0
            yield GrooveMove("ridge", place, 0.0, place, depth, ridge, not setup.finished)


def _turned(setup: GrooveSetup, width: float, depth: float) -> Iterator[GrooveMove]:
    w, count = setup.insert.width, layers(depth, setup.layer)
    each, across = depth / count, max(width - w, 0.0)
    place = 0.0
    for k in range(count):
        top, floor = k * each, (k + 1) * each
        yield GrooveMove("plunge", place, top, place, floor, w)
        other = across - place
        if across > 1e-6:
            yield GrooveMove("turn", place, floor - BACK_OFF * (each > 2 * BACK_OFF), other, floor - BACK_OFF * (each > 2 * BACK_OFF), each)
        place = other


def _ramped(setup: GrooveSetup, width: float, depth: float) -> Iterator[GrooveMove]:
    w, count = setup.insert.width, layers(depth, setup.layer)
    each, across = depth / count, max(width - w, 0.0)
    place = 0.0
    for k in range(count):
        other = across - place
        yield GrooveMove("ramp", place, k * each, other, (k + 1) * each, each if k else each / 2.0)
        place = other
    yield GrooveMove("turn", place, depth, across - place, depth, each / 2.0)


def _round(setup: GrooveSetup, width: float, depth: float) -> Iterator[GrooveMove]:
    """Strokes of one even depth, each rolled in and out on an arc, so that the edge is never buried."""
    w, count = setup.insert.width, layers(depth, setup.layer)
    each, across = depth / count, max(width - w, 0.0)
    roll = min(each, across / 2.0)
    place = 0.0
    for k in range(count):
        other, floor = across - place, (k + 1) * each
        way = 1.0 if other > place else -1.0
        yield GrooveMove("arc", place, k * each, place + way * roll, floor, each)
        yield GrooveMove("turn", place + way * roll, floor, other, floor, each)
        place = other


def _wedges(setup: GrooveSetup) -> Iterator[GrooveMove]:
    """Steps down the wedges that leaning walls leave beside the floor's width, from the floor's corner outwards."""
    w, depth = setup.insert.width, setup.depth
    lean = float(np.tan(np.radians(setup.feature.wall_angle))) * depth
    far = max(setup.feature.width.target - w, 0.0)
    count = int(np.ceil(lean / (LAYER_SHARE * w) - 1e-9)) if lean > ALLOWANCE else 0
    for k in range(1, count):
        down = depth * (1.0 - k / count)
        for place in (-lean * k / count, far + lean * k / count):
            yield GrooveMove("ridge", place, 0.0, place, down, lean / count)


def _finish(setup: GrooveSetup) -> Iterator[GrooveMove]:
    """Down one wall and along the floor to the middle, then down the other wall: no chip is trapped in a corner."""
    w, width, depth = setup.insert.width, setup.feature.width.target, setup.depth
    lean = float(np.tan(np.radians(setup.feature.wall_angle))) * depth
    far = max(width - w, 0.0)
    yield GrooveMove("wall", -lean, 0.0, 0.0, depth, ALLOWANCE)
    yield GrooveMove("floor", 0.0, depth, far / 2.0, depth, ALLOWANCE)
    yield GrooveMove("wall", far + lean, 0.0, far, depth, ALLOWANCE)
    yield GrooveMove("floor", far, depth, far / 2.0, depth, ALLOWANCE)
