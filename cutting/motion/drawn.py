"""A path as a line that a picture follows: places over the seconds at feed; whoever draws interpolates and invents nothing."""

from __future__ import annotations

import math
from collections.abc import Iterator

from cutting.machine.machines import Machine
from cutting.motion.clock import clock
from cutting.motion.moves import Arc, Feed, Frame, Helix, Path, Point, Rapid, ThreadPass
from cutting.motion.swept import arc_points

TURN = 24  # places on a turn of a helix
MOST = 4000

Moment = tuple[float, float, float, float]  # seconds at feed, x, y, z


def drawn(path: Path, machine: Machine, first_hole: bool = False) -> tuple[Moment, ...]:
    """Places of the reference point (x, y, z) [mm] over the seconds that it has been at feed; rapid ways take none of them.

    With `first_hole` only what is done in the first of several alike: until the tool goes across to the next.
    """
    seconds, at, gone = clock(path, machine).moves, path.start, 0.0
    found: list[Moment] = []
    for step, took in zip(path.steps, seconds, strict=True):
        if isinstance(step, Rapid):
            if first_hole and found and _across(path, at, step.to):
                break
            at = step.to
        elif isinstance(step, (Feed, Arc, Helix, ThreadPass)):
            places = list(_along(at, step))
            for k, place in enumerate(places):
                found.append((gone + took * k / (len(places) - 1), *place))
            at, gone = step.to, gone + took
    every = max(1, math.ceil(len(found) / MOST))
    return tuple(one for k, one in enumerate(found) if k % every == 0 or k == len(found) - 1)


def _across(path: Path, at: Point, to: Point) -> bool:
    return path.frame is Frame.HOLE and at[2] > 0.0 and to[2] > 0.0 and math.dist(at[:2], to[:2]) > 1e-6


def _along(at: Point, move: Feed | Arc | Helix | ThreadPass) -> Iterator[Point]:
    if isinstance(move, Arc):
        yield from arc_points(at, move)
    elif isinstance(move, Helix):
        radius = math.dist(at[:2], move.centre[:2])
        begin = math.atan2(at[1] - move.centre[1], at[0] - move.centre[0])
        count = max(2, math.ceil(move.turns * TURN))
        for k in range(count + 1):
            angle = begin + (-1.0 if move.clockwise else 1.0) * 2.0 * math.pi * move.turns * k / count
            x, y = move.centre[0] + radius * math.cos(angle), move.centre[1] + radius * math.sin(angle)
            yield x, y, at[2] + (move.to[2] - at[2]) * k / count
    else:
        yield at
        yield move.to
