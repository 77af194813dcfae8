"""How thrust or torque grows over the holes that a drill has made: first · (1 + a·N^b), by regression in logarithms."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.stats import t as student

from cutting.errors import CuttingError

LEAST = 4  # records beside the first


@dataclass(frozen=True)
class Growth:
    """a and b with their 95 % intervals, and how far points lie off the line in logarithms."""

    a: float
    a_low: float
    a_high: float
    b: float
    b_low: float
    b_high: float
    scatter: float

    def holes_to(self, share: float) -> float:
        """Holes after which the value has grown by a share of the first."""
        return float((share / self.a) ** (1.0 / self.b))


def fit_growth(holes: Sequence[float], values: Sequence[float], first: float, sure: float = 0.95) -> Growth:
    """The growth of values at holes against the first hole's. Raises `CuttingError` where too few points grew.

    log(value/first − 1) = log a + b·log N is a straight line: ordinary least squares with Student's intervals.
    """
    grown = np.asarray(values, float) / first - 1.0
    good = (np.asarray(holes, float) > 1) & (grown > 0)
    count = int(good.sum())
    if count < LEAST:
        raise CuttingError("traces", f"{count} later records have grown; growth wants at least {LEAST}.", f"{LEAST} records")
    x, y = np.log(np.asarray(holes, float)[good]), np.log(grown[good])
    slope, intercept = np.polyfit(x, y, 1)
    left = y - intercept - slope * x
    spare = count - 2
    variance = float(left @ left) / spare
    spread = float(((x - x.mean()) ** 2).sum())
    if spread <= 0:
        raise CuttingError("traces", "all records are of one hole.")
    width = float(student.ppf(0.5 + sure / 2, spare))
    of_slope = width * np.sqrt(variance / spread)
    of_level = width * np.sqrt(variance * (1.0 / count + float(x.mean()) ** 2 / spread))
    return Growth(
        float(np.exp(intercept)), float(np.exp(intercept - of_level)), float(np.exp(intercept + of_level)),
        float(slope), float(slope - of_slope), float(slope + of_slope), float(np.sqrt(variance)),
    )  # fmt: skip
