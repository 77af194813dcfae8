"""Where an end mill starts: feed per tooth and pitch by diameter and metal, speed as a share of the turning row."""

from __future__ import annotations

from functools import cache

from cutting.tables import read_table
from cutting.tooling.mills import MillType
from cutting.wear.drilling import SLOWER_GROWTH, SMALL, feed_row
from cutting.wear.reference import LifeLaw, life_law
from cutting.workpiece.materials import Material

ALUMINIUM_TOP = 500.0  # m/min: solid end mills go no faster in aluminium on usual spindles (common practice)


@cache
def _feeds() -> dict[tuple[str, str], tuple[float, float, float]]:
    rows = read_table("wear/mill_feeds.csv")
    return {(row["tool_class"], row["metal"]): (row.number("low"), row.number("high"), row.number("pitch")) for row in rows}


def mill_feeds(tool_class: str, diameter: float, material: Material) -> tuple[float, float, float] | None:
    """Least and largest feed per tooth in a full slot, and the usual pitch of a helix [mm]; None where nobody mills like that."""
    found = _feeds().get((tool_class, feed_row(material)))
    if found is None:
        return None
    low, high, pitch = found
    size = diameter if diameter <= SMALL else SMALL * (diameter / SMALL) ** SLOWER_GROWTH
    return low * size, high * size, pitch * diameter


def mill_speeds(made: MillType, material: Material) -> tuple[float, float, LifeLaw] | None:
    """Least and largest speed [m/min] for the row's life, with its law; None where the trade does not run the tool material there."""
    law = life_law(material.speed_row, made.tool_class)
    if law is None:
        return None
    low, high = made.speed_low * law.reference_speed, made.speed_high * law.reference_speed
    if feed_row(material) == "aluminium" and made.tool_class == "carbide":
        low, high = min(low, 0.6 * ALUMINIUM_TOP), min(high, ALUMINIUM_TOP)
    return low, high, law
