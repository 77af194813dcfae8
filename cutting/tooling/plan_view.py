"""Outlines of insert and holder in plan, for drawings: the tip at the origin, x along the axis away from the chuck."""

from __future__ import annotations

import math

from cutting.tooling.items import Holder, Insert
from cutting.tooling.shapes import SHAPES

Corner = tuple[float, float]


def insert_outline(insert: Insert, cutting_edge_angle: float) -> tuple[Corner, ...]:
    """Corners [mm] of the insert, its major edge at κr [°] to a feed towards the chuck (−x), its minor edge behind."""
    code = insert.code
    if code.shape == "R":
        radius = code.inscribed_circle / 2
        return tuple((radius * math.sin(t), radius - radius * math.cos(t)) for t in (2 * math.pi * k / 24 for k in range(24)))
    heading = math.radians(180.0 - cutting_edge_angle)
    included = math.radians(SHAPES[code.shape].included_angle)
    side = code.edge_length
    if code.shape == "T":
        turns = [math.pi - included] * 3
    elif code.shape == "W":
        turns = [math.radians(20), math.radians(100)] * 3
    else:
        turns = [included, math.pi - included] * 2
    corners, place = [(0.0, 0.0)], (0.0, 0.0)
    for turn in turns[:-1]:
        place = (place[0] + side * math.cos(heading), place[1] + side * math.sin(heading))
        corners.append(place)
        heading -= turn
    return tuple(corners)


def holder_outline(holder: Holder, insert: Insert) -> tuple[Corner, ...]:
    """Corners [mm] of head and shank; the usual offset of the tip from the shank's back (f = b + 7) is drawn."""
    code = holder.code
    width, size = code.shank_width, insert.code.inscribed_circle
    front, back = (7.0, width + 7.0) if code.hand != "N" else (-width / 2, width / 2)
    top = holder.overhang + 45.0
    return (
        (size * 0.15, size * 0.75),
        (front * 0.5, holder.overhang),
        (front, holder.overhang),
        (front, top),
        (back, top),
        (back, holder.overhang * 0.8),
        (size * 1.05, size * 0.55),
    )
