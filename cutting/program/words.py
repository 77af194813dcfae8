"""The words of a block (ISO 6983-1): letters with numbers, comments left out, and what is no word."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import lru_cache

WORD = re.compile(r"([A-Z])\s*([+-]?(?:\d+\.?\d*|\.\d+))")
COMMENTS = re.compile(r"\([^)]*\)|;.*$")
MACRO = re.compile(r"#|\b(?:IF|GOTO|WHILE|DO\s*\d|END\s*\d)\b|[A-Z]\s*[-+]?\[|=")


@dataclass(frozen=True, slots=True)
class Word:
    """A word of a block: its letter, its number, and as it was written."""

    letter: str
    value: float
    text: str
    name: str  # letter and number without leading zeros: G01 is G1


@lru_cache(maxsize=1 << 16)  # programs say the same words over and over
def _word(letter: str, text: str) -> Word:
    value = float(text)
    return Word(letter, value, text, f"{letter}{value:g}")


def words(line: str) -> tuple[list[Word], str]:
    """The words of a block without its comments, and what is no word."""
    bare = line.upper()
    if "(" in bare or ";" in bare:
        bare = COMMENTS.sub(" ", bare)
    found = WORD.findall(bare)
    rest = WORD.sub("", bare).strip(" %/\t\r")
    return [_word(letter, number) for letter, number in found], rest.strip()


def is_macro(line: str) -> bool:
    """Whether a block reckons or jumps: variables, conditions, loops."""
    return bool(MACRO.search(COMMENTS.sub(" ", line.upper())))
