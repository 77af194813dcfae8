"""Sizes piece by piece: whether they drift, when the zone is used up, and what the process can hold."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.stats import chi2, norm
from scipy.stats import t as student

from cutting.errors import CuttingError

FEWEST = 20  # sizes from which a capability is told
FEWEST_DRIFT = 4
SURE = 0.95
CHANCE = 0.05  # by luck alone, below which a drift or a shape that is not normal is taken as there
MOVING_RANGE = 1.128  # mean range of two normal values over their standard deviation (d₂ of ISO 7870-2)
FAR = 10_000  # pieces beyond which nobody plans


@dataclass(frozen=True)
class Drift:
    """How a size moves from piece to piece: mm a piece with its interval, the chance of luck alone, and where the zone is used up."""

    per_piece: float
    low: float
    high: float
    luck: float
    used_up: int | None  # the piece at which 95 % of the next sizes no longer lie inside; None where that is far away
    correct_every: int | None

    @property
    def there(self) -> bool:
        return self.luck < CHANCE


def drift_of(pieces: Sequence[float], sizes: Sequence[float], low: float, high: float) -> Drift:
    """The drift by regression, and the piece at which the *prediction* interval leaves the zone. Raises `CuttingError` for too few.

    Source: Montgomery, Introduction to Statistical Quality Control, section on trend; prediction interval of a straight line.
    """
    x, y = np.asarray(pieces, float), np.asarray(sizes, float)
    if len(x) < FEWEST_DRIFT or np.ptp(x) <= 0:
        raise CuttingError("sizes", f"{len(x)} sizes; a drift wants {FEWEST_DRIFT} of different pieces.", f"{FEWEST_DRIFT} sizes")
    n = len(x)
    middle, spread = float(x.mean()), float(((x - x.mean()) ** 2).sum())
    slope = float(((x - middle) * (y - y.mean())).sum() / spread)
    level = float(y.mean())
    left = y - level - slope * (x - middle)
    s = float(np.sqrt(left @ left / (n - 2)))
    error = s / np.sqrt(spread)
    t = float(student.ppf(0.5 + SURE / 2, n - 2))
    luck = float(2.0 * student.sf(abs(slope) / max(error, 1e-15), n - 2))
    ahead = np.arange(int(x.max()) + 1, int(x.max()) + FAR)
    width = t * s * np.sqrt(1.0 + 1.0 / n + (ahead - middle) ** 2 / spread)
    line = level + slope * (ahead - middle)
    out = np.flatnonzero((line - width < low) | (line + width > high))
    used_up = int(ahead[out[0]]) if len(out) and luck < CHANCE else None
    room = (high - low) / 2.0 - t * s  # from the middle of the zone, where a correction puts it
    every = int(max(room / abs(slope), 1.0)) if luck < CHANCE and slope and room > 0 else None
    return Drift(slope, slope - t * error, slope + t * error, luck, used_up, every)


@dataclass(frozen=True)
class Capability:
    """Cp and Cpk with their 95 % intervals, or why there are none. Two spreads: of all sizes, and of neighbours."""

    mean: float
    spread: float
    neighbours: float  # spread that the moving range tells
    cp: tuple[float, float, float] | None
    cpk: tuple[float, float, float] | None
    why_not: tuple[str, ...] = ()

    @property
    def said(self) -> str:
        """Where the two spreads part: which way, in words; blank where they agree."""
        if self.neighbours > 1.25 * self.spread:
            return "neighbours differ by more than the whole spread says: pieces alternate"
        if self.neighbours < 0.75 * self.spread:
            return "neighbours differ by less than the whole spread says: the size moves slowly"
        return ""


def capability(sizes: Sequence[float], low: float, high: float) -> Capability:
    """What a process holds of a zone [mm]; refused, with the reasons, for few, drifting or not normal sizes. Raises `CuttingError`.

    Intervals: Cp by χ², Cpk by Bissell. Normality by Anderson and Darling. Source: ISO 22514-2; Montgomery, section 8; Bissell 1990.
    """
    y = np.asarray(sizes, float)
    n = len(y)
    if n < 3:
        raise CuttingError("sizes", f"{n} sizes; at least 3 are wanted.", "3 sizes")
    if high <= low:
        raise CuttingError("sizes", "the drawing gives no zone for this size.")
    mean, s = float(y.mean()), float(y.std(ddof=1))
    neighbours = float(np.abs(np.diff(y)).mean()) / MOVING_RANGE
    why = []
    if n < FEWEST:
        why.append(f"{n} sizes; a capability wants {FEWEST}")
    if s <= 0:
        return Capability(mean, s, neighbours, None, None, (*why, "all sizes are the same: the instrument does not see the scatter"))
    if n >= FEWEST_DRIFT and drift_of(range(1, n + 1), sizes, low, high).luck < CHANCE:
        why.append("the size drifts: correct it first, then what is left can be judged")
    if n >= 8 and (normal := normality(sizes)) > NORMAL_AT:
        why.append(f"the sizes are not normally spread (Anderson–Darling {normal:.2f} over {NORMAL_AT})")
    if why:
        return Capability(mean, s, neighbours, None, None, tuple(why))
    cp, cpk = (high - low) / (6.0 * s), min(high - mean, mean - low) / (3.0 * s)
    ends = [float(np.sqrt(chi2.ppf(share, n - 1) / (n - 1))) for share in (0.5 - SURE / 2, 0.5 + SURE / 2)]
    reach = float(norm.ppf(0.5 + SURE / 2)) * float(np.sqrt(1.0 / (9.0 * n) + cpk**2 / (2.0 * (n - 1))))
    return Capability(mean, s, neighbours, (cp, cp * ends[0], cp * ends[1]), (cpk, cpk - reach, cpk + reach))


NORMAL_AT = 0.752  # critical value of the adjusted statistic at 5 %, Stephens 1974


def normality(sizes: Sequence[float]) -> float:
    """Anderson and Darling's statistic with mean and spread estimated, adjusted for the number: A²·(1 + 0.75/n + 2.25/n²)."""
    y = np.asarray(sizes, float)
    n = len(y)
    z = np.sort((y - y.mean()) / y.std(ddof=1))
    k = np.arange(1, n + 1)
    a2 = -n - float(((2 * k - 1) * (norm.logcdf(z) + norm.logsf(z[::-1]))).sum()) / n
    return float(a2 * (1.0 + 0.75 / n + 2.25 / n**2))
