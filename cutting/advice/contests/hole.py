"""Every way to make a hole in one ranked list: a drill alone, chains of two or three, drilled and bored, milled, a trepanned ring."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import replace
from typing import Any

from cutting.advice.candidate import Candidate
from cutting.advice.contests import bore, drill, mill_hole, trepan
from cutting.advice.contests.drill_chains import best, chains, only, rough, step
from cutting.advice.rank import rank
from cutting.errors import CuttingError
from cutting.machine.spindle import DRIVEN
from cutting.operations.holes.bore.head import as_head, clamped
from cutting.operations.holes.drill.setup import DrillSetup, Entry
from cutting.operations.holes.mill_hole.setup import MillHoleSettings, MillHoleSetup
from cutting.operations.slots.trepan.setup import TrepanFeature, TrepanSettings, TrepanSetup
from cutting.operations.turned.feature import Bore, Settings
from cutting.operations.turned.setup import Setup
from cutting.quantities.write import Display, display, write
from cutting.tooling.drill_stock import DrillStock

MOST_GUESTS, MOST_MILLS = 3, 6
BORED_FROM = 0.08  # mm of tolerance above which a drill alone is thought of (common practice)
LEAST_BORED = 14.0  # mm below which hardly a bar enters (common practice)
LEFT = (0.6, 5.0)  # mm on the diameter that a drill leaves to a bar (common practice)
MOST_DRILLS = 2  # sizes that are tried before a bar
BORE_ROOM, WALL = 10.0, 1.5  # mm that the part stands out further; × the bore: its outside where that is not known
LEAST_RING = 40.0  # mm below which nobody trepans (common practice)


def guests(setup: DrillSetup, stock: DrillStock, sound: bool) -> tuple[list[Candidate], str]:
    """Chains, and the best heads that cut the hole as a ring; or why none."""
    rings, why = _rings(setup, stock)
    milled, no_mill = _milled(setup, stock)
    return [*chains(setup, stock, drill.BARE, sound), *_bored(setup, stock), *milled, *rings], " ".join(
        one for one in (why, no_mill) if one
    )


def _milled(setup: DrillSetup, stock: DrillStock) -> tuple[list[Candidate], str]:
    """End mills down a helix or straight, with what a driven spindle or a machining centre gives; or why none."""
    f, machine = setup.feature, setup.machine
    if f.stack or f.cross_hole > 0 or machine.fixed or "mill hole" not in stock.guests:
        return [], ""
    if machine.turns and not machine.has(DRIVEN):
        return [], f"Milling does not compete: {machine.name} has no driven tools."
    crib: Any = stock.guests["mill hole"]()
    if not (crib.mills and crib.chucks):
        return [], ""
    try:
        milled = MillHoleSetup(
            work=setup.work,
            machine=machine.on(DRIVEN) if machine.turns else machine,
            mill=crib.mills[0],
            chuck=crib.chucks[0],
            feature=replace(f, entry=Entry.FLAT, straightness=None, burr=None, asked_holes=None, span=0.0),
            settings=MillHoleSettings(60.0, 0.02, setup.settings.coolant),
            holding=setup.holding,
            house=setup.house,
            batch=setup.batch,
            goal=setup.goal,
            skin=setup.skin,
        )
        rows = rank(milled, crib, mill_hole.CONTEST, MOST_MILLS, False).candidates
    except CuttingError as refused:
        return [], f"Milling does not compete: {refused.message}"
    return [_as_milled(setup, row) for row in rows], "" if rows else "Milling does not compete: no end mill of the crib makes this hole."


def _as_milled(setup: DrillSetup, row: Candidate) -> Candidate:
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


def _bored(setup: DrillSetup, stock: DrillStock) -> list[Candidate]:
    """Drilled smaller and bored to size, on the axis of a turning part or by a head that turns, where the drawing asks for more."""
    f, size = setup.feature, setup.feature.diameter.nominal
    asks = (f.diameter.tolerance or 1.0) <= BORED_FROM or f.roughness is not None or f.position is not None
    alone = f.circle is None and f.count == 1 and not f.stack and f.pilot <= 0 and (f.through or not f.flat) and not setup.machine.fixed
    if not (asks and alone and size >= LEAST_BORED) or "bore" not in stock.guests:
        return []
    found: list[Candidate] = []
    crib: Any = stock.guests["bore"]()
    sizes = sorted({one.diameter for one in stock.drills if LEFT[0] <= size - one.diameter <= LEFT[1] and not one.type.enlarges})
    for diameter in reversed(sizes[-MOST_DRILLS:]):
        first = rough(setup, diameter, position=None, straightness=None)
        opener = best(first, only(stock, lambda one: not one.type.enlarges and not one.type.spots), drill.BARE)
        if opener is None:
            continue
        with suppress(CuttingError):  # a bore that cannot be is no way
            bored = _bore_after(setup, diameter, crib)
            found += [
                _drilled_first(setup, bored, first, opener, row) for row in rank(bored, crib, bore.CONTEST, MOST_GUESTS, False).candidates
            ]
    return sorted(found, key=lambda row: row.cost)[:MOST_GUESTS]


def _bore_after(setup: DrillSetup, diameter: float, crib: Any) -> Setup:
    """The bore that a drill of a diameter leaves to be finished."""
    f, long = setup.feature, setup.depth + BORE_ROOM
    feature = Bore(diameter, f.diameter, setup.depth, roughness=f.roughness)
    held = clamped(feature)
    if setup.machine.turns:
        held = replace(
            setup.holding,
            free_length=max(setup.holding.free_length, long),
            grip_diameter=max(setup.holding.grip_diameter, WALL * f.diameter.nominal),
        )
    return Setup(
        operation="bore",
        work=setup.work,
        machine=as_head(setup.machine),
        insert=crib.inserts[0],
        holder=crib.holders[0],
        feature=feature,
        settings=Settings(100.0, 0.1, 1.0, setup.settings.coolant),
        holding=held,
        house=setup.house,
        batch=setup.batch,
        goal=setup.goal,
        skin=setup.skin,
    )


def _drilled_first(setup: DrillSetup, bored: Setup, first: DrillSetup, opener: Candidate, row: Candidate) -> Candidate:
    """One row of drill and bar, with what both take together; a bore lies where the spindle turns, not where the drill went."""
    f, way = bored.feature, "drill, bore"
    told = {"way": Display(way, way), "Ra": display(row.roughness, "small_length", False), "pockets": Display("2", "2")}
    feature: dict[str, Any] = {
        "start_diameter": write(f.start_diameter, "length"),
        "end_diameter": f.end_diameter.entered or write(f.end_diameter.nominal, "length"),
    }
    feature |= {"length": write(f.length, "length"), "shoulder": not setup.feature.through}
    if f.roughness is not None:
        feature["roughness"] = f"{f.roughness:g} µm"
    return replace(
        row,
        way=way,
        before=(step(first, opener),),
        becomes={"operation": "bore", "feature": feature},
        more=tuple(told.get(name, Display("–", "–")) for name in (*drill.HEADS, *drill.FURTHER)),
        seconds=row.seconds + opener.seconds,
        cost=row.cost + opener.cost,
        secure=row.secure * opener.secure,
        passes=row.passes + 1,
    )


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
