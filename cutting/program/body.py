"""What a turning program does to its blank: metal by slices along the axis, a rapid move into it, feed in air, and the jaws."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cutting.motion.moves import Arc, Dwell, Feed, Helix, Per, Point, Rapid, ThreadPass
from cutting.program.finding import Finding
from cutting.program.read import ProgramMove

Array = NDArray[np.float64]
SLICES = 4000  # along the part: 0.05 mm of a part of 200 mm
INTO = 0.02  # mm below the skin from which a rapid move is in the metal: what rounding leaves open
AIR = 2.0  # s of feed that takes nothing, from which it is told (common practice)
CHORDS = 72  # of a full turn
FACED = 6.0  # mm of stock in front of the tip that a facing cut takes at the most (common practice)
CLOSE = 1.0  # mm from the metal: what is fed there comes up to it, or leaves a wall
HALF_LINE = 1e-6


@dataclass(frozen=True)
class Chucked:
    """What is in the chuck, in the program's own z [mm]: its diameter, its bore, where it begins (the jaws) and ends (its face).

    `steps` are stretches (from, to, diameter) that are thinner. `edge` is how far the tool's edge reaches to both sides of the point that
    is programmed: a blade's width.
    """

    diameter: float
    jaws: float
    face: float
    bore: float = 0.0
    edge: tuple[float, float] = (0.0, 0.0)
    grip: float = 0.0  # diameter in the jaws, 0: the bar's own
    steps: tuple[tuple[float, float, float], ...] = ()


class TurnedBody:
    """The part's metal in slices along its axis, as it is cut."""

    def __init__(self, bar: Chucked) -> None:
        self.bar = bar
        self.low, self.high = bar.jaws, bar.face
        self.step = max((self.high - self.low) / SLICES, 1e-6)
        self.outer: Array = np.full(SLICES, bar.diameter / 2.0)
        self.inner: Array = np.full(SLICES, bar.bore / 2.0)
        middle = self.low + (np.arange(SLICES) + 0.5) * self.step
        for start, end, diameter in bar.steps:
            self.outer[(middle >= start) & (middle <= end)] = diameter / 2.0

    def slices(self, z0: float, z1: float) -> slice:
        """The slices between two places."""
        first = math.floor((min(z0, z1) - self.low) / self.step)
        last = math.ceil((max(z0, z1) - self.low) / self.step)
        return slice(min(max(first, 0), SLICES), min(max(last, first + 1, 0), SLICES))

    def _along(self, at: Point, to: Point, cells: slice) -> Array:
        """The tip's radius over the slices that a straight way passes; over a plunge the deepest."""
        (x0, _, z0), (x1, _, z1) = at, to
        if abs(z1 - z0) < self.step:
            return np.full(cells.stop - cells.start, min(abs(x0), abs(x1)))
        middle = self.low + (np.arange(cells.start, cells.stop) + 0.5) * self.step
        share = np.clip((middle - z0) / (z1 - z0), 0.0, 1.0)
        return np.abs(x0 + share * (x1 - x0))

    def pierced(self, at: Point, to: Point) -> float:
        """How deep [mm] the tip goes below the skin on a straight way, 0 in air."""
        cells = self.slices(at[2], to[2])
        if cells.start >= cells.stop or min(abs(at[0]), abs(to[0])) >= float(self.outer[cells].max()) or self._beyond(at, to):
            return 0.0
        radius = self._along(at, to, cells)
        deep = np.minimum(self.outer[cells] - radius, radius - self.inner[cells])
        return max(float(deep.max()), 0.0)

    def _beyond(self, at: Point, to: Point) -> bool:
        return min(at[2], to[2]) >= self.high

    def cut(self, at: Point, to: Point) -> float:
        """Take away what the edge passes on a straight way; the area [mm²] in half section that went."""
        left, right = self.bar.edge
        if abs(to[2] - at[2]) < self.step and self._faced(at, to):  # the chip of a facing cut goes to the face
            right = SLICES * self.step
        cells = self.slices(min(at[2], to[2]) - left, max(at[2], to[2]) + right)
        if cells.start >= cells.stop or self._beyond((0.0, 0.0, at[2] - left), (0.0, 0.0, to[2] - left)):
            return 0.0
        radius = self._along(at, to, cells)
        outer, inner = self.outer[cells], self.inner[cells]
        before = float(np.maximum(outer - inner, 0.0).sum())
        # what is entered from inside grows the bore; else the outside shrinks
        if self._from_inside(at, to):
            np.maximum(inner, radius, out=inner)
        else:
            np.minimum(outer, radius, out=outer)
        return (before - float(np.maximum(outer - inner, 0.0).sum())) * self.step

    def _faced(self, at: Point, to: Point) -> bool:
        """Whether a way across is a facing cut: little metal stands in front of it."""
        front = self.slices(to[2], self.high)
        standing = int(np.count_nonzero(self.outer[front] > np.maximum(self.inner[front], min(abs(at[0]), abs(to[0])))))
        return standing * self.step <= FACED

    def _from_inside(self, at: Point, to: Point) -> bool:
        """Whether the tip works in a bore: it is nearer to the bore's wall than to the outside."""
        cells = self.slices(at[2], to[2])
        inner = float(self.inner[cells].max(initial=0.0))
        return inner > 0.0 and (abs(at[0]) + abs(to[0])) / 2.0 < (inner + float(self.outer[cells].max(initial=0.0))) / 2.0

    def near(self, at: Point, to: Point) -> bool:
        """Whether the middle of a way lies at the metal."""
        z, radius = (at[2] + to[2]) / 2.0, (abs(at[0]) + abs(to[0])) / 2.0
        if z > self.high + CLOSE:
            return False
        cells = self.slices(z - CLOSE, z + CLOSE)
        return bool(((self.outer[cells] + CLOSE >= radius) & (self.inner[cells] - CLOSE <= radius)).any())

    def profile(self, most: int = 400) -> tuple[tuple[float, float, float], ...]:
        """What is left: place, outer and inner radius [mm], thinned to `most`."""
        every = max(SLICES // most, 1)
        places = self.low + (np.arange(SLICES) + 0.5) * self.step
        return tuple(
            (float(z), float(o), float(i)) for z, o, i in zip(places[::every], self.outer[::every], self.inner[::every], strict=True)
        )


def straight(at: Point, move: Feed | Arc | Helix | ThreadPass | Rapid) -> Iterator[Point]:
    """The places that a move passes after where it begins: its end, or chords of an arc."""
    if isinstance(move, Helix):
        yield from _round(at, move.to, move.centre, 0, 1, move.clockwise, move.turns)
    elif isinstance(move, Arc):
        a, b = 0, int(move.plane)
        begin, end = (math.atan2(place[b] - move.centre[b], place[a] - move.centre[a]) for place in (at, move.to))
        turned = (begin - end if move.clockwise else end - begin) % (2.0 * math.pi) / (2.0 * math.pi)
        yield from _round(at, move.to, move.centre, a, b, move.clockwise, turned or 1.0)
    else:
        yield move.to


def _round(at: Point, to: Point, centre: Point, a: int, b: int, clockwise: bool, turns: float) -> Iterator[Point]:
    radius, start = math.hypot(at[a] - centre[a], at[b] - centre[b]), math.atan2(at[b] - centre[b], at[a] - centre[a])
    steps = max(int(CHORDS * turns), 2)
    other = 3 - a - b
    for k in range(1, steps):
        share = k / steps
        angle = start + (-1.0 if clockwise else 1.0) * 2.0 * math.pi * turns * share
        place = [0.0, 0.0, 0.0]
        place[a], place[b] = centre[a] + radius * math.cos(angle), centre[b] + radius * math.sin(angle)
        place[other] = at[other] + share * (to[other] - at[other])
        yield (place[0], place[1], place[2])
    yield to


def findings_of(runs: list[ProgramMove], bar: Chucked, air: bool) -> tuple[list[Finding], TurnedBody]:
    """What a turning program does to its bar: rapid into metal, into the jaws, and where `air` is told feed that takes nothing."""
    body, found, told = TurnedBody(bar), list[Finding](), set[str]()

    def tell(line: int, rule: str, severity: str, text: str, remedy: str) -> None:
        if rule not in told or rule == "air":  # the first says it; what follows is its consequence
            told.add(rule)
            found.append(Finding(line, rule, severity, text, remedy))

    grip = (bar.grip or bar.diameter) / 2.0
    for run in runs:
        move = run.move
        if isinstance(move, Dwell):
            continue
        at, seconds, gone = run.start, 0.0, 0.0
        for to in straight(at, move):
            if min(at[2], to[2]) < bar.jaws - HALF_LINE and bar.bore / 2.0 < min(abs(at[0]), abs(to[0])) < grip + INTO:
                tell(run.line, "jaws", "stop", f"the tip is {bar.jaws - min(at[2], to[2]):.2f} mm behind the jaws' face.", "stay in front")
            if isinstance(move, Rapid):
                if (deep := body.pierced(at, to)) > INTO:
                    tell(run.line, "rapid_metal", "stop", f"a rapid move goes {deep:.2f} mm into the metal.", "G1 with a feed, or go clear")
            else:
                gone += body.cut(at, to)
                seconds += _seconds(at, to, move, run)
            at = to
        if air and isinstance(move, Feed | Arc) and gone <= 0.0 and seconds > AIR and not body.near(run.start, move.to):
            tell(run.line, "air", "look", f"{seconds:.1f} s of feed that takes nothing.", "G0 up to the metal")
    return found, body


def _seconds(at: Point, to: Point, move: Feed | Arc | Helix | ThreadPass, run: ProgramMove) -> float:
    """Seconds of a straight piece of a move, about."""
    long = math.dist(at, to)
    if isinstance(move, ThreadPass):
        rate = move.lead * run.spindle.at(2.0 * abs(to[0]))
    elif isinstance(move, Helix) or move.per is Per.MINUTE:
        rate = move.feed
    else:
        rate = move.feed * run.spindle.at(2.0 * abs(to[0])) if run.spindle.top > 0 and math.isfinite(run.spindle.top) else 0.0
    return 60.0 * long / rate if rate > 0.0 else 0.0
