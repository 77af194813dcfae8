"""Threads tapped, milled and turned: against check values of a second program, an envelope by numbers, geometry, and by direction."""

from __future__ import annotations

from dataclasses import replace
from itertools import pairwise
from math import atan, degrees, radians, tan

import numpy as np
import pytest

from cutting.errors import CuttingError
from cutting.mechanics.hole_milling import centre_feed_rate
from cutting.mechanics.threading import breaking_torque, depths_of_equal_area, flank_clearance, flank_error, groove_area, run_in, tap_torque
from cutting.operations.registry import explore
from cutting.operations.threads.shared.core_hole import hole_window, metal_share, strength, thread_area, usual_hole
from cutting.operations.threads.shared.risk import breaks, certainty, money_at_risk
from cutting.operations.threads.shared.sense import (
    Feeds,
    Goes,
    PathSense,
    Turns,
    climbing_path,
    climbs,
    feed_for,
    goes_for,
    lean_for,
    makes_left_hand,
    table,
)
from cutting.operations.threads.tap.numbers import thread_time
from cutting.operations.threads.turn_thread.groove import groove, usual_passes, whole_depth
from cutting.tooling.bought import shipped
from cutting.tooling.taps import TAP_KINDS
from cutting.tooling.thread_inserts import HOLDER_KINDS, INSERT_KINDS
from cutting.tooling.thread_mills import THREAD_MILL_KINDS
from cutting.workpiece.threads.limits import limits
from cutting.workpiece.threads.spelling import read_thread
from tests.core.thread_setups import MILL, SOLID, SPINDLE, TAP, TURN, limit, outcome_of, ranked, rows_of, setup_of, value, warned

M10 = read_thread("M10")


# outside checks: values of a second program, and textbook formulae


def test_infeed_by_the_root_law() -> None:
    found = depths_of_equal_area(0.92, 6)
    assert found == pytest.approx([0.225, 0.411, 0.582, 0.713, 0.823, 0.920], abs=0.0006)
    assert np.diff(found) == pytest.approx([0.186, 0.170, 0.131, 0.110, 0.097], abs=0.0011)
    flat = depths_of_equal_area(2.25, 10, 1.33, 2 * tan(radians(15)))  # each takes the same, the first three tenths of it
    areas = np.diff(1.33 * flat + tan(radians(15)) * flat**2, prepend=0.0)
    assert areas[2:] == pytest.approx(areas[2], rel=1e-9)
    assert areas[0] == pytest.approx(0.3 * areas[2], rel=1e-9)
    assert areas[0] + areas[1] == pytest.approx(areas[2], rel=1e-9)


@pytest.mark.parametrize(("pitch", "size", "force", "torque"), [(1.5, 10, 2300, 6.5), (1.0, 6, 2300, 1.7), (1.75, 12, 700, 3.2)])
def test_torque_of_taps(pitch: float, size: float, force: float, torque: float) -> None:
    assert float(tap_torque(pitch, size, force, 1.0)) == pytest.approx(torque, abs=0.05)


def test_a_core_twists_off_as_a_round_bar_does() -> None:
    """τ at the skin of a bar of 8 mm under 100 N·m is 16·M/(π·d³) = 994.7 N/mm² (any handbook)."""
    assert float(breaking_torque(994.7, 8.0)) == pytest.approx(100.0, abs=0.05)


def test_time_of_a_tapped_thread() -> None:
    assert float(thread_time(15.0, 0.0, 1.5, 1.5, 477.0)) == pytest.approx(3.27, abs=0.02)
    # what the bench says adds the chamfer's threads on both ways
    assert value("thread_time", TAP, settings={"cutting_speed": "15 m/min"}) == pytest.approx(
        2 * 60 * (15 + 5.5 * 1.5) / (1.5 * 477.5), abs=0.02
    )


def test_feed_and_time_of_a_milled_thread() -> None:
    """M10x1.5, Ø8, four teeth, 0.05 mm, 120 m/min: 4775 1/min, 955 at the wall, 191 in the middle, 2.03 s a turn."""
    assert float(centre_feed_rate(955.0, 10.0, 8.0)) == pytest.approx(191.0)
    one = {"settings": {"cutting_speed": "100 m/min", "arc": "180 deg"}}
    speed = value("spindle_speed", MILL, **one)
    middle = 0.05 * 4 * speed * (10 - 7.7) / 10
    assert value("centre_rate", MILL, **one) == pytest.approx(middle, rel=1e-3)
    turn = 60 * np.hypot(np.pi * 2.3, 1.5) / middle
    assert value("helix_time", MILL, **one) == pytest.approx(1.5 * turn, rel=1e-3)  # one turn, and half of one in and out
    few = {"tool": {"mill": "thread mill 7.8 three teeth P1.5 K30 fine PVD"}}
    assert value("turns", MILL, **few) == pytest.approx(11.0)


@pytest.mark.parametrize(
    ("words", "mill", "low", "high"), [("M10", 8.0, 38, 40), ("M10", 7.0, 21, 23), ("M20x2.5", 16.0, 53, 55), ("M20x2.5", 12.0, 19, 20)]
)
def test_flank_error_against_the_envelope_by_numbers(words: str, mill: float, low: float, high: float) -> None:
    """A tooth without a lead on its helix: what its flank sweeps at a radius, beyond the flank it stands at."""
    thread = read_thread(words)
    path, half = (thread.diameter - mill) / 2.0, radians(30)
    turn = np.linspace(-0.6, 0.6, 400_001)
    for radius in (thread.inside_diameter / 2.0, thread.pitch_diameter / 2.0, thread.diameter / 2.0):
        reach = np.sqrt(radius**2 + path**2 - 2 * radius * path * np.cos(turn))
        swept = thread.pitch * turn / (2 * np.pi) - (reach - (radius - path)) * tan(half)
        found = float(flank_error(thread.pitch, radius, path, 30.0))
        assert found == pytest.approx(float(swept.max()), rel=0.02)
        assert low - 0.6 <= 1000 * found <= high + 0.6


def test_strips_and_shares_by_hand() -> None:
    """Shear areas of FED-STD-H28 for M10 over 10 mm: inside 217, of the screw at the largest hole 157 mm², from memory of its tables."""
    found = strength(M10, 8.676, 10.0, 600.0)
    assert found.inside / (0.577 * 600.0) == pytest.approx(217, rel=0.03)
    assert found.outside / (0.577 * 800.0) == pytest.approx(157, rel=0.05)
    assert found.screw == pytest.approx(58.0 * 800.0, rel=0.01)  # stress area 58.0 mm² (ISO 898-1)
    assert strength(M10, 8.9, 10.0, 600.0).outside < 0.9 * found.outside
    assert strength(M10, 8.5, 4.0, 200.0).weakest == "the thread in the part"
    assert strength(M10, 8.5, 20.0, 600.0).weakest == "the screw"
    # the groove from D1 to D: a trapezoid of 3/4 P and 1/8 P over 5/8 H
    assert thread_area(M10, M10.inside_diameter) == pytest.approx(0.5 * (0.75 + 0.125) * 1.5 * 0.541266 * 1.5, rel=1e-5)
    assert float(groove_area(1.0, 1.0, 1.0)) == pytest.approx(0.5)
    assert metal_share(M10, 8.7, False) < metal_share(M10, usual_hole(M10, False), False) == pytest.approx(1.0)
    assert metal_share(M10, 9.3, True) > metal_share(M10, 9.45, True)
    low, high = hole_window(M10, False)
    assert (low, high) == pytest.approx((8.376, 8.676), abs=0.001)
    assert high < hole_window(M10, True)[0]


def test_clearance_of_flanks_by_geometry() -> None:
    """tan of the clearance along a flank = tan 10° · tan 30°: 5.8°; what the lead turns away from one it turns into the other."""
    leading, trailing = (float(one) for one in flank_clearance(10.0, 30.0, 3.0, 1.5))
    own = degrees(atan(tan(radians(10)) * tan(radians(30))))
    assert (leading, trailing) == pytest.approx((own - 1.5, own + 1.5))
    assert float(flank_clearance(10.0, 15.0, 4.05, 1.5)[0]) < 0.5 < float(flank_clearance(10.0, 15.0, 4.05, 3.5)[0])
    assert float(run_in(600.0, 3.0, 0.1)) == pytest.approx(3.0)  # 1800 mm/min reached in a tenth of a second


# senses


def test_senses_of_milling_and_turning() -> None:
    """Right-cutting inside climbs counter-clockwise, and a right-hand thread then goes up; a left-cutting mill turns both round."""
    assert climbing_path(False) is PathSense.COUNTER
    assert climbing_path(True) is PathSense.CLOCKWISE
    assert climbing_path(False, internal=False) is PathSense.CLOCKWISE
    assert goes_for(PathSense.COUNTER, False) is Goes.UP
    assert goes_for(PathSense.CLOCKWISE, False) is Goes.DOWN
    for path in PathSense:
        for left in (False, True):
            assert makes_left_hand(path, goes_for(path, left)) is left
            assert goes_for(path, left) is not goes_for(path, not left)
        assert climbs(path, False) is not climbs(path, True)
    assert feed_for(False, Turns.FORWARD) is Feeds.TOWARDS
    assert feed_for(True, Turns.FORWARD) is feed_for(False, Turns.REVERSE) is Feeds.AWAY
    for left in (False, True):
        for turns, feeds, hand, leans in table(left):
            assert feeds is feed_for(left, turns)
            assert leans is (lean_for(2.0, left, hand) > 0) is (feeds is Feeds.TOWARDS)


def test_left_hand_mirrors_right_hand() -> None:
    right, left = (outcome_of(MILL, feature={"thread": f"M10-6H{hand}"}) for hand in ("", "-LH"))
    assert {n: v.value for n, v in right.results.items()} == {n: v.value for n, v in left.results.items()}
    assert (right.scene["goes"], left.scene["goes"]) == ("up", "down")
    tools = {"tool": {"holder": "thread holder 25 9.525 L"}}
    mirrored = outcome_of(TURN, feature={"thread": "M24x1.5-6g-LH"}, **tools)
    plain = outcome_of(TURN)
    assert mirrored.scene["feeds"] == plain.scene["feeds"] == "towards"
    assert mirrored.scene["turns"] == "reverse"
    for name in ("clear_leading", "clear_trailing", "cutting_force", "operation_time"):
        assert mirrored.results[name].value == pytest.approx(plain.results[name].value)


def test_the_wrong_sense_is_caught() -> None:
    assert "hand" not in warned(MILL)
    assert warned(MILL, settings={"along": "down, into the hole"})["hand"] == "blocks"
    against = warned(MILL, settings={"sense": "clockwise"})
    assert against["sense"] == "care"
    assert "hand" not in against  # it goes down then, and the thread is right
    assert warned(SOLID)["left_cutting"] == "care"
    assert warned(TURN, settings={"feeding": "away from the chuck"})["hand"] == "blocks"
    assert warned(TURN, settings={"turning": "reverse, clockwise"})["face"] == "blocks"
    both = warned(TURN, settings={"turning": "reverse, clockwise", "feeding": "away from the chuck"})
    assert "hand" not in both
    crossed = warned(TURN, feature={"thread": "M24x1.5-6g-LH"})
    assert crossed["away"] == crossed["lean"] == "care"


# single point


@pytest.mark.parametrize("infeed", ["radial", "modified flank", "alternating flanks"])
@pytest.mark.parametrize("base", [TURN, SPINDLE], ids=["pointed", "trapezoidal"])
def test_pass_areas_add_up_to_the_profile(base: dict, infeed: str) -> None:
    """By rows: at every depth the union of the form where it stood, measured across, adds up to what the passes say."""
    setup = setup_of(base, settings={"infeed": infeed})
    cut = groove(setup)
    lead, trail = cut.slopes
    whole = cut.depth[-1]
    form = cut.tip * whole + (lead + trail) / 2 * whole**2
    assert cut.area.sum() == pytest.approx(form, rel=0.03 if infeed == "alternating flanks" else 1e-9)
    rows = np.linspace(0, whole, 4001)
    left = np.min(
        [np.where(rows <= x, s - cut.tip / 2 - (x - rows) * trail, 9.0) for x, s in zip(cut.depth, cut.shift, strict=True)], axis=0
    )
    right = np.max(
        [np.where(rows <= x, s + cut.tip / 2 + (x - rows) * lead, -9.0) for x, s in zip(cut.depth, cut.shift, strict=True)], axis=0
    )
    assert np.trapezoid(right - left, rows) == pytest.approx(form, rel=0.03)
    assert cut.shift[-1] == 0.0
    assert (cut.leading >= 0).all()
    if infeed == "radial":
        assert cut.leading == pytest.approx(cut.trailing)
    elif infeed == "modified flank":
        assert cut.leading[3] > 4 * cut.trailing[3]


def test_passes_and_what_they_ask() -> None:
    assert whole_depth(setup_of(SPINDLE)) == pytest.approx(
        2.25 + (limits(read_thread("Tr 20x4"), False).pitch.middle - 18.0) / -2.0, abs=1e-6
    )
    assert [usual_passes(p, "P", "carbide") for p in (0.5, 1.0, 1.5, 2.0, 3.0)] == pytest.approx([4, 5.5, 7, 8, 11], abs=0.6)
    assert usual_passes(1.5, "P", "hss") > usual_passes(1.5, "P", "carbide") >= usual_passes(1.5, "N", "carbide")
    few, many = ({"settings": {"passes": str(n)}} for n in (4, 12))
    assert limit("tip_load", TURN, **few) > limit("tip_load", TURN, **many)
    assert limit("last_step", TURN, **few) < limit("last_step", TURN, **many)
    assert value("operation_time", TURN, **few) < value("operation_time", TURN, **many)
    assert value("cutting_force", TURN, settings={"infeed": "radial"}) > value("cutting_force", TURN)
    assert value("size_error", TURN, settings={"spring": "0"}) > 2 * value("size_error", TURN)
    partial = {"tool": {"insert": "16 ER AG 60 light positive P25 PVD"}}
    assert value("whole_depth", TURN, **partial) > value("whole_depth", TURN)  # a sharper tip goes deeper to the same flanks
    assert "partial" in warned(TURN, **partial)
    assert limit("depth_share", TURN, settings={"infeeds": "0.3; 0.2; 0.2"}) > 1.0
    said = "; ".join(f"{step:.5f} mm" for step in np.diff(groove(setup_of(TURN)).depth[:-1], prepend=0.0))
    assert limit("depth_share", TURN, settings={"infeeds": said}) < 0.2
    coarse = value("run_out", TURN, settings={"cutting_speed": "200 m/min"})
    assert coarse > value("run_out", TURN) > 0.75
    assert limit("run_out", TURN, feature={"relief": "1.5 mm"}) > 1.0
    assert limit("half_nut", SPINDLE, settings={"cutting_speed": "24 m/min"}) > 1.0
    assert limit("feed_drive", SPINDLE, settings={"cutting_speed": "12 m/min"}) > 1.0  # 180 1/min × 4 mm against 600 mm/min
    assert limit("leading", SPINDLE, settings={"tilt": "-1.5 deg"}) > 1.0 > limit("leading", SPINDLE)
    assert limit("trailing", SPINDLE, settings={"tilt": "8 deg"}) > 1.0
    deep = {
        "tool": {"insert": "16 IR 1.5 ISO light positive M15 PVD", "holder": "S16 thread bar 9.525"},
        "feature": {"thread": "M24x1.5-6H", "side": "inside", "there": "22.4 mm"},
    }
    long = {**deep, "settings": {"overhang": "80 mm", "spring": "0"}}
    assert limit("bends", TURN, **long) > 5 * limit("bends", TURN, **{**deep, "settings": {"spring": "0"}})
    assert limit("enters", TURN, **{**deep, "feature": {**deep["feature"], "thread": "M20x1.5-6H", "there": "18.4 mm"}}) > 1.0
    hard = warned(TURN, material="100Cr6 hardened 60 HRC", tool={"insert": "16 ER 1.5 ISO light positive H10 CBN"})
    assert "hard_edge" not in hard
    assert value("run_in", TURN) == pytest.approx(value("spindle_speed", TURN) * 1.5 * 0.12 / 60.0, rel=1e-6)


def test_a_slender_part_springs_more_and_a_centre_holds_it() -> None:
    alone = value("size_error", TURN, holding={"free_length": "200 mm"}, feature={"distance": "160 mm"})
    held = value("size_error", TURN, holding={"free_length": "200 mm", "style": "chuck and centre"}, feature={"distance": "160 mm"})
    near = value("size_error", TURN, holding={"free_length": "200 mm"}, feature={"distance": "10 mm"})
    assert alone > 5 * held
    assert alone > 5 * near


# taps


def test_what_loads_and_what_saves_a_tap() -> None:
    sound = value("torque", TAP)
    assert value("margin", TAP) == pytest.approx(value("breaking", TAP) / sound)
    assert value("torque", TAP, feature={"there": "8.6 mm"}) < sound < value("torque", TAP, feature={"there": "8.4 mm"})
    assert value("torque", TAP, material="EN AW-6082 T6") < 0.6 * sound < sound < value("torque", TAP, material="42CrMo4")
    deep = {"feature": {"length": "24 mm", "hole": "32 mm"}}
    assert value("torque", TAP, **deep) > 1.05 * sound
    assert limit("chips", TAP, **deep) > limit("chips", TAP)
    assert limit("depth", TAP, feature={"hole": "18 mm"}) > 1.0 > limit("depth", TAP)
    assert limit("core_hole", TAP, feature={"there": "8.8 mm"}) > 1.0
    point = {"tool": {"tap": "tap M10 spiral point HSS cobalt PVD"}}
    assert limit("chips_down", TAP, **point) > 1.0
    assert limit("chips_down", TAP, **{**point, "feature": {"hole": "34 mm"}}) < 1.0
    assert "chips_down" not in {one.name for one in outcome_of(TAP, **point, feature={"through": True}).limits}
    formed = {"tool": {"tap": "form tap M10 HSS cobalt PVD"}, "feature": {"there": "9.35 mm"}}
    assert 1.2 < value("torque", TAP, **formed) / value("torque", TAP, tool=point["tool"]) < 2.2  # about 1.5 to 2 times (common practice)
    assert limit("forming", TAP, **formed, material="EN-GJL-250") > 1.0 > limit("forming", TAP, **formed)
    assert limit("clutch", TAP, settings={"clutch": "5 N·m"}) > 1.0 > limit("clutch", TAP, settings={"clutch": "20 N·m"})
    assert limit("clutch_saves", TAP, settings={"clutch": "60 N·m"}) > 1.0
    assert value("tool_life", TAP, settings={"cutting_speed": "10 m/min"}) > value("tool_life", TAP, settings={"cutting_speed": "16 m/min"})
    assert warned(TAP, feature={"there": None})["no_hole"] == "blocks"
    assert warned(TAP, feature={"thread": "M10-6G"})["class"] == "blocks"
    assert warned(TAP, machine="geared lathe", tool={"chuck": "sleeve 25 for 6 to 20"})["synchronised"] == "blocks"
    assert limit("hardness", TAP, material="34CrNiMo6", hardness="340 HB") > 1.0 > limit("hardness", TAP, material="34CrNiMo6")


def test_torque_over_the_way_in_and_out() -> None:
    run = explore(setup_of(TAP))
    top = int(run.torque.argmax())
    assert run.seconds[top] <= run.turns_back + 1e-9
    assert run.torque[top] == pytest.approx(value("torque", TAP), rel=0.02)
    assert run.torque[run.depth <= 0].max() == 0.0
    assert run.torque[run.seconds > run.turns_back + 0.05].max() <= 0.0  # it only rubs on its way back
    rising = run.torque[(run.depth > 0) & (run.depth < 3.7) & (run.seconds < run.turns_back)]
    assert (np.diff(rising) > 0).all()
    assert run.seconds[-1] == pytest.approx(2 * run.turns_back, rel=0.01)
    through = explore(setup_of(TAP, feature={"through": True}))
    assert through.torque[np.argmin(np.abs(through.seconds - through.turns_back))] < 0.2 * through.torque.max()


def test_risk_in_money() -> None:
    assert breaks(2.0) == pytest.approx(1e-4)
    assert breaks(1.0) == pytest.approx(1e-4 * 10**1.5)
    assert breaks(3.0) < breaks(2.0) < breaks(2.0, 3.0) < breaks(0.0) <= 0.05
    assert float(money_at_risk(1e-3, 0.9, 1000.0)) == pytest.approx(0.9)
    assert float(money_at_risk(1e-3, 0.9, 1000.0, 6)) == pytest.approx(5.39, abs=0.01)
    # ± 2 sigma are 95.4 %, ± 3 sigma 99.7 % of a normal distribution (any table)
    assert [float(certainty(0.1, width)) for width in (0.1, 0.15)] == pytest.approx([0.954, 0.997], abs=0.012)
    assert value("risk", TAP) == 0.0
    dear = value("risk", TAP, batch={"part_value": 800})
    assert dear == pytest.approx(2 * value("risk", TAP, batch={"part_value": 400}), rel=1e-6)
    assert value("risk", MILL, batch={"part_value": 800}) < 0.1 * dear


# mills


def test_what_bends_a_mill_and_what_takes_it_back() -> None:
    sound = value("push_off", MILL)
    assert value("push_off", MILL, settings={"passes": "2"}) < 0.5 * sound
    assert value("taper", MILL, settings={"repeats": "1"}) < 0.6 * value("taper", MILL)
    long = {"feature": {"length": "18 mm", "hole": "30 mm"}}
    assert value("taper", MILL, **long) > value("taper", MILL)
    three = {"tool": {"mill": "thread mill 7.8 three teeth P1.5 K30 fine PVD"}}
    assert value("push_off", MILL, **three) < 0.4 * sound
    assert value("taper", MILL, **three) == 0.0
    assert value("helix_time", MILL, **three) > 3 * value("helix_time", MILL)
    # set off as reckoned it stands in the middle; not at all, flank error leaves it wide by 2·δ·cot 30°
    assert abs(value("size_error", MILL)) < 0.002
    plain = {"settings": {"offset": "0 mm"}}
    wide = 2 * float(flank_error(1.5, 9.0257 / 2, 1.15, 30.0)) / tan(radians(30))
    pushed = 2 * (value("offset_wanted", MILL) + wide / 2)
    assert value("size_error", MILL, **plain) == pytest.approx(pushed - wide, abs=0.003)
    assert limit("setting", MILL, **plain) > 1.0 > limit("setting", MILL)
    smaller = {"tool": {"mill": "thread mill 6.2 one row P1 to 1.75 K30 fine PVD"}}
    assert value("flank_error", MILL, **smaller) < 0.6 * value("flank_error", MILL)
    assert limit("widest", MILL, **smaller) < limit("widest", MILL)
    assert limit("depth", MILL, feature={"hole": "15.5 mm"}) > 1.0
    assert limit("reach", MILL, feature={"length": "21 mm", "hole": "30 mm"}) > 1.0
    assert "arc" in warned(MILL, settings={"arc": "60 deg"})
    assert value("helix_time", MILL, settings={"arc": "90 deg"}) < value("helix_time", MILL)


def test_milled_from_the_solid() -> None:
    """One tool for three: no hole before, one path, left-cutting down; above 54 HRC air, and no deeper than 2.5 diameters."""
    found = outcome_of(SOLID)
    assert found.feasible
    assert found.scene["goes"] == "down"
    assert "no_hole" not in warned(SOLID)
    assert warned(SOLID, settings={"coolant": "flood"})["thermal_cracks"] == "care"
    assert limit("chill", SOLID, settings={"coolant": "flood"}) > 1.0 > limit("chill", SOLID)
    assert limit("deepest", SOLID, feature={"length": "22 mm", "hole": "28 mm"}) > 1.0
    assert value("turns", SOLID) == pytest.approx(11.0)
    assert value("power", SOLID) > value("power", SOLID, feature={"there": "7 mm"})  # the core is opened on the way
    hard = {"tool": {"mill": "thread mill 4.6 P1 K30 fine PVD"}, "feature": {"there": "7 mm"}}
    assert limit("hardness", SOLID, **hard) > 1.0 > limit("hardness", SOLID)


def test_what_passes_give() -> None:
    rows = explore(setup_of(MILL))
    alone = [one for one in rows if not one.repeats]
    assert [one.passes for one in alone] == [1, 2, 3, 4, 5, 6]
    assert all(a.seconds < b.seconds and a.taper > b.taper and a.push_off > b.push_off for a, b in pairwise(alone))


# refused


@pytest.mark.parametrize(
    ("base", "sections", "field"),
    [
        (TAP, {"feature": {"thread": "M10x9"}}, "feature.thread"),
        (TAP, {"feature": {"thread": "M12"}}, "tool.tap"),
        (TAP, {"feature": {"thread": "M10-6g"}}, "feature.side"),
        (TAP, {"feature": {"side": "outside"}}, "feature.side"),
        (TAP, {"feature": {"hole": "10 mm"}}, "feature.hole"),
        (TAP, {"feature": {"there": "11 mm"}}, "feature.there"),
        (TAP, {"machine": "feed-drilling unit"}, "machine"),
        (TAP, {"material": "X5CrNi18-10", "settings": {"coolant": "jet"}}, "settings.coolant"),
        (MILL, {"machine": "two-axis lathe"}, "machine"),
        (MILL, {"feature": {"thread": "M10x1.25"}}, "tool.mill"),
        (MILL, {"feature": {"thread": "1/2 NPT", "there": "18 mm"}}, "feature.thread"),
        (MILL, {"settings": {"passes": "30"}}, "settings.passes"),
        (TURN, {"machine": "machining centre"}, "machine"),
        (TURN, {"feature": {"side": "inside", "thread": "M24x1.5", "there": "22.4 mm"}}, "tool.holder"),
        (TURN, {"feature": {"circle": "40 mm"}}, "feature.circle"),
        (TURN, {"settings": {"passes": "1"}}, "settings.passes"),
        (TURN, {"tool": {"holder": "thread holder 25 12.7 R"}}, "tool.holder"),
        (TURN, {"feature": {"thread": "Tr 20x40"}}, "feature.thread"),
    ],
)
def test_what_cannot_be_is_refused_by_field(base: dict, sections: dict, field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        setup_of(base, **sections)
    assert refused.value.field == field


# the one list


def test_every_way_in_one_list_with_the_hole_before_it() -> None:
    advice = ranked(TAP, feature={"there": None})
    ways = {row.way for row in advice.candidates}
    assert {"drill, chamfer, tap", "drill, chamfer, form", "drill, chamfer, mill"} <= ways
    for row in advice.candidates:
        made = row.more[2].metric
        if row.before:
            assert made in ("2", "3")
            assert row.before[0].operation == "drill"
            low, high = hole_window(M10, "form" in row.way)
            assert low <= float(row.before[0].feature["diameter"].split()[0]) <= high
            assert "there" not in row.becomes["feature"], "the part says it, and no number"
        else:
            assert made == "1"
    solid = rows_of(advice, "solid")
    assert solid
    assert not solid[0].before
    assert "does not turn" in advice.note
    alone = ranked(TAP)
    assert all(not row.before and row.more[2].metric == "1" for row in alone.candidates)
    assert min(row.seconds for row in alone.candidates) < min(row.seconds for row in advice.candidates)


def test_what_the_part_is_worth_moves_the_choice_to_milling() -> None:
    """A tap that breaks costs the part, a mill that breaks falls out: with a dear part the list turns, and says why."""
    cheap = ranked(TAP, material="42CrMo4", batch={"part_value": 1.0, "pieces": 400})
    dear = ranked(TAP, material="42CrMo4", batch={"part_value": 4000.0, "pieces": 400})

    def lead(advice: object, word: str) -> float:
        return min(row.cost + row.beside for row in rows_of(advice, word))  # type: ignore[arg-type]

    assert lead(dear, "tap M10 spiral flute") - lead(dear, "thread mill 7.7") > 1.0 + lead(cheap, "tap M10 spiral flute") - lead(
        cheap, "thread mill 7.7"
    )
    assert dear.candidates[0].becomes is not None
    assert dear.candidates[0].becomes["operation"] == "mill thread"


def test_a_hardened_seat_is_milled_and_never_tapped() -> None:
    advice = ranked(SOLID)
    edges = [row.edge for row in advice.candidates[:4]]
    assert edges[0].startswith(("helical thread mill", "thread mill"))
    assert any(edge.startswith("helical thread mill") for edge in edges)
    assert not rows_of(advice, "tapped")


def test_a_right_hand_spindle_on_the_engine_lathe() -> None:
    advice = ranked(SPINDLE)
    first = advice.candidates[0]
    assert first.edge.startswith("22 ER 4.0 TR")
    assert first.speed_reached == pytest.approx(np.pi * 20 * 125 / 1000, rel=0.01)  # gear 125: 500 mm/min of 600
    assert "die" in advice.note
    nut = {"thread": "1 1/2-4 Acme", "side": "inside", "length": "40 mm", "through": True, "there": "31.8 mm", "relief": None}
    inside = ranked(SPINDLE, machine="two-axis lathe", material="CuSn12-C", feature=nut)
    assert inside.candidates[0].edge.startswith("22 IR 4 ACME")


def test_stock_of_threading_tools() -> None:
    kinds = (*TAP_KINDS, *THREAD_MILL_KINDS, *INSERT_KINDS, *HOLDER_KINDS)
    assert sum(len(shipped(kind)) for kind in kinds) >= 120
    for kind in kinds:
        assert shipped(kind), kind
    for tap in (one for kind in TAP_KINDS for one in shipped(kind)):
        assert 0 < tap.core < tap.thread.diameter
        assert limits(tap.thread, True, tap.class_name).minor.high
    assert any(one.left_cutting for one in shipped("helical drill thread mill"))
    assert replace(M10, left_hand=True).lead_angle == M10.lead_angle
