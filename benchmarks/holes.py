"""Holes: ranking 20,000 pairs of drill and chuck, an evaluation and the window map of a stack of eight layers."""

from __future__ import annotations

import statistics
import time
from dataclasses import replace
from typing import Any

from benchmarks.ranking import bare_seconds
from benchmarks.sizes import FULL, Sizes
from cutting.advice import advise
from cutting.operations.holes.drill.evaluate import MODEL
from cutting.operations.holes.drill.window import window
from cutting.operations.registry import evaluate, explore
from cutting.tooling.drill_stock import DrillStock
from cutting.tooling.drills import Drill
from tests.core.holes import HOLE, STACK, asked, hole

EIGHT = "GFRP 2 / 1.4301 1 / EN AW-2024 2 / GFRP 2 / 1.4301 1 / EN AW-2024 2 / GFRP 1 / EN AW-5083 2"


def stock_of(pairs: int, whole: DrillStock, fitting: bool) -> DrillStock:
    """The demo's drills with prices that differ; `fitting`: only those of the hole's size and its machine, the hardest case."""
    drills: tuple[Drill, ...] = whole.drills
    chucks = whole.chucks
    if fitting:
        drills = tuple(one for one in drills if one.diameter == 8.5 and not one.step and one.grade.main_letter == "P")
        chucks = tuple(one for one in chucks if one.sits_in == "BT40")
    copies = -(-pairs // len(DrillStock(drills, chucks).places[0]))
    many = tuple(replace(one, name=f"{one.name} {k}", price=one.price * (1 + k / copies / 5)) for k in range(copies) for one in drills)
    return DrillStock(many, chucks)


def measure(site: str = "", sizes: Sizes = FULL) -> list[str]:
    setup, stock = asked(HOLE, feature={"diameter": "8.5 mm"})
    found = [_ranked(name, setup, stock_of(sizes.pairs, stock, fit), sizes) for name, fit in (("as it stands", False), ("all fit", True))]
    eight = hole(STACK, feature={"stack": EIGHT})
    calls: tuple[tuple[str, Any, str], ...] = (
        ("window map of eight layers, 60 × 60", lambda: window(eight), "150 ms"),
        ("outcome and way over depth of eight layers", lambda: (evaluate(eight), explore(eight)), "25 ms at the door"),
        ("numbers of eight layers alone", lambda: MODEL.quickly(eight), ""),
    )
    for name, call, wanted in calls:
        call()
        times = sorted(_seconds(call) for _ in range(4 * sizes.repeats))
        found.append(f"{name}: median {1000 * statistics.median(times):.1f} ms, worst {1000 * times[-1]:.1f} ms (wanted {wanted or '–'})")
    return found


def _ranked(name: str, setup: Any, stock: DrillStock, sizes: Sizes) -> str:
    advice = advise(setup, stock)
    times = sorted(_seconds(lambda: advise(setup, stock)) for _ in range(sizes.repeats))
    bare = sorted(bare_seconds(setup, stock) for _ in range(sizes.repeats))[sizes.repeats // 2]
    middle = times[len(times) // 2]
    return (
        f"rank {advice.pairs} pairs for a hole, {name}, {advice.fitting} that fit: median {middle:.3f} s, worst {times[-1]:.3f} s "
        f"(wanted below 0.5 s and 3 × the bare arithmetic), {middle / max(bare, 1e-9):.1f} × the bare arithmetic"
    )


def _seconds(call: Any) -> float:
    start = time.perf_counter()
    call()
    return time.perf_counter() - start
