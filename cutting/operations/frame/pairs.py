"""Tools as numbers, for one pair or for many at once: taking some of the pairs."""

from __future__ import annotations

from dataclasses import dataclass, fields
from typing import Any, Self

import numpy as np
from numpy.typing import NDArray


@dataclass(frozen=True)
class Pairs:
    """Arrays of shape (pairs, …); `own` holds the numbers of the tool and of what carries it, by name."""

    own: dict[str, NDArray[np.float64]]

    def take(self, keep: Any) -> Self:
        """The pairs of an index or a mask."""
        common = {one.name: getattr(self, one.name)[keep] for one in fields(self) if one.name != "own"}
        return type(self)(own={name: values[keep] for name, values in self.own.items()}, **common)
