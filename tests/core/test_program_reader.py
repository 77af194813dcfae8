"""What a pasted program does: arcs, cycles, subprograms, offsets; what it does to its bar; and a whole job in one program."""

from __future__ import annotations

import math
import random
from typing import Any

import numpy as np
import pytest

from cutting.doors.json_form import read_setup
from cutting.errors import UnknownName
from cutting.machine.machines import find_machine
from cutting.motion.moves import Arc, CuttingOutline, Dwell, Feed, Frame, Helix, Path, Per, Rapid, ThreadPass
from cutting.operations.registry import judged, kind_of
from cutting.program import Chucked, check, execute
from cutting.program.body import TurnedBody, findings_of
from cutting.program.dialect import dialects, find_dialect
from cutting.program.entering import entering
from cutting.program.job import JobOperation, job_programs
from cutting.program.plot import Drawn, plot, seconds_of
from cutting.program.write import unrolled
from cutting.studies.program import programs_of
from tests.core.every_kind import EVERY_KIND
from tests.core.slots import form

LATHE, MILL = dialects()[:2]
TURNING, CENTRE = find_machine("two-axis lathe"), find_machine("machining centre")
HEAD = "T0101\nG97 S500 M3\n"
MILL_HEAD = "G21 G90 G17\nT1 M6\nG97 S1000 M3\n"


def rules(text: str, dialect: Any = LATHE, bar: Chucked | None = None) -> list[tuple[int, str]]:
    machine = TURNING if dialect.turns else CENTRE
    return [(one.line, one.rule) for one in check(execute(text, dialect, (100.0, 0.0, 100.0)), machine, None, bar)]


@pytest.mark.parametrize("plane", ["G17", "G18"])
def test_an_arc_by_its_radius_is_the_arc_by_its_centre(plane: str) -> None:
    """Plane geometry over random arcs: R for what is shorter than a half turn, −R for what is longer."""
    rng, a, b, words = random.Random(3), *((0, 1, "XYIJ") if plane == "G17" else (0, 2, "XZIK"))
    dialect = MILL
    for _ in range(60):
        centre, radius = (rng.uniform(-20, 20), rng.uniform(-20, 20)), rng.uniform(2, 30)
        begin, turned = rng.uniform(0, 2 * math.pi), rng.uniform(0.1, 0.9) * 2 * math.pi
        word, way = rng.choice((("G2", -1.0), ("G3", 1.0)))
        way = way if plane == "G17" else -way  # in ZX a control counts from z to x
        at, to = ([centre[k] + radius * f(angle) for k, f in ((0, math.cos), (1, math.sin))] for angle in (begin, begin + way * turned))
        x, z, i, k = words
        start = f"{MILL_HEAD}{plane}\nG0 X0. Y0. Z0.\nG0 {x}{at[0]:.5f} {z}{at[1]:.5f}\n"
        signed = radius if turned < math.pi else -radius
        by_r = execute(f"{start}G94 {word} {x}{to[0]:.5f} {z}{to[1]:.5f} R{signed:.5f} F100.\nM30\n", dialect).runs[-1].move
        by_c = (
            execute(
                f"{start}G94 {word} {x}{to[0]:.5f} {z}{to[1]:.5f} {i}{centre[0] - at[0]:.5f} {k}{centre[1] - at[1]:.5f} F100.\nM30\n",
                dialect,
            )
            .runs[-1]
            .move
        )
        assert isinstance(by_r, Helix | Arc)
        assert isinstance(by_c, Helix | Arc)
        assert [by_r.centre[k] for k in (a, b)] == pytest.approx([by_c.centre[k] for k in (a, b)], abs=0.01)
        assert by_r.clockwise is by_c.clockwise
        if isinstance(by_c, Helix) and isinstance(by_r, Helix):
            assert by_c.turns == pytest.approx(turned / (2 * math.pi), abs=1e-3)
            assert by_r.turns == pytest.approx(by_c.turns, abs=1e-3)


def test_a_radius_on_a_lathe_goes_round_the_way_the_control_goes() -> None:
    """From (Ø20, 0) to (Ø30, −5) with R5: G3 rounds a corner off (bulges out), G2 leaves a fillet; their middles lie apart."""
    middles = {}
    for word in ("G2", "G3"):
        found = execute(f"{HEAD}G0 X20. Z0.\nG99 {word} X30. Z-5. R5. F0.1\nM5\nM30\n", LATHE)
        assert not found.faults
        drawn = plot(found)
        round_it = [place for place, line in zip(drawn.places, drawn.lines, strict=True) if line == 4]
        middles[word] = round_it[len(round_it) // 2 - 1]
    assert middles["G3"][0] > middles["G2"][0]
    assert middles["G3"] == pytest.approx((10 + 5 * math.sin(math.pi / 4), 0.0, -5 + 5 * math.cos(math.pi / 4)), abs=0.3)


@pytest.mark.parametrize(
    ("cycle", "kinds"),
    [
        ("G81 X5. Y0. Z-10. R2. F100.", ["R", "R", "F", "R"]),
        ("G82 X5. Y0. Z-10. R2. P500 F100.", ["R", "R", "F", "D", "R"]),
        ("G83 X5. Y0. Z-10. R2. Q5. F100.", ["R", "R", "F", "R", "R", "F", "R", "R", "F", "R"]),
        ("G73 X5. Y0. Z-10. R2. Q6. F100.", ["R", "R", "F", "R", "R", "F", "R"]),
        ("G85 X5. Y0. Z-10. R2. F100.", ["R", "R", "F", "F", "R"]),
        ("G95 G84 X5. Y0. Z-10. R2. F1.5", ["R", "R", "T", "T", "R"]),
    ],
)
def test_a_cycle_is_the_moves_that_it_stands_for(cycle: str, kinds: list[str]) -> None:
    """ISO 6983-1, G81 to G89: over the hole, to R, in, out; G98 goes back to where the tool stood, G99 to R."""
    names = {Rapid: "R", Feed: "F", Dwell: "D", ThreadPass: "T"}
    found = execute(f"{MILL_HEAD}G0 X0. Y0. Z50.\nG94 G98 {cycle}\nG80\nM5\nM30\n", MILL)
    moves = [run.move for run in found.runs[1:]]
    assert [names[type(one)] for one in moves] == kinds
    assert not found.faults
    assert min(one.to[2] for one in moves if not isinstance(one, Dwell)) == -10.0
    assert moves[-1].to == (5.0, 0.0, 50.0)
    low = execute(f"{MILL_HEAD}G0 X0. Y0. Z50.\nG94 G99 {cycle}\nX9.\nG80\nM5\nM30\n", MILL)
    assert low.runs[-1].move.to == (9.0, 0.0, 2.0)  # the next hole from R to R
    if "G84" in cycle:
        passes = [run for run in found.runs if isinstance(run.move, ThreadPass)]
        assert [run.spindle.backwards for run in passes] == [False, True]
        assert {run.move.lead for run in passes} == {1.5}


def test_a_subprogram_is_run_as_often_as_it_is_called() -> None:
    text = f"{HEAD}G0 X40. Z0.\nM98 P10 L3\nG0 X50.\nM5\nM30\nO10\nG99 G1 W-2. F0.2\nG0 U4. W0.5\nM99\n"
    found = execute(text, LATHE)
    ends = [run.move.to for run in found.runs if isinstance(run.move, Feed)]
    assert [round(one[2], 3) for one in ends] == [-2.0, -3.5, -5.0]
    assert [round(one[0], 3) for one in ends] == [20.0, 22.0, 24.0]
    assert found.ended == 7
    assert {run.line for run in found.runs if isinstance(run.move, Feed)} == {9}
    for broken, rule in (("M98 P11", "no_subprogram"), ("M98", "no_subprogram"), ("O10\nM98 P10", "too_deep")):
        assert rule in {name for _, name in rules(f"{HEAD}G0 X40. Z5.\n{broken}\nM5\nM30\n")}
    assert "repeats" in {name for _, name in rules(f"{HEAD}G0 X40. Z5.\nM99\n")}


def test_what_is_not_followed_is_said_on_its_line_and_the_rest_is_read() -> None:
    text = f"O0001 (OWN)\n{HEAD}#100=5\nIF [#100 GT 3] GOTO 20\nG0 X52. Z2.\nG54 G99 G1 Z-3. F0.2\nC90.\nG0 Z9.\nM77\nM5\nM30\n"
    found = rules(text)
    assert found == [(4, "macro"), (5, "macro"), (8, "rotary"), (10, "unknown_word")]
    assert len(execute(text, LATHE).runs) == 3


@pytest.mark.parametrize(
    ("text", "rule"),
    [
        (f"{HEAD}G42\nG0 X50. Z5.\nG99 G1 Z-3. F0.2\nM5\nM30\n", "compensation_on"),
        (f"{HEAD}M8\nG0 X50. Z5.\nM5\nM30\n", "coolant_on"),
        (f"{HEAD}G0 X50. Z1.\nG99 G1 Z-9. F0.2\nG0 Z1.\nT0202\nM5\nM30\n", "change_low"),
        (f"{HEAD}G0 X50. Z50.\nG41\nT0202\nG40\nM5\nM30\n", "compensated_change"),
        (f"{HEAD}G0 X50. Z5.\nG99 G1 G2 Z-3. F0.2\nM5\nM30\n", "two_of_a_group"),
        (f"{HEAD}G0 X50. Z5.\nG99 G3 X60. Z0. R2. F0.2\nM5\nM30\n", "radius_short"),
        (f"{HEAD}G0 X50. Z5.\nG99 G3 X60. Z0. F0.2\nM5\nM30\n", "no_centre"),
    ],
)
def test_what_is_left_on_or_cannot_go_is_named(text: str, rule: str) -> None:
    assert rule in {name for _, name in rules(text)}


BAR = Chucked(50.0, 0.0, 80.0)


def test_a_rapid_move_into_the_bar_is_stopped_and_one_beside_it_is_not() -> None:
    sound = f"{HEAD}G0 X46. Z82.\nG99 G1 Z30. F0.2\nG0 X52. Z82.\nG0 X42.\nG1 Z30.\nX52.\nG0 Z90.\nM5\nM30\n"
    assert rules(sound, bar=BAR) == []
    for wrong, line in ((sound.replace("G1 Z30. F0.2", "G0 Z30."), 4), (sound.replace("X52. Z82.", "X40. Z82."), 5)):
        assert (line, "rapid_metal") in rules(wrong, bar=BAR)
    thinner = Chucked(50.0, 0.0, 80.0, steps=((20.0, 80.0, 45.0),))
    assert "rapid_metal" not in {name for _, name in rules(sound.replace("G1 Z30. F0.2", "G0 Z30."), bar=thinner)}
    wide = Chucked(40.0, 0.0, 80.0, bore=30.0)
    assert "rapid_metal" not in {name for _, name in rules(f"{HEAD}G0 X28. Z90.\nG0 Z20.\nG0 Z90.\nM5\nM30\n", bar=wide)}
    assert "rapid_metal" in {name for _, name in rules(f"{HEAD}G0 X34. Z90.\nG0 Z20.\nG0 Z90.\nM5\nM30\n", bar=wide)}


def test_the_jaws_and_long_feed_in_air_are_told() -> None:
    assert (4, "jaws") in rules(f"{HEAD}G0 X46. Z82.\nG99 G1 Z-1. F0.2\nG0 X60.\nM5\nM30\n", bar=BAR)
    assert "jaws" not in {name for _, name in rules(f"{HEAD}G0 X46. Z82.\nG99 G1 Z1. F0.2\nG0 X60.\nM5\nM30\n", bar=BAR)}
    slow = f"{HEAD}G0 X46. Z100.\nG99 G1 Z81. F0.2\nZ60.\nG0 X60.\nM5\nM30\n"
    assert rules(slow, bar=BAR) == [(4, "air")]  # 19 mm at 100 mm/min
    assert rules(slow.replace("Z100.", "Z82."), bar=BAR) == []


def test_the_metal_that_goes_is_what_geometry_says() -> None:
    """A pass of 2 mm over 50 mm takes 100 mm² of the half section; a taper half of its box; a full turn of arc what its segment holds."""
    body = TurnedBody(BAR)
    assert body.cut((23.0, 0.0, 80.0), (23.0, 0.0, 30.0)) == pytest.approx(100.0, rel=0.01)
    assert body.cut((23.0, 0.0, 80.0), (23.0, 0.0, 30.0)) == 0.0
    taper = TurnedBody(BAR)
    assert taper.cut((15.0, 0.0, 80.0), (25.0, 0.0, 60.0)) == pytest.approx(100.0, rel=0.01)
    arc = TurnedBody(BAR)
    runs = execute(f"{HEAD}G0 X30. Z80.\nG99 G3 X50. Z70. R10. F0.1\nM5\nM30\n", LATHE, (100.0, 0.0, 100.0)).runs
    _, arc = findings_of(runs, BAR, air=False)
    left = np.array(arc.profile(4000))
    gone = float(((25.0 - left[:, 1]) * 80.0 / len(left)).sum())
    assert gone == pytest.approx((1.0 - math.pi / 4.0) * 100.0, rel=0.02)


def test_a_plot_follows_the_lines_and_the_clock_the_feed() -> None:
    text = f"{HEAD}G0 X46. Z82.\nG99 G1 Z32. F0.1\nG0 X60.\nM5\nM30\n"
    found = execute(text, LATHE, (50.0, 0.0, 100.0))
    drawn = plot(found)
    assert drawn.whole
    assert drawn.lines == (3, 3, 4, 5)
    assert drawn.drawn == (Drawn.RAPID, Drawn.RAPID, Drawn.FEED, Drawn.RAPID)
    assert drawn.places[-1] == (30.0, 0.0, 32.0)
    seconds = seconds_of(found, True, TURNING)
    assert seconds is not None
    assert 60.0 < seconds < 62.0  # 50 mm at 50 mm/min, and rapid
    assert seconds_of(execute(text.replace(" F0.1", ""), LATHE), True, TURNING) is None


def test_a_whole_job_is_one_program_that_can_be_started_at_each_operation() -> None:
    """Each operation has its own modes, tool and spindle; the same tool keeps its place; what another machine must do is left out, said."""
    turn, groove = read_setup(EVERY_KIND["turn"]), read_setup(EVERY_KIND["groove"])
    missing = UnknownName("tool", "no tool of the crib makes it.")
    operations = (
        JobOperation(10, "Groove", groove, False), JobOperation(20, "Turn", turn, False),
        JobOperation(30, "Hole beside the axis", read_setup(form(EVERY_KIND["mill hole"])), False),
        JobOperation(40, "Nobody", missing, False), JobOperation(50, "Turn again", turn, True),
    )  # fmt: skip
    found = job_programs(operations, turn.machine, "Shaft", None)
    assert [number for number, _, _ in found.left_out] == [30, 40]
    text = next(one for one in found.texts if one.dialect.name == "lathe" and not one.inch)
    lines = text.text.splitlines()
    begins = [k for k, line in enumerate(lines) if "(OPERATION" in line]
    assert [lines[k].split("OPERATION ")[1].split(":")[0] for k in begins] == ["10", "20", "50"]
    for k in begins:
        block = " ".join(lines[k : k + 8])
        assert all(word in block for word in ("G21 G90", "T0", "M3", "G0 X")), block
    assert sum("M0" in line for line in lines) == 1
    assert "TURN THE PART ROUND" in lines[begins[2] - 1]
    tools = [line.split()[1] for line in lines if " T0" in line]
    assert tools[1] == tools[2] != tools[0]
    assert sum(line.split()[-1] == "M30" for line in lines) == 1
    assert [one for one in text.findings if one.severity == "stop"] == []
    assert found.seconds is not None


def test_a_dialect_that_there_is_not_is_refused_by_name() -> None:
    with pytest.raises(UnknownName) as refused:
        find_dialect("own")
    assert refused.value.field == "dialect"
    assert "lathe with cycles" in refused.value.message


def test_a_feed_is_meant_as_its_mode_says() -> None:
    found = execute(f"{HEAD}G98 G1 X40. Z0. F100.\nG99 G1 Z-5. F0.2\nM5\nM30\n", LATHE)
    assert [run.move.per for run in found.runs if isinstance(run.move, Feed)] == [Per.MINUTE, Per.TURN]


def test_a_blade_takes_its_width_and_a_point_its_line() -> None:
    """A plunge of a blade 4 mm wide takes 4 mm; set over the face's edge only what is there."""
    wide = Chucked(50.0, 0.0, 80.0, edge=(2.0, 2.0))
    body = TurnedBody(wide)
    assert body.cut((30.0, 0.0, 40.0), (20.0, 0.0, 40.0)) == pytest.approx(4.0 * 5.0, rel=0.02)
    assert body.cut((30.0, 0.0, 81.0), (20.0, 0.0, 81.0)) == pytest.approx(1.0 * 5.0, rel=0.05)
    assert body.cut((30.0, 0.0, 83.0), (20.0, 0.0, 83.0)) == 0.0


def test_a_hole_of_unlike_feeds_stays_long_hand() -> None:
    """A cycle has one feed: slower at the entry, block by block."""
    slow = read_setup(form(EVERY_KIND["drill"], settings={"entry_feed": 0.5}, feature={"entry_angle": 5}))
    plain = read_setup(EVERY_KIND["drill"])
    texts = {
        name: next(one.text for one in programs_of(setup).texts if one.dialect.name == "mill with cycles" and not one.inch)
        for name, setup in (("slow", slow), ("plain", plain))
    }
    assert "G81" in texts["plain"]
    assert "G81" not in texts["slow"]
    assert all(one.findings == () for setup in (slow, plain) for one in programs_of(setup).texts)


def test_a_cut_that_begins_in_the_part_is_entered_at_its_feed() -> None:
    """From over the metal that stands there, wherever it is the thickest on the way; what begins in air is left as it was."""
    path = kind_of("turn").path(judged(read_setup(EVERY_KIND["turn"]))[1], None)
    stands = Chucked(57.0, 0.0, 180.0, steps=((150.0, 180.0, 40.0),))
    entered = entering(path, TurnedBody(stands))
    body, at = TurnedBody(stands), path.start
    feeds = [step.feed for step in path.steps if isinstance(step, Feed)]
    added = [step for step in entered.steps if step not in path.steps]
    assert {step.feed for step in added if isinstance(step, Feed)} == {feeds[0]}
    for step in entered.steps:
        if isinstance(step, Rapid):
            assert body.pierced(at, step.to) <= 0.02
            at = step.to
        elif isinstance(step, Feed):
            body.cut(at, step.to)
            at = step.to
    over = [step.to for step in added if isinstance(step, Rapid)]
    assert over[0][0] == pytest.approx(57.0 / 2 + 1.0)
    alone = entering(path, TurnedBody(Chucked(57.0, 0.0, 140.0)))
    assert alone.steps == path.steps


def test_a_helix_is_written_turn_by_turn_and_falls_alike_in_each() -> None:
    helix = Helix((5.0, 0.0, -4.5), (0.0, 0.0, 0.0), 3.5, True, 100.0)
    path = Path(Frame.HOLE, "", (-5.0, 0.0, 2.5), (helix,), CuttingOutline(()))
    ends = [step.to[2] for step in unrolled(path) if isinstance(step, Helix)]
    assert ends == pytest.approx([0.5, -1.5, -3.5, -4.5])
    assert [step.turns for step in unrolled(path) if isinstance(step, Helix)] == pytest.approx([1.0, 1.0, 1.0, 0.5])
