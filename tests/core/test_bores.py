"""Boring: which way a change must move what is said, what is refused, and which bar a bore asks for."""

from __future__ import annotations

import re
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from cutting.advice import advise
from cutting.doors.json_form import read_setup
from cutting.errors import CuttingError
from cutting.operations.holes.bore.kind import KIND
from cutting.operations.holes.bore.limits import jaw_lobes
from cutting.operations.holes.bore.readings import spring_share, springing_left
from cutting.operations.registry import evaluate
from cutting.operations.turned.size_control import Measured, ledger
from cutting.tooling.bars import body_of
from cutting.workpiece.solid import Blank, blank_solid
from tests.core.bores import BORE, HEAD, LONG, asked, bore, cut_of
from tests.core.holes import HOLE
from tests.core.holes import asked as hole_asked


def number(shown: Any) -> float:
    return float(shown.metric.split()[0])


def last(values: Any) -> float:
    return float(np.ravel(values)[-1])


DIRECTIONS: list[tuple[str, dict[str, Any], dict[str, Any], str, int]] = [
    ("a longer bar springs more", BORE, {"settings": {"overhang": "95 mm"}}, "size_error", 1),
    ("and sings sooner", BORE, {"settings": {"overhang": "95 mm"}}, "stable_tool", -1),
    ("and swings slower", BORE, {"settings": {"overhang": "95 mm"}}, "bar_frequency", -1),
    ("a thicker bar springs less", LONG, {"tool": {"holder": "D32U-SCLCR 09"}}, "size_error", 0),
    ("a thinner bar springs more", LONG, {"tool": {"holder": "D25T-SCLCR 09"}}, "size_error", 1),
    ("a damped bar springs as its steel does", BORE, {"tool": {"holder": "D25T-SCLCR 09"}}, "size_error", 0),
    ("but sings much later", BORE, {"tool": {"holder": "D25T-SCLCR 09"}}, "stable_tool", 1),
    ("a larger corner pushes off more", BORE, {"tool": {"insert": "CCMT 09T308 light positive P10 CVD"}}, "passive_force", 1),
    ("a thinner wall springs more", BORE, {"holding": {"grip_diameter": "70 mm"}}, "size_error", 1),
    ("half the grip presses half as far out of round", BORE, {"holding": {"grip_share": 0.5}}, "lobes", -1),
    ("a harder push bends more", BORE, {"settings": {"feed_per_rev": "0.2 mm/rev"}}, "size_error", 1),
]


@pytest.mark.parametrize(("why", "base", "change", "figure", "sign"), DIRECTIONS, ids=[one[0] for one in DIRECTIONS])
def test_what_a_change_must_do(why: str, base: dict[str, Any], change: dict[str, Any], figure: str, sign: int) -> None:
    def told(x: Any) -> float:
        if figure == "lobes":
            return jaw_lobes(x.setup)
        return last(getattr(x, figure) if hasattr(x, figure) else getattr(x.cutter, figure))

    before, after = told(cut_of(base)), told(cut_of(base, **change))
    assert np.sign(round(after / before - 1.0, 9)) == sign


@pytest.mark.parametrize("out", range(60, 100, 8))
def test_a_shorter_bar_is_never_worse(out: int) -> None:
    shorter, longer = (cut_of(settings={"overhang": f"{mm} mm"}) for mm in (out, out + 8))
    assert last(shorter.size_error) < last(longer.size_error)
    assert last(shorter.stable_tool) > last(longer.stable_tool)


def test_a_bore_grows_pass_by_pass_and_stays_smaller_than_it_is_set() -> None:
    outcome = evaluate(bore())
    sizes = [(one.from_diameter, one.to_diameter) for one in outcome.passes]
    assert sizes[0][0] == 59.0
    assert sizes[-1][1] == pytest.approx(62.015)
    assert all(a < b for a, b in sizes)
    assert outcome.results["size_after"].value < 62.015
    left = evaluate(bore(feature={"grinding_allowance": "0.3 mm"})).passes[-1].to_diameter
    assert left == pytest.approx(62.015 - 0.3)


def test_a_bore_may_go_on_through_the_jaws() -> None:
    assert evaluate(bore(feature={"length": "96 mm"}, tool={"holder": "D32U-SCLCR 09"})).feasible


def test_a_spring_pass_takes_more_where_the_bar_is_stiff() -> None:
    """The rest after one more pass is k_cut/(k_cut + k_bar): towards nothing for a stiff bar, towards all of it for a weak one."""
    stiff, weak = (spring_share(cut_of(settings={"overhang": f"{out} mm"})) for out in (62, 99))
    assert 0.0 < stiff < weak < 1.0
    assert spring_share(cut_of(settings={"feed_per_rev": "0.2 mm/rev"})) > spring_share(cut_of())
    # it takes most of a long bar's springing, but nothing thinner than the edge can cut, on both sides
    slim, firm = cut_of(LONG, tool={"holder": "A25T-SCLCR 09"}), cut_of()
    assert springing_left(slim, 1) == pytest.approx(2.0 * last(slim.minimum_chip))
    assert springing_left(slim, 1) < 0.2 * last(slim.size_error)
    assert springing_left(firm, 1) == last(firm.size_error)  # so little that the edge would only rub
    told = evaluate(bore()).results["spring_pass"]
    low, high = (float(one.metric.split()[0]) for one in (told.low, told.high) if one)
    assert 0.0 < low < told.value < high
    # known no better than the springing that it is a rest of
    whole = evaluate(bore(LONG, tool={"holder": "A25T-SCLCR 09"})).results
    shares = [
        [number(one) / number(whole[name].display) for one in (whole[name].low, whole[name].high)] for name in ("spring_pass", "size_error")
    ]
    assert shares[0] == pytest.approx(shares[1], rel=0.05)


REFUSED: list[tuple[dict[str, Any], str]] = [
    ({"feature": {"end_diameter": "58 mm"}}, "feature.end_diameter"),
    ({"feature": {"end_diameter": "99.8 mm"}}, "feature.end_diameter"),
    ({"feature": {"length": "4 m"}}, "feature.length"),
    ({"holding": {"style": "chuck and centre"}}, "holding.style"),
    ({"feature": {"grinding_allowance": "4 mm"}}, "feature.grinding_allowance"),
    ({"settings": {"overhang": "-3 mm"}}, "settings.overhang"),
]


@pytest.mark.parametrize(("changed", "field"), REFUSED)
def test_what_cannot_be_is_refused_by_field(changed: dict[str, Any], field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        evaluate(bore(**changed))
    assert refused.value.field == field


def test_a_deep_bore_asks_for_another_bar_than_a_short_one() -> None:
    """Common practice, no source: steel to four diameters, heavy metal five, carbide six, damped bars eight and more."""
    for length, free, bodies in (("40 mm", "60 mm", {"steel"}), ("170 mm", "180 mm", {"damped steel", "damped carbide"})):
        setup, stock = asked(feature={"start_diameter": "39 mm", "end_diameter": "42 H9", "length": length}, holding={"free_length": free})
        rows = advise(setup, stock).candidates
        assert rows
        bars = {one.name: one for one in stock.holders}
        assert {body_of(bars[row.tool["holder"]].code.bar).name for row in rows[:3]} <= bodies


def test_a_row_tells_what_its_own_set_up_tells() -> None:
    setup, stock = asked()
    for row in advise(setup, stock).candidates[:4]:
        x = cut_of(
            tool=dict(row.tool),
            settings={"cutting_speed": row.cutting_speed, "feed_per_rev": row.feed, "depth_of_cut": row.depth_of_cut, "coolant": "jet"},
        )
        assert last(x.operation_cost) == pytest.approx(row.cost, rel=1e-6)
        assert row.more[2].metric == f"{1000 * last(x.size_error):.1f}"
        assert row.more[3].metric.startswith(f"{x.setup.holder.price:.2f}")
        assert float(row.more[4].metric.split()[0]) == pytest.approx(0.001 / last(x.cutter.bar_compliance), rel=0.01)


def test_only_bars_that_enter_are_offered() -> None:
    setup, stock = asked(feature={"start_diameter": "24 mm", "end_diameter": "26 H9", "length": "40 mm"}, holding={"free_length": "60 mm"})
    advice = advise(setup, stock)
    assert advice.candidates
    assert "least_bore" in {one.name for one in advice.refused}
    bars = {one.name: one for one in stock.holders}
    assert all(bars[row.tool["holder"]].least_bore <= 24.0 for row in advice.candidates)


# what catches it -> how the mistake is made of a sound bore
MADE: dict[str, tuple[dict[str, Any], dict[str, Any]]] = {
    "part_bends": (LONG, {"tool": {"holder": "A25T-SCLCR 09"}, "feature": {"end_diameter": "62 H5"}}),
    "chatter": (LONG, {"tool": {"holder": "A25T-SCLCR 09"}}),
    "bar_overhang": (LONG, {"tool": {"holder": "A25T-SCLCR 09"}}),
    "bar_reaches": (BORE, {"settings": {"overhang": "50 mm"}}),
    "one_size": (HEAD, {"settings": {"depth_of_cut": "0.1 mm"}}),
    "head": (HEAD, {}),
    "head_speed": (HEAD, {"settings": {"cutting_speed": "1200 m/min"}}),
    "head_depth": (HEAD, {"feature": {"start_diameter": "59 mm"}, "settings": {"depth_of_cut": "2 mm"}}),
    "chip_room": (BORE, {"tool": {"holder": "A25T-SCLCR 09"}, "feature": {"start_diameter": "31 mm", "end_diameter": "34 H7"}}),
    "jaw_lobes": (BORE, {"holding": {"grip_diameter": "72 mm"}}),
    "wiper_bar": (
        BORE,
        {"tool": {"insert": "CNMG 120408 middle wiper P20 CVD", "holder": "A25T-PCLNR 12"}, "settings": {"overhang": "90 mm"}},
    ),
    "nose_depth": (BORE, {"feature": {"start_diameter": "61.6 mm"}}),
    "clearance": (BORE, {"settings": {"centre_height": "-4 mm"}}),
    "fit_least_bore": (BORE, {"feature": {"start_diameter": "28 mm", "end_diameter": "30 H7"}}),
    "wrapping_chips": (BORE, {"settings": {"feed_per_rev": "0.03 mm/rev"}}),
    "blind_chips": (BORE, {"feature": {"shoulder": True}}),
    "springs_on": (LONG, {"tool": {"holder": "A16R-SCLCR 09"}, "settings": {"feed_per_rev": "0.2 mm/rev"}}),
    "damped_bar": (BORE, {"tool": {"holder": "D25T-SCLCR 09"}}),
}


def test_cautions_of_turning_stand_inside_too() -> None:
    """Pressure, fire and the open guard are no less dangerous in a bore; cloth in a turning bore is more so."""
    names = {one.name for one in evaluate(bore(machine="mill-turn", settings={"coolant": "high"}, feature={"polish": True})).warnings}
    assert {"pressure", "guards", "polishing", "inside"} <= names
    assert not {"long_chips", "slender"} & names
    assert "titanium_chips" in {one.name for one in evaluate(bore(material="Ti-6Al-4V")).warnings}


@pytest.mark.parametrize("name", sorted(MADE))
def test_a_mistake_in_a_bore_is_caught(name: str) -> None:
    base, made = MADE[name]

    def alarms(outcome: Any) -> set[str]:
        return {one.name for one in outcome.limits if one.broken} | {one.name for one in outcome.warnings}

    assert name in alarms(evaluate(bore(base, **made)))
    if name not in ("damped_bar", "head"):
        assert name not in alarms(evaluate(bore(base)))


def test_the_page_of_bores_is_whole() -> None:
    page = (Path(__file__).parents[2] / "docs" / "boring-mistakes.md").read_text(encoding="utf-8")
    bores = page.split("## Reamed holes")[0]
    assert set(re.findall(r"(?:limit|warning) `(\w+)`", bores)) == set(MADE)


def test_a_fit_of_any_size_is_milled_and_bored_by_a_head() -> None:
    """Common practice, no source: no drill is some tenths below, so a helix is; the head then takes its fine cut, and stands first."""
    held = {"feature": {"diameter": "33.3 H7", "depth": "30 mm", "roughness": "1.6 µm"}}
    setup, stock = hole_asked(HOLE, "through", machine="machining centre", material="EN AW-6082", **held)
    rows = advise(setup, replace(stock, drills=tuple(one for one in stock.drills if one.diameter < 14.0))).candidates
    row = next(one for one in rows if one.way == "mill, bore")
    assert not row.strained
    assert row.before[0].operation == "mill hole"
    left = 33.3 - float(row.before[0].feature["diameter"].split()[0])
    assert 0.2 <= left <= 1.0
    assert row.becomes is not None
    assert float(row.becomes["feature"]["start_diameter"].split()[0]) == pytest.approx(33.3 - left)
    lathe = advise(*hole_asked(HOLE, "flood", machine="two-axis lathe", material="EN AW-6082", **held)).candidates
    assert not any(one.way == "mill, bore" for one in lathe)


def test_a_head_bores_as_a_bar_does() -> None:
    """Where the tool turns the part does not spring, no jaw grips it, and the bar alone gives; a stiffer bar gives less."""
    still = cut_of(HEAD)
    names = {one.name for one in evaluate(bore(HEAD)).limits}
    assert not names & {"jaw_grip", "jaw_lobes", "one_size"}
    push = float(np.ravel(still.passive_force)[-1])
    bar = 2.0 * push * float(np.ravel(still.cutter.bar_compliance)[0])
    assert float(np.ravel(still.size_error)[-1]) == pytest.approx(bar, rel=0.02)
    slender = cut_of(HEAD, tool={"holder": "A16R-SCLCR 09"}, feature={"end_diameter": "62 H7"})
    assert float(np.ravel(slender.size_error)[-1]) > 1.3 * float(np.ravel(still.size_error)[-1])
    outcome = evaluate(bore(HEAD))
    assert outcome.scene["turns"] == "head"
    assert evaluate(bore()).scene["turns"] == "part"
    thick = evaluate(bore(HEAD, tool={"insert": "CNMG 120408 middle P20 CVD", "holder": "A40V-PCLNR 12"}))
    assert any(one.name == "fit_sleeve" for one in thick.warnings)
    fit = ledger(bore(HEAD, house={"setting_step": 0.02}), []).fit
    assert fit is not None
    assert fit.stages[3].chance < ledger(bore(HEAD), []).fit.stages[3].chance  # type: ignore[union-attr]


def test_a_hole_with_a_fit_may_be_drilled_and_bored() -> None:
    """A bar finishes what a drill has opened: in a turret, or in a head where the tool turns; a unit of one feed has no such way."""
    held: dict[str, Any] = {"holding": {"grip_diameter": "60 mm", "free_length": "80 mm"}}
    sections: dict[str, Any] = {"feature": {"diameter": "30 H7", "depth": "40 mm"}, **held}
    for machine, coolant, bored in (
        ("two-axis lathe", "flood", True),
        ("machining centre", "through", True),
        ("feed-drilling unit", "dry", False),
    ):
        setup, stock = hole_asked(HOLE, coolant, machine=machine, **sections)
        ways = [row for row in advise(setup, stock).candidates if row.way in ("drill, bore", "mill, bore")]
        assert bool(ways) is bored
        for row in ways:
            assert row.becomes is not None
            drill, size = row.before[0], float(row.becomes["feature"]["start_diameter"].split()[0])
            assert float(drill.feature["diameter"].split()[0]) == size
            assert 14.0 <= size < 30.0
            assert 0.0 < row.secure <= 1.0
            assert row.passes >= 2
            assert row.becomes["operation"] == "bore"
            assert row.becomes["feature"]["end_diameter"] == "30 H7"
    for size, wanted in (("30 H9", True), ("30 mm", False)):  # what a drill reaches alone asks for no bar first
        setup, stock = hole_asked(HOLE, "flood", machine="two-axis lathe", feature={"diameter": size, "depth": "40 mm"}, **held)
        assert (advise(setup, stock).candidates[0].way == "drill, bore") is wanted


def test_what_boring_takes_of_the_part() -> None:
    setup, blank = bore(), blank_solid(Blank(100.0, 90.0, 59.0))
    x, r = zip(*KIND.area(setup, blank), strict=True)
    assert (min(x), max(x), min(r), max(r)) == (30.0, 90.0, 29.5, pytest.approx(31.0075))
    assert blank.without(KIND.removes(setup.feature)).bore == pytest.approx(62.015)


def test_remedies_for_a_bar_that_sings() -> None:
    """Stiffer, shorter or sharper: each is run before it is offered."""
    setup, stock = asked(LONG)
    singing = replace(bore(LONG, tool={"holder": "A25T-SCLCR 09"}), goal=setup.goal)
    limit = next(one for one in evaluate(singing, stock).limits if one.name == "chatter")
    texts = [one.text.metric for one in limit.remedies]
    assert any("damped" in text for text in texts), texts


def test_the_fit_is_reached_by_measuring() -> None:
    """A machine whose tool is set 30 µm off, and whose bar gives a third more than reckoned: three measured cuts hit H7."""
    setup = bore(LONG, feature={"end_diameter": "62 H7"}, settings={"pass_depths": "0.7; 0.4; 0.4"})
    start = ledger(setup, [])
    assert start.next is not None
    assert start.prior_spring < 0  # a bore stays smaller
    readings: list[Measured] = []
    for number in (1, 2, 3):
        following = ledger(setup, readings).next
        assert following is not None
        true = following.command + 0.03 + 1.33 * start.prior_spring * following.force
        readings.append(Measured(number, following.command, true, uncertainty=0.004))
    assert 62.0 <= readings[-1].measured <= 62.03
    assert readings[0].measured < start.next.target + 0.03  # springing leaves metal
    assert not ledger(setup, readings).doubtful
    assert ledger(setup, [Measured(1, 59.5, 58.9)]).doubtful[0][1].endswith("bored out")


def test_half_the_wall_is_pressed_eight_times_as_far_out_of_round() -> None:
    """A ring gives by the cube of its wall (Roark); the jaws' force counts once, and each of three has its third."""
    setup = read_setup(BORE)
    inner = setup.feature.turned_diameter

    def lobes(wall: float, share: float = 1.0) -> float:
        return jaw_lobes(replace(setup, holding=replace(setup.holding, grip_diameter=inner + 2 * wall, grip_share=share)))

    assert 6.0 < lobes(1.0) / lobes(2.0) < 8.5
    assert lobes(2.0, 0.5) == pytest.approx(lobes(2.0) / 2)
