"""Cut-off as an operation: its form, its limits one mistake at a time, its remedies, its working."""

from __future__ import annotations

import copy
import json
from pathlib import Path
from typing import Any

import pytest

from cutting.doors.command_line import main
from cutting.doors.json_form import read_setup
from cutting.errors import CuttingError
from cutting.operations.frame.outcome import Outcome, Severity
from cutting.operations.registry import evaluate, explore, relax
from cutting.operations.slots.cut_off.setup import CutOffSetup
from cutting.tooling.bought import shipped
from cutting.tooling.groove_inserts import plunge_feeds, usual_width
from tests.core.tools import groove_blades

PIN: dict[str, Any] = {
    "operation": "cut off",
    "material": "11SMn30",
    "machine": "mill-turn",
    "tool": {"insert": "edge 3 middle middle positive P30 CVD", "blade": "reinforced blade 3 reach 21"},
    "feature": {"diameter": "40 mm", "part_length": "44 mm", "distance_from_chuck": "8 mm", "flatness": "40 µm", "pip": "1.5 mm"},
    "settings": {"cutting_speed": "140 m/min", "feed_per_rev": "0.12 mm/rev", "spindle_clamp": "4000", "coolant": "high"},
    "holding": {"part_catcher": True},
    "bar": {"length": "3 m", "price": 40, "yearly": 32000},
    "batch": {"pieces": 8000},
}


def pin(**changes: Any) -> CutOffSetup:
    made = copy.deepcopy(PIN)
    for key, value in changes.items():
        made[key] = {**made.get(key, {}), **value} if isinstance(value, dict) else value
    found = read_setup(made)
    assert isinstance(found, CutOffSetup)
    return found


def used(outcome: Outcome, name: str) -> float:
    return next(limit.utilisation for limit in outcome.limits if limit.name == name)


NARROW = {"insert": "edge 2 light light positive M15 PVD", "blade": "screw holder 2 reach 12"}
LEAD = {"insert": "edge 3 lead 6 R light positive M15 PVD", "blade": "reinforced blade 3 reach 21"}


@pytest.mark.parametrize(
    ("changes", "name"),
    [
        ({"feature": {"diameter": "44 mm"}}, "reach"),
        ({"feature": {"diameter": "44 mm"}}, "support_relief"),
        ({"settings": {"feed_per_rev": 0.3}}, "plunge_feed"),
        ({"settings": {"cutting_speed": 420}}, "book_speed"),
        ({"settings": {"overhang": "60 mm"}}, "blade_overhang"),
        ({"feature": {"distance_from_chuck": "150 mm"}}, "bar_support"),
        ({"feature": {"pip": "0.3 mm"}}, "pip"),
        ({"tool": LEAD, "feature": {"flatness": "2 µm"}}, "flatness"),
        ({"settings": {"lean": "0.5°"}}, "flatness"),
        ({"settings": {"centre_height": "0.3 mm"}}, "centre_height"),
        ({"settings": {"lean": "0.5°"}}, "lean"),
        ({"feature": {"diameter": "30 mm"}, "tool": NARROW}, "reach"),
    ],
)  # fmt: skip
def test_each_mistake_meets_its_limit(changes: dict[str, Any], name: str) -> None:
    assert used(evaluate(pin(**changes)), name) > 1
    assert used(evaluate(pin()), name) <= 1


def test_the_sound_pin_is_sound_and_says_why() -> None:
    outcome = evaluate(pin())
    assert outcome.feasible
    order = [x.utilisation / x.kept for x in outcome.limits if not (x.wanting and x.severity is Severity.HARD)]
    assert order == sorted(order, reverse=True)
    assert all(limit.why and limit.source for limit in outcome.limits)
    steps = {step.key: step for step in outcome.results["side_force"].working}
    assert steps["side_force"].value == pytest.approx(outcome.results["side_force"].value)
    assert steps["feed_force"].value == pytest.approx(outcome.results["feed_force"].value)


def test_an_unsupported_bar_is_mended_by_what_is_offered() -> None:
    broken = pin(feature={"distance_from_chuck": "150 mm"})
    offers = relax(broken, "bar_support")
    near = next(one for one in offers if "feature" in one.patch)
    mended = evaluate(pin(feature=near.patch["feature"]))
    assert used(mended, "bar_support") <= 1
    assert evaluate(broken).results["operation_time"].value == pytest.approx(mended.results["operation_time"].value)


def test_the_pip_is_lowered_without_losing_flatness() -> None:
    proud = pin(feature={"pip": "0.3 mm"})
    texts = {one.text.metric: one for one in relax(proud, "pip")}
    assert "sub-spindle holds the part" in texts
    held = evaluate(pin(feature={"pip": "0.3 mm"}, holding={"sub_spindle": True}))
    assert held.feasible
    assert held.results["flatness"].value == pytest.approx(evaluate(proud).results["flatness"].value)


def test_two_tools_by_edge_and_by_piece() -> None:
    """Two edges at nearly the price of one: dearer to buy, cheaper a piece where both reach."""
    tool = {"insert": "single edge 3 middle middle positive P30 CVD", "blade": "reinforced blade 3 reach 21"}
    single, double = evaluate(pin(tool=tool)), evaluate(pin())
    assert double.results["operation_cost"].value < single.results["operation_cost"].value
    assert double.results["median_parts"].value == pytest.approx(single.results["median_parts"].value)


def test_narrow_saves_bar() -> None:
    wide = evaluate(pin()).results
    bar = {"insert": "hand-ground edge 2.4 hand-ground HSS cobalt", "blade": "screw holder 2.4 reach 16"}
    narrow = evaluate(pin(tool=bar, feature={"diameter": "30 mm"}, settings={"feed_per_rev": 0.04, "cutting_speed": 35})).results
    assert wide["kerf_per_piece"].value / narrow["kerf_per_piece"].value == pytest.approx(3 / 2.4)


def test_tubes_schools_and_own_zones() -> None:
    tube = explore(pin(feature={"bore": "30 mm"}))
    assert tube.diameter[-1] == 30.0
    full, early, late = (explore(pin(settings={"feed_zones": school})).total_seconds for school in ("full", "early", "late"))
    assert full < late < early
    own = explore(pin(settings={"feed_zones": "12:0.06; 4:0.02"}))
    assert own.feed[-1] == pytest.approx(0.02)
    assert any(w.name == "full_feed" for w in evaluate(pin(settings={"feed_zones": "full"})).warnings)


def test_stopping_short_leaves_the_stub_and_saves_the_slowest_part() -> None:
    """The other school: stop at Ø3 and break it off. The pip is the stub, the seconds near the centre are saved."""
    through, short = (evaluate(pin(settings={"stop_at": stop}, feature={"pip": None})) for stop in (None, "3 mm"))
    assert short.results["pip_on_part"].value == pytest.approx(3.0)
    assert short.results["operation_time"].value < through.results["operation_time"].value
    assert explore(pin(settings={"stop_at": "3 mm"})).diameter[-1] == 3.0
    assert any(w.name == "stops_short" for w in short.warnings)


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"tool": {"blade": "screw holder 2 reach 12"}}, "tool.blade"),
        ({"tool": {"insert": "blade of glass"}}, "tool.insert"),
        ({"feature": {"bore": "40 mm"}}, "feature.bore"),
        ({"settings": {"feed_zones": "4:0.02; 12:0.06"}}, "settings.feed_zones"),
        ({"settings": {"feed_zones": "soon"}}, "settings.feed_zones"),
        ({"machine": "two-axis lathe", "settings": {"coolant": "jet"}, "holding": {"y_axis": True}}, "holding.y_axis"),
        ({"bar": {"price": -1}}, "bar.price"),
        ({"feature": {"hat": 1}}, "feature.hat"),
    ],
)
def test_bad_input_is_refused_by_name(changes: dict[str, Any], field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        pin(**changes)
    assert refused.value.field == field


def test_cut_off_goes_through_the_door(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    file = tmp_path / "pin.json"
    file.write_text(json.dumps([PIN, {**PIN, "settings": {}}]), encoding="utf-8")
    assert main(["solve", str(file)]) == 2
    first, second = json.loads(capsys.readouterr().out)
    assert first["feasible"]
    assert second["error"]["field"] == "[1].settings.cutting_speed"
    with pytest.raises(CuttingError) as refused:  # it is not taken for a turning cut
        read_setup({**PIN, "operation": "turn"})
    assert refused.value.field


def test_shipped_blades_carry_shipped_inserts() -> None:
    assert all(any(blade.takes(insert) for blade in groove_blades()) for insert in shipped("grooving insert") if insert.width < 5)
    assert plunge_feeds(3.0, "M", "carbide")[1] == pytest.approx(0.144)  # stainless takes four fifths of 0.18
    assert [usual_width(d) for d in (10, 25, 40, 60, 80, 120)] == [1.5, 2, 3, 4, 5, 6]
