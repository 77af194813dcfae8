"""Sound set-ups of milled holes in their JSON form, to vary in tests."""

from __future__ import annotations

from typing import Any

from cutting.doors.json_form import read_request, read_setup
from cutting.operations.holes.mill_hole.evaluate import MODEL
from cutting.operations.holes.mill_hole.numbers import Numbers
from cutting.operations.holes.mill_hole.setup import MillHoleSetup
from tests.core.slots import form

SEAT: dict[str, Any] = {
    "operation": "mill hole",
    "material": "C45",
    "machine": "machining centre",
    "tool": {"mill": "mill 16 z4 K30 fine PVD", "chuck": "collet BT40 to 20"},
    "feature": {"diameter": "24 mm", "depth": "20 mm", "through": False, "flat": True},
    "settings": {"cutting_speed": "150 m/min", "feed_per_tooth": "0.06 mm/z", "pitch": "1 mm", "coolant": "flood"},
}


def milled(base: dict[str, Any] = SEAT, **sections: Any) -> MillHoleSetup:
    """A set-up with some entries otherwise; None takes one away."""
    found: MillHoleSetup = read_setup(form(base, **sections))
    return found


def numbers_of(base: dict[str, Any] = SEAT, **sections: Any) -> Numbers:
    return MODEL.quickly(milled(base, **sections))


def asked(base: dict[str, Any] = SEAT, coolant: str = "flood", **sections: Any) -> tuple[Any, Any]:
    """An advice request: without tool, speed and feed."""
    data = form(base, **sections)
    return read_request(
        {name: value for name, value in data.items() if name not in ("tool", "settings")} | {"settings": {"coolant": coolant}}
    )
