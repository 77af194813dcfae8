"""What a broken or spoilt thread costs: the chance times what the part is worth at its place in the run order."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
LIKELY, WANTED_MARGIN = 1e-4, 2.0  # chance that a tool breaks in a thread at the margin that is wanted (common practice)
STEEP = 1.5  # decades by which the chance falls with each unit of margin (common practice)
LEAST, MOST = 2e-6, 0.05


def breaks(margin: Any, worse: Any = 1.0) -> Array:
    """Chance that a tool breaks in one thread, by its strength over its load; `worse` for chips that stay and hard metal."""
    chance = LIKELY * 10.0 ** (-STEEP * (np.asarray(margin, float) - WANTED_MARGIN)) * np.asarray(worse)
    return np.asarray(np.clip(chance, LEAST, MOST))


def certainty(spread: Any, tolerance: float) -> Array:
    """Share of threads that a gauge passes where four standard deviations make up a spread [mm], set to the middle of a tolerance [mm].

    2·Φ(z) − 1 with z = t/(2·σ), Φ of the normal distribution by Page's approximation, which is off by less than 0.0005.
    """
    sigma = np.maximum(np.asarray(spread, float) / 4.0, 1e-6)
    z = tolerance / 2.0 / sigma
    # the usual approximation of the normal distribution by tanh (Page)
    return np.asarray(np.tanh(np.sqrt(2.0 / np.pi) * (z + 0.044715 * z**3)))


def money_at_risk(chance: Any, lost: float, value: float, count: int = 1) -> Array:
    """Money a piece: the chance in each of so many threads, the share of breakages that lose the part, and its value."""
    return np.asarray((1.0 - (1.0 - np.asarray(chance, float) * lost) ** count) * value)
