"""Import with a preview, export, and how far each run is."""

from __future__ import annotations

import json
import zlib
from datetime import datetime
from typing import Any, Literal

from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import File, Form, Router, Status
from ninja.files import UploadedFile

from cutting.exchange.tables import TABLES
from server.errors import Refusal
from server.exchange.files import FORMATS, format_of, write_template
from server.exchange.models import Run
from server.people.log import What, note
from server.people.roles import require_engineer
from server.records.registry import KEEPERS
from server.schema import Schema
from server.work.tasks import put, start

router = Router()
MOST_BYTES = 64 * 1024 * 1024
MOST_PACKED = 40 * 1024 * 1024
MEDIA = {
    "csv": "text/csv; charset=utf-8",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "json": "application/json",
}


class RunOut(Schema):
    """One import or export: `done` of `total` steps; `counts` of the preview's fates."""

    id: int
    work: str
    state: Literal["waiting", "running", "previewed", "done", "refused", "cancelled"]
    table: str
    format: str
    file_name: str
    counts: dict[str, int]
    done: int
    total: int
    message: str
    author: str
    at: datetime
    seconds: float
    has_file: bool


class FateOut(Schema):
    """What becomes of a row of a file."""

    table: str
    row: int
    fate: str
    label: str
    why: str


class FatePage(Schema):
    """A page of them."""

    matched: int
    rows: list[FateOut]


class ApplyIn(Schema):
    """What of a preview is to be taken in."""

    leave_out_refused: bool = False


class ExportIn(Schema):
    """A table's name, or blank for everything (XLSX and JSON only)."""

    table: Literal[("", *TABLES)] = ""
    format: Literal["csv", "xlsx", "json"]


@router.get("/runs", response=list[RunOut])
def list_runs(request: HttpRequest) -> list[dict[str, Any]]:
    """Imports and exports, the newest first."""
    return [_run(run) for run in Run.objects.defer("content", "fates", "writes", "result").select_related("author")[:30]]


@router.get("/runs/{run_id}", response=RunOut)
def read_run(request: HttpRequest, run_id: int) -> dict[str, Any]:
    """How far one is."""
    return _run(_found(run_id))


@router.get("/runs/{run_id}/fates", response=FatePage)
def list_fates(request: HttpRequest, run_id: int, fate: str = "", offset: int = 0, limit: int = 100) -> dict[str, Any]:
    """The preview: what becomes of each row, and why."""
    run = _found(run_id)
    if run.fates is None:
        return {"matched": 0, "rows": []}
    rows = json.loads(zlib.decompress(bytes(run.fates)))
    chosen = [row for row in rows if not fate or row[2] == fate]
    names = ("table", "row", "fate", "label", "why")
    start = max(offset, 0)
    return {"matched": len(chosen), "rows": [dict(zip(names, row, strict=True)) for row in chosen[start : start + min(max(limit, 1), 500)]]}


@router.post("/imports", response={201: RunOut})
def start_import(
    request: HttpRequest,
    file: UploadedFile = File(...),  # noqa: B008
    table: str = Form(""),
) -> Status:
    """Take in a file and preview it; nothing is written until it is applied."""
    require_engineer(request)
    if table and table not in TABLES:
        raise Refusal(422, f"table: '{table[:40]}' is none of {', '.join(TABLES)}.", [{"field": "table", "message": "is unknown"}])
    if (file.size or 0) > MOST_BYTES:
        raise Refusal(413, "file: larger than 64 MiB.", [{"field": "file", "message": "larger than its bound", "bound": "64 MiB"}])
    content = file.read()
    form = format_of(file.name or "", content)
    packed = zlib.compress(content)
    if len(packed) > MOST_PACKED:
        raise Refusal(413, "file: too large even when packed.", [{"field": "file", "message": "too large", "bound": "40 MiB packed"}])
    run = Run(work=Run.Work.PREVIEW, format=form, table=table, file_name=(file.name or "file")[:160], content=packed, author=request.user)
    start(run)
    return Status(201, _run(run))


@router.post("/runs/{run_id}/apply", response=RunOut)
def apply_import(request: HttpRequest, run_id: int, payload: ApplyIn) -> dict[str, Any]:
    """Write what the preview showed, all or nothing."""
    require_engineer(request)
    run = _found(run_id)
    if run.counts.get("refused") and not payload.leave_out_refused:
        raise Refusal(422, f"{run.counts['refused']} rows are refused. Mend the file, or leave those rows out.", fields=[])
    ready = Run.objects.filter(pk=run.pk, state=Run.State.PREVIEWED, work=Run.Work.PREVIEW)
    asked = {"work": Run.Work.APPLY, "leave_out_refused": payload.leave_out_refused, "message": "", "done": 0, "attempts": 0}
    with transaction.atomic():
        if not ready.update(state=Run.State.WAITING, beat=timezone.now(), cancel=False, **asked):
            raise Refusal(409, "Only a preview that is ready can be applied.")
        put(run)
    return _run(_found(run_id))


@router.post("/runs/{run_id}/cancel", response=RunOut)
def cancel_run(request: HttpRequest, run_id: int) -> dict[str, Any]:
    """Stop a run that waits or is under way; what it had begun is taken back."""
    require_engineer(request)
    run = _found(run_id)
    stopped = Run.objects.filter(pk=run.pk, state__in=(Run.State.WAITING, Run.State.PREVIEWED)).update(
        state=Run.State.CANCELLED, message="Stopped on request; nothing was written."
    )
    if not stopped:
        Run.objects.filter(pk=run.pk, state=Run.State.RUNNING).update(cancel=True)
    return _run(_found(run_id))


@router.post("/exports", response={201: RunOut})
def start_export(request: HttpRequest, payload: ExportIn) -> Status:
    """Write one table, or everything, into a file to fetch when the run is done."""
    if payload.format == "csv" and not payload.table:
        raise Refusal(
            422, "format: CSV holds one table; choose XLSX or JSON for everything.", [{"field": "format", "message": "one table only"}]
        )
    name = f"{payload.table or 'shop'}.{payload.format}"
    note(request, What.EXPORTED, more=name)
    run = Run(work=Run.Work.EXPORT, format=payload.format, table=payload.table, file_name=name, author=request.user)
    start(run)
    return Status(201, _run(run))


@router.get("/template")
def fetch_template(request: HttpRequest, table: str, format: Literal["csv", "xlsx"] = "csv") -> HttpResponse:
    """A table to fill in: every column with its unit, and the first row of the shop as an example."""
    if table not in TABLES:
        raise Refusal(422, f"table: '{table[:40]}' is none of {', '.join(TABLES)}.", [{"field": "table", "message": "is no table here"}])
    keeper = KEEPERS[table]
    examples = [keeper.to_record(row) for row in keeper.rows().filter(archived_at=None).order_by("pk")[:1]]
    answer = HttpResponse(write_template(format, TABLES[table], examples), content_type=MEDIA[format])
    answer["Content-Disposition"] = f'attachment; filename="{table}-template.{format}"'
    return answer


@router.get("/runs/{run_id}/file")
def fetch_file(request: HttpRequest, run_id: int) -> HttpResponse:
    """The file of an export."""
    run = _found(run_id)
    if run.result is None:
        raise Refusal(404, "This run has no file.")
    answer = HttpResponse(zlib.decompress(bytes(run.result)), content_type=MEDIA[run.format])
    answer["Content-Disposition"] = f'attachment; filename="{run.file_name}"'
    return answer


def _found(run_id: int) -> Run:
    run = Run.objects.select_related("author").filter(pk=run_id).first()
    if run is None:
        raise Refusal(404, "There is no such run.")
    return run


def _run(run: Run) -> dict[str, Any]:
    plain_fields = ("id", "work", "state", "table", "format", "file_name", "counts", "done", "total", "message", "at", "seconds")
    return {
        **{name: getattr(run, name) for name in plain_fields},
        "author": run.author.get_username(),
        "has_file": run.work == Run.Work.EXPORT and run.state == Run.State.DONE,
    }


assert set(MEDIA) == set(FORMATS)
