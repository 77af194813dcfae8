"""Recorded traces over HTTP: read, kept, recorded live, fitted, accepted, undone."""

from __future__ import annotations

import json
from collections.abc import Iterator
from typing import Any

import numpy as np
from django.http import HttpRequest, StreamingHttpResponse
from django.utils import timezone
from ninja import Router, Status

from cutting.operations.holes.drill.setup import DrillSetup
from cutting.quantities import Display, display
from cutting.traces.fit import Fit
from cutting.traces.growth import Growth
from cutting.traces.table import Trace, chosen_from, read_table, trace_of
from server.errors import Refusal
from server.jobs.document.plan import setup_of
from server.jobs.doors.holes import PLACE, drilled
from server.jobs.kept import actions, lessons
from server.jobs.measured import recorder
from server.jobs.measured.learned import learned_of
from server.jobs.models import DrillTrace, Lesson
from server.jobs.schemas import hole as out
from server.people.roles import require_engineer
from server.shop import shop

router = Router()
DRAWN = 260  # points of a trace that are drawn
SAMPLE = 6


@router.get(PLACE + "/traces", response=out.TracesOut)
def list_traces(request: HttpRequest, job_id: int, operation: str) -> dict[str, Any]:
    """The traces of an operation, aligned at the first contact, and the lessons of its drill that are in use."""
    setup = _setup(job_id, operation)
    rows = DrillTrace.objects.filter(job_id=job_id, operation=operation, archived_at=None).select_related("author")
    kept = Lesson.objects.filter(drill=setup.drill.name, archived_at=None).select_related("author")
    return {
        "traces": [_trace(row, fit) for row, fit in lessons.overlaid(setup, rows)],
        "lessons": [
            {"id": one.pk, "said": _said(one), "author": one.author.get_username(), "at": f"{one.at:%Y-%m-%d %H:%M}"} for one in kept
        ],
        "device": recorder.port() > 0,
    }


@router.post(PLACE + "/traces/read", response=out.TraceReadOut)
def read_file(request: HttpRequest, job_id: int, operation: str, payload: out.TextIn) -> dict[str, Any]:
    """What a file seems to hold, before anything is kept."""
    table = read_table(payload.text)
    along = "depth" if any(one.role == "depth" for one in table.columns) else "time"
    return {"columns": table.columns, "lines": len(table.lines), "sample": table.numbers[:SAMPLE].tolist(), "along": along}


@router.post(PLACE + "/traces", response={201: out.TracesOut})
def add_trace(request: HttpRequest, job_id: int, operation: str, payload: out.TraceIn) -> Status:
    """Keep a file's trace with the operation."""
    require_engineer(request)
    setup = _setup(job_id, operation)
    table = read_table(payload.text)
    rate = _feed_rate(setup)
    trace = trace_of(table, chosen_from(table, payload.columns), rate)
    lessons.keep_trace(job_id, setup, operation, trace, payload.hole, payload.name, request.user)
    return Status(201, list_traces(request, job_id, operation))


@router.post(PLACE + "/traces/{trace}/archive", response={204: None})
def put_away(request: HttpRequest, job_id: int, operation: str, trace: int) -> Status:
    """Put a trace away."""
    require_engineer(request)
    lessons.chosen_rows(job_id, operation, [trace])
    DrillTrace.objects.filter(pk=trace).update(archived_at=timezone.now())
    return Status(204, None)


@router.post(PLACE + "/traces/fit", response=out.FitOut)
def fit_traces(request: HttpRequest, job_id: int, operation: str, payload: out.IdsIn) -> dict[str, Any]:
    """What the chosen traces teach; nothing is kept."""
    rows = lessons.chosen_rows(job_id, operation, payload.traces)
    fit, growth, _ = lessons.fitted(_setup(job_id, operation), rows)
    return _fit(fit, growth)


@router.post(PLACE + "/lessons", response={201: out.TracesOut})
def accept_lesson(request: HttpRequest, job_id: int, operation: str, payload: out.IdsIn) -> Status:
    """Accept what the chosen traces teach, for this drill in these materials."""
    require_engineer(request)
    lessons.accept(_setup(job_id, operation), lessons.chosen_rows(job_id, operation, payload.traces), request.user)
    return Status(201, list_traces(request, job_id, operation))


@router.post(PLACE + "/lessons/{lesson}/undo", response=out.TracesOut)
def undo_lesson(request: HttpRequest, job_id: int, operation: str, lesson: int) -> dict[str, Any]:
    """Take back what was learned; the lesson before it counts again."""
    require_engineer(request)
    lessons.undo(lesson)
    return list_traces(request, job_id, operation)


@router.post(PLACE + "/record")
def record_hole(request: HttpRequest, job_id: int, operation: str, payload: out.RecordIn) -> StreamingHttpResponse:
    """Drill one hole on the dynamometer: its samples line by line as they come; kept when it is done."""
    require_engineer(request)
    setup = _setup(job_id, operation)
    lessons.require_room(job_id, operation)
    x = lessons.untaught(setup, DrillTrace(cutting_speed=setup.settings.cutting_speed, feed_per_rev=setup.settings.feed_per_rev))
    samples = recorder.record(recorder.request_of(x, payload.hole))
    rate, author = float(np.ravel(x.feed_rate)[0]), request.user

    def lines() -> Iterator[bytes]:
        kept: list[tuple[float, float, float]] = []
        try:
            for one in samples:
                kept.append((one["time"] * rate / 60.0, one["thrust"], one["torque"]))
                yield json.dumps({"depth": round(kept[-1][0], 4), "thrust": one["thrust"], "torque": one["torque"]}).encode() + b"\n"
            if not kept:
                raise Refusal(503, recorder.STOPPED)
            trace = Trace(*(np.array(values) for values in zip(*kept, strict=True)))
            row = lessons.keep_trace(job_id, setup, operation, trace, payload.hole, "dynamometer", author)
        except Refusal as refused:  # the answer is under way already: what went wrong is its last line
            yield json.dumps({"error": refused.title}).encode() + b"\n"
            return
        yield json.dumps({"kept": row.pk}).encode() + b"\n"

    return StreamingHttpResponse(lines(), content_type="application/x-ndjson")


def _setup(job_id: int, operation: str) -> DrillSetup:
    document, entry = drilled(actions.newest(job_id).document, operation)
    found: DrillSetup = setup_of(document, entry, None, shop())
    return found


def _feed_rate(setup: DrillSetup) -> float:
    x = lessons.untaught(setup, DrillTrace(cutting_speed=setup.settings.cutting_speed, feed_per_rev=setup.settings.feed_per_rev))
    return float(np.ravel(x.feed_rate)[0])


def _trace(row: DrillTrace, fit: Fit | None) -> dict[str, Any]:
    peaks = [float(np.max(row.points[name])) for name in ("thrust", "torque")]
    return {
        "id": row.pk,
        "hole": row.hole,
        "origin": row.origin,
        "author": row.author.get_username(),
        "at": f"{row.at:%Y-%m-%d %H:%M}",
        "speed": display(row.cutting_speed, "cutting_speed"),
        "feed": display(row.feed_per_rev, "feed_per_rev"),
        "peak_thrust": display(peaks[0], "force"),
        "peak_torque": display(peaks[1], "torque"),
        "thrust": _points(fit.depth, fit.thrust) if fit else [],
        "torque": _points(fit.depth, fit.torque) if fit else [],
        "problem": "" if fit else "It shows no cut of these layers: another set-up, or the wrong columns.",
    }


def _points(depth: Any, values: Any) -> list[list[float]]:
    step = max(1, len(depth) // DRAWN)
    return [[float(f"{a:.5g}"), float(f"{b:.5g}")] for a, b in zip(depth[::step], values[::step], strict=True)]


def _said(one: Lesson) -> str:
    found = learned_of(one.drill, one.materials)
    return f"{', '.join(one.materials)}: {found['note']}" if found else ", ".join(one.materials)


def _fit(fit: Fit, growth: Growth | None) -> dict[str, Any]:
    said = ""
    if growth is not None:
        said = (
            f"Torque grows as 1 + {growth.a:.3g}·N^{growth.b:.2f} (a {growth.a_low:.3g} to {growth.a_high:.3g}, "
            f"b {growth.b_low:.2f} to {growth.b_high:.2f}): 30 % more after {growth.holes_to(0.3):.0f} holes."
        )
    return {
        "parameters": [
            {
                "label": one.label,
                "value": f"{one.value:.3f}",
                "interval": f"{one.low:.3f} – {one.high:.3f}",
                "before": f"{one.before:.2f}",
            }
            for one in fit.parameters
        ],
        "residual": display(fit.thrust_residual, "force"),
        "torque_residual": Display(*(f"{fit.torque_residual * k:.3f} {unit}" for k, unit in ((1.0, "N·m"), (0.737562, "lbf·ft")))),
        "explained": f"{fit.explained:.1%}",
        "shift": display(round(fit.shift, 3), "length"),
        "growth": said,
        "fitted_thrust": _points(fit.depth, fit.fitted_thrust),
        "fitted_torque": _points(fit.depth, fit.fitted_torque),
    }
