"""How a heavy tool goes: up to speed in front of the bores, in at feed until its edges stand at their floors, and out again."""

from __future__ import annotations

from cutting.motion.moves import CuttingOutline, Frame, Path, SpindleOn
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.holes.heavy_bore.numbers import RUN_IN, Numbers, begins_inside
from cutting.workpiece.solid import Solid

BEYOND = 1000.0  # mm: what is behind an edge in its bore has gone
TIP = "foremost edge"


def path(x: Numbers, before: Solid | None = None) -> Path:
    """The path of the one pass; z from the face, told of the foremost edge."""
    setup = x.setup
    n, up = last_pass(x.spindle_speed), last_pass(x.spin_up)
    foremost = max(step.at for step in setup.steps)
    begins = last_pass(begins_inside(setup, x.tool.own["at"]))
    long = last_pass(x.engaged_time) * last_pass(x.feed_rate) / 60.0 - RUN_IN
    trace = PathMaker(setup.machine, Frame.HOLE, TIP, (0.0, 0.0, CLEAR), setup.heavy_tool.name, setup.settings.coolant,
                      SpindleOn(n, n, seconds=2.0 * up))  # fmt: skip
    trace.rapid(0.0, 0.0, RUN_IN - begins)
    trace.feed(0.0, 0.0, -begins - long, last_pass(x.feed_set))
    trace.rapid(0.0, 0.0, CLEAR)
    outlines = [
        ((0.0, back), (radius, back), (radius, BEYOND), (0.0, BEYOND))
        for radius, back in ((step.diameter / 2.0, foremost - step.at) for step in setup.steps)
    ]
    return trace.done(CuttingOutline(outlines[0], further=tuple(outlines[1:])))
