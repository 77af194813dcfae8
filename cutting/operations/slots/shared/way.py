"""How near a blade comes in rapid, and which strokes follow each other without a lift."""

from __future__ import annotations

import math

from cutting.motion.moves import CuttingOutline, Point

NEAR = 0.2  # mm before the metal up to which a blade comes in rapid (common practice: 0.2 to 0.5 on a turned surface)


BEYOND = 1000.0  # mm: what is above an edge in its slot has gone


def blade_edge(outwards: float, width: float) -> CuttingOutline:
    """A straight edge [mm wide] with its slot above it, from its corner at the chuck's side; `outwards` is −1 inside."""
    return CuttingOutline(((0.0, 0.0), (0.0, width), (outwards * BEYOND, width), (outwards * BEYOND, 0.0)))


def follows(at: Point, begin: Point) -> bool:
    """Whether a stroke begins where the one before it ended."""
    return math.dist(at, begin) <= NEAR + 1e-9
