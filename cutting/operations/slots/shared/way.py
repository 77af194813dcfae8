"""How near a blade comes in rapid, and which strokes follow each other without a lift."""

from __future__ import annotations

import math

from cutting.motion.moves import Point

NEAR = 0.2  # mm before the metal up to which a blade comes in rapid (common practice: 0.2 to 0.5 on a turned surface)


def follows(at: Point, begin: Point) -> bool:
    """Whether a stroke begins where the one before it ended."""
    return math.dist(at, begin) <= NEAR + 1e-9
