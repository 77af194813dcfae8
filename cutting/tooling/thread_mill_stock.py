"""The thread mills and chucks to choose from, as columns."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np

from cutting.tooling.drill_stock import CHUCK_NUMBERS, Array, held_pairs
from cutting.tooling.drills import Chuck
from cutting.tooling.roles import Index, Parts
from cutting.tooling.thread_mills import ThreadMill

MILL_NUMBERS = (
    "diameter", "flutes", "pitch_low", "pitch_high", "angle", "teeth", "reach", "neck", "hardest", "left_cutting", "step", "life_price",
    "modulus", "shank", "edges",
)  # fmt: skip


@dataclass(frozen=True)
class ThreadMillStock:
    """Thread mills, and what holds them; `note` says how they were chosen from a larger stock."""

    mills: tuple[ThreadMill, ...]
    chucks: tuple[Chuck, ...]
    note: str = ""
    guests: Mapping[str, Callable[[], Any]] = field(default_factory=dict)  # tools of other kinds of operation that may compete

    @property
    def parts(self) -> Parts:
        return {"mill": self.mills, "chuck": self.chucks}

    @cached_property
    def mill_columns(self) -> dict[str, Array]:
        """Numbers of the mills by name, one entry each; those of their type with `type_` before them."""
        own = {name: np.array([getattr(one, name) for one in self.mills], float) for name in MILL_NUMBERS}
        types = {name: np.array([getattr(one.type, name) for one in self.mills], float) for name in ("life", "deepest", "bends_at", "feed")}
        rows = {word: np.array([one.type.rows == word for one in self.mills], float) for word in ("many", "three", "one")}
        drills = {word: np.array([one.type.drills == word for one in self.mills], float) for word in ("first", "helix")}
        return own | {f"type_{name}": values for name, values in (types | rows | drills).items()}

    @cached_property
    def chuck_columns(self) -> dict[str, Array]:
        """Numbers of the chucks by name, one entry each."""
        return {name: np.array([getattr(one, name) for one in self.chucks], float) for name in CHUCK_NUMBERS}

    @cached_property
    def places(self) -> tuple[Index, Index]:
        """Indices of every mill with every chuck that takes it, mill by mill."""
        return held_pairs(self.mills, self.chucks)
