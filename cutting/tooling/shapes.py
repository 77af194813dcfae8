"""Insert shapes, clearances and sizes of ISO 1832, with what the trade knows of each shape."""

from __future__ import annotations

import math
from dataclasses import dataclass
from types import MappingProxyType

ISO_INCH_CIRCLES = (3.97, 4.76, 5.56, 6.35, 7.94, 9.525, 12.7, 15.875, 19.05, 25.4)


@dataclass(frozen=True)
class Shape:
    """One shape letter.

    `edge_per_circle` is edge length over inscribed circle; `strength` and `depth_share` (usable share of the
    edge) are common practice without a source.
    """

    letter: str
    name: str
    included_angle: float
    corners: int
    edge_per_circle: float
    strength: float
    depth_share: float


SHAPES = MappingProxyType(
    {
        shape.letter: shape
        for shape in (
            Shape("R", "round", 0, 0, 1.0, 1.3, 0.25),
            Shape("S", "square 90°", 90, 4, 1.0, 1.15, 2 / 3),
            Shape("C", "rhombic 80°", 80, 2, 1 / math.sin(math.radians(80)), 1.0, 2 / 3),
            Shape("W", "trigon 80°", 80, 3, 0.6845, 0.95, 1 / 2),
            Shape("T", "triangle 60°", 60, 3, math.sqrt(3), 0.75, 1 / 2),
            Shape("D", "rhombic 55°", 55, 2, 1 / math.sin(math.radians(55)), 0.65, 1 / 2),
            Shape("V", "rhombic 35°", 35, 2, 1 / math.sin(math.radians(35)), 0.45, 1 / 4),
        )
    }
)

CLEARANCES = MappingProxyType({"A": 3, "B": 5, "C": 7, "D": 15, "E": 20, "F": 25, "G": 30, "N": 0, "P": 11})
TOLERANCES = "AFCHEGJKLMNU"
# fixing and chipbreaker letter -> sides with cutting edges
FIXING_SIDES = MappingProxyType(
    {
        "N": 2,
        "R": 1,
        "F": 2,
        "A": 2,
        "M": 1,
        "G": 2,
        "W": 1,
        "T": 1,
        "Q": 2,
        "U": 2,
        "B": 1,
        "H": 1,
        "C": 2,
        "J": 2,
    }
)
THICKNESSES = MappingProxyType(
    {
        "01": 1.59,
        "T1": 1.98,
        "02": 2.38,
        "T2": 2.78,
        "03": 3.18,
        "T3": 3.97,
        "04": 4.76,
        "05": 5.56,
        "06": 6.35,
        "07": 7.94,
        "09": 9.52,
        "12": 12.7,
    }
)


def edge_length(shape: Shape, inscribed_circle: float) -> float:
    """Edge length l [mm] of an insert with an inscribed circle [mm]."""
    return shape.edge_per_circle * inscribed_circle


def circle_of_size(shape: Shape, size: str) -> float | None:
    """Inscribed circle [mm] for the two size digits, which are the whole millimetres of the edge length."""
    if shape.letter == "R":
        return float(size) if int(size) >= 5 else None
    for circle in ISO_INCH_CIRCLES:
        if int(edge_length(shape, circle) + 0.005) == int(size):
            return circle
    return None
