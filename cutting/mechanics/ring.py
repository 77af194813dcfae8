"""Trepanning: a ring is cut instead of a full hole, so force, torque and power fall with the ring's share."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]


@formula("torque", "{specific_force}·{feed_per_rev}·({diameter}² − {inner_diameter}²)/8000", "tschaetsch", Honesty.MODEL, "cutting force")
def ring_torque(specific_force: ArrayLike, feed_per_rev: ArrayLike, diameter: ArrayLike, inner_diameter: ArrayLike) -> Array:
    """Torque M [N·m] of all edges of a ring from d2 to d [mm]: kc [N/mm²], f [mm/rev]. Solid drilling is d2 = 0.

    >>> round(float(ring_torque(2000.0, 0.1, 100.0, 88.0)), 2)
    56.4
    """
    area = np.asarray(diameter, float) ** 2 - np.asarray(inner_diameter, float) ** 2
    # 8000: half of a quarter, from N·mm to N·m
    return np.asarray(specific_force) * np.asarray(feed_per_rev) * area / 8000.0


def feed_of_head(feed_per_edge: ArrayLike, cartridges: int, same_radius: bool) -> Array:
    """Feed per revolution [mm] of a rotating head: two cartridges on one radius share the feed, on two radii each cuts its own.

    >>> float(feed_of_head(0.1, 2, True)), float(feed_of_head(0.1, 2, False))
    (0.2, 0.1)
    """
    return np.asarray(feed_per_edge) * (2.0 if cartridges == 2 and same_radius else 1.0)
