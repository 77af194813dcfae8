"""For every entry of a contest the best feasible speed, feed and way, for all kinds of operation alike.

No blind grid: exact rules have excluded pairs before; feeds come from the tool's own window, and speed follows in closed form
from life, goal and limits. Entries are run in chunks, two at a time, so that memory stays bounded.
"""

from __future__ import annotations

from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from enum import Enum
from typing import Any

import numpy as np

from cutting.advice.best import Best
from cutting.advice.contest import Array, Contest, Entrants, Try
from cutting.advice.score import HABIT, STRAINED, score
from cutting.operations.frame.outcome import TOUCHING
from cutting.operations.frame.over_passes import over_passes
from cutting.operations.frame.rule import all_used, excluded, hard_ones, soft_ones
from cutting.tooling.roles import Index

# before a tool is refused: shares of the goal's own speed, shares of the lowest feed and of the span above it, and for how many
# entries, the nearest first
EASED_SPEEDS = np.array([1.0, 1.1, 0.8, 0.6, 0.42, 0.3])
EASED_FEEDS, EASED_SPANS = np.array([0.5, 0.75, 1.0, 1.0, 1.0]), np.array([0.0, 0.0, 0.0, 0.2, 0.5])
MOST_EASED, FEW_EASED, LEAST_FEED = 400, 60, 0.01  # few where many stand already: the nearest misses are all that is told then
LEADING = 160  # entries that are searched in fine steps, four times what a ranking shows
# of two speeds that do the same, as under a clamp, the goal's own is said: it stands first
FINE_FEEDS, FINE_SPEEDS = np.linspace(0.0, 1.0, 25), np.array([1.0, 1.1, 0.9, 0.8])
NEXT_STEP = np.array([1.2, 1.42])  # on a gearbox the step above may be cheaper than the one below
CHUNK, SMALL = 12_000, 2_000  # entries run together at most; and below which a second thread does not pay
BROKEN, WORSE = 1e9, 1e6  # what a broken hard limit weighs, and each further bound that it is over


class Steps(Enum):
    """How feeds and speeds are stepped."""

    USUAL = 0  # as the kind does for all its tools
    EASED = 1  # slower and finer, before a tool is refused
    FINE = 2  # closely, for those that lead


def best_of_field(contest: Contest, setup: Any, field: Entrants) -> Best:
    """The best point of every entry: from a few feeds for all, from fine steps for those that lead."""
    best = _coarsely(contest, setup, field)
    leading = np.flatnonzero(best.feasible)
    leading = leading[np.argsort(best.score[leading], kind="stable")][:LEADING]
    for rows, tried in alike(best, leading):
        _run(contest, tried, field, best, rows, Steps.FINE)
    return best


def alike(best: Best, rows: Index) -> Iterator[Try]:
    """Entries by the set-up in which they stand."""
    known: dict[int, Any] = {id(best.setup[k]): best.setup[k] for k in rows}
    for key, tried in known.items():
        yield np.array([k for k in rows if id(best.setup[k]) == key], np.intp), tried


def _coarsely(contest: Contest, setup: Any, field: Entrants) -> Best:
    count = field.count
    best = Best.empty(count)
    threads = 2 * -(-count // (2 * CHUNK))  # chunks of one size, so that neither thread waits for a rest
    size = max(SMALL, -(-count // max(threads, 1)))
    parts = [slice(start, min(start + size, count)) for start in range(0, count, size)]
    if len(parts) == 1:
        _search(contest, setup, field, best, parts[0])
        return best
    # chunks write to places of their own, and NumPy lets go of the interpreter lock while it computes
    with ThreadPoolExecutor(max_workers=2) as pool:
        list(pool.map(lambda part: _search(contest, setup, field, best, part), parts))
    return best


def _search(contest: Contest, setup: Any, field: Entrants, best: Best, part: slice) -> None:
    for rows, tried in contest.tries(setup, field, best, part):
        _run(contest, tried, field, best, rows)
    bad = np.flatnonzero(~best.feasible[part]) + part.start
    most = FEW_EASED if int(np.count_nonzero(best.feasible[part])) >= LEADING else MOST_EASED
    bad = bad[np.argsort(best.score[bad], kind="stable")][:most]
    for rows, tried in contest.eased(setup, field, best, bad):
        waiting = rows[~best.feasible[rows]]
        _run(contest, tried, field, best, waiting, Steps.EASED)


def _run(contest: Contest, setup: Any, field: Entrants, best: Best, rows: Index, steps: Steps = Steps.USUAL) -> None:
    """Run entries in one set-up over feeds, each at the goal's own speed for it and at shares of that; keep what is better."""
    if not len(rows):
        return
    tool = field.tool.take(rows)
    wide = tool.take(np.s_[:, None])
    usual, least = contest.feeds(setup, tool)
    if steps is Steps.FINE:  # who stands below its window is searched from there up to it
        stands = best.figures["feed"][rows][:, None]
        under = stands < least - 1e-9
        usual, least = np.where(under, least, usual), np.where(under, stands, least)
    feeds = _stepped(steps, usual, least, contest.feed_step)[..., None]  # entries, feeds, 1
    shares = {Steps.EASED: EASED_SPEEDS, Steps.FINE: FINE_SPEEDS}.get(steps, contest.speed_shares)
    if setup.machine.speeds:
        shares = np.append(shares, NEXT_STEP)
    speeds = np.maximum(np.floor(contest.speeds(setup, wide, feeds) * shares), 1.0).reshape(len(rows), -1, 1)
    feeds = np.repeat(feeds, len(shares), axis=1)
    done = contest.model.numbers(setup, wide, speeds, feeds, setup.silent)
    shape = feeds.shape[:2]

    def column(values: Any) -> Array:
        return np.broadcast_to(values, (*shape, 1))[..., 0]

    used = {name: column(level) for name, level in all_used(contest.model.rules, done).items()}
    bad = column(excluded(contest.model.rules, {name: level[..., None] for name, level in used.items()}, setup.house))
    beside = contest.beside(done)
    found = column(score(setup, done.operation_time, done.operation_cost, done.secure, done.run_parts, beside))
    soft = soft_ones(contest.model.rules, used)
    strain, straining = _strain(soft, used, shape)
    found = found * (1.0 + HABIT * column(wide.side_use)) + np.where(strain > 1.0 + TOUCHING, STRAINED, 0.0)
    if bad.any():
        worst = np.zeros(shape)
        for level in used.values():
            np.maximum(worst, level, out=worst)
        found = found + np.where(bad, BROKEN + worst * WORSE, 0.0)
    pick = np.argmin(found, axis=1)
    own = np.arange(shape[0])
    improved = found[own, pick] < best.score[rows]
    if not improved.any():
        return
    own, pick, places = own[improved], pick[improved], rows[improved]

    def at(values: Any, join: np.ufunc = np.minimum) -> Array:
        return column(over_passes(np.asarray(values, float), join))[own, pick]

    best.score[places], best.feasible[places], best.setup[places] = found[own, pick], ~bad[own, pick], setup
    names = list(used)
    stacked = np.stack([used[name][own, pick] for name in names])
    hard = set(hard_ones(contest.model.rules, used, setup.house))
    hardly = np.where(np.array([name in hard for name in names])[:, None], stacked, 0.0)
    words = np.array(names, dtype=object)
    best.binding[places], best.breaking[places] = words[stacked.argmax(axis=0)], words[hardly.argmax(axis=0)]
    strained = strain[own, pick]
    best.straining[places] = np.where(strained > 1.0 + TOUCHING, np.array([*soft, ""], dtype=object)[straining[own, pick]], "")
    figures = {
        # no more is said than the spindle reaches: a clamp holds it, a gearbox takes its step below
        "cutting_speed": np.minimum(at(speeds), np.ceil(at(done.cutting_speed, np.maximum))),
        "speed_reached": at(done.cutting_speed),
        "feed": at(done.feed_set),
        "seconds": at(done.operation_time),
        "cost": at(done.operation_cost),
        "change_parts": at(done.change_parts),
        "median_parts": at(done.median_parts),
        "run_parts": at(done.run_parts),
        "secure": at(done.secure),
        "chip_index": at(done.chip_index),
        "edge_cost": at(done.edge_cost),
        "roughness": at(getattr(done, "roughness", 0.0), np.maximum),
        "beside": at(beside),
        "utilisation": stacked.max(axis=0),
        "broken": hardly.max(axis=0),
        "strain": strained,
    }
    for name, values in figures.items():
        best.figures[name][places] = values


def _strain(names: list[str], used: dict[str, Array], shape: tuple[int, ...]) -> tuple[Array, Index]:
    """How much of the closest soft limit is used, and its place among the names."""
    worst, place = np.zeros(shape), np.zeros(shape, np.intp)
    for k, name in enumerate(names):
        closer = used[name] > worst
        worst, place = np.where(closer, used[name], worst), np.where(closer, k, place)
    return worst, place


def _stepped(steps: Steps, feeds: Array, low: Array, step: float) -> Array:
    """The usual feeds, finer ones from the least on, or many between the ends; tidied, (entries, feeds)."""
    if steps is Steps.USUAL:
        return feeds
    span = feeds[:, -1:] - low
    if steps is Steps.FINE:
        within = np.floor((low + span * FINE_FEEDS) / step + 1e-9)
    else:
        within = np.floor((low * EASED_FEEDS + span * EASED_SPANS) / step + 1e-9)
    # rounded down as finer is meant, but not out of the window at its lower end
    inside = np.ceil(np.maximum(within, low / step - 1e-9))
    finer = np.ones(1, bool) if steps is Steps.FINE else EASED_FEEDS >= 1.0
    return np.maximum(np.where(finer, inside, within) * step, LEAST_FEED)
