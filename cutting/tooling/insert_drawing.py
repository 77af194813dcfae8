"""An insert drawn to scale from its designation: plan with corner radii and hole, and section with clearance and breaker."""

from __future__ import annotations

import math
from dataclasses import dataclass

from cutting.tooling.designations.insert_text import InsertText
from cutting.tooling.designations.letters import CLEARANCES, FIXINGS
from cutting.tooling.shapes import SHAPES

Point = tuple[float, float]
ARC_STEPS = 6
HOLE_SHARE = 0.4  # of the inscribed circle: about what standard inserts have (common practice, no source)
LAND, GROOVE_DEPTH = 0.04, 0.035  # of the circle, for the sign of a chipbreaker in section


@dataclass(frozen=True)
class InsertDrawing:
    """Closed lines in mm: plan about the middle of the circle, y up; section through the middle, z up from the seat."""

    plan: tuple[Point, ...]
    inscribed_circle: float
    hole: float | None  # diameter
    section: tuple[tuple[Point, ...], ...]  # left and right of the hole, or one piece
    thickness: float
    clearance: float | None  # degrees
    nose_radius: float


def draw_insert(said: InsertText) -> InsertDrawing | None:
    """Plan and section; None where the code leaves a size to its maker."""
    if said.inscribed_circle is None or said.thickness is None or said.nose_radius is None:
        return None
    circle = said.inscribed_circle
    hole = round(HOLE_SHARE * circle, 2) if FIXINGS[said.fixing].hole else None
    return InsertDrawing(
        plan_outline(said.shape, circle, said.nose_radius),
        circle,
        hole,
        _section(said, circle, said.thickness, hole),
        said.thickness,
        None if said.clearance == "O" else float(CLEARANCES[said.clearance]),
        said.nose_radius,
    )


def plan_outline(shape: str, circle: float, nose: float) -> tuple[Point, ...]:
    """Outline [mm] of a shape with an inscribed circle and corner radius [mm], about the circle's middle."""
    if shape == "R":
        return tuple((circle / 2 * math.cos(a), circle / 2 * math.sin(a)) for a in (2 * math.pi * k / 48 for k in range(48)))
    corners = _sharp_corners(shape, circle)
    return tuple(
        point for k in range(len(corners)) for point in _rounded(corners[k - 1], corners[k], corners[(k + 1) % len(corners)], nose)
    )


def _sharp_corners(shape: str, circle: float) -> list[Point]:
    """Corners without radius; the cutting corner points along +x."""
    form, radius = SHAPES[shape], circle / 2
    if shape == "W":  # 80° corners with blunt ones of 160° between
        out, far = radius / math.sin(math.radians(40)), radius / math.sin(math.radians(80))
        return [_polar(out if k % 2 == 0 else far, 60 * k) for k in range(6)]
    if shape in "LABK":
        length = circle * 1.6
        lean = circle / math.tan(math.radians(form.included_angle)) if form.included_angle != 90 else 0.0
        return [(length / 2, circle / 2), (-length / 2, circle / 2), (-length / 2 - lean, -circle / 2), (length / 2 - lean, -circle / 2)]
    if form.corners == 2:
        half = math.radians(form.included_angle / 2)
        return [(radius / math.sin(half), 0), (0, radius / math.cos(half)), (-radius / math.sin(half), 0), (0, -radius / math.cos(half))]
    out = radius / math.cos(math.pi / form.corners)
    return [_polar(out, 360 * k / form.corners) for k in range(form.corners)]


def _polar(distance: float, degrees: float) -> Point:
    return distance * math.cos(math.radians(degrees)), distance * math.sin(math.radians(degrees))


def _rounded(before: Point, corner: Point, after: Point, radius: float) -> list[Point]:
    """Points of the arc that rounds a corner."""
    to_before, to_after = _unit(corner, before), _unit(corner, after)
    angle = math.acos(max(-1.0, min(1.0, to_before[0] * to_after[0] + to_before[1] * to_after[1])))
    if radius <= 0 or angle > math.radians(170):
        return [corner]
    middle = _unit((0, 0), (to_before[0] + to_after[0], to_before[1] + to_after[1]))
    away = radius / math.sin(angle / 2)
    centre = (corner[0] + away * middle[0], corner[1] + away * middle[1])
    tangent = radius / math.tan(angle / 2)
    start = (corner[0] + tangent * to_before[0] - centre[0], corner[1] + tangent * to_before[1] - centre[1])
    turn = math.pi - angle
    sense = 1 if to_before[0] * to_after[1] - to_before[1] * to_after[0] < 0 else -1
    points = []
    for k in range(ARC_STEPS + 1):
        a = sense * turn * k / ARC_STEPS
        points.append(
            (centre[0] + start[0] * math.cos(a) - start[1] * math.sin(a), centre[1] + start[0] * math.sin(a) + start[1] * math.cos(a))
        )
    return points


def _unit(start: Point, end: Point) -> Point:
    x, y = end[0] - start[0], end[1] - start[1]
    length = math.hypot(x, y) or 1.0
    return x / length, y / length


def _section(said: InsertText, circle: float, thickness: float, hole: float | None) -> tuple[tuple[Point, ...], ...]:
    fixing = FIXINGS[said.fixing]
    lean = thickness * math.tan(math.radians(CLEARANCES.get(said.clearance, 0)))
    half, top, foot = circle / 2, thickness, circle / 2 - lean
    upper = _breaker(half, top, circle, -1) if fixing.sides_with_breaker >= 1 else [(half, top)]
    lower = _breaker(foot, 0.0, circle, 1) if fixing.sides_with_breaker == 2 else [(foot, 0.0)]
    if hole is None:
        left_upper, left_lower = [(-x, z) for x, z in upper], [(-x, z) for x, z in reversed(lower)]
        return ((*lower[::-1], *upper, *left_upper[::-1], *left_lower[::-1]),)
    bore, sink = hole / 2, fixing.countersink
    wide = bore + thickness * 0.35 * math.tan(math.radians((sink[0] + sink[1]) / 4)) if sink else bore
    inner_top = [(wide, top), (bore, top - thickness * 0.35)] if sink else [(bore, top)]
    both = said.fixing in "QUCJ"
    inner_foot = [(bore, thickness * 0.35), (wide, 0.0)] if both else [(bore, 0.0)]
    right = (*reversed(lower), *upper, *inner_top, *inner_foot)
    return right, tuple((-x, z) for x, z in right)


def _breaker(edge: float, face: float, circle: float, inward: int) -> list[Point]:
    """Edge, land and groove of a chipbreaker, going from the edge to the middle."""
    land, depth = LAND * circle, GROOVE_DEPTH * circle * inward
    return [(edge, face), (edge - land, face + depth), (edge - 3 * land, face + depth), (edge - 4 * land, face)]
