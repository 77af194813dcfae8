"""How the blade goes in a groove in the face: stroke by stroke, lifted out between those that do not follow each other."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.motion.moves import CuttingOutline, Frame, Path, Point, SpindleOn
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.slots.face_groove.moves import FaceGrooveMove
from cutting.operations.slots.face_groove.setup import FaceGrooveSetup
from cutting.operations.slots.shared.way import BEYOND, NEAR, follows
from cutting.workpiece.solid import Solid

TIP = "outer corner of the edge"


def path(x: Any, before: Solid | None = None) -> Path:
    """The path of a set-up's strokes; the free face is at 0 where nobody says."""
    speeds = tuple(float(one) for one in np.broadcast_to(np.ravel(x.stroke_speed), len(x.moves)))
    return strokes_path(x.setup, x.moves, before.face if before is not None else 0.0, tuple(one.feed for one in x.strokes), speeds)


def strokes_path(
    setup: FaceGrooveSetup,
    moves: tuple[FaceGrooveMove, ...],
    face: float = 0.0,
    feeds: tuple[float, ...] = (),
    speeds: tuple[float, ...] = (),
) -> Path:
    """The path of strokes; without speeds only its rapid ways tell something."""

    def place(outer: float, depth: float) -> Point:
        return outer / 2.0, 0.0, face - depth

    def spindle(k: int, seconds: float = 0.0) -> SpindleOn:
        n = speeds[k] if speeds else setup.machine.top_speed
        return SpindleOn(n, n, seconds=seconds)

    start = place(moves[0].outer, -CLEAR)
    trace = PathMaker(
        setup.machine, Frame.TURNED, TIP, start, setup.insert.name, setup.settings.coolant, spindle(0, setup.machine.start_time)
    )
    for k, move in enumerate(moves):
        begin = place(move.outer, move.depth)
        if k and speeds and speeds[k] != speeds[k - 1]:
            trace.switch(spindle(k))
        if not follows(trace.at, begin):
            trace.rapid(trace.at[0], 0.0, face + CLEAR)
            trace.rapid(begin[0], 0.0, face + CLEAR)
            trace.rapid(begin[0], 0.0, begin[2] + NEAR)
        feed = feeds[k] if feeds else 1.0
        trace.feed(*begin, feed)
        trace.feed(*place(move.to_outer, move.to_depth), feed)
        trace.dwell(turns=move.dwell)
    trace.rapid(trace.at[0], 0.0, face + CLEAR)
    w = setup.insert.width
    return trace.done(CuttingOutline(((0.0, 0.0), (-w, 0.0), (-w, BEYOND), (0.0, BEYOND))))
