"""Which inserts and holders compete in turning and facing, at which depths, feeds and speeds."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import Any

import numpy as np

from cutting.advice.best import Best
from cutting.advice.candidate import Candidate, Refused, entries_set
from cutting.advice.contest import Array, Contest, Entrants, Try
from cutting.advice.goal_speed import HARD_FROM
from cutting.advice.rank import rank
from cutting.chips.window import depth_scale
from cutting.errors import CuttingError
from cutting.mechanics.chip_section import chip_area, engaged_edge, mean_chip_thickness
from cutting.mechanics.finish import RA_OF_RT, SIDE_FLOW, WIPER_GAIN, minimum_chip_share
from cutting.mechanics.force import rake_factor
from cutting.operations.frame.money import goal_life, unattended_life
from cutting.operations.frame.setup import Skin
from cutting.operations.turned import book
from cutting.operations.turned.case import Case, Cutter, case_of, cutters, edge_cost
from cutting.operations.turned.contour import path_length
from cutting.operations.turned.evaluate import MODEL
from cutting.operations.turned.feature import Direction, Feature, Settings
from cutting.operations.turned.fit import check_pairs
from cutting.operations.turned.limits import nose_feed
from cutting.operations.turned.physics import window_scales
from cutting.operations.turned.plan import FIRST_CUT, pass_diameters
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface
from cutting.tooling.crib import Crib
from cutting.tooling.items import Insert
from cutting.tooling.roles import Index
from cutting.wear.life import factor_along_edge, speed_for_life
from cutting.wear.spread import weibull_shape

UNSET = Settings(100.0, 0.1, 1.0)  # of a set-up that is ranked: it does not matter
FEEDS = 5
PASS_OPTIONS, EXTRA_PASSES = 2, (0, 1, 2, 4)  # so many options are tried for all, the others where forces break
EASED_BY_DEPTH = ("part_bends", "chatter", "spindle_power", "edge_strength", "jaw_grip", "tool_bends")
EASED_PASSES = (0, 1, 2, 3, 5)  # so many passes more before a tool is refused
MOST_PASSES = 24
MEASURED_FROM = 0.15  # mm, the lightest cut that a repair leaves to measure before (common practice)
LEAST_PASS = 0.02  # mm, the lightest cut that stock is divided into (common practice: a ground edge takes 0.02 to 0.05)
MOST_DEEPER = 250  # entries of a chunk that break a force and are tried in ever more passes
MOST_DIVIDED = 3000  # entries of a chunk that are tried in one pass more though they stand
FINE = 0.3  # of the highest feed, from which on a cut below the window is tried
SHALLOW = 0.97  # of the way from a window's middle to its lower edge, where its feeds are taken for what is shallower still
WINDOW_MARGIN, NOSE_SHARE = 0.92, 0.5  # a start stays inside the window and at half the corner radius
POWER_MARGIN = 0.985
SLIM = ("D", "V", "T")  # shapes whose edge stands at a small κr when it is fed away from the chuck
PULLS = "fed away from the chuck it pulls the part out of its jaws"
MOST_GUESTS = 3  # rows of the other direction that stand among its own
ROUGH_FROM, AWAY_ROOM = 1.0, 4.0  # mm of stock, and times it in length, from which a cut is fed away (common practice)
LEAST_DEPTH = 0.005  # mm, that a cut can be set to
FAST = 200.0  # m/min, a good speed for a finish in steel
DEEPEST = 30.0  # mm, a depth that no edge takes
INSIDE = 1.03  # times the lower end of the chip window: the first feed that is surely inside it
COARSE_LEAST = 0.01  # mm/rev
CROWDED = 0.8  # feeds stand a little closer where the window ends than where it begins
FEED_STEP = 0.005  # mm/rev, as feeds are typed
FEW_STEPS = 4  # steps of feed up to which a tried feed is not rounded
KI_FAST = 1.16  # Ki of a ductile metal at finishing speed, mechanics/finish.py
LEAST_MARKS = 0.05  # µm Rt that the feed may always leave
BOOK_LIFE = 15.0  # min that an edge lasts at the speeds of wear/reference.py


def turned_for(setup: Any, crib: Crib, feature: Feature, operation: str = "turn", **more: Any) -> Setup:
    """A turned or bored cut on the part, machine and house rules of a set-up of another kind, to be ranked from a crib."""
    said: dict[str, Any] = {"machine": setup.machine, "holding": setup.holding, **more}
    return Setup(
        operation=operation,
        work=setup.work,
        insert=crib.inserts[0],
        holder=crib.holders[0],
        feature=feature,
        settings=replace(UNSET, coolant=setup.settings.coolant),
        house=setup.house,
        batch=setup.batch,
        goal=setup.goal,
        skin=setup.skin,
        **said,
    )


def enter(setup: Setup, crib: Crib) -> Entrants:
    """Every pair that fits by exact rules. Raises `CuttingError` for a feature, machine or holding that cannot be."""
    neutral = _neutral(setup)
    case_of(neutral)  # refuses what cannot be
    left, right = crib.places
    fits, counts = check_pairs(neutral, crib, left, right)
    left, right = left[fits], right[fits]
    cutter = cutters(neutral, crib, left, right)
    known = ~np.isnan(cutter.reference_speed[:, 0])
    refused = [Refused(name, reason, lost) for name, (reason, lost) in counts.items()]
    if unknown := int(np.count_nonzero(~known)):
        refused.append(Refused("starting_speed", "no starting speed for this tool material in this group", unknown))
    return Entrants(crib.parts, (left[known], right[known]), cutter.take(known), tuple(refused), len(fits))


def _neutral(setup: Setup) -> Setup:
    """The set-up without the settings of its present tool, so that they cannot refuse the case."""
    depth = min(max(setup.stock_to_remove, LEAST_DEPTH), DEEPEST)
    return setup.with_settings(
        cutting_speed=100.0, feed_per_rev=0.1, depth_of_cut=depth, overhang=None, pass_depths=(), swivel=None, relief=None
    )


def _in_passes(setup: Setup, passes: int) -> Setup:
    last = setup.last_depth if passes > 1 else None
    stock = setup.stock_to_remove
    return _neutral(setup).with_settings(depth_of_cut=(stock - (last or 0.0)) / (passes - (last is not None)))


def _by_a_light_last(setup: Setup, fewest: Index, extra: int, entries: Index) -> Iterator[Try]:
    """Where a force is too much for the size: the fewest passes, and a last one as light as `extra` more equal ones would be."""
    if setup.last_depth is not None or setup.surface is Surface.FACE:
        return
    for passes in np.unique(fewest):
        last = max(round(setup.stock_to_remove / (int(passes) + extra), 2), LEAST_PASS)
        if last < setup.stock_to_remove / (int(passes) + 1):
            depth = (setup.stock_to_remove - last) / int(passes)
            yield entries[fewest == passes], _neutral(setup).with_settings(depth_of_cut=depth, last_depth=last)


def patch(setup: Setup) -> dict[str, str]:
    """The depth, the last one where it is lighter than the others, and the direction where it is not the usual one."""
    s = setup.settings
    # rounded up a hair, so that the text still gives the same number of passes
    found = {"depth_of_cut": f"{np.ceil(s.depth_of_cut * 1e4) / 1e4:g} mm"}
    if s.last_depth is not None:
        found["last_depth"] = f"{s.last_depth:g} mm"
    return found if s.direction is Direction.TOWARDS else {**found, "direction": s.direction.value}


def _fewest(setup: Setup, cutter: Cutter) -> Index:
    """Passes at the largest depth that window and edge of each pair allow."""
    tallest = cutter.window_centre[..., 1] + 1.0 / np.maximum(cutter.window_normals[..., 1].max(axis=-1), 1e-9)
    length = np.where(cutter.round_shape > 0, cutter.inscribed_circle, cutter.edge_length)
    deepest = np.minimum(tallest * depth_scale(cutter.inscribed_circle), cutter.depth_share * length)
    deepest = np.fmin(deepest, cutter.book[..., book.DEPTH_HIGH])[:, 0]
    if setup.skin is Skin.WELD:
        deepest = np.minimum(deepest, _under_weld(setup))
    return np.clip(np.ceil(setup.stock_to_remove / deepest - 1e-6), 1, _most_passes(setup)).astype(np.intp)


def _under_weld(setup: Setup) -> float:
    """The deepest cut under weld [mm], whose height nobody knows: a repair measures before the cut that makes its size."""
    measured = setup.feature.end_diameter.tolerance is not None and setup.stock_to_remove > 2 * MEASURED_FROM
    return min(FIRST_CUT, setup.stock_to_remove / 2.0) if measured else FIRST_CUT


def _most_passes(setup: Setup) -> int:
    """As many passes as a stock is divided into: none lighter than an edge still cuts."""
    return int(np.clip(np.floor(setup.stock_to_remove / LEAST_PASS), 1, MOST_PASSES))


def tries(setup: Setup, field: Entrants, best: Best, part: slice) -> Iterator[Try]:
    """Few passes for all; more where a force is what breaks."""
    fewest = _fewest(setup, field.tool.take(part))
    everything = np.arange(len(fewest))
    for extra in EXTRA_PASSES:
        waiting = everything
        if 0 < extra < PASS_OPTIONS and len(everything) > MOST_DIVIDED:  # of many only who leads, and who breaks something
            score = np.where(best.feasible[part], best.score[part], -1.0)
            waiting = np.argsort(score, kind="stable")[: MOST_DIVIDED + int(np.count_nonzero(score < 0))]
        if extra >= PASS_OPTIONS:
            by_depth = np.isin(best.breaking[part].astype(str), EASED_BY_DEPTH)
            waiting = np.flatnonzero(~best.feasible[part] & by_depth)
            if len(waiting) > MOST_DEEPER and int(np.count_nonzero(best.feasible[part])) > MOST_DIVIDED:
                # of many, where many stand already, only those that miss by least
                waiting = waiting[np.argsort(best.score[part][waiting], kind="stable")[:MOST_DEEPER]]
        if extra >= PASS_OPTIONS:
            yield from _by_a_light_last(setup, fewest[waiting], extra, waiting + part.start)
            waiting = waiting[~best.feasible[part][waiting]]
        wanted = np.minimum(fewest[waiting] + extra, _most_passes(setup))
        for passes in np.unique(wanted):
            yield waiting[wanted == passes] + part.start, _in_passes(setup, int(passes))


def eased(setup: Setup, field: Entrants, best: Best, bad: Index) -> Iterator[Try]:
    """Shallower, for tools that stand before being refused."""
    fewest = _fewest(setup, field.tool.take(bad))
    for extra in EASED_PASSES:
        if extra >= PASS_OPTIONS:
            yield from _by_a_light_last(setup, fewest, extra, bad)
        wanted = np.minimum(fewest + extra, _most_passes(setup))
        for passes in np.unique(wanted):
            yield bad[wanted == passes], _in_passes(setup, int(passes))


def feeds(setup: Setup, cutter: Cutter) -> tuple[Array, Array]:
    """Feeds to try per pair (pairs, FEEDS), and the least (pairs, 1).

    They span the window at this depth, held by nose and finish, tidied.
    """
    case, depth = case_of(setup), setup.each_depth
    across, along = window_scales(case, cutter, cutter.reference_speed)
    nf, na = cutter.window_normals[..., 0], cutter.window_normals[..., 1]
    lowest = -SHALLOW / np.maximum((-na).max(axis=-1), 1e-9)  # a cut below the window has the feeds of its lower edge
    there = depth / along - cutter.window_centre[..., 1]
    a, under = np.maximum(there, lowest), there < lowest
    with np.errstate(divide="ignore", invalid="ignore"):
        room = (1.0 - na * a[..., None]) / nf
    low = np.where(nf < -1e-12, room, -np.inf).max(axis=-1)
    high = np.where(nf > 1e-12, room, np.inf).min(axis=-1)
    low, high = (cutter.window_centre[..., 0] + low) * across, (cutter.window_centre[..., 0] + high) * across
    high = np.minimum(high * WINDOW_MARGIN, nose_feed(cutter, NOSE_SHARE))
    # what is shallower than the window strings at any feed, and is fed as finely as its finish wants
    low = np.maximum(np.where(under, np.minimum(low, FINE * high), low) * INSIDE, COARSE_LEAST)
    if setup.finish_asked is not None:
        high = np.minimum(high, _finish_feed(case, cutter))
    # advice starts inside the supplier's window, where there is one
    high = np.fmin(high, cutter.book[..., book.FEED_HIGH])
    low = np.minimum(np.fmax(low, cutter.book[..., book.FEED_LOW]), high)
    steps = low + (high - low) * np.linspace(0.0, 1.0, FEEDS) ** CROWDED
    tidied = np.floor(steps / FEED_STEP + 1e-9) * FEED_STEP
    found = np.maximum(tidied, np.maximum(np.minimum(steps, FEW_STEPS * FEED_STEP), FEED_STEP))
    return found, found[:, :1]


def _finish_feed(case: Case, cutter: Cutter) -> Array:
    """Feed [mm/rev] that gives the wanted Ra at a good speed, from the leading terms of what adds to the feed marks."""
    wanted = case.setup.finish_asked or 1.0
    gain = np.where(cutter.wiper > 0, WIPER_GAIN, 1.0)
    if case.hard:
        marks = wanted / (RA_OF_RT * gain) - SIDE_FLOW
    else:
        marks = wanted / (RA_OF_RT * KI_FAST * gain) - 500.0 * minimum_chip_share(FAST) * cutter.edge_radius
    return np.sqrt(np.maximum(marks, LEAST_MARKS) * 8.0 * cutter.nose_radius / 1000.0)


def speeds(setup: Setup, cutter: Cutter, feed: Array) -> Array:
    """Speed per pair and feed (pairs, feeds, 1): the goal's own optimum, held by book and power."""
    case, house, depth, diameters = case_of(setup), setup.house, setup.each_depth, pass_diameters(setup)
    area = chip_area(feed, depth)
    h = mean_chip_thickness(area, engaged_edge(depth, cutter.cutting_edge_angle, cutter.nose_radius))
    shape = weibull_shape(cutter.coefficient_of_variation)
    factor = factor_along_edge(cutter.speed_factor, cutter.cutting_edge_angle, depth, cutter.nose_radius)

    def at_life(minutes: Any) -> Array:
        return speed_for_life(
            minutes,
            cutter.reference_speed,
            factor,
            cutter.taylor_exponent,
            cutter.reference_feed,
            h,
            cutter.feed_exponent,
            cutter.reference_depth,
            depth,
            cutter.depth_exponent,
            cutter.light_gain,
        )

    speed = at_life(goal_life(setup, cutter.taylor_exponent, edge_cost(cutter, depth), shape))
    length = setup.feature.start_diameter / 2 if setup.surface is Surface.FACE else path_length(setup.feature)
    cutting = 60.0 * np.pi * diameters.mean() * length * len(diameters) / (1000.0 * speed * feed)
    if (alone := unattended_life(setup, shape, cutting)) is not None:
        speed = np.minimum(speed, at_life(alone))
    if house.never_above_book:
        own = cutter.book[..., book.SPEED_HIGH]
        speed = np.minimum(speed, np.where(np.isnan(own), book.BOOK_HIGH * at_life(BOOK_LIFE), own))
    speed = np.maximum(speed, np.fmax(cutter.minimum_speed, cutter.book[..., book.SPEED_LOW]))
    if case.hard:  # a slow edge breaks out before it wears
        speed = np.maximum(speed, HARD_FROM * at_life(BOOK_LIFE))
    speed = np.minimum(speed, np.pi * diameters.max() * case.top_speed / 1000.0)
    return _held_by_power(case, cutter, speed, h, area, diameters)


def _held_by_power(case: Case, cutter: Cutter, speed: Array, h: Array, area: Array, diameters: Array) -> Array:
    setup = case.setup
    work, machine = setup.work, setup.machine
    rake = work.material.group.reference_rake
    k_rake = rake_factor(cutter.rake, cutter.rake if rake is None else rake)
    force = work.specific_force_1 * h ** (-work.material.force_exponent) * k_rake * area * setup.house.wear_factor
    for _ in range(2):
        slowest = 1000.0 * speed / (np.pi * diameters.max())
        power = machine.spindle_power(np.minimum(slowest, case.top_speed))
        speed = np.minimum(speed, POWER_MARGIN * 60_000.0 * power / force)
    return speed


def the_other_way(setup: Setup, crib: Crib, sound: bool) -> tuple[list[Candidate], str]:
    """The best rows of the other direction: away from the chuck with a small κr, or towards it where the set-up goes away."""
    other = Direction.TOWARDS if setup.settings.direction is Direction.AWAY else Direction.AWAY
    if setup.surface is not Surface.OUTSIDE or why_not_away(setup):
        return [], ""
    # a left-hand holder stands there as it does towards the chuck: it is no small κr
    seats = tuple(one for one in crib.holders if one.code.hand != "L" or other is Direction.TOWARDS)
    part = Crib(_one_of_each(one for one in crib.inserts if one.code.shape in SLIM or other is Direction.TOWARDS), seats)
    if not part.inserts:
        return [], ""
    try:
        rows = rank(setup.with_settings(direction=other), part, ONE_WAY, MOST_GUESTS, misses=False, eased=False).candidates
    except CuttingError:  # this part or machine does not let it
        return [], ""
    unusual = PULLS if other is Direction.AWAY else ""
    return [replace(row, way=other.value, unusual=unusual, settings={**entries_set(row), "direction": other.value}) for row in rows], ""


def _one_of_each(inserts: Iterable[Insert]) -> tuple[Insert, ...]:
    """The cheapest of inserts that are alike."""
    found: dict[tuple[str, str, str], Insert] = {}
    for one in sorted(inserts, key=lambda insert: insert.pack_price):
        found.setdefault((one.designation, one.geometry.name, one.grade.name), one)
    return tuple(found.values())


def why_not_away(setup: Setup) -> str:
    """Why a cut is not fed away from the chuck with a small κr, blank where it may be."""
    if setup.feature.profile:
        return "the drawing has a contour: a small κr does not follow it"
    if setup.holding.weak or setup.skin not in (Skin.CLEAN, Skin.BAR):
        return "it pulls the part out of its jaws: not with a light grip, nor into a skin"
    if setup.finish_asked is not None and setup.stock_to_remove < ROUGH_FROM:
        return "a light cut: it is for roughing"
    return "" if setup.feature.length > AWAY_ROOM * setup.stock_to_remove else "too short for the ramp that the small κr leaves"


ONE_WAY = Contest(
    MODEL,
    enter,
    tries,
    eased,
    feeds,
    speeds,
    frozenset({"settings.depth_of_cut", "settings.pass_depths"}),
    patch=patch,
)
CONTEST = replace(ONE_WAY, guests=the_other_way)
