"""One name, symbol and unit per quantity: the table that the working, the docstrings and the documents share."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType

from cutting.tables import read_table


@dataclass(frozen=True)
class Term:
    """One quantity of the trade."""

    name: str
    symbol: str
    meaning: str
    unit: str
    standard: str


TERMS = MappingProxyType({row["name"]: Term(**dict(row)) for row in read_table("nomenclature.csv")})
