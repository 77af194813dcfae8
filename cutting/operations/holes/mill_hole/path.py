"""How a mill makes a hole: down a helix or straight, round its floor, and once more along the wall."""

from __future__ import annotations

import math

import numpy as np

from cutting.motion.moves import CuttingOutline, Frame, Path, Per, SpindleOn
from cutting.motion.places import places
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.holes.mill_hole.numbers import APPROACH, BELOW, LAST_TURNS, Numbers, roughed
from cutting.operations.holes.mill_hole.setup import Descent, Sense
from cutting.workpiece.solid import Solid

BEYOND = 1000.0  # mm: what is above the end in its hole has gone
TIP = "middle of the mill's end"


def path(x: Numbers, before: Solid | None = None) -> Path:
    """The path of a set-up's holes; z from the entry."""
    setup, f = x.setup, x.setup.feature
    n = _one(x.spindle_speed)
    spindle = SpindleOn(n, n, seconds=setup.machine.start_time)
    at = places(f.circle, f.count)
    trace = PathMaker(setup.machine, Frame.HOLE, TIP, (*at[0], APPROACH + CLEAR), setup.mill.name, setup.settings.coolant, spindle)
    for px, py in at:
        trace.rapid(px, py, APPROACH + CLEAR)
        if setup.settings.path is Descent.PLUNGE:
            trace.rapid(px, py, APPROACH)
            trace.feed(px, py, -_deep(x), _one(x.feed_rate), Per.MINUTE)
        else:
            _round_and_down(trace, x, px, py)
        trace.rapid(px, py, APPROACH + CLEAR)
    radius = setup.mill.diameter / 2.0
    return trace.done(CuttingOutline(((0.0, 0.0), (radius, 0.0), (radius, BEYOND), (0.0, BEYOND))))


def _round_and_down(trace: PathMaker, x: Numbers, px: float, py: float) -> None:
    """The helix, a turn on the floor of a blind hole, and the last turn where one is planned."""
    setup, d = x.setup, x.setup.mill.diameter
    clockwise = setup.settings.sense is not Sense.CLIMB  # inside, a right-cutting mill climbs counter-clockwise
    radius, feed, pitch = (roughed(setup) - d) / 2.0, _one(x.centre_rate), _one(x.pitch)
    deep, blind = _deep(x), not setup.feature.through
    middle = (px, py, 0.0)
    trace.rapid(px + radius, py, APPROACH)
    run_in = APPROACH / pitch
    _helix(trace, middle, radius, -deep, run_in + deep / pitch, clockwise, feed)
    if blind:
        _helix(trace, middle, radius, -deep, 1.0, clockwise, feed)
    if setup.settings.finish > 0:
        size = setup.feature.diameter.nominal
        wall, rate = (size - d) / 2.0 + setup.settings.offset, _one(x.feed_rate) * (size - d) / size
        levels = max(1, math.ceil(setup.depth / setup.mill.cutting_length - 1e-9))
        for level in range(levels):
            z = -(setup.depth if blind else deep) * (level + 1) / levels
            trace.rapid(*trace.at[:2], z)
            trace.feed(px + wall, py, z, rate, Per.MINUTE)
            _helix(trace, middle, wall, z, LAST_TURNS, clockwise, rate)
    trace.feed(px, py, trace.at[2], 4.0 * feed, Per.MINUTE)


def _helix(
    trace: PathMaker, middle: tuple[float, float, float], radius: float, z: float, turns: float, clockwise: bool, feed: float
) -> None:
    """Round a middle by so many turns, from where the tool is on its circle."""
    px, py, _ = middle
    begin = math.atan2(trace.at[1] - py, trace.at[0] - px)
    end = begin + 2.0 * math.pi * turns * (-1.0 if clockwise else 1.0)
    trace.helix(px + radius * math.cos(end), py + radius * math.sin(end), z, middle, turns, clockwise, feed)


def _deep(x: Numbers) -> float:
    setup = x.setup
    return setup.depth + (BELOW + setup.mill.corner if setup.feature.through else 0.0)


def _one(value: object) -> float:
    return float(np.ravel(value)[-1])  # type: ignore[call-overload]
