"""The tools of a whole plan: the best for each step that has none, and more in hand where all together would hold less often than asked."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import replace
from typing import Any

from cutting.advice.contests import advise
from cutting.errors import CuttingError
from cutting.operations.frame.outcome import Outcome, Standing
from cutting.operations.registry import evaluate_quickly, kind_of
from cutting.plan.choose import Pick, Rank, first_choice, picks_for
from cutting.plan.plan import Plan, Step
from cutting.plan.read import read_entries
from cutting.plan.setups import Tried, judged, request_of, setup_of
from cutting.plan.sure import plan_sure, sure_of
from cutting.plan.values import Values

TIGHTER = (4, 16)  # times as many steps as the plan has, for which one is chosen anew: each time with less of the risk
WORTH_IT = 0.005  # by which the chance of a step must rise


def chosen(plan: Plan, library: Any, rank: Rank = advise) -> Plan:
    """The plan with the best tool for every step that has none, one after the other, and with what must come before it.

    A step that no tool does is left without. Raises nothing: why a step has no tool is said where it is judged.
    """
    by_hand = {one.identity for one in plan.steps if one.tool}
    for one in plan.steps:
        if one.tool:
            continue
        try:
            pick = first_choice(*request_of(plan, one, library), rank)
        except CuttingError:
            continue
        if pick is not None:
            steps = [made for step in plan.steps for made in (_taken(plan, one, pick, library) if step is one else (step,))]
            plan = replace(plan, steps=tuple(steps))
    named = {one.identity for one in plan.steps}
    for identity, pick in surer(plan, library, named - by_hand, rank).items():
        plan = plan.with_step(_set_to(plan.step(identity), pick))
    return plan


def surer(plan: Plan, library: Any, of: Collection[str], rank: Rank = advise) -> dict[str, Pick]:
    """Other choices for steps of a plan, by their identities, with which all of it holds as often as is asked, or more often.

    What was chosen step by step may together hold less often. The steps that hold least often come first, and no more are changed
    than it takes; only those in `of`, which nobody has set by hand. Nothing where a step cannot be run: such a plan has no chance.
    """
    found: dict[str, Pick] = {}
    outcomes = [one for one in judged(plan, library) if isinstance(one, Outcome) and one.standing is not Standing.OVER]
    if len(outcomes) < len(plan.steps):
        return found
    asked = plan.house.asked_chance(plan.goal)
    for times in TIGHTER:
        for k in sorted(range(len(outcomes)), key=lambda place: sure_of(outcomes[place])):
            if plan_sure(outcomes, asked).enough:
                return found
            step = plan.steps[k]
            if step.identity not in of or (pick := _with_more_in_hand(plan, step, library, times, rank)) is None:
                continue
            tried = plan.with_step(_set_to(step, pick))
            outcome = evaluate_quickly(setup_of(tried, tried.step(step.identity), library))
            if sure_of(outcome) > sure_of(outcomes[k]) + WORTH_IT:
                plan, outcomes[k], found[step.identity] = tried, outcome, pick
    return found


def _with_more_in_hand(plan: Plan, step: Step, library: Any, times: int, rank: Rank) -> Pick | None:
    """The best of a step's own kind and place for a share of the risk as in a plan of so many times more steps, None for none."""
    try:
        setup, crib = request_of(plan, step, library, Tried(operations=times * len(plan.steps)))
        picks = picks_for(setup, crib, rank=rank)
    except CuttingError:
        return None
    return next((one for one in picks if one.can and one.row.becomes is None), None)


def _set_to(step: Step, pick: Pick) -> Step:
    """A step with a pick of its own kind."""
    settings = {name: value for name, value in pick.settings.items() if step.of.fields.has("settings", name)}
    return replace(step, tool=tuple(pick.tool.items()), settings=read_entries(step.kind, "settings", settings))


def _taken(plan: Plan, step: Step, pick: Pick, library: Any) -> tuple[Step, ...]:
    """A step with its pick, and the steps of its chain in front."""
    row, machine = pick.row, library.machine(plan.machine)
    before = [
        replace(
            step,
            identity=f"{step.identity}.{k}",
            kind=one.operation,
            told=read_entries(one.operation, "feature", one.feature),
            tool=tuple(one.tool.items()),
            settings=read_entries(one.operation, "settings", {"coolant": pick.coolant, **one.settings}),
            prepares=True,
        )
        for k, one in enumerate(row.before, start=1)
    ]
    last = step
    if row.becomes is not None:
        kind, feature = row.becomes["operation"], row.becomes["feature"]
        spindle, told = step.spindle or kind_of(kind).runs_on(feature, machine), read_entries(kind, "feature", feature)
        if kind == step.kind and isinstance(told, Values) and isinstance(step.told, Values):
            told = step.told.over(told)  # of its own kind only what a chain changes is said
        last = replace(step, kind=kind, told=told, spindle=spindle)
    return (*before, _set_to(last, pick))
