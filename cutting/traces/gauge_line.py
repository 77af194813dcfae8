"""One line of an instrument with a data key: a number and its unit."""

from __future__ import annotations

import re
from dataclasses import dataclass

from cutting.errors import CuttingError, UnreadableQuantity

NUMBER = re.compile(r"^[+-]?([0-9]{1,6})([.,][0-9]{1,6})?$")
UNITS = {"mm": 1.0, "in": 25.4, '"': 25.4, "inch": 25.4, "um": 0.001, "µm": 0.001}
LONGEST = 80


@dataclass(frozen=True)
class GaugeReading:
    """A reading [mm] with the words in which it came."""

    value: float
    text: str


def read_gauge_line(line: str, unit: str = "") -> GaugeReading:
    """A reading from a line as `49.003 mm` or, of an instrument that tells no unit, `49,003`.

    `unit` is what the instrument was paired with. Raises `CuttingError` for garbage and where the line says another unit.

    >>> read_gauge_line("+1.9292 in").value == 1.9292 * 25.4
    True
    """
    text = line.strip()
    parts = text.split()
    if not text or len(text) > LONGEST or len(parts) not in (1, 2) or not NUMBER.match(parts[0]):
        raise UnreadableQuantity("reading", f"the instrument sent '{text[:30]}', which is no reading.")
    said = parts[1].lower() if len(parts) == 2 else unit
    if not said:
        raise UnreadableQuantity("reading", "the instrument tells no unit: say it where it is paired.")
    if said not in UNITS:
        raise UnreadableQuantity("reading", f"'{said}' is no unit of a length.")
    if unit and UNITS[said] != UNITS[unit]:
        right = "set it right, then take the reading again"
        raise CuttingError("reading", f"the instrument is set to {said} and was paired in {unit}: {right}.")
    return GaugeReading(float(parts[0].replace(",", ".")) * UNITS[said], text)
