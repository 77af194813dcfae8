"""The open JSON form: what may be left out, what is read how, and that a form says what it means."""

from __future__ import annotations

import contextlib
from collections.abc import Callable
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from cutting.advice import advise
from cutting.doors.json_form import TOP, read_request, read_setup
from cutting.doors.plain import plain
from cutting.errors import CuttingError
from cutting.mechanics.deflection import Holding
from cutting.operations.frame.setup import Goal, Skin
from cutting.operations.registry import evaluate_quickly
from tests.core.slots import RING

Form = Callable[..., dict[str, Any]]


def test_what_is_left_out_takes_its_usual_value(form: Form) -> None:
    short = form()
    for name in ("holding",):
        del short[name]
    del short["settings"]["coolant"]
    setup = read_setup(short)
    assert setup.settings.coolant == "flood"
    assert setup.holding.style is Holding.CHUCK
    assert setup.holding.free_length == pytest.approx(20 + 200 + 10)
    assert setup.holding.grip_diameter == 57
    assert setup.work.hardness == setup.work.material.usual_hardness
    assert (setup.goal, setup.skin) == (Goal.CHEAPEST, Skin.CLEAN)


def test_inch_forms_read_bare_numbers_as_inches(form: Form) -> None:
    inch = form(units="inch")
    inch["feature"] = {"start_diameter": 2.25, "end_diameter": "1-7/8", "length": 8, "distance_from_chuck": 0.75, "roughness": "63"}
    inch["settings"] = {"cutting_speed": 490, "feed_per_rev": 0.011, "depth_of_cut": 0.075, "coolant": "jet"}
    inch["holding"] = {"style": "chuck_and_centre", "free_length": 10.5}
    setup = read_setup(inch)
    assert setup.feature.start_diameter == pytest.approx(57.15)
    assert setup.feature.end_diameter.nominal == pytest.approx(47.625)
    assert setup.feature.roughness == pytest.approx(1.6002)
    assert setup.settings.cutting_speed == pytest.approx(149.352)
    assert setup.settings.feed_per_rev == pytest.approx(0.2794)
    assert setup.holding.style is Holding.CHUCK_AND_CENTRE


def test_the_same_cut_in_both_systems_is_the_same_outcome(form: Form) -> None:
    metric = evaluate_quickly(
        read_setup(form(settings={"cutting_speed": "152.4 m/min", "feed_per_rev": "0.254 mm", "depth_of_cut": "2.54 mm"}))
    )
    inch = evaluate_quickly(read_setup(form(settings={"cutting_speed": "500 sfm", "feed_per_rev": "10 thou", "depth_of_cut": "0.1 in"})))
    for name, value in metric.results.items():
        assert inch.results[name].value == pytest.approx(value.value, rel=1e-6), name


def test_tolerances_and_grinding_allowance_set_the_size_turned_to(form: Form) -> None:
    feature = {"start_diameter": 57, "end_diameter": "49 h9", "length": 100, "grinding_allowance": "0.3"}
    setup = read_setup(form(feature=feature))
    assert setup.feature.turned_diameter == pytest.approx(48.969 + 0.3)
    assert setup.feature.end_diameter.tolerance == pytest.approx(0.062)
    everything = {**feature, "start_diameter": 49.2, "grinding_allowance": "0.4"}
    with pytest.raises(CuttingError) as refused:
        read_setup(form(feature=everything))
    assert refused.value.field == "feature.grinding_allowance"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"feature": "long"}, "feature"), ({"settings": {"feed_per_rev": True}}, "settings.feed_per_rev"),
        ({"settings": {"feed_per_rev": ["0.2"]}}, "settings.feed_per_rev"), ({"tool": {"insert": 12, "holder": "x"}}, "tool.insert"),
        ({"holding": {"style": "magnet"}}, "holding.style"), ({"holding": {"weak": "yes"}}, "holding.weak"),
        ({"holding": {"grip_share": 0}}, "holding.grip_share"), ({"batch": {"unattended_hours": 400}}, "batch.unattended_hours"),
        ({"batch": {"pieces": 2.5}}, "batch.pieces"), ({"skin": "velvet"}, "skin"), ({"house": {"mood": 1}}, "house.mood"),
        ({"house": {"never_above_book": "no"}}, "house.never_above_book"), ({"settings": {"overhang": "2 m"}}, "settings.overhang"),
        ({"settings": {"depth_of_cut": "0.02"}}, "settings.depth_of_cut"), ({"hardness": "soft"}, "hardness"),
    ],
)  # fmt: skip
def test_refusals_name_the_path(form: Form, change: dict[str, Any], field: str) -> None:
    made = form()
    for key, value in change.items():
        made[key] = {**made[key], **value} if isinstance(value, dict) and isinstance(made.get(key), dict) else value
    with pytest.raises(CuttingError) as refused:
        read_setup(made)
    assert refused.value.field == field


def test_near_names_are_offered(form: Form) -> None:
    with pytest.raises(CuttingError) as refused:
        read_setup(form(material="34CrNiMo7"))
    assert "34CrNiMo6" in refused.value.suggestions  # type: ignore[attr-defined]
    assert "Near it" in refused.value.message


def test_a_request_may_leave_the_tool_to_the_advice(form: Form) -> None:
    bare = form()
    del bare["tool"], bare["settings"]
    with_coolant = {**bare, "settings": {"coolant": "jet"}}
    first = advise(*read_request(bare)).candidates[0]
    wet = advise(*read_request(with_coolant)).candidates[0]
    assert wet.cost < first.cost, "twenty bar at the edge pays"
    with pytest.raises(CuttingError) as refused:
        read_setup(bare)
    assert refused.value.field == "tool"


JSON = st.recursive(st.none() | st.booleans() | st.floats(allow_nan=False) | st.text(max_size=8), lambda inner: st.lists(inner, max_size=3)
                    | st.dictionaries(st.text(max_size=8), inner, max_size=3), max_leaves=6)  # fmt: skip


@settings(max_examples=150, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(where=st.sampled_from(TOP), junk=JSON)
def test_no_json_breaks_the_reader(form: Form, where: str, junk: Any) -> None:
    """Any value in any place is read or refused with a field; nothing else happens."""
    with contextlib.suppress(CuttingError):
        assert read_setup({**form(), where: junk}).pass_count >= 1


def test_outcomes_are_plain_json(form: Form) -> None:
    def walk(value: Any) -> None:
        if isinstance(value, dict):
            assert all(isinstance(key, str) for key in value)
            [walk(inner) for inner in value.values()]
        elif isinstance(value, list):
            [walk(inner) for inner in value]
        else:
            assert value is None or isinstance(value, (str, int, float, bool))

    walk(plain(evaluate_quickly(read_setup(form()))))
    assert plain(float("inf")) is None


def test_forms_of_version_1_are_read_and_later_ones_refused(form: Form) -> None:
    """What carries a grooving insert was called its holder; turning's forms say the same in both."""
    blade = RING["tool"]["blade"]
    old = {**RING, "version": 1, "tool": {"insert": RING["tool"]["insert"], "holder": blade}}
    assert read_setup(old) == read_setup({**RING, "version": 2}) == read_setup(RING)
    assert read_setup(form(version=1)) == read_setup(form())
    for changed, field in (({**old, "version": 2}, "tool.holder"), ({**RING, "version": 3}, "version")):
        with pytest.raises(CuttingError) as refused:
            read_setup(changed)
        assert refused.value.field == field
