"""For every entry of a contest the best feasible speed, feed and way, for all kinds of operation alike.

No blind grid: exact rules have excluded pairs before; feeds come from the tool's own window, and speed follows in closed form
from life, goal and limits. Entries are run in chunks, two at a time, so that memory stays bounded.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from enum import Enum
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from cutting.advice.best import Best
from cutting.advice.contest import Array, Contest, Entrants, Try
from cutting.advice.score import NOT_HELD, left_over, score, weighed
from cutting.operations.frame.chance import gives_way_at, kept_in_hand, spreads_over
from cutting.operations.frame.outcome import TOUCHING
from cutting.operations.frame.over_passes import over_passes
from cutting.operations.frame.risk import expected_miss, share_of
from cutting.operations.frame.rule import all_used, hard_ones, soft_ones
from cutting.tooling.roles import Index

# before a tool is refused: shares of the goal's own speed, shares of the lowest feed and of the span above it, and for how many
# entries, the nearest first
EASED_SPEEDS = np.array([1.0, 1.1, 0.8, 0.6, 0.42, 0.3])
EASED_FEEDS, EASED_SPANS = np.array([0.5, 0.75, 1.0, 1.0, 1.0]), np.array([0.0, 0.0, 0.0, 0.2, 0.5])
MOST_EASED, FEW_EASED, LEAST_FEED = 400, 60, 0.01  # few where many stand already: the nearest misses are all that is told then
LEADING = 160  # entries that are searched in fine steps, four times what a ranking shows
# of two speeds that do the same, as under a clamp, the goal's own is said: it stands first
FINE_FEEDS, FINE_SPEEDS, SLOW_SPEEDS = (
    np.linspace(0.0, 1.0, 25),
    np.array([1.0, 1.1, 0.9, 0.8]),
    np.array([1.25, 0.9, 0.7, 0.55, 0.42, 0.3]),
)
HOT_SPEEDS = np.array([1.0, 1.05, 1.1, 0.97, 0.94])  # of hardened metal
SLOW_FROM = 0.75  # of the least feed
NEXT_STEP = np.array([1.2, 1.42])  # on a gearbox the step above may be cheaper than the one below
CHUNK, SMALL = 12_000, 2_000  # entries run together at most; and below which a second thread does not pay
SHORT = 2.0  # shares of an operation that it is worth to be as sure as a plan of several wants, by each share of a bound (common practice)
BROKEN, WORSE = 1e9, 1e6  # what a hard limit weighs that is over, and each further bound by which it is
NEARLY = 50.0  # shares of an operation that each share weighs by which a limit holds less surely than is asked: a hair is no cliff
SAMPLE = 24  # entries from which it is taken how far each limit may be off, before those that lead are looked at one by one
LEAST_USED = 1e-12
Mask = NDArray[np.bool_]
Spreads = dict[str, Array]  # of each limit's logarithm, by name: (entries, 1), or one for all


class Steps(Enum):
    """How feeds and speeds are stepped."""

    USUAL = 0  # as the kind does for all its tools
    EASED = 1  # slower and finer, before a tool is refused
    FINE = 2  # closely, for those that lead
    SLOW = 3  # as closely and slower, for those of them that are not yet sure


CLOSELY = (Steps.FINE, Steps.SLOW)


def best_of_field(contest: Contest, setup: Any, field: Entrants, eased: bool = True) -> Best:
    """The best point of every entry: from a few feeds for all, from fine steps for those that lead.

    Those that stand by no means are `eased` before they are refused; else only where nothing stands.

    Hard limits are held with the chance that is asked of them: how far each may be off is taken from a sample first, and of those that
    lead from their own best points.
    """
    best = _coarsely(contest, setup, field, eased)
    stands = np.flatnonzero(best.feasible | best.close)
    leading = stands[np.argsort(best.score[stands], kind="stable")][:LEADING]
    for rows, tried in alike(best, leading):
        tool = field.tool.take(rows)
        speed, feed = (best.figures[name][rows][:, None] for name in ("cutting_speed", "feed"))
        own = spreads_over(contest.model, tried, tool, speed, feed)
        best.score[rows] = np.inf  # by a sample they may have been taken for surer than they are
        _run(contest, tried, field, best, rows, own, Steps.FINE)
        unsure = ~best.feasible[rows]
        if unsure.any():
            some = {name: spread[unsure] if len(spread) > 1 else spread for name, spread in own.items()}
            _run(contest, tried, field, best, rows[unsure], some, Steps.SLOW)
    return best


def alike(best: Best, rows: Index) -> Iterator[Try]:
    """Entries by the set-up in which they stand."""
    known: dict[int, Any] = {id(best.setup[k]): best.setup[k] for k in rows}
    for key, tried in known.items():
        yield np.array([k for k in rows if id(best.setup[k]) == key], np.intp), tried


def _coarsely(contest: Contest, setup: Any, field: Entrants, eased: bool) -> Best:
    count = field.count
    best = Best.empty(count)
    threads = 2 * -(-count // (2 * CHUNK))  # chunks of one size, so that neither thread waits for a rest
    size = max(SMALL, -(-count // max(threads, 1)))
    parts = [slice(start, min(start + size, count)) for start in range(0, count, size)]
    if len(parts) == 1:
        _search(contest, setup, field, best, parts[0], eased)
        return best
    # chunks write to places of their own, and NumPy lets go of the interpreter lock while it computes
    with ThreadPoolExecutor(max_workers=2) as pool:
        list(pool.map(lambda part: _search(contest, setup, field, best, part, eased), parts))
    return best


def _search(contest: Contest, setup: Any, field: Entrants, best: Best, part: slice, eased: bool) -> None:
    spreads: Spreads = {}
    for rows, tried in contest.tries(setup, field, best, part):
        spreads = spreads or _sampled(contest, tried, field, rows)
        _run(contest, tried, field, best, rows, spreads)
    if not eased and best.feasible[part].any():
        return
    bad = np.flatnonzero(~best.feasible[part]) + part.start
    most = FEW_EASED if int(np.count_nonzero(best.feasible[part])) >= LEADING else MOST_EASED
    bad = bad[np.argsort(best.score[bad], kind="stable")][:most]
    for rows, tried in contest.eased(setup, field, best, bad):
        waiting = rows[~best.feasible[rows]]
        _run(contest, tried, field, best, waiting, spreads, Steps.EASED)
    if not best.feasible[part].any():  # before nothing is offered, the nearest closely and in every way
        bad = bad[~best.feasible[bad]][:FEW_EASED]
        for steps in CLOSELY:
            for rows, tried in contest.eased(setup, field, best, bad):
                _run(contest, tried, field, best, rows[~best.feasible[rows]], spreads, steps)


def _sampled(contest: Contest, setup: Any, field: Entrants, rows: Index) -> Spreads:
    """How far each limit may be off in the middle of a sample: one number for all entries."""
    if not len(rows):
        return {}
    some = rows[np.unique(np.linspace(0, len(rows) - 1, min(SAMPLE, len(rows))).astype(np.intp))]
    tool = field.tool.take(some)
    feeds, _ = contest.feeds(setup, tool)
    feed = feeds[:, feeds.shape[1] // 2, None]
    speed = np.maximum(contest.speeds(setup, tool.take(np.s_[:, None]), feed[:, :, None])[..., 0], 1.0)
    found = spreads_over(contest.model, setup, tool, speed, feed)
    return {name: np.array([[float(np.median(spread))]]) for name, spread in found.items()}


def _run(contest: Contest, setup: Any, field: Entrants, best: Best, rows: Index, spreads: Spreads, steps: Steps = Steps.USUAL) -> None:
    """Run entries in one set-up over feeds, each at the goal's own speed for it and at shares of that; keep what is better."""
    if not len(rows):
        return
    tool = field.tool.take(rows)
    wide = tool.take(np.s_[:, None])
    usual, least = contest.feeds(setup, tool)
    if steps is Steps.SLOW:  # a window may begin lower at a lower speed
        least = SLOW_FROM * least
    if steps in CLOSELY:  # who stands below its window is searched from there up to it
        stands = best.figures["feed"][rows][:, None]
        under = stands < least - 1e-9
        usual, least = np.where(under, least, usual), np.where(under, stands, least)
    feeds = _stepped(steps, usual, least, contest.feed_step)[..., None]  # entries, feeds, 1
    shares = {Steps.EASED: EASED_SPEEDS, Steps.FINE: FINE_SPEEDS, Steps.SLOW: SLOW_SPEEDS}.get(steps, contest.speed_shares)
    if setup.work.material.group.letter == "H":  # slower still it would leave the heat that softens its chip
        shares = HOT_SPEEDS
    if setup.machine.speeds:
        shares = np.append(shares, NEXT_STEP)
    asked = setup.asked_chance
    sure = _surely_powered(setup, spreads, setup.aimed_chance)
    speeds = np.maximum(np.floor(contest.speeds(sure, wide, feeds) * shares), 1.0).reshape(len(rows), -1, 1)
    feeds = np.repeat(feeds, len(shares), axis=1)
    done = contest.model.numbers(setup, wide, speeds, feeds, setup.silent)
    shape = feeds.shape[:2]

    def column(values: Any) -> Array:
        return np.broadcast_to(values, (*shape, 1))[..., 0]

    used = {name: column(level) for name, level in all_used(contest.model.rules, done).items()}
    hard, soft = hard_ones(contest.model.rules, used, setup.house), soft_ones(contest.model.rules, used)
    nothing = np.zeros((1, 1))
    spares = {rule.name: rule.spare(done) for rule in contest.model.rules}
    # up to what each hard limit is used that holds as surely as is asked, as a plan of several wants, and half as surely as is asked
    kept, wished = (
        {name: kept_in_hand(chance, spreads.get(name, nothing), spares[name]) for name in hard} for chance in (asked, setup.aimed_chance)
    )
    halved = {name: gives_way_at(asked / 2.0, spreads.get(name, nothing), spares[name]) for name in hard}
    missed, worst = _missed(used, kept, shape)
    bad, over = worst > 1.0 + TOUCHING, _missed(used, halved, shape)[1] > 1.0 + TOUCHING
    beside = contest.beside(done)
    left = left_over(setup, done.edge_cost, done.change_parts)
    found = column(score(setup, done.operation_time, done.operation_cost, done.secure, done.run_parts, beside + left))
    misses = {name: share_of(name) * expected_miss(used[name], spreads.get(name, nothing)) for name in soft}
    risk = sum(misses.values(), np.zeros(shape))
    found = weighed(found, column(wide.side_use), risk)
    if setup.aimed_chance != asked:  # what holds as asked, and not as a plan of several wants, has a price that grows with the miss
        found = found * (1.0 + SHORT * _missed(used, wished, shape)[0])
    if bad.any():  # the nearer to holding, the better, by all that is missed: another speed, feed or peck may do the rest
        found = np.where(over, found + NOT_HELD + BROKEN + worst * WORSE, np.where(bad, NOT_HELD + found * (1.0 + NEARLY * missed), found))
    pick = np.argmin(found, axis=1)
    own = np.arange(shape[0])
    improved = found[own, pick] < best.score[rows]
    if not improved.any():
        return
    own, pick, places = own[improved], pick[improved], rows[improved]

    def at(values: Any, join: np.ufunc = np.minimum) -> Array:
        return column(over_passes(np.asarray(values, float), join))[own, pick]

    best.score[places], best.feasible[places], best.setup[places] = found[own, pick], ~bad[own, pick], setup
    best.close[places] = (bad & ~over)[own, pick]
    names = list(used)
    stacked = np.stack([used[name][own, pick] / np.broadcast_to(kept.get(name, 1.0), shape)[own, pick] for name in names])
    hardly = np.where(np.array([name in kept for name in names])[:, None], stacked, 0.0)
    words = np.array(names, dtype=object)
    best.binding[places], best.breaking[places] = words[stacked.argmax(axis=0)], words[hardly.argmax(axis=0)]
    strained, straining = _most_missed(misses, used, own, pick)
    best.straining[places] = straining
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
        "left_over": at(left),
        "utilisation": stacked.max(axis=0),
        "broken": hardly.max(axis=0),
        "strain": strained,
        "risk": risk[own, pick],
        "chance": _least_sure({name: used[name] / spares[name] for name in hard}, spreads, own, pick),
    }
    for name, values in figures.items():
        best.figures[name][places] = values


def _surely_powered(setup: Any, spreads: Spreads, asked: float) -> Any:
    """The set-up on a machine with the power that is used as surely as is asked: at its speeds the power's limit holds."""
    spread = spreads.get("spindle_power")
    if spread is None:
        return setup
    share = float(np.median(kept_in_hand(asked, spread)))
    curve = tuple((n, power * share) for n, power in setup.machine.power_curve)
    return replace(setup, machine=replace(setup.machine, power_curve=curve))


def _missed(used: Mapping[str, Array], bounds: Mapping[str, Any], shape: tuple[int, ...]) -> tuple[Array, Array]:
    """By what shares limits are used beyond bounds, all together, and the closest of them as a share of its bound; 0 where none is near."""
    missed, worst = np.zeros(shape), np.zeros(shape)
    for name, bound in bounds.items():
        if np.max(used[name]) > np.min(bound):  # most limits are near for no tool at all
            level = used[name] / bound
            np.maximum(worst, level, out=worst)
            missed += np.maximum(level - 1.0, 0.0)
    return missed, worst


def _most_missed(misses: Mapping[str, Array], used: Mapping[str, Array], own: Index, pick: Index) -> tuple[Array, NDArray[Any]]:
    """Of each entry how far the soft limit is used that costs most of those over their bounds, and its name; 0 and blank for none."""
    if not misses:
        return np.zeros(len(own)), np.full(len(own), "", dtype=object)
    names = np.array([*misses], dtype=object)
    level = np.stack([used[name][own, pick] for name in misses])
    cost = np.where(level > 1.0 + TOUCHING, np.stack([one[own, pick] for one in misses.values()]), 0.0)
    worst = cost.argmax(axis=0)
    is_over = cost.max(axis=0) > 0.0
    return np.where(is_over, level[worst, np.arange(len(own))], 0.0), np.where(is_over, names[worst], "")


def _least_sure(used: Mapping[str, Array], spreads: Spreads, own: Index, pick: Index) -> Array:
    """The chance of the hard limit of each entry that holds least surely; `used` of what really gives way."""
    least = np.ones(len(own))
    for name, level in used.items():
        margin = -np.log(np.maximum(level[own, pick], LEAST_USED))
        spread = np.broadcast_to(spreads.get(name, np.zeros((1, 1)))[:, 0], (len(level),))[own]
        sure = np.where(spread > LEAST_USED, ndtr(margin / np.maximum(spread, LEAST_USED)), margin >= -TOUCHING)
        least = np.minimum(least, sure)
    return least


def _stepped(steps: Steps, feeds: Array, low: Array, step: float) -> Array:
    """The usual feeds, finer ones from the least on, or many between the ends; tidied, (entries, feeds)."""
    if steps is Steps.USUAL:
        return feeds
    span = feeds[:, -1:] - low
    if steps in CLOSELY:
        within = np.floor((low + span * FINE_FEEDS) / step + 1e-9)
    else:
        within = np.floor((low * EASED_FEEDS + span * EASED_SPANS) / step + 1e-9)
    # rounded down as finer is meant, but not out of the window at its lower end
    inside = np.ceil(np.maximum(within, low / step - 1e-9))
    finer = np.ones(1, bool) if steps in CLOSELY else EASED_FEEDS >= 1.0
    return np.maximum(np.where(finer, inside, within) * step, LEAST_FEED)
