"""What a path takes away of a part: the outline of the edge swept along its moves, cut out of the part's half section."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from shapely import MultiPoint, Polygon, union_all
from shapely.affinity import translate
from shapely.geometry.base import BaseGeometry

from cutting.motion.moves import Arc, CuttingOutline, Feed, Frame, Helix, Path, Plane, Point, Rapid, ThreadPass
from cutting.workpiece.solid import Solid

CHORD = 0.01  # mm that an arc's chords may stand off it
STILL = 1e-9  # mm


@dataclass(frozen=True)
class Swept:
    """What goes: `area` in half section (radius, along), and its volume [mm³] as it turns about the axis, or winds along a thread."""

    area: BaseGeometry
    volume: float


def half_section(part: Solid) -> BaseGeometry:
    """The part in half section (radius, from the chuck): outside less inside and rings."""
    outside = _under(part.outside, part.end)
    inside = _under(part.inside, part.end + 1.0)
    rings = union_all([_box(ring.inner, ring.outer, ring.near, ring.far) for ring in part.rings])
    return outside.difference(inside).difference(rings)


def turned_volume(area: BaseGeometry) -> float:
    """Volume [mm³] of an area that turns once about the axis. Source: Pappus: 2π times the centroid's radius times the area."""
    return 2.0 * math.pi * area.centroid.x * area.area if area.area > 0 else 0.0


def swept(path: Path, metal: BaseGeometry, centre: tuple[float, float] = (0.0, 0.0)) -> Swept:
    """What a path takes of metal in half section: of a turned path the part's, of one in a hole that around the hole's `centre`.

    A thread is wound: its groove's area goes along the helix as often as the path turns within the metal.
    """
    cut = [(at, move) for at, move in _cutting(path) if path.frame is Frame.TURNED or _is_of(at, move, centre)]
    wound = [pair for pair in cut if isinstance(pair[1], ThreadPass) or (isinstance(pair[1], Helix) and path.edge.apart > 0)]
    if wound:
        return _wound(path, wound, metal, centre)
    edges = [replace(path, edge=CuttingOutline(one)) for one in (path.edge.outline, *path.edge.further)]
    hulls = [_hull(a, b) for one in edges for at, move in cut for a, b in itertools.pairwise(_places(one, at, move, centre))]
    area = union_all(hulls).intersection(metal)
    return Swept(area, turned_volume(area))


def _cutting(path: Path) -> Iterator[tuple[Point, Feed | Arc | Helix | ThreadPass]]:
    at = path.start
    for step in path.steps:
        if isinstance(step, (Feed, Arc, Helix, ThreadPass)):
            yield at, step
        if isinstance(step, (Rapid, Feed, Arc, Helix, ThreadPass)):
            at = step.to


def _is_of(at: Point, move: Feed | Arc | Helix | ThreadPass, centre: tuple[float, float]) -> bool:
    """Whether a move in a pattern belongs to the hole of a centre: its middle is nearer to it than a hole apart."""
    middle = move.centre[:2] if isinstance(move, Helix) else move.to[:2]
    return math.dist(middle, centre) < 1e-6 or (not isinstance(move, Helix) and math.dist(at[:2], centre) < 1e-6)


def _places(path: Path, at: Point, move: Feed | Arc | Helix | ThreadPass, centre: tuple[float, float]) -> list[Polygon]:
    """The edge at the ends of a move, and between them where it is bent."""
    return [_edge_at(path, place, centre) for place in _points(at, move)]


def _points(at: Point, move: Feed | Arc | Helix | ThreadPass) -> list[Point]:
    return arc_points(at, move) if isinstance(move, Arc) else [at, move.to]


def arc_points(at: Point, move: Arc) -> list[Point]:
    """Places on an arc from a place to its end, whose chords stand off it by no more than a hundredth of a millimetre."""
    across = move.plane
    radius = math.hypot(at[0] - move.centre[0], at[across] - move.centre[across])
    begin = math.atan2(at[across] - move.centre[across], at[0] - move.centre[0])
    end = math.atan2(move.to[across] - move.centre[across], move.to[0] - move.centre[0])
    turned = ((begin - end if move.clockwise else end - begin) % (2.0 * math.pi)) or 2.0 * math.pi
    count = max(2, math.ceil(turned / (2.0 * math.acos(max(1.0 - CHORD / max(radius, CHORD), 0.0)))))
    sign = -1.0 if move.clockwise else 1.0
    found = []
    for k in range(count + 1):
        angle = begin + sign * turned * k / count
        x, other = move.centre[0] + radius * math.cos(angle), move.centre[across] + radius * math.sin(angle)
        found.append((x, at[1], other) if across is Plane.XZ else (x, other, at[2] + (move.to[2] - at[2]) * k / count))
    return found


def _edge_at(path: Path, place: Point, centre: tuple[float, float]) -> Polygon:
    """The outline of the edge in half section where its reference point stands; of a tool that goes round, the ring that it covers."""
    shape = path.edge.outline
    if path.frame is Frame.TURNED:
        return Polygon([(place[0] + r, place[2] + z) for r, z in shape])
    off = math.dist(place[:2], centre)
    outer = [(off + r, place[2] + z) for r, z in shape]
    inner = [(max(off - r, 0.0), place[2] + z) for r, z in shape]
    return MultiPoint([*outer, *inner]).convex_hull if off > 0 else Polygon(outer)


def _hull(a: BaseGeometry, b: BaseGeometry) -> BaseGeometry:
    return union_all([a, b]).convex_hull


def _wound(
    path: Path, wound: Sequence[tuple[Point, Feed | Arc | Helix | ThreadPass]], metal: BaseGeometry, centre: tuple[float, float]
) -> Swept:
    """A groove that winds: what all passes and starts leave within one lead, times the turns within the metal."""
    least, low, most, high = metal.bounds
    teeth, turns, first_top = [], 0.0, None
    for at, move in wound:
        lead = move.lead if isinstance(move, ThreadPass) else abs(move.to[2] - at[2]) / max(getattr(move, "turns", 0.0), STILL)
        if lead <= STILL:
            continue
        top = max(at[2], move.to[2])  # in and out again along one groove
        first_top = top if first_top is None else first_top
        beside = (top - first_top + lead / 2.0) % lead - lead / 2.0
        teeth.append(translate(_edge_at(path, (at[0], at[1], 0.0), centre), 0.0, beside))
        within = [
            max(0.0, min(top + row * path.edge.apart, high) - max(min(at[2], move.to[2]) + row * path.edge.apart, low)) / lead
            for row in range(path.edge.rows)
        ]
        turns = turns + sum(within) if path.edge.rows > 1 else max(turns, *within)
    tall = 10.0 * (most - least) + 1000.0
    area = union_all(teeth).intersection(_box(least, most, -tall, tall))
    return Swept(area, turned_volume(area) * turns)


def _under(steps: tuple[tuple[float, float], ...], end: float) -> BaseGeometry:
    """The area between breakpoints (from, radius to the next) and the axis."""
    ends = [start for start, _ in steps[1:]] + [end]
    boxes = [_box(0.0, radius, start, stop) for (start, radius), stop in zip(steps, ends, strict=True) if radius > 0 and stop > start]
    return union_all(boxes)


def _box(inner: float, outer: float, near: float, far: float) -> Polygon:
    return Polygon([(inner, near), (outer, near), (outer, far), (inner, far)])
