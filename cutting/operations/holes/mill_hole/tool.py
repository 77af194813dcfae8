"""The numbers of an end mill in its chuck, in this metal and on this machine: for one pair, or for many at once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from cutting.operations.frame.in_metal import ONLY, pressure_outside, refuse_unrun, shut_in, stock_of_one
from cutting.operations.frame.pairs import Pairs
from cutting.operations.holes.mill_hole.setup import MillHoleSetup
from cutting.operations.holes.shared.in_chuck import in_chuck, own_numbers, play, seated
from cutting.tooling.mill_stock import MillStock
from cutting.tooling.mills import EndMill
from cutting.tooling.roles import Index
from cutting.wear.drilling import feed_row
from cutting.wear.milling import mill_feeds, mill_speeds

Array = NDArray[np.float64]
OF_PAIR = (
    "feed_low", "feed_high", "usual_pitch", "speed_low", "speed_high", "speed_factor", "taylor_exponent", "feed_exponent", "scatter",
    "serves", "burns",
)  # fmt: skip


@dataclass(frozen=True)
class MillTool(Pairs):
    """Every array has shape (pairs, 1) or (1,); lengths mm, angles °, money of one life. Windows are nan where nobody mills like that."""

    runout: Array
    grip: Array  # N·m
    feed_low: Array
    feed_high: Array
    usual_pitch: Array
    speed_low: Array
    speed_high: Array
    speed_factor: Array
    taylor_exponent: Array
    feed_exponent: Array
    coefficient_of_variation: Array
    toughness: Array
    serves: Array
    burns: Array
    side_use: Array
    seats: NDArray[np.bool_]


def mill_tools(setup: MillHoleSetup, stock: MillStock, left: Index, right: Index) -> MillTool:
    """The numbers of pairs of the stock's mills and chucks; shape (pairs, 1)."""
    own = own_numbers(stock.mill_columns, stock.chuck_columns, left, right)
    return MillTool(
        runout=own["chuck_runout"] + play(setup.machine),
        toughness=np.array([one.grade.toughness for one in stock.mills])[left][:, None],
        seats=seated(setup.machine, stock.chucks, right),
        **in_chuck(setup, stock.mills, [_of(setup, one) for one in stock.mills], OF_PAIR, own, left),
    )


def _of(setup: MillHoleSetup, mill: EndMill) -> dict[str, float]:
    """A mill in the metal: windows of feed and speed, law of life."""
    material, grade = setup.work.material, mill.grade
    letter = material.group.letter
    found = {"serves": float(letter in grade.letters), "burns": float(grade.coating == "diamond" and letter in "PMKH")}
    feeds, speeds = mill_feeds(grade.tool_class, mill.diameter, material), mill_speeds(mill.type, material)
    if feeds is None or speeds is None:
        return {**dict.fromkeys(OF_PAIR, float("nan")), **found}
    low, high, law = speeds
    return {
        **found,
        "feed_low": feeds[0],
        "feed_high": feeds[1],
        "usual_pitch": feeds[2],
        **shut_in(setup.work, grade, law, (low, high), pressure_outside(setup), setup.skin),
    }


@lru_cache(maxsize=64)
def single_tool(setup: MillHoleSetup) -> MillTool:
    """The numbers of the set-up's own tool, shape (1,). Raises `CuttingError` for a set-up that cannot be."""
    setup.check()
    tool = mill_tools(setup, stock_of_one(MillStock, setup.mill, setup.chuck), ONLY, ONLY).take(0)
    material, noun = setup.work.material, f"an end mill of {setup.mill.grade.tool_class}"
    refuse_unrun(tool, "mill", f"{noun} is not run in {material.name} ({feed_row(material)}).")
    return tool
