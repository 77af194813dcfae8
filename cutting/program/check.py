"""What is wrong with a program, line by line: by itself, on its machine, and against the path that was planned."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace
from itertools import zip_longest

from cutting.machine.machines import Machine
from cutting.motion.moves import Arc, Dwell, Feed, Helix, Path, Per, Point, Rapid, SpindleOn, ThreadPass
from cutting.program.body import Chucked, findings_of
from cutting.program.finding import Finding
from cutting.program.read import Executed, Move, ProgramMove
from cutting.program.write import unrolled

FEED_OFF, SPEED_OFF = 0.02, 0.02  # shares by which a written number may differ from the planned one, for its rounding
NEAR = 0.006  # mm within which a place is the planned one: what three decimals, and four in inches, leave open
TO_THE_CENTRE = 2.0  # mm of diameter from which a constant cutting speed runs away
AFTER = 3  # moves that are told once a program has left the plan
NOT_CHECKED = (
    "offsets and the tool's true length",
    "chuck, tailstock and fixtures beside the face of the jaws",
    "the tool's and the holder's own body",
    "acceleration and the control's own limits",
    "macros, and cycles but for holes (G73, G81 to G89)",
)


def check(found: Executed, machine: Machine, path: Path | None = None, bar: Chucked | None = None) -> tuple[Finding, ...]:
    """Every finding in the order of its lines: by itself, on its machine, against its plan, and with what is in the chuck."""
    each = [
        *(Finding(one.line, one.name, STOPS.get(one.name, "look"), one.text) for one in found.faults),
        *_by_itself(found),
        *_at_the_end(found),
        *_on_machine(found, machine),
        *(_against(found, path) if path is not None else ()),
        *(findings_of(found.runs, bar, air=path is None)[0] if bar is not None else ()),
    ]
    return tuple(sorted(each, key=lambda one: (one.line, one.rule)))


# what cannot be read and stops the machine, or worse
STOPS = dict.fromkeys(
    ("radii", "radius_short", "no_centre", "no_lead", "no_motion", "endless", "too_deep", "no_subprogram", "cycle"), "stop"
)


def _at_the_end(found: Executed) -> Iterator[Finding]:
    """What is left on, and tools that are changed where they stand in the way."""
    if found.compensated:
        yield Finding(found.compensated, "compensation_on", "stop", "cutter compensation is put on and not taken off again.", "G40 clear")
    if found.ended is not None and found.wet:
        yield Finding(found.ended, "coolant_on", "look", "it ends with the coolant on.", "M9 before the end")
    for line, number, _, _ in found.tools:
        if len(number) == 4 and number[:2] != number[2:] and "00" not in (number[:2], number[2:]):
            yield Finding(
                line, "tool_offset", "look", f"tool {number[:2]} is called with the offset of {number[2:]}.", f"T{number[:2] * 2}"
            )
    for line, _, at, compensated in found.tools[1:]:
        if compensated:
            yield Finding(line, "compensated_change", "stop", "a tool is changed with cutter compensation on.", "G40 before it")
        if _in_the_way(found, line, at):
            yield Finding(line, "change_low", "stop", "a tool is changed where it stands at the part.", "go clear before it")


CLEAR_CHANGE = 5.0  # mm beside all that was cut at which a tool is changed at the nearest (common practice)


def _in_the_way(found: Executed, line: int, at: Point) -> bool:
    """Whether a tool that is changed stands within, or close to, what was cut before."""
    cut = [
        place
        for run in found.runs
        if run.line < line and isinstance(run.move, Feed | Arc | Helix | ThreadPass)
        for place in (run.start, run.move.to)
    ]
    if not cut:
        return False
    high = max(place[2] for place in cut) + CLEAR_CHANGE
    wide = max(math.hypot(place[0], place[1]) for place in cut) + CLEAR_CHANGE
    return at[2] < high and math.hypot(at[0], at[1]) < wide


def _by_itself(found: Executed) -> Iterator[Finding]:
    """What no machine does well."""
    for run in found.runs:
        move = run.move
        if isinstance(move, Rapid | Dwell):
            continue
        if run.spindle.top <= 0.0:
            yield Finding(run.line, "no_spindle", "stop", "it feeds with the spindle stopped.", "M3 or M4 with a speed before it")
        if isinstance(move, Feed | Arc | Helix) and move.feed <= 0.0:
            yield Finding(run.line, "no_feed", "stop", "it feeds without a feed.", "an F word")
        if isinstance(move, ThreadPass) and run.constant:
            text = "a thread at a constant cutting speed: its lead wanders as the speed follows the diameter."
            yield Finding(run.line, "thread_constant", "stop", text, "G97 with a fixed speed")
        if run.constant and not run.clamped and 2.0 * abs(move.to[0]) < TO_THE_CENTRE:
            text = "to the centre at a constant cutting speed with no highest speed set: the spindle runs away."
            yield Finding(run.line, "no_clamp", "stop", text, "set the highest speed before it")
    if found.ended is None:
        yield Finding(max(found.lines, 1), "no_end", "look", "the program does not end.", "M30 or M2 as its last block")
    elif found.turning:
        yield Finding(found.ended, "left_turning", "stop", "it ends with the spindle turning.", "M5 before the end")
    if not found.tools:
        yield Finding(1, "no_tool", "look", "no tool is called.", "a T word at the start")


def _on_machine(found: Executed, machine: Machine) -> Iterator[Finding]:
    """What this machine does not reach."""
    top = machine.top_speed
    for line, spindle in found.switches:
        if spindle.top > top * (1.0 + SPEED_OFF) and math.isfinite(spindle.top):
            text = f"{spindle.top:.0f} rpm; {machine.name} has {top:.0f}."
            yield Finding(line, "too_fast", "stop", text, f"at most {top:.0f}")


def _against(found: Executed, path: Path) -> Iterator[Finding]:
    """Where the program leaves the plan: its moves side by side, and how the spindle turns."""
    wanted: list[Move] = [one for one in unrolled(path) if isinstance(one, Rapid | Feed | Arc | Helix | ThreadPass | Dwell)]
    spindles, runs = _spindles(path), found.runs
    if found.cycles:  # a cycle goes in one what a path tells in several
        runs = merged(runs)
        planned = merged([ProgramMove(0, at, move, turns, True, False, Per.MINUTE) for at, move, turns in _placed(path, wanted, spindles)])
        wanted, spindles = [one.move for one in planned], [one.spindle for one in planned]
    off = 0
    for run, move, turns in zip_longest(runs, wanted, spindles):
        if move is None:
            yield Finding(run.line, "more_than_planned", "look", "the plan has no further move.")
            return
        if run is None:
            yield Finding(found.ended or max(found.lines, 1), "less_than_planned", "stop", "the plan has moves that are not here.")
            return
        told = list(_differs(run, move, turns))
        yield from told
        off = off + 1 if any(one.rule in ("place", "motion") for one in told) else 0
        if off >= AFTER:
            yield Finding(run.line, "left_the_plan", "look", "from here on it goes its own way: the rest is not set beside the plan.")
            return


def _placed(path: Path, moves: list[Move], spindles: list[SpindleOn]) -> Iterator[tuple[Point, Move, SpindleOn]]:
    """The moves of a path with where each begins."""
    at = path.start
    for move, turns in zip(moves, spindles, strict=True):
        yield at, move, turns
        at = at if isinstance(move, Dwell) else move.to


def merged(runs: list[ProgramMove]) -> list[ProgramMove]:
    """Moves of which those that go straight on alike are one: rapid on rapid, feed on the same feed."""
    found = list[ProgramMove]()
    for run in runs:
        last = found[-1] if found else None
        if last is not None and _goes_on(last, run):
            found[-1] = replace(run, start=last.start)
        else:
            found.append(run)
    return found


def _goes_on(one: ProgramMove, then: ProgramMove) -> bool:
    a, b = one.move, then.move
    if isinstance(a, Rapid) and isinstance(b, Rapid):
        alike = True
    elif isinstance(a, Feed) and isinstance(b, Feed):
        alike = math.isclose(a.feed, b.feed, rel_tol=FEED_OFF) and a.per is b.per
    else:
        return False
    straight = math.dist(one.start, a.to) + math.dist(a.to, b.to) - math.dist(one.start, b.to) < ON_ONE_LINE
    return alike and straight


ON_ONE_LINE = 1e-4  # mm that a way may be longer than straight


def _spindles(path: Path) -> list[SpindleOn]:
    """How the spindle turns in each move of a path."""
    now, found = SpindleOn(0.0, 0.0), list[SpindleOn]()
    for step in unrolled(path):
        if isinstance(step, SpindleOn):
            now = step
        elif isinstance(step, Rapid | Feed | Arc | Helix | ThreadPass | Dwell):
            found.append(now)
    return found


def _differs(run: ProgramMove, move: Move, turns: SpindleOn) -> Iterator[Finding]:
    """One move against the planned one."""
    own, line = run.move, run.line
    if type(own) is not type(move):
        yield Finding(line, "motion", "stop", f"{_named(own)} where {_named(move)} is planned.")
        return
    if isinstance(own, Dwell) or isinstance(move, Dwell):
        return
    if (far := math.dist(own.to, move.to)) > NEAR:
        yield Finding(line, "place", "stop", f"ends {far:.3f} mm from where it is planned to.")
    if isinstance(own, Feed | Arc | Helix) and isinstance(move, Feed | Arc | Helix):
        if own.feed > 0.0 and not math.isclose(own.feed, move.feed, rel_tol=FEED_OFF, abs_tol=6e-4):
            yield Finding(line, "feed", "stop", f"feed {own.feed:g} where {move.feed:.4g} is planned.")
        per = move.per if isinstance(move, Feed | Arc) else Per.MINUTE
        if run.per is not per:
            yield Finding(line, "feed_mode", "stop", f"feed {run.per.value} where {per.value} is planned.")
    if isinstance(own, Helix) and isinstance(move, Helix):
        if own.clockwise is not move.clockwise:
            yield Finding(line, "sense", "stop", "the other way round than planned: it cuts against its feed.")
        if abs(own.turns - move.turns) > 0.01:
            yield Finding(line, "turns", "stop", f"{own.turns:.2f} of a turn where {move.turns:.2f} is planned.")
    if isinstance(own, Arc) and isinstance(move, Arc):
        if own.clockwise is not move.clockwise:
            yield Finding(line, "sense", "stop", "the other way round than planned.")
        if (beside := math.dist(own.centre, move.centre)) > NEAR:
            yield Finding(line, "place", "stop", f"its centre lies {beside:.3f} mm from the planned one.")
    if isinstance(own, ThreadPass) and isinstance(move, ThreadPass) and not math.isclose(own.lead, move.lead, rel_tol=1e-4, abs_tol=6e-5):
        yield Finding(line, "lead", "stop", f"lead {own.lead:g} mm where {move.lead:g} is planned.")
    if not isinstance(own, Rapid) and run.spindle.top > 0.0:
        yield from _turned(run, turns)


def _turned(run: ProgramMove, turns: SpindleOn) -> Iterator[Finding]:
    """The spindle against the planned one."""
    own = run.spindle
    if own.backwards is not turns.backwards:
        yield Finding(run.line, "spindle_sense", "stop", "the spindle turns the other way than planned.")
    planned = turns.cutting_speed > 0.0 and turns.low < turns.top
    if run.constant and not planned:
        yield Finding(run.line, "speed", "stop", "a constant cutting speed where a fixed spindle speed is planned.", "G97")
        return
    if own.cutting_speed > 0.0 and turns.cutting_speed > 0.0:
        if not math.isclose(own.cutting_speed, turns.cutting_speed, rel_tol=SPEED_OFF, abs_tol=0.6):
            yield Finding(run.line, "speed", "stop", f"{own.cutting_speed:.0f} m/min where {turns.cutting_speed:.0f} is planned.")
        if math.isfinite(own.top) and own.top > turns.top * (1.0 + SPEED_OFF) + 0.6:
            yield Finding(run.line, "clamp", "stop", f"highest speed {own.top:.0f} where {turns.top:.0f} is planned.")
    elif own.cutting_speed <= 0.0 and turns.top > 0.0 and not math.isclose(own.top, turns.at(0.0), rel_tol=SPEED_OFF, abs_tol=0.6):
        yield Finding(run.line, "speed", "stop", f"{own.top:.0f} rpm where {turns.at(0.0):.0f} is planned.")


def _named(move: Move) -> str:
    names = {
        Rapid: "a rapid way",
        Feed: "a straight cut",
        Arc: "an arc",
        Helix: "an arc",
        ThreadPass: "a pass of a thread",
        Dwell: "a standstill",
    }
    return names[type(move)]
