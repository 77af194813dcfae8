"""Changes that every narrow cut can try beside feed and speed: a shorter overhang, more coolant, another tool of the crib."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace
from typing import Any

from cutting.operations.frame.change import Change, in_words, setting
from cutting.tooling.blades import Blade
from cutting.tooling.slot_stock import SlotStock

WORTH_SHORTER = 1.05  # times as far out as it need be


def shorter_overhang(setup: Any, label: str = "overhang") -> Iterator[Change[Any]]:
    """The blade no further out than the cut needs."""
    shortest = setup.blade.shortest(setup.depth)
    if setup.overhang > WORTH_SHORTER * shortest:
        yield setting("overhang", label, setup.overhang, shortest, "length", setup.with_settings(overhang=shortest))


def stronger_coolant(setup: Any) -> Iterator[Change[Any]]:
    """The machine's other deliveries that bring more pressure."""
    now = setup.machine.pressure(setup.settings.coolant) or 0.0
    for delivery, pressure in setup.machine.coolant:
        if pressure > now:
            yield Change(in_words(f"coolant: {delivery}"), {"settings": {"coolant": delivery}}, setup.with_settings(coolant=delivery))


def other_blades(
    setup: Any, crib: Any, noun: str, settings_for: Callable[[Blade], dict[str, Any]] = lambda blade: {}
) -> Iterator[Change[Any]]:
    """The crib's other tools for the same work and insert, each at its own overhang; `settings_for` says what a tool asks for."""
    for blade in crib.blades if isinstance(crib, SlotStock) else ():
        if type(blade) is type(setup.blade) and blade.name != setup.blade.name and blade.takes(setup.insert):
            asked = dict(settings_for(blade))
            patch: dict[str, Any] = {"tool": {**setup.tool_names, "blade": blade.name}}
            if setup.settings.overhang is not None:
                asked["overhang"] = None  # what was set belonged to the other tool
            if asked:
                patch["settings"] = {name: None if value is None else str(value) for name, value in asked.items()}
            settings = replace(setup.settings, **asked)
            yield Change(in_words(f"{noun} {blade.name}"), patch, replace(setup, blade=blade, settings=settings))
