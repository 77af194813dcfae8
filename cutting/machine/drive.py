"""What a spindle and its feed really run of what is wanted: clamp, lowest and highest speed, a gearbox's steps, a unit's gears."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.mechanics.kinematics import nearest_step_below, spindle_speed

Array = NDArray[np.float64]


@dataclass(frozen=True)
class Spun:
    """Spindle speeds [1/min] over one cut: held between `low` and `top`, which are one where the speed cannot follow the diameter."""

    low: Any
    top: Any

    def at(self, cutting_speed: ArrayLike, diameter: ArrayLike) -> Array:
        """Spindle speed n [1/min] for a wanted cutting speed vc [m/min] at a diameter d [mm]; shapes broadcast."""
        return np.asarray(np.clip(spindle_speed(cutting_speed, diameter), self.low, self.top))


@dataclass(frozen=True)
class Drive:
    """A spindle with its feed. Speeds 1/min, feeds mm/rev; `steps` and `feeds` ascend, empty where any value can be set.

    `constant` tells whether the speed follows the diameter, so that the cutting speed stays (constant surface speed).
    """

    low: float
    top: float
    steps: tuple[float, ...] = ()
    feeds: tuple[float, ...] = ()
    constant: bool = True

    @property
    def smooth(self) -> Drive:
        """The same drive with any speed up to its highest and any feed, as other gears would give them: for maps."""
        return replace(self, low=0.0 if self.steps else self.low, steps=(), feeds=())

    def runs(self, wanted: ArrayLike) -> Array:
        """The spindle speed n [1/min] that runs for a wanted one: the step at or below it, never above `top`, never below the lowest.

        Source: common practice, "the next slower gear"; exact for drives without steps.

        >>> Drive(45.0, 2000.0, steps=(100.0, 400.0, 1600.0)).runs([30.0, 399.0, 400.0, 4134.0]).tolist()
        [100.0, 100.0, 400.0, 1600.0]
        >>> Drive(50.0, 3000.0).runs([9.9, 1000.0, 4000.0]).tolist()
        [50.0, 1000.0, 3000.0]
        """
        held = np.minimum(np.asarray(wanted, float), self.top)
        return nearest_step_below(held, self.steps) if self.steps else np.maximum(held, self.low)

    def at(self, cutting_speed: ArrayLike, diameter: ArrayLike) -> Array:
        """The spindle speed n [1/min] that runs for a cutting speed vc [m/min] at a diameter d [mm]; shapes broadcast."""
        return self.runs(spindle_speed(cutting_speed, diameter))

    def over(self, cutting_speed: ArrayLike, rim: ArrayLike) -> Spun:
        """The speeds of a cut across the face that starts at a rim [mm] with a wanted cutting speed [m/min].

        A drive without constant surface speed keeps the speed of the rim all the way in.
        """
        if self.constant:
            return Spun(min(self.low, self.top), self.top)
        kept = self.at(cutting_speed, rim)
        return Spun(kept, kept)

    def fed(self, wanted: ArrayLike, by_hand: bool = False) -> Array:
        """The feed [mm/rev] that the drive has for a wanted one: itself, or the step at or below it.

        `by_hand` tells whether what is finer than the finest step is fed by hand, as a drill in a tailstock is.

        >>> Drive(30.0, 1800.0, feeds=(0.05, 0.1)).fed([0.02, 0.07]).tolist()
        [0.05, 0.05]
        >>> Drive(30.0, 1800.0, feeds=(0.05, 0.1)).fed([0.02, 0.07], by_hand=True).tolist()
        [0.02, 0.05]
        """
        given = np.asarray(wanted, float)
        if not self.feeds:
            return given
        stepped = nearest_step_below(given, self.feeds)
        return np.where(given < self.feeds[0], given, stepped) if by_hand else stepped
