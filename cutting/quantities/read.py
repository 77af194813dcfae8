"""Reads quantities as people type them: `360 sfm`, `4 thou`, `1-3/8 in`, `0,25`, `12 ipm`."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass
from functools import lru_cache

from cutting.errors import AmbiguousQuantity, UnreadableQuantity
from cutting.quantities.kinds import KINDS, QuantityKind, factor
from cutting.quantities.roughness import finish_parts

_FRACTION = re.compile(r"^(?:(?P<whole>\d+)[-\s]+)?(?P<top>\d+)\s*/\s*(?P<bottom>\d+)(?=$|[\s\"″a-zµμ])", re.IGNORECASE)
# a blank groups thousands only before exactly three digits, so that `800 1/min` stays 800
_NUMBER = re.compile(r"^[+-]?(?:\d{1,3}(?:[ \u202f]\d{3})+(?!\d)(?:[.,]\d+)?|\d[\d.,]*\d|\d|[.,]\d+)(?:e[+-]?\d+)?", re.IGNORECASE)
_GROUPED = re.compile(r"^[+-]?[1-9]\d{0,2}(?P<mark>[.,])\d{3}$")
# 12:22 min, 3:05 h, 3:05:10 h
_CLOCK = re.compile(r"^(?P<large>\d+):(?P<small>[0-5]\d)(?::(?P<least>[0-5]\d))?\s*(?P<unit>min|h)$", re.IGNORECASE)
_SYSTEM_UNITS = {"metric": "metric", "mm": "metric", "inch": "inch", "in": "inch"}


@dataclass(frozen=True)
class Quantity:
    """A value in the internal unit of its kind, with the text it was entered as."""

    value: float
    kind: str
    entered: str


def read_quantity(text: str | float, *kinds: str, system: str = "metric", field: str = "value") -> Quantity:
    """Read one quantity.

    Parameters: `text` what was typed, or a bare number; `kinds` the kinds accepted, the first is taken
    for a bare number; `system` ("metric" or "inch") the unit of a bare number; `field` for messages.
    Returns the value in the internal unit of the kind (mm, mm/rev, m/min, N …).
    Raises `UnreadableQuantity` (names the unit wanted and given) or `AmbiguousQuantity` (`1,500`).

    >>> round(read_quantity("360 sfm", "cutting_speed").value, 2)
    109.73
    >>> read_quantity("1-3/8 in", "length").value
    34.925
    >>> read_quantity("0,25", "feed_per_rev").value
    0.25
    """
    bare = isinstance(text, (int, float)) and not isinstance(text, bool)
    return _read(float(text) if bare else str(text), kinds, system, field)


@lru_cache(maxsize=1 << 13)  # a job's words are read again at every nudge
def _read(text: str | float, kinds: tuple[str, ...], system: str, field: str) -> Quantity:
    system, share = _SYSTEM_UNITS[system], 1.0
    if isinstance(text, float):
        number, rest, entered = text, "", f"{text:g}"
    else:
        entered = text.strip()
        if (clock := _CLOCK.match(entered)) and any(name in ("duration", "life") for name in kinds):
            entered = f"{int(clock['large']) + int(clock['small']) / 60 + int(clock['least'] or 0) / 3600:.6f} {clock['unit']}"
        said = entered
        if kinds[0] == "roughness":
            said, share = finish_parts(entered, field)
        number, rest = _split_number(said.removeprefix("Ø").removeprefix("ø").strip(), field, kinds[0], system)
    if not math.isfinite(number):
        raise UnreadableQuantity(field, f"'{entered}' is not a finite number.")
    word = rest.strip().lower().replace(" ", "")
    if not word:
        kind = KINDS[kinds[0]]
        unit = kind.unit if system == "metric" else kind.inch_unit
        # a class N6 is one whatever the system
        bare = kind.unit if share == 1.0 and entered[:1] in "Nn" else unit
        return Quantity(share * number * factor(bare, kind.unit), kind.name, entered)
    for name in kinds:
        kind = KINDS[name]
        if word in kind.words:
            return Quantity(share * number * factor(kind.words[word], kind.unit), name, entered)
    if not any(KINDS[name].words for name in kinds):
        raise UnreadableQuantity(field, f"'{entered}' is not a number alone.")
    raise UnreadableQuantity(field, f"'{rest.strip()}' is not a unit of {_says(kinds)}. Use {_units(kinds)}.")


def _split_number(text: str, field: str, kind: str, system: str) -> tuple[float, str]:
    fraction = _FRACTION.match(text)
    if fraction:
        bottom = int(fraction["bottom"])
        if bottom == 0:
            raise UnreadableQuantity(field, f"'{text}' divides by nothing.")
        return int(fraction["whole"] or 0) + int(fraction["top"]) / bottom, text[fraction.end() :]
    found = _NUMBER.match(text)
    if not found:
        unit = KINDS[kind]
        example = "0.25" if kind == "feed_per_rev" else "10"
        raise UnreadableQuantity(field, f"'{text}' is not a number. Write for example {example} {unit.metric}.".rstrip())
    return _decimal(found.group(), field, KINDS[kind], system), text[found.end() :]


def _decimal(digits: str, field: str, kind: QuantityKind, system: str) -> float:
    digits = digits.replace("\u202f", " ").strip()
    if " " in digits:
        if not re.fullmatch(r"[+-]?\d{1,3}(?: \d{3})+(?:[.,]\d+)?", digits):
            raise UnreadableQuantity(field, f"'{digits}' is two numbers; enter one.")
        digits = digits.replace(" ", "")
    marks = [mark for mark in digits if mark in ".,"]
    if len(set(marks)) == 2:  # 1,250.5 or 1.250,5: the last mark is the decimal one
        decimal = marks[-1]
        if marks.count(decimal) > 1:
            raise UnreadableQuantity(field, f"'{digits}' is not a number.")
        digits = digits.replace("," if decimal == "." else ".", "")
        return float(digits.replace(",", "."))
    grouped = _GROUPED.match(digits)
    if grouped and grouped["mark"] == ",":
        unit = kind.metric if system == "metric" else kind.inch
        small, large = digits.replace(",", "."), digits.replace(",", "")
        meant = f"{small} or {large} {unit}".strip()
        raise AmbiguousQuantity(field, f"'{digits}' can be {meant}; write the one you mean.", None, (small, large))
    if len(marks) > 1:
        raise UnreadableQuantity(field, f"'{digits}' is not a number.")
    return float(digits.replace(",", "."))


def _says(kinds: tuple[str, ...]) -> str:
    return " or ".join(name.replace("_", " ") for name in kinds)


def _units(kinds: tuple[str, ...]) -> str:
    return " or ".join(f"{KINDS[name].metric}, {KINDS[name].inch}" for name in kinds)
