"""How surely a fit is met: what instrument, setting step, cut and temperature leave open, and what each measured cut settles."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from scipy.special import ndtr

from cutting.sizing.offsets import PROCESS_SPREAD, Observation, OffsetEstimate, learn
from cutting.workpiece.fits import RANGES, tolerance_grade

SURE = 2.0  # standard deviations to each side that a grade is said to be reached with
GRADES = range(4, 13)


@dataclass(frozen=True)
class Share:
    """One thing that the size does not know, as a standard deviation [mm on the diameter]."""

    name: str
    spread: float
    why: str


@dataclass(frozen=True)
class SettlingStage:
    """After so many measured cuts like the last: spread of the size [mm], chance that it lies within its limits, and the grade reached."""

    measured: int
    spread: float
    chance: float
    grade: int | None


@dataclass(frozen=True)
class SettlingFit:
    """A fit as it stands: what it does not know, largest first, and what further measured cuts settle."""

    shares: tuple[Share, ...]
    stages: tuple[SettlingStage, ...]
    aim: float
    lower: float
    upper: float

    @property
    def now(self) -> SettlingStage:
        return self.stages[0]


def chance_within(aim: float, spread: float, lower: float, upper: float) -> float:
    """Chance that a size which is normal about its aim lies within its limits [mm].

    >>> round(chance_within(10.0, 0.005, 9.99, 10.01), 3)
    0.954
    """
    width = max(spread, 1e-9)
    return float(ndtr((upper - aim) / width) - ndtr((lower - aim) / width))


def grade_reached(nominal: float, spread: float) -> int | None:
    """The finest ISO 286 grade that two standard deviations to each side fit into; None where none does, or outside the table.

    >>> grade_reached(40.0, 0.004)  # ± 2 standard deviations are 16 µm: IT6 at Ø40
    6
    """
    if not 0.0 < nominal <= RANGES[-1]:
        return None
    return next((grade for grade in GRADES if tolerance_grade(nominal, grade) >= 2.0 * SURE * spread), None)


def settle(
    belief: OffsetEstimate,
    force: float,
    uncertainty: float,
    step: float,
    warm_spread: float,
    limits: tuple[float, float],
    aim: float,
    done: int = 0,
    more: Sequence[int] = (0, 1, 2, 3),
) -> SettlingFit:
    """A fit by what is believed of offset and springing at the last cut's passive `force` [N].

    `uncertainty` (k = 2) of the instrument, `step` by which the tool can be set and `warm_spread` [mm on the diameter, standard
    deviation] of an unsure temperature; `limits` and `aim` of the size. Each further cut pushes as the last one does. Sources: linear
    Bayes for the cuts; a rectangle of one step for the setting; squares add up (GUM).
    """
    lower, upper = limits
    stepped = step / math.sqrt(12.0)
    seen = Observation(aim, aim + belief.predict(force)[0], force, uncertainty / 2.0)
    stages = []
    for count in more:
        there = learn(belief, [seen] * count)
        whole = math.hypot(there.predict(force)[1], stepped, warm_spread)
        stages.append(SettlingStage(done + count, whole, chance_within(aim, whole, lower, upper), grade_reached(aim, whole)))
    known = math.sqrt(max(belief.predict(force)[1] ** 2 - PROCESS_SPREAD**2, 0.0))
    shares = (
        Share("tool and springing", known, "how the tool stands and what the cut bends: measured cuts settle it"),
        Share("cut to cut", PROCESS_SPREAD, "what no measuring takes away (common practice)"),
        Share("setting step", stepped, "the finest step of offset or head, a rectangle: its width over √12"),
        Share("temperature", warm_spread, "expansion times what is not known of the part's temperature: its width over √3"),
    )
    return SettlingFit(tuple(sorted(shares, key=lambda one: -one.spread)), tuple(stages), aim, lower, upper)
