"""A program as a control runs it: words to modes to moves, each with the line that it came from."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator
from dataclasses import dataclass, field

from cutting.motion.moves import Arc, Dwell, Feed, Helix, Per, Point, Rapid, SpindleOn, ThreadPass
from cutting.program.arcs import DIFFERS, Round, by_centre, by_radius, plane_of
from cutting.program.cycles import CYCLES, HoleCycle, moves_of
from cutting.program.dialect import Dialect
from cutting.program.words import Word, is_macro, words

INCH = 25.4
GROUPS = {  # G words that exclude each other in a block (ISO 6983-1)
    "motion": ("G0", "G1", "G2", "G3", "G32", "G33", "G80", *CYCLES),
    "units": ("G20", "G21"),
    "speed": ("G96", "G97"),
    "distance": ("G90", "G91"),
    "plane": ("G17", "G18", "G19"),
}
GROUP_OF = {name: group for group, members in GROUPS.items() for name in members}
COMPENSATION = ("G40", "G41", "G42")
OFFSETS = tuple(f"G{k}" for k in range(54, 60))
AT_REST = ("G4", "G43", "G44", "G49", "G61", "G64", *OFFSETS)
TO_REFERENCE = ("G28", "G30", "G53")
M_WORDS = ("M6", "M19", "M29")
COOLANT = ("M7", "M8")
DEEPEST, MOST_BLOCKS = 8, 500_000  # calls within calls; and blocks that are run before a program is told to be endless
CALLED = re.compile(r"^\s*O(\d+)", re.IGNORECASE)
Move = Rapid | Feed | Arc | Helix | ThreadPass | Dwell


@dataclass(frozen=True, slots=True)
class ProgramMove:
    """A move as the control goes it: from line `line` (from 1), beginning at `start`, with the spindle as it then is."""

    line: int
    start: Point
    move: Move
    spindle: SpindleOn
    clamped: bool
    constant: bool  # at a constant cutting speed
    per: Per  # how its feed is meant


@dataclass(frozen=True, slots=True)
class Fault:
    """What cannot be read: the line, its rule, why."""

    line: int
    name: str
    text: str


@dataclass
class Executed:
    """What a program does: its moves, what could not be read, and how it ends."""

    runs: list[ProgramMove] = field(default_factory=list)
    faults: list[Fault] = field(default_factory=list)
    switches: list[tuple[int, SpindleOn]] = field(default_factory=list)
    tools: list[tuple[int, str, Point, bool]] = field(default_factory=list)  # line, number, where it stood, cutter compensation on
    ended: int | None = None  # the line of its end
    turning: bool = False  # the spindle where it ends
    wet: bool = False  # coolant where it ends
    compensated: int = 0  # the line that put cutter compensation on where it is still on at the end, 0 for none
    cycles: bool = False  # whether moves come from fixed cycles
    lines: int = 0


def execute(text: str, dialect: Dialect, start: Point = (0.0, 0.0, 0.0), zero: float = 0.0) -> Executed:
    """Run a program in a dialect from a place [mm], `zero` as in writing; what cannot be read is a fault."""
    return _Control(dialect, start, zero).run(text)


class _Control:
    """The modes of a control while it runs."""

    def __init__(self, dialect: Dialect, start: Point, zero: float) -> None:
        self.dialect, self.at, self.zero = dialect, start, zero
        self.scale, self.motion, self.absolute = 1.0, "", True
        self.plane = "G18" if dialect.turns else "G17"
        self.per, self.feed = Per.MINUTE, 0.0
        self.constant, self.speed, self.clamp = False, 0.0, 0.0
        self.turns, self.backwards = False, False
        self.lost = False  # at the machine's reference: where that is nobody knows here
        self.high, self.to_high = start[2], True
        self.cycle: dict[str, float] = {}
        self.found = Executed()
        self._spindle_now: SpindleOn | None = None

    def run(self, text: str) -> Executed:
        lines = text.splitlines()
        self.found.lines = len(lines)
        calls = {int(match[1]): k for k, line in enumerate(lines) if (match := CALLED.match(line))}
        stack: list[tuple[int, int, int]] = []  # where to go on, where the called one begins, how often more
        here, done = 0, 0
        while here < len(lines) and self.found.ended is None:
            done += 1
            if done > MOST_BLOCKS:
                self._fault(here + 1, "endless", "it does not come to an end: nothing after this was looked at.")
                break
            called = self._block(here + 1, lines[here])
            here += 1
            if called == "M99":
                if not stack:
                    self._fault(here, "repeats", "it begins again by itself (M99): one turn was looked at.")
                    self.found.ended = here
                    break
                back, begins, more = stack.pop()
                if more:
                    stack.append((back, begins, more - 1))
                    here = begins
                else:
                    here = back
            elif isinstance(called, tuple):
                number, times = called
                if number not in calls:
                    self._fault(here, "no_subprogram", f"subprogram {number} is not here: what it does was not checked.")
                elif len(stack) >= DEEPEST:
                    self._fault(here, "too_deep", f"more than {DEEPEST} subprograms within each other: the control stops.")
                    break
                else:
                    stack.append((here, calls[number] + 1, times - 1))
                    here = calls[number] + 1
        self.found.turning = self.turns
        return self.found

    def _fault(self, line: int, name: str, text: str) -> None:
        self.found.faults.append(Fault(line, name, text))

    def _block(self, number: int, line: str) -> str | tuple[int, int] | None:
        """Run a block; a call of a subprogram with its number and how often, or M99."""
        block, rest = words(line)
        if rest:
            if is_macro(line):
                self._fault(number, "macro", "variables and jumps are not followed: what they do was not checked.")
                return None
            self._fault(number, "unread", f"'{rest[:20]}' is no word; the block is run without it.")
        if not block or (block[0].letter == "O" and len(block) == 1):
            return None
        given: dict[str, Word] = {}
        g_words, m_words = [], []
        for one in block:
            if one.letter == "G":
                g_words.append(one.name)
            elif one.letter == "M":
                m_words.append(one.name)
            else:
                given[one.letter] = one
        if len(g_words) > 1:
            self._exclusive(number, g_words)
        away = False
        for name in g_words:
            away = away or name in TO_REFERENCE
            self._g(number, name, given)
        if "T" in given:
            self.found.tools.append((number, given["T"].text, self.at, bool(self.found.compensated)))
        if away:
            self.lost = True
        else:
            self._numbers(number, g_words, given)
        return self._m_words(number, m_words, given)

    def _exclusive(self, number: int, names: list[str]) -> None:
        seen: dict[str, str] = {}
        for name in names:
            group = GROUP_OF.get(name)
            if group and seen.setdefault(group, name) != name:
                self._fault(number, "two_of_a_group", f"two words of one group ({group}) in a block: the control takes the last, or stops.")

    def _g(self, number: int, name: str, given: dict[str, Word]) -> None:
        d = self.dialect
        if name in (d.per_turn, d.per_minute):
            self.per = Per.TURN if name == d.per_turn else Per.MINUTE
        elif name in GROUPS["motion"]:
            if name in CYCLES and self.motion not in CYCLES:
                self.high, self.cycle = self.at[2], {}
            self.motion = "" if name == "G80" else name
        elif name in ("G20", "G21"):
            self.scale = INCH if name == "G20" else 1.0
        elif name in ("G90", "G91"):
            self.absolute = name == "G90"
        elif name in GROUPS["plane"]:
            self.plane = name
        elif name in ("G96", "G97"):
            self.constant, self._spindle_now = name == "G96", None
        elif name in ("G98", "G99"):
            self.to_high = name == "G98"
        elif name in COMPENSATION:
            self.found.compensated = 0 if name == "G40" else number
        elif name == d.clamp:
            if "S" not in given:
                self._fault(number, "shifted", f"{name} shifts the zero: that is not followed.")
        elif name not in AT_REST and name not in TO_REFERENCE:
            self._fault(number, "unknown_word", f"{name} is not known here: what it does was not checked.")

    def _m_words(self, number: int, names: list[str], given: dict[str, Word]) -> str | tuple[int, int] | None:
        called: str | tuple[int, int] | None = None
        for name in names:
            if name in ("M3", "M4"):
                self.turns, self.backwards, self._spindle_now = True, name == "M4", None
                self.found.switches.append((number, self._spindle()))
            elif name == "M5":
                self.turns, self._spindle_now = False, None
                self.found.switches.append((number, SpindleOn(0.0, 0.0)))
            elif name in ("M0", "M1"):
                self._go(number, Dwell())
            elif name in ("M2", "M30"):
                self.found.ended = number
            elif name in COOLANT or name == "M9":
                self.found.wet = name != "M9"
            elif name == "M98":
                if "P" not in given:
                    self._fault(number, "no_subprogram", "M98 without P: nothing says which subprogram.")
                else:
                    called = (int(given["P"].value), max(int(given["L"].value), 1) if "L" in given else 1)
            elif name == "M99":
                called = "M99"
            elif name not in M_WORDS:
                self._fault(number, "unknown_word", f"{name} is not known here: what it does was not checked.")
        return called

    def _numbers(self, number: int, names: list[str], given: dict[str, Word]) -> None:
        """Speeds and feeds first, then the way."""
        d = self.dialect
        if "S" in given:
            self._spindle_now = None
            if d.clamp in names:
                self.clamp = given["S"].value
            else:
                self.speed = given["S"].value * (12.0 * INCH / 1000.0 if self.constant and self.scale != 1.0 else 1.0)
                if self.turns:
                    self.found.switches.append((number, self._spindle()))
        if "G4" in names:
            said = given.get(d.dwell) or given.get("P") or given.get("X") or given.get("F")
            self._go(number, Dwell(said.value / d.dwell_in if said else 0.0))
            return
        thread = self.motion == d.thread
        if "F" in given and not (thread and d.thread_lead == "F"):
            self.feed = given["F"].value * self.scale
        axes = "XYZUW" if d.turns else "XYZ"
        for axis in "ABC":
            if axis in given:
                self._fault(number, "rotary", f"{axis} turns an axis: that is not followed.")
        if not any(axis in given for axis in axes) or (d.clamp in names and "S" not in given):
            return
        for axis in "XYZUWIJKR":
            if axis in given and "." not in given[axis].text and given[axis].value != 0.0:
                self._fault(number, "no_point", f"{axis}{given[axis].text} has no decimal point: many controls read thousandths.")
        if self.motion in CYCLES:
            self._holes(number, given)
            return
        self._along(number, self._target(given), given, thread)

    def _along(self, number: int, to: Point, given: dict[str, Word], thread: bool) -> None:
        if thread:
            lead = given.get(self.dialect.thread_lead)
            if lead is None:
                self._fault(number, "no_lead", f"a thread without {self.dialect.thread_lead}: no lead.")
            self._go(number, ThreadPass(to, lead.value * self.scale if lead else 0.0))
        elif self.motion == "G0":
            self._go(number, Rapid(to))
        elif self.motion == "G1":
            self._go(number, Feed(to, self.feed, self.per))
        elif self.motion in ("G2", "G3"):
            self._arc(number, to, given)
        else:
            self._fault(number, "no_motion", "axes without a word of motion: nothing says how they go.")

    def _target(self, given: dict[str, Word]) -> Point:
        """Where the axes go: absolute, by G91 or by U and W on from where they are; X may be a diameter."""
        wide = 2.0 if self.dialect.diameter else 1.0
        found = list(self.at)
        for k, axis, by in ((0, "X", "U"), (1, "Y", ""), (2, "Z", "W")):
            half = wide if k == 0 else 1.0
            if axis in given:
                value = given[axis].value * self.scale / half
                found[k] = value + (self.zero if k == 2 else 0.0) if self.absolute else self.at[k] + value
            elif by and by in given and self.dialect.turns:
                found[k] = self.at[k] + given[by].value * self.scale / half
        return (found[0], found[1], found[2])

    def _arc(self, number: int, to: Point, given: dict[str, Word]) -> None:
        clockwise = self.motion == "G2"
        made: Round | None
        if any(word in given for word in "IJK"):
            i, j, k = (given[word].value * self.scale if word in given else 0.0 for word in "IJK")
            made = by_centre(self.at, to, (i, j, k), self.plane, clockwise, self.dialect.fineness * self.scale)
        elif "R" in given:
            made = by_radius(self.at, to, given["R"].value * self.scale, self.plane, clockwise)
            if made is None:
                self._fault(number, "radius_short", f"a radius of {given['R'].text} does not reach from where it is to there.")
                return
        else:
            self._fault(number, "no_centre", "an arc without I, J, K or R: its centre is not told.")
            return
        if made.off > DIFFERS:
            first, last = made.radii
            self._fault(number, "radii", f"the arc begins {first:.3f} mm from its centre and ends {last:.3f} mm from it.")
        if self.plane == "G17":
            self._go(number, Helix(to, (made.centre[0], made.centre[1], 0.0), made.turns, clockwise, self.feed))
        else:  # the path counts from x to z, the control from z to x
            self._go(number, Arc(to, made.centre, not clockwise, self.feed, self.per, plane_of(self.plane)))

    def _holes(self, number: int, given: dict[str, Word]) -> None:
        """A fixed cycle at a place; R, Z, Q and P stay until it ends."""
        for letter in "RZQP":
            if letter in given:
                self.cycle[letter] = given[letter].value * (1.0 if letter == "P" else self.scale)
        if "Z" not in self.cycle or "R" not in self.cycle:
            self._fault(number, "cycle", f"{self.motion} without {'Z' if 'Z' not in self.cycle else 'R'}: it does nothing.")
            return
        clear = self.cycle["R"] + self.zero if self.absolute else self.at[2] + self.cycle["R"]
        bottom = self.cycle["Z"] + self.zero if self.absolute else clear + self.cycle["Z"]
        x, y, _ = self._target({letter: word for letter, word in given.items() if letter != "Z"})
        back = self.high if self.to_high and not self.dialect.turns else clear
        made = HoleCycle(
            self.motion, clear, bottom, self.feed, self.per, self.cycle.get("Q", 0.0), self.cycle.get("P", 0.0) / 1000.0, max(back, clear)
        )
        self.found.cycles = True
        if self.motion in ("G73", "G83") and made.peck <= 0.0:
            self._fault(number, "cycle", f"{self.motion} without Q: it goes down in one.")
        for step in moves_of(made, self.at, x, y, self._spindle()):
            if isinstance(step, SpindleOn):
                self.backwards, self._spindle_now = step.backwards, None
            else:
                self._go(number, step)

    def _spindle(self) -> SpindleOn:
        if self._spindle_now is None:
            if not self.turns:
                self._spindle_now = SpindleOn(0.0, 0.0)
            elif self.constant:
                self._spindle_now = SpindleOn(0.0, self.clamp or math.inf, self.speed, 0.0, self.backwards)
            else:
                self._spindle_now = SpindleOn(self.speed, self.speed, backwards=self.backwards)
        return self._spindle_now

    def _go(self, number: int, move: Move) -> None:
        still = isinstance(move, Dwell)
        start = move.to if self.lost and not isinstance(move, Dwell) else self.at
        self.lost = self.lost and still
        self.found.runs.append(ProgramMove(number, start, move, self._spindle(), self.clamp > 0.0, self.constant, self.per))
        if not isinstance(move, Dwell):
            self.at = move.to


def lines_and_moves(found: Executed) -> Iterator[tuple[int, Move]]:
    """The moves with their lines."""
    return ((run.line, run.move) for run in found.runs)
