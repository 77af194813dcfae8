"""A milled hole as the bench asks for it: its outcome, its map of pitch and feed, what would move a limit."""

from __future__ import annotations

import numpy as np

from cutting.operations.frame.limit_map import LimitMap, limit_map
from cutting.operations.frame.model import Model, Readings
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.holes.mill_hole.changes import changes, from_stock, quicker
from cutting.operations.holes.mill_hole.limits import RULES, helical
from cutting.operations.holes.mill_hole.numbers import Numbers, numbers
from cutting.operations.holes.mill_hole.readings import cautions, chip, passes, results, scene
from cutting.operations.holes.mill_hole.setup import MillHoleSetup
from cutting.operations.holes.mill_hole.tool import single_tool
from cutting.operations.holes.shared.held import misfits, row_speed

CELLS = 48


MODEL: Model[Numbers] = Model(
    single_tool,
    numbers,
    RULES,
    changes,
    Readings(results, passes, chip, cautions, scene, usual_speed=row_speed),
    from_stock,
    quicker,
    misfits=misfits,
)

DEEPEST_PITCH = 3.1  # times the usual pitch, to which the map goes
AROUND = 1.2  # times the present point: it never stands on the map's edge


def explore(setup: MillHoleSetup, cells: int = CELLS) -> LimitMap:
    """The map of one set-up: pitch [mm] over feed [mm a tooth]; of a plunge the pitches do nothing. Raises `CuttingError`."""
    tool, now = single_tool(setup), MODEL.quickly(setup)
    at = (setup.feed, last_pass(now.pitch))
    feeds = np.linspace(0.0, max(1.5 * last_pass(now.feed_top), 1.2 * at[0]), cells + 1)[1:]
    most = max(DEEPEST_PITCH * float(tool.usual_pitch[0]), AROUND * at[1])
    pitches = np.linspace(0.0, most, cells + 1)[1:]
    x = numbers(setup, tool, setup.settings.cutting_speed, feeds[None, :, None], setup.silent, pitch=pitches[:, None, None])
    return limit_map(RULES, x, feeds, pitches, at, drawn=helical(now))
