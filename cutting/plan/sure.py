"""How surely a whole plan holds: the chance that no hard limit of any of its operations is over, and where most of it is lost."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import prod

from cutting.operations.frame.outcome import AS_SURE, Outcome, Severity

SHARED = 0.5  # power with which a band counts again in further operations (held against draws of 120 whole plans: 0.4 to 0.6)


@dataclass(frozen=True)
class Sure:
    """The chance [–] of a plan, what is asked of it, and the place of the operation that is least sure."""

    chance: float
    asked: float
    weakest: int

    @property
    def enough(self) -> bool:
        """Whether it is as sure as is asked."""
        return self.chance >= self.asked - AS_SURE


def sure_of(outcome: Outcome) -> float:
    """The chance [–] that an operation's hard limits hold: of those that hang on one band most, the closest; times those of other bands."""
    return prod(_by_band(outcome).values())


def plan_sure(outcomes: Sequence[Outcome], asked: float) -> Sure:
    """The chance [–] that a plan of one operation at least holds.

    One delivery is hard, or one edge weak, for all operations at once: of the limits that hang on one band the closest counts
    whole, and the others by a power below one, as each also hangs on what is its own.
    """
    each = [_by_band(one) for one in outcomes]
    by_band = [sorted(one[band] for one in each if band in one) for band in dict.fromkeys(band for one in each for band in one)]
    chance = prod(least * prod(others) ** SHARED for least, *others in by_band)
    sure = [prod(one.values()) for one in each]
    return Sure(chance, asked, min(range(len(sure)), key=sure.__getitem__))


def _by_band(outcome: Outcome) -> dict[str, float]:
    """The least chance of an operation's hard limits, by the name of the band that moves each the most."""
    found: dict[str, float] = {}
    for limit in outcome.limits:
        if limit.severity is Severity.HARD:
            band = limit.moved_by[0].title if limit.moved_by else ""
            found[band] = min(found.get(band, 1.0), limit.holds)
    return found
