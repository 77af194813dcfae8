"""Ranks tools for kinds of operation that are judged set-up by set-up: each tool at its best speed and feed, with its reason.

Exact rules exclude first; then speed follows in closed form from life and goal, over a few feeds of the tool's window.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.advice.explain import GOALS, missed_by, why_not_first
from cutting.advice.rank import MOST_MISSES, Advice, Candidate, Refused
from cutting.advice.score import score
from cutting.errors import CuttingError
from cutting.money.cost import optimum_life_for_cost, optimum_life_for_time
from cutting.operations.frame.model import Model
from cutting.operations.frame.outcome import Severity
from cutting.operations.frame.rule import closest, limits_of, sound, worst
from cutting.operations.frame.setup import Goal
from cutting.operations.slots.shared.fit import FitRule
from cutting.quantities.kinds import currency
from cutting.quantities.write import Display, write
from cutting.tooling.blades import GrooveBlade, GrooveInsert, NarrowStock
from cutting.wear.reference import life_law
from cutting.wear.spread import life_quantile
from cutting.working import Recorder

FEED_PLACES = (0.06, 0.3, 0.6, 0.92)  # of the feed window
SPEED_SHARES = (1.0, 0.8)
FIRST_PLACE = (0.6,)
MOST_TRIALS, REFINED = 300, 40  # tools run at one point; and those of them, the best, that are searched over feed and speed
POWER_MARGIN, POWER_SURE = 0.97, 0.6
# shares of speed and feed that are tried before a tool is refused, and how far over its limits a tool is not tried further
EASED = ((1.0, 0.9), (0.85, 1.0), (0.85, 0.75), (0.65, 0.75), (0.65, 0.55), (0.45, 0.55), (0.35, 0.35))
HOPELESS, NEAR, ROUNDS = 4.0, 1.25, 3
PRE_ORDER = "grades whose main use is this group, then the cheapest edge"


@dataclass(frozen=True)
class Entry:
    """A tool, and where a kind knows several, a way to use it, as a set-up to run."""

    setup: Any
    insert: GrooveInsert
    blade: GrooveBlade
    way: str = ""


@dataclass(frozen=True)
class Field:
    """Who may compete: entries that fit by exact rules, and how many pairs each rule excluded."""

    entries: tuple[Entry, ...]
    refused: tuple[Refused, ...]
    pairs: int


@dataclass(frozen=True)
class Contest:
    """What a kind brings to its ranking.

    `enter` applies its exact rules to a stock; `columns` are the figures of its own that are shown beside the common ones,
    `patch` the settings of its own that a candidate sets; `guests` brings rows of other kinds of operation, or says why none.
    """

    model: Model[Any]
    enter: Callable[[Any, NarrowStock], Field]
    heads: tuple[str, ...]
    columns: Callable[[Any], tuple[Display, ...]]
    patch: Callable[[Any], dict[str, str]] = lambda x: {}
    beside: Callable[[Any], float] = lambda x: 0.0  # money a piece beside the operation that the choice moves, such as the kerf
    guests: Callable[[Any, NarrowStock], tuple[list[Candidate], str]] = lambda setup, stock: ([], "")


def fitting(stock: NarrowStock, rules: Iterable[FitRule]) -> tuple[list[tuple[GrooveInsert, GrooveBlade]], tuple[Refused, ...]]:
    """Pairs that satisfy every rule; each other pair is counted at the first rule that it breaks."""
    rules = tuple(rules)
    kept, counts = [], Counter[str]()
    for insert, blade in stock.pairs:
        broken = next((name for name, _, fits in rules if not fits(insert, blade)), None)
        if broken is None:
            kept.append((insert, blade))
        else:
            counts[broken] += 1
    return kept, tuple(Refused(name, reason, counts[name]) for name, reason, _ in rules if counts[name])


def rank(setup: Any, stock: NarrowStock, contest: Contest, top: int = 40) -> Advice:
    """Rank a stock for a set-up of its kind; its own tool, speed and feed do not matter. Raises `CuttingError`."""
    field = contest.enter(setup, stock)
    letter = setup.work.material.group.letter
    entries = sorted(field.entries, key=lambda one: (one.insert.grade.main_letter != letter, one.insert.price / one.insert.edges))
    note = stock.note
    if len(entries) > MOST_TRIALS:
        note = f"{note} {len(entries):,} tools fit; the best {MOST_TRIALS} by pre-order are ranked: {PRE_ORDER}.".strip()
        entries = entries[:MOST_TRIALS]
    if len(entries) > REFINED:
        note = f"{note} {len(entries)} tools are run at one feed; the best {REFINED} of them over feeds and speeds.".strip()
        first = [(_best(entry, contest, FIRST_PLACE, SPEED_SHARES[:1]), entry) for entry in entries]
        known = sorted(((found, entry) for found, entry in first if found), key=lambda pair: (not pair[0][1], pair[0][0]))
        tried = [_best(entry, contest) for _, entry in known[:REFINED]] + [found for found, _ in known[REFINED:]]
    else:
        tried = [_best(entry, contest) for entry in entries]
    good = [found for found in tried if found and found[1]]
    bad = [found for found in tried if found and not found[1]]
    others, why_none = contest.guests(setup, stock)
    note = f"{note} {why_none}".strip()
    rows = _one_per_tool([one[2] for one in good] + others, setup)[:top]
    misses = _one_per_tool([one[2] for one in sorted(bad, key=lambda one: one[0])], setup, rows)
    widths = {entry.insert.name: entry.insert.width for entry in entries}
    explained = tuple(replace(row, reason=_reason(row, rows[0], setup.goal, widths)) for row in rows)
    shown = tuple(misses[:MOST_MISSES])
    return Advice(explained, shown, field.refused, field.pairs, len(entries), len(good), note, contest.heads, len(misses))


def _best(
    entry: Entry, contest: Contest, places: tuple[float, ...] = FEED_PLACES, shares: tuple[float, ...] = SPEED_SHARES
) -> tuple[float, bool, Candidate] | None:
    """The entry's best point: how far it stands from its hard limits, whether it is sound, and its row."""
    found: _Found | None = None
    try:
        for trial in _points(entry, contest, places, shares):
            found = _better(found, _tried(entry, contest, trial))
        for _ in range(ROUNDS):
            if found is None or found.fine:
                break
            before = found.level
            for trial in _eased(found, contest):
                found = _better(found, _tried(entry, contest, trial))
                if found.fine:
                    break
            if not found.fine and found.level > 0.97 * before:
                break
    except CuttingError:
        return None  # the trade does not run this tool material here
    return None if found is None else (found.level, found.fine, _row(entry, found.x, contest))


@dataclass(frozen=True)
class _Found:
    """A point that was run: whether it is sound, and its score, or how far it stands from its hard limits."""

    fine: bool
    level: float
    x: Any


def _tried(entry: Entry, contest: Contest, trial: Any) -> _Found:
    x = contest.model.quickly(trial)
    fine = sound(contest.model.rules, x)
    return _Found(fine, score(trial, _row(entry, x, contest)) if fine else worst(contest.model.rules, x).used(x), x)


def _better(one: _Found | None, other: _Found) -> _Found:
    return other if one is None or (not other.fine, other.level) < (not one.fine, one.level) else one


def _eased(found: _Found, contest: Contest) -> Iterable[Any]:
    """Before a tool is refused: slower and finer, from little to much, then what its own remedies would set."""
    setup = found.x.setup
    s = setup.settings
    if found.level > HOPELESS:
        return
    least = found.x.feeds[0]
    for slower, finer in EASED:
        speed, feed = max(float(np.floor(s.cutting_speed * slower)), 1.0), max(round(s.feed_per_rev * finer, 3), least)
        yield setup.with_settings(cutting_speed=speed, feed_per_rev=feed)
    if found.level < NEAR:
        yield from (change.setup for change in contest.model.changes(found.x) if set(change.patch) == {"settings"})


def _points(entry: Entry, contest: Contest, places: tuple[float, ...], shares: tuple[float, ...]) -> Iterable[Any]:
    """Set-ups at a few feeds of the window, each at the speed that goal and life ask for."""
    setup = entry.setup
    first = contest.model.quickly(setup.with_settings(cutting_speed=50.0, feed_per_rev=0.05))
    low, high = first.feeds
    for place in places:
        feed = round(low + place * (high - low), 3)
        trial = setup.with_settings(cutting_speed=first.lasting.start_speed, feed_per_rev=feed)
        x = contest.model.quickly(trial)
        best = _within_power(goal_speed(trial, x), x, contest)
        for share in shares:
            yield trial.with_settings(cutting_speed=max(float(np.floor(best * share)), 1.0))


def goal_speed(setup: Any, x: Any) -> float:
    """Speed [m/min] at which an edge lasts as long as the goal wants, by Taylor from a run; never above the book by house rule."""
    law = life_law(setup.work.material.speed_row, setup.insert.grade.tool_class)
    assert law is not None  # the run would have refused it
    change, rate = setup.machine.edge_change_time, setup.machine.rate
    if setup.goal is Goal.FASTEST:
        wanted = float(optimum_life_for_time(law.taylor_exponent, change))
    else:
        wanted = float(optimum_life_for_cost(law.taylor_exponent, change, x.edge_cost, rate))
    # the edge is changed at its planned interval, not at its median
    median = wanted / float(life_quantile(setup.house.change_probability(setup.goal), x.lasting.weibull_shape))
    speed = setup.settings.cutting_speed * (x.lasting.tool_life / median) ** law.taylor_exponent
    most = x.lasting.book_high if setup.house.never_above_book else 1.5 * x.lasting.book_high
    return float(np.clip(speed, 0.3 * x.lasting.start_speed, most))


def _within_power(speed: float, x: Any, contest: Contest) -> float:
    """The speed [m/min], or the one at which the spindle's power just does: power grows in proportion to speed."""
    trial = x.setup
    if x.power / max(x.available, 1e-9) * max(speed / trial.settings.cutting_speed, 1.0) < POWER_SURE:
        return speed  # far below it at the speed that was run: another run would say the same
    x = contest.model.quickly(trial.with_settings(cutting_speed=max(speed, 1.0)))
    return speed * min(1.0, POWER_MARGIN * x.available / max(x.power, 1e-9))


def _row(entry: Entry, x: Any, contest: Contest) -> Candidate:
    s = x.setup.settings
    rule = closest(contest.model.rules, x)
    broken = worst(contest.model.rules, x)
    insert = entry.insert
    over = broken.weight(x.setup.house) is Severity.HARD and broken.used(x) > 1.0
    return Candidate(
        insert=insert.name,
        holder=entry.blade.name,
        designation=insert.designation,
        geometry=insert.geometry.name,
        grade=insert.grade.name,
        passes=len(contest.model.passes(x)),
        cutting_speed=s.cutting_speed,
        feed_per_rev=s.feed_per_rev,
        depth_of_cut=0.0,
        seconds=x.seconds,
        cost=x.cost,
        change_parts=x.change_parts,
        median_parts=x.lasting.median_parts,
        secure=x.secure,
        chip_index=contest.model.chip(x).index,
        edge_cost=x.edge_cost,
        edges=insert.edges,
        roughness=0.0,
        speed_reached=s.cutting_speed,
        binding=(broken if over else rule).label.split(",")[0],
        utilisation=rule.used(x),
        reason=f"{broken.label.split(',')[0]} at {broken.used(x):.0%} of its bound" if over else "",
        miss=_in_numbers(broken, x) if over else None,
        way=entry.way,
        more=contest.columns(x),
        beside=contest.beside(x),
        settings={
            "cutting_speed": write(s.cutting_speed, "cutting_speed"),
            "feed_per_rev": write(s.feed_per_rev, "feed_per_rev"),
            **contest.patch(x),
        },
    )


def _in_numbers(rule: Any, x: Any) -> Display:
    """What a tool that breaks a limit reaches, and where."""
    limit = next(one for one in limits_of((rule,), x, Recorder()) if one.name == rule.name)
    s = x.setup.settings
    return missed_by(limit, s.feed_per_rev, s.cutting_speed)


def _one_per_tool(rows: list[Candidate], setup: Any, taken: Iterable[Candidate] = ()) -> list[Candidate]:
    """The first row of every insert and way, in order; rows that stand elsewhere already are left out."""
    seen = {(row.insert, row.way) for row in taken}
    kept = []
    for row in sorted(rows, key=lambda row: score(setup, row)) if not seen else rows:
        if (row.insert, row.way) not in seen:
            seen.add((row.insert, row.way))
            kept.append(row)
    return kept


def _reason(row: Candidate, first: Candidate, goal: Goal, widths: dict[str, float]) -> str:
    """The one reason: kerf, way, narrower edge, slower grade, or what costs the most otherwise."""
    if row is first:
        return f"first: {GOALS[goal]}"
    if row.beside - first.beside > max(0.01 * first.cost, row.cost - first.cost):
        return f"its kerf costs {row.beside - first.beside:.3f} {currency()} more a piece"
    slower = row.seconds / first.seconds - 1.0
    if row.way and row.way != first.way and slower > 0.004:
        return f"{row.way} takes {row.seconds - first.seconds:.1f} s more than {first.way}"
    narrower = widths.get(row.insert, 0.0) < widths.get(first.insert, 0.0) - 0.05
    if slower > 0.02 and narrower and row.feed_per_rev < 0.97 * first.feed_per_rev:
        return f"{widths[row.insert]:g} mm wide: feed {1 - row.feed_per_rev / first.feed_per_rev:.0%} lower"
    if slower > 0.004 and row.grade != first.grade and row.cutting_speed < 0.98 * first.cutting_speed:
        return f"speed {1 - row.cutting_speed / first.cutting_speed:.0%} lower: {row.grade}"
    return why_not_first(row, first, goal)
