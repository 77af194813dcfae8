"""Size control of threads, and what a threading operation shows: by hand, by direction and by what cannot be."""

from __future__ import annotations

from dataclasses import replace
from math import pi, radians, sqrt, tan

import pytest

from cutting.errors import CuttingError
from cutting.operations.frame.nudges import ladders
from cutting.operations.registry import KINDS, evaluate_quickly
from cutting.operations.threads.shared.core_hole import hole_window
from cutting.operations.threads.turn_thread.changes import quicker
from cutting.operations.threads.turn_thread.groove import groove, usual_passes
from cutting.operations.threads.turn_thread.numbers import numbers
from cutting.operations.threads.turn_thread.tool import single_tool
from cutting.quantities import read_quantity
from cutting.sizing.threads import Correction, Gauged, Reading, correct
from cutting.working import Silent
from cutting.workpiece.threads.limits import limits
from cutting.workpiece.threads.spelling import read_thread
from tests.core.thread_setups import MILL, SOLID, SPINDLE, TAP, TURN, limit, outcome_of, ranked, rows_of, setup_of, value

M24 = read_thread("M24x1.5-6g")
INSIDE = read_thread("M24x1.5-6H")


def _read(internal: bool = False, **said: object) -> Correction:
    thread = INSIDE if internal else M24
    return correct(thread, limits(thread, internal), internal, Reading(**said))  # type: ignore[arg-type]


def test_a_thread_over_wires_says_what_to_set_off() -> None:
    """M24x1.5 over 0.895 mm wires: pitch diameter = M - 3·d + 0.866·p (textbook, 60° symmetric, lead angle left out)."""
    zone = limits(M24, False).pitch
    for over, state in ((-0.01, "good"), (0.2, "cut on"), (-0.2, "beyond")):
        size = zone.middle + over
        found = _read(measured=size + 3 * 0.895 - 0.866025 * 1.5, wire=0.895)
        assert found.state == state
        assert found.pitch_diameter == pytest.approx(size, abs=0.002)
        assert found.metal == pytest.approx(over, abs=0.002)
        assert found.deeper == pytest.approx(over / 2, abs=0.001)  # on the radius
        assert found.along == pytest.approx(over * tan(radians(30)), abs=0.002)  # at one flank: the groove gets as much wider
    with pytest.raises(CuttingError, match="not this thread") as refused:
        _read(measured=23.0, wire=0.895)
    assert refused.value.field == "measured"


def test_gauges_tell_a_side_and_half_the_zone() -> None:
    """Outside or inside, a gauge that does not go means metal left; the first correction leads into the zone, not across it."""
    for internal in (False, True):
        zone = limits(INSIDE if internal else M24, internal).pitch
        tight, loose, good = (_read(internal, gauged=one) for one in (Gauged.TIGHT, Gauged.LOOSE, Gauged.GOOD))
        assert (tight.state, loose.state, good.state) == ("cut on", "beyond", "good")
        assert zone.high - zone.low > tight.metal > 0.5 * (zone.high - zone.low)
        assert loose.metal == -tight.metal
        assert (tight.off < 0) is internal  # inside, a tight thread is too small
        assert good.metal == 0.0
    with pytest.raises(CuttingError, match="a measured size, or what the gauges said"):
        _read()


def test_a_taper_gauge_that_goes_too_far_has_lost_metal() -> None:
    """A turn is worth pitch / 16 on the diameter (NPT, taper 1 in 16, ASME B1.20.1), a wider hole, a thinner spigot."""
    for internal in (False, True):
        thread = read_thread("1/2-14 NPT")
        found = correct(thread, limits(thread, internal), internal, Reading(turns=2.0))
        assert found.off == pytest.approx((1 if internal else -1) * 2 * 25.4 / 14 / 16, rel=1e-3)
        assert found.metal < 0


def test_rungs_stand_on_what_is_set_in_either_unit() -> None:
    for base in (TURN, TAP, MILL):
        setup = setup_of(base)
        for system in ("metric", "inch"):
            ladder = ladders(setup, evaluate_quickly(setup), KINDS[str(base["operation"])].nudged, system)["cutting_speed"]
            here = ladder.rungs[ladder.place]
            now = read_quantity(here, "cutting_speed", "spindle_speed").value
            wanted = setup.settings.cutting_speed if " 1/min" not in here and "rpm" not in here else value("spindle_speed", base)
            assert now == pytest.approx(wanted, rel=0.05), (base["operation"], system)


def test_fewer_passes_are_fewer_and_never_one() -> None:
    for asked in (3, 9, 14):
        setup = setup_of(TURN, settings={"passes": str(asked)})
        counts = [one.setup.settings.passes for one in quicker(setup) if "passes" in one.patch["settings"]]
        assert counts
        assert all(2 <= count < asked for count in counts)
    assert 30 < usual_passes(24.0, "S", "hss") <= 36  # however deep: no more than a lathe's operator would count


def test_what_pushes_a_thread_away() -> None:
    """Radial infeed cuts with both flanks and pushes most; the flank alone least (common practice)."""
    push = []
    for infeed in ("radial", "alternating flanks", "modified flank"):
        found = outcome_of(TURN, settings={"infeed": infeed})
        push.append(max(one.passive_force for one in found.passes) / found.results["cutting_force"].value)
    assert push == sorted(push, reverse=True)
    assert push[0] > push[1]


def test_quicker_grades_are_run_faster() -> None:
    """The speed that a set-up may go up to follows its grade."""
    setup = setup_of(TURN)
    quicker_grade = replace(setup.insert.grade, speed_factor=1.2 * setup.insert.grade.speed_factor)
    tops = []
    for one in (setup, replace(setup, insert=replace(setup.insert, grade=quicker_grade))):
        x = numbers(one, single_tool(one), 120.0, 1.5, Silent())
        tops.append(float(x.book_high.max()))
        assert 40 < float(x.book_low.max()) < tops[-1]
    assert tops[1] == pytest.approx(1.2 * tops[0])


def test_chips_and_passes_of_a_milled_thread() -> None:
    """An arc inside a bore is longer than √(depth × Ø), that on a flat, and shorter than half the mill's way round (geometry)."""
    for passes in (1, 3):
        found = outcome_of(MILL, settings={"passes": str(passes), "repeats": "1"})
        depth = 0.5 * (10.0 - 8.5) / passes * 0.4
        assert sqrt(depth * 7.7) < found.chip.long < pi * 7.7 / 2
        assert 0.0 <= found.results["certainty"].value <= 100.0
        # what one offset cannot take back is the change of the error along the flank, less than the error itself
        assert 0.0 < found.results["angle_left"].value < found.results["flank_error"].value
        ends = [one.to_diameter for one in found.passes]
        assert [one.from_diameter for one in found.passes] == [8.5, *ends[:-1]]
        assert ends == sorted(ends)
        assert ends[-1] == pytest.approx(10.0)
        assert len(ends) == passes + 1
        steps = [b - a for a, b in zip([8.5, *ends[:-2]], ends[:-1], strict=True)]
        assert steps == sorted(steps, reverse=True)  # the groove gets wider as it gets deeper: equal areas are smaller steps


def test_hot_teeth_are_not_quenched_and_feeds_use_their_window() -> None:
    """Above 54 HRC air, below it the coolant of the set-up (common practice); soft metal is fed at the top of the row, hard at its foot."""
    soft, hard = (rows_of(ranked(base), "milled") for base in (MILL, SOLID))
    assert soft
    assert hard
    assert {row.settings["coolant"] for row in hard if row.settings} == {"dry"}
    assert "dry" not in {row.settings["coolant"] for row in soft if row.settings}
    best = soft[0]
    window = next(one for one in outcome_of(MILL, tool=best.tool).limits if one.name == "book_feed")
    assert window.upper is not None
    assert 0.7 * window.upper < best.feed <= window.upper


def test_rolling_is_named_where_the_metal_flows() -> None:
    """Outside threads of ductile metal can be rolled, those of cast iron and inside ones cannot (common practice)."""
    rolled = [
        "Rolled" in ranked(TURN, **more).note
        for more in ({}, {"material": "X5CrNi18-10"}, {"material": "EN-GJL-250"}, {"material": "100Cr6 hardened 60 HRC"})
    ]
    assert rolled == [True, True, False, False]
    assert "Rolled" not in ranked(TAP).note


def test_what_holds_the_speed_of_a_turned_thread() -> None:
    """A narrow run-out groove slows the spindle; time asks for more speed than money; a bar goes into the bore."""

    def first(**more: object) -> float:
        return rows_of(ranked(TURN, **more), "turned")[0].cutting_speed

    narrow, wide = ({"feature": {"thread": "M24x1.5-6g", "side": "outside", "length": "30 mm", "relief": r}} for r in ("1.7 mm", "8 mm"))
    assert first(**narrow) < 0.8 * first(**wide)
    assert first(goal="cheapest") < first(goal="fastest")
    inside = {"thread": "M20x1.5-6H", "side": "inside", "length": "20 mm", "hole": "30 mm", "there": "18.4 mm", "relief": "4 mm"}
    advice = ranked(TURN, feature=inside)
    held = {setup_of(TURN, feature=inside, tool=row.tool).holder.least_bore for row in rows_of(advice, "turned")}
    assert held
    assert max(held) <= 18.4


def test_sound_threads_break_nothing() -> None:
    for base in (TAP, MILL, SOLID, TURN, SPINDLE):
        broken = {one.name for one in outcome_of(base).limits if one.utilisation > 1.0}
        assert not broken, base["feature"]


def test_passes_end_at_the_root() -> None:
    """Outside the last pass stands on the root of the drawing's thread, ISO 965-1's largest minor diameter and below it."""
    for base, words in ((TURN, "M24x1.5-6g"), (SPINDLE, "Tr 20x4-7e")):
        thread = read_thread(words)
        found = outcome_of(base)
        root = limits(thread, False).minor.high
        assert root is not None
        assert root - 0.3 < found.passes[-1].to_diameter <= root
        assert found.passes[0].from_diameter <= thread.diameter


def test_tapping_speeds_stand_where_handbooks_have_them() -> None:
    """High-speed steel in medium carbon steel: 30 to 60 ft/min, 9 to 18 m/min (Machinery's Handbook, from memory)."""
    window = next(one for one in outcome_of(TAP).limits if one.name == "book_speed")
    assert window.lower is not None
    assert window.upper is not None
    assert window.lower < 9 < 18 < window.upper < 30


def test_a_blind_thread_wants_room_for_the_chips_of_a_spiral_point() -> None:
    point = {"tool": {"tap": "tap M10 spiral point HSS cobalt PVD"}}
    blind = [limit("chips_down", TAP, **point, feature={"hole": f"{15 + room} mm"}) for room in (8.0, 9.0, 11.0, 13.0)]
    assert blind == sorted(blind, reverse=True)
    assert blind[0] > 1.0 > blind[-1]


def test_less_stiff_machines_cut_threads_less_true() -> None:
    setup = setup_of(TURN)
    soft = replace(setup, machine=replace(setup.machine, condition="worn"))
    assert evaluate_quickly(soft).results["size_error"].value > evaluate_quickly(setup).results["size_error"].value
    driven = KINDS["mill thread"].runs_on  # a lathe without driven tools turns the part, a machining centre its only spindle
    assert driven({}, replace(setup.machine, further=())) == driven({}, setup_of(MILL).machine) == ""


def test_mills_that_arc_longer_last_less() -> None:
    """A tooth that is longer in the metal gets hotter: a mill nearly as wide as its thread lasts fewer minutes (common practice)."""
    mill = {"mill": "thread mill 6.2 one row P1 to 1.75 K30 fine PVD"}
    tight, roomy = (
        value("tool_life", MILL, tool=mill, settings={"cutting_speed": "200 m/min"}, feature={"thread": words, "there": core})
        for words, core in (("M10-6H", "8.5 mm"), ("M20x1.5-6H", "18.5 mm"))
    )
    assert roomy > 1.03 * tight


def test_an_edge_in_the_metal_is_longer_than_its_depth() -> None:
    """Radial infeed cuts with both flanks of 30°: each is longer than the depth by 1/cos 30° (geometry)."""
    cut = groove(setup_of(TURN, settings={"infeed": "radial"}))
    turning = len(cut.depth) - setup_of(TURN).settings.spring
    assert cut.edge[:turning] == pytest.approx(cut.tip + 2 * 1.1547 * cut.depth[:turning], rel=1e-3)


def test_taps_go_faster_for_time_and_their_holes_are_drilled_to_size() -> None:
    """Of the drills of the crib the chain takes one that the thread's hole lets through, whichever others are there (ISO 965-1, 6H)."""
    speeds = [max(row.cutting_speed for row in rows_of(ranked(TAP, goal=goal), "tap ")) for goal in ("cheapest", "fastest")]
    assert speeds[0] < speeds[1]
    solid = ranked(TAP, feature={"thread": "M10-6H", "length": "15 mm", "hole": "22 mm", "there": ""})
    chains = [row for row in rows_of(solid, "tap ") if row.before]
    assert chains
    for row in chains:
        drilled = float(str(row.before[0].feature["diameter"]).split()[0])
        low, high = hole_window(read_thread("M10-6H"), row.designation.startswith("form"))
        assert low <= drilled <= high, row.designation
