"""How hard the work is on the scale in which makers of tools state their limits."""

from __future__ import annotations

from cutting.workpiece import hardness
from cutting.workpiece.materials import Work

SOFT = 0.0  # below the scale


def rockwell(work: Work) -> float:
    """Hardness of the work in HRC, 0 below the scale. Metals that ISO 18265 is not made for count as steel of their Brinell number."""
    return hardness.rockwell(work.hardness) or SOFT
