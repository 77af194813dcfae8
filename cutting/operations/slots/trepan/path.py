"""How a trepanning head goes: straight through the plate, hole by hole."""

from __future__ import annotations

import numpy as np

from cutting.motion.moves import CuttingOutline, Frame, Path, SpindleOn
from cutting.motion.places import places
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.slots.shared.way import BEYOND
from cutting.operations.slots.trepan.numbers import APPROACH, BREAK_THROUGH, Numbers
from cutting.workpiece.solid import Solid

TIP = "edges of the head, on its axis"


def path(x: Numbers, before: Solid | None = None) -> Path:
    """The path of a set-up's rings; z from the plate's front."""
    setup, f = x.setup, x.setup.feature
    n = float(np.ravel(x.spindle_speed)[0])
    spindle = SpindleOn(n, n, seconds=setup.machine.start_time)
    at = places(f.circle, f.count)
    trace = PathMaker(setup.machine, Frame.HOLE, TIP, (*at[0], APPROACH + CLEAR), setup.insert.name, setup.settings.coolant, spindle)
    floor = -(setup.depth + (BREAK_THROUGH if f.through and not f.web else 0.0))
    for px, py in at:
        trace.rapid(px, py, APPROACH + CLEAR)
        trace.rapid(px, py, APPROACH)
        trace.feed(px, py, floor, float(np.ravel(x.feed)[0]))
        trace.rapid(px, py, APPROACH + CLEAR)
    outer, w = float(np.ravel(x.outer_diameter)[0]) / 2.0, x.ring_width
    inner = outer - float(np.ravel(w)[0])
    second = f.inner_ring / 2.0 if f.inner_ring is not None else 0.0
    further = (_edge(second - (outer - inner), second),) if second else ()
    return trace.done(CuttingOutline(_edge(inner, outer), further=further))


def _edge(inner: float, outer: float) -> tuple[tuple[float, float], ...]:
    """An edge's outline between two radii [mm], with the cartridge behind it."""
    return ((inner, 0.0), (outer, 0.0), (outer, BEYOND), (inner, BEYOND))
