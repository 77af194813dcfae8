"""How a threading tip goes: pass by pass at the lead, start by start, back in rapid."""

from __future__ import annotations

import numpy as np

from cutting.motion.moves import Frame, Path, SpindleOn, Sync
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.threads.shared.sense import Feeds
from cutting.operations.threads.shared.tooth import tooth
from cutting.operations.threads.turn_thread.numbers import FRONT, RETURNS, Numbers
from cutting.workpiece.solid import Solid

TIP = "middle of the tip"


def path(x: Numbers, before: Solid | None = None) -> Path:
    """The path of a set-up's passes."""
    setup, f, t = x.setup, x.setup.feature, x.setup.feature.thread
    n = float(np.ravel(x.spindle_speed)[0])
    spindle = SpindleOn(n, n, seconds=setup.machine.start_time)
    outwards = -1.0 if f.internal else 1.0
    surface = setup.there / 2.0
    run_in, run_out = FRONT * t.pitch, f.relief / 2.0
    near, far = f.distance - run_out, f.distance + f.length + run_in
    begin, end = (far, near) if setup.feeds is Feeds.TOWARDS else (near + run_out - run_in, far - run_in + run_out)
    clear = surface + outwards * CLEAR
    trace = PathMaker(setup.machine, Frame.TURNED, TIP, (clear, 0.0, begin), setup.insert.name, setup.settings.coolant, spindle)
    lost = RETURNS[setup.machine.geared]
    for depth, shift in zip(map(float, x.groove.depth), map(float, np.broadcast_to(x.groove.shift, len(x.groove.depth))), strict=True):
        for k in range(t.starts):
            apart = k * t.pitch + shift
            trace.rapid(clear, 0.0, begin + apart)
            trace.rapid(surface - outwards * depth, 0.0, begin + apart)
            trace.switch(Sync(True))
            trace.thread(surface - outwards * depth, 0.0, end + apart, t.lead)
            trace.switch(Sync(False), SpindleOn(n, n, seconds=lost))
            trace.rapid(clear, 0.0, end + apart)
    trace.rapid(clear, 0.0, begin)
    return trace.done(tooth(t, f.internal, from_axis=False))
