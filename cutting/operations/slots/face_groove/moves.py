"""The strokes that clear a groove in a face: the first plunge at the largest diameter, then inwards."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from cutting.operations.slots.face_groove.setup import FaceGrooveSetup, FaceGrooveWay
from cutting.operations.slots.groove.moves import layers, ridge_plan
from cutting.operations.slots.groove.setup import ALLOWANCE, LAYER_SHARE, ROUND_LAYER


@dataclass(frozen=True)
class FaceGrooveMove:
    """Where the edge goes: `outer` diameter of its outer corner at the start and end of a stroke, depth into the face at both; mm."""

    kind: str
    outer: float
    depth: float
    to_outer: float
    to_depth: float
    engaged: float
    dwell: float = 0.0  # revolutions

    @property
    def sideways(self) -> bool:
        return self.kind == "turn"

    @property
    def along(self) -> bool:
        """Across the face, from diameter to diameter."""
        return self.outer != self.to_outer or self.kind in ("turn", "floor")


def moves_of(setup: FaceGrooveSetup) -> Iterator[FaceGrooveMove]:
    """The first plunge at the largest diameter, then inwards: plunges with ridges, or layers turned across; walls and floor last."""
    f, w = setup.feature, setup.insert.width
    widened = setup.widened
    left = ALLOWANCE if setup.settings.finish and widened else 0.0
    outer, width, depth = f.outer_diameter.target - 2.0 * left, max(f.width.target - 2.0 * left, w), f.depth - left
    far = outer - 2.0 * (width - w)
    if not widened:
        yield FaceGrooveMove("plunge", outer, 0.0, outer, depth, w, setup.settings.dwell)
    elif setup.settings.way is FaceGrooveWay.INWARDS:
        full, ridge = ridge_plan(width, w)
        step = 2.0 * (w + ridge)
        for k in range(full):
            place = outer - k * step
            yield FaceGrooveMove("plunge", place, 0.0, place, depth, w if ridge >= 0 or k == 0 else w + ridge)
        for k in range(full - 1):
            if ridge > 1e-6:
                place = outer - k * step - (w + ridge)
                yield FaceGrooveMove("ridge", place, 0.0, place, depth, ridge)
    elif setup.settings.way is FaceGrooveWay.ROUND:
        yield from _rolled(outer, far, depth, w)
    else:
        count = layers(depth, LAYER_SHARE * w)
        each, place = depth / count, outer
        for k in range(count):
            yield FaceGrooveMove("plunge", place, k * each, place, (k + 1) * each, w)
            other = far if place == outer else outer
            yield FaceGrooveMove("turn", place, (k + 1) * each, other, (k + 1) * each, each)
            place = other
    if left:
        rim, inner = f.outer_diameter.target, f.outer_diameter.target - 2.0 * (f.width.target - w)
        middle = (rim + inner) / 2.0
        yield FaceGrooveMove("wall", rim, 0.0, rim, f.depth, left)
        yield FaceGrooveMove("floor", rim, f.depth, middle, f.depth, left)
        yield FaceGrooveMove("wall", inner, 0.0, inner, f.depth, left)
        yield FaceGrooveMove("floor", inner, f.depth, middle, f.depth, left)


def _rolled(outer: float, far: float, depth: float, width: float) -> Iterator[FaceGrooveMove]:
    """Strokes of one even depth across the face, each rolled in on an arc: the edge is never buried and its chip stays even."""
    count = layers(depth, ROUND_LAYER * width)
    each, place = depth / count, outer
    roll = min(2.0 * each, (outer - far) / 2.0)  # on the diameter
    for k in range(count):
        other, floor = (far if place == outer else outer), (k + 1) * each
        rolled_in = place - roll if other < place else place + roll
        yield FaceGrooveMove("arc", place, k * each, rolled_in, floor, each)
        yield FaceGrooveMove("turn", rolled_in, floor, other, floor, each)
        place = other
