"""Milled holes: which way each change must move what is said, what is refused, and who is first."""

from __future__ import annotations

import math
from types import SimpleNamespace
from typing import Any

import numpy as np
import pytest

from cutting.advice import advise
from cutting.advice.contests.mill_hole import CONTEST
from cutting.advice.round_tools import advice_for, coating_of, coating_reason, one_for_all, one_for_its_metals, share_of_speed
from cutting.doors.json_form import read_request
from cutting.errors import CuttingError
from cutting.operations.holes.mill_hole.evaluate import MODEL, explore
from cutting.operations.holes.mill_hole.limits import _plunged_size
from cutting.operations.registry import evaluate
from cutting.tooling.bought import shipped
from cutting.tooling.drills import DRILL_KINDS
from cutting.tooling.items import grades
from cutting.tooling.mill_drawing import _teeth, mill_drawing
from cutting.working import Silent
from tests.core.mills import SEAT, asked, milled, numbers_of

SILENT = Silent()
PLUNGE = {
    "tool": {"mill": "mill 12 gashed K30 fine PVD"},
    "feature": {"diameter": "12 mm", "depth": "10 mm"},
    "settings": {"path": "plunge", "pitch": None},
}
EVEN = {"tool": {"mill": "mill 8 HSS HSS cobalt PVD"}, "settings": {"cutting_speed": "20 m/min"}}
FINE = {"finish": "0.1 mm"}


def limit(name: str, **sections: Any) -> Any:
    return next(one for one in evaluate(milled(**sections)).limits if one.name == name)


@pytest.mark.parametrize(
    ("why", "base", "change", "figure", "sign"),
    [
        ("a steeper helix is sooner down", {}, {"settings": {"pitch": "2 mm"}}, "operation_time", -1),
        ("and goes down steeper", {}, {"settings": {"pitch": "2 mm"}}, "ramp", 1),
        ("and takes more power", {}, {"settings": {"pitch": "2 mm"}}, "power", 1),
        ("and pushes harder off the wall", {}, {"settings": {"pitch": "2 mm"}}, "push_off", 1),
        ("more feed pushes harder", {}, {"settings": {"feed_per_tooth": "0.09 mm/z"}}, "push_off", 1),
        ("more feed leaves a rougher wall", {}, {"settings": {"feed_per_tooth": "0.09 mm/z"}}, "roughness", 1),
        ("more speed costs life", {}, {"settings": {"cutting_speed": "190 m/min"}}, "tool_life", -1),
        ("a hole that is there leaves less", {}, {"feature": {"pilot": "18 mm"}}, "power", -1),
        ("and less of the turn in the metal", {}, {"feature": {"pilot": "18 mm"}}, "engagement", -1),
        ("teeth in the air last longer", {}, {"feature": {"pilot": "18 mm"}}, "tool_life", 1),
        ("a longer neck bends more", {}, {"tool": {"mill": "mill 16 long neck K30 fine PVD"}}, "size_error", 1),
        ("climbing leaves the hole small", {"settings": {"sense": "against the feed"}}, {"settings": {"sense": "climb"}}, "size_error", 1),
        ("the path set outward makes it wider", {}, {"settings": {"offset": "0.01 mm"}}, "size_error", -1),
        ("a last turn takes its time", {}, {"settings": FINE}, "operation_time", 1),
        ("but spares the wall", {}, {"settings": FINE}, "push_off", -1),
        ("and leaves it finer", {}, {"settings": FINE}, "roughness", -1),
        ("a light last turn holds the size closer", {"tool": {"mill": "mill 12 long neck K30 fine PVD"}}, {"settings": FINE}, "width", -1),
        ("a deep last turn leaves a taper", {}, {"settings": FINE}, "taper", 1),
        ("a deeper hole keeps its chips", {}, {"feature": {"depth": "38 mm"}}, "crowding", 1),
        ("pressure lifts them", {}, {"settings": {"coolant": "through"}}, "crowding", -1),
        ("four holes take four times", {}, {"feature": {"count": 4, "circle": "80 mm"}}, "engaged_time", 1),
        ("a floor is run round once more", {"feature": {"through": True}}, {"feature": {"through": False}}, "turns", 1),
        ("straight down more feed is more power", PLUNGE, {"settings": {"feed_per_tooth": "0.09 mm/z"}}, "power", 1),
        ("straight down a hole that is there leaves less", PLUNGE, {"feature": {"pilot": "6 mm"}}, "power", -1),
    ],
)  # fmt: skip
def test_what_a_change_must_do(why: str, base: dict[str, Any], change: dict[str, Any], figure: str, sign: int) -> None:
    def of(sections: dict[str, Any]) -> float:
        return float(np.ravel(getattr(numbers_of(**sections), figure))[-1])

    both = {name: {**base.get(name, {}), **change.get(name, {})} for name in {*base, *change}}
    assert sign * (of(both) - of(base)) > 1e-9, why


def test_chamfers_and_last_turns_are_counted() -> None:
    """Each mouth is chamfered for itself; a last turn is a second time over the wall."""
    four = {"count": 4, "circle": "80 mm"}
    one_more, four_more = (
        float(numbers_of(feature={**more, "chamfer": "26 mm"}).idle_time[0] - numbers_of(feature=more).idle_time[0]) for more in ({}, four)
    )
    assert 0 < one_more < four_more
    assert (numbers_of().strokes_taken, numbers_of(settings=FINE).strokes_taken) == (1, 2)


def test_the_shop_s_other_half_of_the_size() -> None:
    """Half of what it springs, set outward, brings the hole to its size; the remedy does it."""
    slack = {"tool": {"mill": "mill 12 long neck K30 fine PVD"}, "settings": {"pitch": "1.4 mm", "feed_per_tooth": "0.08 mm/z"}}
    broken = limit("setting", feature={"diameter": "20 H9"}, **slack)
    assert broken.broken
    remedy = next(one for one in broken.remedies if "offset" in one.patch.get("settings", {}))
    told = {**slack["settings"], **remedy.patch["settings"]}
    assert limit("setting", feature={"diameter": "20 H9"}, tool=slack["tool"], settings=told).utilisation < 0.1


@pytest.mark.parametrize(
    ("name", "sections"),
    [
        ("ramp", {"settings": {"pitch": "2.4 mm"}}),
        ("room", {"tool": {"mill": "mill 20 z4 K30 fine PVD"}, "feature": {"diameter": "22 mm"}}),
        ("core", {"tool": {"mill": "mill 10 z4 K30 fine PVD"}}),
        ("reach", {"feature": {"depth": "41 mm"}}),
        ("plunge", {**PLUNGE, "feature": {"diameter": "12 mm", "depth": "13 mm"}}),
        ("size", {**PLUNGE, "feature": {"diameter": "12 H8", "depth": "10 mm"}}),
        ("tolerance", {"feature": {"diameter": "24 H5"}}),
        ("finish", {"feature": {"roughness": "0.8 µm"}}),
        ("pitch", {"tool": {"mill": "mill 16 gashed K30 fine PVD"}, "settings": {"pitch": "4.1 mm"}}),
        ("book_feed", {"settings": {"feed_per_tooth": "0.25 mm/z"}}),
        ("book_speed", {"settings": {"cutting_speed": "215 m/min"}}),
        ("minimum_chip", {"settings": {"feed_per_tooth": "0.006 mm/z"}}),
        ("chips", {"tool": {"mill": "mill 16 long neck K30 fine PVD"}, "feature": {"depth": "65 mm"}}),
        ("slender", {**EVEN, "feature": {"diameter": "15 mm"}}),
    ],
)  # fmt: skip
def test_what_breaks(name: str, sections: dict[str, Any]) -> None:
    """Each is broken here; `slender` alone is not, at 2.4 diameters, but tells its bound of even teeth."""
    found = limit(name, **sections)
    assert found.broken is (name != "slender")
    if name == "slender":
        assert found.upper == 4.0
        assert limit("slender").upper == 5.0  # teeth of two helices


@pytest.mark.parametrize(
    ("sections", "field"),
    [
        ({"tool": {"mill": "mill 20 z4 K30 fine PVD"}, "feature": {"diameter": "20 mm"}}, "tool.mill"),
        ({"settings": {"finish": "4.1 mm"}}, "settings.finish"),
        ({"feature": {"pilot": "24 mm"}}, "feature.pilot"),
        ({"machine": "two-axis lathe"}, "machine"),
        ({"machine": "feed-drilling unit"}, "machine"),
        ({"settings": {"pitch": "0"}}, "settings.pitch"),
        ({"tool": {"chuck": "shrink BT40 for 6"}}, "tool.chuck"),
        ({"tool": {"mill": "mill 16 alu K20 fine plain"}, "material": "GFRP laminate"}, "tool.mill"),
        ({"feature": {"depth": None}}, "feature.depth"),
    ],
)
def test_what_cannot_be_is_refused_by_field(sections: dict[str, Any], field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        MODEL.quickly(milled(**sections))
    assert refused.value.field == field


def test_the_map_says_what_the_limits_say() -> None:
    setup = milled()
    found = explore(setup)
    for feed, pitch in ((5, 10), (20, 30), (40, 5)):
        here = milled(settings={"feed_per_tooth": f"{found.across[feed]} mm/z", "pitch": f"{found.up[pitch]} mm"})
        closest = max(one.utilisation for one in evaluate(here).limits if one.name in {edge.name for edge in found.edges})
        assert closest <= found.worst[pitch, feed] + 1e-9
    assert {edge.name for edge in found.edges} >= {"book_feed", "minimum_chip", "ramp"}
    assert explore(milled(**PLUNGE)).edges == ()


# who is first


def ways_of(**sections: Any) -> list[Any]:
    data = {**{name: SEAT[name] for name in ("material", "machine")}, "operation": "drill", "settings": {"coolant": "flood"}, **sections}
    return list(advise(*read_request(data)).candidates)


def test_a_drill_before_a_mill_unless_the_floor_is_flat() -> None:
    """Common practice, no source: seconds against half a minute; a point leaves its cone."""
    round_hole, flat = (ways_of(feature={"diameter": "10 mm", "depth": "20 mm", "through": False, "flat": flat}) for flat in (False, True))
    assert "drill" in round_hole[0].tool
    assert any(row.way == "helix" for row in round_hole)
    assert round_hole[0].seconds * 3 < next(row for row in round_hole if row.way == "helix").seconds
    assert flat
    assert all("mill" in row.tool or row.edge.startswith("flat carbide") for row in flat)
    deep = ways_of(feature={"diameter": "10 mm", "depth": "9 mm", "through": False, "flat": True})
    assert {row.way for row in deep} >= {"helix", "plunged"}
    assert next(row for row in deep if "mill" in row.tool).way == "plunged"  # one diameter deep an end that is gashed for it is quickest


def test_a_lathe_mills_only_with_driven_tools() -> None:
    asks = {"feature": {"diameter": "24 mm", "depth": "20 mm", "through": False, "flat": True}}
    assert not ways_of(machine="two-axis lathe", **asks)
    with_driven = ways_of(machine="mill-turn", **asks)
    assert with_driven[0].becomes["operation"] == "mill hole"
    assert with_driven[0].becomes["feature"]["flat"] is True


def test_the_odd_size_that_no_drill_of_the_crib_has() -> None:
    """Common practice, no source: milled holes pay for odd sizes."""
    assert ways_of(feature={"diameter": "23.2 +0.05/0", "depth": "20 mm"})[0].way in ("helix", "drill, bore", "mill, bore")


def test_a_close_size_or_a_fine_wall_asks_for_a_last_turn() -> None:
    rows = advise(*asked(feature={"diameter": "24 H7", "roughness": "1.6 µm"})).candidates
    assert rows
    assert all(row.settings["finish"] == "0.1 mm" for row in rows)
    plain = advise(*asked()).candidates
    assert plain[0].settings["finish"] == "0 mm"


@pytest.mark.parametrize("metal", ["C45", "EN AW-6082", "X5CrNi18-10", "Ti-6Al-4V"])
def test_what_is_ranked_is_sound_as_it_is_taken(metal: str) -> None:
    """A row's figures are those of the set-up that taking it makes, and what it sets brings the size."""
    setup, stock = asked(material=metal, feature={"diameter": "20 mm", "depth": "14 mm"})
    for row in advise(setup, stock).candidates[:6]:
        taken = milled(material=metal, feature={"diameter": "20 mm", "depth": "14 mm"}, tool=dict(row.tool), settings=dict(row.settings))
        found = evaluate(taken)
        assert found.feasible, (row.tool, [one.label for one in found.limits if one.broken])
        assert found.results["operation_time"].value == pytest.approx(row.seconds, rel=0.03)
        if row.settings["path"] == "helix":
            assert abs(found.results["size_error"].value) < 0.003


def test_the_goal_moves_the_speed() -> None:
    """Faster is dearer in edges, surer is slower; all stand within the book."""
    speeds = {}
    for goal in ("fastest", "cheapest", "most secure"):
        setup, stock = asked(goal=goal, feature={"diameter": "24 mm", "depth": "20 mm"})
        row = next(one for one in advise(setup, stock).candidates if one.tool["mill"] == "mill 16 z4 K30 fine PVD")
        taken = evaluate(milled(feature={"diameter": "24 mm", "depth": "20 mm"}, tool=dict(row.tool), settings=dict(row.settings)))
        book = next(one for one in taken.limits if one.name == "book_speed")
        assert 0.35 * book.lower <= row.cutting_speed <= book.upper + 1.0
        speeds[goal] = row.cutting_speed
    assert speeds["fastest"] > speeds["cheapest"] >= speeds["most secure"]


@pytest.mark.parametrize(
    ("size", "straight"), [("12 mm", True), ("12.04 mm", True), ("11.96 mm", True), ("12.3 mm", False), ("12 H7", True), ("11.9 H7", False)]
)
def test_what_goes_straight_down_is_as_wide_as_its_hole(size: str, straight: bool) -> None:
    rows = advise(*asked(material="EN AW-6082", feature={"diameter": size, "depth": "9 mm"})).candidates
    near = advise(*asked(material="EN AW-6082", feature={"diameter": size, "depth": "9 mm"})).nearly
    found = [one for one in (*rows, *near) if one.tool["mill"] == "mill 12 alu K20 fine plain"]
    assert bool(found) is straight
    plunged = numbers_of(**PLUNGE)
    assert float(plunged.diameter_cut[0]) == pytest.approx(12.0 + 2.0 * float(plunged.tool.runout[0]))  # it cuts as wide as it swings


def test_nobody_gains_by_another_metal_s_mill() -> None:
    for metal, never in (("C45", "alu"), ("EN AW-6082", "z4"), ("C45", "diamond")):
        rows = advise(*asked(material=metal)).candidates
        assert rows
        assert never not in rows[0].tool["mill"]


def test_many_are_ranked_as_one() -> None:
    """Row k of the many against the same pair alone."""
    setup, stock = asked()
    field = CONTEST.enter(setup, stock)
    speeds = np.full((field.count, 1, 1), 120.0)
    many = CONTEST.model.numbers(setup.with_cut(120.0, 0.05), field.tool.take(np.s_[:, None]), speeds, np.full_like(speeds, 0.05), SILENT)
    for k in range(0, field.count, 7):
        parts = {name: part.name for name, part in field.tool_of(k).items()}
        alone = numbers_of(tool=parts, settings={"cutting_speed": "120 m/min", "feed_per_tooth": "0.05 mm/z", "pitch": None})
        for name in ("operation_time", "operation_cost", "push_off", "width", "power"):
            assert float(np.ravel(getattr(many, name)[k])[0]) == pytest.approx(float(np.ravel(getattr(alone, name))[0]), rel=1e-9), name


# tools


def test_every_end_mill_of_the_crib_is_sound() -> None:
    mills, chucks = shipped("end mill"), shipped("drill chuck")
    assert len(mills) >= 30
    for one in mills:
        assert any(chuck.takes(one) for chuck in chucks), one.name
        assert one.reach >= one.cutting_length >= one.plunge * 0.49
        assert 0 < one.neck <= one.diameter
        assert one.life_price < one.price + 1e-9
        drawn = mill_drawing(one)
        assert max(y for _, y in drawn.side) == pytest.approx(one.diameter / 2)
        assert len(drawn.lips) == one.flutes
    blunt = next(one for one in mills if one.plunge == 0)
    assert all(abs(a[0]) + abs(a[1]) > 0 for a, _ in mill_drawing(blunt).lips)  # its teeth end before the middle


def test_coatings_go_with_metals() -> None:
    """Common practice, no source."""
    crib = grades()
    sharp, hard = crib["K20 fine plain"], crib["K30 fine PVD"]
    assert coating_of(sharp, "N")[0] > coating_of(hard, "N")[0]
    assert coating_of(hard, "P")[0] > coating_of(sharp, "P")[0]
    assert coating_of(crib["K10 diamond"], "P")[0] == 0
    assert share_of_speed(hard, "P") == 1.0 > share_of_speed(hard, "M") > share_of_speed(hard, "N")
    said = advice_for(hard)
    assert said[0].letter == ""
    assert "between" in said[0].why
    assert "tough" in advice_for(crib["HSS cobalt"])[0].why
    assert "brittle" in advice_for(crib["K10 diamond"])[0].why
    assert [one.letter for one in said[1:3]] == ["P", "M"]


def test_the_ranking_says_what_a_coating_costs() -> None:
    """Common practice, no source: an unsuited coating is told with its reason; the best one for a metal has none."""
    assert coating_reason("none", "P")
    assert coating_reason("PVD", "P") == ""
    assert coating_reason("a new one", "P") == ""
    assert "longer" in one_for_its_metals(grades()["K30 fine PVD"])
    assert one_for_its_metals(grades()["N05 PCD"]) == ""


def test_one_tool_for_many_metals() -> None:
    """Common practice, no source: it saves pockets and costs time; diamond never where there is iron."""
    drills = [one.grade for kind in DRILL_KINDS for one in shipped(kind)]
    found = one_for_all(drills, "PMN")
    assert found is not None
    assert found.pockets_saved == 2
    assert 0 < found.longer < 0.5
    grade = grades()[found.grade]
    assert all(share_of_speed(grade, found.slowest) <= share_of_speed(grade, letter) for letter in "PMN")
    assert one_for_all(drills, "P").longer == 0  # type: ignore[union-attr]
    assert one_for_all([grades()["K10 diamond"]], "PN") is None


def test_a_mill_may_run_out_by_half_its_feed_and_never_need_run_truer_than_a_good_collet() -> None:
    """Common practice, no source: beyond half a tooth's feed one tooth does the work of all; a good collet runs true to 5 to 10 µm."""

    def most(feed: str) -> float:
        outcome = evaluate(milled(settings={"feed_per_tooth": feed}))
        return next(one.value / one.utilisation for one in outcome.limits if one.name == "runout")

    assert most("0.06 mm/z") == pytest.approx(0.03)
    assert most("0.005 mm/z") == pytest.approx(most("0.01 mm/z"))
    assert 0.005 <= most("0.005 mm/z") <= 0.010


def test_a_mill_is_drawn_with_its_own_helix() -> None:
    """An edge goes half round in half a lead, and the lead is pi times D over the tangent of the helix (ISO 13399, FHA)."""
    mill = next(one for one in shipped("end mill") if one.helix >= 30 and not one.uneven and one.cutting_length > one.diameter)
    lead = math.pi * mill.diameter / math.tan(math.radians(mill.helix))
    for edge in _teeth(mill):
        (x0, y0), (x1, y1) = edge[0], edge[-1]
        turned = math.acos(-y1 / (mill.diameter / 2)) - math.acos(-y0 / (mill.diameter / 2))
        assert (x1 - x0) == pytest.approx(turned / math.pi * lead / 2.0, rel=1e-6)


def test_the_wider_the_plunging_mill_the_less_of_the_tolerance_is_left() -> None:
    seat = milled(feature={"diameter": "16 H9"}, tool={"mill": "mill 12 z4 K30 fine PVD"})

    def left_by(diameter: float) -> float:
        tool = SimpleNamespace(own={"diameter": np.array([diameter])})
        return float(_plunged_size(SimpleNamespace(setup=seat, tool=tool))[0])  # type: ignore[arg-type]

    left = [left_by(diameter) for diameter in (15.99, 16.0, 17.0)]
    assert left[0] > left[1] > left[2] > 0.0
    assert left[1] == pytest.approx(0.043)  # IT9 at 16 mm (ISO 286-1)
    assert left[0] == pytest.approx(0.053)
