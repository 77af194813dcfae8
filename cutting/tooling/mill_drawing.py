"""An end mill to scale: seen from the side, and onto its end; lines in mm from the end."""

from __future__ import annotations

import math

from cutting.tooling.drill_drawing import ROUND, Corner, DrillDrawing
from cutting.tooling.mills import EndMill


def mill_drawing(mill: EndMill) -> DrillDrawing:
    """The lines of an end mill; its teeth end short of the middle where it does not cut straight down."""
    radius, corner, long = mill.diameter / 2.0, mill.corner, mill.cutting_length
    half = ((0.0, 0.0), (0.0, radius - corner), (corner, radius), (long, radius))
    side = (*half, *((x, -y) for x, y in reversed(half[1:])))
    neck, thick, far = mill.neck / 2.0, mill.shank / 2.0, mill.reach + 3.0 * mill.diameter
    behind = ((long, neck), (mill.reach, neck), (mill.reach, thick), (far, thick))
    shank = (*behind, *((x, -y) for x, y in reversed(behind)))
    circle = tuple((radius * math.cos(t), radius * math.sin(t)) for t in (2 * math.pi * k / ROUND for k in range(ROUND)))
    inner = 0.0 if mill.plunge > 0 else 0.35 * radius
    turns = [2 * math.pi * k / mill.flutes for k in range(mill.flutes)]
    teeth = tuple(((inner * math.cos(t), inner * math.sin(t)), (radius * math.cos(t), radius * math.sin(t))) for t in turns)
    holes = ((0.0, 0.0, 0.18 * mill.diameter),) if mill.through else ()
    return DrillDrawing(side, shank, _teeth(mill), circle, teeth, holes)


def _teeth(mill: EndMill) -> tuple[tuple[Corner, ...], ...]:
    """The edges that run round the side, those of a second helix between the first."""
    radius, found = mill.diameter / 2.0, []
    for k in range(mill.flutes):
        helix = mill.second_helix if mill.uneven and k % 2 else mill.helix
        lead = math.pi * mill.diameter / math.tan(math.radians(max(helix, 1.0)))
        for start in range(-1, int(mill.cutting_length / lead) + 1):
            first = (start + k / mill.flutes) * lead
            line = [(first + t / 16 * lead / 2.0, -radius * math.cos(math.pi * t / 16)) for t in range(17)]
            seen = tuple((x, y) for x, y in line if mill.corner <= x <= mill.cutting_length)
            if len(seen) > 1:
                found.append(seen)
    return tuple(found)
