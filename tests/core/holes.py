"""Sound set-ups of drilled holes in their JSON form, to vary in tests."""

from __future__ import annotations

from typing import Any

from cutting.doors.json_form import read_request, read_setup
from cutting.operations.holes.drill.evaluate import MODEL
from cutting.operations.holes.drill.numbers import Numbers
from cutting.operations.holes.drill.setup import DrillSetup
from tests.core.slots import form

HOLE: dict[str, Any] = {
    "operation": "drill",
    "material": "C45",
    "machine": "machining centre",
    "tool": {"drill": "carbide 5xD 8.5 K30 fine PVD", "chuck": "collet BT40 to 20"},
    "feature": {"diameter": "8.5 H9", "depth": "30 mm"},
    "settings": {"cutting_speed": "90 m/min", "feed_per_rev": "0.18 mm/rev", "coolant": "through"},
}
DEEP: dict[str, Any] = {
    **HOLE,
    "machine": "geared lathe",
    "tool": {"drill": "extra long 10 split HSS cobalt", "chuck": "sleeve 25 for 6 to 20"},
    "feature": {"diameter": "10 mm", "depth": "90 mm", "through": False},
    "settings": {"cutting_speed": "16 m/min", "feed_per_rev": "0.18 mm/rev", "coolant": "flood", "pecks": "to clear chips"},
}
PANEL = "GFRP 4 / 1.4301 1.5 x2 / EN AW-2024 6"
STACK: dict[str, Any] = {
    **HOLE,
    "material": "EN AW-2024",
    "tool": {"drill": "stack carbide 6.35 K20 fine plain", "chuck": "collet BT40 to 20"},
    "feature": {"diameter": "6.35 H12", "stack": PANEL, "circle": "500 mm", "count": 112},
    "settings": {"cutting_speed": "40 m/min", "feed_per_rev": "0.08 mm/rev", "coolant": "flood"},
}


def hole(base: dict[str, Any] = HOLE, **sections: Any) -> DrillSetup:
    """A set-up with some entries otherwise; None takes one away."""
    found: DrillSetup = read_setup(form(base, **sections))
    return found


def numbers_of(base: dict[str, Any] = HOLE, **sections: Any) -> Numbers:
    return MODEL.quickly(hole(base, **sections))


def asked(base: dict[str, Any] = HOLE, coolant: str = "through", **sections: Any) -> tuple[Any, Any]:
    """An advice request: without tool, speed and feed."""
    data = form(base, **sections)
    return read_request(
        {name: value for name, value in data.items() if name not in ("tool", "settings")} | {"settings": {"coolant": coolant}}
    )
