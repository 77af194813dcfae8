"""What every narrow cut checks before it computes: its tool, and what the settings that all kinds share may be."""

from __future__ import annotations

from cutting.errors import CuttingError
from cutting.tooling.blades import Blade
from cutting.tooling.groove_inserts import GrooveInsert

# what every narrow cut's settings may be: m/min, mm per revolution or tooth, revolutions, mm, 1/min
SPEED, FEED = (0.5, 3000.0), (0.005, 1.0)
DWELL, OVERHANG, CLAMP, HEIGHT = (0.0, 20.0), (3.0, 400.0), (10.0, 30_000.0), (-2.0, 2.0)


def check_tool(blade: Blade, insert: GrooveInsert, wanted: type[Blade]) -> None:
    """Raise `CuttingError` for a blade that works elsewhere, or that does not carry the insert."""
    if not isinstance(blade, wanted):
        raise CuttingError("tool.blade", f"{blade.name} is for {blade.WORK} work, this wants a tool for {wanted.WORK} work.")
    if not blade.takes(insert):
        raise CuttingError(
            "tool.blade", f"{blade.name} is made for {blade.width:g} mm and does not carry {insert.name}, {insert.width:g} mm wide."
        )
