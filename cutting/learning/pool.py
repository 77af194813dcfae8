"""What several trials say together: each level borrows from the one above it, as far as its own data leaves room."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import brentq

from cutting.errors import CuttingError, require_between

Array = NDArray[np.float64]
# how a quantity's shipped variance is shared out between the shop, the grade in a group of metals, and one tool in one metal on one
# machine: what a shop does alike (coolant, holders, how dull is dull) moves all of it (common practice, no source)
SHARES = (0.35, 0.35, 0.30)
LEVELS = ("shop", "grade in group", "tool, metal and machine")


@dataclass(frozen=True)
class Seen:
    """One observation of a quantity: ln(measured over predicted) with its standard deviation, for what."""

    value: float
    spread: float
    tool: str
    metal: str
    machine: str
    grade: str = ""
    group: str = ""
    trial: int = 0

    @property
    def cell(self) -> tuple[str, str, str]:
        return self.tool, self.metal, self.machine

    @property
    def family(self) -> tuple[str, str]:
        return self.grade, self.group


@dataclass(frozen=True)
class Taught:
    """What a quantity is at one level: its logarithm with the standard deviation that is left, n observations, weight of the data."""

    level: str
    tool: str
    metal: str
    machine: str
    mean: float
    spread: float
    count: int
    weight: float  # 0: only the shipped prior speaks; 1: only the data

    @property
    def centre(self) -> float:
        """The factor on what the tables say."""
        return float(np.exp(self.mean))


def pooled(seen: Sequence[Seen], prior: float) -> tuple[Taught, ...]:
    """The posterior of a quantity at every level: the shop's, each grade's in its group, each cell's.

    `prior` is the standard deviation of its logarithm as it ships. A normal model with the levels' variances as `SHARES`: exact, by
    one solution of the precision matrix. Source: Gelman and others, Bayesian Data Analysis, section 5; partial pooling.
    Raises `CuttingError` where nothing was seen or a spread is none.
    """
    if not seen:
        raise CuttingError("trials", "nothing was measured yet that this could be learned from.")
    for one in seen:
        require_between("trials.spread", one.spread, 1e-6, 10.0)
    families = list(dict.fromkeys(one.family for one in seen))
    cells = list(dict.fromkeys((one.family, one.cell) for one in seen))
    size = 1 + len(families) + len(cells)
    shop, family, cell = (prior**2 * share for share in SHARES)
    precision, pull = np.zeros((size, size)), np.zeros(size)
    precision[0, 0] += 1.0 / shop

    def tied(below: int, above: int, variance: float) -> None:
        precision[below, below] += 1.0 / variance
        precision[above, above] += 1.0 / variance
        precision[below, above] -= 1.0 / variance
        precision[above, below] -= 1.0 / variance

    for k in range(len(families)):
        tied(1 + k, 0, family)
    for k, (above, _) in enumerate(cells):
        tied(1 + len(families) + k, 1 + families.index(above), cell)
    count = np.zeros(size, int)
    for one in seen:
        place = 1 + len(families) + cells.index((one.family, one.cell))
        precision[place, place] += 1.0 / one.spread**2
        pull[place] += one.value / one.spread**2
        count[[0, 1 + families.index(one.family), place]] += 1
    covariance = np.linalg.inv(precision)
    mean, spread = covariance @ pull, np.sqrt(np.diag(covariance))
    before = np.sqrt(np.cumsum([shop, family, cell]))
    # the shop's number stands for a tool that was never tried: it keeps the scatter between grades and between tools
    beyond = (family + cell, cell, 0.0)
    found = []
    for k in range(size):
        level = 0 if k == 0 else 1 if k <= len(families) else 2
        tool = metal = machine = ""
        if level == 1:
            tool, metal = families[k - 1]
        elif level == 2:
            tool, metal, machine = cells[k - 1 - len(families)][1]
        left = float(np.sqrt(spread[k] ** 2 + beyond[level]))
        weight = 1.0 - float(spread[k] ** 2 / before[level] ** 2)
        found.append(Taught(LEVELS[level], tool, metal, machine, float(mean[k]), left, int(count[k]), max(weight, 0.0)))
    return tuple(found)


def apart(seen: Sequence[Seen], prior: float, far: float = 3.0) -> tuple[Seen, ...]:
    """Observations that lie far from what all the others say: to be asked about, never dropped alone.

    What the others say of its cell is the cell's posterior with this one taken out again: exact for normal terms. Source: as `pooled`.
    """
    if not seen:
        return ()
    cells = {(one.tool, one.metal, one.machine): one for one in pooled(seen, prior) if one.level == LEVELS[2]}
    strange = []
    for one in seen:
        here = cells[one.cell]
        left = 1.0 / here.spread**2 - 1.0 / one.spread**2
        spread = left**-0.5 if left > 0 else prior
        mean = (here.mean / here.spread**2 - one.value / one.spread**2) * spread**2
        if abs(one.value - mean) > far * float(np.hypot(spread, one.spread)):
            strange.append(one)
    return tuple(strange)


@dataclass(frozen=True)
class LifeSeen:
    """What lives say of the level of a life: the observation, and how many edges ended and were stopped early."""

    seen: Seen
    ended: int
    early: int


def life_level(
    lasted: Sequence[float], ended: Sequence[bool], predicted: Sequence[float], shape: float, prior: float, of: Seen
) -> LifeSeen:
    """ln(true median over predicted) as one observation, of edges of which some were stopped early.

    `predicted` is the median life that the tables say for each edge, as it really ran; `shape` the scatter's. The likelihood of the
    level is made normal at its most likely value under the prior [sd of ln], so that edges that only *lasted at least* so long count
    too. Raises `CuttingError` for no edge. Source: Laplace's approximation; Weibull likelihood with censoring, Meeker and Escobar 1998.
    """
    t, d, m = np.asarray(lasted, float), np.asarray(ended, bool), np.asarray(predicted, float)
    if len(t) == 0 or np.any(t <= 0) or np.any(m <= 0):
        raise CuttingError("lives", "a life above 0 is wanted, and a predicted one.")
    ratio = np.log(2.0) * (t / m) ** shape  # hazard of each edge at the tables' own level

    def slope(level: float) -> float:
        return float(-shape * d.sum() + shape * np.exp(-shape * level) * ratio.sum() - level / prior**2)

    reach = 12.0 * prior + 5.0
    best = float(brentq(slope, -reach, reach))
    bend = float(shape**2 * np.exp(-shape * best) * ratio.sum())
    push = slope(best) + best / prior**2  # of the data alone
    return LifeSeen(replace(of, value=best + push / bend, spread=float(bend**-0.5)), int(d.sum()), int((~d).sum()))
