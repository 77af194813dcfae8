"""Insert shapes of ISO 1832 with what the trade knows of each."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cache
from types import MappingProxyType

from cutting.tables import read_table


@dataclass(frozen=True)
class Shape:
    """One shape letter.

    `edge_per_circle` is edge length over inscribed circle, None where the edges differ; `strength` and `depth_share`
    (usable share of the edge) are common practice without a source.
    """

    letter: str
    name: str
    included_angle: float
    corners: int
    edge_per_circle: float | None
    strength: float
    depth_share: float


def _over_sine(degrees: float) -> float:
    return 1 / math.sin(math.radians(degrees))


def _tangent(degrees: float) -> float:
    return math.tan(math.radians(degrees))


SHAPES = MappingProxyType(
    {
        shape.letter: shape
        for shape in (
            Shape("R", "round", 0, 0, 1.0, 1.3, 0.25),
            Shape("O", "octagon 135°", 135, 8, _tangent(22.5), 1.25, 2 / 3),
            Shape("H", "hexagon 120°", 120, 6, _tangent(30), 1.22, 2 / 3),
            Shape("P", "pentagon 108°", 108, 5, _tangent(36), 1.2, 2 / 3),
            Shape("S", "square 90°", 90, 4, 1.0, 1.15, 2 / 3),
            Shape("L", "rectangle 90°", 90, 4, None, 1.15, 2 / 3),
            Shape("M", "rhombic 86°", 86, 2, _over_sine(86), 1.05, 2 / 3),
            Shape("A", "parallelogram 85°", 85, 2, None, 1.05, 2 / 3),
            Shape("B", "parallelogram 82°", 82, 2, None, 1.02, 2 / 3),
            Shape("C", "rhombic 80°", 80, 2, _over_sine(80), 1.0, 2 / 3),
            Shape("W", "trigon 80°", 80, 3, 0.6845, 0.95, 1 / 2),
            Shape("E", "rhombic 75°", 75, 2, _over_sine(75), 0.92, 2 / 3),
            Shape("T", "triangle 60°", 60, 3, math.sqrt(3), 0.75, 1 / 2),
            Shape("D", "rhombic 55°", 55, 2, _over_sine(55), 0.65, 1 / 2),
            Shape("K", "parallelogram 55°", 55, 2, None, 0.65, 1 / 2),
            Shape("V", "rhombic 35°", 35, 2, _over_sine(35), 0.45, 1 / 4),
        )
    }
)


def edge_length(shape: Shape, inscribed_circle: float) -> float:
    """Edge length l [mm] of an insert with an inscribed circle [mm]; its width stands in where the edges differ."""
    return (shape.edge_per_circle or 1.0) * inscribed_circle


@cache
def size_codes(letter: str) -> dict[str, float]:
    """Size code of ISO 1832 to inscribed circle [mm], for a shape letter; empty where the code is a plain length."""
    rows = read_table("tooling/designations/sizes.csv")
    return {row[letter]: row.number("inscribed_circle") for row in rows if row.get(letter)}


def size_code(letter: str, inscribed_circle: float) -> str | None:
    """The size code of a circle [mm], None where the standard has none. Round inserts count their diameter."""
    if letter == "R":
        return f"{int(inscribed_circle + 1e-9):02d}"
    return next((code for code, circle in size_codes(letter).items() if abs(circle - inscribed_circle) < 0.01), None)
