"""From the best point of every pair to a ranking with reasons."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.advice.explain import missed_by, why_not_first
from cutting.advice.score import score
from cutting.advice.search import Best, best_of_pairs
from cutting.operations.frame.outcome import Severity
from cutting.operations.turned import limits as rules
from cutting.operations.turned.case import case_of, cutters
from cutting.operations.turned.fit import check_pairs
from cutting.operations.turned.limit_list import limit_list
from cutting.operations.turned.remedies import mended
from cutting.operations.turned.run import run
from cutting.operations.turned.setup import Setup
from cutting.quantities.write import Display
from cutting.tooling.crib import Crib, Index
from cutting.working import Recorder, Silent

MOST_MISSES, NUMBERED = 40, 2  # near misses that are listed, and those that are told with their numbers or mended


@dataclass(frozen=True)
class Candidate:
    """A tool that can do it, at its best settings."""

    insert: str
    holder: str
    designation: str
    geometry: str
    grade: str
    passes: int
    cutting_speed: float
    feed_per_rev: float
    depth_of_cut: float
    seconds: float
    cost: float
    change_parts: float
    median_parts: float
    secure: float
    chip_index: float
    edge_cost: float
    edges: int
    roughness: float
    speed_reached: float
    binding: str
    utilisation: float
    reason: str
    beside: float = 0.0  # money a piece beside the operation that the choice moves
    way: str = ""  # where a kind of operation knows several
    more: tuple[Display, ...] = ()  # figures of the kind's own, under the heads of the ranking
    settings: dict[str, str] | None = None  # what taking it sets; None: speed, feed and depth
    becomes: dict[str, Any] | None = None  # operation and feature, where another kind of operation makes it
    miss: Display | None = None  # of a tool that breaks a limit: what it reaches, where, and what is asked


@dataclass(frozen=True)
class Refused:
    """Why tools are not candidates: a rule with its reason and how many pairs it excluded."""

    name: str
    reason: str
    pairs: int


@dataclass(frozen=True)
class Advice:
    """The ranking: candidates in the goal's order, and the second list with reasons."""

    candidates: tuple[Candidate, ...]
    nearly: tuple[Candidate, ...]
    refused: tuple[Refused, ...]
    pairs: int
    fitting: int
    feasible: int
    note: str = ""
    heads: tuple[str, ...] = ()
    missed: int = 0  # tools that fit and break a limit; `nearly` shows the nearest of them


def advise(setup: Setup, crib: Crib, top: int = 40) -> Advice:
    """Rank what the crib stocks for a set-up; its own tool, speed, feed and depth do not matter.

    Returns at most `top` candidates, one per insert (its best holder), the nearest misses with the limit that they
    break, and the rules of fit with how many pairs each excluded. Raises `CuttingError` for a feature, machine or
    holding that cannot be.
    """
    case = replace(case_of(_neutral(setup)), many=True)
    left, right = crib.pairs
    fits, counts = check_pairs(setup, crib, left, right)
    chosen = np.flatnonzero(fits)
    cutter = cutters(case.setup, crib, left[chosen], right[chosen])
    known = ~np.isnan(cutter.reference_speed[:, 0])
    refused = [Refused(name, reason, lost) for name, (reason, lost) in counts.items()]
    if not known.all():
        refused.append(Refused("starting_speed", "no starting speed for this tool material in this group", int(np.count_nonzero(~known))))
    chosen = chosen[known]
    if not len(chosen):
        return Advice((), (), tuple(refused), len(left), 0, 0, crib.note)
    best = best_of_pairs(case, cutter.take(known))
    order = np.lexsort((best.cost, best.score))
    names = [rule for rule in rules.RULES if rule.applies(case)]
    inserts = left[chosen]
    sound = best.feasible[order]
    good = _one_per_insert(order[sound], inserts, top)
    bad = _one_per_insert(order[~sound], inserts, MOST_MISSES, {int(inserts[k]) for k in good})
    rows = [_candidate(crib, int(inserts[k]), int(right[chosen[k]]), best, k, names) for k in good]
    misses = [_miss(crib, int(inserts[k]), int(right[chosen[k]]), best, k, names) for k in bad]
    missed = len({int(inserts[k]) for k in order[~sound]} - {int(inserts[k]) for k in order[sound]})
    told = [_told(setup, crib, row) for row in misses[:NUMBERED]]
    misses = [row for row in told if row.miss is not None] + misses[NUMBERED:]
    if saved := [row for row in told if row.miss is None]:  # its own remedy makes it sound: it is no miss
        rows = sorted([*rows, *saved], key=lambda row: score(setup, row))[:top]
        missed -= len(saved)
    explained = tuple(replace(row, reason=why_not_first(row, rows[0], setup.goal)) for row in rows)
    feasible = int(np.count_nonzero(best.feasible)) + len(saved)
    return Advice(explained, tuple(misses), tuple(refused), len(left), len(chosen), feasible, crib.note, missed=missed)


def _neutral(setup: Setup) -> Setup:
    """The set-up without the settings of its present tool, so that they cannot refuse the case."""
    depth = max(setup.stock_to_remove, 0.01)
    return setup.with_settings(cutting_speed=100.0, feed_per_rev=0.1, depth_of_cut=min(depth, 30.0), overhang=None)


def _one_per_insert(order: Index, inserts: Index, top: int, taken: set[int] | None = None) -> list[int]:
    seen, kept = set(taken or ()), []
    for k in order:
        if int(inserts[k]) not in seen:
            seen.add(int(inserts[k]))
            kept.append(int(k))
            if len(kept) == top:
                break
    return kept


def _candidate(crib: Crib, i: int, h: int, best: Best, k: int, names: list[rules.Rule]) -> Candidate:
    insert = crib.inserts[i]
    return Candidate(
        insert=insert.name,
        holder=crib.holders[h].designation,
        designation=insert.designation,
        geometry=insert.geometry.name,
        grade=insert.grade.name,
        passes=int(best.passes[k]),
        binding=names[int(best.binding[k])].label.split(",")[0],
        edges=insert.edges,
        reason="",
        **{  # type: ignore[arg-type]
            name: float(getattr(best, name)[k])
            for name in (
                "cutting_speed",
                "feed_per_rev",
                "depth_of_cut",
                "seconds",
                "cost",
                "change_parts",
                "median_parts",
                "secure",
                "chip_index",
                "edge_cost",
                "roughness",
                "speed_reached",
                "utilisation",
            )
        },
    )


def _miss(crib: Crib, i: int, h: int, best: Best, k: int, names: list[rules.Rule]) -> Candidate:
    row = _candidate(crib, i, h, best, k, names)
    label = names[int(best.breaking[k])].label.split(",")[0]
    return replace(row, reason=f"{label} at {best.broken[k]:.0%} of its bound", binding=label)


def _told(setup: Setup, crib: Crib, row: Candidate) -> Candidate:
    """A near miss with its numbers; or, where a change of speed, feed or passes alone makes it sound, the row with that change."""
    insert = next(one for one in crib.inserts if one.name == row.insert)
    holder = next(one for one in crib.holders if one.designation == row.holder)
    tried = replace(setup, insert=insert, holder=holder).with_settings(
        cutting_speed=row.cutting_speed, feed_per_rev=row.feed_per_rev, depth_of_cut=row.depth_of_cut, overhang=None, pass_depths=()
    )
    limits = limit_list(*run(tried, Silent()), Recorder())
    broken = tuple(one for one in limits if one.broken and one.severity is Severity.HARD)
    if not broken:
        return replace(row, reason="")
    if (better := mended(tried, broken)) is not None:
        return _as_run(row, better)
    passes = f"{row.passes} passes" if row.passes > 1 else ""
    return replace(row, miss=missed_by(broken[0], row.feed_per_rev, row.cutting_speed, passes))


def _as_run(row: Candidate, setup: Setup) -> Candidate:
    """The row with the figures of a set-up of its own tool."""
    case, cutter, done = run(setup, Silent())
    used = {
        rule.label: float(np.max(level))
        for rule in rules.RULES
        if (level := rules.all_utilisations(case, cutter, done).get(rule.name)) is not None
    }
    binding = max(used, key=lambda label: used[label])

    def least(values: object) -> float:
        return float(np.min(np.asarray(values, float)))

    return replace(
        row,
        passes=setup.pass_count,
        cutting_speed=setup.settings.cutting_speed,
        feed_per_rev=setup.settings.feed_per_rev,
        depth_of_cut=setup.stock_to_remove / setup.pass_count,
        seconds=least(done.operation_time),
        cost=least(done.operation_cost),
        change_parts=least(done.change_parts),
        median_parts=least(done.median_parts),
        secure=least(done.secure),
        chip_index=least(done.chip_index),
        edge_cost=least(done.edge_cost),
        roughness=float(np.max(done.roughness)),
        speed_reached=least(done.cutting_speed),
        binding=binding.split(",")[0],
        utilisation=used[binding],
        reason="",
    )
