"""Grooving inserts: what cut-off, grooving and trepanning cut with, and the feeds that their width takes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Any

import numpy as np

from cutting.tables import read_table
from cutting.tooling.items import Geometry, Grade

INSERT_NUMBERS = ("width", "width_tolerance", "lead_angle", "reach", "corner_radius", "edges", "price")
WIDTH_TOLERANCE = 0.05  # mm that a pressed edge may be wider, whose row does not say (common practice)


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
        return self.corner_radius >= 0.49 * self.width  # half, less what a maker rounds


@cache
def _feed_rows() -> tuple[tuple[float, ...], ...]:
    rows = [(row.number("width"), row.number("feed_low"), row.number("feed_high")) for row in read_table("tooling/groove_feeds.csv")]
    return tuple(zip(*rows, strict=True))


@cache
def plunge_feeds(width: float, letter: str, tool_class: str) -> tuple[float, float]:
    """Least and largest plunge feed [mm/rev] of a width [mm] (common practice).

    Of what steel takes stainless takes 0.8, titanium and heat-resistant metals half, aluminium 1.2; high-speed steel 0.02 to 0.06.
    """
    if tool_class == "hss":
        return 0.02, 0.06
    widths, lows, highs = _feed_rows()
    low, high = float(np.interp(width, widths, lows)), float(np.interp(width, widths, highs))
    share = FEED_OF_STEEL.get(letter, 1.0)
    return share * low, share * high


FEED_OF_STEEL = {"M": 0.8, "S": 0.55, "N": 1.2, "H": 0.5}  # of what a width takes in steel, by ISO 513 letter (common practice)
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
