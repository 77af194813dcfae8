"""Recorded traces and what they taught: kept, laid over the prediction, fitted, accepted by a person, undone."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import replace
from typing import Any

import numpy as np
from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction
from django.utils import timezone

from cutting.errors import CuttingError
from cutting.operations.frame.learned import UNTAUGHT
from cutting.operations.holes.drill.evaluate import MODEL
from cutting.operations.holes.drill.numbers import Numbers
from cutting.operations.holes.drill.setup import DrillSetup
from cutting.traces.fit import Fit, fit_trace
from cutting.traces.growth import Growth, fit_growth
from cutting.traces.table import Trace
from server.errors import Refusal
from server.jobs.kept.reckonings import unsettle
from server.jobs.kept.uses import jobs_using
from server.jobs.models import DrillTrace, Job, Lesson
from server.records.models import Stamp

ROOM = "lessons"  # whose stamp moves with them, as those of crib, shelf and floor do
MOST_POINTS = 1500
MOST_TRACES = 30
FIRST = 1


def keep_trace(
    job_id: int, setup: DrillSetup, operation: str, trace: Trace, hole: int, origin: str, author: AbstractBaseUser
) -> DrillTrace:
    """A trace as a row, thinned evenly where it is dense."""
    step = max(1, -(-len(trace.depth) // MOST_POINTS))
    points = {name: [float(f"{v:.6g}") for v in getattr(trace, name)[::step]] for name in ("depth", "thrust", "torque")}
    require_room(job_id, operation)
    return DrillTrace.objects.create(
        job=Job.objects.get(pk=job_id),
        operation=operation,
        drill=setup.drill.name,
        hole=hole,
        origin=origin[:120],
        cutting_speed=setup.settings.cutting_speed,
        feed_per_rev=setup.settings.feed_per_rev,
        points=points,
        author=author,
    )


def require_room(job_id: int, operation: str) -> None:
    """Refuse where an operation holds as many traces as it may. Raises a 422 refusal."""
    if DrillTrace.objects.filter(job_id=job_id, operation=operation, archived_at=None).count() >= MOST_TRACES:
        raise Refusal(422, f"This operation holds {MOST_TRACES} traces; put some away first.")


def as_trace(row: DrillTrace) -> Trace:
    """The kept trace as the core reads it."""
    return Trace(*(np.array(row.points[name], float) for name in ("depth", "thrust", "torque")))


def untaught(setup: DrillSetup, row: DrillTrace) -> Numbers:
    """The prediction of the tables for the speed and feed at which a trace was recorded."""
    plain = replace(setup, learned=UNTAUGHT).with_cut(row.cutting_speed, row.feed_per_rev)
    return MODEL.quickly(plain)


def fitted(setup: DrillSetup, rows: list[DrillTrace]) -> tuple[Fit, Growth | None, dict[int, float]]:
    """The fit of the sharpest trace, growth over the others where there are enough, and each trace's peak torque by its id.

    Raises `CuttingError` or `Refusal`.
    """
    if not rows:
        raise Refusal(422, "No trace is chosen.", [{"field": "traces", "message": "choose at least one"}])
    if strange := [one for one in rows if one.drill != setup.drill.name]:
        raise Refusal(
            422, f"Trace {strange[0].pk} was recorded with {strange[0].drill}.", [{"field": "traces", "message": "of another drill"}]
        )
    ordered = sorted(rows, key=lambda one: one.hole)
    found = fit_trace(as_trace(ordered[0]), untaught(setup, ordered[0]))
    peaks = {row.pk: _level(fit_trace(as_trace(row), untaught(setup, row))) for row in ordered}
    growth = None
    later = [row for row in ordered if row.hole > ordered[0].hole]
    if len(later) >= 2:
        try:
            growth = fit_growth([row.hole for row in later], [peaks[row.pk] for row in later], peaks[ordered[0].pk])
        except CuttingError:  # too few have grown: the rest of the fit stands without
            growth = None
    return found, growth, peaks


def _level(fit: Fit) -> float:
    """How high the torque stands in one trace: the mean of the fitted curve while the whole point cuts."""
    top = float(fit.fitted_torque.max())
    return float(fit.fitted_torque[fit.fitted_torque > 0.5 * top].mean())


def values_of(fit: Fit, growth: Growth | None) -> dict[str, Any]:
    """The open form of what a fit teaches."""
    by_name = {one.name: one.value for one in fit.parameters}
    force = {name.removeprefix("force "): round(value, 4) for name, value in by_name.items() if name.startswith("force ")}
    found: dict[str, Any] = {"force": force, "chisel_share": round(by_name["chisel share"], 4), "margin": round(by_name["margin"], 3)}
    if growth is not None:
        found["growth"] = [float(f"{growth.a:.5g}"), float(f"{growth.b:.5g}")]
    return found


def accept(setup: DrillSetup, rows: list[DrillTrace], author: AbstractBaseUser) -> Lesson:
    """Keep what a fit teaches for this drill in these materials; the lesson before stands again when this one is undone."""
    fit, growth, _ = fitted(setup, rows)
    values, drill = values_of(fit, growth), setup.drill.name
    with transaction.atomic():
        _changes(drill)
        return Lesson.objects.create(
            drill=drill, materials=sorted(values["force"]), values=values, traces=[row.pk for row in rows], author=author
        )


def undo(lesson_id: int) -> None:
    """Take a lesson back. Raises a 404 refusal."""
    with transaction.atomic():
        if not Lesson.objects.filter(pk=lesson_id, archived_at=None).update(archived_at=timezone.now()):
            raise Refusal(404, "There is no such lesson in use.")
        _changes(Lesson.objects.values_list("drill", flat=True).get(pk=lesson_id))


def _changes(drill: str) -> None:
    """What is known of a drill is another thing from now on: nothing that was kept with it before is shown any more."""
    Stamp.bump(ROOM)
    unsettle(jobs_using([("tools", drill)]))


def chosen_rows(job_id: int, operation: str, ids: list[int]) -> list[DrillTrace]:
    """The traces of an operation by their ids. Raises a 404 refusal."""
    rows = list(DrillTrace.objects.filter(job_id=job_id, operation=operation, archived_at=None, pk__in=ids))
    if len(rows) != len(set(ids)):
        raise Refusal(404, "One of these traces is not kept with this operation.")
    return rows


def overlaid(setup: DrillSetup, rows: Iterable[DrillTrace]) -> Iterator[tuple[DrillTrace, Fit | None]]:
    """Traces with their fit to the tables, aligned at the first contact; None where one shows no cut."""
    for row in rows:
        try:
            yield row, fit_trace(as_trace(row), untaught(setup, row))
        except CuttingError:
            yield row, None
