"""Holes that an end mill makes, under the heads of the drills with which it competes."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from cutting.advice.candidate import Candidate
from cutting.advice.contests import drill, mill_hole
from cutting.advice.rank import rank
from cutting.errors import CuttingError
from cutting.machine.spindle import DRIVEN
from cutting.operations.holes.drill.setup import DrillSetup, HoleEntry
from cutting.operations.holes.mill_hole.setup import MillHoleSettings, MillHoleSetup
from cutting.quantities.write import Display, write
from cutting.tooling.drill_stock import DrillStock

MOST_MILLS = 6


def milled(setup: DrillSetup, stock: DrillStock) -> tuple[list[Candidate], str]:
    """End mills down a helix or straight, with what a driven spindle or a machining centre gives; or why none."""
    f, machine = setup.feature, setup.machine
    if f.stack or f.cross_hole > 0 or machine.fixed or "mill hole" not in stock.guests:
        return [], ""
    if machine.turns and not machine.has(DRIVEN):
        return [], f"Milling not considered: {machine.name} has no driven tools."
    crib: Any = stock.guests["mill hole"]()
    if not (crib.mills and crib.chucks):
        return [], ""
    try:
        milled = MillHoleSetup(
            work=setup.work,
            machine=machine.on(DRIVEN) if machine.turns else machine,
            mill=crib.mills[0],
            chuck=crib.chucks[0],
            feature=replace(f, entry=HoleEntry.FLAT, straightness=None, burr=None, asked_holes=None, span=0.0),
            # a cut to start from; what is tried replaces it
            settings=MillHoleSettings(60.0, 0.02, setup.settings.coolant),
            holding=setup.holding,
            house=setup.house,
            batch=setup.batch,
            goal=setup.goal,
            skin=setup.skin,
        )
        rows = rank(milled, crib, mill_hole.CONTEST, MOST_MILLS, False).candidates
    except CuttingError as refused:
        return [], f"Milling not considered: {refused.message}"
    return [as_milled(setup, row) for row in rows], "" if rows else "Milling not considered: no end mill of the crib makes this hole."


def as_milled(setup: DrillSetup, row: Candidate) -> Candidate:
    """A row of a mill under the drills' heads."""
    f = setup.feature
    own = dict(zip((*mill_hole.HEADS, *mill_hole.FURTHER), row.more, strict=True))
    way = own["way"].metric
    told = {
        "way": Display(way, way),
        "IT": own["IT"],
        "Ra": own["Ra"],
        "torque": own["torque"],
        "position, zone Ø": own["position, zone Ø"],
    }
    told |= {"pockets": Display("1", "1"), "drills for 100 holes": own["mills for 100 holes"]}
    drawn: dict[str, Any] = {
        "diameter": f.diameter.entered or write(f.diameter.nominal, "length"),
        "depth": write(f.depth, "length"),
        "through": f.through,
        "flat": f.flat,
        "count": f.count,
    }
    drawn |= {name: write(value, "length") for name in ("pilot", "chamfer", "position", "circle") if (value := getattr(f, name))}
    if f.entry_angle:
        drawn["entry_angle"] = write(f.entry_angle, "angle")
    if f.roughness is not None:
        drawn["roughness"] = f"{f.roughness:g} µm"
    return replace(
        row,
        way=way,
        more=tuple(told.get(name, Display("–", "–")) for name in (*drill.HEADS, *drill.FURTHER)),
        becomes={"operation": "mill hole", "feature": drawn},
    )
