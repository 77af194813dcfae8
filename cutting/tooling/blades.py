"""Grooving inserts and the blades, bars and heads that carry them: what cut-off, grooving and trepanning choose from."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from functools import cache, cached_property
from types import MappingProxyType
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.names import find, index
from cutting.tables import Row, read_table
from cutting.tooling.items import Geometry, Grade, geometries, grades

Array = NDArray[np.float64]
Index = NDArray[np.intp]
INSERT_NUMBERS = ("width", "width_tolerance", "lead_angle", "reach", "corner_radius", "edges", "price")
BLADE_NUMBERS = (
    "reach", "largest_bar", "thickness", "height", "overhang", "price", "least_bore", "bar_diameter", "face_low", "face_high", "face_inner",
    "head_low", "head_high", "cartridges", "mass", "stiffness_share", "side_share",
)  # fmt: skip
# stiffness of a way of holding the insert against a solid steel blade: a pocket weakens it, a cassette that reaches under the
# insert carries it (common practice, no source: a face dished by 10 µm where a plain blade leaves about 55)
STYLES = {"reinforced": 1.0, "screw": 0.9, "self-clamping": 0.75, "cassette": 4.0, "bar": 0.9, "head": 0.8}
# side load that a style holds [N per mm² of the square of its width]: a pocket that only grips gives way (common practice)
SIDE_RATING = {"reinforced": 90.0, "screw": 90.0, "cassette": 60.0, "self-clamping": 12.0, "bar": 70.0, "head": 60.0}
# kinds of tool that carry grooving inserts, and where each works
USES = MappingProxyType(
    {"cut-off blade": "outside", "inside groove bar": "inside", "face groove blade": "face", "trepanning head": "trepan"}
)
SEAT_PLAY = 0.05  # mm by which an insert's width may differ from its pocket's
WIDTH_TOLERANCE = 0.05  # mm, ± of a pressed edge whose row does not say (common practice)


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
    width_tolerance: float = WIDTH_TOLERANCE
    seat: str = ""  # of a pocket that takes several widths

    @property
    def ground_high_speed_steel(self) -> bool:
        return self.grade.tool_class == "hss"

    @property
    def round_edge(self) -> bool:
        """A full radius: the edge is half a circle."""
        return self.corner_radius >= 0.49 * self.width


@dataclass(frozen=True)
class GrooveBlade:
    """A blade, bar or head for grooving inserts; lengths mm, mass kg.

    `use` says where it works. `largest_bar` is what a blade's support relief clears (CUTDIA); `least_bore` what an inside bar
    enters (DMIN1); `face_low`, `face_high` and `face_inner` the diameters of a face blade's first plunge (DAXN, DAXX, DAXIN);
    `head_low` and `head_high` the diameters of a trepanning head (DCN, DCX), `cartridges` its edges.
    """

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
    use: str = "outside"
    seat: str = ""
    least_bore: float = 0.0
    bar_diameter: float = 0.0
    longest: float = 0.0
    face_low: float = 0.0
    face_high: float = 0.0
    face_inner: float = 0.0
    hand: str = "N"
    head_low: float = 0.0
    head_high: float = 0.0
    cartridges: int = 1
    mass: float = 0.0

    def takes(self, insert: GrooveInsert) -> bool:
        """A named seat takes its own inserts of any width; any other blade is made for one width."""
        if self.seat or insert.seat:
            return self.seat == insert.seat and insert.width <= self.width + SEAT_PLAY
        return abs(self.width - insert.width) < SEAT_PLAY

    @property
    def stiffness_share(self) -> float:
        return STYLES.get(self.style, 0.75)

    def shortest(self, depth: float) -> float:
        """The least overhang [mm] for a depth [mm]: a blade slides in its block, a holder with its head in one piece does not."""
        slides = self.style in ("reinforced", "self-clamping") and self.use == "outside"
        return round(max(depth + 1.0, 3.0), 1) if slides else max(self.overhang, depth)

    @property
    def side_share(self) -> float:
        """Side load that this style holds, N per mm² of the square of its insert's width (common practice)."""
        return SIDE_RATING.get(self.style, 12.0)


@dataclass(frozen=True)
class NarrowStock:
    """The grooving inserts and blades to choose from; `note` says how they were chosen from a larger stock."""

    inserts: tuple[GrooveInsert, ...]
    blades: tuple[GrooveBlade, ...]
    note: str = ""
    turning: Callable[[], Any] | None = None  # the turning tools that may compete, where they are wanted

    @cached_property
    def insert_columns(self) -> dict[str, Array]:
        """Numbers of the inserts by name, one entry each."""
        return {name: np.array([getattr(one, name) for one in self.inserts], float) for name in INSERT_NUMBERS}

    @cached_property
    def blade_columns(self) -> dict[str, Array]:
        """Numbers of the blades by name, one entry each."""
        return {name: np.array([getattr(one, name) for one in self.blades], float) for name in BLADE_NUMBERS}

    @cached_property
    def pairs(self) -> tuple[Index, Index]:
        """Indices of every insert with every blade that takes it, insert by insert."""
        widths = np.array([one.width for one in self.inserts], float)
        every = [one.seat for one in self.inserts] + [one.seat for one in self.blades]
        seats = {seat: k for k, seat in enumerate(dict.fromkeys(every))}
        own = np.array([seats[one.seat] for one in self.inserts], int)
        anonymous = seats.get("", -1)
        takes = np.zeros((len(self.inserts), len(self.blades)), bool)
        for k, blade in enumerate(self.blades):
            seat = seats[blade.seat]
            named = (own == seat) & (widths <= blade.width + SEAT_PLAY)
            plain = (own == anonymous) & (np.abs(blade.width - widths) < SEAT_PLAY)
            takes[:, k] = named if seat != anonymous else plain
        left, right = np.nonzero(takes)
        return left, right


@cache
def groove_inserts() -> tuple[GrooveInsert, ...]:
    """The grooving inserts of the shipped table."""
    return tuple(_insert(row) for row in read_table("tooling/tools.csv") if row["kind"] == "grooving insert")


@cache
def groove_blades() -> tuple[GrooveBlade, ...]:
    """The blades, bars and heads of the shipped table."""
    return tuple(_blade(row) for row in read_table("tooling/tools.csv") if row["kind"] in USES)


def shipped_stock(use: str) -> NarrowStock:
    """The shipped inserts with the blades for a use: outside, inside, face, trepan."""
    return NarrowStock(groove_inserts(), blades_for(groove_blades(), use))


def blades_for(blades: Iterable[GrooveBlade], use: str) -> tuple[GrooveBlade, ...]:
    """The blades that work there."""
    return tuple(blade for blade in blades if blade.use == use)


def find_groove_insert(name: str, field: str = "tool.insert") -> GrooveInsert:
    """A shipped grooving insert by name. Raises `UnknownName`."""
    return find(
        name, index(((i.name, i.designation), i) for i in groove_inserts()), field, "grooving insert", (i.name for i in groove_inserts())
    )


def find_groove_blade(name: str, field: str = "tool.holder") -> GrooveBlade:
    """A shipped blade by name. Raises `UnknownName`."""
    return find(name, index(((b.name,), b) for b in groove_blades()), field, "grooving blade", (b.name for b in groove_blades()))


def style_of(designation: str, kind: str = "cut-off blade") -> str:
    """The way of holding that a blade's own words name; self-clamping where they name none."""
    said = designation.lower()
    usual = {"inside": "bar", "trepan": "head", "face": "screw"}.get(USES.get(kind, ""), "self-clamping")
    return next((style for style in STYLES if style in said), usual)


@cache
def _feed_rows() -> tuple[tuple[float, ...], ...]:
    rows = [(row.number("width"), row.number("feed_low"), row.number("feed_high")) for row in read_table("tooling/groove_feeds.csv")]
    return tuple(zip(*rows, strict=True))


@cache
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


def groove_insert_of(
    name: str, designation: str, geometry: Geometry, grade: Grade, price: float, given: Mapping[str, Any], source: str = ""
) -> GrooveInsert:
    """A grooving insert from its ISO 13399 properties [mm, °]; `price` of one insert."""
    width = float(given["CW"])
    return GrooveInsert(
        name,
        designation,
        geometry,
        grade,
        width,
        float(given.get("PSIR") or 0.0),
        float(given.get("CDX") or 2.0 * width),
        float(given.get("RE") or 0.2),
        int(given["CEDC"]),
        price,
        source,
        float(given.get("CWTOLU") or WIDTH_TOLERANCE),
        str(given.get("SSC") or ""),
    )


def groove_blade_of(kind: str, designation: str, coolant: str, price: float, given: Mapping[str, Any], source: str = "") -> GrooveBlade:
    """A blade, bar or head from its ISO 13399 properties [mm, kg]."""

    def number(symbol: str, otherwise: float = 0.0) -> float:
        return float(given.get(symbol) or otherwise)

    shank = number("DCONMS")
    return GrooveBlade(
        designation,
        designation,
        style_of(designation, kind),
        number("CW"),
        number("CDX"),
        number("CUTDIA", 3000.0),
        number("B", shank or 0.8 * number("CW")),
        number("H", shank),
        number("OHN"),
        coolant or "flood",
        price,
        source,
        use=USES[kind],
        seat=str(given.get("SSC") or ""),
        least_bore=number("DMIN1"),
        bar_diameter=shank,
        longest=number("OHX"),
        face_low=number("DAXN"),
        face_high=number("DAXX"),
        face_inner=number("DAXIN"),
        hand=str(given.get("HAND") or "N"),
        head_low=number("DCN"),
        head_high=number("DCX"),
        cartridges=int(number("ZEFF", 1)),
        mass=number("WT"),
    )


def _insert(row: Row) -> GrooveInsert:
    price = row.number("pack_price") / row.number("pack_size")
    name = f"{row['designation']} {row['geometry']} {row['grade']}"
    return groove_insert_of(name, row["designation"], geometries()[row["geometry"]], grades()[row["grade"]], price, row, row["source"])


def _blade(row: Row) -> GrooveBlade:
    return groove_blade_of(
        row["kind"], row["designation"], row["coolant"], row.number("pack_price") / row.number("pack_size"), row, row["source"]
    )
