"""Geometries, grades, inserts and holders: the items of the crib, and the shipped tables of them."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cache, cached_property

from cutting.errors import UnknownName
from cutting.tables import read_table
from cutting.tooling.book import BookWindow, Span
from cutting.tooling.designations.holder_code import HolderCode, read_holder_code
from cutting.tooling.designations.insert_code import InsertCode, read_insert_code

Point = tuple[float, float]


@dataclass(frozen=True)
class Geometry:
    """A chipbreaker geometry. Window points are (feed mm/rev, depth mm) for iC 12.7 and corner 0.8."""

    name: str
    purpose: str
    window: tuple[Point, ...]
    groove_rake: float  # degrees
    edge_radius: float  # µm
    wiper: bool
    breaker: bool
    flank: str  # N negative, P positive, any
    suits: str  # ISO 513 letters
    strength: float
    source: str
    groove_width: float = 0.0  # mm, 0 for none
    groove_depth: float = 0.0  # mm

    @property
    def curl_radius(self) -> float | None:
        """Radius [mm] to which the groove's arc curls the chip: W²/8h + h/2 (the arc through groove edges and floor)."""
        if self.groove_width <= 0 or self.groove_depth <= 0:
            return None
        return self.groove_width**2 / (8 * self.groove_depth) + self.groove_depth / 2


@dataclass(frozen=True)
class Grade:
    """A cutting material. `spans` lists ISO 513 letter, from and to; factors are relative to the table's row."""

    name: str
    tool_class: str
    substrate: str
    spans: tuple[tuple[str, int, int], ...]
    main_letter: str
    speed_factor: float
    toughness: float
    heat_factor: float
    source: str
    coating: str = ""
    temperature_limit: float = 0.0  # °C; 0: as its tool material

    @property
    def letters(self) -> str:
        return "".join(letter for letter, _, _ in self.spans)


@dataclass(frozen=True)
class Insert:
    """An insert in stock: one item with its geometry, grade and price."""

    name: str
    designation: str
    geometry: Geometry
    grade: Grade
    pack_price: float
    pack_size: int
    tipped_edges: int | None = None
    bin: str = ""
    quantity: int = 0
    source: str = ""
    properties: Mapping[str, float] = field(default_factory=dict, hash=False, compare=False)
    book: tuple[BookWindow, ...] = ()

    @cached_property
    def code(self) -> InsertCode:
        return read_insert_code(self.designation, "insert", self.properties)

    @property
    def price(self) -> float:
        return self.pack_price / self.pack_size

    @property
    def edges(self) -> int:
        """Usable edges: tipped ones as tipped, else corners times sides; a round insert is counted by depth later."""
        return self.tipped_edges or self.code.tips or self.code.corners * self.code.sides or 4 * self.code.sides


@dataclass(frozen=True)
class Holder:
    """An external holder with its shortest usual overhang, or a boring bar with the least bore [mm] that it enters."""

    designation: str
    coolant: str
    overhang: float
    price: float
    source: str = ""
    least_bore: float = 0.0

    @property
    def name(self) -> str:
        return self.designation

    @cached_property
    def code(self) -> HolderCode:
        return read_holder_code(self.designation, "holder")


@cache
def geometries() -> dict[str, Geometry]:
    """All geometries of the shipped table, by name."""
    return {
        row["name"]: Geometry(
            row["name"],
            row["purpose"],
            tuple((float(f), float(a)) for f, a in (point.split(":") for point in row["window"].split())),
            row.number("groove_rake"),
            row.number("edge_radius"),
            row.flag("wiper"),
            row.flag("breaker"),
            row["flank"],
            row["suits"],
            row.number("strength"),
            row["source"],
            row.number("groove_width"),
            row.number("groove_depth"),
        )
        for row in read_table("tooling/geometries.csv")
    }


@cache
def grades() -> dict[str, Grade]:
    """All grades of the shipped table, by name."""
    return {
        row["name"]: Grade(
            row["name"],
            row["tool_class"],
            row["substrate"],
            read_spans(row.words("spans")),
            row["main_letter"],
            row.number("speed_factor"),
            row.number("toughness"),
            row.number("heat_factor"),
            row["source"],
            row["coating"],
            row.number("temperature_limit"),
        )
        for row in read_table("tooling/grades.csv")
    }


@cache
def windows() -> dict[str, tuple[BookWindow, ...]]:
    """Supplier's windows of the shipped tables, by the tool's name."""
    found: dict[str, tuple[BookWindow, ...]] = {}
    for row in read_table("tooling/windows.csv"):
        speed, feed, depth = (
            Span(*(row.number_or_none(f"{name}_{part}") for part in ("min", "start", "max"))) for name in ("speed", "feed", "depth")
        )
        found[row["tool"]] = (*found.get(row["tool"], ()), BookWindow(int(row["group"]), speed, feed, depth, row["source"]))
    return found


@cache
def inserts() -> tuple[Insert, ...]:
    """All inserts of the shipped table."""
    return tuple(
        Insert(
            row["name"],
            row["designation"],
            geometries()[row["geometry"]],
            grades()[row["grade"]],
            row.number("pack_price"),
            int(row["pack_size"]),
            int(row["tipped_edges"]) if row["tipped_edges"] else None,
            row["bin"],
            int(row["quantity"]),
            row["source"],
            book=windows().get(row["name"], ()),
        )
        for row in read_table("tooling/inserts.csv")
    )


@cache
def holders() -> tuple[Holder, ...]:
    """All holders of the shipped table."""
    return tuple(
        Holder(row["designation"], row["coolant"], row.number("overhang"), row.number("price"), row["source"])
        for row in read_table("tooling/holders.csv")
    )


def read_spans(words: tuple[str, ...]) -> tuple[tuple[str, int, int], ...]:
    """ISO 513 spans such as P10-P30. Raises `UnknownName` for a word that is none."""
    found = []
    for word in words:
        match = re.fullmatch(r"([PMKNSH])(\d\d)-[PMKNSH](\d\d)", word)
        if not match:
            raise UnknownName("spans", f"'{word}' is not an ISO 513 span such as P10-P30.")
        found.append((match[1], int(match[2]), int(match[3])))
    return tuple(found)
