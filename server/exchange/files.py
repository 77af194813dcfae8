"""Reads and writes the open tables as CSV, XLSX and JSON. What a spreadsheet would run as a formula is guarded, reversibly."""

from __future__ import annotations

import csv
import io
import json
import zipfile
import zlib
from collections.abc import Iterable, Iterator
from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Any
from xml.etree.ElementTree import ParseError

import openpyxl
from openpyxl.utils.exceptions import InvalidFileException

from cutting.errors import CuttingError
from cutting.exchange.columns import Cell, match_headings
from cutting.exchange.tables import TABLES, Table
from server.strict import Unreadable, strict_json

FORMATS = ("csv", "xlsx", "json")
JSON_FORMAT, JSON_VERSION = "arrow-bench shop", 1
FORMULA_STARTS = "=+-@\t\r'＝＋－＠;"  # wide signs are read as the narrow ones; what follows a semicolon may be a cell of its own
MOST_ROWS = 500_000
MOST_LINES = 2 * MOST_ROWS  # with the empty ones
MOST_COLUMNS = 200
MOST_UNPACKED = 1_500_000_000  # bytes of a workbook's sheets, which are read as a stream
MOST_TEXTS = 100_000_000  # and of what a workbook keeps in memory at once: its texts and styles
Cells = dict[str, Cell]
RETIRED = {  # columns of machines in files of earlier versions
    "sub_spindle": "enter the sub-spindle in the table spindles: machine, spindle sub, its curve, speeds and chuck",
    "driven_tools": "enter the driven tools in the table spindles: machine, spindle driven, its curve and speeds",
}


@dataclass(frozen=True)
class GivenFile:
    """One table of a file: its headings and its rows with their numbers as a person counts them."""

    table: Table
    headings: list[str]
    rows: list[tuple[int, Cells]]


def guard(text: str) -> str:
    """Text that a spreadsheet takes as text: a leading apostrophe before what could start a formula."""
    return f"'{text}" if text[:1] and text[0] in FORMULA_STARTS else text


def unguard(cell: Cell) -> Cell:
    """The text that `guard` was given."""
    if isinstance(cell, str) and len(cell) > 1 and cell[0] == "'" and cell[1] in FORMULA_STARTS:
        return cell[1:]
    return cell


def format_of(name: str, content: bytes) -> str:
    """The format of a file by its name or its first bytes. Raises `CuttingError`."""
    ending = name.rsplit(".", 1)[-1].lower()
    if content.startswith(b"PK\x03\x04"):
        return "xlsx"
    if ending in ("csv", "txt", "tsv"):
        return "csv"
    if ending == "json" or content.lstrip()[:1] == b"{":
        return "json"
    raise CuttingError("file", f"'{name[:60]}' is none of CSV, XLSX and JSON.", ", ".join(FORMATS))


def read_file(content: bytes, form: str, table: str = "") -> list[GivenFile]:
    """The tables of a file, in the order in which they must be written. Raises `CuttingError` for what cannot be read."""
    found = {"csv": _read_csv, "xlsx": _read_xlsx, "json": _read_json}[form](content, table)
    if not any(given.rows for given in found):
        raise CuttingError("file", "holds no rows.")
    if sum(len(given.rows) for given in found) > MOST_ROWS:
        raise CuttingError("file", f"holds more than {MOST_ROWS:,} rows.", f"{MOST_ROWS:,} rows")
    order = list(TABLES)
    return sorted(found, key=lambda given: order.index(given.table.name))


def _read_csv(content: bytes, table: str) -> list[GivenFile]:
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise CuttingError("file", f"is not UTF-8 text (byte {error.start + 1}); save it as CSV UTF-8.") from error
    first = text.split("\n", 1)[0]
    delimiter = max(",;\t", key=first.count)
    try:
        lines = list(csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=True))
    except csv.Error as error:
        raise CuttingError("file", f"is not well-formed CSV: {error}.") from error
    return [_table_of(lines, table)] if lines else []


def _read_xlsx(content: bytes, table: str) -> list[GivenFile]:
    try:
        _refuse_bombs(content)
        book = openpyxl.load_workbook(io.BytesIO(content), read_only=True, data_only=True)
        sheets = [(sheet.title, _lines_of(sheet.iter_rows(values_only=True, max_col=MOST_COLUMNS + 1))) for sheet in book.worksheets]
    except CuttingError:
        raise
    except (InvalidFileException, zipfile.BadZipFile, zlib.error, ParseError, KeyError, ValueError, OSError, EOFError) as error:
        raise CuttingError("file", "is not a workbook that can be opened (XLSX).") from error
    return [
        _table_of(lines, title if title in TABLES else table)
        for title, lines in sheets
        if lines and any(cell is not None for cell in lines[0])
    ]


def _refuse_bombs(content: bytes) -> None:
    """A workbook is packed: what it becomes is told by it before it is unpacked, and the library holds it to that."""
    with zipfile.ZipFile(io.BytesIO(content)) as archive:
        sizes = {one.filename: one.file_size for one in archive.infolist()}
    kept = sum(size for name, size in sizes.items() if "/worksheets/" not in name)
    if sum(sizes.values()) > MOST_UNPACKED or kept > MOST_TEXTS:
        raise CuttingError("file", f"unpacks to {sum(sizes.values()) / 1e6:,.0f} MB, more than a workbook of tables has.", "1 500 MB")


def _lines_of(rows: Iterable[tuple[Any, ...]]) -> list[list[Any]]:
    """The heading, and every row up to the last that says something. Raises `CuttingError` for more than anybody keeps."""
    lines: list[list[Any]] = []
    empty = 0
    for number, row in enumerate(rows):
        if number >= MOST_LINES or len(lines) - empty > MOST_ROWS + 1:
            raise CuttingError("file", f"holds more than {MOST_ROWS:,} rows.", f"{MOST_ROWS:,} rows")
        if len(row) > MOST_COLUMNS and row[MOST_COLUMNS] is not None:
            raise CuttingError("file", f"row {number + 1} has more than {MOST_COLUMNS} columns.", f"{MOST_COLUMNS} columns")
        says = any(cell is not None for cell in row)
        lines.append(list(row) if says else [])
        empty += not says
    return lines


def _table_of(lines: list[list[Any]], table: str) -> GivenFile:
    headings = ["" if cell is None else str(cell) for cell in lines[0]]
    what = TABLES[table] if table else _recognise([heading for heading in headings if heading not in RETIRED])
    rows = []
    for number, line in enumerate(lines[1:], start=2):
        if any(cell not in (None, "") for cell in line):
            if len(line) > len(headings) and any(cell not in (None, "") for cell in line[len(headings) :]):
                raise CuttingError("file", f"row {number} has more cells than the table has columns.")
            rows.append((number, {heading: unguard(cell) for heading, cell in zip(headings, line, strict=False) if heading.strip()}))
    return _given(what, [heading for heading in headings if heading.strip()], rows)


def _given(what: Table, headings: list[str], rows: list[tuple[int, dict[str, Any]]]) -> GivenFile:
    """The rows without columns of earlier versions. Raises `CuttingError` where one of them says what now stands elsewhere."""
    for retired in set(headings) & set(RETIRED):
        said = [number for number, row in rows if str(row.get(retired, "")).strip().lower() not in ("", "no", "0", "false", "none")]
        if said:
            raise CuttingError(retired, f"row {said[0]} says yes; {RETIRED[retired]}, and take this column out.")
    kept = [heading for heading in headings if heading not in RETIRED]
    return GivenFile(what, kept, [(number, {name: row[name] for name in kept if name in row}) for number, row in rows])


def _recognise(headings: list[str]) -> Table:
    """The table that the headings name. Raises `CuttingError`: of the table that they fit best the heading that it does not know."""
    refused: list[tuple[int, Table, CuttingError]] = []
    for what in TABLES.values():
        try:
            match_headings(headings, what.columns)
            return what
        except CuttingError as error:
            refused.append((sum(_fits(heading, what) for heading in headings), what, error))
    fits, nearest, why = max(refused, key=lambda one: one[0])
    if 2 * fits > len(headings):
        raise CuttingError(why.field, f"taken for the table {nearest.name}, this {why.message}")
    wanted = "; ".join(f"{t.name}: {', '.join(c.name for c in t.columns if c.required)}" for t in TABLES.values())
    raise CuttingError("file", f"its columns fit none of the tables, which need at least {wanted}.")


def _fits(heading: str, table: Table) -> bool:
    """Whether a heading is one of the table's columns."""
    optional = tuple(replace(column, required=False) for column in table.columns)
    with suppress(CuttingError):
        return bool(match_headings([heading], optional))
    return False


def _read_json(content: bytes, table: str) -> list[GivenFile]:
    try:
        data = strict_json(content)
    except Unreadable as error:
        raise CuttingError("file", str(error)) from error
    if not isinstance(data, dict) or data.get("format") != JSON_FORMAT or not isinstance(data.get("tables"), dict):
        raise CuttingError("file", f'is not this form: an object with "format": "{JSON_FORMAT}", "version" and "tables".')
    if data.get("version") != JSON_VERSION:
        raise CuttingError("version", f"{str(data.get('version'))[:20]} is not a version that can be read; {JSON_VERSION} can.", "1")
    found = []
    for name, rows in data["tables"].items():
        if name not in TABLES:
            raise CuttingError("tables", f"'{name[:40]}' is none of {', '.join(TABLES)}.", ", ".join(TABLES))
        if not isinstance(rows, list) or not all(isinstance(row, dict) for row in rows):
            raise CuttingError(name, "must be a list of objects.")
        if not rows:
            continue
        headings = list(dict.fromkeys(key for row in rows for key in row))
        found.append(_given(TABLES[name], headings, list(enumerate(rows, start=1))))
    return found


def write_file(form: str, tables: list[tuple[Table, list[dict[str, Any]]]]) -> bytes:
    """The file of the records; columns that are empty throughout are left out."""
    return {"csv": _write_csv, "xlsx": _write_xlsx, "json": _write_json}[form](tables)


def write_template(form: str, table: Table, examples: list[dict[str, Any]]) -> bytes:
    """An empty table to fill in: every column with its unit, and rows of the shop as examples. CSV or XLSX."""
    return {"csv": _write_csv, "xlsx": _write_xlsx}[form]([(table, examples)], every=True)


def _filled(table: Table, records: list[dict[str, Any]]) -> list[Any]:
    empty: tuple[Any, ...] = (None, "", (), [])
    return [column for column in table.columns if column.required or any(record.get(column.name) not in empty for record in records)]


def _lines(table: Table, records: list[dict[str, Any]], every: bool) -> Iterator[list[Any]]:
    columns = list(table.columns) if every else _filled(table, records)
    yield [column.heading for column in columns]
    for record in records:
        cells = [column.write(record.get(column.name)) for column in columns]
        yield [guard(cell) if isinstance(cell, str) else cell for cell in cells]


def _write_csv(tables: list[tuple[Table, list[dict[str, Any]]]], every: bool = False) -> bytes:
    if len(tables) != 1:
        raise CuttingError("format", "CSV holds one table; choose XLSX or JSON for all.", "one table")
    out = io.StringIO(newline="")
    lines = ([repr(c) if isinstance(c, float) else c for c in line] for line in _lines(*tables[0], every))
    csv.writer(out, lineterminator="\r\n").writerows(lines)
    return out.getvalue().encode("utf-8-sig")


def _write_xlsx(tables: list[tuple[Table, list[dict[str, Any]]]], every: bool = False) -> bytes:
    book = openpyxl.Workbook(write_only=True)
    for table, records in tables:
        sheet = book.create_sheet(table.name)
        for line in _lines(table, records, every):
            sheet.append(line)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _write_json(tables: list[tuple[Table, list[dict[str, Any]]]]) -> bytes:
    content: dict[str, Any] = {"format": JSON_FORMAT, "version": JSON_VERSION, "tables": {}}
    for table, records in tables:
        names = [column.name for column in _filled(table, records)]
        content["tables"][table.name] = [{name: record.get(name) for name in names} for record in records]
    return json.dumps(content, ensure_ascii=False, indent=1).encode()


def rows_of(tables: Iterable[GivenFile]) -> int:
    """How many rows there are in all."""
    return sum(len(given.rows) for given in tables)
