"""What people who do such work daily run, as checks of size: within the factor that is said. Common practice, no source, unless named."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import pytest

from cutting.advice import Advice, advise
from cutting.doors.json_form import read_request, read_setup
from cutting.errors import CuttingError
from cutting.operations.frame.outcome import Outcome, Standing
from cutting.operations.registry import evaluate_quickly, judged
from cutting.workpiece.threads.spelling import read_thread
from cutting.workpiece.threads.tap_drills import tap_drill
from tests.core.slots import CUT_OFF, TREPAN, form
from tests.core.thread_setups import TURN as THREAD
from tests.core.tools import groove_blades


def turned(material: str, start: float, end: str, machine: str = "two-axis lathe", **more: Any) -> tuple[Any, Advice]:
    """The ranking of a turning cut of 60 mm in the chuck."""
    feature = {"length": 60, "distance_from_chuck": 15, "start_diameter": start, "end_diameter": end, **more.pop("feature", {})}
    holding = {"style": "chuck", "free_length": 85, "grip_diameter": max(start, 20), **more.pop("holding", {})}
    form = {"operation": "turn", "material": material, "machine": machine, "feature": feature, "settings": {"coolant": "flood"}}
    setup, crib = read_request({**form, "holding": holding, **more})
    return setup, advise(setup, crib)


def cut_off(**changes: Any) -> tuple[Any, Advice]:
    """The ranking of a cut-off without its tool."""
    made = form(CUT_OFF, **changes)
    made.pop("tool")
    setup, stock = read_request(made)
    return setup, advise(setup, stock)


@pytest.mark.parametrize("material", ["C45", "X5CrNi18-10", "EN AW-6082 T6", "CuSn12-C"])
@pytest.mark.parametrize("stock", [0.05, 0.1, 0.15, 0.2, 0.3, 0.5])
def test_a_light_last_cut_finds_its_edge(material: str, stock: float) -> None:
    """0.025 to 0.25 mm deep in one pass, a small corner or a wiper, at a feed that gives the finish: never high-speed steel at a crawl."""
    _, advice = turned(material, 40 + stock, "40 h7", feature={"roughness": "1.6"})
    first = advice.candidates[0]
    assert first.passes == 1
    assert "HSS" not in first.grade
    assert 0.03 <= first.feed <= 0.25
    assert first.seconds < 45
    corner = float(first.designation.split()[1][-2:]) / 10
    assert stock / 2 >= 0.1 * corner, "an edge that far below its corner only pushes"


def test_the_lighter_the_cut_the_more_it_strings_and_the_less_that_matters() -> None:
    """The chip index falls with the section of the chip; what refuses it is only a chip that is heavy enough to do harm."""
    form = {
        "operation": "turn", "material": "C45", "machine": "two-axis lathe",
        "tool": {"insert": "CCMT 09T304 light positive P10 CVD", "holder": "SCLCR 2525 M09"},
        "feature": {"start_diameter": 40.5, "end_diameter": "40 h7", "length": 60, "distance_from_chuck": 15, "roughness": "1.6"},
        "settings": {"cutting_speed": 300, "feed_per_rev": 0.1, "depth_of_cut": 5, "coolant": "flood"},
        "holding": {"style": "chuck", "free_length": 85, "grip_diameter": 45},
    }  # fmt: skip

    def at(start: float) -> Outcome:
        return evaluate_quickly(read_setup({**form, "feature": {**form["feature"], "start_diameter": start}}))  # type: ignore[dict-item]

    outcomes = [at(40 + stock) for stock in (0.1, 0.16, 0.24, 0.6)]
    indexes = [one.chip.index for one in outcomes]
    assert indexes == sorted(indexes)
    assert (outcomes[0].chip.verdict, outcomes[-1].chip.verdict) == ("strings", "breaks")
    assert all(one.standing is not Standing.OVER for one in outcomes)
    light = next(limit for limit in outcomes[0].limits if limit.name == "chip_window")
    assert light.kind == "area"
    assert light.upper is not None
    assert light.value < light.upper


@pytest.mark.parametrize(("size", "coarsest"), [("40 h6", 1.2), ("40 h7", 2.0), ("40 h9", 4.5), ("60 h11", 6.5)])
def test_a_tolerance_implies_a_finish(size: str, coarsest: float) -> None:
    """Ra for IT 6, 7, 9, 11 at such diameters: 0.8 to 1.2, 1.6 to 2, 3.2 to 4, 6.3 (after ISO 4288 and old DIN 4768 practice)."""
    setup, advice = turned("C45", float(size.split()[0]) + 1, size)
    first = advice.candidates[0]
    assert coarsest / 2.5 < setup.finish_asked <= coarsest
    assert first.roughness <= setup.finish_asked
    rough = turned("C45", float(size.split()[0]) + 1, size, feature={"roughing": True})[1].candidates[0]
    assert rough.feed > first.feed


def test_a_narrower_tolerance_never_gets_a_rougher_feed() -> None:
    asked = [turned("42CrMo4", 51, f"50 h{grade}")[0].finish_asked for grade in (11, 9, 8, 7, 6, 5)]
    assert asked == sorted(asked, reverse=True)
    rough = [turned("42CrMo4", 51, f"50 h{grade}")[1].candidates[0].roughness for grade in (11, 8, 6)]
    assert rough == sorted(rough, reverse=True)


@pytest.mark.parametrize("material", ["C45", "42CrMo4", "X5CrNi18-10", "EN AW-6082 T6", "Ti-6Al-4V"])
@pytest.mark.parametrize(
    ("bar", "widths"), [(3, (1.0, 2.0)), (12, (1.5, 3.0)), (20, (2.0, 3.0)), (42, (3.0, 4.0)), (58, (3.0, 4.0)), (80, (3.0, 5.0))]
)
def test_cut_off_takes_the_width_and_feed_that_people_take(material: str, bar: float, widths: tuple[float, float]) -> None:
    """Width by bar; in steel 2 mm 0.05 to 0.12, 3 mm 0.08 to 0.18, 4 mm 0.10 to 0.22, from the middle on; titanium half of it."""
    feature = {"diameter": f"{bar} mm", "flatness": None, "pip": None}
    _, advice = cut_off(
        material=material,
        machine="two-axis lathe",
        feature=feature,
        settings={"coolant": "flood"},
        bar={"price": 0},
        holding={"grip_diameter": f"{bar} mm"},
    )
    first = advice.candidates[0]
    assert widths[0] <= first.width <= widths[1]
    out = float((first.settings or {})["overhang"].split()[0])
    assert out >= bar / 2, "the blade reaches the centre"
    if "blade" in first.tool["blade"]:
        assert out <= bar / 2 + 2, "and slides no further out than it must"
    per_width = first.feed / first.width
    low, high = {"Ti-6Al-4V": (0.012, 0.03), "X5CrNi18-10": (0.02, 0.045)}.get(material, (0.025, 0.06))
    assert low <= per_width <= high


def test_the_longer_way_of_coolant_makes_edges_last() -> None:
    """Cut-off of Ø40 in 42CrMo4: through the insert an edge makes 2 to 6 times the pieces of a flood from beside it at the same data."""
    pieces = []
    for blade in ("reinforced blade 3 reach 35 coolant above and below", "reinforced blade 3 reach 21", "self-clamping blade 3 reach 45"):
        tool = {"insert": "single edge 3 middle middle positive P30 CVD", "blade": blade}
        settings = {"cutting_speed": 110, "feed_per_rev": 0.12, "coolant": "high", "overhang": "22 mm"}
        setup = read_setup(form(CUT_OFF, material="42CrMo4", tool=tool, settings=settings))
        pieces.append(evaluate_quickly(setup).results["median_parts"].value)
    assert pieces == sorted(pieces, reverse=True)
    assert 2 < pieces[0] / pieces[2] < 6


def test_a_blade_along_the_y_axis_takes_more_feed() -> None:
    """1.5 to 2 times the feed is run, 0.3 mm/rev with 3 mm; the same feed lasts longer."""
    upright, turned_round = (
        read_setup(form(CUT_OFF, holding={"y_axis": axis}, settings={"feed_per_rev": "0.15 mm/rev", "cutting_speed": "260 m/min"}))
        for axis in (False, True)
    )
    windows = [next(one for one in evaluate_quickly(setup).limits if one.name == "plunge_feed") for setup in (upright, turned_round)]
    assert windows[0].upper is not None
    assert windows[1].upper is not None
    assert 1.4 <= windows[1].upper / windows[0].upper <= 2.0
    lives = [evaluate_quickly(setup).results["tool_life"].value for setup in (upright, turned_round)]
    assert lives[1] > lives[0]


def test_a_straight_edge_dishes_by_the_play_of_its_seat() -> None:
    """Ø40 at 0.1 mm/rev: about 60 µm on a self-clamping blade, 10 in a cassette; more feed and a larger bar make more of it."""
    edge = {"insert": "single edge 3 middle middle positive P30 CVD"}

    def dish(blade: str, **settings: Any) -> float:
        feature = {"diameter": "40 mm", "flatness": None}
        made = form(
            CUT_OFF, tool={**edge, "blade": blade}, feature=feature, settings={"feed_zones": "full", "feed_per_rev": 0.1, **settings}
        )
        return evaluate_quickly(read_setup(made)).results["flatness"].value

    loose, firm = dish("self-clamping blade 3 reach 45"), dish("cassette 3 reach 25")
    assert 30 < loose < 90
    assert 5 < firm < 15
    assert dish("cassette 3 reach 25", feed_per_rev=0.16) > firm


@pytest.mark.parametrize("material", ["EN AC-48000", "GFRP laminate", "CFRP laminate"])
def test_diamond_wins_where_metal_or_fibre_grinds_carbide_away(material: str) -> None:
    """Silicon aluminium above 10 %, glass and carbon fibres: diamond at 400 to 1000 m/min, above carbide's speed, within its toughness."""
    _, advice = turned(material, 62, "60 h7", feature={"roughness": "1.6"}, batch={"pieces": 2000})
    first = advice.candidates[0]
    carbide = next(row for row in advice.candidates if "N10" in row.grade)
    assert "PCD" in first.grade
    assert 300 < first.cutting_speed < 1000
    assert first.cutting_speed > 1.5 * carbide.cutting_speed
    assert first.strained != "edge toughness"


def test_a_weld_repair_goes_slowly_in_several_measured_cuts() -> None:
    """Mild steel built up by weld, 53 to 50 h7: 60 m/min, 0.14 mm/rev, 0.25 to 0.75 mm, measured between, within a factor of 1.5."""
    setup, advice = turned("C15", 53.2, "50 h7", "geared lathe", skin="weld")
    first = advice.candidates[0]
    assert 40 <= first.speed_reached <= 90
    assert 0.093 <= first.feed <= 0.21
    assert 0.17 <= first.depth_of_cut <= 1.1
    assert first.passes >= 2, "it measures before its last cut"
    clean = turned("C15", 53.2, "50 h7", "geared lathe")[1].candidates[0]
    assert clean.cutting_speed > 2 * first.cutting_speed
    assert setup.finish_asked < 2.0


@pytest.mark.parametrize(("bore", "deep", "thinnest"), [(20, 30, 10), (25, 50, 12), (30, 60, 16), (30, 120, 20), (40, 200, 25)])
@pytest.mark.parametrize("material", ["C45", "X5CrNi18-10"])
def test_a_bore_takes_a_stout_bar_and_is_found_to_six_diameters(material: str, bore: int, deep: int, thinnest: int) -> None:
    """Steel to 4 x D, carbide to 6, damped beyond: the offset takes back what bends evenly, so that H7 is held at reach."""
    form = {
        "operation": "bore", "material": material, "machine": "two-axis lathe",
        "feature": {"start_diameter": bore - 1, "end_diameter": f"{bore} H7", "length": deep},
        "settings": {"coolant": "flood"}, "holding": {"style": "chuck", "free_length": deep + 20, "grip_diameter": 2 * bore},
    }  # fmt: skip
    advice = advise(*read_request(form))
    first = advice.candidates[0]
    assert "HSS" not in first.grade
    assert int(first.tool["holder"][1:3]) >= thinnest
    assert first.passes <= 5


def test_a_longer_bar_never_gains_and_a_stiffer_one_never_loses() -> None:
    """What varies by bending grows with the reach, and falls with the bar's modulus."""

    def varies(bar: str, out: float) -> float:
        form = {
            "operation": "bore", "material": "C45", "machine": "two-axis lathe",
            "tool": {"insert": "CCMT 09T304 light positive P10 CVD", "holder": bar},
            "feature": {"start_diameter": 39, "end_diameter": "40 H7", "length": 60},
            "settings": {"cutting_speed": 200, "feed_per_rev": 0.1, "depth_of_cut": 0.5, "coolant": "flood", "overhang": out},
            "holding": {"style": "chuck", "free_length": 80, "grip_diameter": 80},
        }  # fmt: skip
        outcome = evaluate_quickly(read_setup(form))
        limit = next(one for one in outcome.limits if one.name == "part_bends")
        assert limit.value < outcome.results["size_error"].value, "a part of it the offset takes back"
        return limit.value

    assert varies("A20S-SCLCR 09", 65) < varies("A20S-SCLCR 09", 80) < varies("A20S-SCLCR 09", 95)
    assert varies("E20S-SCLCR 09", 80) < varies("J20S-SCLCR 09", 80) < varies("A20S-SCLCR 09", 80)


def test_more_pressure_never_shortens_life_and_a_longer_way_of_coolant_never_does() -> None:
    """By the way that coolant takes, beside the slot to above and below, and by what the pump gives."""
    ways = ("flood", "jet", "clamp", "through", "through both")
    blade = next(one for one in groove_blades() if one.style == "reinforced")
    for pressure in (0.0, 3.0, 5.0, 20.0, 50.0, 70.0, 150.0):
        gains = [replace(blade, coolant=way).lasts_by_coolant(pressure) for way in ways]
        assert gains == sorted(gains)
        assert gains[0] == 1.0
    for way in ways:
        gains = [replace(blade, coolant=way).lasts_by_coolant(pressure) for pressure in (0.0, 3.0, 5.0, 20.0, 50.0, 70.0, 150.0)]
        assert gains == sorted(gains)
    above, both = (replace(blade, coolant=way).lasts_by_coolant(70.0) for way in ways[3:])
    assert 2.0 <= above <= 4.0  # 20 to 70 bar from above
    assert 2.5 <= both <= 6.0
    assert 1.3 <= replace(blade, coolant="clamp").lasts_by_coolant(50.0) <= 2.0


def test_a_guide_bush_holds_a_slender_bar_in_one_pass() -> None:
    """Ø3 to 5, 4 x D, h9 on a sliding head: one pass at the whole depth, carbide, no support beyond the bush."""
    for size in (3.0, 5.0, 8.0):
        holding = {"guide_bush": True, "free_length": 4 * size + 4, "grip_diameter": size + 3}
        feature = {"length": 4 * size, "distance_from_chuck": 1}
        _, advice = turned("11SMn30", size + 3, f"{size:g} h9", "sliding-head lathe", feature=feature, holding=holding)
        first = advice.candidates[0]
        assert first.passes == 1
        assert "HSS" not in first.grade
        free = {**holding, "guide_bush": False}
        rows = turned(
            "11SMn30", size + 3, f"{size:g} h9", "sliding-head lathe", feature={**feature, "distance_from_chuck": 3}, holding=free
        )[1]
        assert not rows.candidates or rows.candidates[0].cost >= first.cost, "what is held better never loses"
    with pytest.raises(CuttingError, match="has none"):
        turned("11SMn30", 8, "5 h9", "two-axis lathe", holding={"guide_bush": True})


def test_a_mirror_in_hardened_steel_is_one_pass_with_a_wiper() -> None:
    """Ra 0.2 at 60 HRC over 40 mm: one cut of 0.15 mm, 20 pieces an edge (within 1.5)."""
    setup, advice = turned("100Cr6 hardened 60 HRC", 40.3, "40 h6", feature={"roughness": "0.2", "length": 40})
    first = advice.candidates[0]
    assert first.passes == 1
    assert first.change_parts >= 13
    assert 80 <= first.cutting_speed <= 200
    assert setup.feature.roughness == pytest.approx(0.2)
    assert first.roughness <= 0.2


def test_hardened_metal_is_cut_in_its_heat() -> None:
    """60 HRC: turned at 80 to 200 m/min, threads at 80 to 160; a thread is never crept at 25 to save its edge."""
    _, advice = turned("100Cr6 hardened 60 HRC", 40.4, "40 h6", feature={"roughness": "0.8"})
    assert "CBN" in advice.candidates[0].grade
    assert 75 <= advice.candidates[0].cutting_speed <= 200
    made = {**form(THREAD, material="100Cr6 hardened 60 HRC", feature={"thread": "M30x1.5"}), "settings": {"coolant": "dry"}}
    made.pop("tool")
    thread = advise(*read_request(made)).candidates[0]
    assert "CBN" in thread.grade
    assert 80 <= thread.cutting_speed <= 160


@pytest.mark.parametrize("machine", ["two-axis lathe", "mill-turn", "machining centre"])
@pytest.mark.parametrize("material", ["C45", "X5CrNi18-10"])
def test_a_ring_is_trepanned_where_heads_are_sold(machine: str, material: str) -> None:
    """Ø90 and 110, 20 deep: cartridges as short as the depth wants, edges of 3 to 6 mm."""
    for size in (90, 110):
        made = form(TREPAN, material=material, machine=machine, feature={"diameter": f"{size} mm", "depth": "20 mm"})
        made.pop("tool")
        made["settings"] = {"coolant": "flood"}
        first = advise(*read_request(made)).candidates[0]
        assert 3.0 <= first.width <= 6.0


@pytest.mark.parametrize(
    ("size", "cuts", "spiral", "point"),
    [("M3", 0.4, 0.9, 1.3), ("M4", 0.8, 2, 3), ("M5", 1.4, 4, 6), ("M6", 2.3, 7, 10), ("M8", 5.2, 17, 24), ("M10", 10, 33, 48),
     ("M12", 16.5, 57, 82), ("M16", 34, 140, 200)],
)  # fmt: skip
def test_torques_of_taps(size: str, cuts: float, spiral: float, point: float) -> None:
    """Common practice, no source: what a sharp tap takes in C45 and what breaks it, N·m; within a quarter, and a tenth."""
    thread = read_thread(size)
    for kind, breaks in (("spiral flute", spiral), ("spiral point", point)):
        feature = {"thread": size, "side": "inside", "length": str(1.5 * thread.diameter), "there": str(tap_drill(thread).diameter)}
        tool = {"tap": f"tap {size} {kind}", "chuck": "collet BT40 to 20"}
        settings = {"cutting_speed": "10", "coolant": "flood"}
        setup = read_setup({"operation": "tap", "material": "C45", "machine": "machining centre", "tool": tool, "feature": feature,
                            "settings": settings})  # fmt: skip
        x = judged(setup)[1]
        assert float(x.torque[0]) / setup.house.wear_factor == pytest.approx(cuts, rel=0.25)
        assert float(x.breaking[0]) == pytest.approx(breaks, rel=0.1)


def threaded(thread: str, material: str, **feature: Any) -> Advice:
    """The ranking of a thread outside on a two-axis lathe."""
    wide = read_thread(thread).diameter
    told = {"thread": thread, "side": "outside", "length": str(1.5 * wide), "distance": "30", **feature}
    holding = {"free_length": 30 + 2 * wide, "grip_diameter": wide + 10}
    body = {"operation": "turn thread", "material": material, "machine": "two-axis lathe", "feature": told, "holding": holding}
    return advise(*read_request({**body, "settings": {"coolant": "flood"}}))


@pytest.mark.parametrize(
    ("thread", "least", "most"),
    [("M12x1", 4, 7), ("M16x1.5", 5, 8), ("M20x2", 6, 10), ("M30x3", 8, 13), ("M42x4", 10, 15)],
)
def test_passes_of_a_turned_thread(thread: str, least: int, most: int) -> None:
    """Common practice, no source: by the pitch, in steel; half as many more at the most in stainless, and never fewer."""
    steel, stainless = (threaded(thread, one).candidates[0].passes for one in ("C45", "X5CrNi18-10"))
    assert least <= steel <= most
    assert steel <= stainless <= 1.6 * steel


def test_a_thread_on_its_nominal_size_is_turned_down_first() -> None:
    """No full profile of 4 mm in the crib, and Ø36 is above what 6g allows: a cut to a blank inside the class stands before it."""
    row = threaded("M36", "C45").candidates[0]
    assert [one.operation for one in row.before] == ["turn"]
    assert 35.465 <= float(row.before[0].feature["end_diameter"].split()[0]) <= 35.94
    assert not threaded("M36", "C45", there="35.6").candidates[0].before


@pytest.mark.parametrize(
    ("material", "low", "high"),
    [("C45", 70, 120), ("X5CrNi18-10", 45, 80), ("Ti-6Al-4V", 30, 50), ("NiCr19Fe19Nb5Mo3 aged", 12, 30), ("EN AW-6082 T6", 150, 300)],
)
def test_solid_carbide_drills_run_at_the_speeds_of_their_metal(material: str, low: float, high: float) -> None:
    """Ø8, three diameters deep, coolant through: speeds of each metal (common practice), within a fifth."""
    form = {"operation": "drill", "material": material, "machine": "machining centre", "settings": {"coolant": "through"}}
    asked = {**form, "feature": {"diameter": "8 mm", "depth": "24 mm"}, "batch": {"pieces": 200}}
    first = next(row for row in advise(*read_request(asked)).candidates if "carbide" in row.edge)
    assert 0.8 * low <= first.cutting_speed <= 1.2 * high
