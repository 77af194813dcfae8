"""The end mills and chucks to choose from, as columns."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np

from cutting.tooling.drill_stock import CHUCK_NUMBERS, Array, held_pairs
from cutting.tooling.drills import Chuck
from cutting.tooling.mills import EndMill
from cutting.tooling.roles import Index, Parts

MILL_NUMBERS = (
    "diameter", "flutes", "corner", "cutting_length", "reach", "neck", "ramp", "plunge", "life_price", "modulus", "shank", "uneven",
)  # fmt: skip


@dataclass(frozen=True)
class MillStock:
    """End mills, and what holds them; `note` says how they were chosen from a larger stock."""

    mills: tuple[EndMill, ...]
    chucks: tuple[Chuck, ...]
    note: str = ""

    @property
    def parts(self) -> Parts:
        return {"mill": self.mills, "chuck": self.chucks}

    @cached_property
    def mill_columns(self) -> dict[str, Array]:
        """Numbers of the mills by name, one entry each."""
        own = {name: np.array([getattr(one, name) for one in self.mills], float) for name in MILL_NUMBERS}
        return own | {
            name: np.array([getattr(one.type, name) for one in self.mills], float) for name in ("life", "edge_radius", "bends_at")
        }

    @cached_property
    def chuck_columns(self) -> dict[str, Array]:
        """Numbers of the chucks by name, one entry each."""
        return {name: np.array([getattr(one, name) for one in self.chucks], float) for name in CHUCK_NUMBERS}

    @cached_property
    def places(self) -> tuple[Index, Index]:
        """Indices of every mill with every chuck that takes it, mill by mill."""
        return held_pairs(self.mills, self.chucks)
