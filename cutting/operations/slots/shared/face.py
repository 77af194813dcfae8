"""The faces that a narrow edge leaves: feed marks of its corner."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.mechanics import finish
from cutting.wear.reference import speed_as_in_steel
from cutting.workpiece.materials import Work

Array = NDArray[np.float64]


def corner_roughness(feed: ArrayLike, corner_radius: ArrayLike, cutting_speed: ArrayLike, work: Work) -> Array:
    """Ra [µm] of a wall along which a corner of a radius [mm] is fed [mm/rev] at a speed [m/min], with the metal's built-up edge."""
    peak = finish.feed_mark_height(feed, corner_radius)
    speed = np.asarray(cutting_speed) * speed_as_in_steel(work.material.speed_row)
    return finish.arithmetic_roughness(peak, finish.finish_factor(speed, work.material.ductility))
