"""A recorded trace as a table: CSV of any usual form, its columns guessed and then chosen, every line checked."""

from __future__ import annotations

import csv
import io
import math
import re
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cutting.errors import CuttingError
from cutting.quantities.kinds import KINDS, factor

Array = NDArray[np.float64]
LEAST_LINES, MOST_LINES = 20, 200_000
_UNIT = re.compile(r"[\[(/,]?\s*([^\s\[\](),/]+(?:[·*.]\w+)?)\s*[\])]?\s*$")
_GUESS = (
    ("thrust", re.compile(r"thrust|fz|axial|f_?f\b", re.IGNORECASE)),
    ("torque", re.compile(r"torque|moment|mz|\bm\b|drehm", re.IGNORECASE)),
    ("time", re.compile(r"time|zeit|\bt\b", re.IGNORECASE)),
    ("depth", re.compile(r"depth|way|pos|\bz\b|tiefe", re.IGNORECASE)),
)
OF_KIND = {"thrust": "force", "torque": "torque", "time": "duration", "depth": "length"}


@dataclass(frozen=True)
class TraceColumn:
    """One column: its heading, what it seems to hold and in which unit; blank where nothing is recognised."""

    heading: str
    role: str
    unit: str


@dataclass(frozen=True)
class TraceTable:
    """The numbers of a file, shape (lines, columns), with the lines that they stand in."""

    columns: tuple[TraceColumn, ...]
    numbers: Array
    lines: tuple[int, ...]


@dataclass(frozen=True)
class Chosen:
    """Which columns hold what, in which unit; `along` is depth or time."""

    along: str
    along_column: int
    along_unit: str
    thrust_column: int
    thrust_unit: str
    torque_column: int
    torque_unit: str


@dataclass(frozen=True)
class Trace:
    """Thrust [N] and torque [N·m] over depth [mm] as recorded; its zero is the recorder's."""

    depth: Array
    thrust: Array
    torque: Array


def read_table(text: str, field: str = "text") -> TraceTable:
    """The table of a CSV text: parted by semicolon, tab or comma, decimal point or comma, a line of headings. Raises `CuttingError`."""
    body = text.lstrip("\ufeff")
    lines = [(number, line) for number, line in enumerate(body.splitlines(), start=1) if line.strip()]
    if len(lines) < 2:
        raise CuttingError(field, f"holds {len(lines)} lines; a trace has headings and at least {LEAST_LINES} lines of numbers.")
    if len(lines) > MOST_LINES:
        raise CuttingError(field, f"holds {len(lines)} lines, more than {MOST_LINES}.", f"{MOST_LINES} lines")
    mark = next((one for one in (";", "\t", ",") if one in lines[0][1]), ",")
    headings = [word.strip() for word in next(csv.reader(io.StringIO(lines[0][1]), delimiter=mark))]
    if len(headings) < 3:
        raise CuttingError(field, f"line {lines[0][0]}: {len(headings)} columns; depth or time, thrust and torque are wanted.", "3 columns")
    numbers = [_numbers(number, line, mark, len(headings), field) for number, line in lines[1:]]
    if len(numbers) < LEAST_LINES:
        raise CuttingError(field, f"holds {len(numbers)} lines of numbers; at least {LEAST_LINES} are wanted.", f"{LEAST_LINES} lines")
    return TraceTable(tuple(_column(one) for one in headings), np.array(numbers), tuple(number for number, _ in lines[1:]))


def _numbers(number: int, line: str, mark: str, count: int, field: str) -> list[float]:
    words = [word.strip() for word in next(csv.reader(io.StringIO(line), delimiter=mark))]
    if len(words) != count:
        raise CuttingError(field, f"line {number}: {len(words)} values, {count} headings.")
    found = []
    for word in words:
        try:
            value = float(word.replace(",", ".") if mark != "," else word)
        except ValueError:
            raise CuttingError(field, f"line {number}: '{word[:20]}' is not a number.") from None
        if not math.isfinite(value):
            raise CuttingError(field, f"line {number}: '{word[:20]}' is not a number that can be used.")
        found.append(value)
    return found


def _column(heading: str) -> TraceColumn:
    role = next((name for name, words in _GUESS if words.search(heading)), "")
    unit = ""
    if role and (found := _UNIT.search(heading)) and found[1].lower() in KINDS[OF_KIND[role]].words:
        unit = found[1]
    return TraceColumn(heading, role, unit)


def chosen_from(table: TraceTable, given: dict[str, str]) -> Chosen:
    """The columns as a person named them, each `heading` with its unit; where nothing is said, what was guessed. Raises `CuttingError`."""
    along = given.get("along") or ("depth" if any(one.role == "depth" for one in table.columns) else "time")
    if along not in ("depth", "time"):
        raise CuttingError("along", f"'{along}' is none of: depth, time.", "depth, time")
    places = {role: _place(table, role, given.get(role, "")) for role in (along, "thrust", "torque")}
    units = {role: _unit(table, role, places[role], given.get(f"{role}_unit", "")) for role in places}
    return Chosen(along, places[along], units[along], places["thrust"], units["thrust"], places["torque"], units["torque"])


def _place(table: TraceTable, role: str, heading: str) -> int:
    for place, one in enumerate(table.columns):
        if one.heading == heading or (not heading and one.role == role):
            return place
    names = ", ".join(one.heading for one in table.columns)
    raise CuttingError(
        role, f"no column '{heading}' holds the {role}; there are {names}." if heading else f"which column is the {role}?", names
    )


def _unit(table: TraceTable, role: str, place: int, unit: str) -> str:
    said = unit or table.columns[place].unit
    words = KINDS[OF_KIND[role]].words
    if said.lower() not in words:
        known = ", ".join(words)
        raise CuttingError(
            f"{role}_unit", f"'{said}' is no unit of {role}; there are {known}." if said else f"in which unit is the {role}?", known
        )
    return said


def trace_of(table: TraceTable, chosen: Chosen, feed_rate: float) -> Trace:
    """The trace in mm, N and N·m; over time at a feed rate [mm/min]. Raises `CuttingError` by line where it does not go on."""

    def column(place: int, role: str, unit: str) -> Array:
        what = KINDS[OF_KIND[role]]
        return table.numbers[:, place] * factor(what.words[unit.lower()], what.unit)

    along = column(chosen.along_column, chosen.along, chosen.along_unit)
    back = np.flatnonzero(np.diff(along) < 0)
    if len(back):
        raise CuttingError(
            chosen.along, f"line {table.lines[int(back[0]) + 1]}: {chosen.along} runs backwards; record one stroke without pecks."
        )
    if along[-1] <= along[0]:
        raise CuttingError(chosen.along, f"{chosen.along} does not go on.")
    depth = along if chosen.along == "depth" else (along - along[0]) * feed_rate / 60.0
    return Trace(
        depth, column(chosen.thrust_column, "thrust", chosen.thrust_unit), column(chosen.torque_column, "torque", chosen.torque_unit)
    )
