"""Sensible steps for each setting: a ladder of values to walk with the arrow keys, in the unit system shown."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.operations.setup import Setup
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
}


def ladders(setup: Setup, system: str) -> dict[str, Ladder]:
    """Ladders for speed, feed and depth; gearboxes give their own steps, depth its equal cuts."""
    settings, machine = setup.settings, setup.machine
    speed = (
        _steps("spindle_speed", machine.speeds, 1000 * settings.cutting_speed / (np.pi * setup.feature.start_diameter))
        if machine.speeds
        else _even("cutting_speed", settings.cutting_speed, system)
    )
    feed = (
        _steps("feed_per_rev", machine.feeds, settings.feed_per_rev, system)
        if machine.feeds
        else _even("feed_per_rev", settings.feed_per_rev, system)
    )
    return {"cutting_speed": speed, "feed_per_rev": feed, "depth_of_cut": _depths(setup, system)}


def _even(kind: str, present: float, system: str) -> Ladder:
    what = KINDS[kind]
    unit = what.unit if system == "metric" else what.inch_unit
    step, normal, coarse = STEPS[kind][system]
    value = present * factor(what.unit, unit)
    middle = round(value / step)
    first = max(1, middle - REACH)
    label = what.metric if system == "metric" else what.inch
    decimals = 4 if system == "inch" and kind == "feed_per_rev" else 3 if kind == "feed_per_rev" else 0
    rungs = tuple(f"{_trim(k * step, decimals)} {label}" for k in range(first, middle + REACH + 1))
    return Ladder(rungs, middle - first, normal, coarse)


def _steps(kind: str, steps: tuple[float, ...], present: float, system: str = "metric") -> Ladder:
    rungs = tuple(write(step, kind, system) for step in steps)
    place = int(np.argmin(np.abs(np.array(steps) - present)))
    return Ladder(rungs, place, 1, 3)


def _depths(setup: Setup, system: str) -> Ladder:
    most = 24
    # rounded up a hair so that the text still gives the same number of passes
    last = setup.last_depth  # a planned last cut keeps its depth
    depths = [(setup.stock_to_remove - (last or 0.0)) / passes for passes in range(most, 0, -1)]
    unit = KINDS["length"]
    scale = factor(unit.unit, unit.inch_unit) if system == "inch" else 1.0
    decimals, label = (5, "in") if system == "inch" else (4, "mm")
    rungs = tuple(f"{_trim(float(np.ceil(d * scale * 10**decimals) / 10**decimals), decimals)} {label}" for d in depths)
    return Ladder(rungs, max(0, most - min(setup.pass_count - (last is not None), most)), 1, 3)


def _trim(value: float, decimals: int) -> str:
    text = f"{value:.{decimals}f}"
    return text.rstrip("0").rstrip(".") if "." in text else text
