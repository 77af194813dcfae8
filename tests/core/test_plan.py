"""The plan of a part: its bodies, its set-ups, what stays when it is held otherwise; numbers stay the numbers that were typed."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from cutting.doors.json_form import SHIPPED, read_setup
from cutting.errors import CuttingError
from cutting.operations.frame.learned import Learned
from cutting.operations.frame.outcome import Outcome
from cutting.operations.frame.setup import Batch, Goal
from cutting.operations.registry import evaluate_quickly
from cutting.plan import setups
from cutting.plan.plan import Clamping, Plan, Step, before, bodies, settled
from cutting.plan.read import read_bar, read_each, read_entries
from cutting.plan.setups import Tried
from cutting.plan.values import Values, given
from cutting.quantities.dimension import Dimension
from cutting.workpiece.layers import read_layers
from cutting.workpiece.solid import Blank
from tests.core.every_kind import EVERY_KIND

INSERT = {"insert": "CNMG 120408 middle P20", "holder": "PCLNR 2525 M12"}
DRILL = {"drill": "carbide 5xD 8.5 K30 fine PVD", "chuck": "collet ER32 in the spindle"}
TURN = {"cutting_speed": "150 m/min", "feed_per_rev": "0.25 mm/rev", "depth_of_cut": "2 mm", "coolant": "flood"}


def step(
    identity: str, kind: str, feature: dict[str, Any], settings: dict[str, Any] = TURN, tool: dict[str, str] = INSERT, **more: Any
) -> Step:
    sections = {"told": read_entries(kind, "feature", feature), "settings": read_entries(kind, "settings", settings)}
    holding = {"holding": read_entries(kind, "holding", more.pop("holding", {}))}
    return Step(identity, kind, **sections, **holding, tool=tuple(tool.items()), **more)


def shaft(diameter: float = 60.0, out: float = 150.0, **more: Any) -> Plan:
    """Faced, turned in two steps, grooved."""
    steps = (
        step("face", "face", {"end_diameter": "0", "length": "2"}),
        step("rough", "turn", {"end_diameter": f"{diameter - 8:g}", "length": "80"}),
        step("seat", "turn", {"end_diameter": f"{diameter - 10:g} h9", "length": "40", "distance_from_chuck": f"{out - 42:g}"}),
    )
    return Plan(Blank(diameter, out), "C45", "two-axis lathe", steps, **more)


def test_bodies_stand_between_the_steps() -> None:
    plan = shaft()
    walked = bodies(plan)
    assert len(walked) == 4
    assert [one.face for one in walked] == [150.0, 148.0, 148.0, 148.0]
    assert walked[2].steps[:2] == ((0.0, 60.0), (68.0, 52.0))  # 80 mm from the face that was faced
    assert walked[3].at(120.0) == pytest.approx(49.969)  # the middle of 50 h9
    for k, one in enumerate(plan.steps):
        assert before(plan, one) == walked[k]
    assert before(plan, None) == walked[3]
    unread = plan.with_step(step("rough", "turn", {"end_diameter": "soon", "length": "80"}))
    assert bodies(unread)[2] == bodies(unread)[1], "what cannot be read takes nothing away"
    with pytest.raises(CuttingError, match=r"feature.end_diameter"):
        setups.setup_of(unread, unread.step("rough"), SHIPPED)


def test_a_set_up_of_a_plan_is_the_one_of_its_form() -> None:
    plan = shaft(batch=Batch(80), goal=Goal.FASTEST)
    found = setups.setup_of(plan, plan.step("seat"), SHIPPED)
    form = {
        "operation": "turn", "material": "C45", "machine": "two-axis lathe", "goal": "fastest", "batch": {"pieces": 80}, "tool": INSERT,
        "feature": {"start_diameter": 52, "end_diameter": "50 h9", "length": 40, "distance_from_chuck": 108, "shoulder": True},
        "settings": TURN,
        "holding": {"free_length": 150, "grip_diameter": 60, "steps": [[0, 60], [68, 52], [148, 60]], "face": 148},
    }  # fmt: skip
    by_form = read_setup(form)
    assert evaluate_quickly(found).results["operation_cost"].value == evaluate_quickly(by_form).results["operation_cost"].value
    assert (found.feature.start_diameter, found.holding.steps, found.holding.face) == (
        52.0,
        ((0.0, 60.0), (68.0, 52.0), (148.0, 60.0)),
        148.0,
    )
    outcomes = setups.judged(plan, SHIPPED)
    assert all(isinstance(one, Outcome) for one in outcomes)
    assert [type(one).__name__ for one in setups.setups(plan, SHIPPED)] == ["Setup"] * 3


def test_numbers_stay_numbers() -> None:
    """Above Ø1000 no hundredth is lost, and what was typed stands beside what it meant."""
    plan = shaft(1234.567, 150.0)
    assert setups.found_by(plan, plan.step("rough"), SHIPPED)[1]["grip_diameter"] == 1234.567
    told = settled("turn", read_each("turn", {"end_diameter": "1200", "length": "80"}), before(plan, plan.step("rough")))
    assert told["start_diameter"] == 1234.567
    read = given(read_entries("turn", "feature", {"end_diameter": "1-3/8 in", "length": "40"}))
    assert read["end_diameter"].nominal == pytest.approx(34.925)
    assert read.text("end_diameter") == "1-3/8 in"
    assert (read.has("roughness"), read.length("length"), read.dimension("end_diameter")) == (False, 40.0, pytest.approx(34.925))
    assert dict(read_each("turn", {"end_diameter": "40", "length": "soon"})) == {"end_diameter": Dimension(40.0, entered="40")}


def test_a_part_that_is_pulled_out_keeps_its_plan() -> None:
    """Places belong to the part: 2 mm further out of the jaws every cut is where it was, seen from the face."""
    plan = shaft()
    for by in (2.0, -3.0):
        held = step(
            "seat",
            "turn",
            {"end_diameter": "50 h9", "length": "40", "distance_from_chuck": "108"},
            holding={"free_length": f"{150 + by} mm"},
        )
        moved = plan.with_step(held)
        here, there = (setups.setup_of(one, one.step("seat"), SHIPPED) for one in (plan, moved))
        assert there.feature.distance_from_chuck == here.feature.distance_from_chuck + by
        assert there.holding.face == here.holding.face + by
        assert [(round(a - by, 9), d) for a, d in there.holding.steps[1:]] == list(here.holding.steps[1:])
        assert there.holding.steps[0] == here.holding.steps[0], "the bar goes on behind"
        assert (there.feature.start_diameter, there.feature.length) == (here.feature.start_diameter, here.feature.length)
    profile = Values((("profile", ((20.0, 40.0), (60.0, 49.0)), ""), ("length", 40.0, "")))
    assert dict(profile.moved(["profile"], 2.0)) == {"profile": ((22.0, 40.0), (62.0, 49.0)), "length": 40.0}


def test_the_other_end_is_found_turned_round() -> None:
    plan = replace(shaft(), blank=Blank(60.0, 150.0, length=200.0))
    other = step("other", "face", {"end_diameter": "0", "length": "1"}, clamping=Clamping(True))
    plan = replace(plan, steps=(*plan.steps, other))
    part, holding = setups.found_by(plan, other, SHIPPED)
    assert part.face == holding["free_length"] == pytest.approx(198.0 - 25.0)  # 25 mm of the turned end are gripped (common practice)
    assert holding["grip_diameter"] == pytest.approx(49.969)
    assert bodies(plan)[-1].back == pytest.approx(-50.0 + 1.0)
    far = plan.with_step(replace(other, clamping=Clamping(True, 500.0), holding=read_entries("face", "holding", {"free_length": "500"})))
    with pytest.raises(CuttingError, match="outside 0 to 198"):
        setups.setup_of(far, far.step("other"), SHIPPED)


def test_layers_are_drilled_as_a_stack_and_turned_in_the_slowest() -> None:
    layers = read_layers("C45: 10 mm; X5CrNi18-10: 30 mm; EN AW-6082: 40 mm", 80.0)
    drill = step(
        "hole", "drill", {"diameter": "8.5", "depth": "60", "through": False}, {"cutting_speed": "60", "feed_per_rev": "0.1"}, DRILL
    )
    plan = Plan(Blank(60.0, 80.0), "C45", "mill-turn", (drill,), layers=layers)
    drilled = setups.setup_of(plan, plan.step("hole"), SHIPPED)
    assert [(one.name, one.thickness) for one in drilled.layers] == [("C45", 10.0), ("X5CrNi18-10", 30.0), ("EN AW-6082", 20.0)]
    pulled = plan.with_step(replace(drill, holding=read_entries("drill", "holding", {"free_length": "85 mm"})))
    assert [one.thickness for one in setups.setup_of(pulled, pulled.step("hole"), SHIPPED).layers] == [10.0, 30.0, 20.0]
    other = replace(plan.with_step(replace(drill, clamping=Clamping(True))), blank=Blank(60.0, 80.0, length=80.0))
    assert [(one.name, one.thickness) for one in setups.setup_of(other, other.step("hole"), SHIPPED).layers] == [
        ("EN AW-6082", 40.0),
        ("X5CrNi18-10", 20.0),
    ]
    turn = step("turn", "turn", {"end_diameter": "50", "length": "35"})
    both = Plan(Blank(60.0, 80.0), "C45", "mill-turn", (turn,), layers=layers)
    assert setups.metals(both, turn, before(both, turn), SHIPPED) == ("X5CrNi18-10", "C45")
    assert setups.setup_of(both, turn, SHIPPED).work.material.name == "X5CrNi18-10"


def test_what_the_part_is_worth_counts_where_it_is_risked() -> None:
    tapped = EVERY_KIND["tap"]
    steps = (
        step("drill", "drill", EVERY_KIND["drill"]["feature"], EVERY_KIND["drill"]["settings"], EVERY_KIND["drill"]["tool"]),
        step("tap", "tap", tapped["feature"], tapped["settings"], tapped["tool"]),
    )
    plan = Plan(Blank(100.0, 40.0), "C45", "machining centre", steps, blank_price=12.0)
    drilled = evaluate_quickly(setups.setup_of(plan, plan.step("drill"), SHIPPED)).results["operation_cost"].value
    assert setups.setup_of(plan, plan.step("tap"), SHIPPED).batch.part_value == pytest.approx(12.0 + drilled, abs=1e-4)
    assert setups.setup_of(plan, plan.step("drill"), SHIPPED).batch.part_value is None
    assert setups.setup_of(plan, plan.step("tap"), SHIPPED, Tried(part_value=99.0)).batch.part_value == 99.0
    request, stock = setups.request_of(plan, plan.step("tap"), SHIPPED)
    assert len(stock.places[0]) > 1
    assert request.settings.cutting_speed == 100.0 or request.settings.cutting_speed > 0


def test_hours_alone_and_what_was_learned_reach_every_step() -> None:
    plan = shaft(batch=Batch(500, unattended_hours=4.0))
    alone = setups.judged(plan, SHIPPED)
    seconds = sum(one.results["operation_time"].value for one in alone if isinstance(one, Outcome))
    assert all(isinstance(one, Outcome) for one in alone)
    assert seconds > 0
    asked: list[tuple[dict[str, str], tuple[str, ...]]] = []

    def learned(tool: Any, metals: tuple[str, ...]) -> Learned:
        asked.append((dict(tool), metals))
        return Learned()

    fast = replace(plan, goal=Goal.FASTEST)
    goals = [setups.setup_of(fast, fast.step("rough"), SHIPPED, one).goal for one in (Tried(), Tried(goal=Goal.MOST_SECURE))]
    assert goals == [Goal.FASTEST, Goal.MOST_SECURE]
    setups.setup_of(plan, plan.step("rough"), replace(SHIPPED, learned=learned))
    setups.request_of(plan, plan.step("rough"), replace(SHIPPED, learned=learned))
    assert asked == [(INSERT, ("C45",)), ({}, ("C45",))]


def test_what_a_kind_does_not_ask_of_its_holding_is_left_out() -> None:
    assert dict(given(read_entries("drill", "holding", {"style": "chuck and centre", "free_length": "30"}))).keys() <= {
        "free_length",
        "style",
    }
    assert isinstance(read_entries("turn", "holding", {"grip_share": "soon"}), CuttingError)
    assert read_bar({"length": "3 m", "yearly": 500})["length"] == 3000.0
    plan = shaft()
    nothing = plan.with_step(replace(plan.step("seat"), tool=()))
    with pytest.raises(CuttingError, match="is missing"):
        setups.setup_of(nothing, nothing.step("seat"), SHIPPED)
