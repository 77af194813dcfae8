"""How surely a whole plan holds: the chance that no hard limit of any of its operations is over, and where most of it is lost."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import prod

from cutting.operations.frame.outcome import AS_SURE, Outcome, Severity


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
    """The chance [–] that an operation's hard limits hold: that of the closest, as one delivery moves them all together."""
    return min((limit.holds for limit in outcome.limits if limit.severity is Severity.HARD), default=1.0)


def plan_sure(outcomes: Sequence[Outcome], asked: float) -> Sure:
    """The chance [–] that a plan of one operation at least holds.

    Multiplied as if operations had nothing in common: they share their delivery and their machine, so that it is a little more.
    """
    each = [sure_of(one) for one in outcomes]
    return Sure(prod(each), asked, min(range(len(each)), key=each.__getitem__))
