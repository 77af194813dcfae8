"""A milled hole as the bench asks for it: its outcome, its map of pitch and feed, what would move a limit."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.operations.frame.model import Model, Readings
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.rule import Rule
from cutting.operations.holes.mill_hole.changes import changes, from_stock, quicker
from cutting.operations.holes.mill_hole.limits import RULES, helical
from cutting.operations.holes.mill_hole.numbers import Numbers, numbers
from cutting.operations.holes.mill_hole.readings import cautions, chip, passes, results, scene
from cutting.operations.holes.mill_hole.setup import MillHoleSetup
from cutting.operations.holes.mill_hole.tool import Array, single_tool
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


@dataclass(frozen=True)
class FieldEdge:
    """One limit: its utilisation over the map (pitches, feeds)."""

    rule: Rule[Any]
    used: Array


@dataclass(frozen=True)
class PitchMap:
    """Feed [mm a tooth] by pitch [mm], the closest limit and the seconds over (pitches, feeds), and where the set-up stands."""

    feeds: Array
    pitches: Array
    edges: tuple[FieldEdge, ...]
    worst: Array
    seconds: Array
    at: tuple[float, float]


def explore(setup: MillHoleSetup, cells: int = CELLS) -> PitchMap:
    """The map of one set-up; of a plunge the pitches do nothing. Raises `CuttingError`."""
    tool, now = single_tool(setup), MODEL.quickly(setup)
    at = (setup.feed, last_pass(now.pitch))
    feeds = np.linspace(0.0, max(1.5 * last_pass(now.feed_top), 1.2 * at[0]), cells + 1)[1:]
    most = max(1.25 * 2.5 * float(tool.usual_pitch[0]), 1.2 * at[1])
    pitches = np.linspace(0.0, most, cells + 1)[1:]
    x = numbers(setup, tool, setup.settings.cutting_speed, feeds[None, :, None], setup.silent, pitch=pitches[:, None, None])
    worst, edges = np.zeros((cells, cells)), []
    for rule in RULES:
        if not rule.contour or not np.any(rule.applies(x)):
            continue
        used = np.broadcast_to(rule.used(x), (cells, cells, 1))[..., 0]
        worst = np.maximum(worst, used)
        if (used > 1.0).any() and (used < 1.0).any():
            edges.append(FieldEdge(rule, used))
    seconds = np.broadcast_to(x.operation_time, (cells, cells, 1))[..., 0]
    return PitchMap(feeds, pitches, tuple(edges) if helical(now) else (), worst, seconds, at)
