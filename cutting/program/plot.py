"""What the text of a program does, as lines to be drawn, and how long that takes."""

from __future__ import annotations

from dataclasses import dataclass
from enum import IntEnum

from cutting.machine.machines import Machine
from cutting.motion.clock import clock
from cutting.motion.moves import CuttingOutline, Dwell, Frame, Path, Point, Rapid, SpindleOn, Step, ThreadPass
from cutting.program.body import straight
from cutting.program.read import Executed

MOST_PLACES = 30_000  # that are drawn
NO_TIME = 1e-9  # mm/rev or mm/min: what is fed without a feed takes for ever


class Drawn(IntEnum):
    """How a line is drawn."""

    RAPID = 0
    FEED = 1
    THREAD = 2


@dataclass(frozen=True)
class Plot:
    """Places in order, each with the line of the program and how the way to it is drawn; `whole` unless there were too many."""

    lines: tuple[int, ...]
    drawn: tuple[Drawn, ...]
    places: tuple[Point, ...]
    whole: bool


def plot(found: Executed) -> Plot:
    """The ways of a program: arcs as chords."""
    lines, drawn, places = list[int](), list[Drawn](), list[Point]()
    for run in found.runs:
        if isinstance(run.move, Dwell):
            continue
        if len(places) >= MOST_PLACES:
            return Plot(tuple(lines), tuple(drawn), tuple(places), False)
        how = Drawn.RAPID if isinstance(run.move, Rapid) else Drawn.THREAD if isinstance(run.move, ThreadPass) else Drawn.FEED
        if not places or places[-1] != run.start:  # where it begins, or after the machine's reference
            lines.append(run.line)
            drawn.append(Drawn.RAPID)
            places.append(run.start)
        for place in straight(run.start, run.move):
            lines.append(run.line)
            drawn.append(how)
            places.append(place)
    return Plot(tuple(lines), tuple(drawn), tuple(places), True)


def seconds_of(found: Executed, turned: bool, machine: Machine) -> float | None:
    """Seconds of a program on a machine, its tool changes left out; None where something is fed without a feed or a turning spindle."""
    steps, spindle = list[Step](), SpindleOn(0.0, 0.0)
    for run in found.runs:
        if run.spindle != spindle:
            spindle = run.spindle
            steps.append(_held(spindle, machine))
        move = run.move
        fed = getattr(move, "feed", getattr(move, "lead", 1.0))
        if fed <= NO_TIME or (spindle.top <= 0.0 and not isinstance(move, Rapid | Dwell)):
            return None
        steps.append(move)
    start = found.runs[0].start if found.runs else (0.0, 0.0, 0.0)
    return clock(Path(Frame.TURNED if turned else Frame.HOLE, "", start, tuple(steps), CuttingOutline(())), machine).total


def _held(spindle: SpindleOn, machine: Machine) -> SpindleOn:
    """A spindle as the machine turns it: never faster than it can."""
    top = min(spindle.top, machine.top_speed)
    return SpindleOn(min(spindle.low, top), top, spindle.cutting_speed, 0.0, spindle.backwards)
