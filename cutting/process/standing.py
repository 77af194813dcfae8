"""What a new feature starts from: the part as it stands in front of it, so that nobody types what the drawing already says."""

from __future__ import annotations

from collections.abc import Mapping
from contextlib import suppress
from dataclasses import dataclass
from typing import Any

from cutting.errors import CuttingError
from cutting.operations.registry import kind_of
from cutting.quantities import read_dimension, read_quantity
from cutting.workpiece.solid import Solid


def taken_from_part(kind: str, feature: Mapping[str, Any], part: Solid, system: str = "mm") -> dict[str, float | bool]:
    """The values [mm] of a feature that are not given and that the part as it stands settles, by field name.

    Turning starts at the free face where it is not said where it ends, on the diameter that stands there, and leaves a
    square wall where one is left; facing takes the whole face; grooves and cut-off are cut into the diameter at their place.
    Entries that cannot be read settle nothing here: their own field refuses them.
    """
    given = Entered({name: value for name, value in feature.items() if value not in (None, "")}, system)
    return {name: value for name, value in kind_of(kind).settles(given, part).items() if not given.has(name)}


@dataclass(frozen=True)
class Entered:
    """The entries of a feature, read as they are asked for."""

    values: Mapping[str, Any]
    system: str

    def has(self, name: str) -> bool:
        return name in self.values

    def text(self, name: str) -> str:
        return str(self.values.get(name, ""))

    def length(self, name: str) -> float | None:
        with suppress(CuttingError):
            if name in self.values:
                return read_quantity(self.values[name], "length", system=self.system, field=name).value
        return None

    def dimension(self, name: str) -> float | None:
        with suppress(CuttingError):
            if name in self.values:
                return read_dimension(self.values[name], self.system, name).nominal
        return None
