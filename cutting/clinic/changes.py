"""The one change that a cause asks for, run before it is offered: what it does to the number that matters, to time, money and risk."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.clinic.words import Cause
from cutting.errors import CuttingError
from cutting.operations.frame.change import setting
from cutting.operations.frame.outcome import TOUCHING, Outcome, Value
from cutting.operations.frame.remedies import TrialRun, Trials
from cutting.operations.frame.rule import hard_ones
from cutting.operations.registry import evaluate_quickly, kind_of
from cutting.quantities.write import Display

STEPS = (1.1, 1.25, 1.5, 2.0)  # of a setting, the smallest that helps is taken (common practice: one step at a time)
EASED = 0.85  # of a limit's level: a change that leaves more of it is not worth the walk
SEEN = 0.98  # of a limit's level: less than this is not noticed
LEVERS = {"speed": "cutting_speed", "depth": "depth_of_cut"}  # a feed has its own name in each kind
# results that are told beside time and money, where they move
TOLD = ("roughness", "passive_force", "thrust", "torque", "tool_life", "secure")
MOVES = 0.005  # of a result, from which it is told


@dataclass(frozen=True)
class BeforeAfter:
    """One number before and after."""

    label: str
    before: Display
    after: Display


@dataclass(frozen=True)
class Offer:
    """A change as it was run.

    `setup` is what it makes, `words` what is set, None where hands do it; `forbidden` says what stands in its way.
    """

    cause: str
    change: str
    words: Display | None
    patch: Mapping[str, Any]
    rows: tuple[BeforeAfter, ...]
    side_effects: str
    undo: str
    forbidden: str
    setup: Any = None

    @property
    def by_hand(self) -> bool:
        """Whether nothing on the bench is set otherwise: somebody puts right at the machine what the plan has right."""
        return self.words is None and not self.forbidden


def offer(setup: Any, cause: Cause, crib: Any = None, outcome: Outcome | None = None) -> Offer:
    """What a cause's change does to an operation. Raises `CuttingError` for a set-up that cannot be."""
    trials = Trials(kind_of(setup.operation).model, setup, crib)
    aim = next((name for name in cause.aims if name in trials.base.used), "")
    plain = Offer(cause.name, cause.change, None, {}, (), cause.side_effects, cause.undo, "")
    if not cause.lever or not (aim or "cost" in cause.aims) or (cause.lever == "tool" and crib is None):
        return plain
    tried = list(_tried(trials, cause.lever))
    found = _best(trials, tried, aim, stepwise=cause.lever[-1] in "+-")
    if found is None:
        return replace(plain, forbidden=_forbids(trials, tried))
    before = evaluate_quickly(setup) if outcome is None else outcome
    after = evaluate_quickly(found.change.setup)
    rows = tuple(_rows(before, after, aim, trials.base, found))
    return replace(plain, words=found.change.text, patch=found.change.patch, rows=rows, setup=found.change.setup)


def _tried(trials: Trials, lever: str) -> Iterator[TrialRun]:
    """Everything that a lever can do, run."""
    if lever[-1] in "+-":
        yield from _steps(trials, lever[:-1], 1.0 if lever.endswith("+") else -1.0)
    elif lever == "coolant":
        yield from (one for one in trials.changes if any(name.startswith("settings.coolant") for name in one.change.sets))
    elif lever == "tool":
        yield from (one for one in trials.changes if one.change.kind == "tool")
    else:  # whatever is known
        yield from trials.changes
        for which in ("feed", "speed"):
            for sign in (1.0, -1.0):
                yield from _steps(trials, which, sign)


def _steps(trials: Trials, which: str, sign: float) -> Iterator[TrialRun]:
    setup = trials.setup
    name = setup.FEED if which == "feed" else LEVERS[which]
    present = getattr(setup.settings, name, None) if name else None
    if not present:
        return
    for step in STEPS:
        value = round(float(present) * step**sign, 4)
        with suppress(CuttingError):
            changed = setup.with_settings(**{name: value})
            changed.check()
            yield from trials.run([setting(name, which, present, value, _kind(name), changed)])


def _kind(name: str) -> str:
    return {"depth_of_cut": "length"}.get(name, name)


def _best(trials: Trials, tried: list[TrialRun], aim: str, stepwise: bool) -> TrialRun | None:
    """The cheapest that eases the limit and breaks none that holds now; of steps of one setting the smallest, which come first."""
    base = trials.base
    sound = [one for one in tried if not _newly_broken(trials, one)]
    if not aim:
        cheaper = [one for one in sound if one.cost < base.cost * SEEN]
        return min(cheaper, key=lambda one: one.cost, default=None)
    level = base.level(aim)
    target = min(EASED * level, 1.0)
    good = [one for one in sound if one.level(aim) <= target]
    if good and stepwise:
        return good[0]
    if good:
        return min(good, key=lambda one: (one.change.kind == "tool", one.cost))
    some = [one for one in sound if one.level(aim) < SEEN * level]
    return min(some, key=lambda one: one.level(aim), default=None)


def _newly_broken(trials: Trials, one: TrialRun) -> list[str]:
    setup = one.change.setup
    used = {name: np.asarray([level]) for name, level in one.used.items()}
    names = hard_ones(trials.model.rules, used, setup.house)
    return [name for name in names if one.used[name] > max(1.0, trials.base.level(name)) + TOUCHING]


def _forbids(trials: Trials, tried: list[TrialRun]) -> str:
    """What stands in the way of the smallest step."""
    labels = {rule.name: rule.label for rule in trials.model.rules}
    for one in tried:
        if broken := _newly_broken(trials, one):
            return f"{labels[broken[0]]} would be over its limit"
    return "nothing that can be set here eases it"


def _rows(before: Outcome, after: Outcome, aim: str, base: TrialRun, found: TrialRun) -> Iterator[BeforeAfter]:
    limits = {one.name: one for one in before.limits}
    if aim in limits and aim != "life":  # minutes of life are told themselves
        label = limits[aim].label.split(",")[0]
        yield BeforeAfter(f"{label}, of its limit", *(Display(f"{x:.0%}", f"{x:.0%}") for x in (base.level(aim), found.level(aim))))
    for name in ("operation_time", "operation_cost", *TOLD):
        if (one := before.results.get(name)) and (other := after.results.get(name)) and _moved(one, other, name):
            yield BeforeAfter(one.label, one.display, other.display)


def _moved(one: Value, other: Value, name: str) -> bool:
    return name.startswith("operation") or abs(other.value - one.value) > MOVES * abs(one.value)
