"""The best point of every entry of a contest, as far as the search has come."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
FIGURES = (
    "cutting_speed", "speed_reached", "feed", "seconds", "cost", "change_parts", "median_parts", "run_parts", "secure",
    "chip_index", "edge_cost", "roughness", "beside", "left_over", "utilisation", "broken", "strain", "risk", "chance",
)  # fmt: skip


@dataclass
class Best:
    """The best point of each entry: arrays over entries.

    `figures` by name; `binding`, `breaking` and `straining` name the closest limit, the closest hard one, and a soft one over its bound.
    `feasible` where every hard limit holds as surely as is asked, `close` where half as surely.
    """

    score: Array
    feasible: NDArray[np.bool_]
    close: NDArray[np.bool_]
    setup: NDArray[Any]  # in which it was run
    binding: NDArray[Any]
    breaking: NDArray[Any]
    straining: NDArray[Any]
    figures: dict[str, Array]

    @staticmethod
    def empty(count: int) -> Best:
        def words() -> NDArray[Any]:
            return np.full(count, "", dtype=object)

        figures = {name: np.full(count, np.nan) for name in FIGURES}
        return Best(np.full(count, np.inf), np.zeros(count, bool), np.zeros(count, bool), words(), words(), words(), words(), figures)
