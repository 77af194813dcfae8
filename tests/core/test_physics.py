"""How the cut answers to its settings: directions that every turner knows, and bounds read by hand."""

from __future__ import annotations

import itertools
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from cutting.operations.frame.outcome import Outcome, Standing
from cutting.operations.frame.setup import Goal
from cutting.operations.registry import evaluate_quickly
from cutting.operations.turned.setup import Setup

Build = Callable[..., Setup]


def value(outcome: Outcome, name: str) -> float:
    return outcome.results[name].value


def limit(outcome: Outcome, name: str) -> Any:
    return next(found for found in outcome.limits if found.name == name)


def test_speed_costs_life_by_taylors_exponent(setup: Build) -> None:
    slow, fast = (evaluate_quickly(setup(settings={"cutting_speed": v})) for v in (120, 150))
    # carbide n 0.25: life falls with the fourth power of speed
    assert value(slow, "tool_life") / value(fast, "tool_life") == pytest.approx((150 / 120) ** 4, rel=1e-6)


@pytest.mark.parametrize(
    ("name", "less", "more"),
    [
        ("roughness", {"settings": {"feed_per_rev": 0.2}}, {"settings": {"feed_per_rev": 0.35}}),
        ("cutting_power", {"settings": {"cutting_speed": 120}}, {"settings": {"cutting_speed": 160}}),
        ("cutting_force", {"hardness": 260}, {"hardness": 340}),
        ("size_error", {"holding": {"free_length": 230}}, {"holding": {"style": "chuck", "free_length": 230}}),
        ("operation_time", {"settings": {"depth_of_cut": 4}}, {"settings": {"depth_of_cut": 1}}),
        ("tool_life", {"skin": "weld"}, {"skin": "clean"}),
        ("tool_life", {"holding": {"interrupted": True}}, {"holding": {"interrupted": False}}),
        ("tool_life", {"settings": {"coolant": "dry"}}, {"settings": {"coolant": "flood"}}),
    ],
)
def test_directions_every_turner_knows(setup: Build, name: str, less: dict[str, Any], more: dict[str, Any]) -> None:
    assert value(evaluate_quickly(setup(**less)), name) < value(evaluate_quickly(setup(**more)), name)


def test_a_big_nose_pushes_more_in_a_light_cut(setup: Build) -> None:
    light = {"feature": {"start_diameter": 57, "end_diameter": 56.4, "length": 100}, "settings": {"feed_per_rev": 0.12}}
    small = evaluate_quickly(setup(tool={"insert": "CNMG 120404 middle P20", "holder": "PCLNR 2525 M12"}, **light))
    large = evaluate_quickly(setup(tool={"insert": "CNMG 120412 middle P20", "holder": "PCLNR 2525 M12"}, **light))
    assert value(large, "passive_force") > value(small, "passive_force")
    assert value(large, "roughness") < value(small, "roughness")


def test_a_smaller_angle_thins_the_chip_and_turns_the_force(setup: Build) -> None:
    square = evaluate_quickly(setup(tool={"insert": "SNMG 120408 middle P20", "holder": "PSBNR 2525 M12"}))
    slanted = evaluate_quickly(setup(tool={"insert": "SNMG 120408 middle P20", "holder": "PSSNR 2525 M12"}))
    assert value(slanted, "chip_thickness") < value(square, "chip_thickness")
    assert value(slanted, "passive_force") > value(square, "passive_force")
    assert value(slanted, "tool_life") > value(square, "tool_life")


def test_a_wiper_halves_the_roughness(setup: Build) -> None:
    plain = evaluate_quickly(setup(tool={"insert": "CNMG 120408 middle P20", "holder": "PCLNR 2525 M12"}))
    wiper = evaluate_quickly(setup(tool={"insert": "CNMG 120408 middle wiper P20", "holder": "PCLNR 2525 M12"}))
    # common practice: about half the Ra at the same feed
    assert value(wiper, "roughness") == pytest.approx(0.5 * value(plain, "roughness"), rel=1e-6)


def test_built_up_edge_spoils_slow_steel_but_not_iron(setup: Build) -> None:
    # groover, chart of the ratio of actual to ideal roughness (from memory): ductile metal at low speed about twice
    slow, fast = (evaluate_quickly(setup(settings={"cutting_speed": v})) for v in (40, 180))
    steel = value(slow, "roughness") / value(fast, "roughness")
    assert 1.6 < steel < 3.0
    iron = {"material": "EN-GJL-250", "tool": {"insert": "CNMG 120408 iron K15", "holder": "PCLNR 2525 M12"}}
    slow_iron, fast_iron = (evaluate_quickly(setup(settings={"cutting_speed": v}, **iron)) for v in (40, 180))
    assert value(slow_iron, "roughness") / value(fast_iron, "roughness") < min(1.45, 0.7 * steel)


def test_size_limits_come_from_the_drawing(setup: Build) -> None:
    def bends(end: str) -> Any:
        return limit(evaluate_quickly(setup(feature={"start_diameter": 57, "end_diameter": end, "length": 100})), "part_bends")

    assert bends("49").upper == pytest.approx(0.10)  # the house's number for roughing
    assert bends("49 h9").upper == pytest.approx(0.031)  # half of IT9
    assert bends("49 h6").upper == pytest.approx(0.008)


def test_speed_limits_read_the_lowest_of_machine_chuck_and_clamp(setup: Build) -> None:
    base = setup()
    assert limit(evaluate_quickly(base), "spindle_speed").upper == 3500  # the chuck, below the machine's 4000
    assert limit(evaluate_quickly(base.with_settings(spindle_clamp=1200.0)), "spindle_speed").upper == 1200


def test_power_is_read_at_the_speed_of_the_spindle(setup: Build) -> None:
    """11 kW from 955 1/min up, and in proportion below: at 838 1/min 9.65 kW."""
    outcome = evaluate_quickly(setup(settings={"cutting_speed": 150}))
    power = limit(outcome, "spindle_power")
    worst = outcome.passes[0].spindle_speed
    assert power.upper == pytest.approx(11 * worst / 955, rel=1e-6)
    assert power.value == pytest.approx(1.3 * value(outcome, "cutting_power"), rel=1e-6)


def test_planned_changes_keep_their_promise(setup: Build) -> None:
    base = setup()
    for goal, probability in ((Goal.CHEAPEST, 0.80), (Goal.MOST_SECURE, 0.95)):
        outcome = evaluate_quickly(replace(base, goal=goal))
        assert value(outcome, "secure") >= 100 * probability - 1.0
        assert value(outcome, "change_parts") <= value(outcome, "median_parts")
        assert value(outcome, "change_parts") == int(value(outcome, "change_parts"))


def test_bands_hold_their_value_and_say_how_honest_it_is(setup: Build) -> None:
    for result in evaluate_quickly(setup()).results.values():
        assert result.honesty in ("exact", "model", "rule")
        assert (result.low is None) == (result.high is None)
        assert result.working or result.name == "secure", result.name


def test_never_above_the_book_is_a_house_rule(setup: Build) -> None:
    strict = setup(settings={"cutting_speed": 230})
    assert evaluate_quickly(strict).standing is Standing.OVER
    free = replace(strict, house=replace(strict.house, never_above_book=False))
    assert evaluate_quickly(free).standing is not Standing.OVER


def test_passes_are_equal_and_reach_the_size(setup: Build) -> None:
    for depth in (0.9, 1.3, 2.0, 4.0):
        passes = evaluate_quickly(setup(settings={"depth_of_cut": depth})).passes
        assert max(p.depth for p in passes) <= depth + 1e-9
        assert np.ptp([p.depth for p in passes]) < 1e-12
        assert passes[-1].to_diameter == pytest.approx(49)
        for before, after in itertools.pairwise(passes):
            assert after.from_diameter == pytest.approx(before.to_diameter)
