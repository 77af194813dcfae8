"""What an import would do: a fate for every row, found without writing anything."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass, field
from typing import Any

from cutting.errors import CuttingError
from cutting.exchange.columns import Record, match_headings, read_row
from cutting.names import plain
from server.exchange.files import GivenFile
from server.records.keeper import Keeper, differences
from server.records.registry import KEEPERS
from server.work.progress import Progress

NEW, CHANGED, SAME, REFUSED = "new", "changed", "same", "refused"


@dataclass
class Fate:
    """What becomes of one row of the file."""

    table: str
    row: int
    fate: str
    label: str
    why: str = ""


@dataclass
class TablePlan:
    """What is to be written into one table."""

    keeper: Keeper
    fresh: list[Record] = field(default_factory=list)
    changed: list[tuple[int, Record, dict[str, list[Any]], bool]] = field(default_factory=list)  # id, record, changes, comes back


@dataclass
class ImportPlan:
    """All fates and all writes of a file."""

    fates: list[Fate]
    tables: list[TablePlan]

    @property
    def counts(self) -> dict[str, int]:
        """How many rows of each fate."""
        counted = Counter(fate.fate for fate in self.fates)
        return {name: counted[name] for name in (NEW, CHANGED, SAME, REFUSED)}


def plan_import(file: list[GivenFile], progress: Progress) -> ImportPlan:
    """Read every row, check it as a whole, and hold it against what is kept. Raises `CuttingError` for a broken heading."""
    fates: list[Fate] = []
    tables: list[TablePlan] = []
    names_in_file: dict[str, set[str]] = {}
    for given in file:
        keeper = KEEPERS[given.table.name]
        finished, refused = _finish_rows(given, keeper, names_in_file, progress)
        names_in_file[given.table.name] = {plain(given.table.label(record)) for _, record in finished.values()}
        given_columns = {column.name for column, _ in match_headings(given.headings, given.table.columns).values()}
        made, found = _against_kept(keeper, finished, given_columns)
        tables.append(made)
        fates += sorted([*refused, *found], key=lambda fate: fate.row)
    return ImportPlan(fates, tables)


def _finish_rows(
    given: GivenFile, keeper: Keeper, names_in_file: dict[str, set[str]], progress: Progress
) -> tuple[dict[str, tuple[int, Record]], list[Fate]]:
    headings = match_headings(given.headings, given.table.columns)
    read: list[tuple[int, Record]] = []
    refused: list[Fate] = []
    for number, cells in given.rows:
        progress.step()
        try:
            read.append((number, read_row(cells, headings, given.table.columns)))
        except CuttingError as error:
            refused.append(Fate(given.table.name, number, REFUSED, _first_words(cells), str(error)))
    names = _with_own(keeper, read, names_in_file)
    finished: dict[str, tuple[int, Record]] = {}
    for number, record in read:
        progress.step()
        try:
            made = keeper.finish(record, names)
        except CuttingError as error:
            refused.append(Fate(given.table.name, number, REFUSED, given.table.label(record), str(error)))
            continue
        key = given.table.key(made)
        if key in finished:
            why = f"is the same as row {finished[key][0]}: {given.table.label(made)}"
            refused.append(Fate(given.table.name, number, REFUSED, given.table.label(record), why))
        else:
            finished[key] = (number, made)
    return finished, refused


def _with_own(keeper: Keeper, read: list[tuple[int, Record]], names_in_file: dict[str, set[str]]) -> dict[str, dict[str, Any]]:
    """Names that are kept, and those that this very file brings."""
    names = keeper.names_needed([record for _, record in read])
    for column, table in keeper.table.needs:
        for _, record in read:
            key = plain(record[column] or "")
            if key and key not in names[column] and key in names_in_file.get(table, ()):
                names[column][key] = (0, record[column])
    return names


def _against_kept(keeper: Keeper, finished: dict[str, tuple[int, Record]], given: set[str]) -> tuple[TablePlan, list[Fate]]:
    """New, changed or same. A column that the file does not have stays as it is kept: a price list changes prices only."""
    made, fates = TablePlan(keeper), []
    table = keeper.table
    absent = [column.name for column in table.columns if column.name not in given]
    kept = keeper.existing(list(finished))
    archived = set(keeper.model.objects.filter(archived_at__isnull=False).values_list("key", flat=True))
    for key, (number, record) in finished.items():
        label = table.label(record)
        if key not in kept:
            made.fresh.append(record)
            fates.append(Fate(table.name, number, NEW, label))
            continue
        pk, before = kept[key]
        record = {**record, **{name: before[name] for name in absent}}
        changes = differences(before, record)
        back = key in archived
        if changes or back:
            made.changed.append((pk, record, changes, back))
            words = [f"{name}: {_cell(keeper, name, pair[0])} → {_cell(keeper, name, pair[1])}" for name, pair in changes.items()]
            fates.append(Fate(table.name, number, CHANGED, label, "; ".join(words + ["comes back from the archive"] * back)[:400]))
        else:
            fates.append(Fate(table.name, number, SAME, label))
    return made, fates


def _cell(keeper: Keeper, name: str, value: Any) -> str:
    return str(keeper.table.column(name).write(value)) or "nothing"


def _first_words(cells: dict[str, Any]) -> str:
    return " ".join(str(cell) for cell in list(cells.values())[:4] if cell not in (None, ""))[:120]
