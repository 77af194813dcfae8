"""Every way to make a hole in one ranked list: a drill alone, chains of two or three, a trepanned ring."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from cutting.advice.candidate import Candidate
from cutting.advice.contests import drill, trepan
from cutting.advice.contests.drill_chains import chains
from cutting.advice.rank import rank
from cutting.errors import CuttingError
from cutting.operations.holes.drill.setup import DrillSetup
from cutting.operations.slots.trepan.setup import TrepanFeature, TrepanSettings, TrepanSetup
from cutting.quantities.write import Display, write
from cutting.tooling.drill_stock import DrillStock

MOST_GUESTS = 3
LEAST_RING = 40.0  # mm below which nobody trepans (common practice)


def guests(setup: DrillSetup, stock: DrillStock, sound: bool) -> tuple[list[Candidate], str]:
    """Chains, and the best heads that cut the hole as a ring; or why none."""
    rings, why = _rings(setup, stock)
    return [*chains(setup, stock, drill.BARE, sound), *rings], why


def _rings(setup: DrillSetup, stock: DrillStock) -> tuple[list[Candidate], str]:
    f = setup.feature
    size = f.diameter.nominal
    if size < LEAST_RING or f.stack or "trepan" not in stock.guests or not f.through:
        return [], ""
    heads: Any = stock.guests["trepan"]()
    try:
        ring = TrepanSetup(
            work=setup.work,
            machine=setup.machine,
            insert=heads.inserts[0],
            blade=heads.blades[0],
            feature=TrepanFeature(size, f.depth, circle=f.circle, count=f.count),
            settings=TrepanSettings(100.0, 0.05, coolant=setup.settings.coolant),
            holding=setup.holding,
            house=setup.house,
            batch=setup.batch,
            goal=setup.goal,
            skin=setup.skin,
        )
        rows = rank(ring, heads, trepan.CONTEST, MOST_GUESTS).candidates
    except CuttingError as refused:
        return [], f"Trepanning does not compete: {refused.message}"
    if not rows:
        return [], "Trepanning does not compete: no head of the crib cuts this ring within its limits."
    drawn = {"keeps": "the hole", "diameter": write(size, "length"), "depth": write(f.depth, "length"), "count": f.count}
    if f.circle is not None:
        drawn["circle"] = write(f.circle, "length")
    way = "trepanned"
    more = (Display(way, way), *[Display("–", "–")] * (len(drill.HEADS) + len(drill.FURTHER) - 2), Display("1", "1"))
    return [replace(row, way=way, more=more, becomes={"operation": "trepan", "feature": drawn}) for row in rows], ""


CONTEST = replace(drill.BARE, guests=guests)
