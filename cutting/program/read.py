"""A program as a control runs it: words to modes to moves, each with the line that it came from."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator
from dataclasses import dataclass, field

from cutting.motion.moves import Dwell, Feed, Helix, Per, Point, Rapid, SpindleOn, ThreadPass
from cutting.program.dialect import Dialect

INCH = 25.4
WORD = re.compile(r"([A-Z])\s*([+-]?(?:\d+\.?\d*|\.\d+))")
COMMENTS = re.compile(r"\([^)]*\)|;.*$")
GROUPS = {  # G words that exclude each other in a block (ISO 6983-1)
    "motion": ("G0", "G1", "G2", "G3", "G32", "G33"),
    "units": ("G20", "G21"),
    "speed": ("G96", "G97"),
    "distance": ("G90", "G91"),
    "plane": ("G17", "G18", "G19"),
}
AT_REST = ("G4", "G17", "G18", "G19", "G40", "G49", "G80")
M_WORDS = ("M0", "M1", "M2", "M3", "M4", "M5", "M6", "M8", "M9", "M30")
Move = Rapid | Feed | Helix | ThreadPass | Dwell


@dataclass(frozen=True)
class Word:
    """A word of a block: its letter, its number, and as it was written."""

    letter: str
    value: float
    text: str

    @property
    def name(self) -> str:
        return f"{self.letter}{self.value:g}"


@dataclass(frozen=True)
class ProgramMove:
    """A move as the control goes it: from line `line` (from 1), beginning at `start`, with the spindle as it then is."""

    line: int
    start: Point
    move: Move
    spindle: SpindleOn
    clamped: bool
    constant: bool  # at a constant cutting speed
    per: Per  # how its feed is meant


@dataclass(frozen=True)
class Fault:
    """What cannot be read: the line and why."""

    line: int
    name: str
    text: str


@dataclass
class Executed:
    """What a program does: its moves, what could not be read, and how it ends."""

    runs: list[ProgramMove] = field(default_factory=list)
    faults: list[Fault] = field(default_factory=list)
    switches: list[tuple[int, SpindleOn]] = field(default_factory=list)
    tools: list[tuple[int, str]] = field(default_factory=list)
    ended: int | None = None  # the line of its end
    turning: bool = False  # the spindle where it ends
    lines: int = 0


def words(line: str) -> tuple[list[Word], str]:
    """The words of a block without its comments, and what is no word."""
    bare = COMMENTS.sub(" ", line.upper())
    found = [Word(letter, float(number), number) for letter, number in WORD.findall(bare)]
    return found, WORD.sub(" ", bare).replace("%", " ").strip()


def execute(text: str, dialect: Dialect, start: Point = (0.0, 0.0, 0.0), zero: float = 0.0) -> Executed:
    """ProgramMove a program in a dialect from a place [mm], `zero` as in writing; what cannot be read is a fault."""
    return _Control(dialect, start, zero).run(text)


class _Control:
    """The modes of a control while it runs."""

    def __init__(self, dialect: Dialect, start: Point, zero: float) -> None:
        self.dialect, self.at, self.zero = dialect, start, zero
        self.scale, self.motion, self.absolute = 1.0, "", True
        self.per, self.feed = Per.MINUTE, 0.0
        self.constant, self.speed, self.clamp = False, 0.0, 0.0
        self.turns, self.backwards = False, False
        self.found = Executed()

    def run(self, text: str) -> Executed:
        for number, line in enumerate(text.splitlines(), 1):
            self.found.lines = number
            if self.found.ended is None:
                self._block(number, line)
        self.found.turning = self.turns
        return self.found

    def _fault(self, line: int, name: str, text: str) -> None:
        self.found.faults.append(Fault(line, name, text))

    def _block(self, number: int, line: str) -> None:
        block, rest = words(line)
        if rest:
            self._fault(number, "unread", f"'{rest[:20]}' is no word; the block is run without it.")
        names = [one.name for one in block]
        for group, members in GROUPS.items():
            if len({name for name in names if name in members}) > 1:
                self._fault(number, "two_of_a_group", f"two words of one group ({group}) in a block: the control takes the last, or stops.")
        given = {one.letter: one for one in block if one.letter not in "GM"}
        rests = "G4" in names
        for one in block:
            if one.letter == "G":
                self._g(number, one.name)
            elif one.letter == "T":
                self.found.tools.append((number, one.text))
        self._numbers(number, names, given, rests)
        for name in (one for one in names if one[0] == "M"):
            self._m(number, name)

    def _g(self, number: int, name: str) -> None:
        d = self.dialect
        if name in GROUPS["motion"]:
            self.motion = name
        elif name in ("G20", "G21"):
            self.scale = INCH if name == "G20" else 1.0
        elif name in ("G90", "G91"):
            self.absolute = name == "G90"
        elif name in (d.per_turn, d.per_minute):
            self.per = Per.TURN if name == d.per_turn else Per.MINUTE
        elif name in ("G96", "G97"):
            self.constant = name == "G96"
        elif name not in (*AT_REST, d.clamp):
            self._fault(number, "unknown_word", f"{name} is not known here: what it does was not checked.")

    def _m(self, number: int, name: str) -> None:
        if name in ("M3", "M4"):
            self.turns, self.backwards = True, name == "M4"
            self.found.switches.append((number, self._spindle()))
        elif name == "M5":
            self.turns = False
            self.found.switches.append((number, SpindleOn(0.0, 0.0)))
        elif name in ("M0", "M1"):
            self._go(number, Dwell())
        elif name in ("M2", "M30"):
            self.found.ended = number
        elif name not in M_WORDS:
            self._fault(number, "unknown_word", f"{name} is not known here: what it does was not checked.")

    def _numbers(self, number: int, names: list[str], given: dict[str, Word], rests: bool) -> None:
        """Speeds and feeds first, then the way."""
        d = self.dialect
        if "S" in given:
            if d.clamp in names:
                self.clamp = given["S"].value
            else:
                self.speed = given["S"].value * (12.0 * INCH / 1000.0 if self.constant and self.scale != 1.0 else 1.0)
            if self.turns and d.clamp not in names:
                self.found.switches.append((number, self._spindle()))
        if rests:
            said = given.get(d.dwell) or given.get("P") or given.get("X") or given.get("F")
            seconds = said.value / d.dwell_in if said else 0.0
            self._go(number, Dwell(seconds))
            return
        thread = self.motion == d.thread
        if "F" in given and not (thread and d.thread_lead == "F"):
            self.feed = given["F"].value * self.scale
        if not any(axis in given for axis in "XYZ"):
            return
        for axis in "XYZIJ":
            if axis in given and "." not in given[axis].text:
                self._fault(number, "no_point", f"{axis}{given[axis].text} has no decimal point: many controls read thousandths.")
        to = self._target(given)
        if thread:
            lead = given.get(d.thread_lead)
            if lead is None:
                self._fault(number, "no_lead", f"a thread without {d.thread_lead}: no lead.")
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
        found = []
        for k, axis in enumerate("XYZ"):
            if axis not in given:
                found.append(self.at[k])
                continue
            value = given[axis].value * self.scale
            if self.absolute:
                value = (value + (self.zero if k == 2 else 0.0)) / (2.0 if k == 0 and self.dialect.diameter else 1.0)
            else:
                value = self.at[k] + value / (2.0 if k == 0 and self.dialect.diameter else 1.0)
            found.append(value)
        return (found[0], found[1], found[2])

    def _arc(self, number: int, to: Point, given: dict[str, Word]) -> None:
        if "I" not in given and "J" not in given:
            self._fault(number, "no_centre", "an arc without I and J: its centre is not told.")
            return
        i, j = (given[word].value * self.scale if word in given else 0.0 for word in "IJ")
        centre = (self.at[0] + i, self.at[1] + j, 0.0)
        first, last = (math.hypot(place[0] - centre[0], place[1] - centre[1]) for place in (self.at, to))
        if abs(first - last) > 0.01:  # mm, as far as common controls let the two radii differ
            self._fault(number, "radii", f"the arc begins {first:.3f} mm from its centre and ends {last:.3f} mm from it.")
        clockwise = self.motion == "G2"
        begin, end = (math.atan2(place[1] - centre[1], place[0] - centre[0]) for place in (self.at, to))
        turned = (begin - end if clockwise else end - begin) % (2.0 * math.pi) / (2.0 * math.pi)
        if math.dist(self.at[:2], to[:2]) < self.dialect.fineness * self.scale:
            turned = 1.0
        self._go(number, Helix(to, centre, turned or 1.0, clockwise, self.feed))

    def _spindle(self) -> SpindleOn:
        if not self.turns:
            return SpindleOn(0.0, 0.0)
        if self.constant:
            return SpindleOn(0.0, self.clamp or math.inf, self.speed, 0.0, self.backwards)
        return SpindleOn(self.speed, self.speed, backwards=self.backwards)

    def _go(self, number: int, move: Move) -> None:
        self.found.runs.append(ProgramMove(number, self.at, move, self._spindle(), self.clamp > 0.0, self.constant, self.per))
        if not isinstance(move, Dwell):
            self.at = move.to


def moves_of(found: Executed) -> Iterator[tuple[int, Move]]:
    """The moves with their lines."""
    return ((run.line, run.move) for run in found.runs)
