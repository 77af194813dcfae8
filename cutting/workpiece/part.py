"""What the drawing asks of a part: its features, each with an identity, a shape and a place, and the cuts that make or prepare them.

A cut reads what the drawing asks of its feature and adds what is its own: the diameter that it starts from, or, where it only
prepares, the sizes that it leaves.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping
from enum import StrEnum
from types import MappingProxyType
from typing import Any

from cutting.workpiece.solid import Region, Side

Entries = Mapping[str, Any]  # as people wrote them, by field
NOTHING_SAID = (None, "")


class Axis(StrEnum):
    """Where a feature lies against the axis of the part."""

    ON = "on the axis"
    CIRCLE = "on a pitch circle"
    ACROSS = "across"

    @classmethod
    def of(cls, asked: Entries) -> Axis:
        """Where a feature lies, by what the drawing asks of it."""
        return cls.ON if asked.get("circle") in NOTHING_SAID else cls.CIRCLE


SHAPES = MappingProxyType(
    {
        "outside": "outside",
        "face": "face",
        "groove": "groove",
        "face groove": "groove in the face",
        "ring": "ring cut out of a plate",
        "hole": "hole",
        "bore": "bore",
        "bores": "bores on one axis",
        "thread": "thread",
        "end": "end that is cut off",
    }
)
ROUGHING_MOST = 6.0  # mm on the diameter that a cut may leave and still count as preparing the size below it (common practice)


def entries_of(asked: Entries, own: Entries, known: Collection[str]) -> dict[str, Any]:
    """What a cut is told: what the drawing asks, as far as its kind knows it, and over that its own; blank takes an entry away."""
    told = {**{name: value for name, value in asked.items() if name in known}, **own}
    return {name: value for name, value in told.items() if value not in NOTHING_SAID}


def own_entries(asked: Entries, told: Entries, known: Collection[str]) -> dict[str, Any]:
    """The entries that are a cut's own, so that with what the drawing asks it is told the same again."""
    given = {name: value for name, value in told.items() if value not in NOTHING_SAID}
    taken_back = dict.fromkeys((name for name in asked if name in known and name not in given), "")
    return {**{name: value for name, value in given.items() if asked.get(name) != value}, **taken_back}


def prepares(earlier: Region, later: Region) -> bool:
    """Whether a cut takes away what stands over a later one: all of its length, and no more than a roughing's rest above its size."""
    if earlier.side is later.side is Side.BORE:  # about as deep: a deeper hole is one of its own, with a wider step before it
        deep = later.depth - 1e-6 <= earlier.depth <= later.depth + later.outer / 2.0
        return deep and 0.0 < later.outer - earlier.outer <= ROUGHING_MOST
    if earlier.side is not later.side or earlier.side not in (Side.OUTSIDE, Side.INSIDE) or not later.spans or not earlier.spans:
        return False
    sign = 1.0 if earlier.side is Side.OUTSIDE else -1.0
    near, far = later.spans[0][0], later.spans[-1][1]
    left = min(sign * (rough - size) for *_, rough in earlier.spans for *_, size in later.spans)
    covers = earlier.spans[0][0] <= near + 1e-6 and far <= earlier.spans[-1][1] + 1e-6
    return covers and 0.0 < left <= ROUGHING_MOST
