"""How a thread mill goes: in on an arc, round at the lead, out on an arc; pass by pass, hole by hole."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from cutting.motion.moves import Frame, Path, Per, SpindleOn
from cutting.motion.places import places
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.threads.mill_thread.numbers import DRILL_FEED, RETRACT, Numbers
from cutting.operations.threads.shared.sense import Goes, PathSense
from cutting.operations.threads.shared.tooth import tooth
from cutting.workpiece.solid import Solid

TIP = "middle of the mill, at its lowest tooth"


def path(x: Numbers, before: Solid | None = None) -> Path:
    """The path of a set-up's threads; z from the mouth."""
    setup, f, n = x.setup, x.setup.feature, _one(x.spindle_speed)
    spindle = SpindleOn(n, n, seconds=setup.machine.start_time)
    at = places(f.circle, f.count)
    trace = PathMaker(setup.machine, Frame.HOLE, TIP, (*at[0], RETRACT), setup.mill.name, setup.settings.coolant, spindle)
    for px, py in at:
        trace.rapid(px, py, RETRACT)
        if _one(x.opening_time) > 0:
            trace.feed(px, py, -(f.length + 3.0 * f.thread.pitch), DRILL_FEED * setup.mill.diameter * n, Per.MINUTE)
        for run in range(int(setup.settings.passes + setup.settings.repeats)):
            _one_run(trace, x, px, py, run)
        trace.rapid(px, py, RETRACT + CLEAR)
    many = setup.mill.type.rows == "many"
    rows = round(min(f.length / f.thread.pitch, setup.mill.teeth)) if many else 1
    edge = tooth(f.thread, True, True, setup.mill.diameter / 2.0)
    return trace.done(replace(edge, rows=rows, apart=f.thread.pitch))


def _one_run(trace: PathMaker, x: Numbers, px: float, py: float, run: int) -> None:
    """Once round at its depth, stretch by stretch: from the middle out on an arc, the helix, and back to the middle."""
    setup, t, s = x.setup, x.setup.feature.thread, x.setup.settings
    clockwise, feed = setup.path is PathSense.CLOCKWISE, _one(x.centre_rate)
    radius = (_one(x.path_radius) + _one(x.offset_wanted if s.offset is None else s.offset)) * min((run + 1) / s.passes, 1.0)
    rise = t.lead if setup.goes is Goes.UP else -t.lead  # a turn
    turns, length = _one(x.turns), setup.feature.length
    stretches = round(turns) if setup.mill.type.rows == "many" else 1
    covered, each = setup.mill.teeth * t.pitch, turns / stretches
    arc = s.arc / 360.0 * rise / 2.0  # that the way in and out goes along the axis
    for k in range(stretches):
        low = -length + k * covered  # where the lowest tooth begins or ends
        start = low if rise > 0 else (0.0 if stretches == 1 else low + t.pitch)
        trace.rapid(px, py, start - arc)
        _half_arc(trace, px, py, radius, start, clockwise, feed, outwards=True)
        angle = 2.0 * math.pi * each * (-1.0 if clockwise else 1.0)
        end = start + each * rise
        trace.helix(px + radius * math.cos(angle), py + radius * math.sin(angle), end, (px, py, 0.0), each, clockwise, feed)
        _half_arc(trace, px, py, radius, end + arc, clockwise, feed, outwards=False)


def _half_arc(trace: PathMaker, px: float, py: float, radius: float, z: float, clockwise: bool, feed: float, outwards: bool) -> None:
    """Half round on half the radius, between the hole's middle and the wall, rising as the thread does."""
    at = math.atan2(trace.at[1] - py, trace.at[0] - px) if not outwards else 0.0
    centre = (px + radius / 2.0 * math.cos(at), py + radius / 2.0 * math.sin(at), 0.0)
    to = (px + radius * math.cos(at), py + radius * math.sin(at)) if outwards else (px, py)
    trace.helix(*to, z, centre, 0.5, clockwise, feed)


def _one(value: object) -> float:
    return float(np.ravel(value)[-1])  # type: ignore[call-overload]
