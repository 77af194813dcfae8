"""What the words on the screen mean: terms of the trade as this bench uses them, and what each result tells."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType

from cutting.operations.registry import kind_of
from cutting.tables import read_table


@dataclass(frozen=True)
class GlossaryEntry:
    """A word and what it means in one sentence; `also` are other words that people look for it by."""

    name: str
    means: str
    also: tuple[str, ...] = ()


TERMS = tuple(GlossaryEntry(row["name"], row["means"], row.words("also")) for row in read_table("terms.csv"))
RESULTS = MappingProxyType({row["name"]: row["means"] for row in read_table("results.csv")})


def limits_of(kind: str) -> tuple[GlossaryEntry, ...]:
    """The limits of a kind of operation, each with what exceeding it does. Raises `UnknownName`.

    >>> next(one.name for one in limits_of("drill") if "flute" in one.name)
    'flute packing'
    """
    return tuple(GlossaryEntry(rule.label.split(",")[0], rule.why) for rule in kind_of(kind).model.rules)


def found(words: str, entries: tuple[GlossaryEntry, ...] = TERMS) -> tuple[GlossaryEntry, ...]:
    """Entries whose name, other words or sentence hold what was typed; those whose name begins with it come first.

    >>> [one.name for one in found("binding")]
    ['governing limit']
    """
    asked = words.strip().lower()

    def near(one: GlossaryEntry) -> int:
        name = one.name.lower()
        other = any(asked in word.lower() for word in one.also)
        return 0 if name.startswith(asked) else 1 if asked in name else 2 if other else 3 if asked in one.means.lower() else 4

    return tuple(one for one in sorted(entries, key=near) if near(one) < 4)
