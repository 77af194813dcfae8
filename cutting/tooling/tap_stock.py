"""The taps and chucks to choose from, as columns."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np

from cutting.tooling.drill_stock import CHUCK_NUMBERS, Array, held_pairs
from cutting.tooling.drills import Chuck
from cutting.tooling.roles import Index, Parts
from cutting.tooling.taps import Tap

TAP_NUMBERS = ("diameter", "pitch", "flutes", "chamfer_threads", "core", "shear", "reach", "hardest", "life_price", "shank")
TYPE_NUMBERS = ("torque", "friction", "life", "deepest", "ductility", "forms")


@dataclass(frozen=True)
class TapStock:
    """Taps, and what holds them; `note` says how they were chosen from a larger stock."""

    taps: tuple[Tap, ...]
    chucks: tuple[Chuck, ...]
    note: str = ""
    guests: Mapping[str, Callable[[], Any]] = field(default_factory=dict)  # tools of other kinds of operation that may compete

    @property
    def parts(self) -> Parts:
        return {"tap": self.taps, "chuck": self.chucks}

    @cached_property
    def tap_columns(self) -> dict[str, Array]:
        """Numbers of the taps by name, one entry each; those of their type with `type_` before them."""
        own = {name: np.array([getattr(one, name) for one in self.taps], float) for name in TAP_NUMBERS}
        return own | {f"type_{name}": np.array([getattr(one.type, name) for one in self.taps], float) for name in TYPE_NUMBERS}

    @cached_property
    def chuck_columns(self) -> dict[str, Array]:
        """Numbers of the chucks by name, one entry each."""
        return {name: np.array([getattr(one, name) for one in self.chucks], float) for name in (*CHUCK_NUMBERS, "squares")}

    @cached_property
    def places(self) -> tuple[Index, Index]:
        """Indices of every tap with every chuck that takes it, tap by tap."""
        return held_pairs(self.taps, self.chucks)
