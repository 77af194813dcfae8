"""Turning and facing: hand-worked cases, limits, remedies, and one code for one and for many."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from cutting.doors.json_form import read_setup
from cutting.errors import CuttingError
from cutting.operations.frame.nudges import ladders
from cutting.operations.frame.outcome import Severity, Standing
from cutting.operations.frame.rule import all_used
from cutting.operations.registry import evaluate, evaluate_quickly, explore
from cutting.operations.turned import limits as rules
from cutting.operations.turned.case import case_of, single_cutter
from cutting.operations.turned.kinds import NUDGED
from cutting.operations.turned.physics import cut
from cutting.operations.turned.plan import pass_depths, pass_diameters
from cutting.operations.turned.setup import Setup
from cutting.process.outline import Made, outline, part_after, stages_from
from cutting.quantities import read_quantity
from cutting.working import Recorder, Silent
from cutting.workpiece.solid import Blank
from tests.core.every_kind import TURN
from tests.core.slots import form

Build = Callable[..., Setup]


def limit(outcome: Any, name: str) -> Any:
    return next(found for found in outcome.limits if found.name == name)


def test_a_roughing_cut_worked_by_hand(setup: Build) -> None:
    """34CrNiMo6 at 300 HB, two equal cuts of 2 mm at 0.28: A 0.56 mm²; h, kc and Fc by the published formulae."""
    outcome = evaluate(setup())
    assert [p.from_diameter for p in outcome.passes] == [57.0, 53.0]
    assert outcome.passes[1].spindle_speed == pytest.approx(1000 * 150 / (np.pi * 53), rel=1e-6)
    nose_arc = 0.8 * np.radians(95)
    edge = nose_arc + (2 - 0.8 * (1 - np.cos(np.radians(95)))) / np.sin(np.radians(95))
    thickness = 0.56 / edge
    rake = 1 - 0.015 * (14 - 6 - 6)
    force = 2600 * thickness**-0.22 * rake * 0.56
    assert outcome.results["cutting_force"].value == pytest.approx(force, rel=1e-6)
    assert outcome.results["cutting_power"].value == pytest.approx(force * 150 / 60000, rel=1e-6)
    assert sum(p.seconds for p in outcome.passes) == pytest.approx(
        sum(60 * 202 * np.pi * d / (1000 * 150 * 0.28) for d in (57, 53)), rel=1e-6
    )


def test_working_is_what_was_computed(setup: Build) -> None:
    force = evaluate(setup()).results["cutting_force"]
    steps = {step.key: step for step in force.working}
    assert steps["cutting_force"].value == pytest.approx(force.value)
    assert steps["specific_force"].value * steps["chip_area"].value == pytest.approx(force.value)
    assert "2600" in steps["specific_force"].substituted
    assert steps["specific_force"].source == "Kienzle 1952"
    assert force.low is not None
    assert read_quantity(force.low.metric, "force").value == pytest.approx(0.75 * force.value, abs=1)


def test_limits_come_sorted_and_none_is_lost(setup: Build) -> None:
    outcome = evaluate(
        setup(feature={"start_diameter": 57, "end_diameter": "49 h9", "length": 200, "distance_from_chuck": 20, "roughness": 6.3})
    )
    used = [found.utilisation / found.kept for found in outcome.limits if not (found.wanting and found.severity is Severity.HARD)]
    assert used == sorted(used, reverse=True)
    assert {found.name for found in outcome.limits} == {rule.name for rule in rules.RULES} - {
        "book_feed",
        "book_depth",
        "clearance",
        "general_finish",
        "at_the_bush",
    }  # no supplier's book here, the tip stands on centre, and the drawing says its finish


@pytest.mark.parametrize(
    ("changes", "name"),
    [
        ({"settings": {"feed_per_rev": 0.7, "depth_of_cut": 4}}, "spindle_power"),
        ({"settings": {"feed_per_rev": 0.6}}, "nose_feed"),
        ({"settings": {"feed_per_rev": 0.06, "depth_of_cut": 2}}, "chip_window"),
        ({"settings": {"cutting_speed": 320}}, "book_speed"),
        ({"holding": {"style": "chuck", "free_length": 300}, "feature": {"length": 270, "end_diameter": "49 h7"}}, "part_bends"),
        ({"settings": {"spindle_clamp": 500}, "feature": {"roughness": 0.8}}, "finish"),
        ({"settings": {"overhang": 160}}, "tool_bends"),
        ({"holding": {"grip_share": 0.05}}, "jaw_grip"),
        ({"settings": {"cutting_speed": 30}}, "useful_speed"),
        (
            {
                "tool": {"insert": "CNMG 120404 light P10", "holder": "PCLNR 2525 M12"},
                "settings": {"depth_of_cut": 4, "feed_per_rev": 0.02},
            },
            "chip_window",
        ),
        ({"settings": {"feed_per_rev": 0.012, "depth_of_cut": 0.4}}, "thin_chip"),
    ],
)
def test_each_mistake_meets_its_limit(form: Callable[..., dict[str, Any]], changes: dict[str, Any], name: str) -> None:
    made = form()
    for key, value in changes.items():
        made[key] = {**made[key], **value}
    assert limit(evaluate(read_setup(made)), name).broken


def test_a_remedy_does_what_it_says(setup: Build) -> None:
    broken = setup(settings={"feed_per_rev": 0.55, "depth_of_cut": 2})
    outcome = evaluate(broken)
    assert not outcome.feasible
    binding = outcome.binding
    assert binding.broken
    mended = evaluate(setup(settings={"feed_per_rev": 0.55, "depth_of_cut": 2, **binding.remedies[0].patch["settings"]}))
    assert limit(mended, binding.name).utilisation <= 1
    assert limit(mended, binding.name).held
    assert mended.standing is not Standing.OVER
    seconds = mended.results["operation_time"].value - outcome.results["operation_time"].value
    assert f"{seconds:+.1f} s".replace("-", "−") in binding.remedies[0].effect.metric


def test_going_faster_is_faster_and_sound(setup: Build) -> None:
    calm = setup(settings={"cutting_speed": 110, "feed_per_rev": 0.2})
    before = evaluate(calm)
    offer = before.faster[0]
    after = evaluate(setup(settings={"cutting_speed": 110, "feed_per_rev": 0.2, **offer.patch["settings"]}))
    assert after.feasible
    assert after.results["operation_time"].value < before.results["operation_time"].value


def test_support_stiffens_a_slender_part(form: Callable[..., dict[str, Any]], setup: Build) -> None:
    alone = evaluate(setup(holding={"style": "chuck"}))
    held = evaluate(setup())
    assert alone.results["size_error"].value > 5 * held.results["size_error"].value
    assert any(w.name == "slender" for w in alone.warnings)


def test_gearbox_takes_its_own_steps(setup: Build) -> None:
    outcome = evaluate(setup(machine="geared lathe", settings={"coolant": "flood", "feed_per_rev": 0.27}))
    for one in outcome.passes:
        assert one.spindle_speed in (710.0, 1000.0, 500.0)
        assert one.feed_per_rev == 0.25
        assert one.cutting_speed <= 150


def test_clamp_holds_the_spindle_and_says_so(setup: Build) -> None:
    outcome = evaluate(setup(settings={"spindle_clamp": 600}))
    assert max(p.spindle_speed for p in outcome.passes) == 600
    assert any(w.name == "speed_not_reached" for w in outcome.warnings)


@pytest.mark.parametrize(
    ("changes", "name"),
    [
        ({"feature": {"start_diameter": 57, "end_diameter": 49, "length": 200, "distance_from_chuck": 20, "fillet": 0.4}}, "fit_fillet"),
        ({"tool": {"insert": "CNMG 120408 middle P20", "holder": "PCLNR 2020 K12"}}, "fit_shank"),
        (
            {
                "tool": {"insert": "SNMG 120408 middle P20", "holder": "PSBNR 2525 M12"},
                "feature": {"start_diameter": 57, "end_diameter": 49, "length": 200, "distance_from_chuck": 20, "shoulder": True},
            },
            "fit_shoulder",
        ),
        ({"feature": {"start_diameter": 57, "end_diameter": 49, "length": 200, "distance_from_chuck": 0}}, "fit_chuck"),
        ({"tool": {"insert": "CNMG 120408 middle P20", "holder": "PCKNR 2525 M12"}}, "fit_operation"),
    ],
)
def test_fit_is_checked(setup: Build, changes: dict[str, Any], name: str) -> None:
    outcome = evaluate(setup(**changes))
    assert name in {w.name for w in outcome.warnings if w.severity == "blocks"}
    assert not outcome.feasible


def test_facing_next_to_a_centre_is_refused(setup: Build) -> None:
    outcome = evaluate(
        setup(
            operation="face",
            feature={"start_diameter": 60, "end_diameter": 10, "length": 2},
            holding={"style": "chuck and centre", "free_length": 200},
        )
    )
    assert "fit_centre" in {w.name for w in outcome.warnings}


def test_facing_time_uses_the_clamp(setup: Build) -> None:
    face = {"operation": "face", "feature": {"start_diameter": 60, "end_diameter": 0, "length": 1}}
    slow = evaluate(setup(**face, settings={"spindle_clamp": 900, "depth_of_cut": 1}))
    fast = evaluate(setup(**face, settings={"depth_of_cut": 1}))
    assert slow.passes[0].seconds > 1.3 * fast.passes[0].seconds
    assert any(w.name == "no_clamp" for w in fast.warnings)
    assert not any(w.name == "no_clamp" for w in slow.warnings)


def test_the_outline_keeps_a_boss_and_loses_a_faced_end(setup: Build) -> None:
    boss = setup(operation="face", feature={"start_diameter": 64, "end_diameter": 14, "length": 2})
    clean = setup(operation="face", feature={"start_diameter": 64, "end_diameter": 0, "length": 2})
    seat = setup(feature={"start_diameter": 64, "end_diameter": 49, "length": 100, "distance_from_chuck": 50})
    kept = outline(Blank(64, 200, 0), [Made("a", boss), Made("b", seat)])
    assert kept.finished[-1] == (200, 7)
    assert (150.0, 24.5) in kept.finished
    assert outline(Blank(64, 200, 0), [Made("a", clean)]).finished[-1] == (198, 32)
    middle = stages_from(part_after(Blank(64, 200, 0), [Made("a", clean)]), seat, evaluate(seat).passes)
    assert middle[0].tip[0] == pytest.approx(150 - 0.36 * 100)
    assert middle[-1].tip[1] == pytest.approx(24.5)
    assert middle[0].corners[-1] == (198, 32)


def test_chip_forms_follow_the_window(setup: Build) -> None:
    assert evaluate(setup(settings={"feed_per_rev": 0.05})).chip.verdict == "strings"
    assert evaluate(setup(settings={"feed_per_rev": 0.3})).chip.verdict == "breaks"
    assert evaluate(setup(settings={"feed_per_rev": 0.75})).chip.verdict == "packs"
    iron = evaluate(setup(material="EN-GJL-250", tool={"insert": "CNMG 120408 iron K15", "holder": "PCLNR 2525 M12"}))
    assert (iron.chip.form, iron.chip.code) == ("elemental", "7")


def test_a_metal_that_no_table_knows_for_this_tool_is_refused_by_name(setup: Build) -> None:
    with pytest.raises(CuttingError, match="no starting speed for pcd"):
        evaluate(setup(tool={"insert": "CCGW 09T304 ground N05", "holder": "SCLCR 2020 K09"}))


@settings(max_examples=25, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(speeds=st.lists(st.floats(20, 400), min_size=3, max_size=6), feeds=st.lists(st.floats(0.02, 0.8), min_size=3, max_size=6))
def test_many_at_once_are_the_same_as_one_by_one(setup: Build, speeds: list[float], feeds: list[float]) -> None:
    """Row i of a vectorised run holds what the recorded single run gives."""
    count = min(len(speeds), len(feeds))
    base = setup()
    case, cutter = case_of(base), single_cutter(base)
    column = [np.array(values[:count])[:, None] for values in (speeds, feeds)]
    depth, diameters = float(pass_depths(base)[0]), pass_diameters(base)
    many = cut(case, cutter, column[0], column[1], depth, diameters, Silent())
    used = all_used(rules.RULES, many)
    for k in range(count):
        one = cut(case, cutter, speeds[k], feeds[k], depth, diameters, Recorder())
        for name in ("operation_cost", "secure", "size_error", "roughness", "tool_life", "temperature_rise", "window_gauge"):
            row = np.broadcast_to(getattr(many, name), (count, *np.shape(getattr(many, name))[1:]))[k]
            assert np.ravel(row)[-1] == pytest.approx(np.ravel(getattr(one, name))[-1], rel=1e-9), name
        alone = all_used(rules.RULES, one)
        for name, levels in used.items():
            assert float(np.broadcast_to(levels, (count, 1))[k, 0]) == pytest.approx(float(alone[name].ravel()[0]), rel=1e-9), name


@settings(max_examples=30, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(feed=st.floats(0.06, 0.4), more=st.floats(1.05, 1.8))
def test_more_feed_presses_more_and_lasts_less(setup: Build, feed: float, more: float) -> None:
    light, heavy = (evaluate_quickly(setup(settings={"feed_per_rev": f})) for f in (feed, feed * more))
    for name, grows in (("cutting_force", True), ("feed_force", True), ("tool_life", False)):
        a, b = light.results[name].value, heavy.results[name].value
        assert (b > a) if grows else (b <= a * (1 + 1e-9)), name


def test_contours_stand_where_the_limit_breaks(setup: Build) -> None:
    base = setup()
    drawn = explore(base)
    power = next(c for c in drawn.contours if c.name == "spindle_power")
    feed, depth = power.lines[0][len(power.lines[0]) // 2]
    # the map reads depth as one pass to the final diameter
    one = replace(base, feature=replace(base.feature, start_diameter=base.feature.turned_diameter + 2 * depth))
    at = evaluate(one.with_settings(feed_per_rev=feed, depth_of_cut=depth))
    assert limit(at, "spindle_power").utilisation == pytest.approx(1.0, abs=0.03)


@pytest.mark.parametrize("system", ["metric", "inch"])
def test_ladders_step_through_values_that_read_back(setup: Build, system: str) -> None:
    base = setup()
    for name, kinds in (("cutting_speed", ("cutting_speed",)), ("feed_per_rev", ("feed_per_rev",)), ("depth_of_cut", ("length",))):
        ladder = ladders(base, evaluate_quickly(base), NUDGED, system)[name]
        values = [read_quantity(rung, *kinds).value for rung in ladder.rungs]
        assert values == sorted(values), name
        assert len(set(values)) == len(values), name
    geared = setup(machine="geared lathe", settings={"coolant": "flood"})
    speeds = [
        read_quantity(rung, "cutting_speed", "spindle_speed").value
        for rung in ladders(geared, evaluate_quickly(geared), NUDGED, system)["cutting_speed"].rungs
    ]
    assert speeds == list(geared.machine.speeds)
    depth = ladders(base, evaluate_quickly(base), NUDGED, system)["depth_of_cut"]
    there = read_quantity(depth.rungs[depth.place], "length").value
    assert base.with_settings(depth_of_cut=there).pass_count == base.pass_count


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"settings": {"cutting_speed": 0}}, "settings.cutting_speed"),
        ({"settings": {"feed_per_rev": "fast"}}, "settings.feed_per_rev"),
        ({"settings": {"depth_of_cut": "1,500"}}, "settings.depth_of_cut"),
        ({"material": "unobtainium"}, "material"),
        ({"machine": "the big one"}, "machine"),
        ({"tool": {"insert": "CNMG 999999", "holder": "PCLNR 2525 M12"}}, "tool.insert"),
        ({"hardness": 5000}, "hardness"),
        ({"goal": "prettiest"}, "goal"),
        ({"settings": {"coolant": "high"}}, "settings.coolant"),
        ({"house": {"wear_factor": 9}}, "house.wear_factor"),
        ({"batch": {"pieces": 0}}, "batch.pieces"),
        ({"units": "cubits"}, "units"),
        ({"operation": "broach"}, "operation"),
        ({"feature": {"start_diameter": 40, "end_diameter": 49, "length": 20}}, "feature.end_diameter"),
        ({"feature": {"start_diameter": 57, "end_diameter": 49, "length": 900}}, "feature.length"),
        ({"colour": "red"}, "colour"),
        ({"tool": {"insert": "CNMG 120408 middle P20", "holder": "SCLCR 2020 K09"}}, "tool.holder"),
    ],
)
def test_bad_input_names_its_field(form: Callable[..., dict[str, Any]], change: dict[str, Any], field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        evaluate(read_setup(form(**change)))
    assert refused.value.field == field
    assert refused.value.message


def test_the_drawing_is_told_of_the_steady_rest_and_of_the_feed() -> None:
    """What stands against the part and which way the tool goes are the scene's own: the picture asks nobody else."""
    plain = evaluate(read_setup(TURN)).scene
    assert (plain["steady"], plain["direction"]) == (0.0, "towards the chuck")
    held = form(TURN, holding={"style": "chuck", "steady": 90}, settings={"direction": "away from the chuck"})
    scene = evaluate(read_setup(held)).scene
    assert (scene["steady"], scene["direction"]) == (90.0, "away from the chuck")
