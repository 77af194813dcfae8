"""How hard the work is on the scale in which makers of tools state their limits."""

from __future__ import annotations

from functools import lru_cache

from cutting.errors import CuttingError
from cutting.workpiece.hardness import convert
from cutting.workpiece.materials import Work

SOFT = 0.0  # below the scale


@lru_cache(maxsize=512)
def rockwell(work: Work) -> float:
    """Hardness of the work in HRC, 0 below the scale. Metals that ISO 18265 is not made for count as steel of their Brinell number."""
    for scale in ("HB", "HV"):  # hardened metals are kept on the Vickers scale above the ball's limit
        try:
            return convert(work.hardness, scale).values.get("HRC", SOFT)
        except CuttingError:
            continue
    return SOFT
