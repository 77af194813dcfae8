"""A simulated shop: faults with a hidden cause, what somebody at the machine would tell of them, and true answers with their errors."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

import numpy as np
from scipy.special import expit, logit

from cutting.clinic.fault import Faulty, faulty, run
from cutting.clinic.suspects import IMAGINED, TOLD, UNASKED, ClinicCase, believed
from cutting.clinic.words import Cause, Look, ward
from cutting.operations.frame.chance import spreads_of
from cutting.operations.registry import kind_of
from cutting.working import Noting

OTHER_SHOP = 0.5  # by what the logit of a chance differs from shop to shop: the table is nobody's own
GRAVITY = 0.3  # of the logarithm of how grave a fault is
TRIES = 200  # until somebody notices something


@dataclass(frozen=True)
class SimulatedFault:
    """One fault, so many times as grave as the table has it: what is true, and what is told; no `cause` where the table has none for it."""

    cause: Cause | None
    states: frozenset[str]
    told: tuple[str, ...]
    there: Faulty | None
    size: float = 1.0

    @property
    def cause_shows(self) -> Mapping[str, float]:
        """The states that its cause brings about."""
        return self.cause.shows if self.cause else {}

    def answer(self, one: Look, chance: np.random.Generator) -> bool:
        """What somebody at the machine says to a look, right as often as the look is."""
        return bool(chance.random() < (one.sure if one.tells in self.states else one.alarm))


def draw_cause(case: ClinicCase, chance: np.random.Generator) -> Cause:
    """A cause as often as this operation's numbers let one expect it."""
    weights = case.prior[:-1] / case.prior[:-1].sum()
    return case.causes[int(chance.choice(len(case.causes), p=weights))]


def draw_trouble(case: ClinicCase, setup: Any, cause: Cause, chance: np.random.Generator) -> SimulatedFault:
    """A fault of this cause that somebody notices: the engine runs it with what is not known drawn anew, the table tells the rest."""
    for _ in range(TRIES):
        size = float(np.exp(GRAVITY * chance.standard_normal()))
        there = faulty(setup, cause.fault, size) if setup is not None and cause.fault else None
        states = _states(case, setup, cause, there, chance)
        told = tuple(one.name for one in ward(case.kind).symptoms if chance.random() < (TOLD if one.tells in states else IMAGINED))
        if states & cause.shows.keys() & {one.tells for one in ward(case.kind).symptoms if one.name in told}:  # why anybody asks
            return SimulatedFault(cause, states, told, there, size)
    return SimulatedFault(cause, states, told or (ward(case.kind).symptoms[0].name,), there, size)


def draw_unnamed(case: ClinicCase, chance: np.random.Generator) -> SimulatedFault:
    """A fault that no cause of the table is: two symptoms without what would lead to them."""
    known = ward(case.kind).symptoms
    two = [known[k].tells for k in chance.choice(len(known), 2, replace=False)]
    states = frozenset([*two, *(state for state in case.states if chance.random() < UNASKED)])
    told = tuple(one.name for one in known if chance.random() < (TOLD if one.tells in states else IMAGINED))
    first = next(one.name for one in known if one.tells == two[0])
    return SimulatedFault(None, states, told or (first,), None)


def with_change(fault: SimulatedFault, changed: Any) -> Faulty | None:
    """The fault still at work in a set-up that was changed; None where the engine cannot have it."""
    if fault.there is None or fault.cause is None or changed is None:
        return None
    return faulty(changed, fault.cause.fault, fault.size)


def _states(case: ClinicCase, setup: Any, cause: Cause, there: Faulty | None, chance: np.random.Generator) -> frozenset[str]:
    ran = run(there, drawn_factors(setup, chance)) if there else None
    found = set()
    for state in case.states:
        likely = expit(logit(cause.shows.get(state, UNASKED)) + OTHER_SHOP * chance.standard_normal())
        if ran and state in cause.shows and (used := _used(case.kind, state, ran.used)) is not None:
            likely *= believed(used)
        if chance.random() < likely:
            found.add(state)
    return frozenset(found)


def _used(kind: str, state: str, used: Mapping[str, Any]) -> float | None:
    """How much of the limit behind a state is used; None where none speaks of it."""
    names = (one.limit_in(used) for one in ward(kind).symptoms if one.tells == state)
    return next((float(np.max(used[name])) for name in names if name), None)


def drawn_factors(setup: Any, chance: np.random.Generator) -> dict[str, float]:
    """What is not known of metal, edge and machine, drawn once."""
    noting = Noting(setup.factors)
    kind_of(setup.operation).model.run(setup, noting)
    return {q: float(np.exp(np.max(s) * chance.standard_normal())) for q, s in spreads_of(setup, noting.stated).items() if q != "hardness"}
