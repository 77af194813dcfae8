"""The chip map: breaker window, and where each limit would break over feed × depth, from one run."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from cutting.chips.window import REFERENCE_SPEED, feed_scale, window_sides
from cutting.operations.frame.limit_map import LimitLine, contour
from cutting.operations.frame.rule import Rule
from cutting.operations.turned.case import case_of, single_cutter
from cutting.operations.turned.limits import RULES
from cutting.operations.turned.physics import Cut, cut, window_scales
from cutting.operations.turned.plan import main_depth, one_pass_diameters, pass_depths
from cutting.operations.turned.setup import Setup

GRID = 36
Polyline = list[tuple[float, float]]
BEYOND, AROUND = 1.2, 1.15  # times the window, and the present point: how far the map goes


@dataclass(frozen=True)
class ChipMap:
    """Axes in mm/rev and mm, windows as polygons, contours, and the point of operation."""

    feed_axis: tuple[float, float]
    depth_axis: tuple[float, float]
    window: Polyline
    drawn_window: Polyline
    contours: list[LimitLine]
    feed: float
    depth: float
    passes: list[tuple[float, float]]


def chip_map(setup: Setup, rules: Sequence[Rule[Cut]] = RULES) -> ChipMap:
    """The map of a set-up at its speed; depth is read as one pass down to the final diameter."""
    case, cutter = case_of(setup), single_cutter(setup)
    settings = setup.settings
    sides, depth = window_sides(setup.insert.geometry.window), main_depth(setup)
    across, along = (float(np.ravel(scale)[0]) for scale in window_scales(case, cutter, settings.cutting_speed))
    bare = float(feed_scale(setup.insert.code.nose_radius, 0.5, REFERENCE_SPEED, 0.0))
    window = [(f * across, a * along) for f, a in sides.hull]
    feed_top = max(max(p[0] for p in window) * BEYOND, settings.feed_per_rev * AROUND)
    depth_top = max(max(p[1] for p in window) * AROUND, depth * AROUND)
    feeds, depths = np.linspace(feed_top / GRID, feed_top, GRID), np.linspace(depth_top / GRID, depth_top, GRID)
    grid_f, grid_a = (axis[..., None] for axis in np.meshgrid(feeds, depths))
    last = one_pass_diameters(setup, grid_a)
    done = cut(case, cutter, settings.cutting_speed, grid_f, grid_a, last, setup.silent)
    contours = []
    for rule in rules:
        if rule.contour and rule.applies(done):
            used = np.broadcast_to(rule.used(done), grid_f.shape)[..., 0]
            crossed = used.min() < 1.0 < used.max()
            if crossed and (lines := contour(feeds, depths, used)):
                contours.append(LimitLine(rule.name, rule.label.split(",")[0], lines))
    return ChipMap(
        (0.0, feed_top),
        (0.0, depth_top),
        window,
        [(f * bare, a * along) for f, a in sides.hull],
        contours,
        settings.feed_per_rev,
        depth,
        [(settings.feed_per_rev, float(one)) for one in pass_depths(setup)],
    )
