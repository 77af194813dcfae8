"""Sizes of a trial: the drawing's zone, and the readings in the order of the pieces."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from cutting.learning.entries import Logged
from cutting.quantities.dimension import Dimension


def zone_of(setup: Any) -> tuple[float, float] | None:
    """The least and largest size [mm] that the drawing allows of what the operation makes, None where it says nothing."""
    for name in ("end_diameter", "diameter", "outer_diameter", "floor"):
        size = getattr(getattr(setup, "feature", None), name, None)
        if isinstance(size, Dimension) and size.upper_deviation is not None and size.lower_deviation is not None:
            return size.nominal + size.lower_deviation, size.nominal + size.upper_deviation
    return None


def sizes_in_order(told: Sequence[Logged]) -> tuple[list[float], list[float]]:
    """Running piece numbers over all edges, and the sizes; each entry's as their mean."""
    base = 0
    last: dict[str, int] = {}
    pieces: list[float] = []
    sizes: list[float] = []
    for one in told:
        before = last.get(one.edge, 0)
        base += max(one.count - before, 0) if one.count >= before else one.count
        last[one.edge] = one.count
        if one.sizes:
            pieces.append(float(max(base, len(pieces) + 1)))
            sizes.append(float(np.mean([size.value for size in one.sizes])))
    return pieces, sizes
