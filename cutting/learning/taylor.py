"""Life over cutting speed from trials, some of them stopped early."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import minimize
from scipy.stats import norm

from cutting.errors import CuttingError
from cutting.learning.lives import SURE, Lives

Array = NDArray[np.float64]
APART = 1.15  # × the slower of two speeds, from which an exponent can be told
FEWEST = 3


@dataclass(frozen=True)
class Taylor:
    """ln T = a − (1/n)·ln(v/v₀): life [min] at the middle speed, the exponent n, and the scatter of ln T."""

    speed: float  # v₀, m/min
    life: float  # at v₀
    exponent: float
    exponent_low: float
    exponent_high: float
    scatter: float
    covariance: Array  # of a and 1/n

    def at(self, speed: float) -> float:
        """Median life at a speed [m/min]."""
        return float(self.life * (speed / self.speed) ** (-1.0 / self.exponent))

    def between(self, speed: float, sure: float = SURE) -> tuple[float, float]:
        """The interval of the median life at a speed: wide away from the speeds that were tried."""
        slope = np.array([1.0, -np.log(speed / self.speed)])
        reach = float(norm.ppf(0.5 + sure / 2)) * float(np.sqrt(slope @ self.covariance @ slope))
        return self.at(speed) * float(np.exp(-reach)), self.at(speed) * float(np.exp(reach))


def fit_taylor(speeds: Sequence[float], lives: Lives, reference: float | None = None) -> Taylor:
    """Taylor's law with log-normal scatter by largest likelihood. Raises `CuttingError` that says what is missing.

    `reference` is the speed at which the life is told, else the geometric middle. Source: Taylor 1907; ISO 3685 annex on evaluation;
    censored likelihood as in Nelson 1990.
    """
    v = np.asarray(speeds, float)
    ended = lives.ended
    tried = v[ended]
    if len(tried) < FEWEST:
        raise CuttingError("lives", f"{len(tried)} edges came to their end; an exponent wants {FEWEST}.", f"{FEWEST} ends")
    if tried.max() < APART * tried.min():
        raise CuttingError("speed", "all trials ran at about one speed: a second speed, 15 % apart, tells the exponent.", "15 % apart")
    middle = float(np.exp(np.log(v).mean())) if reference is None else reference
    x, y = np.log(v / middle), np.log(lives.lasted)
    slope, level = np.polyfit(x[ended], y[ended], 1)
    scatter = max(float(np.std(y[ended] - level - slope * x[ended])), 0.02)

    def against(theta: Array) -> float:
        """The likelihood, its sign turned: density of what ended, survival of what was stopped."""
        a, b, ln_s = theta
        z = (y - a + b * x) / np.exp(ln_s)
        return float(-(norm.logpdf(z[ended]) - ln_s).sum() - norm.logsf(z[~ended]).sum())

    found = minimize(against, np.array([level, -slope, np.log(scatter)]), method="Nelder-Mead", options=FINE)
    a, b, ln_s = found.x
    if b <= 0:
        raise CuttingError("lives", "edges lasted longer at the higher speed: something else changed between these trials.")
    covariance = np.asarray(np.linalg.inv(_curvature(against, found.x))[:2, :2], float)
    reach = float(norm.ppf(0.5 + SURE / 2)) * float(np.sqrt(covariance[1, 1]))
    high = 1.0 / (b - reach) if b > reach else np.inf
    return Taylor(middle, float(np.exp(a)), float(1.0 / b), float(1.0 / (b + reach)), float(high), float(np.exp(ln_s)), covariance)


FINE = {"xatol": 1e-9, "fatol": 1e-11, "maxiter": 4000, "maxfev": 8000}


def _curvature(f: Callable[[Array], float], at: Array, step: float = 1e-4) -> Array:
    """Second derivatives by central differences."""
    size = len(at)
    found = np.zeros((size, size))
    unit = step * np.eye(size)
    for i in range(size):
        for j in range(size):
            corners = f(at + unit[i] + unit[j]) - f(at + unit[i] - unit[j]) - f(at - unit[i] + unit[j]) + f(at - unit[i] - unit[j])
            found[i, j] = corners / (4.0 * step**2)
    return found
