"""The chip of a narrow edge: curled sideways narrower than its slot, or crowded in it."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.chips.verdict import TOO_SOFT_TO_BREAK
from cutting.chips.window import softest_index
from cutting.operations.frame.outcome import ChipVerdict

Array = NDArray[np.float64]
Window = tuple[ArrayLike, ArrayLike]  # least and largest feed, mm/rev

COMPRESSION = 2.2  # chip thickness after over before the cut, ductile steel (common practice)
SHAPES = {
    "rolled": ("3.1", "spiral", "short", "breaks", "rolled up like a watch spring, narrower than the slot"),
    "strings": ("1.3", "ribbon", "snarled", "strings", "too little feed for this width: the chip is not curled narrower than the slot"),
    "packs": ("3.2", "spiral", "pressed", "packs", "too much feed: it packs"),
    "crowds": ("3.2", "spiral", "pressed", "packs", "the slot is deep for its width: chips crowd in it"),
    "bends": ("2.1", "tubular", "long", "strings", "too soft and tough to break: a jet at pressure, or short steps of feed"),
    "crumbles": ("6.2", "arc", "loose", "breaks", "a brittle metal: short pieces that fall out of the slot"),
}
DEEP, DEEP_WITH_JET = 6.0, 9.0  # depth over width from which chips crowd (common practice)
CROWDING, BRITTLE_CROWDS = 5.0, 0.4  # points of the index for each width deeper; chips of a brittle metal crowd a slot too


def deepest_slot(pressure: ArrayLike) -> Array:
    """Depth over width from which chips crowd in a slot, by the coolant [bar] that reaches its edge (common practice)."""
    return np.where(np.asarray(pressure) >= 20, DEEP_WITH_JET, DEEP)


def slot_index(feed: ArrayLike, window: Window, depth: float, width: ArrayLike, pressure: ArrayLike, ductility: float) -> Array:
    """Chip index 0 to 100 at a feed [mm/rev] inside or outside its window, `depth` [mm] in a slot of `width` [mm], coolant [bar].

    Crowding by depth over width is common practice.
    """
    index = np.interp(np.abs(_place(feed, window)), [0, 0.6, 1.0, 1.5], [96, 90, 68, 25])
    return np.clip(np.minimum(index, softest_index(ductility, pressure)) - _crowded(depth, width, pressure, ductility), 0, 100)


def _place(feed: ArrayLike, window: Window) -> Array:
    """Where a feed stands in its window: −1 and 1 at its ends."""
    low, high = np.asarray(window[0], float), np.asarray(window[1], float)
    return (np.asarray(feed) - (low + high) / 2.0) / np.maximum((high - low) / 2.0, 1e-9)


def _crowded(depth: float, width: ArrayLike, pressure: ArrayLike, ductility: float) -> Array:
    return np.maximum(0.0, depth / np.asarray(width) - deepest_slot(pressure)) * CROWDING * (BRITTLE_CROWDS + ductility)


def slot_chip(feed: float, window: Window, depth: float, width: float, pressure: float, ductility: float) -> ChipVerdict:
    """The chip of one set-up in words. Form class by ISO 3685, annex G (from memory)."""
    place = float(_place(feed, window))
    brittle = ductility < 0.35
    if place < -1.0 and not brittle:
        said = "strings"
    elif float(_crowded(depth, width, pressure, ductility)) >= 25:
        said = "crowds"
    elif place > 1.0:
        said = "packs"
    elif float(softest_index(ductility, pressure)) < TOO_SOFT_TO_BREAK:
        said = "bends"
    else:
        said = "crumbles" if brittle else "rolled"
    code, form, length, verdict, why = SHAPES[said]
    index = float(slot_index(feed, window, depth, width, pressure, ductility))
    return ChipVerdict(form, length, code, verdict, index, feed, COMPRESSION * feed, None, None, 0.0, 15.0, why)
