"""How surely a plan holds: what is drawn is as wide as said, and moves what it should, the way that it should."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

import numpy as np
import pytest

from cutting.belief.beliefs import Belief
from cutting.doors.json_form import read_setup
from cutting.operations.registry import evaluate_quickly
from cutting.process.chances import Draw, Ran, draws_for, run_draws, summed
from cutting.wear.reference import taylor_exponent
from tests.core.every_kind import TURN
from tests.core.holes import HOLE
from tests.core.slots import CUT_OFF
from tests.core.thread_setups import TAP

AS_PLANNED = Draw(1.0, ({"force": 1.0, "life": 1.0},) * 4)
EVERY = [read_setup(form) for form in (TURN, HOLE, CUT_OFF, TAP)]


def ran(draw: Draw) -> Sequence[Ran]:
    return run_draws(EVERY, [draw])[0]


def test_as_planned_is_what_the_bench_says() -> None:
    for setup, one in zip(EVERY, ran(AS_PLANNED), strict=True):
        outcome = evaluate_quickly(setup)
        assert (one.cost, one.seconds) == pytest.approx(tuple(outcome.results[name].value for name in ("operation_cost", "operation_time")))


def drawn(**factors: float) -> Draw:
    """The same factors for every operation."""
    return Draw(1.0, ({"force": 1.0, "life": 1.0, **factors},) * 4)


@pytest.mark.parametrize("place", range(len(EVERY)))
def test_harder_metal_and_shorter_lives_cost_more(place: int) -> None:
    assert ran(drawn(life=0.3))[place].cost > ran(AS_PLANNED)[place].cost
    assert ran(replace(AS_PLANNED, hardness=1.1))[place].cost > ran(AS_PLANNED)[place].cost


def test_a_plan_keeps_its_interval_whatever_the_edges_are() -> None:
    """Edges that last longer than planned are changed all the same: they save little; such that fail early are paid."""
    for place in range(len(EVERY)):
        planned, longer, shorter = (ran(one)[place].cost for one in (AS_PLANNED, drawn(life=2.0), drawn(life=0.5)))
        assert shorter - planned > planned - longer >= 0.0
    assert taylor_exponent("hss") < taylor_exponent("carbide") < taylor_exponent("ceramic")  # ISO 3685, handbook ranges


def test_more_force_breaks_what_force_breaks() -> None:
    broken = ran(drawn(force=6.0))[0].broken
    assert broken in ("spindle_power", "edge_strength", "part_bends", "chatter", "jaw_grip")
    assert not ran(AS_PLANNED)[0].broken


def test_draws_of_one_hardness_run_together_are_each_the_one() -> None:
    draws = draws_for(EVERY, 60, tested=False)
    together = run_draws(EVERY, draws)
    for k in (0, 17, 59):
        for one, alone in zip(together[k], run_draws(EVERY, [draws[k]])[0], strict=True):
            assert (one.cost, one.seconds) == pytest.approx((alone.cost, alone.seconds))
            assert one.broken == alone.broken


def test_draws_are_as_wide_as_the_bands_and_the_same_again() -> None:
    """A band holds nineteen of twenty: the share of a normal distribution within two standard deviations is 0.954."""
    draws = draws_for(EVERY, 4000, tested=False)
    assert draws == draws_for(EVERY, 4000, tested=False)
    assert draws != draws_for(EVERY, 4000, tested=False, seed=2)
    material = EVERY[0].work.material
    low, high = (bound / material.usual_hardness for bound in (material.hardness_low, material.hardness_high))
    turned = {q: np.array([one.factors[0][q] for one in draws]) for q in ("force", "life", "grip")}
    hardness = np.array([one.hardness for one in draws])
    for name, values, least, most in (
        ("hardness", hardness, low, high),
        ("force", turned["force"], 1 / 1.25, 1.25),
        ("life", turned["life"], 0.5, 2.0),
    ):
        assert float(((values >= least) & (values <= most)).mean()) == pytest.approx(0.954, abs=0.03), name
        assert float(np.median(values)) == pytest.approx(1.0, abs=0.015)
    drilled = {q: np.array([one.factors[1][q] for one in draws]) for q in ("force", "life")}
    assert abs(float(np.corrcoef(np.log(turned["life"]), np.log(drilled["life"]))[0, 1])) < 0.05  # lots of their own
    assert float(np.corrcoef(np.log(turned["force"]), np.log(drilled["force"]))[0, 1]) > 0.999  # one delivery of metal
    assert np.log(drilled["force"]).std() > np.log(turned["force"]).std()  # drilling is known less well
    tested = np.std([one.hardness for one in draws_for(EVERY, 4000, tested=True)])
    assert tested == pytest.approx(0.02, rel=0.1)
    assert tested < np.std(hardness)


def test_what_trials_have_taught_is_drawn_narrower() -> None:
    taught = replace(EVERY[0], learned=replace(EVERY[0].learned, beliefs=(Belief("life", 0.8, 0.05),)))
    lives = np.log([one.factors[0]["life"] for one in draws_for([taught], 4000, tested=False)])
    assert lives.std() == pytest.approx(0.05, rel=0.05)
    assert run_draws([taught], [Draw(1.0, ({"life": 1.0},))])[0][0].cost > run_draws([EVERY[0]], [Draw(1.0, ({"life": 1.0},))])[0][0].cost


@pytest.mark.parametrize("belief", [Belief("life", 0.8, 0.05), Belief("force", 1.3, 0.05)])
def test_what_was_learned_is_in_every_draw(belief: Belief) -> None:
    """A draw at the middle of what is believed is what the bench says, with what was learned in it."""
    taught = replace(EVERY[0], learned=replace(EVERY[0].learned, beliefs=(belief,)))
    drawn = run_draws([taught], [Draw(1.0, ({"life": 1.0, "force": 1.0},))])[0][0]
    said = evaluate_quickly(taught).results
    assert drawn.cost == pytest.approx(said["operation_cost"].value, rel=1e-6)
    assert bool(drawn.broken) == any(one.broken for one in evaluate_quickly(taught).limits)


def test_no_delivery_is_another_metal() -> None:
    """However wide the range that a material is sold in: beyond half and again it would be another one."""
    work = EVERY[0].work
    wide = replace(EVERY[0], work=replace(work, material=replace(work.material, hardness_low=60.0, hardness_high=540.0)))
    hardness = [one.hardness for one in draws_for([wide], 2000, tested=False)]
    assert 0.6 < min(hardness) < 0.75
    assert 1.3 < max(hardness) < 1.5


def test_nine_of_ten_lie_between_what_is_said() -> None:
    found = summed([AS_PLANNED] * 101, [[Ran(float(k), 2.0 * k, "")] for k in range(101)], (0.0, 0.0), 1.0, None)
    assert found.cost == pytest.approx((5.0, 50.0, 95.0))
    assert found.seconds == pytest.approx((10.0, 100.0, 190.0))
    assert found.operations[0].cost == found.cost


def test_what_breaks_most_often_is_named() -> None:
    rows = [[Ran(1.0, 1.0, broken)] for broken in ("grip", "power", "power", "")]
    held = summed([AS_PLANNED] * 4, rows, (0.0, 0.0), 1.0, None).operations[0]
    assert (held.worst, held.worst_share, held.share) == ("power", 0.5, 0.25)


def test_the_sum_counts_what_it_was_given() -> None:
    lives = ((0.9, 1.0), (1.0, 0.5), (1.1, 2.0), (1.2, 1.5))
    draws = [Draw(h, ({"force": 1.0, "life": 1.0}, {"force": 1.0, "life": life})) for h, life in lives]
    rows = [[Ran(1.0, 10.0, ""), Ran(2.0 * draw.hardness, 20.0, "power" if draw.hardness > 1.05 else "")] for draw in draws]
    found = summed(draws, rows, beside=(3.0, 5.0), good_share=0.5, target=12.0)
    assert found.seconds == pytest.approx((35.0, 35.0, 35.0))
    assert found.cost[1] == pytest.approx((1.0 + 3.0 + 2.1) / 0.5)
    assert found.cost[0] < found.cost[1] < found.cost[2]
    assert (found.all_hold, found.within_target) == (0.5, 0.5)
    assert [(one.share, one.worst, one.worst_share) for one in found.operations] == [(1.0, "", 0.0), (0.5, "power", 0.5)]
    assert (sum(found.counts), len(found.edges)) == (4, len(found.counts) + 1)
    assert (found.edges[0], found.edges[-1]) == pytest.approx((11.6, 12.8))
    (_, hardness), (_, force), (_, life) = found.causes
    assert [name for name, _ in found.causes] == ["hardness of the metal", "cutting force", "life of the edge"]
    assert hardness == pytest.approx(1.0)
    assert (force, math.isclose(life, 1.0)) == (0.0, False)
    assert summed(draws, rows, (0.0, 0.0), 1.0, None).within_target is None
