"""What a trial is worth before it is run: the chance that it changes the choice, times what that saves, less what it costs."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.stats import norm

from cutting.errors import require_between


@dataclass(frozen=True)
class Worth:
    """Chance that the trial changes the choice, what it saves a year on average [money], what it costs, what is left."""

    changes: float
    saves: float
    costs: float

    @property
    def net(self) -> float:
        return self.saves - self.costs


def worth_of_trial(difference: float, before: float, after: float, pieces_a_year: float, costs: float) -> Worth:
    """Two choices, the second dearer by `difference` a piece as far as is known [money], `before` its standard deviation.

    `after` is what will be left of it by the trial. Expected value of sample information for a linear loss of a normal difference:
    s·(φ(u) − u·(1 − Φ(u))) with u = |difference|/s and s² = before² − after². Source: Raiffa and Schlaifer 1961, section 5.
    Raises `OutOfRange` for a negative spread.

    >>> round(worth_of_trial(0.0, 1.0, 0.0, 1.0, 0.0).saves, 4)  # 1/√(2π): nothing known, all told
    0.3989
    """
    require_between("before", before, 0.0, 1e12)
    require_between("after", after, 0.0, 1e12)
    told = float(np.sqrt(max(before**2 - after**2, 0.0)))
    if told <= 0:
        return Worth(0.0, 0.0, costs)
    u = abs(difference) / told
    loss = told * float(norm.pdf(u) - u * norm.sf(u))
    return Worth(float(norm.sf(u)), pieces_a_year * loss, costs)
