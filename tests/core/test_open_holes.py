"""A bore starts from the hole that the part has, whatever it is told: a bar does not cut into a closed face."""

from __future__ import annotations

from dataclasses import replace

import pytest

from cutting.doors.json_form import SHIPPED
from cutting.errors import CuttingError
from cutting.operations.frame.outcome import Outcome
from cutting.operations.frame.setup import Goal
from cutting.operations.registry import evaluate_quickly, judged, with_remedies
from cutting.plan.plan import Plan, Step, bodies
from cutting.plan.read import read_entries
from cutting.plan.setups import setup_of
from cutting.plan.there import hole_there
from cutting.plan.values import given
from cutting.workpiece.solid import Blank
from tests.core.parts import Part, planned

LINE = "Ø58 x 40, drill Ø30 x 32, bore Ø32 H8 x 30"


@pytest.fixture(scope="module")
def plan() -> Plan:
    part = Part(LINE, Blank(60.0, 85.0), "C45", "two-axis lathe", Goal.CHEAPEST, 50, ((58.0, 40.0),))
    return planned(part)


def closed(plan: Plan) -> Plan:
    """The plan without its drilled hole, the first bore told of Ø30 all the same."""
    steps = [one for one in plan.steps if one.kind != "drill"]
    k = next(k for k, one in enumerate(steps) if one.kind == "bore")
    told = read_entries("bore", "feature", {"start_diameter": "30", "end_diameter": "31.4", "length": "30"})
    steps[k] = replace(steps[k], told=told)
    return replace(plan, steps=tuple(steps))


def last_bore(plan: Plan) -> Outcome:
    step = [one for one in plan.steps if one.kind == "bore"][-1]
    return evaluate_quickly(setup_of(plan, step, SHIPPED))


def test_a_bore_without_its_hole_is_over_a_hard_limit(plan: Plan) -> None:
    limits = {one.name: one for one in last_bore(plan).limits}
    assert limits["open_hole"].utilisation <= 1.0
    shut = closed(plan)
    first = next(one for one in shut.steps if one.kind == "bore")
    found = {one.name: one for one in evaluate_quickly(setup_of(shut, first, SHIPPED)).limits}["open_hole"]
    assert found.value == 0.0
    assert found.utilisation > 1.0
    nobody_said = replace(first, told=read_entries("bore", "feature", {"end_diameter": "31.4", "length": "30"}))
    shut = replace(shut, steps=tuple(nobody_said if one is first else one for one in shut.steps))
    with pytest.raises(CuttingError, match="part is closed"):
        setup_of(shut, nobody_said, SHIPPED)


def test_the_change_that_helps_is_the_hole_before_it(plan: Plan) -> None:
    shut = closed(plan)
    setup = setup_of(shut, next(one for one in shut.steps if one.kind == "bore"), SHIPPED)
    outcome, numbers = judged(setup)
    limit = {one.name: one for one in with_remedies(outcome, setup, None, numbers).limits}["open_hole"]
    (remedy,) = [one for one in limit.remedies if "before" in one.patch]
    assert remedy.patch["before"]["operation"] == "drill"
    assert float(str(remedy.patch["before"]["diameter"]).split()[0]) == pytest.approx(setup.feature.start_diameter)


@pytest.mark.parametrize(
    ("kind", "told", "own"),
    [
        ("drill", {"diameter": "12 H7", "depth": "30", "through": False, "pilot": "11.8"}, "pilot"),
        ("tap", {"thread": "M12", "side": "inside", "length": "20", "there": "10.2"}, "there"),
    ],
)
def test_what_is_told_of_a_hole_does_not_open_the_part(plan: Plan, kind: str, told: dict[str, str | bool], own: str) -> None:
    """The same words in front of a hole that was drilled, and in front of a closed face."""
    step = Step("last", kind, told=read_entries(kind, "feature", told))
    size = {"drill": "11.8 mm", "tap": "10.2 mm"}[kind]
    drilled = Step("first", "drill", told=read_entries("drill", "feature", {"diameter": size, "depth": "32", "through": False}))
    for before, there in (((drilled,), float(size.split()[0])), ((), 0.0)):
        tried = replace(plan, steps=(*before, step))
        found = hole_there(tried, step, bodies(tried)[len(before)], dict(given(step.told)))
        assert found[own] == pytest.approx(there)


def test_the_narrowest_place_counts_and_what_is_wider_is_no_pilot(plan: Plan) -> None:
    """A hole in two steps: a bar over both meets the narrow one, a drill wider than both has it as its pilot, a narrower one none."""
    wide = Step("a", "drill", told=read_entries("drill", "feature", {"diameter": "30", "depth": "10", "through": False}))
    deep = Step("b", "drill", told=read_entries("drill", "feature", {"diameter": "20", "depth": "32", "through": False}))

    def found(kind: str, told: dict[str, str | bool]) -> dict[str, float]:
        step = Step("c", kind, told=read_entries(kind, "feature", told))
        tried = replace(plan, steps=(wide, deep, step))
        return hole_there(tried, step, bodies(tried)[2], dict(given(step.told)))

    over_both = {"start_diameter": "20", "end_diameter": "32", "length": "30"}
    assert found("bore", over_both)["there"] == pytest.approx(20.0)
    assert found("bore", over_both | {"length": "8"})["there"] == pytest.approx(30.0)
    assert found("drill", {"diameter": "32", "depth": "30", "through": False})["pilot"] == pytest.approx(20.0)
    assert "pilot" not in found("drill", {"diameter": "18", "depth": "30", "through": False})
