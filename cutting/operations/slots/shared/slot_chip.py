"""The chip of a narrow edge: curled sideways narrower than its slot, or crowded in it."""

from __future__ import annotations

import numpy as np

from cutting.operations.frame.outcome import ChipVerdict

COMPRESSION = 2.2  # chip thickness after over before the cut, ductile steel (common practice)
SHAPES = {
    "rolled": ("3.1", "spiral", "short", "breaks", "rolled up like a watch spring, narrower than the slot"),
    "strings": ("1.3", "ribbon", "snarled", "strings", "too little feed for this width: the chip is not curled narrower than the slot"),
    "packs": ("3.2", "spiral", "pressed", "packs", "too much feed: it packs"),
    "crowds": ("3.2", "spiral", "pressed", "packs", "the slot is deep for its width: chips crowd in it"),
    "crumbles": ("6.2", "arc", "loose", "breaks", "a brittle metal: short pieces that fall out of the slot"),
}
DEEP, DEEP_WITH_JET = 6.0, 9.0  # depth over width from which chips crowd (common practice)


def deepest_slot(pressure: float) -> float:
    """Depth over width from which chips crowd in a slot, by the coolant [bar] that reaches its edge (common practice)."""
    return DEEP_WITH_JET if pressure >= 20 else DEEP


def slot_chip(feed: float, window: tuple[float, float], depth: float, width: float, pressure: float, ductility: float) -> ChipVerdict:
    """The chip at a feed [mm/rev] inside or outside its window, `depth` [mm] in a slot of `width` [mm], coolant [bar].

    Form class by ISO 3685, annex G (from memory); crowding by depth over width is common practice.
    """
    middle, half = sum(window) / 2.0, max((window[1] - window[0]) / 2.0, 1e-9)
    place = abs(feed - middle) / half
    crowded = max(0.0, depth / width - deepest_slot(pressure)) * 5.0 * (0.4 + ductility)
    index = float(np.clip(np.interp(place, [0, 0.6, 1.0, 1.5], [96, 90, 68, 25]) - crowded, 0, 100))
    brittle = ductility < 0.35
    if place > 1.0 and feed < middle and not brittle:
        said = "strings"
    elif crowded >= 25:
        said = "crowds"
    elif place > 1.0 and feed > middle:
        said = "packs"
    else:
        said = "crumbles" if brittle else "rolled"
    code, form, length, verdict, why = SHAPES[said]
    return ChipVerdict(form, length, code, verdict, index, feed, COMPRESSION * feed, None, None, 0.0, 15.0, why)
