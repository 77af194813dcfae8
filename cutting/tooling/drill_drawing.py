"""A drill to scale: seen from the side with its point, and onto the point; lines in mm from the tip."""

from __future__ import annotations

import math
from dataclasses import dataclass

from cutting.tooling.drills import Drill

Corner = tuple[float, float]
ROUND = 48  # corners of a circle


@dataclass(frozen=True)
class DrillDrawing:
    """`side` from the tip along the axis, its flutes as curves; `point` onto the tip: outline, lips, chisel edge, coolant holes."""

    side: tuple[Corner, ...]
    shank: tuple[Corner, ...]
    flutes: tuple[tuple[Corner, ...], ...]
    outline: tuple[Corner, ...]
    lips: tuple[tuple[Corner, Corner], ...]
    holes: tuple[tuple[float, float, float], ...]  # x, y, diameter


def drawing(drill: Drill) -> DrillDrawing:
    """The lines of a drill; its core and the shape of its lands are drawn as they usually are."""
    radius, cone, long = drill.diameter / 2.0, drill.cone, drill.flute_length
    front = radius - cone if drill.type.reams else 0.0  # a reamer has a flat end and a chamfer of 45°
    side = ((0.0, front), (cone, radius), (long, radius), (long, -radius), (cone, -radius), (0.0, -front))
    thick = (drill.shank or 1.3 * drill.diameter) / 2.0
    far = long + 4.0 * drill.diameter
    plain: tuple[Corner, ...] = ((long, thick), (far, thick), (far, -thick), (long, -thick))
    shank = _stepped(drill, thick) if drill.step else plain
    circle = tuple((radius * math.cos(t), radius * math.sin(t)) for t in (2 * math.pi * k / ROUND for k in range(ROUND)))
    return DrillDrawing(side, shank, _flutes(drill), circle, _lips(drill), _holes(drill))


def _stepped(drill: Drill, thick: float) -> tuple[Corner, ...]:
    start, wide, end = drill.cone + drill.step_length, drill.step / 2.0, drill.flute_length
    far = end + 4.0 * drill.diameter
    half = ((start, drill.diameter / 2.0), (start + wide - drill.diameter / 2.0, wide), (end, wide), (end, thick), (far, thick))
    return (*half, *((x, -y) for x, y in reversed(half)))


def _flutes(drill: Drill) -> tuple[tuple[Corner, ...], ...]:
    if drill.helix < 2.0:
        return ()
    radius, pitch = drill.diameter / 2.0, math.pi * drill.diameter / math.tan(math.radians(drill.helix)) / drill.flutes
    count = min(int((drill.flute_length - drill.cone) / pitch), 60)
    steps = [k / 8 for k in range(9)]
    return tuple(tuple((drill.cone + (turn + t) * pitch, -radius * math.cos(math.pi * t)) for t in steps) for turn in range(max(count, 0)))


def _lips(drill: Drill) -> tuple[tuple[Corner, Corner], ...]:
    """Lips from the web out to the corner, parallel on both sides of the axis; the chisel edge joins the first two."""
    radius, web = drill.diameter / 2.0, drill.web / 2.0
    found = []
    for k in range(drill.flutes):
        turn = 2 * math.pi * k / drill.flutes

        def turned(x: float, y: float, turn: float = turn) -> Corner:
            return x * math.cos(turn) - y * math.sin(turn), x * math.sin(turn) + y * math.cos(turn)

        found.append((turned(0.4 * web, web), turned(math.sqrt(max(radius**2 - web**2, 0.0)), web)))
    if drill.flutes == 2 and not drill.type.enlarges:
        found.append((found[0][0], found[1][0]))
    return tuple(found)


def _holes(drill: Drill) -> tuple[tuple[float, float, float], ...]:
    if not drill.coolant_holes or drill.coolant_hole <= 0:
        return ()
    if drill.coolant_holes == 1:
        return ((0.25 * drill.diameter, 0.0, drill.coolant_hole),)
    turns = [2 * math.pi * k / drill.coolant_holes + math.pi / 3 for k in range(drill.coolant_holes)]
    return tuple((0.28 * drill.diameter * math.cos(t), 0.28 * drill.diameter * math.sin(t), drill.coolant_hole) for t in turns)
