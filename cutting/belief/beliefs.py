"""What trials have taught: of one tool, metal and machine, or of a wider group of them; nothing, unless a person accepted it."""

from __future__ import annotations

import math
from collections.abc import Collection, Iterable
from dataclasses import dataclass

from cutting.belief.bands import band, quantities
from cutting.errors import UnknownName, require_between

CENTRES, SPREADS = (0.2, 5.0), (0.0, 1.0)
WIDE = {"margins": (0.0, 20.0)}  # of what the tables know least


@dataclass(frozen=True)
class Belief:
    """A quantity moved and narrowed: its true value is about `centre` times what the model says.

    `spread` is the standard deviation of its logarithm that is left, None for the shipped band's. It holds for what it names
    of tool, metal and machine; what is blank is any. A tool may be named by its grade, a metal by its group (`group 7`).
    `note` says where it is from.
    """

    quantity: str
    centre: float
    spread: float | None = None
    tool: str = ""
    metal: str = ""
    machine: str = ""
    note: str = ""

    @property
    def narrowness(self) -> int:
        """How much it names: the narrower of two that hold stands before the wider."""
        return sum(bool(name) for name in (self.tool, self.metal, self.machine))

    def holds(self, tools: Collection[str], metals: Collection[str], machine: str) -> bool:
        """Whether it holds for a tool, by the names of its parts and its grade, in a metal, by name and group, on a machine."""
        return (not self.tool or self.tool in tools) and (not self.metal or self.metal in metals) and self.machine in ("", machine)

    def check(self, field: str = "learned.beliefs") -> None:
        """Raise `CuttingError` for what no trial can have taught."""
        if self.quantity not in quantities():
            known = ", ".join(quantities())
            raise UnknownName(f"{field}.quantity", f"no trial teaches '{self.quantity}'; there are {known}.", known, quantities())
        require_between(f"{field}.{self.quantity}", self.centre, *WIDE.get(self.quantity, CENTRES))
        if self.spread is not None:
            require_between(f"{field}.{self.quantity}.spread", self.spread, *SPREADS)


def strongest(beliefs: Iterable[Belief], quantity: str, tools: Collection[str], metals: Collection[str], machine: str) -> Belief | None:
    """The narrowest belief about a quantity that holds here, of equal ones the later; None where nothing was learned.

    >>> said = (Belief("force", 1.1, metal="C45"), Belief("force", 1.2, metal="C45", tool="a drill"), Belief("force", 0.9))
    >>> [strongest(said, "force", [tool], [metal], "").centre for tool, metal in (("", "C45"), ("a drill", "C45"), ("a drill", "brass"))]
    [1.1, 1.2, 0.9]
    """
    found = None
    for one in beliefs:
        if one.quantity == quantity and one.holds(tools, metals, machine) and (found is None or one.narrowness >= found.narrowness):
            found = one
    return found


def spread_of(belief: Belief | None, quantity: str, operation: str) -> float:
    """Standard deviation of the logarithm of a quantity: what a belief leaves, or the shipped band's."""
    return band(quantity, operation).spread if belief is None or belief.spread is None else belief.spread


def learned_words(belief: Belief) -> str:
    """A belief where it acts: `× 1.12, learned`."""
    said = f"× {belief.centre:.3g}, learned"
    if belief.spread is not None:
        said += f" within ±{100 * (math.exp(2 * belief.spread) - 1):.0f} %"
    return said + (f" ({belief.note})" if belief.note else "")
