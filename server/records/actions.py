"""Changes of kept things: validation, write, history and the marking of jobs. Permission is checked at the door."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.db import IntegrityError, transaction
from django.utils import timezone

from cutting.exchange.columns import Cell, Record
from server.errors import Refusal
from server.jobs.kept.uses import jobs_using, mark_stale, remember
from server.records.keeper import Keeper, differences, note_change
from server.records.models import Kept, Stamp
from server.records.registry import keeper_of


def create_record(table: str, cells: Mapping[str, Cell], inch: bool, author: Any) -> Kept:
    """Keep a new thing. Raises `CuttingError` for bad cells, 409 where the same thing is kept already."""
    keeper = keeper_of(table)
    record, names = _finished(keeper, _read(keeper, cells, inch, None))
    key, label = keeper.table.key(record), keeper.table.label(record)
    try:
        with transaction.atomic():
            if (there := keeper.model.objects.filter(key=key).first()) is not None:
                state = "in the archive: restore it" if there.archived_at else "kept already"
                raise Refusal(409, f"{label} is {state}.", [{"field": keeper.table.columns[0].name, "message": state}], id=there.pk)
            jobs = jobs_using(keeper.owners_of([record]))
            remember(jobs)
            keeper.insert_many([record], names, Stamp.bump(keeper.room), f"by {author.get_username()}")
            mark_stale(jobs, f"{label} was entered", author.get_username())
            row: Kept = keeper.model.objects.get(key=key)
    except IntegrityError as error:
        raise Refusal(409, f"Somebody entered {label} at the same moment.") from error
    return row


def change_record(table: str, pk: int, version: int, cells: Mapping[str, Cell], inch: bool, author: Any) -> Kept:
    """Change some cells of a kept thing. Raises 409 for a stale version or for a name that jobs use."""
    keeper = keeper_of(table)
    with transaction.atomic():
        row = _locked(keeper, pk)
        before = keeper.to_record(row)
        record, names = _finished(keeper, _read(keeper, cells, inch, before))
        if row.version != version:
            yours = differences(before, record)
            raise Refusal(
                409,
                f"{keeper.table.label(before)} was changed since you opened it.",
                current_version=row.version,
                yours=_words(keeper, yours),
            )
        changes = differences(before, record)
        if not changes:
            return row
        key, label = keeper.table.key(record), keeper.table.label(record)
        used = keeper.used_names(row)
        jobs = jobs_using(used)
        if key != row.key:
            _refuse_renaming(keeper, before, jobs, used, list(changes))
        if key != row.key and keeper.model.objects.filter(key=key).exists():
            raise Refusal(409, f"{label} is kept already.")
        remember(jobs)
        keeper.change_one(pk, record, names, Stamp.bump(keeper.room))
        note_change(table, pk, label, "changed", _words(keeper, changes), author)
        mark_stale(jobs, f"{label}: {', '.join(keeper.table.column(name).title for name in changes)} changed", author.get_username())
    return _row(keeper, pk)


def set_archived(table: str, pk: int, archived: bool, author: Any) -> Kept:
    """Put a thing into the archive or take it out; jobs that use it keep finding it."""
    keeper = keeper_of(table)
    with transaction.atomic():
        row = _locked(keeper, pk)
        if (row.archived_at is not None) == archived:
            return row
        row.archived_at = timezone.now() if archived else None
        row.stamp, row.version = Stamp.bump(keeper.room), row.version + 1
        row.save()
        label = keeper.table.label(keeper.to_record(row))
        word = "archived" if archived else "restored"
        note_change(table, pk, label, word, {}, author)
        jobs = jobs_using(keeper.used_names(row)) if keeper.owner or table in ("tools", "materials", "machines") else []
        remember(jobs)
        mark_stale(jobs, f"{label} was {word}", author.get_username())
    return _row(keeper, pk)


def _refuse_renaming(keeper: Keeper, before: Record, jobs: list[Any], used: list[tuple[str, str]], fields: list[str]) -> None:
    """A name that jobs or tools go by stays: their records speak of it."""
    who = f"{len(jobs)} jobs" if jobs else f"{len(used)} tools" if keeper.table.name in ("geometries", "grades") and used else ""
    if who:
        raise Refusal(
            409,
            f"{who} use {keeper.table.label(before)} by this name; enter the other as a new one and archive this.",
            [{"field": name, "message": "names a thing in use"} for name in fields],
        )


def _read(keeper: Keeper, cells: Mapping[str, Cell], inch: bool, before: Record | None) -> Record:
    columns = {column.name: column for column in keeper.table.columns}
    for name in cells:
        if name not in columns:
            raise Refusal(422, f"{name[:60]}: there is no such field.", [{"field": name[:60], "message": "there is no such field"}])
    record: Record = dict(before) if before else {}
    for name, column in columns.items():
        if name in cells:
            record[name] = column.read(cells[name], inch)
        elif before is None:
            record[name] = column.read(None)
    return record


def _finished(keeper: Keeper, record: Record) -> tuple[Record, dict[str, Any]]:
    names = keeper.names_needed([record])
    return keeper.finish(record, names), names


def _locked(keeper: Keeper, pk: int) -> Any:
    # the row alone is locked, not what it refers to
    if keeper.model.objects.select_for_update().filter(pk=pk).first() is None:
        raise Refusal(404, f"There is no such row among the {keeper.table.name}.")
    return keeper.rows().get(pk=pk)


def _row(keeper: Keeper, pk: int) -> Kept:
    return keeper.rows().get(pk=pk)


def _words(keeper: Keeper, changes: dict[str, list[Any]]) -> dict[str, list[Any]]:
    return {name: [keeper.table.column(name).write(value) for value in pair] for name, pair in changes.items()}
