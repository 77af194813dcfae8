"""From the drawing to features and operations: what the part settles, a shaft in one line, what stands in the way, fewest tools."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Hashable
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from cutting.advice import advise
from cutting.advice.fewest import share_tools
from cutting.doors.json_form import read_setup
from cutting.errors import CuttingError
from cutting.operations.registry import evaluate_quickly, kind_of
from cutting.operations.turned.feature import Feature
from cutting.operations.turned.fit import collar_in_front, fouled
from cutting.operations.turned.setup import Setup
from cutting.plan.plan import settled as by_the_part
from cutting.plan.read import read_each
from cutting.process.line_words import Planned
from cutting.process.shaft_line import read_shaft_line
from cutting.quantities import Dimension, read_dimension
from cutting.tooling.crib import Crib
from cutting.tooling.items import holders, inserts
from cutting.tooling.shapes import SHAPES
from cutting.workpiece.part import prepares
from cutting.workpiece.solid import Blank, Region, Side, Solid, blank_solid, radius_at
from tests.core.slots import GROOVE, form
from tests.core.tools import find_holder

Build = Callable[..., Setup]


def shaft() -> Solid:
    """Ø64 × 268, faced to 266 and turned to Ø50 over the last 100."""
    part = blank_solid(Blank(64, 268))
    part = part.without(kind_of("face").removes(Feature(64, Dimension(0), 2)))
    part = part.without(kind_of("turn").removes(Feature(64, Dimension(50), 98, 168)))
    return part


@pytest.mark.parametrize(
    ("kind", "feature", "settled"),
    [
        ("turn", {"end_diameter": "40 h7", "length": "30"}, {"start_diameter": 50, "distance_from_chuck": 236, "shoulder": True}),
        ("turn", {"end_diameter": "60", "length": "150"}, {"start_diameter": 64, "distance_from_chuck": 116, "shoulder": True}),
        ("turn", {"end_diameter": "50", "length": "98"}, {"start_diameter": 50, "distance_from_chuck": 168, "shoulder": True}),
        ("turn", {"end_diameter": "64", "length": "266"}, {"start_diameter": 64, "distance_from_chuck": 0, "shoulder": False}),
        ("turn", {"end_diameter": "40", "length": "30", "start_diameter": "51", "distance_from_chuck": "200", "shoulder": False}, {}),
        ("turn", {"end_diameter": "40", "length": "soon"}, {"distance_from_chuck": 5}),
        ("turn", {"end_diameter": "40", "length": "30", "profile": "240:40; 266:30"}, {"start_diameter": 50, "distance_from_chuck": 236}),
        ("face", {}, {"start_diameter": 50, "end_diameter": 0}),
        ("groove", {"distance_from_chuck": "200", "width": "3"}, {"diameter": 50}),
        ("groove", {"distance_from_chuck": "166", "width": "4"}, {"diameter": 64}),
        ("groove", {"where": "inside"}, {}),
        ("cut off", {"part_length": "250"}, {"diameter": 64, "distance_from_chuck": 11, "bore": 0}),
        ("cut off", {"distance_from_chuck": "6"}, {"diameter": 64, "part_length": 255, "bore": 0}),
        ("cut off", {"distance_from_chuck": "265"}, {"diameter": 50, "part_length": 0, "bore": 0}),
    ],
)
def test_what_the_part_settles(kind: str, feature: dict[str, Any], settled: dict[str, Any]) -> None:
    assert by_the_part(kind, read_each(kind, feature), shaft()) == pytest.approx(settled)


def test_a_tube_gives_its_bore() -> None:
    tube = blank_solid(Blank(60, 80, 30.0))
    assert by_the_part("face", read_each("face", {}), tube)["end_diameter"] == 30
    assert by_the_part("groove", read_each("groove", {"where": "inside"}), tube) == {"diameter": 30}
    assert by_the_part("cut off", read_each("cut off", {"distance_from_chuck": "8"}), tube)["bore"] == 30


def said(line: str, blank: float = 50, free: float = 200, system: str = "metric") -> list[tuple[str, dict[str, str | bool]]]:
    return [(one.title, one.feature) for one in read_shaft_line(line, blank, free, system)]


def test_a_whole_shaft_in_one_line() -> None:
    found = said("Ø45 x 120, Ø30 h6 x 50 Ra 0.8, groove DIN 471, cut off")
    assert [title for title, _ in found] == ["Face", "Turn Ø45", "Rough turn Ø30.6", "Finish Ø30 h6", "Groove DIN 471", "Cut off Ø45"]
    by_title = dict(found)
    # 200 out of the jaws, 1 faced off: the free face at 199, the thin step from 149, the thick one from 29 and on over the kerf
    assert by_title["Turn Ø45"] == {"end_diameter": "45", "length": "173 mm", "distance_from_chuck": "26 mm"}
    assert by_title["Finish Ø30 h6"]["roughness"] == "0.8 µm"
    assert by_title["Finish Ø30 h6"]["distance_from_chuck"] == "149 mm"
    assert by_title["Cut off Ø45"] == {"part_length": "170 mm", "distance_from_chuck": "26 mm"}
    groove = read_shaft_line("Ø45 x 120, Ø30 h6 x 50 Ra 0.8, groove DIN 471, cut off", 50, 200)[4]
    assert "was not said" in groove.note
    assert 149 < float(str(groove.feature["distance_from_chuck"]).split()[0]) < 199


def test_a_groove_stays_with_the_step_it_was_said_of() -> None:
    from_jaws = said("Ø45 x 120, groove DIN 471, Ø30 h6 x 50")
    assert said("Ø30 h6 x 50, Ø45 x 120, groove DIN 471") == from_jaws != said("Ø45 x 120, Ø30 h6 x 50, groove DIN 471")


@pytest.mark.parametrize(
    "line",
    [
        "45 × 120; Ø30 h6 x 50 Ra 0,8",
        "Ø30 h6 x 50 Ra 0.8, Ø45 x 120",
        "dia 45 x 120, dia. 30 h6 * 50 Ra 0.8",
        "Ø45 x 120 mm, Ø30 h6 x 50 Ra 0.8.",
    ],
)
def test_one_shaft_in_many_spellings(line: str) -> None:
    assert said(line) == said("Ø45 x 120, Ø30 h6 x 50 Ra 0.8")


def test_inches_and_a_shaft_as_thick_as_its_bar() -> None:
    found = said("1-1/4 x 2, 1 x 1.5", system="inch")
    assert dict(found)["Turn Ø1.000 in"] == {"end_diameter": "25.4", "length": "38.1 mm", "distance_from_chuck": "160.9 mm"}
    fine = dict(said("1 ±0.001 x 1.5", system="inch"))["Finish Ø1 in ±0.001"]
    assert read_dimension(str(fine["end_diameter"]), "mm").upper_deviation == pytest.approx(0.0254)
    own = dict(said("1 x 2, groove 0.1 x Ø0.9 at 0.2", system="inch"))["Groove 0.1 x Ø0.9"]
    assert (own["width"], own["floor"], own["distance_from_chuck"]) == ("0.1 in", "0.9 in", "191.38 mm")
    assert [title for title, _ in said("Ø50 x 60, Ø40 x 30")] == ["Face", "Turn Ø40"]  # the bar itself needs no cut


def test_a_fine_surface_or_size_is_a_cut_of_its_own_and_a_hair_of_stock_none() -> None:
    def titles(line: str, blank: float = 50) -> list[str]:
        return [title for title, _ in said(line, blank)][1:]

    assert titles("Ø30 x 50 Ra 6.3") == ["Turn Ø30"]
    assert titles("Ø30 x 50") == ["Turn Ø30"]
    assert titles("Ø30 x 50 Ra 3.2") == ["Rough turn Ø30.6", "Finish Ø30"]
    assert titles("Ø30 h9 x 50") == ["Rough turn Ø30.6", "Finish Ø30 h9"]
    assert titles("Ø30 h9 x 50 Ra 6.3") == ["Rough turn Ø30.6", "Finish Ø30 h9"]
    assert titles("Ø45 x 50", blank=45.04) == []  # less than half a tenth on diameter is the bar as it came
    assert titles("Ø45 x 50", blank=45.06) == ["Turn Ø45"]


@pytest.mark.parametrize(
    ("line", "words"),
    [("", "empty"), ("cut off", "no step"), ("Ø45 x 500", "has 200 mm"), ("Ø70 x 10", "thicker than the blank"), ("M10 x 5", "M10"),
     ("groove 3 x 26", "before any step"), ("Ø45 x 30 bevel 1", "bevel 1"), ("Ø45 x -3", "Ø45 x -3"),
     ("Ø40 x 10, groove 12 x Ø30", "does not stand"),
     ("Ø41 x 60, groove DIN 999", "DIN 999"), ("Ø1,500 x 20", "can be"),
     ("Ø40 x 60, bore Ø16 x 10, bore Ø20 x 20", "is a recess"), ("Ø40 x 60, bore Ø39 x 20", "leaves no wall"),
     ("Ø25 x 20, Ø40 x 60, bore Ø24 x 21", "leaves no wall"), ("bore Ø20 through", "the part's length"),
     ("thread M20 x 30, Ø20 x 40", "before any step"), ("Ø30 x 40, thread M20 x 30", "Ø30"), ("Ø20 x 20, thread M20 x 30", "20 mm"),
     ("Ø45 x 60, thread M45", "words x its length"), 
     ("Ø40 x 60, drill Ø8 x 10, drill Ø10 x 5", "one hole"), ("bore Ø20 x 10, recess Ø30 at 5", "width x floor"),
     ("bore Ø20 x 10, recess 3 x Ø30 at 8", "across a step"), ("bore Ø30 x 10, recess 3 x Ø28 at 2", "wider than the bore"),
     ("bore Ø20 x 10, recess 3 x Ø30", "at its distance"), ("Ø40 x 60, bore Ø20", "Ø20")],
)  # fmt: skip
def test_a_line_that_cannot_be_read_says_which_words(line: str, words: str) -> None:
    with pytest.raises(CuttingError) as refused:
        read_shaft_line(line, 50, 200)
    assert refused.value.field == "line"
    assert words in refused.value.message


def test_threads_are_said_on_their_step_and_in_the_face() -> None:
    """M20x1.5 from the free end of its step whichever end is said first; M10's core is 8.5 mm (ISO 2306), deeper than its thread."""
    for line in ("Ø45 x 120, Ø20 x 40, thread M20x1.5 x 30", "Ø20 x 40, thread M20x1.5 x 30, Ø45 x 120"):
        kind, feature = next((one.kind, one.feature) for one in read_shaft_line(line, 50, 200) if one.title == "Thread M20x1.5")
        assert (kind, feature["side"], feature["length"], feature["distance"]) == ("turn thread", "outside", "30 mm", "169 mm")
    for drills, hole in (((), "8.5 mm"), ([(8.6, 40.0), (8.5, 10.0), (9.5, 60.0)], "8.6 mm")):  # what does not reach is not taken
        drilled, tapped = read_shaft_line("tapped M10 x 15", 50, 200, drills=drills)
        assert (drilled.kind, drilled.feature["diameter"], tapped.kind) == ("drill", hole, "tap")
        assert float(str(drilled.feature["chamfer"]).split()[0]) > 10
        assert float(str(drilled.feature["depth"]).split()[0]) >= 15 + 3 * 1.5
    assert read_shaft_line("Ø20 x 30, thread M20 x 30", 50, 200)[-1].kind == "turn thread"  # as long as its step
    bored = [one.kind for one in read_shaft_line("bore Ø18.4 x 40, tapped M20x1.5 x 30", 50, 200)]
    assert bored.count("drill") == 1  # the hole is there: none is drilled for the thread
    assert bored[-1] == "tap"


@given(st.lists(st.tuples(st.integers(12, 48), st.integers(5, 30), st.booleans()), min_size=1, max_size=5))
def test_the_operations_of_a_line_leave_the_part_that_it_says(steps: list[tuple[int, int, bool]]) -> None:
    """Whatever the order of steps: turned in run order the bar has each step's diameter, and nothing is cut below it."""
    line = ", ".join(f"Ø{d}{' h7' if fine else ''} x {long}" for d, long, fine in steps)
    planned: tuple[Planned, ...] = read_shaft_line(line, 50, 200)
    part = blank_solid(Blank(50, 200))
    for one in planned:
        f = {name: float(str(value).split()[0]) for name, value in one.feature.items() if name not in ("roughness", "roughing")}
        if one.kind == "face":
            part = part.without(kind_of("face").removes(Feature(50, Dimension(0), f["length"])))
        else:
            part = part.without(kind_of("turn").removes(Feature(50, Dimension(f["end_diameter"]), f["length"], f["distance_from_chuck"])))
    wanted = steps if steps[0][0] >= steps[-1][0] else steps[::-1]
    place = 199.0 - sum(long for _, long, _ in wanted)
    for diameter, long, _ in wanted:
        assert part.largest(place, place + long) == diameter
        assert part.at(place + long / 2) == diameter
        place += long


def test_the_inside_is_said_from_the_face_inward() -> None:
    line = "Ø80 x 40, bore Ø62 H7 x 20 Ra 1.6 R0.8, bore Ø50 x 30, bore Ø40 through, recess 5 x Ø66 at 12, cut off"
    found = dict(said(line, 90, 80))
    assert list(found) == [
        "Face", "Hole Ø39", "Turn Ø80", "Bore Ø40", "Bore Ø50", "Rough bore Ø61.4", "Bore Ø62 H7", "Recess Ø66", "Cut off Ø80",
    ]  # fmt: skip
    fine = {"end_diameter": "62 H7", "length": "20 mm", "shoulder": True, "roughness": "1.6 µm", "fillet": "0.8 mm"}
    assert found["Bore Ø62 H7"] == fine
    assert found["Bore Ø40"] == {"end_diameter": "40 mm", "length": "44 mm", "shoulder": False}  # past the blade, or a disc stays in it
    assert found["Recess Ø66"]["distance_from_chuck"] == "62 mm"  # its near wall: 79 − 12 − 5
    assert found["Recess Ø66"]["diameter"] == "62 mm"
    assert dict(said("bore Ø30 H7 x 20", 90, 80))["Hole Ø28"]["depth"] == "20 mm"  # the outside is left as it is
    opens = dict(said("Ø45 x 199, bore Ø20 through"))["Hole Ø19"]
    assert (opens["depth"], opens["through"]) == ("199 mm", True)  # nothing stands behind it
    assert dict(said("Ø45 x 100, drill Ø10 H7 through"))["Hole Ø10 H7"] == {"diameter": "10 H7", "depth": "101 mm", "through": False}
    there = [(30.0, 60.0), (36.0, 30.0), (38.5, 90.0), (40.0, 90.0)]  # Ø and reach: the widest that reaches and leaves a bar its mm
    assert read_shaft_line("bore Ø40 x 50", 90, 80, drills=there)[0].feature["diameter"] == "38.5 mm"
    assert read_shaft_line("bore Ø40 H7 x 50", 90, 80, drills=there)[0].feature["diameter"] == "30 mm"
    ring = read_shaft_line("Ø80 x 30, bore Ø62 H7 through", 90, 31, "metric", 40)
    assert [one.title for one in ring] == ["Face", "Turn Ø80", "Rough bore Ø61.4", "Bore Ø62 H7"]  # the blank has its hole
    inch = dict(said("bore 1 x 1, recess 0.1 x 1.2 at 0.4", 90, 80, "inch"))["Recess Ø30.48"]
    assert inch == {"where": "inside", "diameter": "25.4 mm", "width": "0.1 in", "floor": "1.2 in", "distance_from_chuck": "67.3 mm"}


def test_nothing_is_bored_twice_and_a_wall_stays() -> None:
    def titles(line: str, blank_bore: float = 0.0) -> list[str]:
        return [one.title for one in read_shaft_line(line, 90, 80, "metric", blank_bore)]

    assert titles("bore Ø62 H7 x 20", 61.4) == titles("bore Ø62 H7 x 20", 61.36) == ["Bore Ø62 H7"]  # that little is left to finishing
    assert titles("bore Ø62 H7 x 20", 61.2) == ["Rough bore Ø61.4", "Bore Ø62 H7"]
    assert titles("drill Ø61.5 x 40, bore Ø62 H7 x 20") == ["Hole Ø61.5", "Bore Ø62 H7"]
    assert titles("bore Ø61.42 x 30, bore Ø62 H7 x 20", 50) == ["Bore Ø61.42", "Bore Ø62 H7"]
    assert "Bore Ø42" in titles("Ø44 x 40, bore Ø42 x 20")
    with pytest.raises(CuttingError):
        titles("Ø44 x 40, bore Ø42.1 x 20")
    recesses = {
        one.title: one.feature.get("diameter")
        for one in read_shaft_line("bore Ø50 x 20, bore Ø40 x 40, recess 3 x Ø52 at 5, recess 3 x Ø46 at 30", 90, 80)
    }
    assert (recesses["Recess Ø52"], recesses["Recess Ø46"]) == ("50 mm", "40 mm")
    with pytest.raises(CuttingError):
        titles("bore Ø50 x 20, recess 3 x Ø52 at 18")  # half of it would lie in the metal


@given(st.lists(st.tuples(st.integers(16, 60), st.integers(2, 40), st.booleans()), min_size=1, max_size=4, unique_by=lambda one: one[0]))
def test_the_bores_of_a_line_leave_the_inside_that_it_says(bores: list[tuple[int, int, bool]]) -> None:
    """Drilled and bored in run order the part has each bore's diameter down to its depth, and not beyond."""
    deep = sorted({long for _, long, _ in bores}, reverse=True)
    wanted = [(d, long, fine) for (d, _, fine), long in zip(sorted(bores), deep, strict=False)]
    part = blank_solid(Blank(80, 100))
    for one in read_shaft_line(", ".join(f"bore Ø{d}{' H7' if fine else ''} x {long}" for d, long, fine in wanted), 80, 100):
        size = read_dimension(str(one.feature["diameter" if one.kind == "drill" else "end_diameter"]), "mm")
        depth = float(str(one.feature["depth" if one.kind == "drill" else "length"]).split()[0])
        part = part.without(Region(Side.BORE, depth=depth, outer=size.nominal))
    for k, (diameter, long, _) in enumerate(wanted):
        shallower = wanted[k + 1][1] if k + 1 < len(wanted) else 0
        assert 2 * radius_at(part.inside, 100.0 - (long + shallower) / 2) == diameter
    assert 2 * radius_at(part.inside, 100.0 - wanted[0][1] - 1.0) == 0.0


# ---- what stands in the way


def behind(setup: Build, collar: float, **feature: Any) -> Setup:
    """A cut of 20 mm to Ø40 between 20 and 40 mm from the jaws, with a collar beyond it."""
    drawn = {"start_diameter": 45, "end_diameter": 40, "length": 20, "distance_from_chuck": 20, **feature}
    held = {"style": "chuck", "free_length": 60, "grip_diameter": 45, "steps": [[0, 45], [40, collar]]}
    return setup(feature=drawn, holding=held)


def test_a_collar_in_front_of_the_cut_is_found_and_refused(setup: Build) -> None:
    blocked = behind(setup, 45)
    assert collar_in_front(blocked) == (40, 45)
    assert fouled(blocked) == (40, 45, "collar")
    outcome = evaluate_quickly(blocked)
    assert not outcome.feasible
    assert outcome.scene["fouls_with"] == "collar"
    assert any(warning.name == "fit_collar" and "40 mm from the jaws" in warning.text for warning in outcome.warnings)


@pytest.mark.parametrize(("collar", "blocks"), [(40.1, False), (40.3, True)])
def test_a_hair_of_a_step_is_no_collar(setup: Build, collar: float, blocks: bool) -> None:
    assert (collar_in_front(behind(setup, collar)) is not None) == blocks


def test_a_faced_end_is_no_collar(setup: Build) -> None:
    drawn = {"start_diameter": 45, "end_diameter": 40, "length": 39, "distance_from_chuck": 20}
    held = {"style": "chuck", "free_length": 60, "grip_diameter": 45, "steps": [[0, 45], [57, 50]]}
    assert collar_in_front(setup(feature={**drawn, "length": 35}, holding=held)) == (55, 45)
    assert collar_in_front(setup(feature=drawn, holding={**held, "face": "59 mm"})) is None  # the cut ends at the face
    assert setup(feature=drawn, holding={**held, "face": "55 mm"}).holding.stretches == ((0, 55, 45),)


def test_a_slim_insert_gets_down_behind_a_low_collar_and_a_square_one_does_not(setup: Build) -> None:
    low = behind(setup, 43)
    found = advise(low, Crib(inserts(), holders()))
    assert found.candidates
    for row in found.candidates:  # 1.5 mm down within half of 20 mm: the flank behind (180° − κr − εr, ISO 3002) clears 8.5° by 2°
        code = find_holder(row.tool["holder"]).code
        assert code.shape == "R" or 180 - code.cutting_edge_angle - SHAPES[code.shape].included_angle >= 10.5
    assert not any(row.tool["holder"].startswith("PCLNR") for row in found.candidates)  # 95° and 80° leave 5°
    assert any("collar" in refused.reason for refused in found.refused)
    deep = behind(setup, 45, end_diameter=20, start_diameter=45)
    assert not advise(deep, Crib(inserts(), holders())).candidates
    # the same cut with nothing in front is free
    assert {"C", "W"} <= {row.designation[0] for row in advise(behind(setup, 39), Crib(inserts(), holders())).candidates}


def test_jaws_and_centre_are_named_too(setup: Build) -> None:
    near = setup(feature={"start_diameter": 45, "end_diameter": 40, "length": 20, "distance_from_chuck": 1})
    assert fouled(near)[2] == "jaws"  # type: ignore[index]
    centre = setup(
        feature={"start_diameter": 14, "end_diameter": 12, "length": 20, "distance_from_chuck": 10},
        holding={"style": "chuck and centre", "centre_diameter": 12},
    )
    assert fouled(centre)[2] == "centre"  # type: ignore[index]
    assert fouled(setup()) is None


@pytest.mark.parametrize(
    ("steps", "needs", "breaks"),
    [([[0, 116], [12, 110]], 6.055, False), ([[0, 110], [55, 130]], 16.055, False), ([[0, 110], [55, 136]], 19.055, True),
     ([[0, 136], [15, 110]], 19.055, True), ([[0, 110], [62.1, 136]], 6.055, False), ([[0, 136], [13.9, 110]], 6.055, False)],
)  # fmt: skip
def test_a_blade_reaches_down_past_what_stands_beside_its_groove(steps: list[list[float]], needs: float, breaks: bool) -> None:
    """A groove 24 wide from 26 to 50.1 mm, floor Ø97.89 (98 h11), a blade that reaches 18: a collar within 12 mm of it counts."""
    made = read_setup(form(GROOVE, holding={"free_length": "70 mm", "grip_diameter": "116 mm", "steps": steps}))
    reach = next(limit for limit in evaluate_quickly(made).limits if limit.name == "reach")
    assert reach.value == pytest.approx(needs, abs=0.002)
    assert reach.broken == breaks


# ---- fewest tools


def brute(extras: list[dict[Hashable, float]], worth: float) -> float:
    every = sorted({tool for one in extras for tool in one}, key=str)
    costs = []
    for count in range(1, len(every) + 1):
        for tools in itertools.combinations(every, count):
            if all(any(tool in one for tool in tools) for one in extras):
                costs.append(worth * count + sum(min(one[tool] for tool in tools if tool in one) for one in extras))
    return min(costs)


@given(
    st.lists(st.dictionaries(st.sampled_from("abcde"), st.floats(0, 2), min_size=1, max_size=5), min_size=1, max_size=4),
    st.floats(0, 1),
)
def test_sharing_is_never_dearer_than_the_best_of_each_and_as_good_as_trying_all(extras: list[dict[str, float]], worth: float) -> None:
    chosen = share_tools(extras, worth)  # type: ignore[arg-type]
    cost = worth * len(set(chosen)) + sum(one[tool] for one, tool in zip(extras, chosen, strict=True))  # type: ignore[index]
    alone = worth * len({min(one, key=lambda tool: one[tool]) for one in extras}) + sum(min(one.values()) for one in extras)
    assert cost <= alone + 1e-9
    assert cost == pytest.approx(brute(extras, worth), abs=1e-9 + 0.25 * worth)  # type: ignore[arg-type]


def test_a_worthless_pocket_shares_nothing_and_a_dear_one_all() -> None:
    extras = [{"a": 0.0, "c": 0.2}, {"b": 0.0, "c": 0.2}]
    assert share_tools(extras, 0.0) == ("a", "b")
    assert share_tools(extras, 0.39) == ("a", "b")
    assert share_tools(extras, 0.41) == ("c", "c")
    assert share_tools([], 1.0) == ()


def test_a_longer_neck_lets_more_tools_down(setup: Build) -> None:
    short, long = behind(setup, 44, length=8, distance_from_chuck=32), behind(setup, 44)
    crib = Crib(inserts(), holders())
    assert len(advise(short, crib).candidates) < len(advise(long, crib).candidates)
    assert collar_in_front(replace(long, operation="face")) is None


@pytest.mark.parametrize(("said_so", "kept"), [("Rz 6.3", "Rz 6.3 µm"), ("N6", "N6"), ("Ra 0,8", "0.8 µm")])
def test_a_finish_in_a_shaft_line_keeps_its_own_word(said_so: str, kept: str) -> None:
    fine = next(one for one in read_shaft_line(f"Ø45 x 120, Ø30 h6 x 50 {said_so}", 50, 200) if one.title == "Finish Ø30 h6")
    assert fine.feature["roughness"] == kept


def test_a_roughing_prepares_only_what_it_covers() -> None:
    """All of the finished length, outside for outside, with a little left and not a lot."""
    seat = Region(Side.OUTSIDE, ((20.0, 60.0, 50.0),))
    for spans, whether in (
        (((20.0, 60.0, 51.0),), True),
        (((10.0, 80.0, 51.0),), True),
        (((25.0, 60.0, 51.0),), False),  # it leaves the shoulder
        (((20.0, 55.0, 51.0),), False),  # and the end
        (((20.0, 60.0, 50.0),), False),  # nothing is left
        (((20.0, 60.0, 75.0),), False),  # that is no roughing of it
        (((20.0, 60.0, 49.0),), False),  # smaller than it
    ):
        assert prepares(Region(Side.OUTSIDE, spans), seat) is whether, spans
    assert not prepares(Region(Side.INSIDE, ((20.0, 60.0, 49.0),)), seat)
    bore = Region(Side.INSIDE, ((20.0, 60.0, 30.0),))
    assert prepares(Region(Side.INSIDE, ((20.0, 60.0, 29.0),)), bore)
    assert not prepares(Region(Side.INSIDE, ((20.0, 60.0, 31.0),)), bore)
