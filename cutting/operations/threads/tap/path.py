"""How a tap goes: in at the lead, round the other way, out at the lead."""

from __future__ import annotations

import numpy as np

from cutting.motion.moves import Frame, Path, SpindleOn, Sync
from cutting.motion.places import places
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.threads.shared.tooth import tooth
from cutting.operations.threads.tap.numbers import APPROACH, Numbers, turning_seconds
from cutting.workpiece.solid import Solid

TIP = "end of the tap"


def path(x: Numbers, before: Solid | None = None) -> Path:
    """The path of a set-up's threads; z from the mouth."""
    setup, f = x.setup, x.setup.feature
    n, pitch, lead = float(np.ravel(x.spindle_speed)[0]), f.thread.pitch, f.thread.lead
    forward = SpindleOn(n, n, seconds=setup.machine.start_time)
    above, floor = APPROACH * pitch, -(f.length + setup.tap.chamfer_threads * pitch)
    turned = turning_seconds(setup, n) / 2.0
    at = places(f.circle, f.count)
    trace = PathMaker(setup.machine, Frame.HOLE, TIP, (*at[0], above + CLEAR), setup.tap.name, setup.settings.coolant, forward)
    for px, py in at:
        trace.rapid(px, py, above + CLEAR)
        trace.rapid(px, py, above)
        trace.switch(Sync(True))
        trace.thread(px, py, floor, lead)
        trace.switch(SpindleOn(n, n, seconds=turned, backwards=True))
        trace.thread(px, py, above, lead)
        trace.switch(Sync(False), SpindleOn(n, n, seconds=turned))
        trace.rapid(px, py, above + CLEAR)
    return trace.done(tooth(f.thread, internal=True, from_axis=True))
