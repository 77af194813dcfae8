"""Sensible steps for each setting: a ladder of values to walk with the arrow keys, in the unit system shown."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.operations.frame.fields import Nudged
from cutting.quantities.kinds import KINDS, factor
from cutting.quantities.write import write

REACH = 60  # rungs to each side of the present value


@dataclass(frozen=True)
class Ladder:
    """Rungs as text in the system shown; `place` is the rung nearest to the present value.

    One fine step is one rung, a normal step `normal` rungs, a coarse step `coarse` rungs.
    """

    rungs: tuple[str, ...]
    place: int
    normal: int
    coarse: int


# fine step, then rungs per normal and coarse step, by unit system
STEPS = {
    "cutting_speed": {"metric": (1.0, 5, 20), "inch": (5.0, 4, 10)},
    "feed_per_rev": {"metric": (0.005, 2, 10), "inch": (0.0002, 5, 10)},
    "feed_per_tooth": {"metric": (0.005, 2, 10), "inch": (0.0002, 5, 10)},
    "length": {"metric": (0.1, 5, 20), "inch": (0.005, 4, 20)},
}


def ladders(setup: Any, outcome: Any, nudged: tuple[Nudged, ...], system: str) -> dict[str, Ladder]:
    """Ladders of the settings that are walked; gearboxes give their own steps, some settings rungs of their own."""
    return {one.name: one.ladder(setup, system) if one.ladder else _ladder(one, one.read(setup, outcome), setup, system) for one in nudged}


def _ladder(one: Nudged, present: float, setup: Any, system: str) -> Ladder:
    drive = setup.machine.drive()
    if one.kind == "cutting_speed" and drive.steps:
        return steps("spindle_speed", drive.steps, 1000 * present / (np.pi * setup.speed_diameter))
    if one.kind == "feed_per_rev" and drive.feeds:
        return steps("feed_per_rev", drive.feeds, present, system)
    return _even(one.kind, present, system)


def _even(kind: str, present: float, system: str) -> Ladder:
    what = KINDS[kind]
    unit = what.unit if system == "metric" else what.inch_unit
    step, normal, coarse = STEPS[kind][system]
    value = present * factor(what.unit, unit)
    middle = round(value / step)
    first = max(1, middle - REACH)
    label = what.metric if system == "metric" else what.inch
    decimals = {"cutting_speed": 0, "length": 3 if system == "inch" else 1}.get(kind, 4 if system == "inch" else 3)
    rungs = tuple(f"{trim(k * step, decimals)} {label}" for k in range(first, middle + REACH + 1))
    return Ladder(rungs, middle - first, normal, coarse)


def steps(kind: str, steps: tuple[float, ...], present: float, system: str = "metric") -> Ladder:
    """The ladder of a gearbox: its own steps."""
    rungs = tuple(write(step, kind, system) for step in steps)
    place = int(np.argmin(np.abs(np.array(steps) - present)))
    return Ladder(rungs, place, 1, 3)


def trim(value: float, decimals: int) -> str:
    """A number without idle zeros at its end."""
    text = f"{value:.{decimals}f}"
    return text.rstrip("0").rstrip(".") if "." in text else text
