"""One column of an open table: how its cells are read, checked and written, and how its heading is recognised."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from difflib import get_close_matches
from typing import Any

from cutting.errors import AmbiguousQuantity, CuttingError, OutOfRange
from cutting.quantities import KINDS, read_quantity
from cutting.workpiece.hardness import read_hardness

Cell = str | int | float | bool | None
Record = dict[str, Any]
LISTS = ("numbers", "pairs", "words")
PLAIN_KINDS = ("text", "choice", "count", "flag", "numbers", "pairs", "words", "hardness")


@dataclass(frozen=True)
class Column:
    """`kind` is a kind of quantity, or one of text, choice, count, flag, numbers, pairs (`speed:power`), words (`;`), hardness.

    A hardness is a number in HB, or text with its scale, which the record's own check converts.
    """

    name: str
    title: str
    kind: str
    required: bool = False
    low: float | None = None
    high: float | None = None
    choices: tuple[str, ...] = ()
    longest: int = 200
    default: Any = None

    @property
    def heading(self) -> str:
        """The heading as written: symbol or name, the name in words, and the unit."""
        unit = "" if self.kind in PLAIN_KINDS else KINDS[self.kind].metric
        words = self.name if self.title == self.name.replace("_", " ") else f"{self.name} {self.title}"
        return f"{words} [{unit}]" if unit else words

    def read(self, cell: Cell, inch: bool = False) -> Any:
        """The value of a cell, None where it is empty. Raises `CuttingError` that names column and bound."""
        if cell is None or cell == "" or (isinstance(cell, str) and not cell.strip()):
            if self.required:
                raise CuttingError(self.name, "is empty; a value is needed here.")
            return self.default
        if isinstance(cell, dict) or (isinstance(cell, list) and self.kind not in LISTS):
            raise CuttingError(self.name, "holds a list or an object; it must be one value.")
        return _READERS.get(self.kind, _quantity)(self, cell, inch)

    def write(self, value: Any) -> str | int | float:
        """The cell of a value; what comes back from `read` is the same value."""
        if value is None or value == () or value == []:
            return ""
        if self.kind == "flag":
            return "yes" if value else "no"
        if self.kind == "numbers":
            return " ".join(_short(number) for number in value)
        if self.kind == "pairs":
            return " ".join(f"{_short(left)}:{_short(right)}" for left, right in value)
        if self.kind == "words":
            return "; ".join(value)
        return value

    def bounded(self, value: float) -> float:
        """The value when it is within the column's bounds. Raises `OutOfRange`."""
        low, high = self.low if self.low is not None else -math.inf, self.high if self.high is not None else math.inf
        if not low <= value <= high:
            unit = "" if self.kind in PLAIN_KINDS else KINDS[self.kind].metric
            bound = f"{low:.12g} to {high:.12g} {unit}".strip()
            raise OutOfRange(self.name, f"{value:.12g} is outside {bound}.", bound)
        return value


def _short(value: Any) -> str:
    """A number with all its digits but no idle zero; a name as it is."""
    return value if isinstance(value, str) else repr(float(value)).removesuffix(".0")


def _text(column: Column, cell: Cell, inch: bool) -> str:
    text = f"{cell:g}" if isinstance(cell, float) else str(cell).strip()
    if len(text) > column.longest:
        raise OutOfRange(column.name, f"has {len(text)} characters; maximum {column.longest}.", f"{column.longest} characters")
    if any(ord(ch) < 32 for ch in text):
        raise CuttingError(column.name, "holds a line break or another control character.")
    return text


def _choice(column: Column, cell: Cell, inch: bool) -> str:
    text = str(cell).strip()
    for option in column.choices:
        if option.casefold() == text.casefold():
            return option
    allowed = ", ".join(column.choices)
    raise CuttingError(column.name, f"'{text}' is none of: {allowed}.", allowed)


def _count(column: Column, cell: Cell, inch: bool) -> int:
    number = _number(column, cell)
    if number != int(number):
        raise CuttingError(column.name, f"'{cell}' is not a whole number.")
    return int(column.bounded(number))


def _flag(column: Column, cell: Cell, inch: bool) -> bool:
    if isinstance(cell, bool):
        return cell
    word = str(cell).strip().casefold()
    if word in ("yes", "true", "1", "1.0"):
        return True
    if word in ("no", "false", "0", "0.0"):
        return False
    raise CuttingError(column.name, f"'{cell}' is neither yes nor no.", "yes, no")


def _number(column: Column, cell: Cell) -> float:
    if isinstance(cell, (int, float)) and not isinstance(cell, bool):
        number = float(cell)
    else:
        try:
            number = float(str(cell))
        except ValueError:
            return float(read_quantity(str(cell), "number", field=column.name).value)
    if not math.isfinite(number):
        raise CuttingError(column.name, f"'{cell}' is not a finite number.")
    return number


def _quantity(column: Column, cell: Cell, inch: bool) -> float:
    if isinstance(cell, bool):
        raise CuttingError(column.name, "must be a number, not yes or no.")
    if not inch:  # most cells are bare metric numbers: read them without the unit parser
        try:
            number = float(cell)  # type: ignore[arg-type]
            if math.isfinite(number):
                return column.bounded(_twelve_digits(number))
        except ValueError:
            pass
    value = read_quantity(cell if isinstance(cell, (int, float)) else str(cell), column.kind,
                          system="inch" if inch else "metric", field=column.name).value  # fmt: skip
    return column.bounded(_twelve_digits(value))


def _twelve_digits(value: float) -> float:
    """Spreadsheets keep fifteen digits: twelve come back from every format as they went."""
    return float(f"{value:.12g}")


def read_numbers(text: str, name: str) -> tuple[float, ...]:
    """A list of numbers as pasted: blanks, commas with blanks, semicolons, tabs or lines between them.

    Raises `CuttingError` for a word that is no number.
    """
    words = [word for word in re.split(r"[\s;·|]+|,\s+", text.strip().strip(",")) if word]
    numbers = []
    for word in words:
        try:
            number = float(read_quantity(word.rstrip(","), "number", field=name).value)
        except AmbiguousQuantity:
            raise  # `1,500` in a list of speeds is asked about, as it is in a field
        except CuttingError as error:
            raise CuttingError(name, f"'{word}' is not a number; write one number after the other, with blanks between.") from error
        if not math.isfinite(number) or number <= 0:
            raise OutOfRange(name, f"{word} is not above zero.", "above 0")
        numbers.append(number)
    return tuple(numbers)


def _hardness(column: Column, cell: Cell, inch: bool) -> float | str:
    if isinstance(cell, (int, float)):
        return column.bounded(_twelve_digits(float(cell)))
    value, scale = read_hardness(str(cell), column.name)
    return column.bounded(_twelve_digits(value)) if scale == "HB" else str(cell).strip()


def _numbers(column: Column, cell: Cell, inch: bool) -> tuple[float, ...]:
    given = cell if isinstance(cell, str) else " ".join(str(v) for v in cell) if isinstance(cell, Sequence) else str(cell)
    numbers = tuple(column.bounded(number) for number in read_numbers(given, column.name))
    if len(numbers) > 200:
        raise OutOfRange(column.name, f"{len(numbers)} numbers; maximum 200.", "200")
    return tuple(sorted(set(numbers)))


def _pairs(column: Column, cell: Cell, inch: bool) -> tuple[tuple[Any, float], ...]:
    """`speed:power` words, or pairs from JSON; a first part that is no number is a name (`flood:4`)."""
    if isinstance(cell, str):
        # a name may have a blank in it, so that blanks part pairs only behind a number
        raw = [word.rsplit(":", 1) for word in re.split(r";\s*|(?<=\d)\s+", cell.strip()) if word]
    elif isinstance(cell, Sequence):
        raw = [list(pair) if isinstance(pair, Sequence) and not isinstance(pair, str) else [pair] for pair in cell]
    else:
        raw = [[cell]]
    found = []
    for pair in raw:
        if len(pair) != 2:
            raise CuttingError(column.name, f"'{':'.join(map(str, pair))}' is not a pair such as 955:11.")
        left, right = pair
        value = _number(column, right)
        found.append((str(left).strip() if column.choices else _number(column, left), value))
        if column.choices and found[-1][0] not in column.choices:
            raise CuttingError(column.name, f"'{left}' is none of: {', '.join(column.choices)}.", ", ".join(column.choices))
        if value < 0 or (not column.choices and float(found[-1][0]) < 0):
            raise OutOfRange(column.name, f"{left}:{right} has a value below zero.", "0 and above")
    return tuple(found)


def _words(column: Column, cell: Cell, inch: bool) -> tuple[str, ...]:
    parts = cell.split(";") if isinstance(cell, str) else [str(v) for v in cell] if isinstance(cell, Sequence) else [str(cell)]
    words = tuple(word.strip() for word in parts if word.strip())
    for word in words:
        _text(column, word, inch)
    return words


_READERS = {
    "text": _text,
    "choice": _choice,
    "count": _count,
    "flag": _flag,
    "numbers": _numbers,
    "pairs": _pairs,
    "words": _words,
    "hardness": _hardness,
}
ALIKE = 0.75  # of its letters that a heading shares with the one that was meant
_HEADING = re.compile(r"^\s*(?P<words>[^\[\]]*?)\s*(?:\[(?P<unit>[^\]]*)\])?\s*$")


def match_headings(headings: Sequence[str], columns: Sequence[Column]) -> dict[str, tuple[Column, bool]]:
    """Each heading to its column and whether its cells are in inches.

    A heading is a column's symbol or name, its words, or both, with a unit in brackets: `RE`, `corner radius`,
    `RE corner radius [mm]`, `RE [in]`. Raises `CuttingError` for an unknown or doubled heading, or a missing column.
    """
    known = {name.casefold(): column for column in columns for name in (column.name, column.title, column.heading.split(" [")[0])}
    matched: dict[str, tuple[Column, bool]] = {}
    for heading in headings:
        if not heading or not heading.strip():
            continue
        found = _HEADING.match(heading)
        column = known.get(found["words"].casefold()) if found else None
        if column is None or found is None:
            near = get_close_matches(heading.strip().casefold(), known, 1, ALIKE)
            meant = f"; the nearest is '{known[near[0]].heading}'" if near else ""
            raise CuttingError(heading.strip()[:60], f"is no column here{meant}; there are {', '.join(c.name for c in columns)}.")
        if column in [c for c, _ in matched.values()]:
            raise CuttingError(heading.strip()[:60], "stands here twice.")
        unit = (found["unit"] or "").strip().casefold()
        if unit and unit not in _units_of(column):
            raise CuttingError(heading.strip()[:60], f"has a unit that is not {' or '.join(sorted(_units_of(column)))}.")
        matched[heading] = (column, unit in ("in", "inch", '"'))
    missing = [column.name for column in columns if column.required and column not in [c for c, _ in matched.values()]]
    if missing:
        raise CuttingError(missing[0], f"is missing: the table needs the columns {', '.join(c.name for c in columns if c.required)}.")
    return matched


def _units_of(column: Column) -> set[str]:
    if column.kind in PLAIN_KINDS:
        return set()
    kind = KINDS[column.kind]
    return {kind.metric.casefold(), kind.inch.casefold()} | ({"in", "inch", '"'} if column.kind == "length" else set())


def read_row(cells: Mapping[str, Cell], headings: Mapping[str, tuple[Column, bool]], columns: Sequence[Column]) -> Record:
    """A record from the cells of one row; columns that are not there get their defaults. Raises `CuttingError`."""
    record: Record = {column.name: column.default for column in columns}
    for heading, (column, inch) in headings.items():
        record[column.name] = column.read(cells.get(heading), inch)
    return record
