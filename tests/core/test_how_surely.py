"""How surely a limit holds, what is kept in hand for it, and what a soft limit risks: by the normal law, by direction, by order."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from scipy import integrate, stats

from cutting.advice import advise
from cutting.advice.score import score_of, weighed
from cutting.doors.json_form import read_request, read_setup
from cutting.operations.frame.chance import gives_way_at, kept_in_hand
from cutting.operations.frame.outcome import Moved, Outcome, Severity, Standing
from cutting.operations.frame.risk import SHARES, Risk, expected_miss, share_of, shared_risk
from cutting.operations.frame.setup import Batch, Goal, HouseRules
from cutting.operations.registry import evaluate, evaluate_quickly
from cutting.plan.sure import plan_sure, sure_of
from tests.core.every_kind import EVERY_KIND, TURN

FACING: dict[str, Any] = {one: value for one, value in TURN.items() if one not in ("tool", "settings")}


@pytest.mark.parametrize(("asked", "spread", "kept"), [(0.9, 0.1, 0.8797), (0.97, 0.1, 0.8286), (0.8, 0.2, 0.8451), (0.5, 0.3, 1.0)])
def test_what_is_kept_in_hand_by_tables_of_the_normal_law(asked: float, spread: float, kept: float) -> None:
    """z of 0.80, 0.90, 0.97 is 0.8416, 1.2816, 1.8808 (tables of the normal law): exp(−z·σ)."""
    assert float(kept_in_hand(asked, spread)) == pytest.approx(kept, abs=2e-4)


def test_a_safety_that_a_bound_holds_itself_covers_what_may_be_off() -> None:
    assert float(gives_way_at(0.9, 0.1, 2.0)) == pytest.approx(2 * 0.8797, abs=4e-4)
    assert float(kept_in_hand(0.9, 0.1, 2.0)) == 1.0
    assert float(kept_in_hand(0.97, 0.3, 1.25)) < float(kept_in_hand(0.97, 0.3, 2.0))


def test_the_house_asks_more_of_each_of_several_operations_and_more_of_a_surer_goal() -> None:
    house = HouseRules()
    assert [house.asked_chance(goal) for goal in (Goal.FASTEST, Goal.CHEAPEST, Goal.MOST_SECURE)] == [0.80, 0.90, 0.97]
    asked = [house.asked_chance(Goal.CHEAPEST, n) for n in range(1, 12)]
    assert all(a < b < 1.0 for a, b in pairwise(asked))
    for n, one in enumerate(asked, start=1):
        assert one**n <= 0.9 + 1e-12, "no more than if they had nothing in common"
        assert one >= 0.9
    assert HouseRules(sure_fastest=0.6).asked_chance(Goal.FASTEST) == 0.6


@pytest.mark.parametrize("kind", EVERY_KIND)
def test_a_limit_that_holds_is_used_no_more_than_is_kept_and_more_is_asked_of_a_surer_goal(kind: str) -> None:
    setup = read_setup(EVERY_KIND[kind])
    kept: list[dict[str, float]] = []
    for goal in (Goal.FASTEST, Goal.CHEAPEST, Goal.MOST_SECURE):
        outcome = evaluate_quickly(replace(setup, goal=goal))
        kept.append({one.name: one.kept for one in outcome.limits if one.severity is Severity.HARD and one.name != "secure"})
        for one in outcome.limits:
            near = abs(one.utilisation / one.kept - 1.0) < 0.02  # a hair is not told apart
            if one.severity is Severity.HARD and one.moved_by and one.kept < 1.0 and not near:
                assert (one.standing is Standing.HOLDS) == (one.utilisation <= one.kept), (one.label, one.utilisation, one.kept)
    for name in kept[0].keys() & kept[1].keys() & kept[2].keys():
        assert kept[0][name] >= kept[1][name] >= kept[2][name], name


def test_the_first_choice_of_a_surer_goal_keeps_more_and_none_of_a_plan_keeps_less() -> None:
    """Power is what stops it: the surer, the less of it is used; of a plan of eight less than of one alone."""

    def power(goal: Goal, operations: int) -> float:
        setup, crib = read_request({**FACING, "feature": {"start_diameter": 57, "end_diameter": 45, "length": 120}})
        setup = replace(
            setup,
            goal=goal,
            batch=Batch(50, operations=operations),
            machine=replace(setup.machine, power_curve=((0, 0), (500, 3.0), (4000, 3.0))),
        )
        first = advise(setup, crib).candidates[0]
        ran = setup.with_settings(cutting_speed=first.cutting_speed, feed_per_rev=first.feed, depth_of_cut=first.depth_of_cut)
        ran = replace(ran, insert=next(one for one in crib.inserts if one.name == first.tool["insert"]))
        return next(one.utilisation for one in evaluate_quickly(ran).limits if one.name == "spindle_power")

    fast, cheap, many = power(Goal.FASTEST, 1), power(Goal.CHEAPEST, 1), power(Goal.CHEAPEST, 8)
    assert 0.6 < many < cheap <= fast < 1.0


def test_a_plan_is_no_surer_than_its_least_sure_operation() -> None:
    def outcome(*limits: tuple[float, str]) -> Outcome:
        found = evaluate_quickly(read_setup(TURN))
        hard = [one for one in found.limits if one.severity is Severity.HARD]
        soft = [replace(one, holds=0.01) for one in found.limits if one.severity is Severity.SOFT]
        told = [replace(one, holds=holds, moved_by=(Moved(band, "", 1.0),)) for one, (holds, band) in zip(hard, limits, strict=False)]
        return replace(found, limits=(*told, *soft))

    force, life, sharp = "cutting force", "edge life", "edge radius"
    assert sure_of(outcome((0.99, force), (0.93, force))) == 0.93, "one band moves both: the closest counts"
    assert sure_of(outcome((0.9, force), (0.9, life))) == pytest.approx(0.81), "two bands go their own ways"
    found = plan_sure([outcome((0.99, force)), outcome((0.95, life)), outcome((1.0, sharp))], 0.9)
    assert found.chance == pytest.approx(0.99 * 0.95)
    assert (found.weakest, found.enough) == (1, True)
    shared = plan_sure([outcome((0.93, force)), outcome((0.93, force))], 0.9).chance
    apart = plan_sure([outcome((0.93, force)), outcome((0.93, life))], 0.9).chance
    assert apart == pytest.approx(0.93**2)
    assert apart < shared < 0.93, "what one delivery does to both is less than two chances apart, and more than one"
    assert plan_sure([outcome((0.897, force))], 0.9).enough, "a hair below is not told apart"


@pytest.mark.parametrize(("used", "spread"), [(0.7, 0.2), (1.0, 0.1), (1.3, 0.25), (2.0, 0.4), (0.5, 0.05)])
def test_the_expected_miss_is_the_mean_of_what_lies_beyond(used: float, spread: float) -> None:
    """By quadrature over the normal law (SciPy)."""
    law = stats.norm(np.log(used), spread)
    there, _ = integrate.quad(lambda x: x * law.pdf(x), 0.0, np.log(used) + 12 * spread if used > 1 else 12 * spread, limit=200)
    assert float(expected_miss(used, spread)) == pytest.approx(there, abs=1e-6)


def test_a_soft_limit_costs_more_the_further_it_is_missed_and_nothing_jumps() -> None:
    used = np.linspace(0.3, 4.0, 800)
    for spread in (0.0, 0.05, 0.3):
        miss = expected_miss(used, spread)
        assert np.all(np.diff(miss) >= 0.0)
        assert np.max(np.abs(np.diff(miss))) < 0.02, "no step"
    risks = shared_risk(np.linspace(0.0, 30.0, 500))
    assert risks[0] == 0.0
    assert np.all(np.diff(risks) >= 0.0)
    assert risks[-1] <= 10.0, "what is gone wrong is done again some times, and no more"
    assert float(shared_risk(0.01)) == pytest.approx(0.01, rel=1e-3)
    one, two = share_of("edge_heat") * expected_miss(1.2), share_of("chips") * expected_miss(1.1)
    assert shared_risk(one + two) > max(shared_risk(one), shared_risk(two)), "two count more than one of them"


def test_what_loses_the_part_weighs_more_than_what_loses_an_edge_and_that_more_than_a_taste() -> None:
    assert SHARES[Risk.BREAK] > SHARES[Risk.STOP] > SHARES[Risk.EDGE] > SHARES[Risk.TASTE] > 0.0
    assert SHARES[Risk.SIZE] > SHARES[Risk.TASTE]
    assert share_of("nobody named it") == SHARES[Risk.TASTE]


def test_a_grade_that_is_not_made_for_the_metal_must_save_a_tenth() -> None:
    assert weighed(1.0, 1.0, 0.0) > weighed(1.08, 0.0, 0.0)
    assert weighed(1.0, 1.0, 0.0) < weighed(1.12, 0.0, 0.0)


def test_what_is_close_stands_behind_what_holds_whatever_it_saves() -> None:
    setup, crib = read_request({**FACING, "material": "EN AW-6082 T6"})
    row = advise(setup, crib).candidates[0]
    assert score_of(setup, replace(row, close="spindle power", cost=0.01 * row.cost)) > score_of(setup, replace(row, cost=100 * row.cost))


def test_remedies_bring_a_limit_to_where_it_holds_as_surely_as_is_asked() -> None:
    """A cut that is close: what is offered is run, and holds."""
    setup = replace(read_setup(TURN), machine=replace(read_setup(TURN).machine, power_curve=((0, 0), (500, 11.0), (4000, 11.0))))
    power = next(one for one in evaluate_quickly(setup).limits if one.name == "spindle_power")
    share = power.utilisation / 0.97
    near = replace(setup, machine=replace(setup.machine, power_curve=tuple((n, p * share) for n, p in setup.machine.power_curve)))
    limit = next(one for one in evaluate(near).limits if one.name == "spindle_power")
    assert (limit.broken, limit.standing) == (False, Standing.CLOSE)
    slower = [one for one in limit.remedies if set(one.patch) == {"settings"} and set(one.patch["settings"]) == {"feed_per_rev"}]
    assert slower
    feed = float(str(slower[0].patch["settings"]["feed_per_rev"]).split()[0])
    after = next(one for one in evaluate_quickly(near.with_settings(feed_per_rev=feed)).limits if one.name == "spindle_power")
    assert after.standing is Standing.HOLDS
