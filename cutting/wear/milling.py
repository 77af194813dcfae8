"""Where an end mill starts: feed per tooth and pitch by diameter and metal, speed as a share of the turning row."""

from __future__ import annotations

from functools import cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.tables import read_table
from cutting.tooling.mills import MillType
from cutting.wear import life
from cutting.wear.drilling import SLOWER_GROWTH, SMALL, feed_row
from cutting.wear.reference import LifeLaw, law_at, life_law
from cutting.working import Silent
from cutting.workpiece.materials import Material

Array = NDArray[np.float64]

HARD_MILLED, THIN = (120.0, 100.0), (0.1, 0.5)  # m/min that carbide mills to 55 HRC and above, thin cuts (common practice)
COOLER = 0.2  # power of π over the engagement by which edges last longer that cool on their way (common practice)
ALUMINIUM_TOP = 500.0  # m/min: solid end mills go no faster in aluminium on usual spindles (common practice)
ALUMINIUM_FROM = 0.6  # of that speed, from which it is used at all


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


def milling_law(material: Material, tool_class: str) -> LifeLaw | None:
    """The law of a tool material that mills a metal: its turning row; hardened metals are milled by carbide though nobody turns them so."""
    law = life_law(material.speed_row, tool_class)
    hard = feed_row(material) == "hardened" and tool_class == "carbide"
    if hard and (law is None or law.reference_speed < HARD_MILLED[-1]):
        return law_at(HARD_MILLED[material.group.number > 38], *THIN, tool_class)
    return law


def mill_speeds(made: MillType, material: Material) -> tuple[float, float, LifeLaw] | None:
    """Least and largest speed [m/min] for the row's life, with its law; None where the trade does not run the tool material there."""
    law = milling_law(material, made.tool_class)
    if law is None:
        return None
    low, high = made.speed_low * law.reference_speed, made.speed_high * law.reference_speed
    if feed_row(material) == "aluminium" and made.tool_class == "carbide":
        low, high = min(low, ALUMINIUM_FROM * ALUMINIUM_TOP), min(high, ALUMINIUM_TOP)
    return low, high, law


def milled_life(tool: Any, speed: Array, feed_per_tooth: Array, engagement_angle: Array, share: Array, record: Silent) -> Array:
    """Minutes of cutting that a mill lasts: v [m/min], fz [mm], angle in the metal [°], its life of the reference one [min].

    Longer where its edges are in the air for most of a turn. Source: Taylor's law; the rest common practice.
    """
    minutes = record(
        life.taylor_life,
        reference_speed=(tool.speed_low + tool.speed_high) / 2.0,
        speed_factor=tool.speed_factor,
        cutting_speed=speed,
        taylor_exponent=tool.taylor_exponent,
        reference_feed=(tool.feed_low + tool.feed_high) / 2.0,
        chip_thickness=feed_per_tooth,
        feed_exponent=tool.feed_exponent,
        reference_depth=1.0,
        depth_of_cut=1.0,
        depth_exponent=0.0,
        light_gain=life.LIGHT_GAIN,
        note="of the row of milling speeds; the feed counts against the middle of its window",
    )
    return np.asarray(minutes * share / life.REFERENCE_LIFE * (180.0 / engagement_angle) ** COOLER)
