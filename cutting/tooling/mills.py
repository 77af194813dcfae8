"""End mills for holes: their ends, teeth and necks, and how far down each may go at once."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from types import MappingProxyType
from typing import Any

from cutting.errors import CuttingError
from cutting.tables import read_table
from cutting.tooling.drills import MODULUS, REGRIND_SHARE
from cutting.tooling.items import Grade

MILL_KINDS = ("end mill",)


@dataclass(frozen=True)
class MillType:
    """What end mills of one tool material usually do; all common practice.

    Speeds are shares of the turning row, in the middle of which it lasts `life` [min] of cutting; `edge_radius` µm; `bends_at` is the
    bending stress [N/mm²] that its fluted body stands for long.
    """

    tool_class: str
    speed_low: float
    speed_high: float
    life: float
    edge_radius: float
    bends_at: float


@cache
def mill_types() -> MappingProxyType[str, MillType]:
    """The types by tool material."""
    names = [name for name in MillType.__dataclass_fields__ if name != "tool_class"]
    rows = read_table("tooling/mill_types.csv")
    return MappingProxyType({row["tool_class"]: MillType(row["tool_class"], **{name: row.number(name) for name in names}) for row in rows})


@dataclass(frozen=True)
class EndMill:
    """An end mill; lengths mm, angles °, money of one piece.

    `reach` is the deepest hole that it mills, `cutting_length` what its teeth cover, `neck` the diameter behind them; `ramp` the
    steepest angle at which it may go down, `plunge` how deep its end goes straight down, 0 where it does not cut to the middle.
    `helix` and `second_helix` are those of neighbouring teeth: two that differ calm it.
    """

    name: str
    designation: str
    type: MillType
    grade: Grade
    diameter: float
    flutes: int
    corner: float
    cutting_length: float
    reach: float
    neck: float
    helix: float
    second_helix: float
    ramp: float
    plunge: float
    price: float
    regrinds: int
    regrind_price: float
    shank: float
    through: bool
    taper: str = ""
    source: str = ""

    geometry = None
    edges = 1

    @property
    def modulus(self) -> float:
        return MODULUS[self.grade.tool_class]

    @property
    def uneven(self) -> bool:
        """Whether its teeth differ in helix, so that they do not strike in one beat."""
        return self.second_helix > 0 and self.second_helix != self.helix

    @property
    def life_price(self) -> float:
        """Money of one life, with its regrinds."""
        return (self.price + self.regrinds * self.regrind_price) / (self.regrinds + 1)


def mill_of(
    name: str, designation: str, grade: Grade | None, coolant: str, price: float, given: Mapping[str, Any], source: str = ""
) -> EndMill:
    """An end mill from its ISO 13399 properties [mm, °]; `price` of one. Raises `CuttingError` for another tool material."""
    if grade is None or grade.tool_class not in mill_types():
        raise CuttingError("grade", f"an end mill is not made of {grade.tool_class if grade else 'nothing'}.")

    def number(symbol: str, otherwise: float) -> float:
        found = given.get(symbol)
        return otherwise if found in (None, "") else float(found)

    diameter, length = float(given["DC"]), float(given["APMX"])
    return EndMill(
        name=name,
        designation=designation,
        type=mill_types()[grade.tool_class],
        grade=grade,
        diameter=diameter,
        flutes=int(number("NOF", 4)),
        corner=number("RE", 0.0),
        cutting_length=length,
        reach=number("LU", length),
        neck=number("DN", diameter),
        helix=number("FHA", 35.0),
        second_helix=number("FHA2", 0.0),
        ramp=number("RMPX", 3.0),
        plunge=number("AZ", 0.0),
        price=price,
        regrinds=int(number("NORGMX", 0)),
        regrind_price=number("REGP", REGRIND_SHARE * price),
        shank=number("DCONMS", diameter),
        through=coolant == "through",
        source=source,
    )
