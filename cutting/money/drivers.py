"""What a process costs by its drivers, and which of them a change of process saves on."""

from __future__ import annotations

from dataclasses import dataclass, fields, replace
from itertools import combinations
from math import factorial


@dataclass(frozen=True)
class Process:
    """How a cut is made, as it is known from the floor or as it is planned; money in the shop's currency.

    `seconds` a piece without edge changes, `price` of an insert or tool, `edges` that it has, `pieces` for each edge, `change` of an
    edge [s], `rate` of the machine for an hour.
    """

    seconds: float
    price: float
    edges: float
    pieces: float
    change: float
    rate: float

    @property
    def shares(self) -> dict[str, float]:
        """Money for a piece: of the machine while it cuts, while an edge is changed, and of the edge itself."""
        second = self.rate / 3600.0
        return {
            "machine": second * self.seconds,
            "edge changes": second * self.change / self.pieces,
            "edges": self.price / (self.edges * self.pieces),
        }

    @property
    def cost(self) -> float:
        """Money for a piece.

        >>> present = Process(34.0, 27.38, 2, 14, 54.0, 96.2)
        >>> round(present.cost, 2), round(Process(16.0, 12.10, 1, 42, 54.0, 96.2).cost, 2)  # a case of the trade, cut-off
        (1.99, 0.75)
        """
        return sum(self.shares.values())


DRIVERS = tuple(one.name for one in fields(Process))


def saving_by_driver(present: Process, proposed: Process) -> dict[str, float]:
    """Money for a piece that each driver saves from one process to the other; they add up to the whole saving exactly.

    What two drivers save together is shared evenly: the mean over all orders in which they may change (Shapley 1953).

    >>> found = saving_by_driver(Process(34.0, 27.38, 2, 14, 54.0, 96.2), Process(16.0, 12.10, 1, 42, 54.0, 96.2))
    >>> round(sum(found.values()), 2), round(found["seconds"], 2), found["change"], found["rate"]
    (1.24, 0.48, 0.0, 0.0)
    """
    moved = [name for name in DRIVERS if getattr(present, name) != getattr(proposed, name)]
    many = len(moved)
    found = dict.fromkeys(DRIVERS, 0.0)
    for name in moved:
        others = [one for one in moved if one != name]
        for size in range(many):
            weight = factorial(size) * factorial(many - size - 1) / factorial(many)
            for before in combinations(others, size):
                base = replace(present, **{one: getattr(proposed, one) for one in before})
                found[name] += weight * (base.cost - replace(base, **{name: getattr(proposed, name)}).cost)
    return found


def pieces_to_match(present: Process, proposed: Process) -> float | None:
    """Pieces for each edge from which the proposed process costs no more than the present one; None where no number does.

    >>> round(pieces_to_match(Process(34.0, 27.38, 2, 14, 54.0, 96.2), Process(16.0, 12.10, 1, 42, 54.0, 96.2)), 1)
    8.7
    """
    left = present.cost - proposed.shares["machine"]
    if left <= 0.0:
        return None
    return (proposed.rate / 3600.0 * proposed.change + proposed.price / proposed.edges) / left
