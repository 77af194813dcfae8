"""What people typed, read once and kept beside what it meant."""

from __future__ import annotations

import copy
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from cutting.errors import CuttingError
from cutting.quantities.dimension import Dimension


@dataclass(frozen=True)
class Values(Mapping[str, Any]):
    """Values by field name, in the core's units, each with the words in which it was entered."""

    items_read: tuple[tuple[str, Any, str], ...] = ()

    def __getitem__(self, name: str) -> Any:
        for known, value, _ in self.items_read:
            if known == name:
                return value
        raise KeyError(name)

    def __iter__(self) -> Iterator[str]:
        return (name for name, _, _ in self.items_read)

    def __len__(self) -> int:
        return len(self.items_read)

    def moved(self, places: Iterable[str], by: float) -> Values:
        """The same with places, and the places of points, so much further out [mm]."""
        if by == 0.0:
            return self
        names = set(places)

        def out(value: Any) -> Any:
            return tuple((place + by, size) for place, size in value) if isinstance(value, tuple) else value + by

        return Values(tuple((name, out(value) if name in names else value, entered) for name, value, entered in self.items_read))

    def over(self, more: Values) -> Values:
        """The same with others in place of those of their names, and what else they are."""
        return Values((*(one for one in self.items_read if one[0] not in more), *more.items_read))

    # what settles a feature asks for entries one by one: a value that it cannot use is none

    def has(self, name: str) -> bool:
        """Whether it was given."""
        return name in self

    def text(self, name: str) -> str:
        """As it was entered, blank where it was not."""
        return next((entered for known, _, entered in self.items_read if known == name), "")

    def length(self, name: str) -> float | None:
        """A length [mm]."""
        value = self.get(name)
        return float(value) if isinstance(value, (int, float)) and not isinstance(value, bool) else None

    def dimension(self, name: str) -> float | None:
        """The nominal size of a dimension [mm]."""
        value = self.get(name)
        return value.nominal if isinstance(value, Dimension) else self.length(name)


Read = Values | CuttingError  # a section that was read, or why it cannot be


def given(section: Read) -> Values:
    """The values of a section. Raises the `CuttingError` with which it could not be read."""
    if isinstance(section, CuttingError):
        raise copy.copy(section)  # whoever passes it on may say where it came from
    return section


def values_of(read: Mapping[str, Any], entered: Mapping[str, Any]) -> Values:
    """Values that were read, with the entries they were read from."""
    return Values(tuple((name, _frozen(value), str(entered.get(name, ""))) for name, value in read.items()))


def _frozen(value: Any) -> Any:
    return tuple(map(_frozen, value)) if isinstance(value, list) else value


def settled_as_read(name: str, value: float | bool, dimensions: Iterable[str]) -> Any:
    """What the part settles [mm], as its field holds it."""
    return Dimension(float(value), entered=f"{value:.10g}") if name in dimensions else value
