"""The grooving inserts and blades to choose from, as columns: one pair and twenty thousand use one code."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.tooling.blades import BLADE_NUMBERS, SEAT_PLAY, Blade
from cutting.tooling.groove_inserts import INSERT_NUMBERS, GrooveInsert
from cutting.tooling.roles import Index, Parts

Array = NDArray[np.float64]


@dataclass(frozen=True)
class SlotStock:
    """Grooving inserts, and blades of one class; `note` says how they were chosen from a larger stock."""

    inserts: tuple[GrooveInsert, ...]
    blades: tuple[Blade, ...]
    note: str = ""
    guests: Mapping[str, Callable[[], Any]] = field(default_factory=dict)  # tools of other kinds of operation that may compete

    @property
    def parts(self) -> Parts:
        return {"insert": self.inserts, "blade": self.blades}

    @cached_property
    def insert_columns(self) -> dict[str, Array]:
        """Numbers of the inserts by name, one entry each."""
        return {name: np.array([getattr(one, name) for one in self.inserts], float) for name in INSERT_NUMBERS}

    @cached_property
    def blade_columns(self) -> dict[str, Array]:
        """Numbers of the blades by name, one entry each; those of their class among them."""
        names = (*BLADE_NUMBERS, *(self.blades[0].NUMBERS if self.blades else ()))
        return {name: np.array([getattr(one, name) for one in self.blades], float) for name in names}

    @cached_property
    def places(self) -> tuple[Index, Index]:
        """Indices of every insert with every blade that takes it, insert by insert."""
        widths = np.array([one.width for one in self.inserts], float)
        every = [one.seat for one in self.inserts] + [one.seat for one in self.blades]
        seats = {seat: k for k, seat in enumerate(dict.fromkeys(every))}
        own = np.array([seats[one.seat] for one in self.inserts], int)
        anonymous = seats.get("", -1)
        takes = np.zeros((len(self.inserts), len(self.blades)), bool)
        for k, blade in enumerate(self.blades):
            seat = seats[blade.seat]
            named = (own == seat) & (widths <= blade.width + SEAT_PLAY)
            plain = (own == anonymous) & (np.abs(blade.width - widths) < SEAT_PLAY)
            takes[:, k] = named if seat != anonymous else plain
        left, right = np.nonzero(takes)
        return left, right
