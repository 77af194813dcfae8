"""The second map: speed × feed with the limits of every layer, the field that none breaks, and who conflicts with whom."""

from __future__ import annotations

import itertools
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.errors import CuttingError
from cutting.operations.frame.change import Change
from cutting.operations.frame.outcome import TOUCHING
from cutting.operations.frame.rule import Rule
from cutting.operations.holes.drill.limits import RULES
from cutting.operations.holes.drill.numbers import numbers
from cutting.operations.holes.drill.setup import DrillSetup
from cutting.operations.holes.drill.tool import Array, DrillTool, single_tool

CELLS, COARSE = 60, 30
LEAST_SHARE, MOST_SHARE = 0.25, 1.6  # of the lowest and highest of the layers' windows that the map shows
AROUND = 1.15  # times the present point: it never stands on the map's edge


@dataclass(frozen=True)
class LayerEdge:
    """One limit in one layer: its utilisation over the map (feeds, speeds)."""

    rule: Rule[Any]
    layer: int
    used: Array


@dataclass(frozen=True)
class StackWindow:
    """Speeds [m/min] and feeds [mm/rev] of the map, what breaks where, and the field.

    `worst` is the closest limit's utilisation over (feeds, speeds); `sound` by layer (layers, feeds, speeds). `conflict` are the two
    layers that share no point, with the limits that part them. `best` is the point that is
    furthest from every limit, on gears one of theirs.
    """

    speeds: Array
    feeds: Array
    edges: tuple[LayerEdge, ...]
    worst: Array
    sound: NDArray[np.bool_]
    field: NDArray[np.bool_]
    conflict: tuple[int, int, str, str] | None
    best: tuple[float, float] | None


def window(setup: DrillSetup, cells: int = CELLS) -> StackWindow:
    """The map of one set-up. Raises `CuttingError`."""
    tool = single_tool(setup)
    low, high = tool.speed_low * tool.speed_factor, tool.speed_high * tool.speed_factor
    now = setup.settings
    top = max(float(high.max()) * MOST_SHARE, AROUND * now.cutting_speed)
    speeds = np.geomspace(min(LEAST_SHARE * float(low.min()), 0.8 * now.cutting_speed), top, cells)
    most = max(float(tool.feed_high.max()) * MOST_SHARE, AROUND * now.feed_per_rev)
    feeds = np.geomspace(min(LEAST_SHARE * float(tool.feed_low.min()), 0.8 * now.feed_per_rev), most, cells)
    x = numbers(setup, tool, speeds[None, :, None], feeds[:, None, None], setup.silent, stepped=False)
    edges, sound = [], np.ones((x.layers.count, cells, cells), bool)
    worst = np.zeros((cells, cells))
    for rule in RULES:
        if not rule.contour or not np.any(rule.applies(x)):
            continue
        used = np.broadcast_to(rule.used(x), (cells, cells, max(np.shape(rule.used(x))[-1], 1)))
        for layer in range(used.shape[-1]):
            one = used[..., layer]
            worst = np.maximum(worst, one)
            if used.shape[-1] == x.layers.count:
                sound[layer] &= one <= 1.0 + TOUCHING
            else:
                sound &= (one <= 1.0 + TOUCHING)[None]
            if (one > 1.0).any() and (one < 1.0).any():
                edges.append(LayerEdge(rule, layer, one))
    field = np.asarray(sound.all(axis=0), bool)
    best = _best(setup, tool, speeds, feeds, worst)
    return StackWindow(speeds, feeds, tuple(edges), worst, sound, field, None if field.any() else _conflict(setup, x, sound), best)


def gears(setup: DrillSetup) -> tuple[Array, Array] | None:
    """Speeds [m/min] and feeds [mm/rev] of the steps that the machine has or may be given, None where both are continuous."""
    drive = setup.machine.drive()
    if not drive.steps or not drive.feeds:
        return None
    return np.pi * setup.drill.diameter * np.array(drive.steps) / 1000.0, np.array(drive.feeds)


def _best(setup: DrillSetup, tool: DrillTool, speeds: Array, feeds: Array, worst: Array) -> tuple[float, float] | None:
    """The point furthest from every limit; on gears one of theirs. None where nothing is sound."""
    if (steps := gears(setup)) is not None:
        speeds, feeds = steps
        x = numbers(setup, tool, speeds[None, :, None], feeds[:, None, None], setup.silent, stepped=False)
        used = [rule.used(x) for rule in RULES if rule.contour and np.any(rule.applies(x))]
        worst = np.max([np.broadcast_to(one, (len(feeds), len(speeds), one.shape[-1])).max(axis=-1) for one in used], axis=0)
    row, column = np.unravel_index(int(np.argmin(worst)), worst.shape)
    return (float(speeds[column]), float(feeds[row])) if worst[row, column] <= 1.0 + TOUCHING else None


def _conflict(setup: DrillSetup, x: Any, sound: NDArray[np.bool_]) -> tuple[int, int, str, str] | None:
    """The two layers that share no point of speed and feed, with the limit that shuts each out where the other is sound."""
    count = len(sound)
    used = [(rule, rule.used(x)) for rule in RULES if rule.contour and np.any(rule.applies(x))]

    def shuts(layer: int, where: NDArray[np.bool_]) -> str:
        levels = {}
        for rule, level in used:
            one = np.broadcast_to(level, (*where.shape, level.shape[-1]))[..., min(layer, level.shape[-1] - 1)]
            levels[rule.label] = float(one[where].min()) if where.any() else float(one.min())
        return max(levels, key=lambda name: levels[name])

    for layer in range(count):  # a layer that nothing suits conflicts with itself
        if not sound[layer].any():
            return layer, layer, shuts(layer, np.ones_like(sound[layer])), ""
    for one, other in itertools.combinations(range(count), 2):
        if not (sound[one] & sound[other]).any():
            return one, other, shuts(one, sound[other]), shuts(other, sound[one])
    return None


def opens(changes: Iterable[Change[DrillSetup]], most: int = 6) -> tuple[tuple[Any, StackWindow], ...]:
    """Changes with which a field opens where there is none now, the widest first."""
    found = []
    for change in changes:
        try:
            there = window(change.setup, COARSE)
        except CuttingError:  # what cannot be opens nothing
            continue
        if there.best is not None:
            found.append((change, there))
    found.sort(key=lambda pair: -int(pair[1].field.sum()))
    return tuple(found[:most])
