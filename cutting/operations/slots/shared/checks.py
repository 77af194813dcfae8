"""What every narrow cut checks before it computes: the machine, its coolant, the tool, and the settings that all kinds share."""

from __future__ import annotations

from typing import Any

from cutting.errors import CuttingError, require_between
from cutting.quantities.kinds import KINDS
from cutting.tooling.blades import Blade
from cutting.tooling.groove_inserts import GrooveInsert

SPEEDS, FEEDS = (0.5, 3000.0), (0.005, 1.0)  # m/min, mm per revolution or tooth
OPTIONAL = {
    "dwell": (0.0, 20.0, "revolutions"),
    "overhang": (3.0, 400.0, "mm"),
    "spindle_clamp": (10.0, 30_000.0, "1/min"),
    "centre_height": (-2.0, 2.0, "mm over the axis"),
}


def check_tool(blade: Blade, insert: GrooveInsert, wanted: type[Blade]) -> None:
    """Raise `CuttingError` for a blade that works elsewhere, or that does not carry the insert."""
    if not isinstance(blade, wanted):
        raise CuttingError("tool.blade", f"{blade.name} is for {blade.WORK} work, this wants a tool for {wanted.WORK} work.")
    if not blade.takes(insert):
        raise CuttingError(
            "tool.blade", f"{blade.name} is made for {blade.width:g} mm and does not carry {insert.name}, {insert.width:g} mm wide."
        )


def check_settings(settings: Any, feed: str = "feed_per_rev") -> None:
    """Raise `OutOfRange` for the first of speed, feed, dwell, overhang, clamp and height that cannot be."""
    require_between("settings.cutting_speed", settings.cutting_speed, *SPEEDS, "m/min")
    require_between(f"settings.{feed}", getattr(settings, feed), *FEEDS, KINDS[feed].metric)
    for name, (low, high, unit) in OPTIONAL.items():
        if (value := getattr(settings, name, None)) is not None:
            require_between(f"settings.{name}", value, low, high, unit)
