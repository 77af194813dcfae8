"""What can be done otherwise beside speed and feed: coolant, a part of another temperature, another heavy tool."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from cutting.operations.frame.change import Change, in_words
from cutting.operations.holes.heavy_bore.numbers import Numbers
from cutting.operations.holes.heavy_bore.setup import HeavyBoreSetup
from cutting.tooling.heavy.stock import HeavyStock

AS_STATED = 20.0  # °C, at which sizes are stated
WELL_KNOWN = 0.3  # K, by a contact thermometer (common practice)


def changes(x: Numbers) -> Iterator[Change[HeavyBoreSetup]]:
    """Changes of the set-up's own settings."""
    setup, s = x.setup, x.setup.settings
    for delivery, pressure in setup.machine.coolant:
        if delivery != s.coolant and pressure > 0:
            text = in_words(f"coolant: {delivery}, {pressure:.0f} bar")
            yield Change(text, {"settings": {"coolant": delivery}}, setup.with_settings(coolant=delivery))
    if s.temperature_known > WELL_KNOWN:
        text = in_words(f"part's temperature measured within {WELL_KNOWN:g} K")
        patch = {"settings": {"temperature_known": f"{WELL_KNOWN:g}"}}
        yield Change(text, patch, setup.with_settings(temperature_known=WELL_KNOWN))


def from_stock(x: Numbers, stock: Any) -> Iterator[Change[HeavyBoreSetup]]:
    """The crib's other heavy tools."""
    if isinstance(stock, HeavyStock):
        for one in stock.tools:
            if one.name != x.setup.heavy_tool.name:
                changed = replace(x.setup, heavy_tool=one, learned=x.setup.learned.elsewhere())
                yield Change(in_words(one.name), {"tool": changed.tool_names}, changed)
