"""Pecks: how far a drill goes before its flutes pack, where it comes back, and what that takes."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.machine.machines import Machine
from cutting.motion.clock import rapid_seconds
from cutting.motion.trace import CLEAR

Array = NDArray[np.float64]
PACKS = 60.0  # diameters × bulk over flute share that a drill goes before it packs: 3.5 in steel with high-speed steel (common practice)
NEXT, LEAST = 1.0 / 3.0, 1.0 / 12.0  # of the first peck: 3, 1 and ¼ diameters in steel (common practice)
SHRINKS = 0.85  # each peck against the one before it (common practice)
BROKEN_BULK, MOST_GAIN = 5.0, 1.8  # bulk of chips that a peck breaks; and how much further that lets a drill go at most (common practice)
BREAK_BACK, BREAK_SECONDS = 0.4, 0.11  # mm of a peck that only breaks the chip, and s that it loses beside the slides
CLEAR_SECONDS = 0.13  # s that a full retract loses at its two ends beside the slides
MOST_PECKS = 400
PRESSURE, PRESSURE_DEEP, PRESSURE_MOST = (
    20.0,
    6.0,
    70.0,
)  # bar wanted to five diameters, more for each beyond, and at most (common practice)
SMALL_HOLE = 10.0  # mm below which more pressure is wanted, by the root of the diameter (common practice)


@dataclass(frozen=True)
class PeckTimes:
    """How many pecks a hole takes, and the seconds that they cost beside the cut."""

    count: Array
    seconds: Array


def free_depth(diameter: Any, flute: Any, bulk: Any) -> Array:
    """Depth [mm] that a drill of Ø [mm] goes before its flutes pack with chips of a bulk, with coolant from outside."""
    return np.asarray(PACKS * np.asarray(diameter, float) * np.asarray(flute) / np.asarray(bulk))


def wanted_pressure(depth: Any, diameter: Any) -> Array:
    """Pressure [bar] through the tool that washes chips out of a hole of that depth and diameter [mm] without pecks."""
    slender = np.asarray(depth) / np.asarray(diameter, float)
    deep = np.minimum(PRESSURE + PRESSURE_DEEP * np.maximum(slender - 5.0, 0.0), PRESSURE_MOST)
    return np.asarray(deep * np.sqrt(np.maximum(SMALL_HOLE / np.asarray(diameter, float), 1.0)))


def peck_times(depth: Any, first: Any, following: Any, least: Any, machine: Machine, clears: bool) -> PeckTimes:
    """Pecks over a depth [mm] on a machine: the first, then shrinking ones from `following` to `least` [mm]."""
    depth, first, following, least = np.broadcast_arrays(*(np.asarray(one, float) for one in (depth, first, following, least)))
    place, size = np.minimum(first, depth).copy(), following.copy()
    count, seconds = np.zeros(depth.shape), np.zeros(depth.shape)
    breaking = 2.0 * rapid_seconds(BREAK_BACK, machine) + BREAK_SECONDS
    for _ in range(MOST_PECKS):
        on = place < depth - 1e-9
        if not on.any():
            break
        lost = 2.0 * rapid_seconds(place + CLEAR, machine) + CLEAR_SECONDS if clears else breaking
        count, seconds = np.where(on, count + 1.0, count), np.where(on, seconds + lost, seconds)
        place = np.where(on, place + size, place)
        size = np.maximum(size * SHRINKS, least)
    return PeckTimes(count, seconds)


def peck_places(depth: float, first: float, following: float, least: float) -> tuple[float, ...]:
    """Depths [mm] from which one hole's drill comes back, the last one at the bottom left out."""
    found: list[float] = []
    place, size = first, following
    while place < depth - 1e-9 and len(found) < MOST_PECKS:
        found.append(place)
        place += size
        size = max(size * SHRINKS, least)
    return tuple(found)
