"""Reads the shipped CSV tables: immutable rows with typed access; every row carries its provenance."""

from __future__ import annotations

import csv
from collections.abc import Iterator, Mapping
from functools import cache
from pathlib import Path
from types import MappingProxyType

HERE = Path(__file__).resolve().parent


class Row(Mapping[str, str]):
    """One row of a table."""

    def __init__(self, values: dict[str, str]) -> None:
        self._values = MappingProxyType(values)

    def __getitem__(self, name: str) -> str:
        return self._values[name]

    def __iter__(self) -> Iterator[str]:
        return iter(self._values)

    def __len__(self) -> int:
        return len(self._values)

    def number(self, name: str) -> float:
        return float(self[name])

    def number_or_none(self, name: str) -> float | None:
        return float(self[name]) if self[name] else None

    def floats(self, name: str) -> tuple[float, ...]:
        return tuple(float(part) for part in self[name].split())

    def words(self, name: str, separator: str = ";") -> tuple[str, ...]:
        return tuple(part.strip() for part in self[name].split(separator) if part.strip())

    def flag(self, name: str) -> bool:
        return self[name] == "yes"


@cache
def read_table(path: str) -> tuple[Row, ...]:
    """All rows of `cutting/<path>`."""
    with (HERE / path).open(newline="", encoding="utf-8") as file:
        return tuple(Row(dict(row)) for row in csv.DictReader(file))
