"""From the best point of every tool to a ranking with reasons, for all kinds of operation alike."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np

from cutting.advice.best import Best
from cutting.advice.candidate import Advice, Candidate
from cutting.advice.contest import Contest, Entrants, as_they_are
from cutting.advice.explain import missed_by, why_not_first
from cutting.advice.held import held_by, label_of
from cutting.advice.score import left_over, score_of
from cutting.advice.search import alike, best_of_field
from cutting.operations.frame.outcome import TOUCHING, Severity
from cutting.operations.frame.remedies import Trials
from cutting.operations.frame.risk import expected_miss, share_of
from cutting.operations.frame.rule import all_used, soft_ones
from cutting.quantities.write import write
from cutting.tooling.roles import Index

FAR_OVER = 100.0  # times a bound, beyond which a share says nothing
MOST_MISSES, NUMBERED = 40, 2  # near misses that are listed, and those that are told with their numbers or mended


def rank(setup: Any, stock: Any, contest: Contest, top: int = 40, misses: bool = True, eased: bool = True) -> Advice:
    """Rank what a stock has for a set-up; its own tool, speed, feed and depth do not matter.

    Returns at most `top` candidates, one per insert and way (its best holder), the nearest misses with the limit that they
    break where `misses` are wanted, and the rules of fit with how many pairs each excluded. What stands by no means is `eased` before it is
    refused, or only where nothing stands. Raises `CuttingError` for a feature, machine or
    holding that cannot be.
    """
    field = contest.enter(setup, stock)
    best = best_of_field(contest, setup, field, eased) if field.count else Best.empty(0)
    guests, why_none = contest.guests(setup, stock, bool(best.feasible.any()))
    note = f"{stock.note} {why_none}".strip()
    if not field.count:
        ordered = sorted(guests, key=lambda row: score_of(setup, row))[:top]
        return Advice(
            tuple(_explained(ordered, setup, contest)), (), field.refused, field.pairs, 0, 0, note, contest.heads, contest.further
        )
    order = np.lexsort((best.figures["cost"], best.score))
    # where nothing holds as surely as is asked, what holds half as surely is offered, and told so
    offered = best.feasible if best.feasible.any() else best.close
    sound = offered[order]
    good = _one_per_tool(order[sound], field, top)
    bad = _one_per_tool(order[~sound], field, MOST_MISSES, good) if misses else []
    held = held_by(contest, field, best, np.array(good, np.intp))
    shown = zip(good, _shown(contest, field, best, good), strict=True)
    rows = [replace(row, holds_feed=held[k].feed, holds_speed=held[k].speed) for k, row in shown]
    missed_rows = [_miss(contest, field, best, k) for k in bad]
    missed = len(np.setdiff1d(_tools(order[~sound], field), _tools(order[sound], field)))
    told = [_told(contest, field, best, k, row) for k, row in zip(bad[:NUMBERED], missed_rows, strict=False)]
    missed_rows = [row for row in told if row.miss is not None] + missed_rows[NUMBERED:]
    saved = [row for row in told if row.miss is None]  # its own remedy makes it sound: it is no miss
    rows = contest.completed(setup, stock, [*rows, *saved])
    if saved or guests or contest.completed is not as_they_are:
        rows = sorted([*rows, *guests], key=lambda row: score_of(setup, row))[:top]
    feasible = int(np.count_nonzero(best.feasible)) + len(saved)
    return Advice(
        tuple(_explained(rows, setup, contest)), tuple(missed_rows), field.refused, field.pairs, field.count, feasible, note, contest.heads,
        contest.further, missed - len(saved),
    )  # fmt: skip


def _explained(rows: list[Candidate], setup: Any, contest: Contest) -> list[Candidate]:
    return [replace(row, reason=why_not_first(row, rows[0], setup, contest.beside_words)) for row in rows]


def _tools(order: Index, field: Entrants) -> Index:
    """Inserts and ways among some entries, each once."""
    ways = np.unique(field.ways, return_inverse=True)[1] if field.ways else np.zeros(field.count, np.intp)
    return np.unique(ways[order] * (1 + int(field.edges.max())) + field.edges[order])


def _one_per_tool(order: Index, field: Entrants, top: int, taken: list[int] | None = None) -> list[int]:
    """The first entry of every insert and way, in order; those that stand elsewhere already are left out."""
    seen, kept = {(int(field.edges[k]), field.way(k)) for k in taken or ()}, []
    for k in order:
        if (key := (int(field.edges[k]), field.way(k))) not in seen:
            seen.add(key)
            kept.append(int(k))
            if len(kept) == top:
                break
    return kept


def _set_up(contest: Contest, field: Entrants, best: Best, k: int) -> Any:
    """The set-up of an entry at its best point."""
    tried = contest.fitted(best.setup[k], field.tool_of(k))
    return tried.with_cut(float(best.figures["cutting_speed"][k]), float(best.figures["feed"][k]))


def _candidate(contest: Contest, field: Entrants, best: Best, k: int) -> Candidate:
    """The row of an entry at its best point, with what taking it sets."""
    tool, setup = field.tool_of(k), best.setup[k]
    edge = next(iter(tool.values()))
    names = [name for name in best.figures if name != "broken"]
    row = Candidate(
        tool={role: part.name for role, part in tool.items()},
        designation=edge.designation,
        geometry=edge.geometry.name if edge.geometry else "",
        grade=edge.grade.name,
        passes=setup.pass_count,
        feed_kind=setup.FEED or "feed_per_rev",
        depth_of_cut=setup.each_depth,
        binding=label_of(contest, best.binding[k]),
        strained=label_of(contest, best.straining[k]) if best.straining[k] else "",
        close=label_of(contest, best.breaking[k]) if best.close[k] else "",
        edges=edge.edges,
        reason="",
        way=field.way(k),
        width=getattr(edge, "width", 0.0),
        coating=(edge.grade.coating or "none") if edge.geometry is None else "",
        side_use=float(edge.grade.main_letter != setup.work.material.group.letter),
        **{name: float(best.figures[name][k]) for name in names},  # type: ignore[arg-type]
    )
    return replace(row, settings=_settings(contest, row, _set_up(contest, field, best, k)))


def _settings(contest: Contest, row: Candidate, setup: Any) -> dict[str, str] | None:
    """What taking a row sets, where its kind sets more than speed, feed and depth."""
    if contest.patch is None:
        return None
    written = {"cutting_speed": write(row.cutting_speed, "cutting_speed")}
    if setup.FEED:
        written[setup.FEED] = write(row.feed, setup.FEED)
    return {**written, **contest.patch(setup)}


def _shown(contest: Contest, field: Entrants, best: Best, rows: list[int]) -> list[Candidate]:
    """The rows with the figures of their kind."""
    told = [_candidate(contest, field, best, k) for k in rows]
    if contest.columns is None:
        return told
    numbers = _numbers(contest, field, best, rows)
    return [replace(row, passes=x.strokes_taken, more=contest.columns(x)) for row, x in zip(told, numbers, strict=True)]


def _numbers(contest: Contest, field: Entrants, best: Best, rows: list[int]) -> list[Any]:
    """The numbers of each row in its own set-up: computed together where their kind can take them apart."""
    set_ups = {k: _set_up(contest, field, best, k) for k in rows}
    if contest.apart is None:
        return [contest.model.quickly(set_ups[k]) for k in rows]
    found: dict[int, Any] = {}
    for places, tried in alike(best, np.array(rows, np.intp)):
        speed, feed = (best.figures[name][places][:, None] for name in ("cutting_speed", "feed"))
        together = contest.model.numbers(tried, field.tool.take(places), speed, feed, tried.silent)
        found |= {int(k): contest.apart(together, n, set_ups[int(k)]) for n, k in enumerate(places)}
    return [found[k] for k in rows]


def _miss(contest: Contest, field: Entrants, best: Best, k: int) -> Candidate:
    label = label_of(contest, best.breaking[k])
    row = _candidate(contest, field, best, k)
    share = float(best.figures["broken"][k])
    said = f"{label} at {share:.0%} of what it may use" if share < FAR_OVER else f"{label} is far from what is needed"
    return replace(row, reason=said, binding=label, utilisation=share)


def _told(contest: Contest, field: Entrants, best: Best, k: int, row: Candidate) -> Candidate:
    """A near miss with its numbers; or, where a change of its settings alone makes it sound, the row with that change."""
    setup = _set_up(contest, field, best, k)
    outcome, x = contest.model.judged(setup)
    broken = tuple(one for one in outcome.limits if not one.held and one.severity is Severity.HARD)
    if not broken:  # as sure as is asked, if not as is aimed at
        return _as_run(contest, row, setup)
    free = contest.free | {"settings.cutting_speed", f"settings.{setup.FEED}"}
    trials = Trials(contest.model, setup, numbers=x, kept={one.name: one.kept for one in outcome.limits})
    if (better := trials.mended(broken, free)) is not None:
        return _as_run(contest, row, better)
    passes = f"{row.passes} passes" if row.passes > 1 and not row.way else ""
    return replace(row, miss=missed_by(broken[0], row.feed, row.feed_kind, row.cutting_speed, passes))


def _as_run(contest: Contest, row: Candidate, setup: Any) -> Candidate:
    """The row with the figures of a set-up of its own tool."""
    x = contest.model.quickly(setup)
    used = {name: float(np.max(level)) for name, level in all_used(contest.model.rules, x).items()}
    binding = max(used, key=lambda name: used[name])
    misses = {name: share_of(name) * float(expected_miss(used[name])) for name in soft_ones(contest.model.rules, used)}
    strained = max((name for name in misses if used[name] > 1.0 + TOUCHING), key=lambda name: misses[name], default="")

    def least(values: Any) -> float:
        return float(np.min(np.asarray(values, float)))

    mended = replace(
        row,
        passes=setup.pass_count,
        cutting_speed=setup.settings.cutting_speed,
        feed=setup.feed,
        depth_of_cut=setup.each_depth,
        seconds=least(x.operation_time),
        cost=least(x.operation_cost),
        change_parts=least(x.change_parts),
        median_parts=least(x.median_parts),
        run_parts=least(x.run_parts),
        secure=least(x.secure),
        chip_index=least(x.chip_index),
        edge_cost=least(x.edge_cost),
        left_over=least(left_over(setup, x.edge_cost, x.change_parts)),
        roughness=float(np.max(getattr(x, "roughness", 0.0))),
        speed_reached=least(x.cutting_speed),
        binding=label_of(contest, binding),
        utilisation=used[binding],
        strain=used[strained] if strained else 0.0,
        risk=sum(misses.values()),
        strained=label_of(contest, strained) if strained else "",
        reason="",
    )
    mended = replace(mended, settings=_settings(contest, mended, setup))
    return mended if contest.columns is None else replace(mended, passes=x.strokes_taken, more=contest.columns(x))
