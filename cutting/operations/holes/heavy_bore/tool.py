"""The numbers of a heavy tool for these bores, in this metal and on this machine: for one, or for many at once."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.operations.frame.in_metal import ONLY, pressure_outside, refuse_unrun, shut_in
from cutting.operations.frame.pairs import Pairs
from cutting.operations.holes.heavy_bore.setup import HeavyBoreSetup
from cutting.tooling.heavy.stock import HeavyStock
from cutting.tooling.heavy.tool import BoringStep, HeavyTool
from cutting.tooling.roles import Index
from cutting.wear.reference import life_law

Array = NDArray[np.float64]
# of the turning speed of the row: bored, with edges that stand far out (common practice)
SPEED_LOW, SPEED_HIGH = 0.45, 0.95
FEED_LOW, FEED_HIGH = 0.05, 0.25  # mm for each edge (common practice)
# of the first bore's pass: other bores are mere copies of the widest step where a tool has none
OF_STEP = ("diameter", "at", "inserts", "allowance", "nose_radius", "pads", "outlets", "outlet_diameter")
OF_TOOL = ("edge_price", "eccentricity", "balance_grade", "between_steps", "largest_diameter", "length")
OF_PAIR = ("speed_low", "speed_high", "speed_factor", "taylor_exponent", "feed_exponent", "scatter", "serves")


@dataclass(frozen=True)
class HeavyTools(Pairs):
    """Every array has shape (tools, bores), (tools, 1), or without the first; lengths mm, masses kg. Windows nan where nobody bores so.

    Of `own`, what stands by bore: Ø, place, edges, allowance, corner, κr, pads, outlets, and `give` [mm/N] at the step's own place.
    """

    speed_low: Array
    speed_high: Array
    speed_factor: Array
    taylor_exponent: Array
    feed_exponent: Array
    coefficient_of_variation: Array
    side_use: Array
    serves: Array
    seats: NDArray[np.bool_]
    has_steps: NDArray[np.bool_]  # one for each bore, and no more


def heavy_tools(setup: HeavyBoreSetup, stock: HeavyStock, places: Index) -> HeavyTools:
    """The numbers of tools of the stock; shape (tools, …)."""
    tools = [stock.tools[k] for k in places]
    rows = [_steps(setup, one) for one in tools]
    own = {name: np.array([[float(getattr(step, name)) for step in row] for row in rows]) for name in OF_STEP}
    own["sine"] = np.array([[np.sin(np.radians(step.cutting_edge_angle)) for step in row] for row in rows])
    own["give"] = np.array([[_give(one, step.at) for step in row] for one, row in zip(tools, rows, strict=True)])
    own |= {name: np.array([[float(getattr(one, name))] for one in tools]) for name in OF_TOOL}
    own |= {name: np.array([[getattr(one.whole, name)] for one in tools]) for name in ("mass", "lever", "inertia")}
    own["frequency"] = np.array([[_frequency(one)] for one in tools])
    own["stands_out"] = np.array([[(one.length - one.holder.face) / one.holder.seat_diameter] for one in tools])
    told = [_of(setup, one) for one in tools]
    found = {name: np.array([[one[name]] for one in told], float) for name in OF_PAIR}
    letter = setup.work.material.group.letter
    return HeavyTools(
        own=own,
        coefficient_of_variation=found.pop("scatter"),
        side_use=np.array([[float(one.grade.main_letter != letter)] for one in tools]),
        seats=np.array([[one.holder.interface == setup.machine.interface] for one in tools], bool),
        has_steps=np.array([[_fits(setup, one)] for one in tools], bool),
        **found,
    )


def _steps(setup: HeavyBoreSetup, tool: HeavyTool) -> Sequence[BoringStep]:
    """The step for each bore; its widest stands for one that it does not have, so that it can be told what is missing."""
    widest = max(tool.steps, key=lambda one: one.diameter)
    return [tool.step_for(one.diameter.nominal) or widest for one in setup.feature.bores]


def _fits(setup: HeavyBoreSetup, tool: HeavyTool) -> bool:
    bores = setup.feature.bores
    return len(bores) == len(tool.steps) and all(tool.step_for(one.diameter.nominal) for one in bores)


@lru_cache(maxsize=1024)
def _give(tool: HeavyTool, at: float) -> float:
    """How far a newton moves the tool at a place [mm]."""
    return tool.bending.given(1.0, at, at)


@lru_cache(maxsize=256)
def _frequency(tool: HeavyTool) -> float:
    return tool.bending.frequency()


def _of(setup: HeavyBoreSetup, tool: HeavyTool) -> dict[str, float]:
    """Its grade in the metal: window of speeds, law of life."""
    material, grade = setup.work.material, tool.grade
    serves = {"serves": float(material.group.letter in grade.letters)}
    law = life_law(material.speed_row, grade.tool_class)
    if law is None:
        return {**dict.fromkeys(OF_PAIR, float("nan")), **serves}
    window = (SPEED_LOW * law.reference_speed, SPEED_HIGH * law.reference_speed)
    return {**serves, **shut_in(setup.work, grade, law, window, pressure_outside(setup), setup.skin)}


@lru_cache(maxsize=64)
def single_tool(setup: HeavyBoreSetup) -> HeavyTools:
    """The numbers of the set-up's own tool, shape (…,). Raises `CuttingError` for a set-up that cannot be."""
    setup.check()
    tool = heavy_tools(setup, HeavyStock((setup.heavy_tool,)), ONLY).take(0)
    refuse_unrun(tool, "heavy_tool", f"inserts of {setup.heavy_tool.grade.tool_class} do not bore {setup.work.material.name}.")
    return tool


def misfits(setup: Any) -> frozenset[str]:
    """The exact rules that forbid a set-up's tool here."""
    return frozenset() if setup.heavy_tool.holder.interface == setup.machine.interface else frozenset({"interface"})
