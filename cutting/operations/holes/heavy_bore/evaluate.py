"""A heavy bore as the bench asks for it: its outcome, its map of speed and feed."""

from __future__ import annotations

import numpy as np

from cutting.operations.frame.limit_map import LimitMap, limit_map
from cutting.operations.frame.model import Model, Readings
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.holes.heavy_bore.changes import changes, from_stock
from cutting.operations.holes.heavy_bore.limits import RULES
from cutting.operations.holes.heavy_bore.numbers import Numbers, numbers
from cutting.operations.holes.heavy_bore.readings import cautions, chip, passes, results, scene, usual_speed
from cutting.operations.holes.heavy_bore.setup import HeavyBoreSetup
from cutting.operations.holes.heavy_bore.tool import misfits, single_tool

CELLS = 40
SHOWN = 1.3  # × the highest of the book and of what is set, that the map shows

MODEL: Model[Numbers] = Model(
    single_tool,
    numbers,
    RULES,
    changes,
    Readings(results, passes, chip, cautions, scene, usual_speed=usual_speed),
    from_stock,
    misfits=misfits,
)


def explore(setup: HeavyBoreSetup, cells: int = CELLS) -> LimitMap:
    """The map of one set-up: feed [mm/rev] over speed [m/min]. Raises `CuttingError`."""
    tool, now = single_tool(setup), MODEL.quickly(setup)
    at = (setup.settings.cutting_speed, setup.feed)
    feed_top = 0.25 * float(np.min(tool.own["inserts"]))
    speeds = np.linspace(0.0, SHOWN * max(last_pass(now.book_high), at[0]), cells + 1)[1:]
    feeds = np.linspace(0.0, SHOWN * max(feed_top, at[1]), cells + 1)[1:]
    x = numbers(setup, tool, speeds[None, :, None], feeds[:, None, None], setup.silent)
    return limit_map(RULES, x, speeds, feeds, at)
