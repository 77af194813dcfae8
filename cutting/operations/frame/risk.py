"""What a limit that is no exclusion costs where it does not hold: shares of the operation's money or seconds, that grow with the miss."""

from __future__ import annotations

from enum import StrEnum
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

Array = NDArray[np.float64]
LEAST, FAR = 1e-9, 6.0  # beyond six spreads from its bound a limit is missed, or not, without a doubt
MOST = 10.0  # of an operation, that all its soft limits together cost at most (common practice)


class Risk(StrEnum):
    """What happens where a limit does not hold."""

    TASTE = "taste"  # it is done, but nobody likes it
    SIZE = "size"  # a size or a wall that is not what it should be: done again, or by hand
    WANDERS = "wanders"  # a size that springs from piece to piece, as the edge presses more than it cuts
    TORN = "torn"  # metal that is torn instead of cut: a wall and an edge that nobody takes
    PUSHED = "pushed"  # an edge that pushes the part away instead of cutting it: no size
    EDGE = "edge"  # an edge that breaks before its time
    BREAK = "break"  # a tool that breaks in the part
    STOP = "stop"  # chips or coolant that stop the machine


# share of the operation's money or seconds for a limit that is over by the factor e (common practice: what people give to be rid of it)
SHARES = {
    Risk.TASTE: 0.15, Risk.SIZE: 0.6, Risk.WANDERS: 1.2, Risk.TORN: 1.0, Risk.PUSHED: 4.0, Risk.EDGE: 0.5, Risk.BREAK: 4.0, Risk.STOP: 1.0,
}  # fmt: skip
HAPPENS: dict[str, Risk] = {
    **dict.fromkeys(("bends", "setting", "taper", "jaw_lobes", "corners", "burr", "gauge", "warmth", "floor", "size_error",
                     "reamer_feed", "wide", "general_finish", "at_the_bush"), Risk.SIZE),
    "nose_depth": Risk.WANDERS,
    **dict.fromkeys(
        ("toughness", "edge_heat", "runout", "offset", "floor_gives", "chill", "wiper_bar", "resonance", "unbalance", "lean", "width",
         "chip", "bar_overhang"),
        Risk.EDGE,
    ),
    "useful_speed": Risk.TORN,
    "shallow": Risk.PUSHED,
    **dict.fromkeys(("margin", "clutch_saves", "deep_start", "hard_deep"), Risk.BREAK),
    **dict.fromkeys(("chips", "long_chips", "chip_narrower", "chip_room", "through_flow", "flow", "life", "widest"), Risk.STOP),
}  # fmt: skip


def share_of(name: str) -> float:
    """What a soft limit costs, over by the factor e, as a share of the operation."""
    return SHARES[HAPPENS.get(name, Risk.TASTE)]


def expected_miss(used: Any, spread: Any = 0.0) -> Array:
    """How far a limit is over on average, as a logarithm: E[max(ln u, 0)] of a logarithm that is off by so much around that of `used`.

    More is never less, and nothing jumps at the bound. Source: the mean of a normal law cut off at zero.

    >>> expected_miss([0.5, 1.0, np.e]).round(3).tolist(), round(float(expected_miss(1.0, 0.2)), 3)
    ([0.0, 0.0, 1.0], 0.08)
    """
    middle, wide = np.broadcast_arrays(np.log(np.maximum(np.asarray(used, float), LEAST)), np.asarray(spread, float))
    found = np.array(np.maximum(middle, 0.0))
    near = (wide > LEAST) & (np.abs(middle) < FAR * wide)
    if near.any():
        z = middle[near] / wide[near]
        found[near] = wide[near] * np.exp(-0.5 * z**2) / np.sqrt(2.0 * np.pi) + middle[near] * ndtr(z)
    return found


def shared_risk(misses: Any) -> Array:
    """What all soft limits together cost as a share of the operation, held below `MOST` without a step."""
    return np.asarray(MOST * np.tanh(np.asarray(misses, float) / MOST))
