"""Speed against life, time and cost for a set-up, and how surely an edge reaches its planned change."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cutting.operations.frame.over_passes import last_pass, plain_floats
from cutting.operations.turned.book import book_window
from cutting.operations.turned.run import numbers, run
from cutting.operations.turned.setup import Setup
from cutting.wear.spread import life_quantile

Array = NDArray[np.float64]
POINTS = 121
SURELY = (0.95, 0.99, 0.999)
SAME_SPEED = 0.05  # of a speed: nearer is the same


@dataclass(frozen=True)
class LifePoint:
    """One speed of the curve: m/min, minutes of life, seconds and money per piece, pieces per planned change."""

    cutting_speed: float
    life: float
    seconds: float
    cost: float
    parts: float


@dataclass(frozen=True)
class EdgeChange:
    """Change the edge after so many pieces, and so many of a hundred edges last that long."""

    probability: float
    parts: float


@dataclass(frozen=True)
class EdgeLife:
    """Curves over speed, the marked points, and the spread of life over pieces."""

    speeds: tuple[float, ...]
    lives: tuple[float, ...]
    costs: tuple[float, ...]
    seconds: tuple[float, ...]
    now: LifePoint
    cheapest: LifePoint
    fastest: LifePoint
    book_low: float
    book_high: float
    band: float
    shape: float
    median_parts: float
    parts: tuple[float, ...]
    survival: tuple[float, ...]
    changes: tuple[EdgeChange, ...]
    planned: EdgeChange
    run_parts: float
    sister_tools: int
    says: str


def edge_life(setup: Setup) -> EdgeLife:
    """The speed–life–cost curve of a set-up with its own edge change, and the Weibull spread. Raises `CuttingError`."""
    done = run(setup, setup.silent)
    low, high = (float(np.ravel(v)[-1]) for v in book_window(done))
    now = setup.settings.cutting_speed
    speeds = np.geomspace(min(0.5 * low, 0.7 * now), max(1.8 * high, 1.3 * now), POINTS)
    swept = numbers(setup, done.cutter, speeds[:, None], setup.settings.feed_per_rev, setup.silent)
    lives, costs, seconds = (_column(a) for a in (swept.tool_life, swept.operation_cost, swept.operation_time))
    parts = _column(swept.change_parts)

    def point(k: int) -> LifePoint:
        return LifePoint(float(speeds[k]), float(lives[k]), float(seconds[k]), float(costs[k]), float(parts[k]))

    shape, median = float(np.ravel(done.weibull_shape)[-1]), float(np.ravel(done.median_parts)[-1])
    counts = np.linspace(0.0, 2.2 * median, 90)
    planned_parts = float(np.ravel(done.change_parts)[-1])
    run_parts = float(np.ravel(done.run_parts)[-1])
    changes = tuple(EdgeChange(p, float(median * life_quantile(p, shape))) for p in SURELY)
    return EdgeLife(
        plain_floats(speeds),
        plain_floats(lives),
        plain_floats(costs),
        plain_floats(seconds),
        LifePoint(now, last_pass(done.tool_life), last_pass(done.operation_time), last_pass(done.operation_cost), planned_parts),
        point(int(np.argmin(costs))),
        point(int(np.argmin(seconds))),
        low,
        high,
        setup.recorder().band("life").high,
        shape,
        median,
        plain_floats(counts),
        plain_floats(_survival(counts, median, shape)),
        changes,
        EdgeChange(float(_survival(np.array([planned_parts]), median, shape)[0]), planned_parts),
        run_parts,
        _sisters(setup, run_parts, changes[0].parts),
        _says(setup, now, point(int(np.argmin(costs))), high),
    )


def _survival(parts: Array, median: float, shape: float) -> Array:
    return np.exp2(-((parts / median) ** shape))


def _sisters(setup: Setup, run_parts: float, sure_parts: float) -> int:
    """Tools that an unattended run needs so that none is used beyond its 95 % interval."""
    return int(np.ceil(run_parts / max(sure_parts, 1e-9))) if setup.batch.unattended_hours > 0 else 1


def _says(setup: Setup, now: float, cheapest: LifePoint, high: float) -> str:
    share = now / cheapest.cutting_speed - 1.0
    side = "above" if share > 0 else "below"
    place = "at the cheapest speed" if abs(share) < SAME_SPEED else f"{abs(share):.0%} {side} the cheapest speed"
    held = " The cheapest speed lies above the recommended speed; the house rule holds it." if cheapest.cutting_speed > high else ""
    return f"Now {place}.{held}"


def _column(values: Array) -> Array:
    """The last pass of every speed."""
    return np.broadcast_to(values, (POINTS, np.shape(values)[-1]))[:, -1]
