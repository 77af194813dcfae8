"""The fields that a kind of operation asks for, as data: forms, units and the JSON door are drawn from these lists."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any

from cutting.errors import CuttingError, require_between
from cutting.quantities.kinds import KINDS

# kinds of a field beside the kinds of quantity
WORDS = ("choice", "flag", "text", "dimension", "points", "lengths", "whole", "number", "stack", "bores", "thread")


@dataclass(frozen=True)
class Field:
    """One input: its name in the form, the words on the screen, and what it holds.

    `kind` is a kind of quantity or one of `WORDS`; `also` further kinds that may be typed (a spindle speed for a cutting
    speed); `pair` the kinds of the two numbers of a point. `factor` turns the quantity's internal unit into the core's.
    What is not `asked` is read where a form carries it. Of a feature, what is not `drawn` belongs to the cut and not to the
    drawing: what it starts from, what it leaves for later. `bounds` are what it may be in the core's unit, `unit` the words for
    that unit; what depends on machine or on other fields is checked where it is known. A `place` is told from the jaws as the part is
    first held; it belongs to the part and goes with it when that stands out further.
    """

    name: str
    label: str
    kind: str = "length"
    example: str = ""
    options: tuple[str, ...] = ()
    also: tuple[str, ...] = ()
    pair: tuple[str, str] = ("length", "length")
    required: bool = False
    default: Any = None
    factor: float = 1.0
    asked: bool = True
    drawn: bool = True
    bounds: tuple[float, float] | None = None
    unit: str = ""
    place: bool = False

    @property
    def physical(self) -> tuple[float, float] | None:
        """What it may be: its own bounds, or those of its kind; None where it holds no number."""
        return self.bounds or PHYSICS.get(self.kind)

    @property
    def kinds(self) -> tuple[str, ...]:
        return (self.kind, *self.also)


def check_bounds(fields: Iterable[Field], section: str, values: Any) -> None:
    """Raise `OutOfRange` for the first value of a section that is outside its field's own bounds; what is not given is not checked."""
    for one in fields:
        if one.bounds and (value := getattr(values, one.name, None)) is not None:
            unit = one.unit or (KINDS[one.kind].metric if one.kind in KINDS else "")
            require_between(f"{section}.{one.name}", value, *one.bounds, unit)


@dataclass(frozen=True)
class Nudged:
    """A setting that the arrow keys walk, with the limit whose bounds are its window.

    `read` gives the value as it stands, from set-up and outcome; `ladder` the rungs where even or geared steps do not do.
    """

    name: str
    label: str
    kind: str
    limit: str
    read: Callable[[Any, Any], float]
    ladder: Callable[[Any, str], Any] | None = None
    applies: Callable[[Any], bool] = lambda setup: True


WORKHOLDING = (
    Field("style", "workholding", "choice", options=("chuck", "chuck and centre", "between centres"), default="chuck"),
    Field("free_length", "stick-out", example="100"),
    Field("grip_diameter", "gripped on Ø", example="50"),
    Field("bore", "bore", example="0"),
    Field("centre_diameter", "centre Ø", example="12"),
    Field("steady", "steady rest at", example="none"),
    Field("guide_bush", "guide bush at the cut", "flag"),
    Field("interrupted", "interrupted cut", "flag"),
    Field("weak", "held weakly", "flag"),
    Field("grip_share", "share of the grip force", "number", "1"),
    Field("steps", "part before the cut", "points", "0:64; 70:49"),
    Field("face", "free end before the cut", example="199"),
)


# what no field goes beyond, whatever machine and part, in the core's units: mm, µm Ra
PHYSICS: Mapping[str, tuple[float, float]] = {
    "length": (0.0, 20_000.0), "small_length": (0.0, 100.0), "dimension": (0.0, 20_000.0), "roughness": (0.0, 1000.0),
    "number": (0.0, 1e6), "lengths": (0.001, 20_000.0), "points": (-20_000.0, 20_000.0),
}  # fmt: skip


# where a hole or a ring lies beside the axis
PATTERN = (
    Field("circle", "on a pitch circle Ø", example="on the axis", bounds=(1.0, 5000.0)),
    Field("count", "how many alike", "whole", "1", default=1, bounds=(1, 400)),
)


@dataclass(frozen=True)
class Base:
    """What every kind of operation is given beside its own fields."""

    work: Any
    machine: Any
    house: Any
    batch: Any
    goal: Any
    skin: Any
    learned: Any


@dataclass(frozen=True)
class Fields:
    """What a kind of operation asks for, section by section."""

    feature: tuple[Field, ...]
    settings: tuple[Field, ...] = ()
    holding: tuple[Field, ...] = ()
    bar: tuple[Field, ...] = ()
    title: Callable[[dict[str, Any]], str] = field(default=lambda feature: "", compare=False)
    shown: tuple[str, ...] = ()  # the entries of the feature that tell it from others, in the order of a drawing's words
    speed_diameter: str = "diameter"  # the feature's diameter at which the cutting speed is stated
    speed_role: str = ""  # the part of the tool at whose diameter it is stated instead

    @property
    def drawn(self) -> frozenset[str]:
        """The fields of the feature that the drawing says."""
        return frozenset(one.name for one in self.feature if one.drawn)

    @property
    def told(self) -> frozenset[str]:
        """All fields of the feature."""
        return frozenset(one.name for one in self.feature)

    def require(self, section: str, values: Mapping[str, Any]) -> None:
        """Raise `CuttingError` for the first field of a section that is needed and not there."""
        for one in getattr(self, section):
            if one.required and one.name not in values:
                raise CuttingError(f"{section}.{one.name}", "is missing.")

    def has(self, section: str, name: str) -> bool:
        """Whether a section asks for a field of that name."""
        return any(one.name == name for one in getattr(self, section))

    def named(self, name: str) -> Field | None:
        """The field of that name in any section."""
        every = (*self.feature, *self.settings, *self.holding, *self.bar)
        return next((one for one in every if one.name == name), None)
