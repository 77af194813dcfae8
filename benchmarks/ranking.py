"""How long it takes to rank 20,000 pairs of insert and holder in one process, kind by kind, against the bare arithmetic on them."""

from __future__ import annotations

import time
from dataclasses import replace
from typing import Any

import numpy as np

from benchmarks.sizes import FULL, Sizes
from cutting.advice import advise
from cutting.advice.best import Best
from cutting.advice.contests import CONTESTS
from cutting.doors.json_form import read_request, read_setup
from cutting.operations.frame.setup import Goal
from cutting.tooling.bought import shipped
from cutting.tooling.crib import Crib
from cutting.tooling.items import holders, inserts
from cutting.tooling.mill_stock import MillStock
from cutting.tooling.slot_stock import SlotStock
from cutting.working import Silent
from tests.core.bores import bore
from tests.core.mills import milled
from tests.core.slots import CUT_OFF, FACE, GROOVE, RING, TREPAN
from tests.core.thread_setups import MILL, TAP
from tests.core.thread_setups import TURN as TURN_THREAD

TURN: dict[str, Any] = {
    "operation": "turn",
    "material": "34CrNiMo6",
    "machine": "two-axis lathe",
    "tool": {"insert": "CNMG 120408 middle P20", "holder": "PCLNR 2525 M12"},
    "feature": {"start_diameter": 57, "end_diameter": 49, "length": 200, "distance_from_chuck": 20},
    "settings": {"cutting_speed": 185, "feed_per_rev": 0.28, "depth_of_cut": 2, "coolant": "jet"},
    "holding": {"style": "chuck and centre", "free_length": 268},
}
FIELDS = {"tap": "taps", "mill": "mills", "insert": "inserts"}  # of a stock, by role
SLOTS = (("cut off", CUT_OFF, "cut-off blade"), ("wide groove", GROOVE, "cut-off blade"), ("ring groove", RING, "cut-off blade"),
         ("face groove", FACE, "face groove blade"), ("trepan", TREPAN, "trepanning head"))  # fmt: skip


def crib_of(pairs: int, fitting_only: bool) -> Crib:
    """A crib with about so many pairs: the demo stock with prices that differ, so that no two rows are one."""
    setup = read_setup(TURN)
    stock, seats = inserts(), holders()
    if fitting_only:  # the hardest case: every pair survives the exact rules
        letter = setup.work.material.group.letter
        seats = tuple(h for h in seats if h.code.shank_height == setup.machine.shank_height and "turn" in h.code.operations)
        stock = tuple(i for i in stock if letter in i.geometry.suits and letter in i.grade.letters)
    copies = -(-pairs // len(Crib(stock, seats).places[0]))
    many = tuple(replace(i, name=f"{i.name} {k}", pack_price=i.pack_price * (1 + k / copies / 5)) for k in range(copies) for i in stock)
    return Crib(many, seats)


def bars_of(pairs: int) -> Crib:
    """About so many pairs of insert and boring bar that fit the bore of the tests."""
    letter, bars = "P", shipped("boring bar")
    stock = [i for i in inserts() if letter in i.geometry.suits and letter in i.grade.letters]
    copies = -(-pairs // len(Crib(tuple(stock), bars).places[0]))
    many = (replace(i, name=f"{i.name} {k}", pack_price=i.pack_price * (1 + k / copies / 5)) for k in range(copies) for i in stock)
    return Crib(tuple(many), bars)


def mills_of(pairs: int) -> MillStock:
    """About so many pairs of end mill and chuck that run round in the seat of the tests, in a chuck that sits on its machine."""
    mills = tuple(one for one in shipped("end mill") if 12 <= one.diameter <= 20 and one.reach >= 20 and "P" in one.grade.letters)
    chucks = tuple(one for one in shipped("drill chuck") if one.sits_in == "BT40")
    copies = -(-pairs // len(MillStock(mills, chucks).places[0]))
    many = (replace(one, name=f"{one.name} {k}", price=one.price * (1 + k / copies / 5)) for k in range(copies) for one in mills)
    return MillStock(tuple(many), chucks)


def stock_of(pairs: int, kind: str) -> SlotStock:
    """The same of grooving inserts and their blades."""
    whole = SlotStock(shipped("grooving insert"), shipped(kind))
    copies = -(-pairs // len(whole.places[0]))
    many = (replace(i, name=f"{i.name} {k}", price=i.price * (1 + k / copies / 5)) for k in range(copies) for i in whole.inserts)
    return SlotStock(tuple(many), whole.blades)


def threads_of(pairs: int, setup: Any, stock: Any) -> Any:
    """About so many pairs of threading tools that make the thread of the tests: those of one role, many times over."""
    role, *_ = stock.parts.items()
    fits = tuple(stock.parts[role[0]][int(k)] for k in dict.fromkeys(CONTESTS[setup.operation].enter(setup, stock).edges.tolist()))
    copies = -(-pairs // len(replace(stock, **{FIELDS[role[0]]: fits}).places[0]))
    many = tuple(replace(one, name=f"{one.name} {k}", price=one.price * (1 + k / copies / 5)) for k in range(copies) for one in fits)
    return replace(stock, **{FIELDS[role[0]]: many})


def _threads(sizes: Sizes) -> list[tuple[str, Any, Any]]:
    found = []
    for name, form in (("tapped thread", TAP), ("milled thread", MILL), ("turned thread", TURN_THREAD)):
        asked = {key: value for key, value in form.items() if key not in ("tool", "settings")}
        setup, stock = read_request(asked)
        found.append((name, setup, threads_of(sizes.pairs, setup, replace(stock, guests={}))))
    return found


def measure(site: str = "", sizes: Sizes = FULL) -> list[str]:
    cases: list[tuple[str, Any, Any]] = [
        ("turn", read_setup(TURN), crib_of(sizes.pairs, False)),
        ("turn, all fit", read_setup(TURN), crib_of(sizes.pairs, True)),
        ("bore", bore(), bars_of(sizes.pairs)),
        ("milled hole, all fit", milled(), mills_of(sizes.pairs)),
        *_threads(sizes),
        *((name, read_setup(form), stock_of(sizes.pairs, kind)) for name, form, kind in SLOTS),
    ]
    return [_line(name, replace(setup, goal=goal), stock, sizes) for name, setup, stock in cases for goal in list(Goal)[: sizes.goals]]


def _line(name: str, setup: Any, stock: Any, sizes: Sizes) -> str:
    advice = advise(setup, stock)
    times, bare = [], []
    for _ in range(sizes.repeats):
        times.append(_seconds(lambda: advise(setup, stock)))
        bare.append(bare_seconds(setup, stock))
    middle, arithmetic = sorted(times)[len(times) // 2], sorted(bare)[len(bare) // 2]
    return (
        f"rank {advice.pairs} pairs for {name}, {advice.fitting} entries that fit, {setup.goal.value}: median {middle:.3f} s, range "
        f"{min(times):.3f} to {max(times):.3f} s (wanted below 0.5 s), {middle / max(arithmetic, 1e-9):.1f} × the bare arithmetic"
    )


def _seconds(call: Any) -> float:
    start = time.perf_counter()
    call()
    return time.perf_counter() - start


def bare_seconds(setup: Any, stock: Any) -> float:
    """Seconds of the numbers alone, over the feeds of every entry at one speed each."""
    contest = CONTESTS[setup.operation]
    field = contest.enter(setup, stock)
    best, total = Best.empty(field.count), 0.0
    for rows, tried in contest.tries(setup, field, best, slice(0, field.count)):
        tool = field.tool.take(rows)
        feeds = contest.feeds(tried, tool)[0][..., None]
        wide = tool.take(np.s_[:, None])
        total += _seconds(lambda t=tried, w=wide, f=feeds: contest.model.numbers(t, w, np.full_like(f, 100.0), f, Silent()))
    return total
