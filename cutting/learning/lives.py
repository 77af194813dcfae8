"""Lives of edges, some of them stopped before their end: Weibull's law by largest likelihood, and Kaplan and Meier's staircase."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import brentq
from scipy.stats import chi2, norm

from cutting.errors import CuttingError, OutOfRange

Array = NDArray[np.float64]
SURE = 0.90  # of the intervals that are told
STEEPEST = 200.0  # a shape above it is no scatter any more
FEWEST_WITH_SHAPE = 2  # failures from which the scatter can be told at all


@dataclass(frozen=True)
class Lives:
    """How long edges lasted, pieces, minutes or metres, and which of them came to their end (the others were stopped before)."""

    lasted: Array
    ended: NDArray[np.bool_]

    @staticmethod
    def of(lasted: Sequence[float], ended: Sequence[bool], field: str = "lives") -> Lives:
        """Lives that were checked. Raises `OutOfRange` for one that is not above 0, `CuttingError` where there is none."""
        values, marks = np.asarray(lasted, float), np.asarray(ended, bool)
        if len(values) == 0 or len(values) != len(marks):
            raise CuttingError(field, "no edge was logged yet.")
        if not np.all(np.isfinite(values)) or np.any(values <= 0):
            raise OutOfRange(field, "a life is above 0.", "> 0")
        return Lives(values, marks)

    @property
    def failures(self) -> int:
        return int(self.ended.sum())

    def only(self, cause: Sequence[str], which: str) -> Lives:
        """The same edges with only one cause as an end: of competing causes each stops the others early."""
        return Lives(self.lasted, self.ended & (np.asarray(cause) == which))


@dataclass(frozen=True)
class Weibull:
    """Shape β and scale η of lives, with the covariance of their logarithms; `given` tells that the shape was not fitted."""

    shape: float
    scale: float
    covariance: Array  # of ln β and ln η
    edges: int
    failures: int
    given: bool = False

    def reached(self, share: float) -> float:
        """The life that a share of the edges reaches: η·(−ln share)^(1/β).

        >>> round(Weibull(2.0, 100.0, np.zeros((2, 2)), 9, 9).reached(0.5), 2)
        83.26
        """
        return float(self.scale * (-np.log(share)) ** (1.0 / self.shape))

    @property
    def median(self) -> float:
        return self.reached(0.5)

    def spread(self, share: float = 0.5) -> float:
        """Standard deviation of the logarithm of `reached`: first order, from the covariance."""
        slope = np.array([-np.log(-np.log(share)) / self.shape, 1.0])
        return float(np.sqrt(max(slope @ self.covariance @ slope, 0.0)))

    def between(self, share: float = 0.5, sure: float = SURE) -> tuple[float, float]:
        """The interval of `reached`, even in logarithms."""
        reach = float(norm.ppf(0.5 + sure / 2)) * self.spread(share)
        value = self.reached(share)
        return float(value * np.exp(-reach)), float(value * np.exp(reach))

    def survival(self, lasted: Array) -> Array:
        """Share that reaches each life."""
        return np.exp(-((np.asarray(lasted, float) / self.scale) ** self.shape))


def fit_weibull(lives: Lives, shape: float | None = None) -> Weibull:
    """Weibull's law by largest likelihood; what was stopped early counts as having lasted at least so long.

    With a `shape` given only the scale is fitted, which one end is enough for. Raises `CuttingError` that says what is missing.
    Source: Cohen 1965, equations of the censored sample; Meeker and Escobar 1998, section 8.
    """
    t, d = lives.lasted, lives.failures
    wanted = 1 if shape is not None else FEWEST_WITH_SHAPE
    if d < wanted:
        raise CuttingError("lives", f"{_ends(d)} so far: {_ends(wanted)} at least are wanted for a life.", f"{wanted} ends")
    logs = np.log(t)
    centre = float(logs.mean())
    u = logs - centre  # so that powers stay near 1
    if shape is None:
        ended = u[lives.ended]
        mean = float(ended.mean())

        def slope(b: float) -> float:
            power = np.exp(b * (u - u.max()))
            return float((power @ u) / power.sum()) - 1.0 / b - mean

        if slope(STEEPEST) <= 0:
            raise CuttingError("lives", "all edges came to their end at the same life: no scatter can be told.")
        beta = float(brentq(slope, 1e-3, STEEPEST))
    else:
        beta = shape
    ln_eta = float(u.max() + np.log(np.exp(beta * (u - u.max())).sum() / d) / beta)
    z = beta * (u - ln_eta)
    e = np.exp(z)
    # information of (ln β, ln η): second derivatives of Σ[ends: ln β + z] − Σ e^z, signs turned
    bb = float(-z[lives.ended].sum() + (e * (z + z * z)).sum())
    bn = float(d * beta - (e * beta * (1.0 + z)).sum())
    nn = float(beta * beta * e.sum())
    free = np.array([[bb, bn], [bn, nn]])
    covariance = np.linalg.inv(free) if shape is None else np.array([[0.0, 0.0], [0.0, 1.0 / nn]])
    return Weibull(beta, float(np.exp(ln_eta + centre)), covariance, len(t), d, shape is not None)


def _ends(count: int) -> str:
    return "no edge came to its end" if count == 0 else "1 edge came to its end" if count == 1 else f"{count} edges came to their end"


@dataclass(frozen=True)
class Stairs:
    """Kaplan and Meier's staircase: the share that lasts beyond each life, with its interval."""

    lasted: Array
    share: Array
    low: Array
    high: Array


def kaplan_meier(lives: Lives, sure: float = SURE) -> Stairs:
    """The staircase of what was seen, no law assumed. Interval by Greenwood's variance of ln(−ln S).

    Source: Kaplan and Meier 1958; Kalbfleisch and Prentice 1980.
    """
    places = np.unique(lives.lasted[lives.ended])
    at_risk, ends = _at_each(lives, places)
    share = np.asarray(np.cumprod(1.0 - ends / at_risk), float)
    with np.errstate(divide="ignore", invalid="ignore"):
        greenwood = np.cumsum(np.where(at_risk > ends, ends / (at_risk * (at_risk - ends)), np.nan))
        width = float(norm.ppf(0.5 + sure / 2)) * np.sqrt(greenwood) / np.abs(np.log(share))
        low, high = share ** np.exp(width), share ** np.exp(-width)
    return Stairs(places, share, np.where(np.isfinite(low), low, 0.0), np.where(np.isfinite(high), high, share))


def _at_each(lives: Lives, places: Array) -> tuple[Array, Array]:
    """How many still lasted when each place was reached, and how many ended there."""
    lasted, ended = np.sort(lives.lasted), np.sort(lives.lasted[lives.ended])
    at_risk = len(lasted) - np.searchsorted(lasted, places, "left")
    ends = np.searchsorted(ended, places, "right") - np.searchsorted(ended, places, "left")
    return at_risk.astype(float), ends.astype(float)


def log_rank(one: Lives, other: Lives) -> tuple[float, float]:
    """Whether two kinds of edge last differently: χ² of one degree of freedom, and the chance of as much by luck.

    Source: Mantel 1966, hypergeometric variance.
    """
    places = np.unique(np.concatenate([one.lasted[one.ended], other.lasted[other.ended]]))
    (n1, d1), (n2, d2) = (_at_each(kind, places) for kind in (one, other))
    n, d = n1 + n2, d1 + d2
    seen = float((d1 - d * n1 / n).sum())
    variance = float((d * (n1 / n) * (n2 / n) * (n - d) / np.maximum(n - 1.0, 1.0)).sum())  # of one edge alone it is 0
    if variance <= 0:
        return 0.0, 1.0
    statistic = seen**2 / variance
    return statistic, float(chi2.sf(statistic, 1))


@dataclass(frozen=True)
class Compared:
    """How many times as long edges of the first kind last as those of the second, with the interval, and the chance of luck alone."""

    ratio: float
    low: float
    high: float
    luck: float
    more: int  # further edges of each kind that would show the difference that was asked for; 0 where it is shown or ruled out

    @property
    def differs(self) -> bool:
        """Whether the interval leaves out "the same"."""
        return not self.low <= 1.0 <= self.high


def compare(one: Lives, other: Lives, shape: float | None = None, worth: float = 0.2, sure: float = SURE) -> Compared:
    """Two kinds of edge, their scatter taken as one: the ratio of their lives. Raises `CuttingError` where too few came to an end.

    Without a `shape` it is fitted to all lives, each over its own kind's scale. `worth` is the difference that matters.
    Source: Meeker and Escobar 1998, section 17, two samples of one shape; edges wanted by their normal approximation.
    """
    common = _common_shape(one, other) if shape is None else shape
    a, b = fit_weibull(one, common), fit_weibull(other, common)
    spread = float(np.sqrt(a.covariance[1, 1] + b.covariance[1, 1]))
    reach = float(norm.ppf(0.5 + sure / 2))
    ratio = a.scale / b.scale
    low, high = ratio * np.exp(-reach * spread), ratio * np.exp(reach * spread)
    more = 0
    if low <= 1.0 <= high and (high > 1.0 + worth or low < 1.0 - worth):
        wanted = 2.0 * (reach / (common * np.log1p(worth))) ** 2  # ends of each kind so that `worth` stands outside the interval
        more = max(int(np.ceil(wanted - min(one.failures, other.failures))), 1)
    return Compared(float(ratio), float(low), float(high), log_rank(one, other)[1], more)


def _common_shape(one: Lives, other: Lives) -> float:
    """The shape of both kinds at once: each life over its own kind's scale, until nothing moves."""
    shape = 3.0
    for _ in range(60):
        scaled = [kind.lasted / fit_weibull(kind, shape).scale for kind in (one, other)]
        found = fit_weibull(Lives(np.concatenate(scaled), np.concatenate([one.ended, other.ended]))).shape
        if abs(found - shape) < 1e-9 * shape:
            break
        shape = found
    return shape
