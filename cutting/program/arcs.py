"""Arcs as a control takes them: by their centre or by their radius, in the plane that is chosen."""

from __future__ import annotations

import math
from dataclasses import dataclass

from cutting.motion.moves import Plane, Point

# axes of each plane in the order in which counter-clockwise counts (ISO 841): XY, ZX, YZ
PLANES = {"G17": (0, 1), "G18": (2, 0), "G19": (1, 2)}
CENTRES = "IJK"
DIFFERS = 0.01  # mm, as far as common controls let the two radii of an arc differ


@dataclass(frozen=True)
class Round:
    """An arc: its centre, how far round [turns], and by how much its radii differ [mm]."""

    centre: Point
    turns: float
    off: float
    radii: tuple[float, float]


def by_centre(at: Point, to: Point, offset: Point, plane: str, clockwise: bool, same: float) -> Round:
    """An arc round `offset` [mm] from where it begins; one that ends within `same` [mm] of its beginning goes once round."""
    a, b = PLANES[plane]
    middle = tuple(at[k] + offset[k] for k in range(3))
    centre: Point = (middle[0], middle[1], middle[2])
    first, last = (math.hypot(place[a] - centre[a], place[b] - centre[b]) for place in (at, to))
    begin, end = (math.atan2(place[b] - centre[b], place[a] - centre[a]) for place in (at, to))
    turned = (begin - end if clockwise else end - begin) % (2.0 * math.pi) / (2.0 * math.pi)
    if math.hypot(to[a] - at[a], to[b] - at[b]) < same:
        turned = 1.0
    return Round(centre, turned or 1.0, abs(first - last), (first, last))


def by_radius(at: Point, to: Point, radius: float, plane: str, clockwise: bool) -> Round | None:
    """An arc of a radius [mm]: the shorter way round, the longer where it is negative; None where it does not reach.

    Plane geometry: the centre lies √(r² − (s/2)²) beside the middle of the chord s.
    """
    a, b = PLANES[plane]
    across, along = to[a] - at[a], to[b] - at[b]
    chord = math.hypot(across, along)
    if chord <= 0.0 or chord > 2.0 * abs(radius) + DIFFERS:
        return None
    beside = math.sqrt(max(radius**2 - (chord / 2.0) ** 2, 0.0))
    side = -1.0 if clockwise == (radius > 0.0) else 1.0
    offset = [0.0, 0.0, 0.0]
    offset[a] = across / 2.0 - side * beside * along / chord
    offset[b] = along / 2.0 + side * beside * across / chord
    return by_centre(at, to, (offset[0], offset[1], offset[2]), plane, clockwise, 0.0)


def plane_of(plane: str) -> Plane:
    """The plane of a path's arc."""
    return Plane.XY if plane == "G17" else Plane.XZ
