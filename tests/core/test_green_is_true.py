"""What the bench calls sound is drawn from its own bands: the part holds as often as the house asks. What is refused has a true reason."""

from __future__ import annotations

from functools import cache

import numpy as np
import pytest

from cutting.doors.json_form import SHIPPED
from cutting.errors import CuttingError
from cutting.operations.frame.outcome import Outcome, Severity, Standing
from cutting.plan.plan import Plan
from cutting.plan.setups import judged, setups
from cutting.process.chances import draws_for, run_draws
from tests.core.parts import part_of, planned

PARTS = tuple(range(24))
DRAWS = 200
CHANCE_ERROR = 0.05  # two standard errors of a share of 200 draws about 0.85, and what a chance to first order may be off


@cache
def plan_of(seed: int) -> tuple[Plan, tuple[Outcome | CuttingError, ...]]:
    """The plan of a generated part and what each step of it comes to."""
    plan = planned(part_of(seed))
    return plan, tuple(judged(plan, SHIPPED))


def sound(seed: int) -> bool:
    return all(isinstance(one, Outcome) and one.feasible for one in plan_of(seed)[1])


@pytest.mark.parametrize("seed", PARTS)
def test_a_plan_that_is_called_sound_holds_as_often_as_the_house_asks(seed: int) -> None:
    """One delivery, one machine, one edge for the whole piece: the share of draws in which no hard limit of any step is over."""
    if not sound(seed):
        pytest.skip("not called sound")
    plan, _ = plan_of(seed)
    steps = [one for one in setups(plan, SHIPPED) if not isinstance(one, CuttingError)]
    ran = run_draws(steps, draws_for(steps, DRAWS, False))
    holds = float(np.mean([all(not step.broken for step in one) for one in ran]))
    assert holds >= plan.house.asked_chance(plan.goal) - CHANCE_ERROR


def test_most_parts_are_planned_and_what_is_not_has_no_tool_and_no_stand_in() -> None:
    """A step without a tool stays without: nothing that does not make it takes its place."""
    assert sum(map(sound, PARTS)) >= 0.7 * len(PARTS)
    for seed in PARTS:
        plan, found = plan_of(seed)
        for step, outcome in zip(plan.steps, found, strict=True):
            if not step.tool:
                assert isinstance(outcome, CuttingError), (seed, step.kind)
            elif isinstance(outcome, Outcome):
                assert outcome.standing is not Standing.OVER, (seed, step.kind, outcome.binding.label)


def test_what_holds_has_its_margin_and_names_what_it_is_for() -> None:
    """Of every hard limit that is near its bound, the chance is at least what is asked, and the bands that move it are named."""
    near = [
        limit
        for seed in PARTS
        for one in plan_of(seed)[1]
        if isinstance(one, Outcome) and one.feasible
        for limit in one.limits
        if limit.severity is Severity.HARD and limit.utilisation > 0.75 and limit.kept < 1.0
    ]
    assert len(near) > 20
    for limit in near:
        assert limit.utilisation <= limit.kept + 0.01, limit.label
        assert limit.holds >= limit.asked - 0.01, limit.label
        assert limit.moved_by, limit.label
