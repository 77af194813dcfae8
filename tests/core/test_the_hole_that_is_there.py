"""A thread starts from the hole that the part has: made in the line, found in the body, or drilled before by a remedy."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from cutting.doors.json_form import SHIPPED
from cutting.errors import AmbiguousQuantity, CuttingError, OutOfRange
from cutting.operations.frame.outcome import Outcome, Standing
from cutting.operations.frame.setup import Batch
from cutting.operations.registry import evaluate
from cutting.plan.plan import Clamping, Plan, Step, before
from cutting.plan.read import read_entries
from cutting.plan.setups import judged, request_of, setups
from cutting.plan.there import hole_there
from cutting.plan.values import given
from cutting.process.shaft_line import read_shaft_line
from cutting.workpiece.solid import Blank

DRILL = {"drill": "carbide 5xD 8.5 K30 fine PVD", "chuck": "collet BT40 to 20"}


def kinds_of(line: str) -> list[tuple[str, str]]:
    return [(one.kind, str(one.feature.get("diameter", ""))) for one in read_shaft_line(line, 40.0, 80.0)]


def test_a_line_drills_the_core_that_its_thread_wants() -> None:
    """ISO 2306 (from memory): M20 is tapped into Ø17.5; ISO 965-1: its crest lies between 17.294 and 17.744."""
    assert kinds_of("tapped M20 x 15") == [("drill", "17.5 mm"), ("tap", "")]
    assert kinds_of("drill Ø12 x 40, tapped M20 x 15") == [("drill", "12"), ("drill", "17.5 mm"), ("tap", "")]
    assert kinds_of("drill Ø17.5 x 30, tapped M20 x 15") == [("drill", "17.5"), ("tap", "")]


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("drill Ø18 x 40, tapped M20 x 15", "17.29 to 17.74"),
        ("drill Ø25 x 40, tapped M20 x 15", "17.29 to 17.74"),
        ("drill Ø17.5 x 18, tapped M20 x 15", "26.25 mm deep"),
    ],
)
def test_a_hole_that_is_too_wide_or_too_short_is_refused_by_name(line: str, said: str) -> None:
    with pytest.raises(OutOfRange) as refused:
        read_shaft_line(line, 40.0, 80.0)
    assert said in refused.value.message
    assert "M20" in refused.value.message


def plan(*steps: tuple[str, dict[str, Any], dict[str, str], dict[str, Any]], blank: Blank = Blank(40.0, 60.0)) -> Plan:  # noqa: B008
    made = tuple(
        Step(f"op{k}", kind, told=read_entries(kind, "feature", told), settings=read_entries(kind, "settings", settings),
             tool=tuple(tool.items()))
        for k, (kind, told, tool, settings) in enumerate(steps)
    )  # fmt: skip
    return Plan(blank, "C45", "machining centre", made, batch=Batch(50))


def holes(diameter: str, depth: str, **more: Any) -> tuple[str, dict[str, Any], dict[str, str], dict[str, Any]]:
    told = {"diameter": diameter, "depth": depth, "through": False, **more}
    return ("drill", told, DRILL, {"cutting_speed": "80 m/min", "feed_per_rev": "0.15 mm/rev", "coolant": "flood"})


def tapped(**more: Any) -> tuple[str, dict[str, Any], dict[str, str], dict[str, Any]]:
    tool = {"tap": "tap M10 spiral flute HSS cobalt PVD", "chuck": "collet BT40 to 20"}
    return ("tap", {"thread": "M10", "side": "inside", "length": "15 mm", **more}, tool, {"cutting_speed": "12 m/min", "coolant": "flood"})


def last(made: Plan) -> tuple[Any, Outcome]:
    outcome = judged(made, SHIPPED)[-1]
    assert isinstance(outcome, Outcome), outcome
    return setups(made, SHIPPED)[-1], outcome


CIRCLE = {"circle": "25 mm", "count": 3}


@pytest.mark.parametrize("where", [{}, CIRCLE])
def test_the_body_says_what_hole_is_there_whatever_the_thread_is_told(where: dict[str, Any]) -> None:
    setup, outcome = last(plan(holes("8.5 mm", "24 mm", **where), tapped(**where)))
    assert (setup.feature.there, setup.feature.hole) == (8.5, 24.0)
    assert outcome.standing is Standing.HOLDS, (outcome.warnings, [one.label for one in outcome.limits if not one.held])
    for diameter in ("7 mm", "9.3 mm"):
        _, wrong = last(plan(holes(diameter, "24 mm", **where), tapped(**where, there="8.5 mm", hole="24 mm")))
        assert wrong.standing is Standing.OVER
        assert wrong.binding.name == "core_hole"
    setup, short = last(plan(holes("8.5 mm", "17 mm", **where), tapped(**where, hole="30 mm")))
    assert setup.feature.hole == 17.0
    assert next(one for one in short.limits if one.name == "depth").broken


def test_without_a_hole_nothing_is_tapped() -> None:
    _, outcome = last(plan(tapped()))
    assert outcome.standing is Standing.OVER
    assert any(one.name == "no_hole" and one.severity == "blocks" for one in outcome.warnings)


def test_the_remedy_for_a_narrow_hole_is_an_operation_before_it_and_no_number() -> None:
    setup, _ = last(plan(holes("7 mm", "24 mm"), tapped()))
    core = next(one for one in evaluate(setup).limits if one.name == "core_hole")
    widened = [one.patch["before"] for one in core.remedies if "before" in one.patch]
    assert widened
    for step in widened:
        assert step["operation"] == "drill"
        assert 8.376 <= float(str(step["diameter"]).split()[0]) <= 8.676  # the crest of M10, ISO 965-1
    wide, _ = last(plan(holes("9.3 mm", "24 mm"), tapped()))
    over = next(one for one in evaluate(wide).limits if one.name == "core_hole")
    assert not [one for one in over.remedies if "before" in one.patch], "a hole grows no narrower"


CUTS = [
    ("groove", {"floor": "24 mm", "width": "4 mm", "distance_from_chuck": "30 mm"}, "feature.floor", "the bore there is Ø25"),
    ("groove", {"where": "inside", "floor": "41 mm", "width": "4 mm", "distance_from_chuck": "30 mm"}, "feature.floor", "Ø40 mm outside"),
    ("turn", {"end_diameter": "25 mm", "length": "20 mm"}, "feature.end_diameter", "the bore there is Ø25"),
    ("bore", {"end_diameter": "40 mm", "length": "20 mm"}, "feature.end_diameter", "Ø40 mm outside"),
    ("drill", {"diameter": "40 mm", "depth": "20 mm"}, "feature.diameter", "Ø40 mm outside"),
]


@pytest.mark.parametrize(("kind", "told", "field", "said"), CUTS)
def test_a_cut_through_the_wall_is_refused_by_name_and_one_that_leaves_a_wall_is_not(
    kind: str, told: dict[str, Any], field: str, said: str
) -> None:
    tube = Blank(40.0, 60.0, bore=25.0)
    [found] = setups(plan((kind, told, {}, {}), blank=tube), SHIPPED)
    assert isinstance(found, OutOfRange), found
    assert found.field == field
    assert said in found.message
    size = field.removeprefix("feature.")
    less = {"24 mm": "27 mm", "41 mm": "38 mm", "25 mm": "27 mm", "40 mm": "38 mm"}[told[size]]
    [held] = setups(plan((kind, {**told, size: less}, {}, {}), blank=tube), SHIPPED)
    assert held.field.startswith("tool"), held  # nothing is wrong but that it has no tool


def test_a_place_behind_the_part_is_said_by_its_place() -> None:
    behind = {"floor": "30 mm", "width": "4 mm", "distance_from_chuck": "-3 mm"}
    made = replace(plan(("groove", behind, {}, {})), machine="two-axis lathe")
    with pytest.raises(CuttingError) as refused:
        request_of(made, made.steps[0], SHIPPED)
    assert "distance_from_chuck" in refused.value.field


def test_a_groove_to_a_neck_is_a_cut_off_and_a_depth_without_a_sign_is_asked() -> None:
    deep = {"floor": "2 mm", "width": "3 mm", "distance_from_chuck": "30 mm"}
    [found] = setups(plan(("groove", deep, {}, {})), SHIPPED)
    assert "cut-off" in found.message
    with pytest.raises(AmbiguousQuantity) as asked:
        read_shaft_line("Ø38 x 40, groove 3 x 2 at 15", 40.0, 80.0)
    assert asked.value.readings == ("3 x Ø2", "3 x Ø34")
    for reading in ("3 x Ø34", "3 x 34"):
        assert read_shaft_line(f"Ø38 x 40, groove {reading} at 15", 40.0, 80.0)[-1].feature["floor"] == "34"


def test_only_a_hole_of_the_same_end_and_circle_counts() -> None:
    made = plan(holes("8.5 mm", "24 mm", **CIRCLE), tapped(**CIRCLE))
    drilled, thread = made.steps
    part, told = before(made, thread), dict(given(thread.told))
    assert hole_there(made, thread, part, told) == {"there": 8.5, "hole": 24.0}
    other = {
        "another circle": replace(drilled, told=read_entries("drill", "feature", {**holes("8.5 mm", "24 mm", circle="30 mm")[1]})),
        "the other end": replace(drilled, clamping=Clamping(turned_round=True)),
        "no hole": replace(drilled, kind="turn"),
    }
    for name, step in other.items():
        assert hole_there(made.with_step(step), thread, part, told) == {}, name


@pytest.mark.parametrize(
    ("drills", "size"),
    [
        ([(17.4, 60.0), (17.5, 60.0), (17.7, 60.0)], "17.5 mm"),
        ([(17.4, 60.0), (17.5, 20.0), (17.7, 60.0)], "17.4 mm"),  # the usual one does not reach
        ([(17.0, 60.0), (18.0, 60.0)], "17.5 mm"),  # none is inside the crest's limits
    ],
)
def test_the_core_drill_is_the_cribs_nearest_that_reaches(drills: list[tuple[float, float]], size: str) -> None:
    assert read_shaft_line("tapped M20 x 15", 40.0, 80.0, drills=drills)[0].feature["diameter"] == size


@pytest.mark.parametrize(
    ("said", "like"),
    [
        ("d35 x 40", "Ø35 x 40"),
        ("D 35 x 40", "Ø35 x 40"),
        ("35 dia x 40", "Ø35 x 40"),
        ("35 dia h6 x 40 Ra 0.8", "Ø35 h6 x 40 Ra 0.8"),
        ("ream Ø12 H7 x 30", "drill Ø12 H7 x 30"),
        ("reamed 12 H7 x 30", "drill Ø12 H7 x 30"),
        ("M20x1.5 inside x 20", "tapped M20x1.5 x 20"),
        ("M20 x 15 inside", "tapped M20 x 15"),
    ],
)
def test_a_size_is_said_as_shops_say_it(said: str, like: str) -> None:
    assert read_shaft_line(said, 40.0, 80.0) == read_shaft_line(like, 40.0, 80.0)
