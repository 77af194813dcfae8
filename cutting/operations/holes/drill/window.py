"""The second map: speed × feed with the limits of every layer, the field that none breaks, where only tastes are, and who conflicts."""

from __future__ import annotations

import itertools
from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.errors import CuttingError
from cutting.operations.frame.change import Change
from cutting.operations.frame.outcome import TOUCHING, Severity
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

    `worst` is the closest limit's utilisation over (feeds, speeds); `sound` by layer (layers, feeds, speeds). `workable` is where nothing
    is harmed, though it may not be ideal. `conflict` are the two layers that share no point, with the limits that part them. `best` is
    the point that is furthest from every limit, on gears one of theirs; `least_bad`, where there is none, the workable one that is least
    far from ideal, with the names of what it misses.
    """

    speeds: Array
    feeds: Array
    edges: tuple[LayerEdge, ...]
    worst: Array
    sound: NDArray[np.bool_]
    field: NDArray[np.bool_]
    conflict: tuple[int, int, str, str] | None
    best: tuple[float, float] | None
    workable: NDArray[np.bool_]
    least_bad: tuple[float, float, tuple[str, ...]] | None


@dataclass(frozen=True)
class _Standing:
    """Utilisations over (feeds, speeds): the closest of all limits, of the hard ones, and each soft one by its label."""

    worst: Array
    hard: Array
    soft: dict[str, Array]


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
    on_map = _standing(x, worst.shape)
    (at_speeds, at_feeds), stands = _on_gears(setup, tool) or ((speeds, feeds), on_map)
    best = _best(at_speeds, at_feeds, stands.worst)
    return StackWindow(
        speeds, feeds, tuple(edges), worst, sound, field, None if field.any() else _conflict(setup, x, sound), best,
        np.asarray(on_map.hard <= 1.0 + TOUCHING), None if best else _least_bad(at_speeds, at_feeds, stands),
    )  # fmt: skip


def _standing(x: Any, shape: tuple[int, int]) -> _Standing:
    """How near each limit is over (feeds, speeds), the nearest layer counting."""
    used = {
        rule: np.broadcast_to(level := rule.used(x), (*shape, level.shape[-1])).max(axis=-1)
        for rule in RULES
        if rule.contour and np.any(rule.applies(x))
    }
    hard = [one for rule, one in used.items() if rule.severity is Severity.HARD]
    soft = {rule.label: one for rule, one in used.items() if rule.severity is Severity.SOFT}
    return _Standing(np.max([*used.values()], axis=0), np.max(hard, axis=0), soft)


def _on_gears(setup: DrillSetup, tool: DrillTool) -> tuple[tuple[Array, Array], _Standing] | None:
    """The same at the machine's own steps, None where it has none."""
    if (steps := gears(setup)) is None:
        return None
    x = numbers(setup, tool, steps[0][None, :, None], steps[1][:, None, None], setup.silent, stepped=False)
    return steps, _standing(x, (len(steps[1]), len(steps[0])))


def gears(setup: DrillSetup) -> tuple[Array, Array] | None:
    """Speeds [m/min] and feeds [mm/rev] of the steps that the machine has or may be given, None where both are continuous."""
    drive = setup.machine.drive()
    if not drive.steps or not drive.feeds:
        return None
    return np.pi * setup.drill.diameter * np.array(drive.steps) / 1000.0, np.array(drive.feeds)


def _best(speeds: Array, feeds: Array, worst: Array) -> tuple[float, float] | None:
    """The point furthest from every limit, None where nothing is sound."""
    row, column = np.unravel_index(int(np.argmin(worst)), worst.shape)
    return (float(speeds[column]), float(feeds[row])) if worst[row, column] <= 1.0 + TOUCHING else None


def _least_bad(speeds: Array, feeds: Array, stands: _Standing) -> tuple[float, float, tuple[str, ...]] | None:
    """Of the points that harm nothing the one whose soft limits are missed by least, with their labels; None where every one harms."""
    works = stands.hard <= 1.0 + TOUCHING
    if not works.any():
        return None
    missed = sum((np.maximum(np.log(np.maximum(one, 1e-9)), 0.0) for one in stands.soft.values()), np.zeros(works.shape))
    row, column = np.unravel_index(int(np.argmin(np.where(works, missed, np.inf))), works.shape)
    names = tuple(label for label, one in stands.soft.items() if one[row, column] > 1.0 + TOUCHING)
    return float(speeds[column]), float(feeds[row]), names


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
    """Changes with which a field opens where there is none now: first those whose drill makes all that is asked of it, the widest first."""
    found = []
    for change in changes:
        try:
            there = window(change.setup, COARSE)
        except CuttingError:  # what cannot be opens nothing
            continue
        if there.best is not None:
            found.append((change, there))
    found.sort(key=lambda pair: (_too_few(pair[0].setup, pair[1].best), -int(pair[1].field.sum())))
    return tuple(found[:most])


def _too_few(setup: DrillSetup, at: tuple[float, float] | None) -> bool:
    """Whether a drill is done before it has made all that is asked of one."""
    asked = setup.feature.asked_holes
    if not asked or at is None:
        return False
    x = numbers(setup, single_tool(setup), np.array([at[0]]), np.array([at[1]]), setup.silent)
    return bool(np.min(x.holes) < asked)
