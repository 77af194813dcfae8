"""How well the clinic does: faults of a simulated shop, looked for as it proposes, against the weights alone and old habits."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.clinic.changes import offer
from cutting.clinic.fault import Faulty, run
from cutting.clinic.shop import SimulatedFault, draw_cause, draw_trouble, draw_unnamed, with_change
from cutting.clinic.suspects import ClinicCase, Diagnosis, diagnose
from cutting.clinic.words import ward

Array = NDArray[np.float64]
SURE = 0.97  # chance of the first from which nobody looks further
HABIT = 0.8  # of feed and speed, as people do who do not know what is wrong (common practice)
BINS = 10


@dataclass(frozen=True)
class Rehearsed:
    """One fault: places of the true cause among those named (0 the first), by the clinic and by prior alone; the chance that the
    first had among them.

    `healed` is at which change the symptom's number came back, 0 for never; `habit` whether less feed and speed would have done it.
    """

    kind: str
    cause: str
    place: int
    by_prior: int
    chance: float
    minutes: float
    healed: int
    habit: bool


def consult(case: ClinicCase, trouble: SimulatedFault, rounds: int, chance: np.random.Generator) -> tuple[Diagnosis, float]:
    """The clinic asks up to so many rounds of looks; with the minutes that they take."""
    answers: dict[str, bool] = {}
    found, minutes = diagnose(case, trouble.told, answers), 0.0
    for _ in range(rounds):
        if (found.fits and found.suspects[0].chance > SURE) or found.question is None:
            break
        minutes += found.question.minutes
        answers |= {one.name: trouble.answer(one, chance) for one in found.question.looks}
        found = diagnose(case, trouble.told, answers)
    return found, minutes


def rehearse(setups: Sequence[Any], cases: Sequence[ClinicCase], count: int, seed: int, rounds: int = 3) -> list[Rehearsed]:
    """`count` faults drawn over the set-ups in turn. Raises `CuttingError` for a set-up that cannot be."""
    chance = np.random.default_rng(seed)
    found = []
    for n in range(count):
        setup, case = setups[n % len(setups)], cases[n % len(cases)]
        cause = draw_cause(case, chance)
        trouble = draw_trouble(case, setup, cause, chance)
        told, minutes = consult(case, trouble, rounds, chance)
        named = [one.cause.name for one in told.suspects if one.cause]
        order = [case.causes[k].name for k in np.argsort(-case.prior[:-1], kind="stable")]
        place = named.index(cause.name)
        first = next(one.chance for one in told.suspects if one.cause) / (1.0 - next(one.chance for one in told.suspects if not one.cause))
        healed = next((k + 1 for k, name in enumerate(named[:3]) if name == cause.name or _eases(setup, case, name, trouble)), 0)
        found.append(Rehearsed(case.kind, cause.name, place, order.index(cause.name), first, minutes, healed,
                               _habit(setup, case, trouble)))  # fmt: skip
    return found


def unnamed(cases: Sequence[ClinicCase], count: int, seed: int, rounds: int = 6) -> float:
    """How often the clinic says that nothing named fits, of faults that no cause of the table is."""
    chance = np.random.default_rng(seed)
    said = [
        consult(case, draw_unnamed(case, chance), rounds, chance)[0].none_fits for case in (cases[n % len(cases)] for n in range(count))
    ]
    return sum(said) / count


def calibration_error(found: Sequence[Rehearsed]) -> float:
    """Expected calibration error [–]: how far the chance of the first is from how often it is right, over ten bins."""
    said: Array = np.array([one.chance for one in found])
    right: Array = np.array([one.place == 0 for one in found], float)
    place = np.minimum((said * BINS).astype(int), BINS - 1)
    return float(sum((place == k).mean() * abs(said[place == k].mean() - right[place == k].mean()) for k in set(place.tolist())))


def _limits_told(case: ClinicCase, trouble: SimulatedFault, used: Mapping[str, Any]) -> list[str]:
    told = [one for one in ward(case.kind).symptoms if one.name in trouble.told and one.tells in trouble.cause_shows]
    return [name for one in told if (name := one.limit_in(used))]


def _back(case: ClinicCase, trouble: SimulatedFault, changed: Faulty) -> bool:
    """Whether the limits behind what was told hold again, where one of them was over."""
    before = run(trouble.there) if trouble.there else None
    after = run(changed)
    if before is None or after is None:
        return False
    over = [name for name in _limits_told(case, trouble, before.used) if np.max(before.used[name]) > 1.0]
    return bool(over) and all(np.max(after.used.get(name, 0.0)) <= 1.0 for name in over)


def _eases(setup: Any, case: ClinicCase, name: str, trouble: SimulatedFault) -> bool:
    """Whether another cause's change brings the number back, with the true fault at work."""
    other = next(one for one in case.causes if one.name == name)
    if trouble.there is None or not other.lever:
        return False
    there = with_change(trouble, offer(setup, other).setup)
    return there is not None and _back(case, trouble, there)


def _habit(setup: Any, case: ClinicCase, trouble: SimulatedFault) -> bool:
    if trouble.there is None:
        return False
    there = trouble.there.setup
    less = {"cutting_speed": HABIT * there.settings.cutting_speed, **({there.FEED: HABIT * there.feed} if there.FEED else {})}
    return _back(case, trouble, Faulty(there.with_settings(**less), trouble.there.factors))
