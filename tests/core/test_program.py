"""Programs: what is written reads back to the plan, faults are named on their line, and nothing that is pasted breaks the reader."""

from __future__ import annotations

import math
import random
import re
from collections.abc import Callable, Iterator
from functools import cache
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cutting.doors.json_form import read_setup
from cutting.motion.moves import Feed, Frame, Helix, Path, Rapid, ThreadPass
from cutting.operations.registry import judged, kind_of
from cutting.program import Dialect, check, dialects, execute, write
from cutting.program.dialect import dialects_for
from cutting.program.words import words
from cutting.program.write import unrolled
from cutting.studies.program import programs_of
from tests.core.every_kind import EVERY_KIND
from tests.core.holes import DEEP, HOLE, hole
from tests.core.slots import form

LATHE, MILL, PLAIN, LATHE_CYCLES, MILL_CYCLES = dialects()


@cache
def planned(kind: str) -> tuple[Any, Path]:
    """A sound set-up of a kind with its path."""
    setup = read_setup(EVERY_KIND[kind])
    return setup, kind_of(kind).path(judged(setup)[1])


def programs() -> Iterator[tuple[str, Dialect, bool]]:
    for kind in EVERY_KIND:
        for dialect in dialects_for(planned(kind)[1].frame is Frame.TURNED):
            yield from ((kind, dialect, inch) for inch in (False, True))


EVERY = [pytest.param(*one, id=f"{one[0]}, {one[1].name}, {'inch' if one[2] else 'mm'}") for one in programs()]


@pytest.mark.parametrize(("kind", "dialect", "inch"), EVERY)
def test_what_is_written_reads_back_to_the_plan(kind: str, dialect: Dialect, inch: bool) -> None:
    setup, path = planned(kind)
    for zero in (0.0, 37.5):
        text = write(path, dialect, kind, inch=inch, zero=zero)
        found = execute(text, dialect, path.start, zero)
        assert check(found, setup.machine, path) == ()
        if found.cycles:  # told in one what the path tells in several: the check sets them side by side
            assert found.runs[-1].move.to == pytest.approx(path.start, abs=0.004)
            continue
        wanted = [step for step in unrolled(path) if isinstance(step, Rapid | Feed | Helix | ThreadPass)]
        moved = [run.move for run in found.runs if isinstance(run.move, Rapid | Feed | Helix | ThreadPass)]
        assert [type(one) for one in moved] == [type(one) for one in wanted]
        assert max(math.dist(a.to, b.to) for a, b in zip(moved, wanted, strict=True)) < (0.004 if inch else 0.001)


@pytest.mark.parametrize(("kind", "dialect", "inch"), EVERY)
def test_the_control_is_told_all_that_it_needs(kind: str, dialect: Dialect, inch: bool) -> None:
    """Units first, every axis in the first move, a stop and an end last; no letter that a control does not show."""
    _, path = planned(kind)
    lines = write(path, dialect, f"{kind} Ø20 (first)", inch=inch).splitlines()
    assert ("G20" if inch else "G21") in lines[1]
    first = next(line for line in lines if "G0 " in line)
    assert all(axis in first for axis in ("XZ" if dialect.turns else "XYZ"))
    assert lines[-1].split()[-1] in ("M30", "M2")
    assert "M5" in lines[-2]
    assert all(line.isascii() for line in lines)
    assert all(len(line) <= 100 for line in lines)


def lines_with(text: str, pattern: str) -> list[int]:
    return [k for k, line in enumerate(text.splitlines()) if re.search(pattern, re.sub(r"\(.*?\)|;.*", "", line))]


def changed(text: str, k: int, pattern: str, to: str | Callable[[re.Match[str]], str]) -> str:
    lines = text.splitlines()
    lines[k] = re.sub(pattern, to, lines[k], count=1)
    return "\n".join(lines) + "\n"


def scaled(by: float) -> Callable[[re.Match[str]], str]:
    return lambda found: f"{found[1]}{float(found[2]) * by:.3f}"


# a fault: where it is put, what it makes of the line, and the rules that may name it there
Fault = tuple[str, str, Any, set[str]]
MODES = {"4": "G95", "5": "G94", "8": "G99", "9": "G98"}
FAULTS: dict[str, Fault] = {
    "rapid for feed": (r"\bG1\b", r"\bG1\b", "G0", {"motion"}),
    "feed for rapid": (r"\bG0\b", r"\bG0\b", "G1", {"motion", "no_feed", "no_spindle"}),
    "missing decimal point": (r"[XZ]-?\d+\.\d+", r"([XZ]-?\d+)\.\d+", r"\1", {"no_point", "place"}),
    "radius for diameter": (r"G1.*X\d+\.\d", r"(X)(\d+\.\d+)", scaled(0.5), {"place"}),
    "lost sign": (r"Z-\d+\.\d*[1-9]", r"Z-", "Z", {"place"}),
    "feed ten times": (r"G[123].*F\d", r"(F)(\d+\.?\d*)", scaled(10.0), {"feed"}),
    "feed in the wrong mode": (r"\bG9[4589]\b.*F", r"\bG9([4589])\b", lambda found: MODES[found[1]], {"feed_mode"}),
    "wrong lead": (r"\bG3[23]\b", r"([KF])(\d+\.\d+)", scaled(1.1), {"lead"}),
    "wrong way round": (r"\bG3\b", r"\bG3\b", "G2", {"sense", "turns"}),
    "two words of a group": (r"\bG1\b", r"\bG1\b", "G1 G0", {"two_of_a_group"}),
    "no word at all": (r"\bG1\b", r"\bG1\b", "G1 §", {"unread"}),
    "no end": (r"\bM(30|2)\b", r"\bM(30|2)\b", "", {"no_end"}),
    "comma for point": (r"[XZ]-?\d+\.\d", r"([XZ]-?\d+)\.", r"\1,", {"unread", "no_point", "place"}),
    "letter for nought": (r"[XZ]-?\d*0\.\d", r"([XZ]-?\d*)0\.", r"\1O.", {"unread", "no_point", "place"}),
    "axes swapped": (r"G1.*X\d+\.\d+ Z", r"X(-?\d+\.\d+) Z(-?\d+\.\d+)", r"X\2 Z\1", {"place"}),
    "incremental": (r"\bG1\b.*Z", r"\bG1\b", "G91 G1", {"place"}),
    "end in the middle": (r"\bG1\b", r"$", " M30", {"less_than_planned", "left_turning", "coolant_on"}),
    "unknown word": (r"\bG1\b", r"\bG1\b", "G123 G1", {"unknown_word"}),
    "rotary word": (r"\bG1\b", r"$", " C90.", {"rotary"}),
    "centre lost": (r"\bG[23]\b.* I-?\d", r" [IJ]-?\d+\.\d+", "", {"no_centre", "radii", "place", "turns", "sense"}),
    "centre turned over": (r"\bG[23]\b.* I-?\d*[1-9]", r" I(-?)", lambda found: " I" if found[1] else " I-",
                           {"radii", "place", "turns", "sense"}),
    "wrong offset": (r"T0101", r"T0101", "T0102", {"tool_offset"}),
    "macro": (r"\bG1\b", r"\bG1\b", "#101=3 G1", {"macro"}),
    "jump": (r"\bG1\b", r"$", " GOTO 10", {"macro", "unread"}),
    "cycle of nothing": (r"\bG1\b.*Z", r"\bG1\b", "G81", {"cycle", "motion"}),
    "too fast": (r"\bG97\b", r"(S)(\d+)", lambda found: "S99000", {"too_fast", "speed"}),
}  # fmt: skip
# faults whose harm shows on a later line, put in where they first stand
LATER: dict[str, Fault] = {
    "left turning": (r"\bM5\b", r"\bM5\b", "", {"left_turning"}),
    "spindle the other way": (r"\bM3\b", r"\bM3\b", "M4", {"spindle_sense"}),
    "no spindle": (r"\bM3\b", r"\bM3\b", "", {"no_spindle"}),
    "no feed": (r"F\d", r"F\d+\.?\d*", "", {"no_feed", "feed", "no_lead"}),
    "wrong units": (r"\bG21\b", r"\bG21\b", "G20", {"place"}),
    "compensation left on": (r"\bG1\b", r"\bG1\b", "G41 G1", {"compensation_on"}),
    "stopped in the middle": (r"\bG0\b", r"$", " M5", {"no_spindle"}),
    "coolant left on": (r"M5 M9", r" M9", "", {"coolant_on"}),
    "speed forgotten": (r"G97 S", r"S\d+", "", {"no_spindle", "speed"}),
    "constant for fixed": (r"G97 S", r"G97", "G96", {"speed", "no_clamp", "thread_constant"}),
    "clamp forgotten": (r"G(50|92) S", r"G(50|92) S\d+", "", {"no_clamp", "clamp"}),
}


def injected(names: dict[str, Fault], seed: str, tries: int) -> Iterator[tuple[str, str, Dialect, str, int, set[str]]]:
    """Programs of any kind and dialect, each with one fault: its name, kind, dialect, the text, the line, and the rules that name it."""
    chance = random.Random(seed)
    every = [(kind, dialect) for kind, dialect, inch in programs() if not inch]
    made = 0
    while made < tries:
        (kind, dialect), name = chance.choice(every), chance.choice(list(names))
        where, pattern, to, rules = names[name]
        text = write(planned(kind)[1], dialect, kind)
        if places := lines_with(text, where):
            k = places[0] if names is LATER else chance.choice(places)
            broken = changed(text, k, pattern, to)
            if broken != text and (name != "radius for diameter" or dialect.diameter):
                made += 1
                yield name, kind, dialect, broken, k + 1, rules


def test_classic_faults_are_named_on_their_line() -> None:
    """95 of 100 that are put in at random, with the line; a rapid of the same place may hide one or two."""
    cases = list(injected(FAULTS, "faults", 400))
    missed = []
    for name, kind, dialect, text, line, rules in cases:
        setup, path = planned(kind)
        found = check(execute(text, dialect, path.start), setup.machine, path)
        if not any(one.line == line and one.rule in rules for one in found):
            missed.append((name, kind, dialect.name, line, text.splitlines()[line - 1], [(one.line, one.rule) for one in found][:4]))
    assert len(missed) <= 0.05 * len(cases), missed


def test_faults_of_a_mode_are_named_where_they_harm() -> None:
    for name, kind, dialect, text, line, rules in injected(LATER, "modes", 120):
        setup, path = planned(kind)
        found = check(execute(text, dialect, path.start), setup.machine, path)
        assert any(one.line >= line and one.rule in rules for one in found), (name, kind, dialect.name, line)


def test_to_the_centre_without_a_clamp_is_stopped() -> None:
    setup, path = planned("cut off")
    text = write(path, LATHE)
    without = "".join(line + "\n" for line in text.splitlines() if "G50" not in line)
    found = check(execute(without, LATHE, path.start), setup.machine, path)
    assert {one.rule for one in found if one.severity == "stop"} >= {"no_clamp"}
    assert min(one.line for one in found if one.rule == "no_clamp") == lines_with(without, r"X0\.8")[0] + 1


def test_a_program_without_a_plan_is_checked_by_itself() -> None:
    machine = planned("turn")[0].machine
    own = "%\nO0100 (PASTED)\nT0101\nG97 S500 M3\nG0 X52. Z2.\nG99 G1 Z-30. F.25\nX54\nG0 Z5.\nM5\nM30\n%\n"
    found = check(execute(own, LATHE), machine)
    assert [(one.line, one.rule) for one in found] == [(7, "no_point")]
    spinning = check(execute(own.replace("M5\n", ""), LATHE), machine)
    assert "left_turning" in {one.rule for one in spinning}


@settings(max_examples=150, deadline=None)
@given(st.text(max_size=200))
def test_no_text_breaks_the_reader(text: str) -> None:
    found = execute(text, LATHE)
    assert found.lines == len(text.splitlines())
    check(found, planned("turn")[0].machine, planned("turn")[1])


@settings(max_examples=100, deadline=None)
@given(st.data())
def test_no_mutation_of_a_program_breaks_the_reader(data: st.DataObject) -> None:
    kind, dialect, inch = data.draw(st.sampled_from(list(programs())))
    setup, path = planned(kind)
    text = write(path, dialect, kind, inch=inch)
    for _ in range(data.draw(st.integers(1, 6))):
        at = data.draw(st.integers(0, len(text) - 1))
        text = (
            text[:at]
            + data.draw(st.sampled_from(["", ".", "-", "G", "X9", "\n", "F", "(", "0", "M"]))
            + text[at + data.draw(st.integers(0, 2)) :]
        )
    check(execute(text, dialect, path.start), setup.machine, path)


@pytest.mark.parametrize(
    ("line", "read"),
    [
        ("N0010 G01X52.Z-.5F.2", ["N10", "G1", "X52", "Z-0.5", "F0.2"]),
        ("g1 x5 (G0 X9) z2 ; M3", ["G1", "X5", "Z2"]),
        ("/N5G0X+1.5", ["N5", "G0", "X1.5"]),
        ("", []),
    ],
)
def test_words_are_read_as_they_are_written(line: str, read: list[str]) -> None:
    assert [one.name for one in words(line)[0]] == read


@pytest.mark.parametrize(
    ("word", "to", "turns"),
    [("G2", "X0. Y-10.", 0.25), ("G3", "X0. Y-10.", 0.75), ("G3", "X0. Y10.", 0.25), ("G2", "X0. Y10.", 0.75), ("G2", "X-10. Y0.", 0.5),
     ("G2", "X10. Y0.", 1.0), ("G3", "X10. Y0. Z-3.", 1.0)],
)  # fmt: skip
@pytest.mark.parametrize("units", ["G21", "G20"])
def test_arcs_go_round_as_far_as_geometry_says(word: str, to: str, turns: float, units: str) -> None:
    """Round the origin from (10, 0): plane geometry."""
    found = execute(f"{units} G90 G17\nT1 M6\nG97 S500 M3\nG0 X10. Y0. Z0.\nG94 {word} {to} I-10. J0. F100.\nM5\nM30\n", MILL)
    arc = found.runs[-1].move
    assert isinstance(arc, Helix)
    assert arc.turns == pytest.approx(turns)
    assert arc.clockwise is (word == "G2")
    assert arc.centre[:2] == pytest.approx((0.0, 0.0))
    assert not found.faults


def test_a_place_counts_as_the_planned_one_within_what_is_written() -> None:
    """Three decimals, and four in inches, leave 0.006 mm open; more is another place."""
    setup, path = planned("drill")
    for off, told in ((0.0055, False), (0.0065, True), (-0.0065, True)):
        moved = re.sub(r"(Z)(-\d+\.\d+)", lambda found, off=off: f"{found[1]}{float(found[2]) + off:.4f}", write(path, MILL), count=1)
        found = check(execute(moved, MILL, path.start), setup.machine, path)
        assert ("place" in {one.rule for one in found}) is told, off


@pytest.mark.parametrize(("diameter", "runs_away"), [("2.1", False), ("1.9", True), ("0.", True)])
def test_the_centre_begins_where_the_speed_runs_away(diameter: str, runs_away: bool) -> None:
    text = f"T0101\nG96 S200 M3\nG0 X40. Z0.\nG99 G1 X{diameter} F0.1\nM5\nM30\n"
    found = check(execute(text, LATHE), planned("turn")[0].machine)
    assert ("no_clamp" in {one.rule for one in found}) is runs_away
    clamped = check(execute("G50 S2000\n" + text, LATHE), planned("turn")[0].machine)
    assert "no_clamp" not in {one.rule for one in clamped}


def test_who_pulls_a_blade_out_starts_the_spindle_again_himself() -> None:
    """Where the spindle stands for a hand the program waits (M0); it never goes on by time."""
    setup = read_setup(form(EVERY_KIND["cut off"], settings={"pull_out_at": "22 mm"}, feature={"flatness": None, "pip": None}))
    outcome, x = judged(setup)
    path = kind_of("cut off").path(x, None)
    lines = write(path, LATHE).splitlines()
    stops = next(k for k, line in enumerate(lines) if "M5" in line)
    assert "M0" in lines[stops + 1]
    assert not any(re.search(r"\bG4\b", line) for line in lines)
    assert any("M3" in line for line in lines[stops + 2 :])
    assert check(execute("\n".join(lines), LATHE, path.start), setup.machine, path) == ()
    warned = next(one for one in outcome.warnings if one.name == "pull_out")
    assert "spindle stands" in warned.text
    assert warned.harm == "warning"


def test_a_lathe_drills_with_the_words_of_a_lathe() -> None:
    """On the axis with X0; a hole beside it wants driven tools and is written for a machine that turns the tool."""
    lathe, centre = programs_of(hole(DEEP)), programs_of(hole(HOLE))
    assert {one.dialect.turns for one in lathe.texts} == {True}
    assert {one.dialect.turns for one in centre.texts} == {False}
    assert all(one.findings == () for one in (*lathe.texts, *centre.texts))
    assert all(re.search(r"X0\.0+ Z", one.text) for one in lathe.texts)
    assert not any("M6" in one.text for one in lathe.texts)


def test_a_program_is_not_without_the_gravest_warnings() -> None:
    """The written highest speed is the machine's own where nobody set one: that is said beside it."""
    facing = read_setup(form(EVERY_KIND["face"], settings={"spindle_clamp": None}))
    clamped = read_setup(form(EVERY_KIND["face"], settings={"spindle_clamp": "2000"}))
    assert any("max. spindle speed" in text for text in programs_of(facing).dangers)
    assert not any("max. spindle speed" in text for text in programs_of(clamped).dangers)
