"""How long it takes to rank 20,000 insert–holder pairs in one process."""

from __future__ import annotations

import time
from dataclasses import replace

from cutting.advice import advise
from cutting.doors.json_form import read_setup
from cutting.operations.frame.setup import Goal
from cutting.tooling.crib import Crib
from cutting.tooling.items import holders, inserts

PAIRS = 20_000
SETUP = {
    "operation": "turn",
    "material": "34CrNiMo6",
    "machine": "two-axis lathe",
    "tool": {"insert": "CNMG 120408 middle P20", "holder": "PCLNR 2525 M12"},
    "feature": {"start_diameter": 57, "end_diameter": 49, "length": 200, "distance_from_chuck": 20},
    "settings": {"cutting_speed": 185, "feed_per_rev": 0.28, "depth_of_cut": 2, "coolant": "jet"},
    "holding": {"style": "chuck and centre", "free_length": 268},
}


def crib_of(pairs: int, fitting_only: bool) -> Crib:
    """A crib with about so many pairs: the demo stock with prices that differ, so that no two rows are one."""
    setup = read_setup(SETUP)
    stock, seats = inserts(), holders()
    if fitting_only:  # the hardest case: every pair survives the exact rules
        letter = setup.work.material.group.letter
        seats = tuple(h for h in seats if h.code.shank_height == setup.machine.shank_height and "turn" in h.code.operations)
        stock = tuple(i for i in stock if letter in i.geometry.suits and letter in i.grade.letters)
    one = len(Crib(stock, seats).pairs[0])
    copies = -(-pairs // one)
    many = tuple(replace(i, name=f"{i.name} {k}", pack_price=i.pack_price * (1 + k / copies / 5)) for k in range(copies) for i in stock)
    return Crib(many, seats)


def measure() -> list[str]:
    lines = []
    for fitting_only in (False, True):
        crib = crib_of(PAIRS, fitting_only)
        for goal in Goal:
            setup = replace(read_setup(SETUP), goal=goal)
            advise(setup, crib)
            times = []
            for _ in range(5):
                start = time.perf_counter()
                advice = advise(setup, crib)
                times.append(time.perf_counter() - start)
            lines.append(
                f"rank {advice.pairs} pairs, {advice.fitting} that fit, {goal.value}: "
                f"median {sorted(times)[2]:.3f} s, range {min(times):.3f} to {max(times):.3f} s (wanted below 0.5 s)"
            )
    return lines
