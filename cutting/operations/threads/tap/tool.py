"""The numbers of a tap in its chuck, in this metal and on this machine: for one pair, or for many at once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from cutting.operations.frame.in_metal import ONLY, pressure_outside, refuse_unrun, shut_in, stock_of_one
from cutting.operations.frame.pairs import Pairs
from cutting.operations.holes.shared.in_chuck import in_chuck, own_numbers, seated
from cutting.operations.threads.shared.core_hole import hole_window, metal_share, usual_hole
from cutting.operations.threads.tap.setup import TapSetup
from cutting.tooling.roles import Index
from cutting.tooling.tap_stock import TapStock
from cutting.tooling.taps import Tap
from cutting.wear.drilling import feed_row
from cutting.wear.reference import life_law

Array = NDArray[np.float64]
OF_PAIR = (
    "speed_low", "speed_high", "speed_factor", "taylor_exponent", "scatter", "serves", "hole", "hole_low", "hole_high", "metal", "down",
    "stays",
)  # fmt: skip
ALUMINIUM_TOP = 40.0  # m/min: taps go no faster in aluminium on usual spindles (common practice)


@dataclass(frozen=True)
class TapTool(Pairs):
    """Every array has shape (pairs, 1) or (1,); lengths mm, money of one tap. Windows are nan where nobody taps like that.

    `hole` is what is there or will be drilled for it, `metal` what it moves over that from its usual hole; `down` and `stays` say
    where its chips go.
    """

    grip: Array  # N·m
    speed_low: Array
    speed_high: Array
    speed_factor: Array
    taylor_exponent: Array
    coefficient_of_variation: Array
    serves: Array
    side_use: Array
    hole: Array
    hole_low: Array
    hole_high: Array
    metal: Array
    down: Array
    stays: Array
    seats: NDArray[np.bool_]


def tap_tools(setup: TapSetup, stock: TapStock, left: Index, right: Index) -> TapTool:
    """The numbers of pairs of the stock's taps and chucks; shape (pairs, 1)."""
    own = own_numbers(stock.tap_columns, stock.chuck_columns, left, right)
    rows = [_of(setup, one) for one in stock.taps]
    return TapTool(seats=seated(setup.machine, stock.chucks, right), **in_chuck(setup, stock.taps, rows, OF_PAIR, own, left))


def _of(setup: TapSetup, tap: Tap) -> dict[str, float]:
    """A tap in the metal and over the hole: window of speed, law of life, hole and metal."""
    material, grade, made, thread = setup.work.material, tap.grade, tap.type, setup.feature.thread
    letter = material.group.letter
    hole = setup.feature.there or usual_hole(thread, made.forms)
    low_hole, high_hole = hole_window(thread, made.forms)
    found = {
        "serves": float(letter in grade.letters),
        "hole": hole,
        "hole_low": low_hole,
        "hole_high": high_hole,
        "metal": metal_share(thread, hole, made.forms),
        "down": float(made.chips == "down"),
        "stays": float(made.chips == "stay"),
    }
    law = life_law(material.speed_row, made.tool_class)
    if law is None:
        return {**dict.fromkeys(OF_PAIR, float("nan")), **found}
    low, high = made.speed_low * law.reference_speed, made.speed_high * law.reference_speed
    if feed_row(material) == "aluminium":
        low, high = min(low, 0.5 * ALUMINIUM_TOP), min(high, ALUMINIUM_TOP)
    return {
        **found,
        **shut_in(setup.work, grade, law, (low, high), pressure_outside(setup), setup.skin),
    }


@lru_cache(maxsize=64)
def single_tool(setup: TapSetup) -> TapTool:
    """The numbers of the set-up's own tool, shape (1,). Raises `CuttingError` for a set-up that cannot be."""
    setup.check()
    tool = tap_tools(setup, stock_of_one(TapStock, setup.tap, setup.chuck), ONLY, ONLY).take(0)
    material, noun = setup.work.material, f"a tap of {setup.tap.grade.tool_class}"
    refuse_unrun(tool, "tap", f"{noun} is not run in {material.name} ({feed_row(material)}).")
    return tool
