"""Where several alike lie, and the ways between them."""

from __future__ import annotations

import itertools
import math

from cutting.machine.machines import Machine
from cutting.motion.clock import rapid_seconds
from cutting.motion.trace import APART


def places(circle: float | None, count: int) -> tuple[tuple[float, float], ...]:
    """Centres (x, y) [mm] of so many alike on a pitch circle [mm], or in a row where nobody says where they lie."""
    if circle is None:
        return tuple((APART * k, 0.0) for k in range(count))
    turns = (2.0 * math.pi * k / count for k in range(count))
    return tuple((circle / 2.0 * math.cos(one), circle / 2.0 * math.sin(one)) for one in turns)


def between_seconds(machine: Machine, circle: float | None, count: int) -> float:
    """Seconds of all ways from one to the next."""
    at = places(circle, count)
    ways = [max(abs(b[0] - a[0]), abs(b[1] - a[1])) for a, b in itertools.pairwise(at)]
    return float(sum(rapid_seconds(ways, machine)))
