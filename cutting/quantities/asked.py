"""A number that a person is asked for: its words, its kind and its bounds, and the one way in which it is read."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from cutting.errors import AmbiguousQuantity, CuttingError, OutOfRange, UnreadableQuantity
from cutting.quantities.kinds import KINDS
from cutting.quantities.read import read_quantity

NEAR = 2.0  # a reading within this factor of a known size is the one that was meant


@dataclass(frozen=True)
class Asked:
    """One number of a form. `kind` is a kind of quantity, `unit` its word where the kind has none (h, min, pieces).

    `low` and `high` bound it in the kind's internal unit; `whole` wants a whole number; `above` keeps the lower bound itself out.
    """

    label: str
    kind: str = "number"
    low: float | None = None
    high: float | None = None
    unit: str = ""
    whole: bool = False
    above: bool = False

    @property
    def bound(self) -> str:
        """The bounds in words, with their unit."""
        unit = self.unit or KINDS[self.kind].metric
        sign = "above" if self.above else "at least"
        low, high = (None if edge is None else f"{edge:,.10g}".replace(",", "\u202f") for edge in (self.low, self.high))
        if low is not None and high is not None:
            return f"{'above ' if self.above else ''}{low} to {high} {unit}".strip()
        return f"{sign} {low} {unit}".strip() if low is not None else f"at most {high} {unit}".strip() if high is not None else ""

    def holds(self, value: float) -> bool:
        """Whether a value [internal unit] is one that may stand here."""
        low_kept = self.low is None or (value > self.low if self.above else value >= self.low)
        return low_kept and (self.high is None or value <= self.high) and not (self.whole and value != int(value))


def read_asked(text: Any, asked: Asked, system: str = "metric", field: str = "value", near: float | None = None) -> float:
    """A number as it was typed, in the internal unit of its kind.

    `near` is a size [internal unit] that the entry is known to lie about, such as the commanded one of a reading: then
    `49,003` is 49.003. Where `1,500` stays ambiguous, the readings that may stand here are offered.
    Raises `CuttingError`: unreadable, ambiguous, not whole, or outside its bounds; nothing is cut or guessed.

    >>> read_asked("1,50", Asked("target", "money", 0))
    1.5
    """
    if text is None or isinstance(text, bool) or not isinstance(text, (str, int, float)):
        raise UnreadableQuantity(field, "enter a number.")
    if isinstance(text, str) and not text.strip():
        raise UnreadableQuantity(field, "is empty; Enter a number.")
    try:
        value = read_quantity(_without_unit(text, asked), asked.kind, system=system, field=field).value
    except AmbiguousQuantity as error:
        value = _settled(error, asked, system, field, near, str(text))
    if asked.whole and value != int(value):
        raise UnreadableQuantity(field, f"'{text}' is not a whole number.", "a whole number")
    if not asked.holds(value):
        raise OutOfRange(field, f"'{text}' is outside {asked.bound}.", asked.bound)
    return value


def _without_unit(text: str | float, asked: Asked) -> str | float:
    """The text without the field's own word for its unit, where the kind of quantity knows none."""
    if isinstance(text, str) and asked.unit and not KINDS[asked.kind].words:
        return text.strip().removesuffix(asked.unit).strip()
    return text


def _settled(error: AmbiguousQuantity, asked: Asked, system: str, field: str, near: float | None, text: str) -> float:
    """The one reading that lies near a known size; else the error again, with the readings that may stand here."""
    rest = text.strip().removeprefix("Ø").strip()[len(error.readings[0]) :]
    values = {reading: read_quantity(reading + rest, asked.kind, system=system, field=field).value for reading in error.readings}
    if near:
        meant = [value for value in values.values() if near / NEAR <= value <= near * NEAR]
        if len(meant) == 1:
            return meant[0]
    possible = tuple(reading for reading, value in values.items() if asked.holds(value)) or error.readings
    raise AmbiguousQuantity(field, error.message, error.bound, possible) from error


def refuse_long(text: str, longest: int, field: str) -> str:
    """The text where it is short enough. Raises `CuttingError` that names both lengths: nothing is cut without a word."""
    if len(text) > longest:
        raise CuttingError(field, f"has {len(text)} characters; maximum {longest}.", f"{longest} characters")
    return text
