"""The numbers of a threading insert in its holder, in this metal and on this machine: for one pair, or for many at once."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from cutting.mechanics.deflection import round_second_moment, shank_second_moment
from cutting.operations.frame.in_metal import ONLY, pressure_outside, refuse_unrun, shut_in, stock_of_one
from cutting.operations.frame.pairs import Pairs
from cutting.operations.threads.turn_thread.setup import TurnThreadSetup
from cutting.tooling.roles import Index
from cutting.tooling.thread_inserts import SHIMS, ThreadInsert
from cutting.tooling.thread_turn_stock import ThreadTurnStock
from cutting.wear.reference import life_law

Array = NDArray[np.float64]
# of the turning speed: the tip is weak and hot; ceramics of boron stand their own (common practice)
SHARES = {"carbide": (0.5, 0.85), "cermet": (0.5, 0.8), "hss": (0.35, 0.6), "cbn": (0.85, 1.3), "pcd": (0.5, 0.8), "ceramic": (0.4, 0.7)}
OF_PAIR = ("speed_low", "speed_high", "speed_factor", "taylor_exponent", "scatter", "serves", "cuts")


@dataclass(frozen=True)
class ThreadTool(Pairs):
    """Every array has shape (pairs, 1) or (1,); lengths mm, angles °, money of one edge. `lean` is the tilt that the seat should have."""

    speed_low: Array
    speed_high: Array
    speed_factor: Array
    taylor_exponent: Array
    coefficient_of_variation: Array
    toughness: Array
    serves: Array
    side_use: Array
    cuts: Array
    lean: Array
    tilt: Array
    overhang: Array
    second_moment: Array
    side: NDArray[np.bool_]  # inside or outside as the thread
    seats: NDArray[np.bool_]


def thread_tools(setup: TurnThreadSetup, stock: ThreadTurnStock, left: Index, right: Index, set_up: bool = False) -> ThreadTool:
    """The numbers of pairs of the stock's inserts and holders; shape (pairs, 1). `set_up` takes tilt and overhang as they are set."""
    rows = [_of(setup, one) for one in stock.inserts]
    found = {name: np.array([row[name] for row in rows], float)[left][:, None] for name in OF_PAIR}
    own = {name: values[left][:, None] for name, values in stock.insert_columns.items()}
    own |= {f"holder_{name}": values[right][:, None] for name, values in stock.holder_columns.items()}
    letter, f = setup.work.material.group.letter, setup.feature
    hands = np.array([-1.0 if one.hand == "L" else 1.0 for one in stock.holders])[right][:, None]
    lean = f.thread.lead_angle * hands * (-1.0 if f.thread.left_hand else 1.0)
    shims = np.array(SHIMS)
    nearest = shims[np.abs(lean - shims[None, :]).argmin(axis=1)][:, None]
    tilt = np.where(own["holder_shims"] > 0, nearest, own["holder_tilt"])
    inside = own["holder_internal"] > 0
    out = np.where(inside, np.maximum(own["holder_overhang"], f.length + 10.0), own["holder_overhang"])
    if set_up:
        tilt, out = tilt * 0.0 + setup.tilt, out * 0.0 + setup.overhang
    size = own["holder_height"]
    stiff = np.where(inside, round_second_moment(size), shank_second_moment(own["holder_width"], size))
    return ThreadTool(
        own=own,
        coefficient_of_variation=found.pop("scatter"),
        toughness=np.array([one.grade.toughness for one in stock.inserts])[left][:, None],
        side_use=np.array([float(one.grade.main_letter != letter) for one in stock.inserts])[left][:, None],
        lean=lean,
        tilt=tilt,
        overhang=out,
        second_moment=stiff,
        side=inside == f.internal,
        seats=setup.machine.takes_shank([one.height for one in stock.holders], [one.internal for one in stock.holders])[right][:, None],
        **found,
    )


def _of(setup: TurnThreadSetup, insert: ThreadInsert) -> dict[str, float]:
    """An insert in the metal: window of speed, law of life."""
    material, grade = setup.work.material, insert.grade
    letter = material.group.letter
    found = {"serves": float(letter in grade.letters), "cuts": float(insert.cuts(setup.feature.thread))}
    law = life_law(material.speed_row, grade.tool_class)
    if law is None:
        return {**dict.fromkeys(OF_PAIR, float("nan")), **found}
    low, high = SHARES[grade.tool_class]
    window = (low * law.reference_speed, high * law.reference_speed)
    return {**found, **shut_in(setup.work, grade, law, window, pressure_outside(setup), setup.skin)}


@lru_cache(maxsize=64)
def single_tool(setup: TurnThreadSetup) -> ThreadTool:
    """The numbers of the set-up's own tool, shape (1,). Raises `CuttingError` for a set-up that cannot be."""
    setup.check()
    tool = thread_tools(setup, stock_of_one(ThreadTurnStock, setup.insert, setup.holder), ONLY, ONLY, True).take(0)
    refuse_unrun(tool, "insert", f"{setup.insert.grade.tool_class} is not run in {setup.work.material.name}.")
    return tool
