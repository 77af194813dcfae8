"""How a curved blade stands in a groove of a face: its own curve against the walls of the first plunge."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cutting.tooling.blades import FaceBlade

Array = NDArray[np.float64]
POINTS = 24
LEAST_STEEL = 0.4  # of the blade's thickness that its support keeps at its lower end (common practice)
SUPPORT = 0.75  # of the radius of its tightest groove that a blade's support reaches below the edge (common practice)


@dataclass(frozen=True)
class BladeStanding:
    """A blade seen along the axis: closed outline (across, up) with the tip at its outer corner's place, and its clearances [mm].

    `outer` and `inner` are the least distances of the blade's flanks from the outer and the inner wall of the plunge, negative
    where it rubs.
    """

    outline: tuple[tuple[float, float], ...]
    outer: float
    inner: float


def standing(blade: FaceBlade, edge_width: float, outer_diameter: float) -> BladeStanding:
    """How a blade stands in a plunge from `outer_diameter` inwards by `edge_width` [mm].

    Below the edge the support follows two circles about the axis of the tightest and of the widest groove that it is made
    for: its outer flank that of DAXN, its inner flank that of DAXX less the width. A larger groove leaves air outside, a
    smaller one rubs there; above DAXX the inner flank rubs. Plane geometry.
    """
    down = np.linspace(0.0, min(blade.height, SUPPORT * blade.face_low / 2.0), POINTS)
    slack = max(edge_width - blade.thickness, 0.0) / 2.0
    outer_flank = outer_diameter / 2.0 - slack - _sag(blade.face_low / 2.0, down)
    inner_flank = outer_diameter / 2.0 - edge_width + slack - _sag(max(blade.face_high / 2.0 - edge_width, 1.0), down)
    # the two curves draw together: where they leave too little steel, the support ends
    solid = outer_flank - inner_flank >= LEAST_STEEL * blade.thickness
    deep = int(np.argmin(solid)) if not solid.all() else len(down)
    down, outer_flank, inner_flank = down[:deep], outer_flank[:deep], inner_flank[:deep]
    outer_wall = _circle(outer_diameter / 2.0, down)
    inner_wall = _circle(outer_diameter / 2.0 - edge_width, down)
    outside = float(np.min(outer_wall - outer_flank))
    inside = float(np.min(inner_flank - inner_wall))
    ring = [*zip(outer_flank, -down, strict=True), *zip(inner_flank[::-1], -down[::-1], strict=True)]
    return BladeStanding(tuple((float(a), float(b)) for a, b in ring), outside, inside)


def _circle(radius: float, down: Array) -> Array:
    """Distance from the axis of a wall of that radius at a depth below the centre line; level below its lowest point."""
    return np.sqrt(np.maximum(radius**2 - np.minimum(down, radius) ** 2, 0.0))


def _sag(radius: float, down: Array) -> Array:
    """How far a flank of that radius has come in at a depth below the edge."""
    return radius - _circle(radius, down)
