"""What an edge stands: the force on it, and its toughness."""

from __future__ import annotations

import numpy as np

from cutting.mechanics.chip_section import engaged_edge
from cutting.operations.frame.rule import Array
from cutting.operations.turned.case import Cutter
from cutting.operations.turned.physics import Cut

SQUARE_EDGE = 95.0  # degrees, the κr for which the strength of an edge is meant
EDGE_FORCE = 220.0  # N per mm² of thickness squared, for a strong shape and a tough grade

PREPARED = 0.2  # what a stronger edge adds, by its geometry's strength


def edge_force_limit(cutter: Cutter) -> Array:
    """Force [N] that the edge stands: by thickness, shape, geometry, grade and seat (common practice)."""
    seat = np.where(cutter.negative > 0, 1.0, 0.7)
    return EDGE_FORCE * cutter.thickness**2 * cutter.shape_strength * cutter.geometry_strength * seat * (0.55 + 0.5 * cutter.toughness)


def wide_edge(x: Cut) -> Array:
    """How much more an edge carries that a slanted edge loads over a wider chip than a square one; up to twice (common practice).

    Chips break an edge by what each bit of it carries: by their thickness, not by the feed. A round edge's shape says it already.
    """
    square = engaged_edge(x.depth_of_cut, SQUARE_EDGE, x.cutter.nose_radius)
    return np.where(x.cutter.round_shape > 0, 1.0, np.clip(x.engaged_edge / square, 1.0, 2.0))


def edge_toughness(cutter: Cutter) -> Array:
    """Toughness of grade and preparation, 0 to 1."""
    return cutter.toughness + PREPARED * (cutter.geometry_strength - 1.0)
