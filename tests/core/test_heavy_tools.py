"""Heavy boring tools: which way each change moves, what is refused, what the remedies bring."""

from __future__ import annotations

import random
from dataclasses import replace
from typing import Any

import pytest

from cutting.doors.command_line import main
from cutting.doors.json_form import SHIPPED
from cutting.errors import CuttingError
from cutting.machine.machines import find_machine
from cutting.operations.holes.heavy_bore.form import read_heavy, written
from cutting.operations.holes.heavy_bore.numbers import coaxialities, numbers, torque_over, zone
from cutting.operations.holes.heavy_bore.setup import Chain
from cutting.tooling.heavy.solids import Segment, body_materials, mass_of
from cutting.working import Silent
from tests.core.heavy import EXAMPLES, form_of, heavy, numbers_of, sheet_of


@pytest.mark.parametrize(
    ("why", "change", "figure", "sign"),
    [
        ("a thicker tube is heavier", {"segments": {1: {"inner": "70 mm"}}}, "mass", 1),
        ("and tilts more", {"segments": {1: {"inner": "70 mm"}}}, "moment", 1),
        ("hollow arms are lighter", {"segments": {2: {"share": "45"}}}, "mass", -1),
        ("and carry it nearer to the gripper", {"segments": {2: {"share": "45"}}}, "lever", -1),
        ("and swing higher", {"segments": {2: {"share": "45"}}}, "frequency", 1),
        ("and are sooner up to speed", {"segments": {2: {"share": "45"}}}, "spin_up", -1),
        ("more arms turn harder", {"segments": {2: {"arms": 4}}}, "inertia", 1),
        ("aluminium is light", {"segments": {1: {"material": "aluminium"}}}, "mass", -1),
        ("a softer seat swings lower", {"tool": {"holder": "HSK-A63 flange"}, "segments": {2: {"start": "197 mm"}}}, "frequency", -1),
        ("faster is more unbalance force", {"settings": {"cutting_speed": "700 m/min"}}, "unbalance_force", 1),
        ("and permits less", {"settings": {"cutting_speed": "700 m/min"}}, "permissible", -1),
        ("off the axis is more", {"tool": {"eccentricity": "20"}}, "unbalance", 1),
        ("a finer grade permits less", {"tool": {"balance_grade": "2.5"}}, "permissible", -1),
        ("more allowance is more torque", {"steps": {0: {"allowance": "1.2 mm"}}}, "torque", 1),
        ("more feed is more torque", {"settings": {"feed_per_rev": "0.3 mm/rev"}}, "torque", 1),
        ("and a shorter pass", {"settings": {"feed_per_rev": "0.3 mm/rev"}}, "cut_seconds", -1),
        ("steps one after the other ask for less at once", {"steps": {0: {"enters": "70 mm"}}}, "torque", -1),
        ("worse steps of a tool are a wider zone", {"chain": {"steps": "0.006 mm"}}, "coaxiality", 1),
        ("wider outlets take the pressure away", {"steps": {0: {"outlet_diameter": "4 mm"}}}, "pressure", -1),
    ],
)
def test_what_a_change_must_do(why: str, change: dict[str, Any], figure: str, sign: int) -> None:
    assert sign * (getattr(numbers_of(**change), figure) - getattr(numbers_of(), figure)) > 1e-9, why


@pytest.mark.parametrize("seed", range(20))
def test_segments_weigh_what_the_whole_weighs(seed: int) -> None:
    """Cut anywhere, a body's mass, moment and inertia stay; a heavier step never lightens it."""
    chance = random.Random(seed)
    metal = chance.choice(list(body_materials().values()))
    outer = chance.uniform(40, 200)
    arms = chance.choice([0, 3, 4])
    whole = Segment("body", chance.uniform(20, 60), chance.uniform(30, 250), outer, chance.uniform(0, 0.8) * outer, metal,
                    chance.uniform(0.3, 1), arms, 0.2 * outer)  # fmt: skip
    cut = chance.uniform(0.1, 0.9) * whole.length
    halves = [replace(whole, length=cut), replace(whole, start=whole.start + cut, length=whole.length - cut)]
    one, two = mass_of([whole]), mass_of(halves)
    assert (two.mass, two.lever, two.inertia) == pytest.approx((one.mass, one.lever, one.inertia), rel=1e-9)
    more = mass_of([replace(whole, share=min(1.0, whole.share + 0.1))])
    assert more.mass >= one.mass
    hollow = mass_of([replace(whole, inner=whole.inner / 2)])
    assert hollow.mass > one.mass or whole.inner == 0


def test_what_is_cut_together_adds_up() -> None:
    x = numbers_of()
    alone = {one.step.name: one.torque for one in x.steps}
    stroke, over = torque_over(x.steps)
    assert over[0] == pytest.approx(alone["bearing"])
    assert over.max() == pytest.approx(alone["seat"] + alone["bore"])
    assert stroke[-1] == pytest.approx(74.0)
    assert all(
        one.torque == pytest.approx(one.cutting_force * (one.step.diameter.nominal - one.step.allowance / 2) / 2000) for one in x.steps
    )


def test_edges_in_pairs_hold_each_other() -> None:
    """Common practice: one edge alone pushes the tool aside, several cancel most of it, pads carry the rest."""
    forms = {count: numbers_of(steps={1: {"inserts": count}}).steps[1].cylindricity for count in (1, 2, 4)}
    assert forms[1] > 1.4 * forms[2]
    assert forms[2] > forms[4]
    padded = numbers_of(steps={1: {"pads": 3}}).steps[1]
    assert padded.cylindricity < forms[2]


def test_warmth_is_set_off() -> None:
    """At 20 °C the target; warmer by what the part will shrink, so that back at 20 °C it is the target again."""
    cold, warm = (numbers_of(settings={"temperature": t}).steps[0] for t in ("20", "30"))
    assert cold.growth == 0
    assert cold.set_to == pytest.approx(200.0145)
    assert warm.set_to - warm.growth == pytest.approx(cold.set_to, abs=1e-4)
    unsure = {one.name: one for one in sheet_of(settings={"temperature_known": "3"}).limits}["warmth"]
    assert unsure.broken


def test_links_of_a_chain_add_as_squares() -> None:
    assert zone(0.003, 0.004) == pytest.approx(0.010)
    one, two, apart = (wide for _, wide in coaxialities(Chain()))
    assert one < two < apart
    wide = sheet_of(asked={"coaxiality": "0.005 mm"})
    assert not wide.feasible
    assert [row.fits for row in sheet_of().chains] == [True, True, False]
    assert sheet_of().chains[1].more_seconds > 4.0


def test_the_remedies_are_tools_that_were_run() -> None:
    found = {one.text: one for one in sheet_of("cup-tool-solid").remedies}
    assert not found["body of aluminium"].broken
    assert found["body of printed steel"].x.moment < 0.6 * sheet_of("cup-tool-solid").x.moment
    assert found["bodies bored to tubes"].x.mass < 16
    assert found["a seventh shorter"].x.moment < sheet_of("cup-tool-solid").x.moment
    assert "two tools: this one without its widest step" in found
    split = found["two tools: this one for its widest step alone"]
    assert split.coaxiality > found["body of aluminium"].coaxiality
    for one in found.values():  # taking it gives what it said
        form = form_of("cup-tool-solid") | {name: written(one.setup)[name] for name in ("segments", "steps", "machine")}
        form["tool"] = form["tool"] | {"holder": written(one.setup)["holder"]}
        again = numbers(read_heavy(form), Silent())
        assert (again.mass, again.moment) == pytest.approx((one.x.mass, one.x.moment), rel=1e-4)
    arms = {one.text: one for one in sheet_of().remedies}["hollow arms"]
    assert arms.x.moment < sheet_of().x.moment
    small = sheet_of(machine="machining centre", tool={"holder": "BT40 flange"}, segments={2: {"start": "202 mm"}})
    assert not small.feasible
    assert any("on horizontal centre" in one.text for one in sheet_of(machine="machining centre").remedies)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"segments": {1: {"inner": "96 mm"}}}, "segments.1.inner"),
        ({"segments": {1: {"length": "0"}}}, "segments.1.length"),
        ({"segments": {1: {"material": "cheese"}}}, "segments.1.material"),
        ({"segments": {1: {"start": "90 mm"}}}, "segments.1"),
        ({"segments": {4: {"outer": "30 mm", "inner": "10 mm"}}}, "segments.4"),
        ({"segments": {2: {"width": "0"}}}, "segments.2.width"),
        ({"segments": {2: {"arms": 99}}}, "segments.2.arms"),
        ({"segments": {0: {"share": "2"}}}, "segments.0.share"),
        ({"steps": {0: {"diameter": "wide"}}}, "steps.0.diameter"),
        ({"steps": {1: {"at": "900 mm"}}}, "steps.1.at"),
        ({"steps": {1: {"inserts": 0}}}, "steps.1.inserts"),
        ({"steps": {1: {"colour": "red"}}}, "steps.1.colour"),
        ({"tool": {"holder": "rope"}}, "tool.holder"),
        ({"tool": {"balance_grade": "0"}}, "tool.balance_grade"),
        ({"machine": "two-axis lathe"}, "machine"),
        ({"settings": {"coolant": "tea"}}, "settings.coolant"),
        ({"settings": {"temperature": "400"}}, "settings.temperature"),
        ({"material": "wood"}, "material"),
        ({"units": "feet"}, "units"),
    ],
)
def test_what_cannot_be_is_refused_by_field(change: dict[str, Any], field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        numbers_of(**change)
    assert refused.value.field == field


def test_an_empty_tool_and_one_of_arms_alone() -> None:
    for section in ("segments", "steps"):
        with pytest.raises(CuttingError) as refused:
            read_heavy(form_of() | {section: []})
        assert refused.value.field == section
    with pytest.raises(CuttingError, match="carries"):
        read_heavy(form_of() | {"segments": [form_of()["segments"][2]]})
    with pytest.raises(CuttingError) as refused:
        read_heavy(form_of() | {"steps": [form_of()["steps"][0]] * 30})
    assert refused.value.field == "steps"


def test_it_is_solved_at_the_command_line(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["solve", str(EXAMPLES / "cup-tool.json")]) == 0
    said = capsys.readouterr().out
    assert '"feasible": true' in said
    assert '"changer_moment"' in said


def test_inches_mean_the_same() -> None:
    inch = form_of()
    inch["units"] = "inch"
    inch["segments"][1]["length"] = f"{174 / 25.4:.6f}"
    for step in inch["steps"]:
        step["diameter"] = step["diameter"].replace(" H", " mm H")
    assert numbers(read_heavy(inch), Silent()).mass == pytest.approx(numbers_of().mass, rel=1e-5)
    assert heavy().tool.length == pytest.approx(303.0)


@pytest.mark.parametrize("settings", ["fast", [1], 3])
def test_settings_that_are_no_object_are_refused_by_name(settings: Any) -> None:
    with pytest.raises(CuttingError) as refused:
        read_heavy({**form_of(), "settings": settings})
    assert refused.value.field == "settings"


def test_a_machine_without_flood_bores_heavy_work_too() -> None:
    form = form_of()
    dry = replace(SHIPPED, machine=lambda name: replace(find_machine(name), coolant=(("dry", 0.0),)))
    untold = {name: value for name, value in form["settings"].items() if name != "coolant"}
    assert read_heavy({**form, "settings": untold}, dry).settings.coolant == "dry"
