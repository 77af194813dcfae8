"""Sound set-ups of the narrow kinds in their JSON form, to vary in tests."""

from __future__ import annotations

import copy
from typing import Any

from cutting.doors.json_form import read_setup
from cutting.operations.frame.outcome import Outcome

CUT_OFF: dict[str, Any] = {
    "operation": "cut off",
    "material": "11SMn30",
    "machine": "mill-turn",
    "tool": {"insert": "edge 3 middle middle positive P30 CVD", "blade": "reinforced blade 3 reach 21"},
    "feature": {"diameter": "40 mm", "part_length": "44 mm", "distance_from_chuck": "8 mm", "flatness": "40 µm", "pip": "1.5 mm"},
    "settings": {"cutting_speed": "140 m/min", "feed_per_rev": "0.12 mm/rev", "spindle_clamp": "4000", "coolant": "high"},
    "holding": {"part_catcher": True},
    "bar": {"length": "3 m", "price": 40, "yearly": 32000},
    "batch": {"pieces": 8000},
}
GROOVE: dict[str, Any] = {
    "operation": "groove",
    "material": "EN-GJS-500-7",
    "machine": "two-axis lathe",
    "tool": {"insert": "edge 4 turn middle positive K15 CVD", "blade": "screw holder 4 reach 18"},
    "feature": {
        "where": "outside", "diameter": "110 mm", "floor": "98 h11", "width": "24 +0.2/0", "distance_from_chuck": "26 mm",
        "corner_radius": "0.8 mm", "roughness": "3.2 µm",
    },
    "settings": {"cutting_speed": "125 m/min", "feed_per_rev": "0.12 mm/rev", "way": "plunge and turn", "coolant": "jet"},
    "holding": {"free_length": "70 mm", "grip_diameter": "116 mm"},
    "batch": {"pieces": 120},
}  # fmt: skip
RING: dict[str, Any] = {
    **GROOVE,
    "material": "C45",
    "tool": {"insert": "ring three 1.65 light positive M15 PVD", "blade": "screw holder tri 16"},
    "feature": {"standard": "DIN 471", "diameter": "35 mm", "distance_from_chuck": "40 mm"},
    "settings": {"cutting_speed": "120 m/min", "feed_per_rev": "0.06 mm/rev", "coolant": "flood"},
    "holding": {"free_length": "60 mm", "grip_diameter": "40 mm"},
}
# the same in a bore: DIN 472, with a bar
BORE_RING: dict[str, Any] = {
    **RING,
    "tool": {"insert": "ring three 2.2 light positive M15 PVD", "blade": "inside bar 25 tri 16"},
    "feature": {"where": "inside", "standard": "DIN 472", "diameter": "62 mm", "distance_from_chuck": "40 mm"},
    "holding": {"free_length": "60 mm", "grip_diameter": "90 mm", "bore": "62 mm"},
}
FACE: dict[str, Any] = {
    "operation": "face groove",
    "material": "X2CrNiMoN22-5-3",
    "machine": "two-axis lathe",
    "tool": {"insert": "edge 4 turn light positive M15 PVD", "blade": "face blade 4 dia 55 to 90"},
    "feature": {"outer_diameter": "80 H11", "width": "6 +0.1/0", "depth": "8 mm", "corner_radius": "0.5 mm"},
    "settings": {"cutting_speed": "45 m/min", "feed_per_rev": "0.09 mm/rev", "coolant": "jet"},
    "holding": {"free_length": "42 mm", "grip_diameter": "130 mm"},
    "batch": {"pieces": 40},
}
TREPAN: dict[str, Any] = {
    "operation": "trepan",
    "material": "EN AW-5083",
    "machine": "machining centre",
    "tool": {"insert": "edge 6 single ground N10 plain", "blade": "trepanning head one 80 to 130"},
    "feature": {"keeps": "the disc", "diameter": "100 mm", "depth": "30 mm", "web": "0.5 mm", "core_price": 4},
    "settings": {"cutting_speed": "320 m/min", "feed_per_tooth": "0.15 mm/z", "coolant": "through"},
    "batch": {"pieces": 40},
}
TWO_CARTRIDGES = {"tool": {**TREPAN["tool"], "blade": "trepanning head two 80 to 130"}}


def form(base: dict[str, Any], **changes: Any) -> dict[str, Any]:
    """A base with changes merged into its sections."""
    made = copy.deepcopy(base)
    for key, value in changes.items():
        made[key] = {**made.get(key, {}), **value} if isinstance(value, dict) else value
    return made


def build(base: dict[str, Any], **changes: Any) -> Any:
    return read_setup(form(base, **changes))


def used(outcome: Outcome, name: str) -> float:
    return next(limit.utilisation for limit in outcome.limits if limit.name == name)


def alarms(outcome: Outcome) -> set[str]:
    return {limit.name for limit in outcome.limits if limit.broken} | {warning.name for warning in outcome.warnings}
