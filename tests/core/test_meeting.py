"""Features on one place are told: grooves and threads that overlap, holes that run into each other; what only follows is not."""

from __future__ import annotations

from typing import Any

import pytest

from cutting.plan.meeting import meetings
from cutting.plan.plan import Clamping, Plan, Step
from cutting.plan.read import read_entries
from cutting.process.shaft_line import read_shaft_line
from cutting.workpiece.solid import Blank

GROOVE = {"width": "4 mm", "floor": "36 mm"}


def met(*cuts: tuple[str, dict[str, Any]], round_about: tuple[int, ...] = (), prepares: tuple[int, ...] = ()) -> list[tuple[str, str]]:
    steps = tuple(
        Step(f"op{k}", kind, told=read_entries(kind, "feature", told), clamping=Clamping(k in round_about), prepares=k in prepares)
        for k, (kind, told) in enumerate(cuts)
    )
    return [(one.first, one.second) for one in meetings(Plan(Blank(50.0, 100.0, length=160.0), "C45", "mill-turn", steps))]


@pytest.mark.parametrize(("second", "meets"), [(48, True), (53.9, True), (54, False), (46, False), (46.1, True), (30, False)])
def test_grooves_that_overlap(second: float, meets: bool) -> None:
    """From 50 to 54 mm and 4 wide from another place: they touch at 46 and at 54."""
    cuts = [("groove", {**GROOVE, "distance_from_chuck": f"{place} mm"}) for place in (50, second)]
    assert bool(met(*cuts)) is meets
    assert not met(*cuts, prepares=(0,)), "what prepares a groove stands where it does"


def test_a_groove_in_a_thread_and_behind_it() -> None:
    line = "Ø45 x 30, Ø20 x 40, thread M20x1.5 x 30"
    for groove, meets in (("relief DIN 76", False), ("groove 3 x Ø17 at 10", True)):
        steps = tuple(
            Step(f"op{k}", one.kind, told=read_entries(one.kind, "feature", one.feature))
            for k, one in enumerate(read_shaft_line(f"{line}, {groove}", 50, 100))
        )
        assert bool(meetings(Plan(Blank(50.0, 100.0), "C45", "two-axis lathe", steps))) is meets, groove


HOLE = {"diameter": "10 mm", "depth": "20 mm"}


@pytest.mark.parametrize(
    ("first", "second", "meets"),
    [
        ({}, {"circle": "30 mm", "count": 4}, False),
        ({}, {"circle": "18 mm", "count": 4}, True),  # 9 from the axis, 10 between their middles would be a wall of nothing
        ({"circle": "30 mm", "count": 4}, {"circle": "30 mm", "count": 4, "diameter": "12 mm"}, False),  # opened
        ({"circle": "30 mm", "count": 4}, {"circle": "40 mm", "count": 4}, True),
        ({"circle": "30 mm", "count": 2}, {"circle": "51 mm", "count": 2}, False),
    ],
)
def test_holes_that_run_into_each_other(first: dict[str, Any], second: dict[str, Any], meets: bool) -> None:
    assert bool(met(("drill", {**HOLE, **first}), ("drill", {**HOLE, **second}))) is meets


def test_holes_of_one_circle_have_a_wall_or_are_told() -> None:
    """Chord of six on Ø18 is 9 mm, less than Ø10; of six on Ø22 it is 11."""
    assert met(("drill", {**HOLE, "circle": "18 mm", "count": 6})) == [("op0", "op0")]
    assert not met(("drill", {**HOLE, "circle": "22 mm", "count": 6}))
    # of six the chord is half the circle's diameter: a wall of 0.01 mm is none, one of 0.1 mm is one
    assert met(("drill", {**HOLE, "circle": "20.02 mm", "count": 6}))
    assert not met(("drill", {**HOLE, "circle": "20.2 mm", "count": 6}))


def test_the_other_end_is_another_place() -> None:
    holes = [("drill", HOLE), ("drill", {**HOLE, "circle": "18 mm", "count": 3})]
    assert met(*holes)
    assert not met(*holes, round_about=(1,))
