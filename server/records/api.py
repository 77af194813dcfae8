"""One door for everything that is kept: columns, a record, its changes, where it is used, its archive."""

from __future__ import annotations

from datetime import datetime
from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router, Status

from cutting.exchange.columns import PLAIN_KINDS, Column
from cutting.exchange.tables import TABLES
from cutting.quantities import KINDS, display
from server.errors import Refusal
from server.jobs.kept.uses import ids_using
from server.jobs.models import Job
from server.people.roles import require_engineer
from server.records import actions
from server.records.keeper import Keeper
from server.records.models import Change
from server.records.registry import keeper_of
from server.schema import Schema
from server.units import DisplayOut

router = Router()
MOST_NAMED = 60  # jobs that use a thing, on its page
TableName = Literal[tuple(TABLES)]
CellIn = str | float | bool | None


class ColumnOut(Schema):
    """A column of an open table: how to label and check its field."""

    name: str
    title: str
    kind: str
    unit: DisplayOut
    required: bool
    low: float | None
    high: float | None
    choices: list[str]


class CellOut(Schema):
    """A cell as it is written, and in words in both units."""

    value: str
    shown: DisplayOut


class ChangeOut(Schema):
    """A line of a record's history."""

    at: datetime
    author: str
    action: str
    fields: dict[str, list[str]]


class JobRef(Schema):
    """A job that uses a record."""

    id: int
    name: str


class RecordOut(Schema):
    """A kept thing with all its cells, where it is used and what happened to it."""

    id: int
    table: str
    label: str
    version: int
    archived: bool
    entered: str
    cells: dict[str, CellOut]
    used_in: list[JobRef]
    used_in_all: int
    history: list[ChangeOut]


class CellsIn(Schema):
    """Cells as typed; bare numbers are in `units`."""

    cells: dict[str, CellIn]
    units: Literal["mm", "inch"] = "mm"


class ChangeIn(CellsIn):
    """New values of a record, with the version that they started from."""

    version: int


@router.get("/{table}/columns", response=list[ColumnOut])
def list_columns(request: HttpRequest, table: TableName) -> list[dict[str, Any]]:
    """The columns of a table."""
    return [_column(column) for column in keeper_of(table).table.columns]


@router.get("/{table}/{record_id}", response=RecordOut)
def read_record(request: HttpRequest, table: TableName, record_id: int) -> dict[str, Any]:
    """A record with its version."""
    return _record(keeper_of(table), record_id)


@router.post("/{table}", response={201: RecordOut})
def create_record(request: HttpRequest, table: TableName, payload: CellsIn) -> Status:
    """Keep a new record."""
    require_engineer(request)
    row = actions.create_record(table, payload.cells, payload.units == "inch", request.user)
    return Status(201, _record(keeper_of(table), row.pk))


@router.post("/{table}/{record_id}", response=RecordOut)
def change_record(request: HttpRequest, table: TableName, record_id: int, payload: ChangeIn) -> dict[str, Any]:
    """Change the cells given; a stale version is answered 409."""
    require_engineer(request)
    actions.change_record(table, record_id, payload.version, payload.cells, payload.units == "inch", request.user)
    return _record(keeper_of(table), record_id)


@router.post("/{table}/{record_id}/archive", response=RecordOut)
def archive_record(request: HttpRequest, table: TableName, record_id: int) -> dict[str, Any]:
    """Put a record away."""
    require_engineer(request)
    actions.set_archived(table, record_id, True, request.user)
    return _record(keeper_of(table), record_id)


@router.post("/{table}/{record_id}/restore", response=RecordOut)
def restore_record(request: HttpRequest, table: TableName, record_id: int) -> dict[str, Any]:
    """Take a record out again."""
    require_engineer(request)
    actions.set_archived(table, record_id, False, request.user)
    return _record(keeper_of(table), record_id)


def _record(keeper: Keeper, pk: int) -> dict[str, Any]:
    row = keeper.rows().filter(pk=pk).first()
    if row is None:
        raise Refusal(404, f"There is no such row among the {keeper.table.name}.")
    record, using = keeper.to_record(row), ids_using(keeper.used_names(row)[:5000])
    return {
        "id": row.pk,
        "table": keeper.table.name,
        "label": keeper.table.label(record),
        "version": row.version,
        "archived": row.archived_at is not None,
        "entered": row.entered,
        "cells": {column.name: _cell(column, record[column.name]) for column in keeper.table.columns},
        "used_in": list(Job.objects.filter(pk__in=using).order_by("name", "pk").values("id", "name")[:MOST_NAMED]),
        "used_in_all": len(using),
        "history": [
            {
                "at": change.at,
                "author": change.author.get_username() if change.author else "set-up",
                "action": change.action,
                "fields": {name: [str(value) for value in pair] for name, pair in change.fields.items()},
            }
            for change in Change.objects.filter(table=keeper.table.name, thing=pk).select_related("author")[:50]
        ],
    }


def _column(column: Column) -> dict[str, Any]:
    kind = KINDS.get(column.kind)
    unit = {"metric": kind.metric, "inch": kind.inch} if kind and column.kind not in PLAIN_KINDS else {"metric": "", "inch": ""}
    return {
        "name": column.name,
        "title": column.title,
        "kind": column.kind,
        "unit": unit,
        "required": column.required,
        "low": column.low,
        "high": column.high,
        "choices": list(column.choices),
    }


def _cell(column: Column, value: Any) -> dict[str, Any]:
    written = str(column.write(value))
    if value is None or column.kind in PLAIN_KINDS or not isinstance(value, (int, float)):
        return {"value": written, "shown": {"metric": written, "inch": written}}
    return {"value": written, "shown": display(value, column.kind)}
