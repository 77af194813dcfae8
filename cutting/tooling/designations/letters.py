"""The letters of ISO 1832, as they read out: from memory of the standard (ISO 1832:2017, positions 1 to 4 and 8 to 11)."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType

from cutting.tooling.shapes import SHAPES

SHAPE_NAMES = MappingProxyType({letter: shape.name for letter, shape in SHAPES.items()})
CLEARANCES = MappingProxyType({"A": 3, "B": 5, "C": 7, "D": 15, "E": 20, "F": 25, "G": 30, "N": 0, "P": 11})
CLEARANCE_NAMES = MappingProxyType(
    {letter: f"normal clearance {angle}°" for letter, angle in CLEARANCES.items()} | {"O": "other clearance, as its maker says"}
)


@dataclass(frozen=True)
class Tolerance:
    """± deviations [mm] of circle, corner height and thickness; where the standard grows them with the circle: (to, ±)."""

    circle: float | tuple[tuple[float, float], ...]
    corner: float | tuple[tuple[float, float], ...]
    thickness: float

    def of_circle(self, inscribed_circle: float) -> float:
        return _by_size(self.circle, inscribed_circle)

    def of_corner(self, inscribed_circle: float) -> float:
        return _by_size(self.corner, inscribed_circle)


def _by_size(values: float | tuple[tuple[float, float], ...], circle: float) -> float:
    if isinstance(values, float):
        return values
    return next((deviation for top, deviation in values if circle <= top), values[-1][1])


_WIDE = ((10.0, 0.05), (12.7, 0.08), (20.0, 0.10), (26.0, 0.13), (32.0, 0.15))
_WIDE_CORNER = ((10.0, 0.08), (12.7, 0.13), (20.0, 0.15), (26.0, 0.18), (32.0, 0.20))
_WIDEST = ((10.0, 0.08), (12.7, 0.13), (20.0, 0.18), (26.0, 0.25), (32.0, 0.25))
_WIDEST_CORNER = ((10.0, 0.13), (12.7, 0.20), (20.0, 0.27), (26.0, 0.38), (32.0, 0.38))
TOLERANCES = MappingProxyType(
    {
        "A": Tolerance(0.025, 0.005, 0.025),
        "F": Tolerance(0.013, 0.005, 0.025),
        "C": Tolerance(0.025, 0.013, 0.025),
        "H": Tolerance(0.013, 0.013, 0.025),
        "E": Tolerance(0.025, 0.025, 0.025),
        "G": Tolerance(0.025, 0.025, 0.13),
        "J": Tolerance(_WIDE, 0.005, 0.025),
        "K": Tolerance(_WIDE, 0.013, 0.025),
        "L": Tolerance(_WIDE, 0.025, 0.025),
        "M": Tolerance(_WIDE, _WIDE_CORNER, 0.13),
        "N": Tolerance(_WIDE, _WIDE_CORNER, 0.025),
        "U": Tolerance(_WIDEST, _WIDEST_CORNER, 0.13),
    }
)


@dataclass(frozen=True)
class Fixing:
    """Hole and breaker: `countersink` in degrees of the cone, 0 for a straight hole, None for no hole."""

    hole: bool
    countersink: tuple[int, int] | None
    sides_with_breaker: int
    name: str


_SMALL, _LARGE = (40, 60), (70, 90)
FIXINGS = MappingProxyType(
    {
        "N": Fixing(False, None, 0, "no hole, no chipbreaker"),
        "R": Fixing(False, None, 1, "no hole, chipbreaker on one side"),
        "F": Fixing(False, None, 2, "no hole, chipbreaker on both sides"),
        "A": Fixing(True, None, 0, "straight hole, no chipbreaker"),
        "M": Fixing(True, None, 1, "straight hole, chipbreaker on one side"),
        "G": Fixing(True, None, 2, "straight hole, chipbreaker on both sides"),
        "W": Fixing(True, _SMALL, 0, "hole with 40–60° countersink on one side, no chipbreaker"),
        "T": Fixing(True, _SMALL, 1, "hole with 40–60° countersink on one side, chipbreaker on one side"),
        "Q": Fixing(True, _SMALL, 0, "hole with 40–60° countersink on both sides, no chipbreaker"),
        "U": Fixing(True, _SMALL, 2, "hole with 40–60° countersink on both sides, chipbreaker on both sides"),
        "B": Fixing(True, _LARGE, 0, "hole with 70–90° countersink on one side, no chipbreaker"),
        "H": Fixing(True, _LARGE, 1, "hole with 70–90° countersink on one side, chipbreaker on one side"),
        "C": Fixing(True, _LARGE, 0, "hole with 70–90° countersink on both sides, no chipbreaker"),
        "J": Fixing(True, _LARGE, 2, "hole with 70–90° countersink on both sides, chipbreaker on both sides"),
        "P": Fixing(True, None, 2, "straight hole, ground or polished chipbreaker on both sides (inch practice)"),
        "X": Fixing(True, None, 0, "special: hole and chipbreaker as its maker says"),
    }
)
FIXING_NAMES = MappingProxyType({letter: fixing.name for letter, fixing in FIXINGS.items()})
ONE_SIDED = frozenset("RMTHWB")  # the hole or the breaker leaves one side to use
EDGE_CONDITIONS = MappingProxyType(
    {
        "F": "sharp edge",
        "E": "rounded edge",
        "T": "chamfered edge",
        "S": "chamfered and rounded edge",
        "K": "double-chamfered edge",
        "P": "double-chamfered and rounded edge",
    }
)
HANDS = MappingProxyType({"R": "right hand", "L": "left hand", "N": "both hands"})
# kind of tipped corner -> (tips, how they sit)
TIPPINGS = MappingProxyType(
    {
        "S": (0, "solid"),
        "F": (0, "whole face tipped, one side"),
        "E": (0, "whole face tipped, both sides"),
        "A": (1, "one corner tipped, one side"),
        "B": (2, "two corners tipped, one side"),
        "C": (3, "three corners tipped, one side"),
        "D": (4, "four corners tipped, one side"),
        "G": (5, "five corners tipped, one side"),
        "H": (6, "six corners tipped, one side"),
        "J": (8, "eight corners tipped, one side"),
        "K": (2, "one corner tipped, both sides"),
        "L": (4, "two corners tipped, both sides"),
        "M": (6, "three corners tipped, both sides"),
        "N": (8, "four corners tipped, both sides"),
        "P": (10, "five corners tipped, both sides"),
        "Q": (12, "six corners tipped, both sides"),
        "R": (16, "eight corners tipped, both sides"),
        "T": (1, "one corner tipped through the thickness"),
        "U": (2, "two corners tipped through the thickness"),
        "V": (3, "three corners tipped through the thickness"),
        "W": (4, "four corners tipped through the thickness"),
        "X": (5, "five corners tipped through the thickness"),
        "Y": (6, "six corners tipped through the thickness"),
        "Z": (8, "eight corners tipped through the thickness"),
    }
)
