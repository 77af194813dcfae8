"""The bands: how far each quantity of a model may be off, with its name, its size and its source, in one place."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cache

from cutting.errors import UnknownName
from cutting.nomenclature import source_label
from cutting.tables import read_table

HARDNESS = "hardness"  # of the metal as it is delivered: no formula's, its size is the range of delivery
SIGMAS = 2.0  # a band is taken to hold nineteen of twenty: two standard deviations to each side


@dataclass(frozen=True)
class Band:
    """How far a quantity may be off: its true value lies between `low` and `high` times what the model says, nineteen times of twenty.

    `of` are the quantities that a derived number inherits from; empty for a quantity of its own.
    """

    quantity: str
    title: str
    low: float
    high: float
    of: tuple[str, ...]
    source: str

    @property
    def spread(self) -> float:
        """Standard deviation of the logarithm [–]."""
        return math.log(self.high) / SIGMAS

    @property
    def words(self) -> str:
        """The size as people say it: `±25 %`, `÷ or × 2`.

        >>> band("force").words, band("life").words, band("seconds").words
        ('±25 %', '÷ or × 2', '−3 to +5 %')
        """
        return told(self.low, self.high)

    def about(self, value: float) -> tuple[float, float]:
        """Low and high of a value."""
        return value * self.low, value * self.high

    def narrowed(self, spreads: Mapping[str, float]) -> Band:
        """The band where trials have narrowed some of what it comes from: `spreads` are standard deviations of logarithms by quantity.

        Of a derived number the parts add up as squares; what nobody narrowed keeps its shipped band. Source: propagation of error.
        """
        parts = self.of or (self.quantity,)
        if not any(one in spreads for one in parts):
            return self
        shipped = {one: band(one).spread for one in parts}
        share = math.hypot(*(spreads.get(one, shipped[one]) for one in parts)) / math.hypot(*shipped.values())
        return replace(self, low=self.low**share, high=self.high**share)


def told(low: float, high: float) -> str:
    """A band between two factors in words."""
    if math.isclose(low * high, 1.0, rel_tol=0.02) and high > 1.4:  # as wide down as up, and wide enough to be told as a factor
        return f"÷ or × {high:.2g}"
    down, up = round(100 * (1 - low)), round(100 * (high - 1))
    return f"±{up} %" if down == up else f"−{down} to +{up} %"


@cache
def _bands() -> dict[tuple[str, str], Band]:
    found = {}
    for row in read_table("belief/bands.csv"):
        label = "; ".join(source_label(part.strip()) for part in row["source"].split(";"))
        one = Band(row["quantity"], row["title"], row.number("low"), row.number("high"), tuple(row["of"].split()), label)
        for operation in row.words("operations") or ("",):
            found[one.quantity, operation] = one
    return found


def bands() -> tuple[Band, ...]:
    """Every band, those of single kinds of operation among them."""
    return tuple(dict.fromkeys(_bands().values()))


@cache
def band(quantity: str, operation: str = "") -> Band:
    """The band of a quantity in a kind of operation, or the one of all kinds. Raises `UnknownName`."""
    found = _bands().get((quantity, operation)) or _bands().get((quantity, ""))
    if found is None:
        names = tuple(dict.fromkeys(name for name, _ in _bands()))
        raise UnknownName("quantity", f"no quantity is called '{quantity}'; there are {', '.join(names)}.", None, names)
    return found


def quantities() -> tuple[str, ...]:
    """The quantities that are uncertain of themselves: what may be learned, and what is drawn."""
    return tuple(dict.fromkeys(one.quantity for one in bands() if one.quantity in STATED))


# quantities that formulae state; the others are numbers that inherit from them
STATED = frozenset(
    {"force", "push", "give", "damping", "grip", "life", "finish", "temperature", "margins", "chips", "strength", "plies", "burr", "power"}
)
