"""Grooving inserts and the blades that carry them: what cut-off and grooving choose from."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

import numpy as np

from cutting.names import find, index
from cutting.tables import Row, read_table
from cutting.tooling.items import Geometry, Grade, geometries, grades

# how much of a solid steel blade's stiffness a way of holding the insert keeps (common practice, no source)
STYLES = {"reinforced": 1.0, "screw": 0.9, "self-clamping": 0.75, "cassette": 0.65}


@dataclass(frozen=True)
class GrooveInsert:
    """A grooving insert in stock: width CW, lead angle PSIR [°], reach CDX, corner radius RE; lengths mm."""

    name: str
    designation: str
    geometry: Geometry
    grade: Grade
    width: float
    lead_angle: float
    reach: float
    corner_radius: float
    edges: int
    price: float  # of one insert
    source: str = ""

    @property
    def ground_high_speed_steel(self) -> bool:
        return self.grade.tool_class == "hss"


@dataclass(frozen=True)
class GrooveBlade:
    """A blade or holder for inserts of one width; lengths mm. `largest_bar` is what its support relief clears (CUTDIA)."""

    name: str
    designation: str
    style: str
    width: float
    reach: float
    largest_bar: float
    thickness: float
    height: float
    overhang: float
    coolant: str
    price: float
    source: str = ""

    def takes(self, insert: GrooveInsert) -> bool:
        """Blades are made for one width of insert."""
        return abs(self.width - insert.width) < 0.05

    @property
    def stiffness_share(self) -> float:
        return STYLES.get(self.style, 0.75)


@cache
def groove_inserts() -> tuple[GrooveInsert, ...]:
    """The grooving inserts of the shipped table."""
    return tuple(_insert(row) for row in read_table("tooling/tools.csv") if row["kind"] == "grooving insert")


@cache
def groove_blades() -> tuple[GrooveBlade, ...]:
    """The cut-off blades of the shipped table."""
    return tuple(_blade(row) for row in read_table("tooling/tools.csv") if row["kind"] == "cut-off blade")


def find_groove_insert(name: str, field: str = "tool.insert") -> GrooveInsert:
    """A shipped grooving insert by name. Raises `UnknownName`."""
    return find(
        name, index(((i.name, i.designation), i) for i in groove_inserts()), field, "grooving insert", (i.name for i in groove_inserts())
    )


def find_groove_blade(name: str, field: str = "tool.holder") -> GrooveBlade:
    """A shipped blade by name. Raises `UnknownName`."""
    return find(name, index(((b.name,), b) for b in groove_blades()), field, "cut-off blade", (b.name for b in groove_blades()))


def style_of(designation: str) -> str:
    """The way of holding that a blade's own words name; self-clamping where they name none."""
    said = designation.lower()
    return next((style for style in STYLES if style in said), "self-clamping")


@cache
def _feed_rows() -> tuple[tuple[float, ...], ...]:
    rows = [(row.number("width"), row.number("feed_low"), row.number("feed_high")) for row in read_table("tooling/groove_feeds.csv")]
    return tuple(zip(*rows, strict=True))


def plunge_feeds(width: float, letter: str, tool_class: str) -> tuple[float, float]:
    """Least and largest plunge feed [mm/rev] of a width [mm] (common practice).

    Stainless and heat-resistant metals take the lower half; high-speed steel 0.02 to 0.06.
    """
    if tool_class == "hss":
        return 0.02, 0.06
    widths, lows, highs = _feed_rows()
    low, high = float(np.interp(width, widths, lows)), float(np.interp(width, widths, highs))
    return (low, (low + high) / 2.0) if letter in "MS" else (low, high)


# insert width by the bar's diameter (common practice): to this diameter, this width
WIDTHS = ((12.0, 1.5), (25.0, 2.0), (40.0, 3.0), (60.0, 4.0), (80.0, 5.0), (120.0, 6.0))


def usual_width(diameter: float) -> float:
    """The width [mm] that the trade takes for a bar [mm]."""
    return next((width for top, width in WIDTHS if diameter <= top), 8.0)


def _insert(row: Row) -> GrooveInsert:
    geometry, grade = geometries()[row["geometry"]], grades()[row["grade"]]
    price = row.number("pack_price") / row.number("pack_size")
    return GrooveInsert(
        f"{row['designation']} {row['geometry']} {row['grade']}",
        row["designation"],
        geometry,
        grade,
        row.number("CW"),
        row.number_or_none("PSIR") or 0.0,
        row.number("CDX"),
        row.number_or_none("RE") or 0.2,
        int(row.number("CEDC")),
        price,
        row["source"],
    )


def _blade(row: Row) -> GrooveBlade:
    return GrooveBlade(
        row["designation"],
        row["designation"],
        style_of(row["designation"]),
        row.number("CW"),
        row.number("CDX"),
        row.number("CUTDIA"),
        row.number("B"),
        row.number("H"),
        row.number("OHN"),
        row["coolant"] or "flood",
        row.number("pack_price") / row.number("pack_size"),
        row["source"],
    )
