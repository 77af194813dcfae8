"""The numbers of a grooving insert in its blade, in this metal and on this machine: for one pair, or for many at once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.errors import CuttingError
from cutting.machine.machines import Machine
from cutting.mechanics.blade import blade_second_moments
from cutting.mechanics.deflection import round_second_moment
from cutting.operations.frame.in_metal import ONLY, stock_of_one
from cutting.operations.frame.pairs import Pairs
from cutting.operations.slots.shared.setup import SlotSetup
from cutting.tooling.groove_inserts import plunge_feeds
from cutting.tooling.roles import Index
from cutting.tooling.slot_stock import SlotStock
from cutting.wear.reference import life_law, speed_factors

Array = NDArray[np.float64]
Mask = NDArray[np.bool_]
THROUGH_PRESSURE = 10.0  # bar from which coolant through the tool reaches under the chip (common practice)
NO_JET = 5.0  # bar up to which coolant counts as flood
PARTLY = 0.8  # of a jet's gain that coolant beside the slot loses
BRITTLE_SCATTER, EXTRA_SCATTER = 0.1, 0.05  # a narrow edge in a slot scatters more (common practice)
TOUGH_ENOUGH = 0.7  # toughness from which an edge does not scatter by chipping


@dataclass(frozen=True)
class SlotTool(Pairs):
    """Every array has shape (pairs, 1) or (1,); lengths mm, angles degrees, money of one piece of each."""

    width: Array
    width_tolerance: Array
    lead_angle: Array
    corner_radius: Array
    reach: Array  # of insert and blade together
    round_edge: Mask
    breaker: Mask
    edges: Array
    price: Array
    thickness: Array
    height: Array
    second_upright: Array  # second moments of the blade, or of an inside bar: bent in height, and sideways
    second_across: Array
    overhang: Array
    own_overhang: Array  # of the blade, where another is set
    blade_reach: Array
    stiffness: Array  # share of a solid blade's
    side_rating: Array  # N that the seat holds
    round_shank: Array  # diameter of a bar; 0 for a blade
    blade_price: Array
    pressure: Array  # bar that acts at the edge in its slot
    coolant_gain: Array  # times longer that an edge lasts by the way that coolant takes
    seat_drift: Array  # mm sideways for each mm of depth at 0.1 mm/rev
    feed_low: Array  # window of the plunge feed
    feed_high: Array
    reference_speed: Array  # nan where the trade does not run this tool material in the metal
    speed_factor: Array
    reference_feed: Array
    reference_depth: Array
    taylor_exponent: Array
    feed_exponent: Array
    depth_exponent: Array
    coefficient_of_variation: Array
    toughness: Array  # of the grade, 0 to 1
    side_use: Array  # 1 where the grade is made for another letter of ISO 513
    serves: Mask  # the grade's letters
    suits: Mask  # the geometry's
    brittle: Mask

    @property
    def slenderness(self) -> Array:
        """How far the tool stands out in its own heights, a bar in its diameters."""
        return np.asarray(self.overhang / np.where(self.round_shank > 0, self.round_shank, self.height))


def slot_tools(setup: SlotSetup, stock: SlotStock, left: Index, right: Index) -> SlotTool:
    """The numbers of pairs of the stock's inserts and blades; shape (pairs, 1)."""
    inserts, blades = stock.inserts, stock.blades
    letter, speed_row = setup.work.material.group.letter, setup.work.material.speed_row
    edge, body = stock.insert_columns, stock.blade_columns
    through = np.array([blade.through for blade in blades], bool)
    pressures = (
        reaching_pressure(setup.machine, setup.settings.coolant, False),
        reaching_pressure(setup.machine, setup.settings.coolant, True),
    )
    grades = list(dict.fromkeys(insert.grade for insert in inserts))
    place = {grade: k for k, grade in enumerate(grades)}
    grade = np.array([place[insert.grade] for insert in inserts], np.intp)[left]
    laws = [life_law(speed_row, one.tool_class) for one in grades]
    factors = np.array([[_factor(setup, one, pressure) for pressure in pressures] for one in grades]).reshape(-1, 2)
    windows = [plunge_feeds(insert.width, letter, insert.grade.tool_class) for insert in inserts]

    def insert_of(name: str) -> Array:
        return edge[name][left][:, None]

    def blade_of(name: str) -> Array:
        return body[name][right][:, None]

    def of_inserts(values: list[Any]) -> Any:
        return np.array(values)[left][:, None]

    def of_grades(values: list[Any]) -> Any:
        return np.array(values)[grade][:, None]

    def law(name: str) -> Array:
        return np.asarray(of_grades([getattr(found, name) if found else np.nan for found in laws]), float)

    thickness, height, bar = blade_of("thickness"), blade_of("height"), blade_of("round_shank")
    upright, across = blade_second_moments(thickness, height)
    round_bar = round_second_moment(np.maximum(bar, 1e-9))
    flooded = np.where(through, pressures[1], pressures[0])
    gains = np.array([blade.lasts_by_coolant(at) for blade, at in zip(blades, flooded, strict=True)])[right][:, None]
    wider = np.array([setup.feeds_higher(blade) for blade in blades])[right][:, None]
    overhang = np.array([setup.stands_out(blade) for blade in blades])[right][:, None]
    width = insert_of("width")
    return SlotTool(
        width=width,
        width_tolerance=insert_of("width_tolerance"),
        lead_angle=insert_of("lead_angle"),
        corner_radius=insert_of("corner_radius"),
        reach=np.minimum(insert_of("reach"), blade_of("reach")),
        round_edge=of_inserts([insert.round_edge for insert in inserts]),
        breaker=of_inserts([insert.geometry.breaker for insert in inserts]),
        edges=insert_of("edges"),
        price=insert_of("price"),
        thickness=thickness,
        height=height,
        second_upright=np.where(bar > 0, round_bar, upright),
        second_across=np.where(bar > 0, round_bar, across),
        overhang=overhang,
        own_overhang=blade_of("overhang"),
        blade_reach=blade_of("reach"),
        stiffness=blade_of("stiffness_share"),
        side_rating=blade_of("side_share") * width**2,
        round_shank=bar,
        own={name: blade_of(name) for name in (blades[0].NUMBERS if blades else ())},
        blade_price=blade_of("price"),
        pressure=flooded[right][:, None],
        seat_drift=blade_of("seat_drift"),
        feed_low=of_inserts([low for low, _ in windows]),
        feed_high=of_inserts([high for _, high in windows]) * wider,
        reference_speed=law("reference_speed"),
        speed_factor=factors[grade, through[right].astype(int)][:, None],
        coolant_gain=gains,
        reference_feed=law("reference_feed"),
        reference_depth=law("reference_depth"),
        taylor_exponent=law("taylor_exponent"),
        feed_exponent=law("feed_exponent"),
        depth_exponent=law("depth_exponent"),
        coefficient_of_variation=law("coefficient_of_variation")
        + of_grades([EXTRA_SCATTER + BRITTLE_SCATTER * max(0.0, TOUGH_ENOUGH - one.toughness) for one in grades]),
        toughness=of_grades([one.toughness for one in grades]),
        side_use=np.asarray(of_grades([float(one.main_letter != letter) for one in grades])),
        serves=of_grades([letter in one.letters for one in grades]),
        suits=of_inserts([letter in insert.geometry.suits for insert in inserts]),
        brittle=of_grades([one.tool_class not in ("hss", "carbide") for one in grades]),
    )


def _factor(setup: SlotSetup, grade: Any, pressure: float) -> float:
    # what a jet brings in a slot hangs on the way that it takes, and is told by the blade
    found = speed_factors(setup.work, grade, min(pressure, NO_JET), getattr(setup.holding, "interrupted", False), setup.skin, False)
    return float(np.prod([one.factor for one in found]))


@lru_cache(maxsize=64)
def single_tool(setup: SlotSetup) -> SlotTool:
    """The numbers of the set-up's own tool, shape (1,). Raises `CuttingError` for a set-up that cannot be."""
    setup.check()
    tool = slot_tools(setup, stock_of_one(SlotStock, setup.insert, setup.blade), ONLY, ONLY).take(0)
    if np.isnan(tool.reference_speed).any():
        group = setup.work.material.group
        raise CuttingError(
            "tool.insert", f"no starting speed for {setup.insert.grade.tool_class} in group {group.number} ({group.description})."
        )
    return tool


def reaching_pressure(machine: Machine, delivery: str, through: bool) -> float:
    """Pressure [bar] that acts at the edge in its slot: beside the slot little of a jet arrives, through the blade all of it."""
    pressure = machine.pressure(delivery) or 0.0
    reaches = pressure < THROUGH_PRESSURE or through
    return pressure if reaches else (1.0 - PARTLY) * pressure
