"""Seconds of a path: at feed, in rapid with the slides' acceleration, standing, and for what is switched."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.machine.machines import Machine
from cutting.mechanics.kinematics import facing_time
from cutting.motion.moves import Arc, Dwell, Feed, Frame, Helix, Path, Per, Point, Rapid, SpindleOn, ThreadPass, ToolChange
from cutting.motion.trace import HOME

Array = NDArray[np.float64]
CENTRE = 1e-6  # mm, the least diameter at which a speed is told


def rapid_seconds(distance: ArrayLike, machine: Machine) -> Array:
    """Seconds of a rapid way [mm] of the axis that goes furthest: up to the rapid rate and down again at the slides' acceleration.

    t = s/v + v/a where the rate is reached, 2·√(s/a) where it is not. Source: a trapezoid of speed over time; a from the machine.

    >>> from cutting.machine.machines import find_machine
    >>> lathe = find_machine("two-axis lathe")  # 20 m/min, 4 m/s²
    >>> rapid_seconds([0.0, 1.0, 300.0], lathe).round(3).tolist()
    [0.0, 0.032, 0.983]
    """
    s = np.asarray(distance, float)
    v, a = machine.rapid_rate / 60.0, 1000.0 * machine.acceleration
    return np.where(s >= v * v / a, s / v + v / a, 2.0 * np.sqrt(s / a))


def around_seconds(machine: Machine, tools: int = 1) -> float:
    """Seconds around a cut: tools come into work and go, the spindle starts."""
    return float(tools * (machine.index_time + machine.start_time + 2.0 * rapid_seconds(HOME, machine)))


@dataclass(frozen=True)
class Times:
    """Seconds of a path by what takes them; `moves` of each of its steps, in their order."""

    engaged: float  # at feed
    rapid: float
    dwell: float
    switched: float
    moves: tuple[float, ...]

    @property
    def idle(self) -> float:
        """All that is not at feed or standing in the cut."""
        return self.rapid + self.switched

    @property
    def total(self) -> float:
        return self.engaged + self.rapid + self.dwell + self.switched


def clock(path: Path, machine: Machine) -> Times:
    """The seconds of a path on a machine. Raises nothing; a path that feeds before its spindle turns takes for ever."""
    sums, each = {"engaged": 0.0, "rapid": 0.0, "dwell": 0.0, "switched": 0.0}, []
    for what, seconds in _timed(path, machine):
        sums[what] += seconds
        each.append(seconds)
    return Times(**sums, moves=tuple(each))


def _timed(path: Path, machine: Machine) -> Iterator[tuple[str, float]]:
    at, spindle = path.start, SpindleOn(0.0, 0.0)
    for step in path.steps:
        match step:
            case Rapid(to):
                yield "rapid", float(rapid_seconds(max(abs(b - a) for a, b in zip(at, to, strict=True)), machine))
                at = to
            case Dwell(seconds, turns):
                yield "dwell", seconds + (60.0 * turns / _turning(path, spindle, at) if turns else 0.0)
            case SpindleOn():
                yield "switched", step.seconds
                spindle = step
            case ToolChange(_, seconds):
                yield "switched", seconds
            case Feed() | Arc() | Helix() | ThreadPass():
                yield "engaged", _at_feed(path, spindle, at, step)
                at = step.to
            case _:
                yield "switched", 0.0


def _turning(path: Path, spindle: SpindleOn, at: Point) -> float:
    return spindle.at(2.0 * abs(at[0]) if path.frame is Frame.TURNED else 0.0)


def _at_feed(path: Path, spindle: SpindleOn, at: Point, move: Feed | Arc | Helix | ThreadPass) -> float:
    long = way_of(at, move)
    if isinstance(move, Helix) or (isinstance(move, (Feed, Arc)) and move.per is Per.MINUTE):
        return 60.0 * long / move.feed
    feed = move.lead if isinstance(move, ThreadPass) else move.feed
    across = abs(move.to[0] - at[0])
    if path.frame is Frame.TURNED and spindle.cutting_speed > 0 and spindle.low < spindle.top and across > 0:
        large, small = (2.0 * one for one in sorted((abs(at[0]), abs(move.to[0])), reverse=True))
        radial = float(facing_time(large, max(small, CENTRE), spindle.cutting_speed, feed, spindle.top, spindle.low))
        return radial * long / across  # a leaning way crosses the same diameters more slowly
    return 60.0 * long / (feed * _turning(path, spindle, at if abs(at[0]) > abs(move.to[0]) else move.to))


def way_of(at: Point, move: Feed | Arc | Helix | ThreadPass) -> float:
    """Length [mm] of a move from a place."""
    if isinstance(move, Arc):
        return _arc_length(at, move)
    if isinstance(move, Helix):
        radius = math.hypot(at[0] - move.centre[0], at[1] - move.centre[1])
        return math.hypot(2.0 * math.pi * radius * move.turns, move.to[2] - at[2])
    return math.dist(at, move.to)


def _arc_length(at: Point, move: Arc) -> float:
    across = move.plane
    radius = math.hypot(at[0] - move.centre[0], at[across] - move.centre[across])
    begin = math.atan2(at[across] - move.centre[across], at[0] - move.centre[0])
    end = math.atan2(move.to[across] - move.centre[across], move.to[0] - move.centre[0])
    turned = (begin - end if move.clockwise else end - begin) % (2.0 * math.pi)
    return radius * (turned or 2.0 * math.pi)
