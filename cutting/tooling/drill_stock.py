"""The drills and chucks to choose from, as columns: one pair and twenty thousand use one code."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.tooling.drills import Chuck, Drill
from cutting.tooling.roles import Index, Parts

Array = NDArray[np.float64]
DRILL_NUMBERS = (
    "diameter",
    "point_angle",
    "flutes",
    "reach",
    "flute_length",
    "web",
    "chisel_share",
    "margins",
    "coolant_holes",
    "coolant_hole",
    "it",
    "life_price",
    "modulus",
    "shear",
    "shank",
    "step",
    "step_length",
)
TYPE_NUMBERS = (
    "least_feed",
    "life",
    "finish",
    "straightness",
    "position",
    "runout",
    "flute",
    "edge_radius",
    "least_pressure",
    "enlarges",
    "spots",
    "reams",
)
CHUCK_NUMBERS = ("runout", "grip", "length")


@dataclass(frozen=True)
class DrillStock:
    """Drills of any type, and what holds them; `note` says how they were chosen from a larger stock."""

    drills: tuple[Drill, ...]
    chucks: tuple[Chuck, ...]
    note: str = ""
    guests: Mapping[str, Callable[[], Any]] = field(default_factory=dict)  # tools of other kinds of operation that may compete

    @property
    def parts(self) -> Parts:
        return {"drill": self.drills, "chuck": self.chucks}

    @cached_property
    def drill_columns(self) -> dict[str, Array]:
        """Numbers of the drills by name, one entry each; those of their type with `type_` before them."""
        own = {name: np.array([getattr(one, name) for one in self.drills], float) for name in DRILL_NUMBERS}
        return own | {f"type_{name}": np.array([getattr(one.type, name) for one in self.drills], float) for name in TYPE_NUMBERS}

    @cached_property
    def chuck_columns(self) -> dict[str, Array]:
        """Numbers of the chucks by name, one entry each."""
        return {name: np.array([getattr(one, name) for one in self.chucks], float) for name in CHUCK_NUMBERS}

    @cached_property
    def places(self) -> tuple[Index, Index]:
        """Indices of every drill with every chuck that takes it, drill by drill."""
        return held_pairs(self.drills, self.chucks)


def held_pairs(tools: Sequence[Any], chucks: Sequence[Chuck]) -> tuple[Index, Index]:
    """Indices of every round tool with every chuck that takes its shank or its taper, tool by tool."""
    shanks = np.array([one.shank for one in tools], float)[:, None]
    low, high = (np.array([getattr(one, name) for one in chucks], float)[None, :] for name in ("low", "high"))
    tapers = {word: k for k, word in enumerate(dict.fromkeys(["", *(one.taper for one in tools), *(c.takes_taper for c in chucks)]))}
    own = np.array([tapers[one.taper] for one in tools], int)[:, None]
    taken = np.array([tapers[one.takes_taper] for one in chucks], int)[None, :]
    straight = (own == 0) & (taken == 0) & (low - 1e-9 <= shanks) & (shanks <= high + 1e-9)
    left, right = np.nonzero(straight | ((own > 0) & (own == taken)))
    return left, right
