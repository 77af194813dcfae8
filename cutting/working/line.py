"""The last line of a working: how the number that is shown comes of the numbers before it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

EXACT, COMMON = "exact", "common-practice"


@dataclass(frozen=True)
class Line:
    """Its arithmetic with names in braces, the numbers by name (numbers or arrays over passes), and where it is from."""

    text: str
    numbers: Mapping[str, Any]
    source: str


def line(text: str, source: str = EXACT, **numbers: Any) -> Line:
    """A last line; `text` names its numbers in braces, and a name that is no term of the trade is read as words.

    >>> line("{cutting_power}·{wear}", cutting_power=2.633, wear=1.3).text
    '{cutting_power}·{wear}'
    """
    return Line(text, numbers, source)


def in_words(text: str, source: str = COMMON) -> Line:
    """A last line that is told in words: the way on which a number is the largest, or a sum that is no single term."""
    return Line(text, {}, source)
