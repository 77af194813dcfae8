"""The threading inserts and holders to choose from, as columns."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.tooling.roles import Index, Parts
from cutting.tooling.thread_inserts import ThreadHolder, ThreadInsert

Array = NDArray[np.float64]
INSERT_NUMBERS = ("edge_price", "edges", "tip", "full", "clearance", "hardest", "stands", "price")
HOLDER_NUMBERS = ("height", "width", "tilt", "shims", "least_bore", "internal", "overhang")


@dataclass(frozen=True)
class ThreadTurnStock:
    """Threading inserts, and what holds them; `note` says how they were chosen from a larger stock."""

    inserts: tuple[ThreadInsert, ...]
    holders: tuple[ThreadHolder, ...]
    note: str = ""
    guests: Mapping[str, Callable[[], Any]] = field(default_factory=dict)  # tools of other kinds of operation that may compete

    @property
    def parts(self) -> Parts:
        return {"insert": self.inserts, "holder": self.holders}

    @cached_property
    def insert_columns(self) -> dict[str, Array]:
        """Numbers of the inserts by name, one entry each."""
        return {name: np.array([getattr(one, name) for one in self.inserts], float) for name in INSERT_NUMBERS}

    @cached_property
    def holder_columns(self) -> dict[str, Array]:
        """Numbers of the holders by name, one entry each; the modulus of a bar's body with them."""
        own = {name: np.array([getattr(one, name) for one in self.holders], float) for name in HOLDER_NUMBERS}
        return own | {"modulus": np.array([one.body.modulus for one in self.holders], float)}

    @cached_property
    def places(self) -> tuple[Index, Index]:
        """Indices of every insert with every holder that takes it, insert by insert."""
        seats = {seat: k for k, seat in enumerate(dict.fromkeys([*(i.seat for i in self.inserts), *(h.seat for h in self.holders)]))}
        own = np.array([seats[one.seat] for one in self.inserts], int)[:, None]
        taken = np.array([seats[one.seat] for one in self.holders], int)[None, :]
        left, right = np.nonzero(own == taken)
        return left, right
