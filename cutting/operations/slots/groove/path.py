"""How the edge goes in a groove: stroke by stroke, lifted out of the slot between those that do not follow each other."""

from __future__ import annotations

import math
from typing import Any

from cutting.motion.moves import Frame, Path, SpindleOn
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.slots.groove.moves import diameter_at, moves_of
from cutting.operations.slots.groove.setup import GrooveSetup
from cutting.operations.slots.shared.way import NEAR, blade_edge, follows
from cutting.workpiece.solid import Solid

TIP = "corner of the edge at the chuck's side"


def path(x: Any, before: Solid | None = None) -> Path:
    """The path of a set-up's strokes at their feeds."""
    return strokes_path(x.setup, tuple(one.feed for one in x.strokes.taken()))


def strokes_path(setup: GrooveSetup, feeds: tuple[float, ...] | None = None) -> Path:
    """The path of the strokes; without feeds only its rapid ways tell something."""
    s, near = setup.settings, setup.feature.distance_from_chuck
    spun = setup.machine.drive(s.spindle_clamp).over(s.cutting_speed, setup.largest)
    spindle = SpindleOn(float(spun.low), float(spun.top), s.cutting_speed, setup.machine.start_time)
    inwards = 1.0 if setup.inside else -1.0
    moves = moves_of(setup)

    def radius(depth: float) -> float:
        return diameter_at(setup, depth) / 2.0

    out = radius(0.0) - inwards * CLEAR
    start = (out, 0.0, near + moves[0].place)
    trace = PathMaker(setup.machine, Frame.TURNED, TIP, start, setup.insert.name, s.coolant, spindle)
    for k, move in enumerate(moves):
        begin = (radius(move.depth), 0.0, near + move.place)
        if not follows(trace.at, begin):
            trace.rapid(out, 0.0, trace.at[2])
            trace.rapid(out, 0.0, begin[2])
            trace.rapid(begin[0] - inwards * NEAR, 0.0, begin[2])
        trace.rapid(*begin) if math.dist(trace.at, begin) > NEAR else trace.feed(*begin, feeds[k] if feeds else 1.0)
        trace.feed(radius(move.to_depth), 0.0, near + move.to_place, feeds[k] if feeds else 1.0)
        trace.dwell(turns=s.dwell if move.dwell else 0.0)
    trace.rapid(out, 0.0, trace.at[2])
    return trace.done(blade_edge(-inwards, setup.insert.width))
