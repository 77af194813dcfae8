"""Grooves, face grooves, trepanning and cut-off as operations: their plans, rankings, remedies and forms."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cutting.advice.contests import CONTESTS, advise
from cutting.advice.score import HABIT
from cutting.doors.command_line import main
from cutting.doors.json_form import read_feature_of, read_request, read_setup
from cutting.errors import CuttingError
from cutting.motion.moves import Feed
from cutting.operations.frame.risk import shared_risk
from cutting.operations.frame.setup import Goal
from cutting.operations.registry import KINDS, evaluate, evaluate_quickly
from cutting.operations.slots.groove.cautions import advised_way
from cutting.operations.slots.groove.moves import GrooveMove, moves_of
from cutting.operations.slots.groove.setup import ALLOWANCE, GrooveWay
from cutting.process.outline import Made, outline
from cutting.workpiece.solid import Blank, blank_solid
from tests.core.slots import CUT_OFF, FACE, GROOVE, RING, TREPAN, TWO_CARTRIDGES, build, form, used

BASES = {"cut off": CUT_OFF, "groove": GROOVE, "face groove": FACE, "trepan": TREPAN}
# what the bases say already, or what only some machine or tool has
GIVEN = {"length", "diameter", "depth", "distance_from_chuck", "overhang", "y_axis", "sub_spindle", "bore", "cartridges", "free_length",
         "grip_diameter", "where", "hub_diameter", "jaw_diameter", "way", "style", "inner_ring"}  # fmt: skip
ROUND = {"insert": "edge 4 round middle positive K15 CVD", "blade": "screw holder 4 reach 18"}


def cleared(moves: tuple[GrooveMove, ...], edge: float) -> float:
    """Area [mm²] that the strokes take: engaged width times the way; a ramp also goes down by its edge's width."""
    plunged = sum(m.engaged * (m.to_depth - m.depth) for m in moves if not m.sideways)
    return plunged + sum(
        m.engaged * abs(m.to_place - m.place) + (edge * (m.to_depth - m.depth) if m.kind == "ramp" else 0) for m in moves if m.sideways
    )


@pytest.mark.parametrize("way", [GrooveWay.SIDE_BY_SIDE, GrooveWay.TURNED, GrooveWay.RAMP])
@settings(max_examples=25, deadline=None)
@given(width=st.floats(9.0, 60.0), depth=st.floats(1.0, 12.0))
def test_every_way_clears_the_whole_groove(way: GrooveWay, width: float, depth: float) -> None:
    """Plane geometry: strokes times what is engaged make up the section, less what is left for finishing."""
    feature = {"width": f"{width:.4f}", "floor": f"{110 - 2 * depth:.4f}"}
    setup = build(GROOVE, feature=feature, settings={"way": way.value, "finish": False})
    section = setup.feature.width.target * setup.depth
    assert cleared(moves_of(setup), setup.insert.width) == pytest.approx(section, rel=0.02)
    assert max(m.to_depth for m in moves_of(setup)) == pytest.approx(setup.depth)
    ends = [edge for m in moves_of(setup) for edge in (m.place, m.to_place)]
    assert min(ends) >= -1e-9
    assert max(ends) + setup.insert.width == pytest.approx(setup.feature.width.target)


def test_full_cuts_come_first_and_ridges_are_narrower() -> None:
    setup = build(GROOVE, settings={"way": "side by side"})
    kinds = [m.kind for m in moves_of(setup)]
    assert kinds.index("ridge") > max(k for k, kind in enumerate(kinds) if kind == "plunge")
    assert all(m.engaged <= 0.8 * setup.insert.width + 1e-9 for m in moves_of(setup) if m.kind == "ridge")
    finishing = [m for m in moves_of(setup) if m.kind in ("wall", "floor")]
    assert {m.engaged for m in finishing} == {ALLOWANCE}
    assert finishing[-1].to_place == pytest.approx(finishing[1].to_place)  # both halves of the floor meet in its middle


def test_a_full_radius_runs_thin_and_fast_with_less_side_load() -> None:
    straight, rolled = evaluate(build(GROOVE)), evaluate(build(GROOVE, tool=ROUND, settings={"way": "round path"}))
    assert rolled.results["operation_time"].value < straight.results["operation_time"].value
    assert rolled.results["side_force"].value < straight.results["side_force"].value
    assert any(w.name == "corners_left" for w in rolled.warnings)
    with pytest.raises(CuttingError) as refused:
        build(GROOVE, settings={"way": "round path"})
    assert refused.value.field == "settings.way"


def test_a_standard_groove_brings_its_size() -> None:
    ring = build(RING)
    assert (ring.feature.width.nominal, ring.feature.widest) == (1.6, pytest.approx(1.74))
    assert ring.feature.floor.nominal == 33.0
    assert used(evaluate(ring), "width_fit") < 1  # 1.65 ± 0.02 lies inside 1.60 to 1.74
    seal = build(RING, tool={"insert": "edge 4 turn middle positive P30 CVD", "blade": "screw holder 4 reach 18"},
                 feature={"standard": "O-ring 3.53", "diameter": "60 mm"}, settings={"way": "plunge and turn"})  # fmt: skip
    assert seal.feature.floor.nominal == pytest.approx(60 - 2 * 2.85)  # iso-3601-2, from memory
    relief = read_feature_of("groove", {"standard": "DIN 509 F", "diameter": "50 mm"})
    assert (relief.corner_radius, relief.width.nominal) == (0.6, 2.5)
    for wrong, field in ({"standard": "DIN 472"}, "feature.where"), ({"standard": "ring"}, "feature.standard"):
        with pytest.raises(CuttingError) as refused:
            build(RING, feature=wrong)
        assert refused.value.field == field


@pytest.mark.parametrize("base", list(BASES))
@pytest.mark.parametrize("goal", list(Goal))
def test_a_ranked_row_is_the_evaluation_of_its_settings(base: str, goal: Goal) -> None:
    """The ranking and the single set-up are one computation; each row is sound, and says why it is not first."""
    request = form(BASES[base], goal=goal.value)
    setup, stock = read_request(request)
    advice = advise(setup, stock)
    assert advice.candidates
    assert advice.candidates[0].reason.startswith("first")
    for row in advice.candidates[:5]:
        alone = read_setup({**request, "tool": row.tool, "settings": {**request["settings"], **row.settings}})
        outcome = evaluate_quickly(alone)
        assert outcome.feasible, row
        assert outcome.results["operation_time"].value == pytest.approx(row.seconds, rel=0.01)
        assert outcome.results["operation_cost"].value == pytest.approx(row.cost, rel=0.02)
        assert row.reason
    key = {Goal.CHEAPEST: lambda c: c.cost + c.beside, Goal.FASTEST: lambda c: c.seconds}.get(goal)
    if key:
        order = [key(row) * (1.0 + (HABIT if row.side_use else 0.0) + float(shared_risk(row.risk))) for row in advice.candidates]
        assert order == sorted(order)
    assert advice.fitting + sum(r.pairs for r in advice.refused) >= min(advice.pairs, advice.fitting)
    assert len(advice.heads) == len(advice.candidates[0].more)


def test_ways_and_turning_compete_for_one_groove() -> None:
    square, stock = read_request(GROOVE)
    ways = {row.way for row in advise(square, stock).candidates}
    assert {"round path", "side by side", "plunge and turn", "ramp"} <= ways
    leaning = form(GROOVE, feature={"wall_angle": "45°", "width": "30 +0.2/0"})
    rows = advise(*read_request(leaning)).candidates
    turned = [row for row in rows if row.becomes]
    assert turned  # a slim insert follows walls that lean
    without = advise(square, stock)
    assert not any(row.becomes for row in without.candidates)
    assert "walls 0° out of square" in without.note  # and why turning is not among them
    row = turned[0]
    assert row.becomes
    neck = read_setup({**GROOVE, "operation": row.becomes["operation"], "feature": row.becomes["feature"], "settings": row.settings,
                     "tool": row.tool})  # fmt: skip
    assert evaluate_quickly(neck).results["operation_time"].value == pytest.approx(row.seconds, rel=0.02)


def test_a_blade_is_wrong_below_and_above_its_range() -> None:
    """Its flanks are curved for DAXN to DAXX: inside the range both have air, outside one of them rubs (plane geometry)."""
    for diameter, rubs in ((50, "outer"), (56, ""), (70, ""), (89, ""), (120, "inner")):
        results = evaluate_quickly(build(FACE, feature={"outer_diameter": str(diameter)})).results
        room = {side: results[f"{side}_clearance"].value for side in ("outer", "inner")}
        assert {side for side, value in room.items() if value < 0} == ({rubs} if rubs else set()), diameter


def test_plunges_into_a_face_start_outside_and_work_inwards() -> None:
    strokes = KINDS["face groove"].explore(build(FACE, feature={"width": "14 +0.1/0"})).strokes
    full = [one.outer for one in strokes if one.kind == "plunge"]
    assert full[0] == max(one.outer for one in strokes if one.kind == "plunge")
    assert full == sorted(full, reverse=True)


def test_cartridges_share_the_feed_or_widen_the_ring() -> None:
    one = evaluate(build(TREPAN, settings={"feed_per_tooth": 0.1}))
    same, two = (
        evaluate(build(TREPAN, **TWO_CARTRIDGES, settings={"feed_per_tooth": 0.1, "cartridges": name}))
        for name in ("two on one radius", "two on two radii")
    )
    assert same.results["feed_rev"].value == pytest.approx(2 * one.results["feed_rev"].value)
    assert same.results["engaged_time"].value == pytest.approx(one.results["engaged_time"].value / 2)
    assert same.results["torque"].value == pytest.approx(2 * one.results["torque"].value, rel=1e-6)
    assert two.results["feed_rev"].value == pytest.approx(one.results["feed_rev"].value)
    assert two.results["ring_share"].value > 1.5 * one.results["ring_share"].value
    assert one.results["core_value"].value == pytest.approx(4 * one.results["core_mass"].value)


def test_several_alike_on_a_pitch_circle_take_their_time_and_leave_the_axis_alone() -> None:
    one, six = evaluate(build(TREPAN)), evaluate(build(TREPAN, feature={"count": 6, "circle": "240 mm"}))
    for name in ("engaged_time", "core_mass", "core_value"):
        assert six.results[name].value == pytest.approx(6 * one.results[name].value)
    assert six.results["median_parts"].value == pytest.approx(one.results["median_parts"].value / 6)
    assert six.results["torque"].value == one.results["torque"].value
    assert 4 < six.results["operation_time"].value / one.results["operation_time"].value < 6.5
    plate = blank_solid(Blank(400.0, 30.0))
    left = plate.without(KINDS["trepan"].removes(build(TREPAN, feature={"keeps": "the hole", "circle": "240 mm", "web": None}).feature))
    assert (left.outside, left.inside) == (plate.outside, plate.inside)
    (hole,) = left.rings
    assert (hole.near, hole.far, hole.inner, hole.outer) == (0, 30, 70, 170)  # Ø100 on a radius of 120


TWO_RINGS = {"keeps": "the hole", "diameter": "120 mm", "web": None, "through": False, "depth": "20 mm", "inner_ring": "92 mm"}


def test_two_rings_in_one_pass_take_the_torque_of_both_and_an_edge_each() -> None:
    """Torque goes with D² − d² of each ring; two on one radius share a feed of twice as much, so that halves are compared."""
    each = evaluate(build(TREPAN, **TWO_CARTRIDGES, feature=TWO_RINGS))
    shared = evaluate(build(TREPAN, **TWO_CARTRIDGES, feature={**TWO_RINGS, "inner_ring": None}))
    grown = (120**2 - 108**2 + 92**2 - 80**2) / (120**2 - 108**2)
    assert each.results["torque"].value == pytest.approx(grown * shared.results["torque"].value / 2)
    assert each.results["ring_share"].value == pytest.approx(grown * shared.results["ring_share"].value)
    assert each.results["engaged_time"].value == pytest.approx(2 * shared.results["engaged_time"].value)
    assert each.results["side_force"].value > 2 * shared.results["side_force"].value  # they no longer hold each other
    assert each.results["core_mass"].value < shared.results["core_mass"].value
    drawn = outline(Blank(200.0, 30.0), [Made("a", build(TREPAN, **TWO_CARTRIDGES, feature=TWO_RINGS))])
    (cut,) = drawn.removed
    z, r = np.array(cut.corners).T
    assert 0.5 * abs(np.sum(z * np.roll(r, 1) - r * np.roll(z, 1))) == pytest.approx(2 * 6 * 20)  # two rings of 6 mm, 20 mm deep


def test_the_ranking_for_two_rings_knows_heads_with_two_cartridges_only() -> None:
    asked = form(TREPAN, feature=TWO_RINGS)
    setup, stock = read_request({name: value for name, value in asked.items() if name != "tool"})
    rows = advise(setup, stock).candidates
    assert rows
    for row in rows:
        assert " two " in str(row.tool["blade"])
        again = evaluate(read_setup({**asked, "tool": dict(row.tool), "settings": {**asked["settings"], **row.settings}}))
        assert (again.results["operation_time"].value, again.results["operation_cost"].value) == pytest.approx((row.seconds, row.cost))


def test_a_ring_goes_beyond_a_plate_that_is_cut_through_and_stops_in_one_that_is_not() -> None:
    kind = KINDS["trepan"]
    low = dict[bool, float]()
    for through in (True, False):
        path = kind.path(CONTESTS["trepan"].model.quickly(build(TREPAN, feature={"web": None, "through": through})))
        low[through] = min(step.to[2] for step in path.steps if isinstance(step, Feed))
    assert low[False] == pytest.approx(-30)
    assert low[True] < -30
    many = [evaluate(build(TREPAN, feature={"count": n, "circle": "500 mm"})).results for n in (2, 10)]
    idle = [one["operation_time"].value - one["engaged_time"].value for one in many]
    assert idle[1] > idle[0]  # each ring is gone into and out of
    over = kind.explore(build(TREPAN))
    assert over.diameters[0] < 112 < over.diameters[-1]  # the map lies around what is planned
    assert min(r for _, r in kind.area(build(TREPAN, feature={"count": 3, "circle": "400 mm"}), blank_solid(Blank(900.0, 30.0)))) > 100


@pytest.mark.parametrize(
    ("tool", "ring", "keeps"),
    [("one", "80 mm", "the hole"), ("two", "106.5 mm", "the hole"), ("two", "12.9 mm", "the hole"), ("two", "80 mm", "the disc")],
)
def test_a_second_ring_that_cannot_be_is_refused_at_its_field(tool: str, ring: str, keeps: str) -> None:
    head = {"tool": {**TREPAN["tool"], "blade": f"trepanning head {tool} 80 to 130"}}
    with pytest.raises(CuttingError) as refused:
        build(TREPAN, **head, feature={**TWO_RINGS, "inner_ring": ring, "keeps": keeps})
    assert refused.value.field == "feature.inner_ring"


def test_a_groove_leaves_the_part_thinner_for_what_follows() -> None:
    setup = build(GROOVE)
    steps = blank_solid(Blank(116.0, 70.0)).without(KINDS["groove"].removes(setup.feature)).steps
    assert min(d for _, d in steps) == pytest.approx(setup.feature.floor.target)
    drawn = outline(Blank(116.0, 70.0, 62.0), [Made("a", setup), Made("b", build(CUT_OFF, feature={"diameter": "40 mm"}))])
    assert min(r for _, r in drawn.finished if r > 0) == pytest.approx(setup.feature.floor.target / 2)
    areas = {one.identity: one.corners for one in drawn.removed}
    assert np.ptp([a for a, _ in areas["b"]]) == pytest.approx(3.0)


def test_a_geared_lathe_keeps_its_steps() -> None:
    pin = form(
        CUT_OFF, machine="geared lathe", settings={"coolant": "flood", "cutting_speed": 80, "feed_per_rev": 0.13, "spindle_clamp": None}
    )
    setup = read_setup(pin)
    run = KINDS["cut off"].explore(setup)
    assert set(np.round(run.spindle_speed, 6)) == {500.0}  # 80 m/min at Ø40 is 637: the step below, all the way in
    assert set(np.round(run.feed, 6)) <= set(setup.machine.feeds)
    geared = build(GROOVE, machine="geared lathe", settings={"coolant": "flood", "feed_per_rev": 0.13})
    assert float(CONTESTS["groove"].model.quickly(geared).feed) == 0.125


@pytest.mark.parametrize("kind", list(BASES))
def test_every_declared_field_is_read(kind: str) -> None:
    """What a form offers the door takes; what nobody declared is refused by name."""
    fields = KINDS[kind].fields
    words = {"length": "1 mm", "small_length": "40 µm", "angle": "0°", "spindle_speed": "2000", "number": 1, "flag": False, "whole": 5}
    for section in ("feature", "settings", "holding", "bar"):
        for one in getattr(fields, section):
            value: Any = one.options[0] if one.options and one.kind == "choice" else words.get(one.kind)
            if value is None or one.name in GIVEN:
                continue
            beside = {"circle": "400 mm"} if one.name == "count" else {}
            read_setup(form(BASES[kind], **{section: {one.name: value, **beside}}))
    for section in ("feature", "settings", "holding"):
        with pytest.raises(CuttingError) as refused:
            read_setup(form(BASES[kind], **{section: {"hat": 1}}))
        assert refused.value.field == f"{section}.hat"


@pytest.mark.parametrize(
    ("base", "changes", "field"),
    [
        ("groove", {"feature": {"floor": "120"}}, "feature.floor"),
        ("groove", {"feature": {"width": None}}, "feature.width"),
        ("groove", {"feature": {"width": "3"}}, "tool.insert"),
        ("groove", {"tool": {"blade": "face blade 4 dia 55 to 90"}}, "tool.blade"),
        ("groove", {"settings": {"way": "by hand"}}, "settings.way"),
        ("face groove", {"feature": {"jaw_diameter": "70 mm", "jaw_height": "5 mm"}}, "feature.jaw_diameter"),
        ("face groove", {"tool": {"insert": "edge 4 round light positive M15 PVD"}}, "settings.way"),
        ("trepan", {"settings": {"cartridges": "two on two radii"}}, "settings.cartridges"),
        ("trepan", {"feature": {"keeps": "the hole", "diameter": "12 mm"}}, "feature.diameter"),
        ("trepan", {"machine": "feed-drilling unit", "settings": {"coolant": "dry"}}, "machine"),
        ("trepan", {"feature": {"count": 3}}, "feature.circle"),
        ("trepan", {"feature": {"count": 6, "circle": "200 mm"}}, "feature.circle"),  # 200 · sin 30° = 100, and so are the discs
    ],
)
def test_what_cannot_be_is_refused_by_name(base: str, changes: dict[str, Any], field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        build(BASES[base], **changes)
    assert refused.value.field == field


def test_narrow_kinds_go_through_both_doors(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    file = tmp_path / "slots.json"
    file.write_text(json.dumps(list(BASES.values())), encoding="utf-8")
    assert main(["solve", str(file)]) == 0
    answers = json.loads(capsys.readouterr().out)
    assert not [one for answer in answers for one in answer["limits"] if one["severity"] == "hard" and one["utilisation"] > 1.0]
    file.write_text(json.dumps({k: v for k, v in GROOVE.items() if k not in ("tool", "settings")}), encoding="utf-8")
    assert main(["advise", str(file)]) == 0
    assert json.loads(capsys.readouterr().out)["candidates"][0]["way"]


def test_a_turn_of_dwell_leaves_the_better_floor() -> None:
    """One plunge: Ra 1.6 with a dwell of a turn, twice that without (common practice)."""
    rough = [
        evaluate_quickly(build(RING, feature={"roughness": "3.2"}, settings={"dwell": turns})).results["roughness"].value
        for turns in (0.0, 0.5, 1.0, 2.0)
    ]
    assert rough[0] == rough[1] == pytest.approx(2 * rough[2])
    assert rough[2] == rough[3]


def test_a_blade_lifts_before_it_turns_sideways_unless_the_layer_is_thinner_than_that() -> None:
    """Common practice: a tenth of a millimetre, so that the front does not rub on the floor just plunged."""
    thick = moves_of(build(GROOVE, settings={"finish": False}))
    plunges, turns = ([one for one in thick if one.kind == kind] for kind in ("plunge", "turn"))
    assert [round(a.to_depth - b.depth, 6) for a, b in zip(plunges, turns, strict=True)] == [0.1] * len(turns)
    thin = moves_of(build(GROOVE, feature={"floor": "109.9 h11"}, settings={"finish": False}))
    assert thin[1].depth == pytest.approx(thin[0].to_depth)


@pytest.mark.parametrize(("floor", "way"), [("98", GrooveWay.TURNED), ("78.1", GrooveWay.TURNED), ("77", GrooveWay.SIDE_BY_SIDE)])
def test_turning_sideways_pays_where_the_groove_is_half_as_wide_again_as_it_is_deep(floor: str, way: GrooveWay) -> None:
    """Common practice: 24 wide, from 16 deep on plunges stay secure."""
    assert advised_way(build(GROOVE, feature={"floor": floor, "width": "24"}))[0] is way


def test_a_face_blade_lasts_as_long_in_the_cut_however_deep_the_groove() -> None:
    """Taylor: minutes of an edge go by speed and feed, not by how many seconds one groove takes."""
    lives = [
        evaluate(build(FACE, feature={"depth": depth}, settings={"cutting_speed": "90 m/min"})).results["tool_life"].value
        for depth in ("4 mm", "8 mm")
    ]
    assert lives[0] == pytest.approx(lives[1], rel=0.02)
    assert lives[0] < 100.0
