"""The methods of narrow cuts: a blade pulled out on its way, a widened slot, a round path in a face, the saw; and the list of them."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from cutting.advice import advise
from cutting.advice.candidate import entries_set
from cutting.doors.json_form import read_request, read_setup
from cutting.errors import CuttingError
from cutting.motion.clock import clock
from cutting.motion.moves import Dwell, Feed, Rapid, SpindleOn
from cutting.operations.registry import evaluate_quickly, judged, kind_of
from cutting.operations.slots.cut_off.changes import in_stages, wider_slot
from cutting.studies.registry import studies_of
from cutting.studies.slot_ways import SlotMethod, slot_ways
from tests.core.slots import BORE_RING, CUT_OFF, FACE, GROOVE, TREPAN, build, form, used

DEEP: dict[str, Any] = {"feature": {"flatness": None, "pip": None}, "holding": {"part_catcher": True}}
ROLLED: dict[str, Any] = {
    "material": "C45",
    "tool": {"insert": "edge 4 round middle positive P30 CVD"},
    "feature": {"width": "14 +0.1/0", "corner_radius": "2 mm"},
}


def bar(**settings: Any) -> Any:
    return build(CUT_OFF, **DEEP, settings=settings)


def methods(setup: Any) -> dict[str, SlotMethod]:
    return {one.title.split(":")[0]: one for one in slot_ways(setup)}


class TestPulledOut:
    def test_it_bends_less_at_the_rim_and_as_much_in_the_middle(self) -> None:
        straight, staged = (judged(one)[1].run for one in (bar(), bar(pull_out_at="22 mm")))
        rim, inner = straight.diameter > 22.5, straight.diameter < 21.5
        share = (staged.height_bend / straight.height_bend)[rim]
        # a cantilever gives with the cube of its length (Roark): 10 mm out and not 21
        assert share == pytest.approx((10.0 / 21.0) ** 3, rel=1e-9)
        assert staged.height_bend[inner] == pytest.approx(straight.height_bend[inner])

    def test_it_costs_the_time_in_which_the_spindle_stands(self) -> None:
        straight, staged = bar(), bar(pull_out_at="22 mm")
        one, other = judged(straight), judged(staged)
        assert float(other[1].engaged_time) == pytest.approx(float(one[1].engaged_time), rel=1e-6)
        path = kind_of("cut off").path(other[1])
        stands = [k for k, step in enumerate(path.steps) if isinstance(step, Dwell) and step.seconds > 0]
        assert len(stands) == 1
        stopped = path.steps[stands[0] - 1]
        assert isinstance(stopped, SpindleOn)
        assert stopped.top == 0.0
        told = clock(path, staged.machine)
        assert told.total == pytest.approx(float(other[1].engaged_time + other[1].idle_time), abs=0.7)

    def test_a_place_off_the_way_is_refused_by_name(self) -> None:
        for place in ("41 mm", "-1 mm"):
            with pytest.raises(CuttingError) as refused:
                evaluate_quickly(bar(pull_out_at=place))
            assert refused.value.field == "settings.pull_out_at"

    def test_it_is_offered_where_the_blade_stands_far_out(self) -> None:
        assert [change.setup.settings.pull_out_at for change in in_stages(bar())] == [20.0]  # 21 mm out of a blade 26 high
        shallow = build(CUT_OFF, **{**DEEP, "feature": {**DEEP["feature"], "bore": "30 mm"}})
        assert not list(in_stages(shallow))
        assert not list(in_stages(bar(pull_out_at="22 mm")))


class TestWidened:
    def test_chips_have_room_and_the_bar_is_paid(self) -> None:
        straight, wide = (judged(bar(**given)) for given in ({}, {"slot_width": "4.5 mm"}))
        limits = [{one.name: one.value for one in found[0].limits} for found in (straight, wide)]
        assert limits[1]["crowding"] == pytest.approx(limits[0]["crowding"] * 3.0 / 4.5)
        kerf = [found[0].results["kerf_per_piece"].value for found in (straight, wide)]
        assert kerf[1] == pytest.approx(1.5 * kerf[0])
        assert float(wide[1].stop_chance) < float(straight[1].stop_chance)
        # two plunges beside each other, all but the last layer
        assert 1.4 < float(wide[1].engaged_time / straight[1].engaged_time) < 2.0

    def test_no_plunge_stands_outside_the_slot_and_the_last_is_at_the_part(self) -> None:
        setup = bar(slot_width="4.5 mm")
        path = kind_of("cut off").path(judged(setup)[1])
        cuts = [step for step in path.steps if isinstance(step, Feed)]
        assert {round(step.to[2], 6) for step in cuts} == {8.0, 9.5}
        assert cuts[-1].to[2] == pytest.approx(9.5)
        told = clock(path, setup.machine)
        numbers = judged(setup)[1]
        assert told.engaged == pytest.approx(float(numbers.engaged_time), rel=0.05)  # it feeds the last 0.2 mm before the metal too
        assert told.idle == pytest.approx(float(numbers.idle_time), rel=0.2)
        deepest = 20.0
        for step in path.steps:  # no rapid goes deeper than what has been cut
            if isinstance(step, Feed):
                deepest = min(deepest, step.to[0])
            elif isinstance(step, Rapid):
                assert step.to[0] >= deepest

    def test_wider_than_two_plunges_is_refused(self) -> None:
        with pytest.raises(CuttingError) as refused:
            bar(slot_width="6 mm")
        assert refused.value.field == "settings.slot_width"
        assert not bar(slot_width="3 mm").widened

    def test_it_is_offered_in_deep_slots_only(self) -> None:
        assert [change.setup.slot for change in wider_slot(bar())] == [4.5]
        assert not list(wider_slot(build(CUT_OFF, **{**DEEP, "feature": {**DEEP["feature"], "bore": "30 mm"}})))


class TestRoundPathInAFace:
    def test_it_never_buries_its_edge(self) -> None:
        straight = judged(
            build(FACE, material="C45", tool={"insert": "edge 4 turn middle positive P30 CVD"}, feature={"width": "14 +0.1/0"})
        )
        rolled = judged(build(FACE, **ROLLED, settings={"way": "round path"}))
        assert not any(move.kind == "plunge" for move in rolled[1].moves)
        assert float(rolled[1].cutting_force) < 0.5 * float(straight[1].cutting_force)
        rolls = [one for one in rolled[1].strokes if one.kind in ("arc", "turn")]
        assert max(one.engaged for one in rolls) <= 1.0 + 1e-9  # a quarter of the insert's width
        fed = {round(one.feed, 6) for one in rolls}
        assert len(fed) == 1
        assert fed.pop() > 0.09
        path = kind_of("face groove").path(rolled[1])
        told = clock(path, rolled[1].setup.machine)
        assert told.engaged + told.dwell == pytest.approx(float(rolled[1].engaged_time), rel=0.02)

    def test_corners_that_it_leaves_are_said_and_paid(self) -> None:
        left = build(FACE, **{**ROLLED, "feature": {"width": "14 +0.1/0", "corner_radius": "0.4 mm"}}, settings={"way": "round path"})
        kept = build(FACE, **ROLLED, settings={"way": "round path"})
        a, b = judged(kept), judged(left)
        assert "corners_left" in {one.name for one in b[0].warnings} - {one.name for one in a[0].warnings}
        assert float(b[1].idle_time) > float(a[1].idle_time)
        assert b[0].feasible
        assert next(one for one in b[0].limits if one.name == "corners").broken

    @pytest.mark.parametrize(("insert", "way"), [("round", "turned across"), ("turn", "round path")])
    def test_edge_and_way_go_together(self, insert: str, way: str) -> None:
        with pytest.raises(CuttingError) as refused:
            build(FACE, material="C45", tool={"insert": f"edge 4 {insert} middle positive P30 CVD"}, settings={"way": way})
        assert refused.value.field == "settings.way"


def test_the_ranking_keeps_the_method_that_is_set() -> None:
    asked = form(CUT_OFF, **DEEP)
    asked = {name: part for name, part in asked.items() if name != "tool"}
    method = {"coolant": "flood", "slot_width": "4.5 mm", "pull_out_at": "22 mm"}
    advice = advise(*read_request({**asked, "settings": method}))
    assert advice.candidates
    for row in advice.candidates[:4]:
        taken = {**asked, "tool": row.tool, "settings": {**method, **entries_set(row)}}
        assert evaluate_quickly(read_setup(taken)).results["operation_cost"].value == pytest.approx(row.cost, rel=1e-9)
        assert float(row.tool["insert"].split("edge ")[1].split()[0]) * 1.9 >= 4.5


class TestTurnedBlade:
    """A groove's blade turned by the Y axis, as a cut-off's is."""

    def test_it_gives_less_and_stands_more_feed(self) -> None:
        base = {"machine": "mill-turn", "settings": {"coolant": "flood", "way": "side by side"}}
        plain, turned = (judged(build(GROOVE, **{**base, "settings": {**base["settings"], "y_axis": on}})) for on in (False, True))
        assert float(turned[1].down) < 0.6 * float(plain[1].down)
        assert float(turned[1].feeds[1]) > 1.2 * float(plain[1].feeds[1])
        assert float(turned[1].sideways) == pytest.approx(float(plain[1].sideways))  # its thin way is as weak as before
        methods_of = methods(build(GROOVE, **base))
        assert methods_of["blade turned by the Y axis"].cost < methods_of["as it is set, at its best feed"].cost

    @pytest.mark.parametrize(("base", "machine"), [(GROOVE, "two-axis lathe"), (BORE_RING, "mill-turn")])
    def test_where_it_cannot_be_it_is_refused(self, base: dict[str, Any], machine: str) -> None:
        with pytest.raises(CuttingError) as refused:
            build(base, machine=machine, settings={"y_axis": True, "coolant": "flood"})
        assert refused.value.field == "settings.y_axis"


class TestMethods:
    def test_each_tells_what_taking_it_would_give(self) -> None:
        setup = bar()
        for one in slot_ways(setup):
            if one.outcome is None or one.why_not or one.present:
                continue
            settings = {k: None if v is None else float(str(v).split()[0]) for k, v in one.patch.get("settings", {}).items()}
            taken = build(CUT_OFF, **{**DEEP, "holding": {**DEEP["holding"], **one.patch.get("holding", {})}}, settings=settings)
            outcome = evaluate_quickly(taken.with_settings(feed_per_rev=one.feed))
            assert outcome.results["operation_cost"].value == pytest.approx(one.cost, rel=1e-9)

    def test_the_goal_orders_them_and_what_cannot_be_comes_last(self) -> None:
        found = slot_ways(bar())
        able = [one for one in found if not one.why_not]
        assert [one.cost for one in able] == sorted(one.cost for one in able)
        assert [bool(one.why_not) for one in found] == sorted(bool(one.why_not) for one in found)
        assert sum(one.present for one in found) == 1

    def test_the_saw_frees_the_machine_where_bars_are_large(self) -> None:
        small, large = (
            methods(build(CUT_OFF, **{**DEEP, "feature": {**DEEP["feature"], "diameter": d}}, tool={
                "insert": "edge 3 middle middle positive P30 CVD", "blade": "reinforced blade 3 reach 21"}))["sawn outside, then faced"]
            for d in ("12 mm", "40 mm")
        )  # fmt: skip
        saw = [float(one.note.split()[1]) for one in (small, large)]
        assert saw[1] - 30 == pytest.approx((saw[0] - 30) * (40 / 12) ** 2, abs=6.0)  # by its area, after 30 s of handling
        assert large.cost > small.cost > 0
        hard = methods(build(CUT_OFF, **DEEP, material="100Cr6 hardened 60 HRC"))["sawn outside, then faced"]
        assert "too hard" in hard.why_not

    def test_grooves_and_face_grooves_have_their_own(self) -> None:
        assert {"side by side", "ramp", "round path", "as it is set, at its best feed"} <= methods(build(GROOVE)).keys()
        assert "full radius" in methods(build(GROOVE))["round path"].why_not
        rolled = methods(build(FACE, **ROLLED, settings={"way": "round path"}))
        assert "straight edge" in rolled["turned across"].why_not
        lathe = build(CUT_OFF, machine="two-axis lathe", **DEEP, settings={"coolant": "flood"})
        assert "no Y axis" in methods(lathe)["blade turned by the Y axis"].why_not
        assert "slot ways" not in [one.name for one in studies_of(TREPAN["operation"])]


def test_feeds_of_stages_are_the_zones_own() -> None:
    zones = bar(pull_out_at="22 mm").zones
    assert [(zone.start, zone.end) for zone in zones][:2] == [(40.0, 22.0), (22.0, 10.0)]
    assert zones[0].feed == zones[1].feed
    assert np.all(np.diff([zone.start for zone in zones]) < 0)


def test_what_this_very_insert_measures_decides_its_plunge() -> None:
    """A groove of 4 +0.02/0 refuses an insert of 4 within its own tolerance; one that was measured at 4.01 may plunge it."""
    plunge = {"feature": {"width": "4 +0.02/0", "corner_radius": "0.8 mm"}, "settings": {"way": "one plunge"}}
    one = build(GROOVE, **plunge)
    assert used(evaluate_quickly(one), "width_fit") > 1.0
    measured = build(GROOVE, **{**plunge, "settings": {**plunge["settings"], "measured_width": "4.01 mm"}})
    assert used(evaluate_quickly(measured), "width_fit") <= 1.0
    narrow = build(GROOVE, **{**plunge, "settings": {**plunge["settings"], "measured_width": "3.98 mm"}})
    assert used(evaluate_quickly(narrow), "width_fit") > 1.0
