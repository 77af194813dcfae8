"""What the bench calls sound is drawn from its own bands: the part holds as often as the house asks. What is refused has a true reason."""

from __future__ import annotations

from functools import cache

import numpy as np
import pytest

from cutting.doors.json_form import SHIPPED
from cutting.errors import CuttingError
from cutting.operations.frame.outcome import Outcome, Severity, Standing
from cutting.plan.plan import Plan, bodies
from cutting.plan.setups import judged, setups
from cutting.plan.sure import plan_sure
from cutting.process.chances import draws_for, run_draws
from cutting.process.shaft_line import FACE_STOCK
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
    plan, found = plan_of(seed)
    outcomes = [one for one in found if isinstance(one, Outcome) and one.feasible]
    return len(outcomes) == len(plan.steps) and plan_sure(outcomes, plan.house.asked_chance(plan.goal)).enough


@pytest.mark.parametrize("seed", PARTS)
def test_what_is_called_sound_holds_in_as_many_deliveries_as_the_house_asks(seed: int) -> None:
    """One delivery, one machine, one edge for the whole piece: the share of draws in which no hard limit of any step is over.

    The sum over the operations is about the same share: a little less, as they share what is drawn.
    """
    plan, found = plan_of(seed)
    planned_steps = [one for one in setups(plan, SHIPPED) if not isinstance(one, CuttingError)]
    asked = plan.house.asked_chance(plan.goal)
    told = plan_sure([one for one in found if isinstance(one, Outcome)], asked).chance
    ran = run_draws(planned_steps, draws_for(planned_steps, DRAWS, False))
    holds = float(np.mean([all(not step.broken for step in one) for one in ran]))
    assert told - CHANCE_ERROR <= holds <= told + 2 * CHANCE_ERROR
    assert not sound(seed) or holds >= asked - CHANCE_ERROR


@pytest.mark.parametrize("seed", PARTS)
def test_what_is_planned_leaves_the_part_that_was_asked(seed: int) -> None:
    """Point by point from the free end: the diameter of every step, read off the line and not off the plan."""
    plan, _ = plan_of(seed)
    body, end = bodies(plan)[-1], part_of(seed).blank.free_length - FACE_STOCK
    for diameter, length in reversed(part_of(seed).steps):
        for share in (0.1, 0.5, 0.9):
            assert body.at(end - share * length) == pytest.approx(diameter, abs=0.06)
        end -= length


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
