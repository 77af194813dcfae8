"""Several alike beside the axis: holes and rings on a pitch circle."""

from __future__ import annotations

import math
from typing import Any

from cutting.errors import CuttingError, OutOfRange

LEAST_WEB = 0.5  # mm that neighbours leave between them (common practice)


def check_pattern(circle: float | None, count: int, diameter: float, part: float | None = None) -> None:
    """Raise `CuttingError` for `count` cuts of a diameter [mm] that do not find room on their pitch circle, or on the part [mm]."""
    if circle is None:
        if count > 1:
            raise CuttingError("feature.circle", f"{count} alike lie on a pitch circle: enter its diameter.")
        return
    if part is not None and circle + diameter > part:
        said = f"Ø{diameter:g} on Ø{circle:g} reaches beyond the part's Ø{part:g}."
        raise OutOfRange("feature.circle", said, f"at most {part - diameter:.4g} mm")
    if count > 1 and (apart := circle * math.sin(math.pi / count)) < diameter + LEAST_WEB:
        least = (diameter + LEAST_WEB) / math.sin(math.pi / count)
        said = f"{count} of Ø{diameter:g} run into each other on Ø{circle:g}: they are {apart:.4g} mm apart."
        raise OutOfRange("feature.circle", said, f"at least {least:.4g} mm")


def number_of(told: Any) -> int:
    """How many alike, of what was entered; one where that cannot be read."""
    try:
        return max(int(str(told or 1)), 1)
    except ValueError:
        return 1
