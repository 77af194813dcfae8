"""The whole part: tape, totals and money worked by hand; drawings that close."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

import pytest

from cutting.advice.explain import why_not_first
from cutting.advice.rank import Candidate
from cutting.doors.json_form import read_setup
from cutting.operations.frame.outcome import Outcome
from cutting.operations.frame.setup import Goal
from cutting.operations.registry import evaluate_quickly
from cutting.operations.turned.case import edge_cost, single_cutter
from cutting.operations.turned.setup import Setup
from cutting.process.outline import Made, outline
from cutting.process.tape import PieceMoney, cycle_tape
from cutting.tooling.items import holders, inserts
from cutting.tooling.plan_view import holder_outline, insert_outline
from cutting.workpiece.solid import Blank
from tests.core.every_kind import EVERY_KIND
from tests.core.slots import CUT_OFF, build
from tests.core.tools import find_holder, find_insert

Build = Callable[..., Setup]


def test_the_tape_adds_up_to_the_piece(setup: Build) -> None:
    base = setup()
    outcomes: list[tuple[str, str, Outcome]] = [("a", "first", evaluate_quickly(base)), ("b", "second", evaluate_quickly(base))]
    tape = cycle_tape(outcomes, base.machine, 60, PieceMoney(blank=14.5, setup_minutes=45, good_share=0.99))
    operation = outcomes[0][2].results["operation_time"].value
    assert tape.seconds == pytest.approx(2 * operation + base.machine.handling_time)
    assert tape.seconds == pytest.approx(sum(s.seconds for s in tape.segments))
    # groover, ch. 24: time, edges, blank and the batch's set-up, over the good share
    each = outcomes[0][2].results["operation_cost"].value
    rate = base.machine.rate / 3600
    by_hand = (2 * each + rate * base.machine.handling_time + 14.5 + 45 * 60 * rate / 60) / 0.99
    assert tape.money == pytest.approx(by_hand)
    assert tape.money_band[0] < tape.money < tape.money_band[1]
    assert [s.kind for s in tape.segments] == ["cut", "idle", "edges"] * 2 + ["handling"]


def test_long_cycles_read_in_minutes(setup: Build) -> None:
    base = setup()
    tape = cycle_tape([("a", "only", evaluate_quickly(base))], replace(base.machine, handling_time=400.0), 1, PieceMoney())
    assert tape.seconds_display.metric.startswith("8:")


def test_edge_cost_counts_edges_and_holder() -> None:
    """92 a pack of ten: 9.20 an insert, four edges 2.30 each, and a four-hundredth of the holder."""
    insert, holder = find_insert("CNMG 120408 middle P20"), find_holder("PCLNR 2525 M12")
    assert (insert.price, insert.edges) == (pytest.approx(9.2), 4)
    from_core = 9.2 / 4 + holder.price / 400
    assert find_insert("WNMG 080408 middle P20").edges == 6
    assert find_insert("CCMT 09T304 light positive P10").edges == 2
    assert find_insert("SNMG 120408 middle P20").edges == 8
    assert find_insert("CNGA 120408 bare H10").edges == 4
    assert from_core == pytest.approx(2.3 + holder.price / 400)


def test_round_inserts_are_indexed_by_depth(setup: Build) -> None:
    base = setup(tool={"insert": "RCMT 1204M0 middle positive P20", "holder": "SRDCN 2525 M12"})
    cutter = single_cutter(base)
    shallow, deep = (float(edge_cost(cutter, depth).ravel()[0]) for depth in (0.5, 3.0))
    assert shallow < deep
    # 0.5 mm on a radius of 6: arc 23.6° and 10° to spare, ten indexings
    assert shallow == pytest.approx(11.2 / 10 + base.holder.price / 400, rel=1e-6)


@pytest.mark.parametrize("insert", inserts(), ids=lambda i: i.name)
def test_insert_outlines_close_with_their_sizes(insert) -> None:  # type: ignore[no-untyped-def]
    # a square insert stands at 75°, or its minor edge would cut below the tip
    corners = insert_outline(insert, 75.0 if insert.code.shape == "S" else 95.0)
    assert corners[0] == (0.0, 0.0)
    assert min(y for _, y in corners) >= -1e-9, "the tip is the lowest point"
    first, last = corners[0], corners[-1]
    side = ((first[0] - last[0]) ** 2 + (first[1] - last[1]) ** 2) ** 0.5
    if insert.code.shape == "R":
        assert max(y for _, y in corners) == pytest.approx(insert.code.inscribed_circle, rel=0.02)
    else:
        assert side == pytest.approx(insert.code.edge_length, rel=2e-3)


def test_holders_stand_behind_their_tip() -> None:
    for holder in holders():
        insert = next((i for i in inserts() if i.code.shape == holder.code.shape), None)
        if insert is not None:
            assert min(y for _, y in holder_outline(holder, insert)) > 0


def row(**changes: Any) -> Candidate:
    base = {
        "tool": {"insert": "a", "holder": "h"}, "designation": "CNMG 120408", "geometry": "middle", "grade": "P20 CVD", "passes": 2,
        "cutting_speed": 150.0, "feed": 0.3, "depth_of_cut": 2.0, "seconds": 80.0, "cost": 1.5, "change_parts": 10.0,
        "median_parts": 15.0, "secure": 0.95, "chip_index": 95.0, "edge_cost": 2.5, "edges": 4, "roughness": 5.0,
        "speed_reached": 150.0, "binding": "spindle power", "utilisation": 0.9, "reason": "", "holds_feed": "finish Ra",
        "holds_speed": "spindle power",
    }  # fmt: skip
    return Candidate(**{**base, **changes})  # type: ignore[arg-type]


def aiming_at(goal: Goal) -> Any:
    """A set-up of the two-axis lathe: 58 an hour."""
    return build(CUT_OFF, machine="two-axis lathe", settings={"coolant": "flood", "spindle_clamp": "3000"}, goal=goal.value)


@pytest.mark.parametrize(
    ("changes", "words"),
    [
        ({"passes": 4, "seconds": 120.0, "cost": 2.0}, "4 passes instead of 2"),
        ({"feed": 0.2, "seconds": 110.0, "cost": 1.9}, "feed 33% lower: finish Ra"),
        ({"speed_reached": 120.0, "seconds": 96.0, "cost": 1.7}, "speed 20% lower: spindle power"),
        ({"edge_cost": 9.0, "cost": 2.1}, "edge costs more: 9.00 with 4 edges, not 2.50"),
        ({"change_parts": 4.0, "cost": 1.9}, "fewer pieces per edge: 4 against 10"),
        ({}, "equal within model accuracy"),
        # by a hair on each side of what counts: 0.4 % of the cost, 2 % of feed, 2 % of speed, a tenth of an edge's price
        ({"seconds": 80.3, "cost": 1.5}, "equal within model accuracy"),
        ({"seconds": 80.4, "cost": 1.51}, "0.4 s slower"),
        ({"feed": 0.296, "seconds": 84.0, "cost": 1.6}, "4.0 s slower"),
        ({"feed": 0.29, "seconds": 84.0, "cost": 1.6}, "feed 3% lower: finish Ra"),
        ({"speed_reached": 148.0, "seconds": 84.0, "cost": 1.6}, "4.0 s slower"),
        ({"speed_reached": 120.0, "feed": 0.29, "seconds": 110.0, "cost": 1.9}, "speed 20% lower: spindle power"),  # the larger of both
        ({"edge_cost": 2.7, "cost": 1.6}, "edges cost 0.020 € more per piece"),
        ({"change_parts": 9.7, "edge_cost": 2.5, "cost": 1.6}, "fewer pieces per edge: 9.7 against 10"),
        # a kerf counts where it is more than the operation's own difference, and than a hundredth of its cost
        ({"beside": 0.1, "cost": 1.55}, "its kerf costs 0.100 € more per piece"),
        ({"beside": 0.014, "cost": 1.5}, "equal within model accuracy"),
        ({"beside": 0.04, "cost": 1.55, "seconds": 90.0}, "10.0 s slower"),
        # narrow edges: another way, a narrower edge, a slower grade
        ({"way": "ramp", "seconds": 90.0, "cost": 1.6}, "ramp takes 10.0 s more than CNMG 120408"),
        ({"width": 3.0, "feed": 0.2, "seconds": 90.0, "cost": 1.6}, "3 mm wide: feed 33% lower: finish Ra"),
        (
            {"width": 4.0, "grade": "K15 CVD", "holds_speed": "", "speed_reached": 120.0, "seconds": 90.0, "cost": 1.6},
            "speed 20% lower: K15 CVD",
        ),
        ({"speed_reached": 120.0, "holds_speed": "", "seconds": 90.0, "cost": 1.6}, "speed 20% lower"),
        ({"seconds": 84.0, "change_parts": 6.0, "cost": 1.6, "edge_cost": 1.4}, "4.0 s slower: its edge is changed every 6 pieces, not 10"),
        # what breaks a soft limit is weighed by what that costs
        (
            {"cost": 1.5, "strained": "edge temperature, relative", "strain": 1.13, "risk": 0.061},
            "edge temperature, relative at 113% of its limit",
        ),
        ({"strained": "edge heat", "strain": 1.13, "risk": 0.001}, "equal within model accuracy"),
        ({"close": "spindle power", "chance": 0.71}, "spindle power holds in 71 of 100"),
    ],
)
def test_the_one_reason_is_the_costliest_difference(changes: dict[str, float], words: str) -> None:
    first = row(width=4.0) if "width" in changes else row()
    assert why_not_first(row(tool={"insert": "b", "holder": "h"}, **changes), first, aiming_at(Goal.CHEAPEST)) == words


def test_security_is_the_reason_where_it_is_the_goal() -> None:
    first = row()
    assert "secure" in why_not_first(row(tool={"insert": "b", "holder": "h"}, secure=0.85), first, aiming_at(Goal.MOST_SECURE))
    assert (
        why_not_first(row(tool={"insert": "b", "holder": "h"}, secure=0.85, chip_index=60.0), first, aiming_at(Goal.MOST_SECURE))
        == "chip index 60 against 95"
    )


def test_a_thread_is_drawn_with_its_crests_and_roots() -> None:
    """ISO 6410-1: crests by a thick line, roots by a thin one; ISO 724: M24×1.5 outside roots at 22.160, M10 inside crests at 8.376."""
    blank = Blank(60.0, 100.0, 0.0)
    out, inside, hole = (outline(blank, [Made(kind, read_setup(EVERY_KIND[kind]))]).threads for kind in ("turn thread", "tap", "drill"))
    assert (2 * out[0].crest, 2 * out[0].root) == (pytest.approx(24.0), pytest.approx(22.160, abs=0.001))
    assert (out[0].near, out[0].far) == (70.0, 100.0)
    assert (2 * inside[0].crest, 2 * inside[0].root) == (pytest.approx(8.376, abs=0.001), pytest.approx(10.0))
    assert hole == ()
    form = {**EVERY_KIND["tap"], "feature": {**EVERY_KIND["tap"]["feature"], "circle": "40 mm", "count": 6}}
    assert outline(blank, [Made("tap", read_setup(form))]).threads[0].off == pytest.approx(20.0)
