"""A tool as it is bought, and what the rules read of it: the one place where a kind of tool in the crib becomes a thing of the core."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cache
from types import MappingProxyType
from typing import Any

from cutting.errors import CuttingError
from cutting.names import find, index
from cutting.tables import Row, read_table
from cutting.tooling.blades import BLADES, blade_of
from cutting.tooling.book import BookWindow
from cutting.tooling.drills import CHUCK_KIND, DRILL_KINDS, chuck_of, drill_of
from cutting.tooling.groove_inserts import groove_insert_of
from cutting.tooling.items import Geometry, Grade, Holder, Insert, geometries, grades, holders, inserts
from cutting.tooling.mills import MILL_KINDS, mill_of
from cutting.tooling.roles import Role
from cutting.tooling.series import in_series
from cutting.tooling.taps import TAP_KINDS, tap_of
from cutting.tooling.thread_inserts import HOLDER_KINDS, INSERT_KINDS, thread_holder_of, thread_insert_of
from cutting.tooling.thread_mills import THREAD_MILL_KINDS, thread_mill_of

USUAL_OVERHANG = 30.0  # mm, of a holder whose row does not say


@dataclass(frozen=True)
class Bought:
    """One item of the crib. `properties` are its ISO 13399 properties in mm, degrees and kg; prices of a pack."""

    kind: str
    name: str
    designation: str
    geometry: Geometry | None = None
    grade: Grade | None = None
    pack_price: float = 0.0
    pack_size: int = 1
    bin: str = ""
    quantity: int = 0
    coolant: str = "flood"
    properties: Mapping[str, Any] = field(default_factory=dict)
    source: str = ""
    book: tuple[BookWindow, ...] = ()

    @property
    def price(self) -> float:
        """Of one piece."""
        return self.pack_price / self.pack_size

    def edge(self) -> tuple[Geometry, Grade]:
        """Geometry and grade of an edge that has both. Raises `CuttingError`."""
        if self.geometry is None or self.grade is None:
            raise CuttingError("tool", f"{self.name} has no geometry or no grade.")
        return self.geometry, self.grade


def _insert(b: Bought) -> Insert:
    numbers = {symbol: value for symbol, value in b.properties.items() if isinstance(value, (int, float))}
    count = numbers.get("CEDC")
    tips = int(count) if count else None
    return Insert(b.name, b.designation, *b.edge(), b.pack_price, b.pack_size, tips, b.bin, b.quantity, b.source, numbers, b.book)


def _holder(b: Bought) -> Holder:
    return Holder(
        b.designation,
        b.coolant,
        float(b.properties.get("OHN") or USUAL_OVERHANG),
        b.price,
        b.source,
        float(b.properties.get("DMIN1") or 0.0),
    )


def _groove_insert(b: Bought) -> Any:
    return groove_insert_of(b.name, b.designation, *b.edge(), b.price, b.properties, b.source)


def _blade(b: Bought) -> Any:
    return blade_of(b.kind, b.designation, b.coolant, b.price, b.properties, b.source)


def _drill(b: Bought) -> Any:
    return drill_of(b.kind, b.name, b.designation, b.grade, b.coolant, b.price, b.properties, b.source)


def _mill(b: Bought) -> Any:
    return mill_of(b.name, b.designation, b.grade, b.coolant, b.price, b.properties, b.source)


def _tap(b: Bought) -> Any:
    return tap_of(b.kind, b.name, b.designation, b.grade, b.coolant, b.price, b.properties, b.source)


def _thread_mill(b: Bought) -> Any:
    return thread_mill_of(b.kind, b.name, b.designation, b.grade, b.coolant, b.price, b.properties, b.source)


def _thread_insert(b: Bought) -> Any:
    return thread_insert_of(b.kind, b.name, b.designation, *b.edge(), b.price, b.properties, b.source)


def _thread_holder(b: Bought) -> Any:
    return thread_holder_of(b.kind, b.designation, b.coolant, b.price, b.properties, b.source)


def _chuck(b: Bought) -> Any:
    return chuck_of(b.designation, b.coolant, b.price, b.properties, b.source)


MAKERS: MappingProxyType[str, Callable[[Bought], Any]] = MappingProxyType(
    {
        "turning insert": _insert,
        "turning holder": _holder,
        "boring bar": _holder,
        "grooving insert": _groove_insert,
        **dict.fromkeys(BLADES, _blade),
        **dict.fromkeys(DRILL_KINDS, _drill),
        **dict.fromkeys(MILL_KINDS, _mill),
        **dict.fromkeys(TAP_KINDS, _tap),
        **dict.fromkeys(THREAD_MILL_KINDS, _thread_mill),
        **dict.fromkeys(INSERT_KINDS, _thread_insert),
        **dict.fromkeys(HOLDER_KINDS, _thread_holder),
        CHUCK_KIND: _chuck,
    }
)


def made(bought: Bought) -> Any:
    """What the rules read of a tool. Raises `CuttingError` for a kind that no operation uses yet."""
    if bought.kind not in MAKERS:
        raise CuttingError("tool", f"no operation uses a {bought.kind} yet.")
    return MAKERS[bought.kind](bought)


@cache
def shipped(kind: str) -> tuple[Any, ...]:
    """The tools of a kind in the shipped tables."""
    whole = {"turning insert": inserts, "turning holder": holders}
    if kind in whole:
        return whole[kind]()
    return tuple(made(_bought(row)) for row in tool_rows() if row["kind"] == kind)


TOOL_TABLES = ("tooling/tools.csv", "tooling/drills.csv", "tooling/mills.csv", "tooling/threading.csv")


@cache
def tool_rows() -> tuple[Row, ...]:
    """Every shipped tool that has no table of its kind alone, with all sizes of those that come in series."""
    rows = tuple(row for table in TOOL_TABLES for row in read_table(table))
    return (*rows, *in_series(rows))


def _bought(row: Row) -> Bought:
    edge = geometries().get(row["geometry"]), grades().get(row["grade"])
    name = " ".join(part for part in (row["designation"], row["geometry"], row["grade"]) if part)
    size = int(row["pack_size"])
    return Bought(row["kind"], name, row["designation"], *edge, row.number("pack_price"), size, coolant=row["coolant"], properties=row,
                  source=row["source"])  # fmt: skip


def find_shipped(role: Role, name: str) -> Any:
    """A shipped tool that plays a role, by name. Raises `UnknownName`."""
    return find(name, _spellings(role.kinds), role.name, role.title, (one.name for kind in role.kinds for one in shipped(kind)))


@cache
def _spellings(kinds: tuple[str, ...]) -> dict[str, Any]:
    return index((_names(one), one) for kind in kinds for one in shipped(kind))


def _names(one: Any) -> tuple[str, ...]:
    grade = getattr(one, "grade", None)
    geometry = getattr(one, "geometry", None)
    short = (f"{one.designation} {geometry.name} {grade.name.split()[0]}",) if grade and geometry else ()
    return (one.name, *short) if short else (one.name, one.designation)
