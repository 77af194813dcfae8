"""Limits of one set-up of each kind against a pocket calculator: the value, its bounds, and that it breaks just beyond and not just before.

Only what can be worked out in a line beside it stands here; what rests on a table or a model is held by its own tests.
"""

from __future__ import annotations

from dataclasses import replace
from functools import cache
from typing import Any

import numpy as np
import pytest

from cutting.advice.contests import CONTESTS
from cutting.doors.json_form import read_request, read_setup
from cutting.errors import CuttingError
from cutting.machine.machines import find_machine
from cutting.operations.frame.fields import Field
from cutting.operations.frame.outcome import Limit, Outcome
from cutting.operations.registry import KINDS, evaluate_quickly
from cutting.operations.slots.groove.numbers import side_feed
from cutting.operations.turned.case import single_cutter
from cutting.operations.turned.edge_strength import edge_force_limit
from cutting.tooling.items import grades
from cutting.workpiece.solid import Blank, blank_solid
from tests.core.slots import CUT_OFF, FACE, GROOVE, RING, TREPAN, build, form

TURN: dict[str, Any] = {
    "operation": "turn",
    "material": "34CrNiMo6",
    "hardness": 300,
    "machine": "two-axis lathe",
    "tool": {"insert": "CNMG 120408 middle P20", "holder": "PCLNR 2525 M12"},
    "feature": {"start_diameter": 60, "end_diameter": "50 h9", "length": 100, "distance_from_chuck": 20},
    "settings": {"cutting_speed": 150, "feed_per_rev": 0.25, "depth_of_cut": 2.5, "coolant": "flood"},
    "holding": {"style": "chuck", "free_length": 130, "grip_diameter": 60},
    "batch": {"pieces": 50},
}
BASES = {"turn": TURN, "groove": GROOVE, "cut off": CUT_OFF, "face groove": FACE, "trepan": TREPAN}


@cache
def base(kind: str) -> Outcome:
    return evaluate_quickly(read_setup(BASES[kind]))


def limit(outcome: Outcome, name: str) -> Limit:
    return next(one for one in outcome.limits if one.name == name)


BOUNDS: list[tuple[str, str, float | None, float | None, float | None]] = [
    # kind, limit, value, lower, upper
    ("turn", "nose_feed", 0.25, None, 0.48183),  # 0.6 · 0.8 / sin 95°
    ("turn", "edge_length", None, None, 8.597),  # two thirds of an edge of 12.9 mm
    ("turn", "part_bends", None, None, 0.031),  # half of h9 on Ø50: 62 µm
    ("turn", "jaw_grip", None, None, 121.63),  # half of 0.2 · (42 000 − 3·1.0·0.07·83.33²) N · 30 mm at 795.8 1/min
    ("turn", "spindle_power", None, None, 9.166),  # 11 kW · 795.8 / 955: below its corner the spindle has its torque only
    ("turn", "thin_chip", None, 0.006153, None),  # 35 µm · (0.15 + 0.17 · 25.8/170): 150 counts as 174.2 where carbide starts at 155
    ("turn", "spindle_speed", None, None, 3500),  # the chuck's, below the spindle's 4000
    ("turn", "feed_rate", None, None, 8000),
    ("turn", "secure", None, 77.6, None),  # 97 % of the house's 80
    ("groove", "layer_depth", 1.6, None, 2.8),  # 0.4 and 0.7 of 4 mm
    ("groove", "reach", 6.055, None, 18),  # (110 − 97.89) / 2: h11 on Ø98 is 220 µm, its middle is turned to
    ("groove", "side_load", None, None, 1440),  # 90 N/mm² · 4²
    ("groove", "part_bends", None, None, 0.11),  # half of h11
    ("groove", "corner_radius", 0.4, None, 0.8),
    ("groove", "spindle_power", None, None, 4.166),  # 11 · 361.7 / 955
    ("groove", "plunge_feed", 0.12, 0.08, 0.22),
    ("groove", "dwell", 1, None, 2),
    ("cut off", "reach", 20, None, 20),  # to the centre of Ø40
    ("cut off", "support_relief", 40, None, 42),
    ("cut off", "width", 3, 2.25, None),  # three quarters of the 3 mm that Ø40 takes
    ("cut off", "crowding", 6.667, None, 9),  # 20 / 3
    ("cut off", "chip_narrower", 2.7, None, 2.91),  # 0.9 and 0.97 of 3 mm
    ("cut off", "spindle_power", None, None, 26),  # 1114 1/min is past the corner
    ("cut off", "pip", None, None, 1.5),
    ("cut off", "flatness", None, None, 0.04),
    ("cut off", "plunge_feed", 0.12, 0.06, 0.18),
    ("face groove", "first_plunge", 79.795, 55, 90),  # H11 on Ø80: +190/0, its middle, less 0.15 a side to finish
    ("face groove", "inner_diameter", 71.795, 45, None),  # less twice 4 mm
    ("face groove", "crowding", 2, None, 9),
    ("face groove", "plunge_feed", 0.09, 0.0448, 0.1232),  # 0.7 of 0.8 of 0.08 to 0.22: stainless takes four fifths
    ("face groove", "reach", 8, None, 18),
    ("face groove", "jaw_grip", None, None, 272.5),  # half of 0.2 · (42 000 − 0.21·18.8²) N · 65 mm
    ("trepan", "head_range", 112, 80, 130),  # the disc of 100 and twice 6 mm of ring
    ("trepan", "reach", 29.5, None, 45),  # 0.5 mm of web is left
    ("trepan", "changer_mass", 4.2, None, 8),
    ("trepan", "plunge_feed", 0.15, 0.1008, 0.252),  # 0.7 of 1.2 of 0.12 to 0.30, in aluminium
    ("trepan", "spindle_power", None, None, 9.0946),  # 15 · 909.5 / 1500
]


@pytest.mark.parametrize(("kind", "name", "value", "lower", "upper"), BOUNDS)
def test_a_limit_by_hand(kind: str, name: str, value: float | None, lower: float | None, upper: float | None) -> None:
    found = limit(base(kind), name)
    for given, wanted in ((found.value, value), (found.lower, lower), (found.upper, upper)):
        if wanted is not None:
            assert given == pytest.approx(wanted, rel=6e-4)


FIGURES: list[tuple[str, str, float]] = [
    ("cut off", "clamp_diameter", 11.141),  # 140 000 / (π · 4000)
    ("cut off", "pieces_per_bar", 61),  # 2880 / 47
    ("cut off", "remnant", 133),  # 3000 − 61 · 47
    ("cut off", "kerf_per_piece", 0.04),  # 3 of 3000 mm at 40
    ("cut off", "kerf_per_year", 1280),
    ("cut off", "blank_per_piece", 0.6557),  # 40 / 61
    ("cut off", "spindle_speed", 1114.1),
    ("cut off", "part_mass", 0.434),  # π/4 · 4² · 4.4 cm³ · 7.85 g
    ("groove", "spindle_speed", 361.72),
    ("face groove", "spindle_speed", 179.51),  # at the ring's outer side, 79.795
    ("face groove", "strokes", 6),
    ("trepan", "ring_share", 20.281),  # (112² − 100²) / 112²
    ("trepan", "core_mass", 0.6267),  # π/4 · 10² · 3 cm³ · 2.66 g
    ("trepan", "core_value", 2.507),
    ("trepan", "spindle_speed", 909.46),
    ("trepan", "feed_rev", 0.15),
]


@pytest.mark.parametrize(("kind", "name", "by_hand"), FIGURES)
def test_a_figure_by_hand(kind: str, name: str, by_hand: float) -> None:
    assert base(kind).results[name].value == pytest.approx(by_hand, rel=6e-4)


def test_forces_torques_and_powers_of_one_set_up_agree() -> None:
    """What the limits read is one force: worn by 1.3, its power at 150 m/min, its torque at Ø60, its bend of a 25 mm shank 25 mm out."""
    turned = base("turn")
    worn = 1.3 * turned.results["cutting_force"].value
    assert limit(turned, "edge_strength").value == pytest.approx(worn)
    assert limit(turned, "spindle_power").value == pytest.approx(worn * 150 / 60_000)
    assert limit(turned, "jaw_grip").value == pytest.approx(worn * 0.03)
    assert limit(turned, "tool_bends").value == pytest.approx(worn * 25**3 / (3 * 210_000 * 25**4 / 12))
    assert limit(turned, "feed_rate").value == pytest.approx(0.25 * limit(turned, "spindle_speed").value)
    ring = base("trepan").results
    assert ring["power"].value == pytest.approx(ring["torque"].value * 909.457 / 9549.3, rel=1e-4)
    # (D² − d²)/D² of the solid hole's torque and power
    assert ring["torque"].value / ring["solid_torque"].value == pytest.approx(0.20281, rel=1e-3)


PAIRS: list[tuple[str, str, dict[str, Any], dict[str, Any]]] = [
    # kind, limit, just within, just beyond
    ("turn", "nose_feed", {"settings": {"feed_per_rev": 0.481}}, {"settings": {"feed_per_rev": 0.483}}),
    ("groove", "layer_depth", {"settings": {"side_depth": "2.79"}}, {"settings": {"side_depth": "2.81"}}),
    ("groove", "dwell", {"settings": {"dwell": 2}}, {"settings": {"dwell": 2.1}}),
    ("groove", "corner_radius", {"feature": {"corner_radius": "0.41"}}, {"feature": {"corner_radius": "0.39"}}),
    ("groove", "plunge_feed", {"settings": {"feed_per_rev": 0.22}}, {"settings": {"feed_per_rev": 0.221}}),
    ("groove", "plunge_feed", {"settings": {"feed_per_rev": 0.08}}, {"settings": {"feed_per_rev": 0.079}}),
    ("cut off", "reach", {"feature": {"diameter": "40 mm"}}, {"feature": {"diameter": "40.2 mm"}}),
    ("cut off", "support_relief", {"feature": {"diameter": "42 mm"}}, {"feature": {"diameter": "42.1 mm"}}),
    ("cut off", "pip", {"feature": {"pip": "1.31"}}, {"feature": {"pip": "1.30"}}),
    ("cut off", "centre_height", {"settings": {"centre_height": "0.1"}}, {"settings": {"centre_height": "0.105"}}),
    ("face groove", "first_plunge", {"feature": {"outer_diameter": "90.2"}}, {"feature": {"outer_diameter": "90.4"}}),
    ("face groove", "plunge_feed", {"settings": {"feed_per_rev": 0.123}}, {"settings": {"feed_per_rev": 0.124}}),
    ("trepan", "head_range", {"feature": {"diameter": "118"}}, {"feature": {"diameter": "118.1"}}),
    ("trepan", "reach", {"feature": {"depth": "45.5"}}, {"feature": {"depth": "45.6"}}),
    ("trepan", "plunge_feed", {"settings": {"feed_per_tooth": 0.252}}, {"settings": {"feed_per_tooth": 0.253}}),
]


@pytest.mark.parametrize(("kind", "name", "within", "beyond"), PAIRS)
def test_a_limit_breaks_just_beyond_and_not_just_before(kind: str, name: str, within: dict[str, Any], beyond: dict[str, Any]) -> None:
    kept, broken = (limit(evaluate_quickly(read_setup(form(BASES[kind], **change))), name) for change in (within, beyond))
    assert (kept.broken, broken.broken) == (False, True), (kept.utilisation, broken.utilisation)
    assert kept.utilisation > 0.97
    assert broken.utilisation < 1.06


BOUNDED = [
    (kind, section, field)
    for kind, given in BASES.items()
    for section in ("feature", "settings", "bar")
    for field in getattr(KINDS[kind].fields, section)
    if field.bounds and (section != "bar" or "bar" in given)
]


def refusal(kind: str, section: str, field: Field, value: float) -> CuttingError | None:
    """How a value is refused, None where it is taken."""
    try:
        read_setup(form(BASES[kind], **{section: {field.name: value}}))
    except CuttingError as error:
        return error
    return None


@pytest.mark.parametrize(("kind", "section", "field"), BOUNDED, ids=lambda value: getattr(value, "name", value))
def test_a_field_refuses_what_it_may_not_be(kind: str, section: str, field: Field) -> None:
    """Just beyond either bound it is refused by its own name, with the bound; on the bound something else may forbid it."""
    assert field.bounds
    (low, high), whole = field.bounds, field.kind == "whole"
    beyond = (high + 1,) if whole else (high * 1.001 + 1e-6, *((low * 0.999 - 1e-6,) if low > 0 else ()))
    for value in beyond:
        refused = refusal(kind, section, field, value)
        assert refused is not None
        assert (refused.field, f"{low:g} to {high:g}" in str(refused.bound)) == (f"{section}.{field.name}", True)
    on = refusal(kind, section, field, int(high) if whole else high)
    assert on is None or f"{low:g} to {high:g}" not in str(on.bound)


def test_feeds_sideways_by_hand() -> None:
    """Half as much again as the plunge, within 0.6 of the corner."""
    setup = read_setup(GROOVE)
    assert [float(side_feed(setup, 0.4, feed)) for feed in (0.12, 0.2, 0.3)] == pytest.approx([0.18, 0.24, 0.3])
    assert float(side_feed(setup.with_settings(side_feed=0.1), 0.4, 0.3)) == pytest.approx(0.1)


def test_what_a_kerf_costs_beside_the_cut() -> None:
    """3 of 3000 mm of a bar that costs 40."""
    x = CONTESTS["cut off"].model.quickly(read_setup(CUT_OFF))
    assert float(np.ravel(CONTESTS["cut off"].beside(x))[0]) == pytest.approx(0.04)


def test_feeds_start_inside_the_window_and_off_the_corner() -> None:
    """From 3 % above the window's 0.16 mm/rev at this depth to half of the corner's 0.8 mm."""
    setup, _ = read_request({key: value for key, value in TURN.items() if key not in ("tool", "settings")})
    only = KINDS["turn"].gather({"insert": [read_setup(TURN).insert], "holder": [read_setup(TURN).holder]}, "")
    field = CONTESTS["turn"].enter(setup, only)
    feeds, _ = CONTESTS["turn"].feeds(read_setup(form(TURN, feature={"roughing": True})), field.tool)
    assert float(feeds.max()) == pytest.approx(0.4, abs=0.006)
    assert float(feeds.min()) == pytest.approx(0.165, abs=0.006)


def test_no_core_no_ring_and_strokes_go_no_deeper_than_the_groove() -> None:
    request = {key: value for key, value in TREPAN.items() if key != "tool"}
    setup, stock = read_request({**request, "feature": {**TREPAN["feature"], "keeps": "the hole", "diameter": "12.5 mm"}})
    assert {"range", "core"} & {one.name for one in CONTESTS["trepan"].enter(setup, stock).refused}
    strokes = base("face groove").passes
    assert len(strokes) == 6
    assert all(0 < one.depth <= 8 for one in strokes)


def test_a_y_axis_takes_the_force_along_the_blade() -> None:
    """What leans down without it leans so many times less with it as the section says."""
    upright, turned = (evaluate_quickly(build(CUT_OFF, holding={"y_axis": axis})) for axis in (False, True))
    gain = upright.results["y_gain"].value
    assert gain > 1.5
    assert limit(turned, "bends_down").value == pytest.approx(limit(upright, "bends_down").value / gain, rel=1e-6)


def test_an_edge_break_costs_its_way_and_a_faster_slide_less() -> None:
    plain, broken, wider = (
        evaluate_quickly(build(CUT_OFF, feature={"edge_break": size})).results["operation_time"].value
        for size in ("0 mm", "0.3 mm", "1 mm")
    )
    assert plain + 0.3 < broken < wider
    quick = build(CUT_OFF, feature={"edge_break": "1 mm"})
    slow = replace(quick, machine=replace(quick.machine, rapid_rate=quick.machine.rapid_rate / 10))
    found = evaluate_quickly(slow).results["edge_break_time"].value - evaluate_quickly(quick).results["edge_break_time"].value
    assert found == pytest.approx(9 * 4 * 60 * 4 / quick.machine.rapid_rate, rel=1e-6)  # four ways of 2 · 1 + 2 mm, ten times slower


def test_a_dwell_takes_its_turns_at_the_floor() -> None:
    """Two turns more at Ø33.5 and 120 m/min: 2 · 60 / 1140."""
    one, three = (evaluate_quickly(build(RING, settings={"dwell": turns})).results["engaged_time"].value for turns in (1, 3))
    floor = build(RING).feature.floor.target
    assert three - one == pytest.approx(2 * 60 * np.pi * floor / (1000 * 120), rel=1e-6)


@pytest.mark.parametrize(("width", "corner"), [("4 +0.1/0", 0.4), ("6 +0.1/0", 0.4), ("12 +0.1/0", 0.8)])
def test_a_drawing_without_a_corner_gets_a_usual_one(width: str, corner: float) -> None:
    """0.2 to 0.4 in common grooves, more in wide ones (common practice)."""
    tool = {"insert": "edge 3 turn middle positive K15 CVD", "blade": "screw holder 3 reach 12"}
    made = build(GROOVE, tool=tool, feature={"width": width, "corner_radius": None}, settings={"way": "side by side"})
    outcome = evaluate_quickly(made)
    assert limit(outcome, "corner_radius").upper == corner
    assert "corner_unsaid" in {warning.name for warning in outcome.warnings}


def test_a_positive_seat_carries_less() -> None:
    """Per thickness squared, at one shape, grade and preparation: 0.6 to 0.8 of what a negative one does (common practice)."""
    pairs = (("CNMG 120408 middle P20 CVD", "PCLNR 2525 M12"), ("CCMT 09T308 middle positive P20 CVD", "SCLCR 2525 M09"))
    carried = []
    for insert, holder in pairs:
        setup = read_setup({**TURN, "tool": {"insert": insert, "holder": holder}})
        strength = setup.insert.geometry.strength * setup.insert.code.thickness**2
        carried.append(float(np.ravel(edge_force_limit(single_cutter(setup)))[0]) / strength)
    assert 0.6 < carried[1] / carried[0] < 0.8


@pytest.mark.parametrize("kind", ["turn", "groove", "cut off", "face groove", "trepan"])
def test_troubles_ask_for_a_tougher_edge_in_every_kind(kind: str) -> None:
    def asked(**changes: Any) -> float:
        return float(limit(evaluate_quickly(read_setup({**BASES[kind], **changes})), "toughness").lower or 0.0)

    smooth, weld = asked(), asked(skin="weld")
    assert asked(skin="forged") - smooth < weld - smooth, "weld with its hard spots is worse than scale"
    assert weld > smooth
    if kind in ("face groove", "cut off"):
        assert 0.0 < asked(material="EN AW-6082", skin="weld") < weld, "a soft metal's blows are milder"
    worn = replace(find_machine(BASES[kind]["machine"]), condition="worn")
    setup = read_setup(BASES[kind])
    assert limit(evaluate_quickly(replace(setup, machine=worn)), "toughness").lower > smooth  # type: ignore[operator]


def test_a_tool_far_out_and_a_cut_to_the_centre_ask_for_a_tougher_edge() -> None:
    def asked(form: dict[str, Any], section: str, **changes: Any) -> float:
        made = form | {section: form[section] | changes}
        return float(limit(evaluate_quickly(read_setup(made)), "toughness").lower or 0.0)

    # a 25 mm shank: up to 50 mm is usual, from 100 mm on it shakes as much as it may
    assert asked(TURN, "settings", overhang=32) == asked(TURN, "settings", overhang=50)
    shakes = [asked(TURN, "settings", overhang=out) for out in (50, 75, 100, 150)]
    assert shakes[0] < shakes[1] < shakes[2] == shakes[3]
    assert asked(CUT_OFF, "feature", bore="25 mm") < asked(CUT_OFF, "feature")
    # of grades in the demo shop; common practice: P20 and tougher cut off solid bars, and stand blows on scale, P30 blows on weld
    p10, p20, p30 = (grades()[f"{name} CVD"].toughness for name in ("P10", "P20", "P30"))
    assert p10 < asked(CUT_OFF, "feature") <= p20
    assert asked(TURN, "holding", interrupted=True) <= p20
    assert p10 < asked(TURN | {"skin": "forged"}, "holding", interrupted=True) <= p20
    assert p20 < asked(TURN | {"skin": "weld"}, "holding", interrupted=True) <= p30
    assert p10 < asked(TURN | {"skin": "weld"}, "holding") <= p20
    assert asked(TURN | {"skin": "forged"}, "holding") <= p10, "scale alone is everybody's"


def test_a_kerf_is_as_wide_as_its_insert_from_rim_to_bore() -> None:
    setup = read_setup({**CUT_OFF, "feature": {**CUT_OFF["feature"], "bore": "12 mm"}})
    corners = KINDS["cut off"].area(setup, blank_solid(Blank(40.0, 60.0, 12.0)))
    assert {place for place, _ in corners} == {8.0, 11.0}
    assert {radius for _, radius in corners} == {6.0, 20.0}
