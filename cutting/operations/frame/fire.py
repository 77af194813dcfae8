"""Metals whose chips burn: the same words in every kind of operation."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from cutting.operations.frame.outcome import Warning
from cutting.workpiece.materials import Material

TITANIUM = (36, 37)  # groups of VDI 3323
WATER = ("flood", "jet", "high", "through", "mist")  # deliveries of emulsion
WET_MAGNESIUM = "Water on burning magnesium makes hydrogen: dry or mineral oil only, a class D extinguisher at hand."


def is_magnesium(material: Material) -> bool:
    """By the name that the shop gave its own material: no group of VDI 3323 holds magnesium."""
    name = material.name.lower()
    return "magnesium" in name or name.startswith(("mgal", "az"))


def fire_warnings(setup: Any) -> Iterator[Warning]:
    """What burns in this cut, and what must not be put on it."""
    metals = [one.material for one in getattr(setup, "layers", ())] or [setup.work.material]
    if any(one.group.number in TITANIUM for one in metals):
        text = "Fine titanium chips burn hotter than water can put out: clear them away, keep class D powder at hand, no blunt edge."
        yield Warning("titanium_chips", text, "care")
    if any(is_magnesium(one) for one in metals):
        if setup.settings.coolant in WATER:
            yield Warning("magnesium_wet", WET_MAGNESIUM, "care")
        else:
            text = "Magnesium chips burn, and water on them makes hydrogen: keep it away, clear them often, class D powder at hand."
            yield Warning("magnesium_chips", text, "care")
