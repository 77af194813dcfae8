"""What all kinds of operation share, by hand: how long an edge should last, what a piece costs, how close a limit is."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from cutting.advice.score import score
from cutting.doors.json_form import read_setup
from cutting.operations.frame.money import goal_life, life_notes, life_shown, parts_shown, spend, unattended_life
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule, excluded, utilisation
from cutting.operations.frame.setup import Batch, Goal, HouseRules
from cutting.quantities import display
from cutting.working import Silent
from tests.core.slots import GROOVE

ONE = np.ones((1, 1))
SETUP = read_setup(GROOVE)  # on the two-axis lathe: 58 an hour, 2 min to change an edge; changed at 80 %, secure at 95 %


def for_goal(goal: Goal, **batch: Any) -> Any:
    return replace(SETUP, goal=goal, batch=Batch(**batch))


@pytest.mark.parametrize(
    ("goal", "exponent", "minutes"),
    [
        (Goal.CHEAPEST, 0.25, 24.44),  # 3 · (2 + 4 / 0.9667) = 18.41 min to the planned change, over (−log2 0.8)^¼ = 0.7533
        (Goal.FASTEST, 0.25, 7.965),  # 3 · 2 min
        (Goal.MOST_SECURE, 0.25, 52.95),  # one and a half times 18.41, over (−log2 0.95)^¼ = 0.5216
        (Goal.FASTEST, 0.6, 3.0),  # nobody plans for less
    ],
)
def test_the_life_that_a_goal_wants(goal: Goal, exponent: float, minutes: float) -> None:
    assert float(goal_life(for_goal(goal), exponent, 4.0, 4.0)) == pytest.approx(minutes, rel=1e-3)


def test_an_edge_for_hours_alone() -> None:
    """8 h at 85 % in the cut, over 0.5216; a piece of 100 s of which it cuts 20 needs a fifth; nobody away, nothing asked."""
    assert float(unattended_life(for_goal(Goal.MOST_SECURE, unattended_hours=8), 4.0, 20.0)) == pytest.approx(782.2, rel=1e-3)  # type: ignore[arg-type]
    shared = for_goal(Goal.MOST_SECURE, unattended_hours=8, piece_seconds=100)
    assert float(unattended_life(shared, 4.0, 20.0)) == pytest.approx(184.0, rel=1e-3)  # type: ignore[arg-type]
    assert float(unattended_life(shared, 4.0, 99.0)) == pytest.approx(782.2, rel=1e-3)  # type: ignore[arg-type]
    attended = unattended_life(for_goal(Goal.CHEAPEST, unattended_hours=8), 4.0, 20.0)
    assert attended is not None
    assert 0 < float(attended) < 782.2, "80 % is less to ask than 95 %"
    assert unattended_life(for_goal(Goal.CHEAPEST), 4.0, 20.0) is None
    assert unattended_life(for_goal(Goal.MOST_SECURE), 4.0, 20.0) is None


def spent(goal: Goal = Goal.CHEAPEST, stop: float = 0.0, life_used: float = 0.05, **batch: Any) -> dict[str, float]:
    found = spend(for_goal(goal, **batch), 60 * ONE, 20.0, life_used * ONE, 4 * ONE, 4.0, stop, Silent())
    return {name: float(np.ravel(value)[0]) for name, value in found.items()}


def test_seconds_and_money_of_a_piece() -> None:
    """A twentieth of a life a piece: 20 in the median, 15.07 planned, so 15. Edges that fail earlier: with
    ln 2 · 0.75⁴ = 0.2193 the mean is 1 − 0.2193/5 + 0.2193²/18 = 0.9587 of it, 14.38; 80 s + 120/14.38; 58 · 88.34 / 3600 + 4 / 14.38."""
    now = spent()
    assert (now["median_parts"], now["change_parts"], now["operation_time"]) == (pytest.approx(20), 15, pytest.approx(88.345, rel=1e-4))
    assert now["operation_cost"] == pytest.approx(1.7015, rel=1e-4)
    assert now["secure"] == pytest.approx(0.8031, abs=2e-4)  # 2^−0.75⁴
    assert spent(stop=0.01)["secure"] == pytest.approx(0.6907, abs=2e-4)  # and 0.99¹⁵ that no chip stops it
    # more than a life a piece: no whole piece between changes, and the changes are paid
    short = spent(life_used=2.0)
    assert short["change_parts"] == pytest.approx(0.3767, rel=1e-3)
    assert short["operation_time"] == pytest.approx(80 + 120 / 0.3608, rel=1e-3)


def test_a_run_is_as_long_as_nobody_looks() -> None:
    assert spent(pieces=8)["run_parts"] == 8  # the batch ends it
    assert spent(pieces=500)["run_parts"] == 15  # the change of the edge does
    assert spent(unattended_hours=2)["run_parts"] == 82  # 7200 / 88
    assert spent(unattended_hours=2, piece_seconds=600)["run_parts"] == 12
    assert spent(unattended_hours=2)["secure"] < 1e-6  # 82 pieces of 20 in the median


def rule(bound: Bound, name: str = "x", **more: Any) -> Rule[Any]:
    return Rule(name, name, "length", bound, Severity.HARD, "x", "y.", lambda x: x, **more)


@pytest.mark.parametrize(
    ("of", "read", "used"),
    [
        (rule(Bound.UPPER), (3, None, 4), 0.75),
        (rule(Bound.UPPER), (3, None, None), 0.0),
        (rule(Bound.LOWER), (8, 2, None), 0.25),
        (rule(Bound.WINDOW), (3, 2, 4), 0.0),  # the middle
        (rule(Bound.WINDOW), (2, 2, 4), 1.0),
        (rule(Bound.WINDOW), (4.5, 2, 4), 1.5),
        (rule(Bound.WINDOW, free_below=True), (1, 2, 4), 0.25),  # below costs nothing
        (rule(Bound.LOWER, "secure"), (90, 80, None), 0.5),  # half of the risk that is allowed
        (rule(Bound.LOWER, "secure"), (70, 80, None), 1.5),
    ],
)
def test_how_much_of_a_limit_is_used(of: Rule[Any], read: tuple[Any, Any, Any], used: float) -> None:
    assert float(utilisation(of, *read)) == pytest.approx(used)


def test_what_excludes_and_what_only_costs() -> None:
    hard, soft, book = rule(Bound.UPPER), replace(rule(Bound.UPPER, "soft"), severity=Severity.SOFT), rule(Bound.UPPER, "book_speed")
    rules = (hard, soft, book)
    strict, open_minded = HouseRules(), HouseRules(never_above_book=False)

    def out(house: HouseRules, **used: float) -> bool:
        return bool(excluded(rules, {name: np.array([level]) for name, level in used.items()}, house).any())

    assert not out(strict, x=1.0, soft=3.0, book_speed=1.0)  # on the bound is within
    assert out(strict, x=1.001)
    assert out(strict, book_speed=1.2)
    assert not out(open_minded, book_speed=1.2)


def test_what_the_goals_weigh() -> None:
    """Money with what stands beside it; seconds, money telling equals apart; 3 % short of 93 % weighs 300, and a tenth of 45 min at 58."""

    def weighed(goal: Goal, secure: float) -> float:
        return float(score(for_goal(goal), 60.0, 2.0, secure, 10.0, 0.5))

    assert weighed(Goal.CHEAPEST, 0.5) == pytest.approx(2.5)
    assert weighed(Goal.FASTEST, 0.5) == pytest.approx(60.002)
    assert weighed(Goal.MOST_SECURE, 0.90) == pytest.approx(300 + 0.435 + 2.5)
    assert weighed(Goal.MOST_SECURE, 0.94) == pytest.approx(0.261 + 2.5)


def test_an_edge_is_changed_after_a_shift_however_long_it_would_last() -> None:
    """60 s a piece: 8 h in the cut are 480 pieces; a house that changes after 4 h takes 240."""
    assert spent(life_used=1e-6)["change_parts"] == 480
    half = replace(for_goal(Goal.CHEAPEST), house=replace(SETUP.house, longest_change_hours=4.0))
    found = spend(half, 60 * ONE, 20.0, 1e-6 * ONE, 4 * ONE, 4.0, 0.0, Silent())
    assert float(np.ravel(found["change_parts"])[0]) == 240
    assert spent(life_used=0.05)["change_parts"] == 15  # what wears out before is changed before


def test_a_life_is_said_as_far_as_it_is_known() -> None:
    """Beyond 120 min in the cut other ends come first; 2000 pieces of 240 min are said as over 1000."""
    assert (life_shown(119.0).metric, life_shown(4000.0).metric) == (display(119.0, "life").metric, "over 120 min")
    assert (parts_shown(2000, 119.0).metric, parts_shown(2000, 240.0).metric) == ("2000", "over 1000")

    def named(life: float, parts: float, changed: float) -> dict[str, str]:
        return {one.name: one.text for one in life_notes(SETUP, life, 60.0, parts, changed, 4.0)}

    assert named(60, 60, 45) == {}
    assert "size drift" in named(240, 240, 180)["beyond_wear"]
    assert "changed after 8 h" not in named(240, 240, 180)["beyond_wear"]  # 0.75 · 240: it is the plan's own
    assert "changed after 8 h" in named(4000, 4000, 480)["beyond_wear"]
    assert "at least 3 min" in named(2.5, 2, 1)["short_life"]
