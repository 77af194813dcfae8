"""How the tool goes in turning, facing and boring: pass by pass along the surface or its contour, and back in rapid."""

from __future__ import annotations

import numpy as np

from cutting.motion.moves import CuttingOutline, Frame, Path, Point, SpindleOn
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.turned.case import APPROACH
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.plan import pass_depths
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface
from cutting.workpiece.solid import Solid

BEYOND, THIN = 1000.0, 1e-6  # mm: all metal on the tool's side of the surface has gone; the nose is told as a corner
TIP = "middle of the nose, on the programmed surface"


def path(x: Cut, before: Solid | None = None) -> Path:
    """The path of a set-up's passes; `before` is the part in front of it, whose free face is the set-up's where it is not known."""
    return _faced(x, _face(x.setup, before)) if x.setup.surface is Surface.FACE else _turned(x, _face(x.setup, before))


def _face(setup: Setup, before: Solid | None) -> float:
    if before is not None:
        return before.face
    holding = setup.holding
    return float(holding.free_length if holding.face is None else holding.face)


def _surface(setup: Setup, face: float) -> tuple[Point, ...]:
    """Points of the finished surface (radius, 0, from the chuck), from the free end towards the chuck."""
    f, radius = setup.feature, setup.target_diameter / 2.0
    if setup.inside:
        return (radius, 0.0, face), (radius, 0.0, face - f.length)
    near, far = f.distance_from_chuck, f.distance_from_chuck + f.length
    if not f.profile:
        return (radius, 0.0, far), (radius, 0.0, near)
    found = [((diameter + f.grinding_allowance) / 2.0, 0.0, place) for place, diameter in reversed(f.profile)]
    beyond = far - f.profile[-1][0] + f.profile[0][0] - near
    return (*found, (found[-1][0], 0.0, found[-1][2] - beyond)) if beyond > 1e-9 else tuple(found)


def _turned(x: Cut, face: float) -> Path:
    setup, outwards = x.setup, x.setup.shrinks
    points = _surface(setup, face)
    run_in = APPROACH
    if setup.away:  # it begins in the part, and runs out of its end
        (radius, y, far), *rest = points
        points, run_in = (*reversed(rest), (radius, y, far + APPROACH)), 0.0
    depths = pass_depths(setup)
    left = np.append(np.cumsum(depths[::-1])[::-1][1:], 0.0)  # still to go after each pass
    speeds = [float(one) for one in np.broadcast_to(np.ravel(x.spindle_speed), len(depths))]
    feed = float(np.ravel(x.feed_per_rev)[0])
    starts = [(points[0][0] + outwards * one, 0.0, points[0][2] + run_in) for one in map(float, left)]
    first = SpindleOn(speeds[0], speeds[0], seconds=setup.machine.start_time)
    trace = PathMaker(setup.machine, Frame.TURNED, TIP, starts[0], setup.insert.name, setup.settings.coolant, first)
    for k, more in enumerate(map(float, left)):
        if k and speeds[k] != speeds[k - 1]:
            trace.switch(SpindleOn(speeds[k], speeds[k]))
        trace.rapid(*starts[k])
        for radius, y, z in points[0 if len(points) > 2 else 1 :]:
            trace.feed(radius + outwards * more, y, z, feed)
        radius, y, z = trace.at
        trace.rapid(radius + outwards * CLEAR, y, z)
        trace.rapid(starts[k][0] + outwards * CLEAR, y, starts[k][2])
    return trace.done(CuttingOutline(((0.0, 0.0), (outwards * BEYOND, 0.0), (outwards * BEYOND, THIN), (0.0, THIN))))


def _faced(x: Cut, face: float) -> Path:
    setup, f = x.setup, x.setup.feature
    outer, inner = f.start_diameter / 2.0 + APPROACH, f.end_diameter.nominal / 2.0
    if setup.machine.constant_surface_speed:
        drive = setup.machine.drive(x.case.top_speed)
        spindle = SpindleOn(drive.low, drive.top, float(np.ravel(x.cutting_speed)[0]), setup.machine.start_time)
    else:
        n = float(np.ravel(x.spindle_speed)[0])
        spindle = SpindleOn(n, n, seconds=setup.machine.start_time)
    places = face - np.cumsum(pass_depths(setup))
    trace = PathMaker(setup.machine, Frame.TURNED, TIP, (outer, 0.0, float(places[0])), setup.insert.name, setup.settings.coolant, spindle)
    for place in map(float, places):
        trace.rapid(outer, 0.0, place)
        trace.feed(inner, 0.0, place, float(np.ravel(x.feed_per_rev)[0]))
        trace.rapid(inner, 0.0, place + CLEAR)
        trace.rapid(outer, 0.0, place + CLEAR)
    return trace.done(CuttingOutline(((0.0, 0.0), (0.0, BEYOND), (THIN, BEYOND), (THIN, 0.0))))
