"""One name, symbol and unit per quantity, one label per source: the tables that the working, the docstrings and the documents share."""

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


SOURCES = MappingProxyType({row["key"]: row["label"] for row in read_table("sources.csv")})


def source_label(key: str) -> str:
    """A source key as people read it; what is not a key is a label already."""
    return SOURCES.get(key, key)


TERMS = MappingProxyType({row["name"]: Term(**dict(row)) for row in read_table("nomenclature.csv")})
SYMBOLS = MappingProxyType({name: term.symbol for name, term in TERMS.items()})
