"""Between an open table's records and the rows that keep them."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from typing import Any, ClassVar

from django.db.models import QuerySet

from cutting.errors import CuttingError
from cutting.exchange.columns import Record
from cutting.exchange.tables import Table
from server.records.models import Change, Kept

BATCH = 2000


class Keeper:
    """How one table is kept. A subclass says how a record becomes a row and a row a record."""

    table: ClassVar[Table]
    room: ClassVar[str]
    model: ClassVar[type[Kept]]
    related: ClassVar[tuple[str, ...]] = ()
    owner: ClassVar[str] = ""  # column that names the thing of another table that a row is a part of

    def rows(self) -> QuerySet[Any]:
        """The rows of its table."""
        return self.model.objects.select_related(*self.related)

    def to_record(self, row: Any) -> Record:
        """The row as a finished record."""
        return {column.name: getattr(row, column.name) for column in self.table.columns}

    def to_fields(self, record: Record, names: dict[str, dict[str, int]]) -> dict[str, Any]:
        """The row's fields of a finished record; `names` holds the ids that names of other tables stand for."""
        return dict(record)

    def names_needed(self, records: Iterable[Record]) -> dict[str, dict[str, Any]]:
        """For each column that names a thing of another table, those things' ids and names by key."""
        return {}

    def used_names(self, row: Any) -> list[tuple[str, str]]:
        """What jobs call this thing: (table, name)."""
        return [(self.table.name, row.name)]

    def owners_of(self, records: Iterable[Record]) -> list[tuple[str, str]]:
        """What jobs call the things that these rows are a part of: (table, name); nothing for rows that are things of their own."""
        table = dict(self.table.needs).get(self.owner, "")
        return [(table, record[self.owner]) for record in records] if self.owner else []

    def finish(self, record: Record, names: dict[str, dict[str, int]]) -> Record:
        """The record checked as a whole, with names of other tables in their own spelling. Raises `CuttingError`."""
        return self.table.finish(record)

    def existing(self, keys: Collection[str]) -> dict[str, tuple[int, Record]]:
        """Id and record of each key that is kept."""
        found: dict[str, tuple[int, Record]] = {}
        kept = set(self.model.objects.values_list("key", flat=True)) if len(keys) > BATCH else None
        wanted = [key for key in keys if kept is None or key in kept]  # of many, most are usually new
        for start in range(0, len(wanted), BATCH):
            for row in self.rows().filter(key__in=wanted[start : start + BATCH]):
                found[row.key] = (row.pk, self.to_record(row))
        return found

    def insert_many(self, records: list[Record], names: dict[str, dict[str, int]], stamp: int, entered: str = "") -> None:
        """New rows for finished records."""
        rows = [self.model(key=self.table.key(r), stamp=stamp, entered=entered, **self.to_fields(r, names)) for r in records]
        self.model.objects.bulk_create(rows, batch_size=BATCH)

    def change_one(self, pk: int, record: Record, names: dict[str, dict[str, int]], stamp: int) -> None:
        """Overwrite one row with a finished record."""
        row = self.model.objects.select_for_update().get(pk=pk)
        for name, value in self.to_fields(record, names).items():
            setattr(row, name, value)
        row.key, row.stamp, row.version = self.table.key(record), stamp, row.version + 1
        row.save()


def differences(before: Record, after: Record) -> dict[str, list[Any]]:
    """What differs between two finished records: name to [before, after]."""
    return {name: [before.get(name), value] for name, value in after.items() if plain_value(before.get(name)) != plain_value(value)}


def plain_value(value: Any) -> Any:
    """Tuples as lists and whole floats as they are, so that JSON and database forms compare equal."""
    return [plain_value(v) for v in value] if isinstance(value, (tuple, list)) else value


def note_change(table: str, pk: int, label: str, action: str, fields: dict[str, list[Any]], author: Any) -> None:
    """One line of history."""
    Change.objects.create(table=table, thing=pk, label=label[:200], action=action, fields=fields, author=author)


def unknown_name(column: str, name: str, table: str) -> CuttingError:
    """The refusal of a name that another table does not have."""
    return CuttingError(column, f"no {table} is called '{name}'; enter it first, or import it in the same file.")
