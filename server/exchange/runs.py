"""What an import or export does: previews, all or nothing, files."""

from __future__ import annotations

import json
import zlib
from dataclasses import astuple
from typing import Any

from cutting.exchange.columns import Record
from cutting.exchange.tables import TABLES
from cutting.names import plain
from cutting.tooling.records import properties, study
from server.exchange.apply import apply_plan
from server.exchange.files import read_file, rows_of, write_file
from server.exchange.models import Run
from server.exchange.plan import REFUSED, Fate, ImportPlan, TablePlan, plan_import
from server.records.models import Stamp
from server.records.registry import KEEPERS
from server.work.progress import Progress


def carry_out(run: Run, progress: Progress) -> None:
    """Do what a run asks for."""
    {Run.Work.PREVIEW: _preview, Run.Work.APPLY: _apply, Run.Work.EXPORT: _export}[Run.Work(run.work)](run, progress)


def _plan(run: Run, progress: Progress) -> ImportPlan:
    file = read_file(zlib.decompress(bytes(run.content or b"")), run.format, run.table)
    progress.total = rows_of(file) * (3 if run.work == Run.Work.APPLY else 2)
    return plan_import(file, progress)


def _preview(run: Run, progress: Progress) -> None:
    run.stamps = Stamp.all()
    _keep_fates(run, _plan(run, progress))
    run.state, run.message = Run.State.PREVIEWED, ""


def _keep_fates(run: Run, plan: ImportPlan) -> None:
    run.fates = zlib.compress(json.dumps([astuple(fate) for fate in plan.fates], ensure_ascii=False).encode())
    run.writes = zlib.compress(json.dumps([[t.keeper.table.name, t.fresh, t.changed] for t in plan.tables], ensure_ascii=False).encode(), 1)
    run.counts = plan.counts


def _planned(run: Run, progress: Progress) -> ImportPlan:
    """The preview's own plan, as long as nothing has changed since."""
    parts = [
        TablePlan(KEEPERS[name], fresh, [tuple(entry) for entry in changed])
        for name, fresh, changed in json.loads(zlib.decompress(bytes(run.writes or b"")))
    ]
    progress.total = sum(len(part.fresh) + len(part.changed) for part in parts)
    return ImportPlan([Fate(*fate) for fate in json.loads(zlib.decompress(bytes(run.fates or b"")))], parts)


def _apply(run: Run, progress: Progress) -> None:
    stamps = Stamp.all()
    plan = _planned(run, progress) if stamps == run.stamps else _plan(run, progress)
    if stamps != run.stamps:  # somebody changed something meanwhile: the preview that was seen must still hold
        before = run.counts, zlib.decompress(bytes(run.fates or b""))
        _keep_fates(run, plan)
        run.stamps = stamps
        if before != (run.counts, zlib.decompress(run.fates or b"")):
            run.state, run.work = Run.State.PREVIEWED, Run.Work.PREVIEW
            run.message = "Crib, shelf or floor changed since the preview; here is the new one. Nothing was written."
            return
    if plan.counts[REFUSED] and not run.leave_out_refused:
        run.state, run.work = Run.State.PREVIEWED, Run.Work.PREVIEW
        run.message = f"{plan.counts[REFUSED]} rows are refused; nothing was written."
        return
    apply_plan(plan, run.author, f"import {run.pk}, {run.file_name}", progress)
    written = plan.counts["new"] + plan.counts["changed"]
    run.state, run.message = Run.State.DONE, f"{written:,} rows written, {plan.counts['same']:,} were the same already."


def _export(run: Run, progress: Progress) -> None:
    names = [run.table] if run.table else list(TABLES)
    progress.total = sum(KEEPERS[name].rows().filter(archived_at=None).count() for name in names)
    run.result = zlib.compress(export(names, run.format, progress))
    run.state, run.message = Run.State.DONE, f"{progress.done:,} rows."


def export(names: list[str], form: str, progress: Progress) -> bytes:
    """The file of everything that is kept in the tables and not archived, and of what that names: it can always be read in again."""
    found: dict[str, list[Record]] = {}
    for name in names:
        keeper = KEEPERS[name]
        found[name] = []
        for row in keeper.rows().filter(archived_at=None).order_by("pk").iterator(chunk_size=2000):
            found[name].append(keeper.to_record(row))
            progress.step()
    if len(names) > 1:  # one table alone is read in where the others are
        for name in sorted(names, key=_depth, reverse=True):
            for column, other in KEEPERS[name].table.needs:
                found[other] += _archived(other, {plain(str(record[column])) for record in found[name] if record[column]})
    return write_file(
        form, [(KEEPERS[name].table, [_with_said(r) for r in found[name]] if name == "tools" else found[name]) for name in names]
    )


def _depth(name: str) -> int:
    """How many tables stand behind the names of a table."""
    return max((1 + _depth(other) for _, other in KEEPERS[name].table.needs), default=0)


def _archived(name: str, wanted: set[str]) -> list[Record]:
    """Of a table what is archived and yet named by something at work."""
    keeper = KEEPERS[name]
    rows = keeper.rows().filter(archived_at__isnull=False).order_by("pk")
    return [keeper.to_record(row) for row in rows if plain(row.name) in wanted]


def _with_said(record: dict[str, Any]) -> dict[str, Any]:
    """A tool's record with what its designation says as ISO 13399 properties, for other programs."""
    said = study(record["kind"], record["designation"], {symbol: record.get(symbol) for symbol in properties()})[0].says
    return {**record, **{symbol: value for symbol, value in said.items() if record.get(symbol) is None}}
