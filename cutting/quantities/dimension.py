"""Dimensions as a drawing gives them: `Ø62 H7`, `49 h9`, `25 ±0.02`, `30 +0.021/0`."""

from __future__ import annotations

import re
from dataclasses import dataclass

from cutting.errors import CuttingError, UnreadableQuantity
from cutting.quantities.drill_gauges import read_gauge
from cutting.quantities.read import read_quantity
from cutting.workpiece.fits import deviations

_CLASS = re.compile(r"^(?P<size>.*?)\s*(?P<letter>[A-Za-z]{1,2})\s?(?P<grade>\d{1,2})$")
_PLUS_MINUS = re.compile(r"^(?P<size>.+?)\s*(?:±|\+/-|\+-)\s*(?P<half>[\d.,]+)\s*(?P<unit>[a-zµ\"]*)$", re.IGNORECASE)
_TWO_SIDED = re.compile(r"^(?P<size>.+?)\s+(?P<upper>[+-]?[\d.,]+)\s*/\s*(?P<lower>[+-]?[\d.,]+)\s*(?P<unit>[a-zµ\"]*)$", re.IGNORECASE)


@dataclass(frozen=True)
class Dimension:
    """A size with its limits, mm. Deviations are None where the drawing gives no tolerance."""

    nominal: float
    upper_deviation: float | None = None
    lower_deviation: float | None = None
    entered: str = ""

    @property
    def tolerance(self) -> float | None:
        if self.upper_deviation is None or self.lower_deviation is None:
            return None
        return self.upper_deviation - self.lower_deviation

    @property
    def target(self) -> float:
        """The size to aim at: the middle of the limits."""
        if self.upper_deviation is None or self.lower_deviation is None:
            return self.nominal
        return self.nominal + (self.upper_deviation + self.lower_deviation) / 2


def read_dimension(text: str | float, system: str = "metric", field: str = "diameter") -> Dimension:
    """Read a dimension with or without tolerance; see the module for the forms.

    Returns sizes in mm. Raises `UnreadableQuantity`, `AmbiguousQuantity`, `OutOfRange` or `UnknownName`.

    >>> read_dimension("Ø62 H7").upper_deviation
    0.03
    """
    if isinstance(text, (int, float)):
        return Dimension(read_quantity(text, "length", system=system, field=field).value, entered=f"{text:g}")
    entered = text.strip()
    body = entered.removeprefix("Ø").removeprefix("ø").strip()
    if (gauge := read_gauge(body)) is not None:
        return Dimension(gauge, entered=entered)
    if found := _PLUS_MINUS.match(body):
        unit = found["unit"] or _unit_of(found["size"])
        size, half = (_length(found[name], unit, system, field) for name in ("size", "half"))
        return Dimension(size, half, -half, entered)
    if found := _TWO_SIDED.match(body):
        unit = found["unit"] or _unit_of(found["size"])
        size, upper, lower = (_length(found[name], unit, system, field) for name in ("size", "upper", "lower"))
        if upper < lower:
            raise UnreadableQuantity(field, f"in '{entered}' the upper deviation is below the lower one.")
        return Dimension(size, upper, lower, entered)
    found = _CLASS.match(body)
    if found and found["size"] and found["letter"].lower() not in ("mm", "in", "cm"):
        size = _length(found["size"], "", system, field)
        try:
            upper, lower = deviations(size, found["letter"], int(found["grade"]))
        except CuttingError as error:
            error.field = field
            raise
        return Dimension(size, upper, lower, entered)
    return Dimension(_length(body, "", system, field), entered=entered)


def spelled_out(text: str, system: str, field: str = "diameter") -> str:
    """A dimension with its unit written out where it was typed in inches without one, so that it means the same anywhere.

    Raises what `read_dimension` raises.

    >>> spelled_out("1.5 h9", "inch"), spelled_out("1.5 +0/-0.002", "inch"), spelled_out("49 mm h9", "inch")
    ('1.5 in h9', '1.5 in +0/-0.002', '49 mm h9')
    """
    read_dimension(text, system, field)
    said = text.strip()
    if system != "inch":
        return said
    body = said.removeprefix("Ø").removeprefix("ø").strip()
    if read_gauge(body) is not None:
        return said
    found = _PLUS_MINUS.match(body) or _TWO_SIDED.match(body) or _CLASS.match(body)
    size = found["size"].strip() if found else body
    if _unit_of(size) or (found and found.groupdict().get("unit")):
        return said
    return f"{said[: len(said) - len(body)]}{size} in {body[len(size) :].strip()}".strip()


def deviations_of(said: str) -> str:
    """What stands behind the size in a dimension as it was typed: its class, or its deviations; blank where there is none.

    >>> deviations_of("49 mm h9"), deviations_of("1.5"), deviations_of("25 ±0.02")
    ('h9', '', '±0.02')
    """
    body = said.strip().removeprefix("Ø").removeprefix("ø").strip()
    found = _PLUS_MINUS.match(body) or _TWO_SIDED.match(body) or _CLASS.match(body)
    if not found or found.groupdict().get("letter", "").lower() in ("mm", "in", "cm"):
        return ""
    return body[len(found["size"]) :].strip()


def _unit_of(size: str) -> str:
    found = re.search(r"([a-zµ]+|[\"″])\s*$", size.strip(), re.IGNORECASE)
    return found.group(1) if found else ""


def _length(text: str, unit: str, system: str, field: str) -> float:
    has_own = bool(re.search(r"[a-zµ\"]", text, re.IGNORECASE))
    return read_quantity(text if has_own else f"{text} {unit}".strip(), "length", system=system, field=field).value
