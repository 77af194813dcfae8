"""Drill sizes of inch practice by number and letter: read where a diameter is typed, shown beside it."""

from __future__ import annotations

import re
from functools import cache

from cutting.tables import read_table

INCH = 25.4
SAME = 0.002  # mm by which a diameter may differ and still carry the name
_NUMBER = re.compile(r"^(?:#|no\.?|number|drill no\.?)\s*(\d{1,2})$", re.IGNORECASE)
_LETTER = re.compile(r"^(?:letter|drill)\s*([A-Z])$", re.IGNORECASE)


@cache
def gauge_sizes() -> dict[str, float]:
    """Diameters [mm] of the numbers and letters."""
    return {row["name"]: round(row.number("inches") * INCH, 4) for row in read_table("quantities/drill_gauges.csv")}


def read_gauge(text: str) -> float | None:
    """The diameter [mm] of a gauge as people write it: `#7`, `no 7`, `letter F`, `drill F`; None for anything else.

    >>> read_gauge("#7")
    5.1054
    """
    found = _NUMBER.match(text.strip()) or _LETTER.match(text.strip())
    return gauge_sizes().get(found[1].upper().lstrip("0")) if found else None


def gauge_name(diameter: float) -> str:
    """The number or letter of a diameter [mm], blank where it has none.

    >>> gauge_name(6.528)
    'letter F'
    """
    found = next((name for name, size in gauge_sizes().items() if abs(size - diameter) <= SAME), "")
    return f"no {found}" if found.isdigit() else f"letter {found}" if found else ""
