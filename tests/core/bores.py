"""A sound bore in its JSON form, to vary in tests."""

from __future__ import annotations

from typing import Any

from cutting.doors.json_form import read_request, read_setup
from cutting.operations.holes.bore.evaluate import MODEL
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.setup import Setup
from tests.core.slots import form

BORE: dict[str, Any] = {
    "operation": "bore",
    "material": "C45",
    "machine": "two-axis lathe",
    "tool": {"insert": "CCMT 09T304 light positive P10 CVD", "holder": "A25T-SCLCR 09"},
    "feature": {"start_diameter": "59 mm", "end_diameter": "62 H7", "length": "60 mm"},
    "settings": {"cutting_speed": "240 m/min", "feed_per_rev": "0.1 mm/rev", "depth_of_cut": "0.8 mm", "coolant": "jet"},
    "holding": {"grip_diameter": "100 mm", "free_length": "90 mm"},
}
LONG: dict[str, Any] = {
    **BORE,
    "tool": {"insert": "CCMT 09T304 light positive P10 CVD", "holder": "D32U-SCLCR 09"},
    "feature": {"start_diameter": "59 mm", "end_diameter": "62 H9", "length": "150 mm"},
    "holding": {"grip_diameter": "100 mm", "free_length": "160 mm"},
}
HEAD: dict[str, Any] = {
    "operation": "bore",
    "material": "EN AW-6082",
    "machine": "machining centre",
    "tool": {"insert": "CCGT 09T304 ground N10 plain", "holder": "A25T-SCLCR 09"},
    "feature": {"start_diameter": "61.2 mm", "end_diameter": "62 H7", "length": "40 mm"},
    "settings": {"cutting_speed": "250 m/min", "feed_per_rev": "0.08 mm/rev", "depth_of_cut": "0.5 mm", "coolant": "through"},
}


def bore(base: dict[str, Any] = BORE, **sections: Any) -> Setup:
    """A set-up with some entries otherwise; None takes one away."""
    found: Setup = read_setup(form(base, **sections))
    return found


def cut_of(base: dict[str, Any] = BORE, **sections: Any) -> Cut:
    return MODEL.quickly(bore(base, **sections))


def asked(base: dict[str, Any] = BORE, **sections: Any) -> tuple[Any, Any]:
    """An advice request: without tool, speed, feed and depth."""
    data = form(base, **sections)
    return read_request(
        {name: value for name, value in data.items() if name not in ("tool", "settings")} | {"settings": {"coolant": "jet"}}
    )
