"""How a drill goes: hole by hole, layer by layer, with its pecks."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from cutting.mechanics.drilling import cone_length
from cutting.motion.moves import CuttingOutline, Frame, Path, SpindleOn
from cutting.motion.places import places
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.holes.drill.numbers import APPROACH, BREAK_THROUGH, CORNER_IN, Numbers, peck_sizes
from cutting.operations.holes.drill.setup import Pecks
from cutting.operations.holes.shared.pecks import BREAK_BACK, BREAK_SECONDS, CLEAR_SECONDS, peck_places
from cutting.workpiece.solid import Solid

BEYOND = 1000.0  # mm: what is above the point in its hole has gone
TIP = "point of the drill"


def path(x: Numbers, before: Solid | None = None) -> Path:
    """The path of a set-up's holes; z from the entry, told of the point."""
    setup, f = x.setup, x.setup.feature
    speeds = np.broadcast_to(np.ravel(x.spindle_speed), x.layers.count)
    first = SpindleOn(float(speeds[0]), float(speeds[0]), seconds=setup.machine.start_time)
    at = places(f.circle, f.count)
    trace = PathMaker(setup.machine, Frame.HOLE, TIP, (*at[0], APPROACH + CLEAR), setup.drill.name, setup.settings.coolant, first)
    stops = _stops(x)
    for px, py in at:
        trace.rapid(px, py, APPROACH + CLEAR)
        trace.rapid(px, py, APPROACH)
        turning = float(speeds[0])
        for z, feed, n, peck in stops:
            if n != turning:
                trace.switch(SpindleOn(n, n))
                turning = n
            trace.feed(px, py, z, feed)
            if peck and setup.settings.pecks is Pecks.CLEAR:
                trace.rapid(px, py, CLEAR)
                trace.dwell(seconds=CLEAR_SECONDS)
                trace.rapid(px, py, z)
            elif peck:
                trace.rapid(px, py, z + BREAK_BACK)
                trace.dwell(seconds=BREAK_SECONDS)
                trace.rapid(px, py, z)
        trace.rapid(px, py, APPROACH + CLEAR)
    radius, cone = setup.drill.diameter / 2.0, _cone(x)
    return trace.done(CuttingOutline(((0.0, 0.0), (radius, cone), (radius, BEYOND), (0.0, BEYOND))))


def _stops(x: Numbers) -> list[tuple[float, float, float, bool]]:
    """Where the point goes to at which feed and speed, and whether it comes back from there; from the entry down."""
    setup, s, layers = x.setup, x.setup.settings, x.layers
    cone = _cone(x)
    deep = float(layers.far[-1])
    floor = deep + cone + (BREAK_THROUGH if setup.feature.through else 0.0)
    feeds = np.broadcast_to(np.ravel(x.feed), layers.count)
    speeds = np.broadcast_to(np.ravel(x.spindle_speed), layers.count)
    marks = {min(cone + CORNER_IN, deep), deep, floor, *map(float, layers.far[:-1])}
    pecks = set(_pecks(x))
    found = []
    for place in sorted(marks | pecks):
        k = min(int(np.searchsorted(layers.far, place - 1e-9)), layers.count - 1)
        share = s.entry_feed if place <= cone + CORNER_IN + 1e-9 else s.exit_feed if place > deep and setup.feature.breaks_out else 1.0
        found.append((-place, float(feeds[k]) * share, float(speeds[k]), place in pecks))
    return found


def _cone(x: Numbers) -> float:
    return float(np.ravel(cone_length(x.setup.drill.diameter, x.setup.drill.point_angle))[0])


def _pecks(x: Numbers) -> Iterator[float]:
    setup = x.setup
    if setup.settings.pecks is not Pecks.NONE:
        first, following, least = (float(np.ravel(one)[0]) for one in peck_sizes(setup, x.layers, x.tool))
        yield from peck_places(setup.depth, first, following, least)
