"""Where a drill starts: feed by diameter and metal, speed as a share of the turning row, for every type of drill."""

from __future__ import annotations

from functools import cache

import numpy as np

from cutting.tables import read_table
from cutting.tooling.drills import DrillType
from cutting.wear.reference import LifeLaw, law_at, life_law
from cutting.workpiece.materials import Material

SMALL = 16.0  # mm up to which feed grows with the diameter; beyond with its 0.6th power (common practice)
SLOWER_GROWTH = 0.6
HSS_IN_FIBRES = 12.0  # m/min: nobody turns laminates with high-speed steel, but drills of it are at hand and dull (common practice)
LAMINATE_FED = 0.1  # mm/rev: more pushes the plies apart, however wide the hole (common practice: 0.02 to 0.08)
ALUMINIUM_TOP = 300.0  # m/min: drills of carbide go no faster in aluminium (common practice)
# m/min of a turning row from which solid carbide drills hardened steel at 20 to 40, up to and above 55 HRC (common practice)
HARD_DRILLED = (75.0, 55.0)
HARD_DRILLS = ("twist drill",)
# metals that are turned so slowly that a solid carbide drill runs nearer to it: alloy 718 at 15 to 30, Ti-6Al-4V at 30 to 50 m/min
SHORT_WAYS, NEARER = ("heat-resistant", "titanium"), 1.35  # common practice
# HB and what is left of the feed at it, in steel (common practice: 0.8 at 300 HB, 0.6 at 40 HRC, half at 45 HRC)
FED_LESS = ((220.0, 300.0, 371.0, 421.0), (1.0, 0.8, 0.6, 0.5))
# groups of VDI 3323 by the row of drilling feeds
ROWS = (
    (11, "steel"),
    (14, "stainless"),
    (20, "cast iron"),
    (25, "aluminium"),
    (28, "copper"),
    (30, "laminate"),
    (35, "heat-resistant"),
    (37, "titanium"),
    (41, "hardened"),
)

ALUMINIUM_FROM = 0.7  # of that speed, from which it is used at all


def feed_row(material: Material) -> str:
    """The row of drilling feeds that a material belongs to."""
    return next(name for last, name in ROWS if material.group.number <= last)


@cache
def _feeds() -> dict[tuple[str, str], tuple[float, float, str]]:
    return {
        (row["family"], row["metal"]): (row.number("low"), row.number("high"), row["unit"]) for row in read_table("wear/drill_feeds.csv")
    }


def drill_feeds(made: DrillType, diameter: float, material: Material, hardness: float | None = None) -> tuple[float, float] | None:
    """Least and largest feed [mm/rev] of a drill [mm]; None where the trade does not run its type in the material.

    The rows are of steel as it is cut soft; at a `hardness` [HB] above that less is fed.
    """
    found = _feeds().get((made.feeds, feed_row(material)))
    if found is None:
        return None
    low, high, unit = found
    size = 1.0
    if unit == "diameter":
        size = diameter if diameter <= SMALL else SMALL * (diameter / SMALL) ** SLOWER_GROWTH
    scale = made.feed_scale * (float(np.interp(hardness, *FED_LESS)) if hardness and feed_row(material) == "steel" else 1.0)
    if feed_row(material) == "laminate":
        return min(low * size * scale, LAMINATE_FED / 2.0), min(high * size * scale, LAMINATE_FED)
    return low * size * scale, high * size * scale


def drill_speeds(made: DrillType, tool_class: str, material: Material) -> tuple[float, float, LifeLaw] | None:
    """Least and largest speed [m/min] for the row's life, with its law; None where the trade does not run the tool material there."""
    law = life_law(material.speed_row, tool_class)
    if law is None and tool_class == "hss" and feed_row(material) == "laminate":
        law = law_at(HSS_IN_FIBRES, 0.2, 2.0, "hss")  # feed and depth that the row is told for
    if feed_row(material) == "hardened" and tool_class == "carbide" and made.kind in HARD_DRILLS:
        least = HARD_DRILLED[material.group.number > 38]
        if law is None or law.reference_speed < least:
            law = law_at(least, 0.1, 1.0, tool_class)
    if law is None:
        return None
    low, high = made.speed_low * law.reference_speed, made.speed_high * law.reference_speed
    if feed_row(material) in SHORT_WAYS and tool_class == "carbide" and made.kind in HARD_DRILLS:
        low, high = NEARER * low, NEARER * high
    if feed_row(material) == "aluminium" and tool_class == "carbide":
        low, high = min(low, ALUMINIUM_FROM * ALUMINIUM_TOP), min(high, ALUMINIUM_TOP)
    return low, high, law
