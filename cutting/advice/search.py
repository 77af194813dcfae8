"""For every pair of insert and holder the best feasible speed, feed and number of passes.

No blind grid: exact rules have excluded pairs before; feeds and depths come from the breaker window, and speed follows
in closed form from life, goal and limits. Pairs are run in chunks, two at a time, so that memory stays bounded.
"""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, fields
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.chips.window import depth_scale
from cutting.mechanics.chip_section import chip_area, engaged_edge, mean_chip_thickness
from cutting.mechanics.finish import RA_OF_RT, WIPER_GAIN
from cutting.money.cost import optimum_life_for_cost, optimum_life_for_time
from cutting.operations.frame.setup import Goal
from cutting.operations.turned import limits as rules
from cutting.operations.turned.case import Case, Cutter, edge_cost
from cutting.operations.turned.contour import path_length
from cutting.operations.turned.over_passes import over_passes
from cutting.operations.turned.physics import Cut, cut, window_scales
from cutting.operations.turned.plan import shared_depths, uncut_diameters
from cutting.operations.turned.setup import Setup
from cutting.wear.life import speed_for_life
from cutting.wear.spread import life_quantile, weibull_shape
from cutting.working import Silent

Array = NDArray[np.float64]
FEEDS = 5
PASS_OPTIONS, MOST_EXTRA_PASSES = 2, 6  # tried for all; tried where forces break
EASED_BY_DEPTH = ("part_bends", "chatter", "spindle_power", "edge_strength", "jaw_grip", "tool_bends")
# before a tool is refused: shares of the goal's own speed, shares of the feed window's lowest feed and of its span above it,
# so many passes more, and for how many pairs, the nearest first
EASED_SPEEDS = np.array([1.1, 1.0, 0.8, 0.6, 0.42, 0.3])
EASED_FEEDS, EASED_SPANS = np.array([0.5, 0.75, 1.0, 1.0, 1.0]), np.array([0.0, 0.0, 0.0, 0.2, 0.5])
EASED_PASSES, MOST_EASED = (0, 1, 2, 3, 5), 400
CHUNK, SMALL = 10_000, 2_000  # pairs run together at most; and below which a second thread does not pay
MOST_PASSES = 24
CUTTING_SHARE = 0.85  # of unattended time that an edge is engaged, at most
STOP_MINUTES = 45.0  # what an unplanned stop takes from an unattended machine (common practice)
WINDOW_MARGIN, NOSE_SHARE = 0.92, 0.5  # a start stays inside the window and at half the corner radius
SILENT = Silent()


@dataclass
class Best:
    """The best point of each pair: arrays over pairs."""

    score: Array
    feasible: NDArray[np.bool_]
    passes: NDArray[np.intp]
    cutting_speed: Array
    speed_reached: Array
    feed_per_rev: Array
    depth_of_cut: Array
    seconds: Array
    cost: Array
    change_parts: Array
    median_parts: Array
    secure: Array
    chip_index: Array
    edge_cost: Array
    roughness: Array
    binding: NDArray[np.intp]
    utilisation: Array
    breaking: NDArray[np.intp]
    broken: Array  # how much of the hard limit that it breaks is used

    @staticmethod
    def empty(count: int) -> Best:
        integer = ("passes", "binding", "breaking")
        made: dict[str, Any] = {f.name: np.zeros(count, np.intp) if f.name in integer else np.full(count, np.nan) for f in fields(Best)}
        made["score"], made["feasible"] = np.full(count, np.inf), np.zeros(count, bool)
        return Best(**made)


def best_of_pairs(case: Case, cutter: Cutter) -> Best:
    """The best point of every pair; `cutter` arrays have shape (pairs, 1)."""
    count = len(cutter.nose_radius)
    best = Best.empty(count)
    size = min(CHUNK, max(SMALL, -(-count // 2)))
    parts = [slice(start, min(start + size, count)) for start in range(0, count, size)]
    if len(parts) == 1:
        _search_chunk(case, cutter, best, parts[0])
        return best
    # chunks write to places of their own, and NumPy lets go of the interpreter lock while it computes
    with ThreadPoolExecutor(max_workers=2) as pool:
        list(pool.map(lambda part: _search_chunk(case, cutter.take(part), best, part), parts))
    return best


def _search_chunk(case: Case, cutter: Cutter, best: Best, part: slice) -> None:
    stock = case.setup.stock_to_remove
    deepest = _deepest(cutter)[:, 0]
    fewest = np.clip(np.ceil(stock / deepest - 1e-6), 1, MOST_PASSES).astype(int)
    everything = np.arange(len(fewest))
    names = [rule.name for rule in rules.RULES if rule.applies(case)]
    eased = np.array([name in EASED_BY_DEPTH for name in names])
    for extra in range(MOST_EXTRA_PASSES):
        # more passes only help where a force is what breaks
        waiting = everything if extra < PASS_OPTIONS else np.flatnonzero(~best.feasible[part] & eased[best.breaking[part]])
        for passes in np.unique(fewest[waiting] + extra):
            chosen = waiting[fewest[waiting] + extra == passes]
            _run(case, cutter.take(chosen), int(passes), best, chosen + part.start)
    _ease(case, cutter, best, part, fewest)


def _ease(case: Case, cutter: Cutter, best: Best, part: slice, fewest: NDArray[np.intp]) -> None:
    """Before a tool is refused: slower, finer and shallower, for the pairs that stand nearest to their limits."""
    bad = np.flatnonzero(~best.feasible[part])
    bad = bad[np.argsort(best.score[part][bad], kind="stable")][:MOST_EASED]
    for extra in EASED_PASSES:
        waiting = bad[~best.feasible[part][bad]]
        for passes in np.unique(fewest[waiting] + extra):
            chosen = waiting[fewest[waiting] + extra == passes]
            _run(case, cutter.take(chosen), int(passes), best, chosen + part.start, True)


def _deepest(cutter: Cutter) -> Array:
    """Largest depth [mm] that window and edge allow."""
    tallest = cutter.window_centre[..., 1] + 1.0 / np.maximum(cutter.window_normals[..., 1].max(axis=-1), 1e-9)
    length = np.where(cutter.round_shape > 0, cutter.inscribed_circle, cutter.edge_length)
    deepest = np.minimum(tallest * depth_scale(cutter.inscribed_circle), cutter.depth_share * length)
    return np.fmin(deepest, cutter.book[..., rules.DEPTH_HIGH])


def _run(case: Case, cutter: Cutter, passes: int, best: Best, places: NDArray[np.intp], eased: bool = False) -> None:
    """Run pairs with so many passes over their feeds; `eased` tries slower and finer ones in place of the goal's own."""
    if not len(places):
        return
    setup = case.setup
    depths = shared_depths(setup.stock_to_remove, passes, setup.last_depth)
    depth = float(depths.max())
    if setup.operation == "face":
        diameters = np.full(passes, setup.feature.start_diameter)
    else:
        diameters = uncut_diameters(setup.feature.start_diameter, depths)
    feeds = _feeds(case, cutter, depth)[..., None]  # pairs, feeds, 1
    wide = _widened(cutter)
    speeds = _speeds(case, wide, feeds, depth, diameters)
    if eased:
        feeds, speeds = _easier(feeds, speeds)
    done = cut(case, wide, speeds, feeds, depths if setup.last_depth else depth, diameters, SILENT)
    used = rules.all_utilisations(case, wide, done)
    shape = feeds.shape[:2]
    bad = np.broadcast_to(rules.excluded(case, wide, done, used), (*shape, 1))[..., 0]
    score = np.where(bad, 1e9, 0.0) + _score(setup, done, shape)
    if bad.any():
        worst = np.zeros(shape)
        for level in used.values():
            np.maximum(worst, np.broadcast_to(level, (*shape, 1))[..., 0], out=worst)
        score = score + np.where(bad, worst * 1e6, 0.0)
    pick = np.argmin(score, axis=1)
    rows = np.arange(shape[0])
    improved = score[rows, pick] < best.score[places]
    if improved.any():
        _store(best, places[improved], rows[improved], pick[improved], passes, depth, score, bad, speeds, done, used, shape)


def _easier(feeds: Array, speeds: Array) -> tuple[Array, Array]:
    """Every eased speed with every eased feed, tidied: (pairs, both, 1) each."""
    low, high = feeds[:, :1, 0], feeds[:, -1:, 0]
    feed = np.maximum(np.floor((low * EASED_FEEDS + (high - low) * EASED_SPANS) / 0.005 + 1e-9) * 0.005, 0.01)
    slow = np.maximum(np.floor(speeds[:, :1, 0] * EASED_SPEEDS), 1.0)
    both = (len(feed), len(EASED_SPEEDS), len(EASED_FEEDS))
    every_feed = np.broadcast_to(feed[:, None, :], both).reshape(len(feed), -1)
    every_speed = np.broadcast_to(slow[:, :, None], both).reshape(len(feed), -1)
    return every_feed[..., None], every_speed[..., None]


def _store(
    best: Best,
    places: Any,
    rows: Any,
    pick: Any,
    passes: int,
    depth: float,
    score: Array,
    bad: Any,
    speeds: Array,
    done: Cut,
    used: dict[str, Array],
    shape: tuple[int, ...],
) -> None:
    def at(values: Any, reduce: np.ufunc = np.minimum) -> Any:
        array = np.asarray(values)
        array = over_passes(array, reduce)[..., 0] if array.ndim > 2 else array
        return np.broadcast_to(array, shape)[rows, pick]

    best.score[places] = score[rows, pick]
    best.feasible[places] = ~bad[rows, pick]
    best.passes[places] = passes
    best.depth_of_cut[places] = depth
    best.cutting_speed[places] = at(speeds)
    best.speed_reached[places] = at(done.cutting_speed)
    best.feed_per_rev[places] = at(done.feed_per_rev)
    best.seconds[places] = at(done.operation_time)
    best.cost[places] = at(done.operation_cost)
    best.change_parts[places] = at(done.change_parts)
    best.median_parts[places] = at(done.median_parts)
    best.secure[places] = at(done.secure)
    best.chip_index[places] = at(done.chip_index)
    best.edge_cost[places] = at(done.edge_cost)
    best.roughness[places] = at(done.roughness, np.maximum)
    stacked = np.stack([np.broadcast_to(used[name][..., 0], shape)[rows, pick] for name in used])
    best.binding[places] = stacked.argmax(axis=0)
    best.utilisation[places] = stacked.max(axis=0)
    hard = np.array([rule.severity.value == "hard" and rule.name not in rules.BOOK_RULES for rule in rules.RULES if rule.name in used])
    hardly = np.where(hard[:, None], stacked, 0.0)
    best.breaking[places], best.broken[places] = hardly.argmax(axis=0), hardly.max(axis=0)


def _score(setup: Setup, done: Cut, shape: tuple[int, ...]) -> Array:
    goal = setup.goal
    cost = np.broadcast_to(done.operation_cost, (*shape, 1))[..., 0]
    if goal is Goal.FASTEST:
        return np.broadcast_to(done.operation_time, (*shape, 1))[..., 0] + 1e-3 * cost
    if goal is Goal.MOST_SECURE:
        # below the wanted probability security comes first; above it a stop is weighed as what it costs
        secure = np.broadcast_to(done.secure, (*shape, 1))[..., 0]
        runs = np.broadcast_to(done.run_parts, (*shape, 1))[..., 0]
        shortfall = np.maximum(setup.house.secure_probability - 0.02 - secure, 0.0)
        stop = STOP_MINUTES / 60.0 * setup.machine.rate * (1.0 - secure) / runs
        return np.asarray(shortfall * 1e4 + stop + cost)
    return cost


def _feeds(case: Case, cutter: Cutter, depth: float) -> Array:
    """Feeds to try per pair (pairs, FEEDS): over the window's span at this depth, held by nose and finish, tidied."""
    setup = case.setup
    across, along = window_scales(case, cutter, cutter.reference_speed)
    a = depth / along - cutter.window_centre[..., 1]
    nf, na = cutter.window_normals[..., 0], cutter.window_normals[..., 1]
    with np.errstate(divide="ignore", invalid="ignore"):
        room = (1.0 - na * a[..., None]) / nf
    low = np.where(nf < -1e-12, room, -np.inf).max(axis=-1)
    high = np.where(nf > 1e-12, room, np.inf).min(axis=-1)
    low, high = (cutter.window_centre[..., 0] + low) * across, (cutter.window_centre[..., 0] + high) * across
    high = np.minimum(high * WINDOW_MARGIN, rules.nose_feed(cutter, NOSE_SHARE))
    low = np.maximum(low * 1.03, 0.01)
    if setup.feature.roughness is not None:
        high = np.minimum(high, _finish_feed(case, cutter))
    # advice starts inside the supplier's window, where there is one
    high = np.fmin(high, cutter.book[..., rules.FEED_HIGH])
    low = np.minimum(np.fmax(low, cutter.book[..., rules.FEED_LOW]), high)
    steps = low + (high - low) * np.linspace(0.0, 1.0, FEEDS) ** 0.8
    tidied = np.floor(steps / 0.005 + 1e-9) * 0.005
    return np.maximum(tidied, np.maximum(np.minimum(steps, 0.02), 0.005))


def _finish_feed(case: Case, cutter: Cutter) -> Array:
    """Feed [mm/rev] that gives the wanted Ra, from Brammertz' two leading terms at a good speed."""
    wanted = case.setup.feature.roughness or 1.0
    gain = np.where(cutter.wiper > 0, WIPER_GAIN, 1.0)
    ridge = 500.0 * case.minimum_chip_share * cutter.edge_radius
    marks = wanted / (RA_OF_RT * 1.16 * gain) - ridge
    return np.sqrt(np.maximum(marks, 0.05) * 8.0 * cutter.nose_radius / 1000.0)


def _speeds(case: Case, cutter: Cutter, feeds: Array, depth: float, diameters: Array) -> Array:
    """Speed per pair and feed (pairs, feeds, 1): the goal's own optimum, held by book and power; whole m/min."""
    setup = case.setup
    machine, house = setup.machine, setup.house
    area = chip_area(feeds, depth)
    h = mean_chip_thickness(area, engaged_edge(depth, cutter.cutting_edge_angle, cutter.nose_radius))
    share = life_quantile(house.change_probability(setup.goal), weibull_shape(cutter.coefficient_of_variation))
    n, change = cutter.taylor_exponent, machine.edge_change_time

    def at_life(minutes: Any) -> Array:
        return speed_for_life(
            minutes,
            cutter.reference_speed,
            cutter.speed_factor,
            n,
            cutter.reference_feed,
            h,
            cutter.feed_exponent,
            cutter.reference_depth,
            depth,
            cutter.depth_exponent,
        )

    if setup.goal is Goal.FASTEST:
        life = optimum_life_for_time(n, change)
    else:
        life = optimum_life_for_cost(n, change, edge_cost(cutter, depth), machine.rate)
        if setup.goal is Goal.MOST_SECURE:
            life = 1.5 * life
    # the planned interval is a share of the median, and it is the interval that the optimum speaks of
    speed = at_life(np.maximum(life / share, 3.0))
    if setup.goal is Goal.MOST_SECURE and setup.batch.unattended_hours > 0:
        # alone for so long: the edge must last the whole run with the wanted probability
        # in cut for only its share of the piece, where other operations take turns
        share_cut = CUTTING_SHARE
        if setup.batch.piece_seconds:
            length = path_length(setup.feature) if setup.operation == "turn" else setup.feature.start_diameter / 2
            cutting = 60.0 * np.pi * diameters.mean() * length * len(diameters) / (1000.0 * speed * feeds)
            share_cut = np.minimum(cutting / setup.batch.piece_seconds, CUTTING_SHARE)
        minutes = setup.batch.unattended_hours * 60.0 * share_cut
        q = life_quantile(house.secure_probability, weibull_shape(cutter.coefficient_of_variation))
        speed = np.minimum(speed, at_life(minutes / q))
    if house.never_above_book:
        own = cutter.book[..., rules.SPEED_HIGH]
        speed = np.minimum(speed, np.where(np.isnan(own), rules.BOOK_HIGH * at_life(15.0), own))
    speed = np.maximum(speed, np.fmax(cutter.minimum_speed, cutter.book[..., rules.SPEED_LOW]))
    speed = np.minimum(speed, np.pi * diameters.max() * case.top_speed / 1000.0)
    return np.maximum(np.floor(_held_by_power(case, cutter, speed, h, area, diameters)), 1.0)


def _held_by_power(case: Case, cutter: Cutter, speed: Array, h: Array, area: Array, diameters: Array) -> Array:
    setup = case.setup
    work, machine = setup.work, setup.machine
    rake = work.material.group.reference_rake
    k_rake = 1.0 if rake is None else np.maximum(1.0 - 0.015 * (cutter.rake - rake), 0.5)
    force = work.specific_force_1 * h ** (-work.material.force_exponent) * k_rake * area * setup.house.wear_factor
    for _ in range(2):
        slowest = 1000.0 * speed / (np.pi * diameters.max())
        power = machine.spindle_power(np.minimum(slowest, case.top_speed))
        speed = np.minimum(speed, 0.985 * 60_000.0 * power / force)
    return speed


def _widened(cutter: Cutter) -> Cutter:
    """The cutter with an axis for feeds: (pairs, 1, 1); windows keep their own axes behind."""
    made = {}
    for name in cutter.__dataclass_fields__:
        made[name] = getattr(cutter, name)[:, None]
    return Cutter(**made)
