"""Writes a plan, all or nothing: rows, history, stamps and the marks on jobs in one transaction."""

from __future__ import annotations

from typing import Any

from django.db import transaction

from server.exchange.plan import ImportPlan, TablePlan
from server.jobs.kept.uses import jobs_using, mark_stale, remember
from server.records.keeper import BATCH
from server.records.models import Change, Stamp
from server.work.progress import Progress


def apply_plan(plan: ImportPlan, author: Any, what: str, progress: Progress) -> None:
    """Write everything that is new or changed. Raises `Cancelled`; then nothing is written."""
    with transaction.atomic():
        touched = [(part, _jobs(part)) for part in plan.tables]
        for _, jobs in touched:
            remember(jobs)
        stamps = {room: Stamp.bump(room) for room in {part.keeper.room for part in plan.tables if part.fresh or part.changed}}
        for part, jobs in touched:
            if part.fresh or part.changed:
                _write(part, stamps[part.keeper.room], author, what, progress)
            count = len(part.changed) + len(part.keeper.owners_of(part.fresh))
            mark_stale(jobs, f"{what}: {count} {part.keeper.table.title.lower()} changed", name_of(author))


def _jobs(part: TablePlan) -> list[Any]:
    ids = [pk for pk, _, _, _ in part.changed]
    names = part.keeper.owners_of(part.fresh)
    for start in range(0, len(ids), BATCH):
        for row in part.keeper.rows().filter(pk__in=ids[start : start + BATCH]):
            names += part.keeper.used_names(row)
    return jobs_using(names)


def name_of(author: Any) -> str:
    """Who did it; on an instance without people the command line."""
    return str(author.get_username()) if author else "the command line"


def _write(part: TablePlan, stamp: int, author: Any, what: str, progress: Progress) -> None:
    keeper, model = part.keeper, part.keeper.model
    every = [*part.fresh, *(record for _, record, _, _ in part.changed)]
    names = keeper.names_needed(every)
    for start in range(0, len(part.fresh), BATCH):
        batch = part.fresh[start : start + BATCH]
        keeper.insert_many(batch, names, stamp, f"by {name_of(author)}, {what}"[:200])
        progress.step(len(batch))
    versions = dict(model.objects.filter(pk__in=[pk for pk, _, _, _ in part.changed]).values_list("pk", "version"))
    for start in range(0, len(part.changed), BATCH):
        rows, fields = [], set()
        for pk, record, _, _ in part.changed[start : start + BATCH]:
            values = keeper.to_fields(record, names)
            fields |= set(values)
            rows.append(model(key=keeper.table.key(record), stamp=stamp, version=versions[pk] + 1, archived_at=None, **values))
        # the key is unique, so each row overwrites its own
        model.objects.bulk_create(rows, update_conflicts=True, update_fields=[*fields, "stamp", "version", "archived_at"])
        progress.step(len(rows))
    _history(part, author, what)


def _history(part: TablePlan, author: Any, what: str) -> None:
    """A line for each row that changed; a new row says itself how it came."""
    table = part.keeper.table
    lines = []
    for pk, record, changes, back in part.changed:
        words = {name: [table.column(name).write(value) for value in pair] for name, pair in changes.items()}
        action = f"{'restored' if back else 'changed'}: {what}"
        lines.append(Change(table=table.name, thing=pk, label=table.label(record)[:200], action=action[:60], fields=words, author=author))
    Change.objects.bulk_create(lines, batch_size=BATCH)
