"""Reads one JSON object of the open form: every refusal carries the path of its field."""

from __future__ import annotations

from collections.abc import Mapping
from enum import Enum
from typing import Any, TypeVar

from cutting.errors import CuttingError, UnknownName
from cutting.quantities import Asked, read_asked, read_quantity

Choice = TypeVar("Choice", bound=Enum)
MOST_IN_LIST = 60


class Reader:
    """Reads one JSON object; every refusal carries the path of the field."""

    def __init__(self, data: Mapping[str, Any], path: str, system: str, allowed: tuple[str, ...]) -> None:
        if not isinstance(data, Mapping):
            raise CuttingError(path, "must be an object { … }.")
        for key in data:
            if key not in allowed:
                raise UnknownName(self._join(path, str(key)), f"no such field; there are {', '.join(allowed)}.")
        self.data, self.path, self.system = data, path, system

    @staticmethod
    def _join(path: str, name: str) -> str:
        return f"{path}.{name}" if path else name

    def field(self, name: str) -> str:
        return self._join(self.path, name)

    def has(self, name: str) -> bool:
        return self.data.get(name) is not None

    def need(self, name: str) -> Any:
        if not self.has(name):
            raise CuttingError(self.field(name), "is missing.")
        return self.data[name]

    def quantity(self, name: str, *kinds: str) -> float:
        return self.quantity_of(self.need(name), name, *kinds)

    def quantity_of(self, given: Any, name: str, *kinds: str) -> float:
        return read_quantity(typed(given, self.field(name)), *kinds, system=self.system, field=self.field(name)).value

    def quantities(self, name: str, *kinds: str) -> tuple[float, ...]:
        """A list, or text parted by semicolons."""
        given = self.data.get(name) or ()
        words = [word.strip() for word in given.split(";") if word.strip()] if isinstance(given, str) else given
        if not isinstance(words, (list, tuple)) or len(words) > MOST_IN_LIST:
            raise CuttingError(self.field(name), f"must be at most {MOST_IN_LIST} values, separated by semicolons.")
        return tuple(self.quantity_of(word, name, *kinds) for word in words)

    def points(self, name: str) -> tuple[tuple[float, float], ...]:
        """Points of place and diameter: pairs, or text such as `20:35; 60:40`."""
        given = self.data.get(name) or ()
        words = [word.split(":") for word in given.split(";") if word.strip()] if isinstance(given, str) else given
        if not isinstance(words, (list, tuple)) or len(words) > MOST_IN_LIST or any(len(w) != 2 for w in words):
            raise CuttingError(self.field(name), "points such as 20:35; 60:40 are wanted, place and diameter.", "20:35; 60:40")
        return tuple((self.quantity_of(a, name, "length"), self.quantity_of(b, name, "length")) for a, b in words)

    def choice(self, name: str, options: type[Choice], default: Choice) -> Choice:
        if not self.has(name):
            return default
        text = str(self.data[name]).strip().lower().replace("_", " ")
        for option in options:
            if option.value == text:
                return option
        labels = ", ".join(str(o.value) for o in options)
        raise CuttingError(self.field(name), f"'{self.data[name]}' is none of: {labels}.", labels)

    def flag(self, name: str, default: bool = False) -> bool:
        value = self.data.get(name, default)
        if not isinstance(value, bool):
            raise CuttingError(self.field(name), "must be true or false.")
        return value

    def whole(self, name: str, default: int, low: int, high: int) -> int:
        value = self.data.get(name, default)
        return int(read_asked(value, Asked(name.replace("_", " "), "count", low, high, whole=True), field=self.field(name)))


def read_points(given: Any, field: str, system: str = "mm") -> tuple[tuple[float, float], ...]:
    """Points of place and diameter [mm] from text such as `20:35; 60:40` or pairs. Raises `CuttingError`."""
    return Reader({field: given}, "", system, (field,)).points(field)


def typed(value: Any, field: str) -> str | float:
    """Text or a number as it was given. Raises `CuttingError` for anything else."""
    if isinstance(value, bool) or not isinstance(value, (str, int, float)):
        raise CuttingError(field, "must be a number, or text with a unit.")
    return value


def number(value: Any, field: str) -> float:
    """A plain number. Raises `CuttingError`."""
    return read_quantity(typed(value, field), "number", field=field).value
