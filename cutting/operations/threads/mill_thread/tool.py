"""The numbers of a thread mill in its chuck, in this metal and on this machine: for one pair, or for many at once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from cutting.operations.frame.in_metal import ONLY, pressure_outside, refuse_unrun, shut_in, stock_of_one
from cutting.operations.frame.pairs import Pairs
from cutting.operations.holes.shared.in_chuck import in_chuck, own_numbers, play, seated
from cutting.operations.threads.mill_thread.setup import MillThreadSetup, cuts
from cutting.operations.threads.shared.core_hole import usual_hole
from cutting.tooling.roles import Index
from cutting.tooling.thread_mill_stock import ThreadMillStock
from cutting.tooling.thread_mills import ThreadMill
from cutting.wear.drilling import feed_row
from cutting.wear.milling import ALUMINIUM_FROM, ALUMINIUM_TOP, mill_feeds, milling_law

Array = NDArray[np.float64]
OF_PAIR = (
    "feed_low", "feed_high", "speed_low", "speed_high", "speed_factor", "taylor_exponent", "feed_exponent", "scatter", "serves", "cuts",
    "hole", "covers",
)  # fmt: skip


@dataclass(frozen=True)
class ThreadMillTool(Pairs):
    """Every array has shape (pairs, 1) or (1,); lengths mm, angles °, money of one life. Windows are nan where nobody mills like that.

    `hole` is what it finds, 0 where it makes its own; `covers` how many of the usual sizes of threads it cuts.
    """

    runout: Array
    grip: Array
    feed_low: Array
    feed_high: Array
    speed_low: Array
    speed_high: Array
    speed_factor: Array
    taylor_exponent: Array
    feed_exponent: Array
    coefficient_of_variation: Array
    toughness: Array
    serves: Array
    side_use: Array
    cuts: Array
    hole: Array
    covers: Array
    seats: NDArray[np.bool_]


def thread_mill_tools(setup: MillThreadSetup, stock: ThreadMillStock, left: Index, right: Index) -> ThreadMillTool:
    """The numbers of pairs of the stock's mills and chucks; shape (pairs, 1)."""
    own = own_numbers(stock.mill_columns, stock.chuck_columns, left, right)
    return ThreadMillTool(
        runout=own["chuck_runout"] + play(setup.machine),
        toughness=np.array([one.grade.toughness for one in stock.mills])[left][:, None],
        seats=seated(setup.machine, stock.chucks, right),
        **in_chuck(setup, stock.mills, [_of(setup, one) for one in stock.mills], OF_PAIR, own, left),
    )


def _of(setup: MillThreadSetup, mill: ThreadMill) -> dict[str, float]:
    """A mill in the metal: windows of feed and speed, law of life, what it finds and what else it cuts."""
    material, grade, made, f = setup.work.material, mill.grade, mill.type, setup.feature
    letter = material.group.letter
    hole = 0.0 if made.opens and f.there <= 0 else f.there or usual_hole(f.thread, False)
    found = {"serves": float(letter in grade.letters), "cuts": float(cuts(mill, f)), "hole": hole, "covers": float(sizes_covered(mill))}
    feeds, law = mill_feeds(grade.tool_class, mill.diameter, material), milling_law(material, made.tool_class)
    if feeds is None or law is None:
        return {**dict.fromkeys(OF_PAIR, float("nan")), **found}
    low, high = made.speed_low * law.reference_speed, made.speed_high * law.reference_speed
    if feed_row(material) == "aluminium":
        low, high = min(low, ALUMINIUM_FROM * ALUMINIUM_TOP), min(high, ALUMINIUM_TOP)
    return {
        **found,
        "feed_low": made.feed * feeds[0],
        "feed_high": made.feed * feeds[1],
        **shut_in(setup.work, grade, law, (low, high), pressure_outside(setup), setup.skin),
    }


USUAL = ((3, 0.5), (4, 0.7), (5, 0.8), (6, 1.0), (8, 1.25), (8, 1.0), (10, 1.5), (10, 1.0), (12, 1.75), (12, 1.5), (16, 2.0), (16, 1.5),
         (20, 2.5), (20, 1.5), (24, 3.0), (24, 2.0), (30, 3.5), (36, 4.0))  # fmt: skip
WIDEST = 0.77  # of a thread's diameter that a mill takes up at most, so that it cuts away little of the flanks (common practice: ⅔ to ¾)


@lru_cache(maxsize=1024)
def sizes_covered(mill: ThreadMill) -> int:
    """How many of the usual metric threads a mill cuts."""
    if mill.thread is not None:
        return 1
    # a hair beyond: sizes are told as people ask for them
    return sum(1 for d, p in USUAL if mill.pitch_low - 1e-3 <= p <= mill.pitch_high + 1e-3 and mill.diameter <= (WIDEST + 0.03) * d)


@lru_cache(maxsize=64)
def single_tool(setup: MillThreadSetup) -> ThreadMillTool:
    """The numbers of the set-up's own tool, shape (1,). Raises `CuttingError` for a set-up that cannot be."""
    setup.check()
    tool = thread_mill_tools(setup, stock_of_one(ThreadMillStock, setup.mill, setup.chuck), ONLY, ONLY).take(0)
    material, noun = setup.work.material, f"a thread mill of {setup.mill.grade.tool_class}"
    refuse_unrun(tool, "mill", f"{noun} is not run in {material.name} ({feed_row(material)}).")
    return tool
