"""How surely a plan holds: what is drawn is as wide as said, and moves what it should, the way that it should."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import replace

import numpy as np
import pytest

from cutting.doors.json_form import read_setup
from cutting.operations.registry import evaluate_quickly
from cutting.process.chances import Draw, Ran, draws_for, run_draws, summed, with_draw
from cutting.wear.reference import taylor_exponent
from tests.core.holes import HOLE
from tests.core.slots import CUT_OFF
from tests.core.test_one_engine import TURN
from tests.core.thread_setups import TAP

AS_PLANNED = Draw(1.0, 1.0, (1.0, 1.0, 1.0, 1.0))
EVERY = [read_setup(form) for form in (TURN, HOLE, CUT_OFF, TAP)]


def ran(draw: Draw) -> Sequence[Ran]:
    return run_draws(EVERY, [draw])[0]


def test_as_planned_is_what_the_bench_says() -> None:
    for setup, one in zip(EVERY, ran(AS_PLANNED), strict=True):
        outcome = evaluate_quickly(setup)
        assert (one.cost, one.seconds) == pytest.approx(tuple(outcome.results[name].value for name in ("operation_cost", "operation_time")))


@pytest.mark.parametrize("place", range(len(EVERY)))
def test_harder_metal_and_shorter_lives_cost_more(place: int) -> None:
    lives = tuple(0.3 if k == place else 1.0 for k in range(4))
    assert ran(replace(AS_PLANNED, lives=lives))[place].cost > ran(AS_PLANNED)[place].cost
    assert ran(replace(AS_PLANNED, hardness=1.1))[place].cost > ran(AS_PLANNED)[place].cost


def test_a_life_that_is_drawn_is_the_life_that_an_edge_has() -> None:
    """Half as long in the cut, by Taylor's own law: Kalpakjian & Schmid, machinability chapter."""
    for place, setup in enumerate(EVERY):
        short = evaluate_quickly(with_draw(setup, Draw(1.0, 1.0, (0.5,) * 4), place)).results["tool_life"].value
        assert short == pytest.approx(0.5 * evaluate_quickly(setup).results["tool_life"].value, rel=1e-6)
    assert taylor_exponent("hss") < taylor_exponent("carbide") < taylor_exponent("ceramic")  # ISO 3685, handbook ranges


def test_more_force_breaks_what_force_breaks() -> None:
    broken = ran(replace(AS_PLANNED, force=6.0))[0].broken
    assert broken in ("spindle power", "edge strength", "part bends", "chatter", "grip")
    assert not ran(AS_PLANNED)[0].broken


def test_draws_are_as_wide_as_the_bands_and_the_same_again() -> None:
    """A band holds nineteen of twenty: the share of a normal distribution within two standard deviations is 0.954."""
    draws = draws_for(EVERY, 4000, tested=False)
    assert draws == draws_for(EVERY, 4000, tested=False)
    assert draws != draws_for(EVERY, 4000, tested=False, seed=2)
    material = EVERY[0].work.material
    low, high = (bound / material.usual_hardness for bound in (material.hardness_low, material.hardness_high))
    for name, least, most in (("hardness", low, high), ("force", 1 / 1.25, 1.25)):
        values = np.array([getattr(one, name) for one in draws])
        assert float(((values >= least) & (values <= most)).mean()) == pytest.approx(0.954, abs=0.015), name
        assert float(np.median(values)) == pytest.approx(1.0, abs=0.01)
    lives = np.array([one.lives for one in draws])
    assert float(((lives >= 0.5) & (lives <= 2.0)).mean()) == pytest.approx(0.954, abs=0.01)
    assert abs(float(np.corrcoef(np.log(lives[:, 0]), np.log(lives[:, 1]))[0, 1])) < 0.05  # lots of their own
    tested = np.std([one.hardness for one in draws_for(EVERY, 4000, tested=True)])
    assert tested == pytest.approx(0.02, rel=0.1)
    assert tested < np.std([one.hardness for one in draws])


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
    draws = [Draw(h, 1.0, (1.0, life)) for h, life in ((0.9, 1.0), (1.0, 0.5), (1.1, 2.0), (1.2, 1.5))]
    rows = [[Ran(1.0, 10.0, ""), Ran(2.0 * draw.hardness, 20.0, "power" if draw.hardness > 1.05 else "")] for draw in draws]
    found = summed(draws, rows, beside=(3.0, 5.0), good_share=0.5, target=12.0)
    assert found.seconds == pytest.approx((35.0, 35.0, 35.0))
    assert found.cost[1] == pytest.approx((1.0 + 3.0 + 2.1) / 0.5)
    assert found.cost[0] < found.cost[1] < found.cost[2]
    assert (found.all_hold, found.within_target) == (0.5, 0.5)
    assert [(one.share, one.worst, one.worst_share) for one in found.operations] == [(1.0, "", 0.0), (0.5, "power", 0.5)]
    assert (sum(found.counts), len(found.edges)) == (4, len(found.counts) + 1)
    assert (found.edges[0], found.edges[-1]) == pytest.approx((11.6, 12.8))
    hardness, force, life = found.causes
    assert hardness == pytest.approx(1.0)
    assert (force, math.isclose(life, 1.0)) == (0.0, False)
    assert summed(draws, rows, (0.0, 0.0), 1.0, None).within_target is None
