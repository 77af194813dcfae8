"""What is learned of causes from how their changes turned out: a weight with its interval, shrunk towards none."""

from __future__ import annotations

from dataclasses import dataclass

from scipy.stats import beta

from cutting.errors import require_between

VERDICTS = ("helped", "no change", "worse")
EVEN = 2.0  # outcomes of either sort that the table is worth (common practice): so many must differ before it moves much
LOW, HIGH = 0.05, 0.95


@dataclass(frozen=True)
class Weight:
    """By what a cause's prior is taken [–], with the interval that holds nine of ten, and how many outcomes it rests on."""

    factor: float
    low: float
    high: float
    seen: int


def weight(helped: int, did_not: int) -> Weight:
    """The weight of a cause whose change helped so often and did not so often: twice the mean of a Beta posterior.

    Source: the Beta-binomial model of any text on Bayesian statistics (Gelman, Bayesian Data Analysis). Raises `OutOfRange`.

    >>> weight(0, 0).factor, round(weight(6, 0).factor, 2)
    (1.0, 1.6)
    """
    require_between("helped", helped, 0, 1_000_000)
    require_between("did_not", did_not, 0, 1_000_000)
    a, b = EVEN + helped, EVEN + did_not
    return Weight(2.0 * a / (a + b), 2.0 * float(beta.ppf(LOW, a, b)), 2.0 * float(beta.ppf(HIGH, a, b)), helped + did_not)
