"""A tap and a thread mill to scale: seen from the side, and onto the end; lines in mm from the end."""

from __future__ import annotations

import math

from cutting.tooling.drill_drawing import ROUND, Corner, DrillDrawing
from cutting.tooling.taps import Tap
from cutting.tooling.thread_mills import ThreadMill


def tap_drawing(tap: Tap) -> DrillDrawing:
    """The lines of a tap: chamfer, ridges of its thread, core of its flutes, shank."""
    radius, depth, p = tap.diameter / 2.0, tap.thread.of.inside_depth * tap.pitch, tap.pitch
    chamfer = tap.chamfer_threads * p
    threads = max(int(min(tap.reach, 2.2 * tap.diameter) / p), int(tap.chamfer_threads) + 2)
    ridges = [(k * p + p / 2.0, radius - depth * max(1.0 - (k * p + p / 2.0) / chamfer, 0.0)) for k in range(threads)]
    teeth = [(0.0, radius - depth)]
    for x, top in ridges:
        teeth += [(x - 0.4 * p, radius - depth), (x - 0.06 * p, top), (x + 0.06 * p, top), (x + 0.4 * p, radius - depth)]
    end = threads * p
    half = [(0.0, 0.0), *teeth, (end, radius - depth)]
    side = (*half, *((x, -y) for x, y in reversed(half[1:])))
    return DrillDrawing(
        side, _shank(end, tap.shank / 2.0, tap.reach + 2.0 * tap.diameter), (), _circle(radius),
        _spokes(tap.flutes, tap.core / 2.0, radius), ((0.0, 0.0, 0.16 * tap.diameter),) if tap.through else (),
    )  # fmt: skip


def thread_mill_drawing(mill: ThreadMill) -> DrillDrawing:
    """The lines of a thread mill: its ridges without a lead, neck, shank."""
    radius, p = mill.diameter / 2.0, mill.pitch_high
    depth, count = min(0.6 * p, 0.45 * mill.diameter), max(int(mill.teeth), 1)
    teeth = [(0.0, radius - depth)]
    for k in range(count):
        x = k * p + p / 2.0
        teeth += [(x - 0.4 * p, radius - depth), (x - 0.06 * p, radius), (x + 0.06 * p, radius), (x + 0.4 * p, radius - depth)]
    end = count * p
    half = [(0.0, 0.0), *teeth, (end, radius - depth)]
    side = (*half, *((x, -y) for x, y in reversed(half[1:])))
    neck = max(mill.neck, 0.2 * mill.diameter) / 2.0
    behind = (
        (end, neck),
        (max(mill.reach, end), neck),
        (max(mill.reach, end), mill.shank / 2.0),
        (mill.reach + 3.0 * mill.diameter, mill.shank / 2.0),
    )
    shank = (*behind, *((x, -y) for x, y in reversed(behind)))
    holes = ((0.0, 0.0, 0.16 * mill.diameter),) if mill.through else ()
    return DrillDrawing(side, shank, (), _circle(radius), _spokes(mill.flutes, 0.3 * radius, radius), holes)


def _shank(start: float, radius: float, end: float) -> tuple[Corner, ...]:
    behind = ((start, radius), (end, radius))
    return (*behind, *((x, -y) for x, y in reversed(behind)))


def _circle(radius: float) -> tuple[Corner, ...]:
    return tuple((radius * math.cos(t), radius * math.sin(t)) for t in (2 * math.pi * k / ROUND for k in range(ROUND)))


def _spokes(count: int, inner: float, outer: float) -> tuple[tuple[Corner, Corner], ...]:
    turns = [2 * math.pi * k / count for k in range(count)]
    return tuple(((inner * math.cos(t), inner * math.sin(t)), (outer * math.cos(t), outer * math.sin(t))) for t in turns)
