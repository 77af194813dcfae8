"""How surely a fit is met, against sampling and closed forms; and what a reamer is asked."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from cutting.operations.frame.outcome import Severity
from cutting.operations.registry import evaluate
from cutting.operations.turned.size_control import Measured, ledger
from cutting.sizing.offsets import PROCESS_SPREAD, prior
from cutting.sizing.settling import chance_within, grade_reached, settle
from tests.core.bores import bore
from tests.core.holes import HOLE, hole

LIMITS = (62.0, 62.03)


def fit(**more: Any) -> Any:
    given = {"force": 80.0, "uncertainty": 0.004, "step": 0.002, "warm_spread": 0.001, "limits": LIMITS, "aim": 62.015, **more}
    return settle(prior(1e-4), **given)


def test_the_chance_is_the_area_between_the_limits() -> None:
    """By sampling; and the textbook's 68, 95, 99.7 %."""
    assert [round(chance_within(0.0, 1.0, -k, k), 3) for k in (1, 2, 3)] == [0.683, 0.954, 0.997]
    drawn = np.random.default_rng(1).normal(62.02, 0.008, 400_000)
    assert chance_within(62.02, 0.008, *LIMITS) == pytest.approx(np.mean((drawn >= 62.0) & (drawn <= 62.03)), abs=0.003)


@pytest.mark.parametrize(
    ("nominal", "spread", "grade"), [(62.0, 0.00475, 6), (62.0, 0.0075, 7), (200.0, 0.00725, 6), (62.0, 0.2, None), (900.0, 0.001, None)]
)
def test_the_grade_that_four_deviations_fit_into(nominal: float, spread: float, grade: int | None) -> None:
    """ISO 286: IT6 and IT7 of Ø62 are 19 and 30 µm, IT6 of Ø200 29 µm."""
    assert grade_reached(nominal, spread) == grade


def test_measured_cuts_settle_it() -> None:
    found = fit()
    chances = [one.chance for one in found.stages]
    assert chances == sorted(chances)
    assert chances[0] < 0.1  # a tool that is only touched off
    assert chances[1] > 0.9
    assert [one.measured for one in found.stages] == [0, 1, 2, 3]
    assert found.stages[-1].spread >= math.hypot(PROCESS_SPREAD, 0.002 / math.sqrt(12), 0.001)
    assert found.shares[0].name == "tool and springing"


@pytest.mark.parametrize("worse", [{"uncertainty": 0.02}, {"step": 0.02}, {"warm_spread": 0.01}, {"aim": 62.028}])
def test_whatever_is_known_less_costs_chance(worse: dict[str, Any]) -> None:
    assert fit(**worse).stages[2].chance < fit().stages[2].chance - 0.005


def test_squares_add_up() -> None:
    one = fit(uncertainty=1e-6, step=0.012, warm_spread=0.003).stages[3]
    assert one.spread == pytest.approx(math.sqrt(PROCESS_SPREAD**2 * (1 + 1 / 3) + 0.012**2 / 12 + 0.003**2), rel=0.02)


def test_the_ledger_tells_how_surely() -> None:
    setup = bore(feature={"end_diameter": "62 H7"}, settings={"depth_of_cut": "0.34 mm"})
    before = ledger(setup, [])
    assert before.fit is not None
    after = ledger(setup, [Measured(1, 61.0, 60.96, uncertainty=0.004)])
    assert after.fit is not None
    assert after.fit.now.measured == 1
    assert after.fit.now.chance > before.fit.now.chance + 0.3
    assert ledger(bore(feature={"end_diameter": "62 mm"}), []).fit is None
    cool = bore(feature={"end_diameter": "62 H7"}, house={"temperature_known": 0.1})
    assert {one.name: one.spread for one in ledger(cool, []).fit.shares}["temperature"] < 0.0001  # type: ignore[union-attr]


# reaming

REAM: dict[str, Any] = {
    **HOLE,
    "tool": {"drill": "reamer 10 H7 HSS bright", "chuck": "collet BT40 to 20"},
    "feature": {"diameter": "10 H7", "depth": "25 mm", "pilot": "9.8 mm", "roughness": "1.6 µm"},
    "settings": {"cutting_speed": "8 m/min", "feed_per_rev": "0.25 mm/rev", "coolant": "flood"},
}


def limits_of(**sections: Any) -> dict[str, Any]:
    return {one.name: one for one in evaluate(hole(REAM, **sections)).limits}


@pytest.mark.parametrize(("pilot", "kept"), [("9.8 mm", True), ("9.98 mm", False), ("9.4 mm", False), ("9.7 mm", True)])
def test_a_reamer_takes_some_tenths(pilot: str, kept: bool) -> None:
    """Common practice, no source: 0.1 to 0.3 mm on the diameter by size."""
    found = limits_of(feature={"pilot": pilot})["allowance"]
    assert found.severity is Severity.HARD
    assert found.broken is not kept


def test_a_reamer_s_own_words_and_reach() -> None:
    """Common practice, no source: IT7, a half to a third of the drill's speed, fed as much as it; size, not position."""
    outcome = evaluate(hole(REAM))
    assert outcome.feasible
    assert any("not place" in one.text for one in outcome.warnings)
    assert outcome.results["width"].value == pytest.approx(0.015, abs=0.001)  # IT7 of Ø10
    drill = {"feature": {"diameter": "10 mm", "depth": "25 mm"}, "tool": {"drill": "jobber 10.2 HSS bright"}}
    drilled = {one.name: one for one in evaluate(hole(**drill, settings={"cutting_speed": "25 m/min"})).limits}
    reamed = limits_of()
    assert 0.25 < reamed["book_speed"].upper / drilled["book_speed"].upper < 0.6
    assert 0.9 <= reamed["book_feed"].upper / drilled["book_feed"].upper <= 1.5  # Ø10 in steel 0.2 to 0.3 mm
    bare = evaluate(hole(REAM, feature={"pilot": None}))
    assert any(one.name == "no_pilot" and one.severity == "blocks" for one in bare.warnings)
