"""Every way to make a hole in one ranked list: a drill alone, chains of two or three, drilled and bored, milled, a trepanned ring."""

from __future__ import annotations

import math
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import replace
from typing import Any

from cutting.advice.candidate import Before, Candidate
from cutting.advice.contests import bore, drill, trepan
from cutting.advice.contests.drill_chains import best, chains, drilled_after, only, rough, step
from cutting.advice.contests.hole_milled import milled
from cutting.advice.contests.turned import turned_for
from cutting.advice.rank import rank
from cutting.advice.score import score_of
from cutting.errors import CuttingError
from cutting.operations.holes.bore.head import as_head, clamped
from cutting.operations.holes.drill.limits import LEANS
from cutting.operations.holes.drill.setup import DrillSetup, HoleEntry
from cutting.operations.slots.trepan.setup import TrepanFeature, TrepanSettings, TrepanSetup
from cutting.operations.turned.feature import Bore
from cutting.operations.turned.setup import Setup
from cutting.quantities.write import Display, display, write
from cutting.tooling.drill_stock import DrillStock

MOST_GUESTS = 3
FLAT_ROOM = 0.3  # mm that a flat goes below the lowest of a leaning face (common practice)
BORED_FROM = 0.08  # mm of tolerance above which a drill alone is thought of (common practice)
LEAST_BORED = 14.0  # mm below which hardly a bar enters (common practice)
FINE_LEFT = 0.8  # mm on the diameter that a mill leaves to a fine head (common practice)
LEFT = (0.6, 5.0)  # mm on the diameter that a drill leaves to a bar (common practice)
MOST_DRILLS = 3  # sizes that are looked at before a bar
WIDE = 24.0  # mm from which a hole may be opened from a much narrower one, whatever is asked of it (common practice)
OPENED_FROM = (0.7, 0.5)  # shares of a wide hole's diameter that are drilled before a bar takes the rest (common practice)
BORE_ROOM, WALL = 10.0, 1.5  # mm that the part stands out further; × the bore: its outside where that is not known
HARD_DEEP = 3.0  # diameters that solid carbide drills in hardened metal (common practice)
LEAST_RING = 40.0  # mm below which nobody trepans (common practice)


def guests(setup: DrillSetup, stock: DrillStock, sound: bool) -> tuple[list[Candidate], str]:
    """Chains, and the best heads that cut the hole as a ring; or why none."""
    rings, why = _rings(setup, stock)
    mills, no_mill = milled(setup, stock)
    made = [*chains(setup, stock, drill.BARE, sound), *_flat_first(setup, stock), *_bored(setup, stock), *_backed(setup, stock, sound)]
    hard = "" if made or mills or sound else _hardened(setup)
    return [*made, *mills, *rings], " ".join(one for one in (hard, why, no_mill) if one)


def _hardened(setup: DrillSetup) -> str:
    """What people do where a hole in hardened metal wants more than a solid carbide drill leaves; blank in what is softer."""
    if setup.work.material.group.letter != "H":
        return ""
    deep = setup.depth / setup.feature.diameter.nominal
    far = f" this one is {deep:.1f} × D;" if deep > HARD_DEEP else ""
    return (
        f"Hardened: solid carbide drills it to {HARD_DEEP:g} × D without a fit;{far} else drill before hardening and grind, hone or"
        " hard-bore to size afterwards, or erode it."
    )


def _backed(setup: DrillSetup, stock: DrillStock, sound: bool) -> list[Candidate]:
    """A laminate with a plate behind it, where nothing leaves it whole without one."""
    if sound or not setup.may_split:
        return []
    held = replace(setup, feature=replace(setup.feature, backed=True))
    feature = {
        "diameter": setup.feature.diameter.entered or write(setup.feature.diameter.nominal, "length"),
        "depth": write(setup.feature.depth, "length"), "through": True, "backed": True,
    }  # fmt: skip
    rows = rank(held, stock, drill.BARE, MOST_GUESTS, False).candidates
    return [replace(row, way="backed by a plate", becomes={"operation": "drill", "feature": feature}) for row in rows]


def _flat_first(setup: DrillSetup, stock: DrillStock) -> list[Candidate]:
    """A steep face gets a flat by an end mill, and the drill begins on that."""
    f = setup.feature
    if f.entry_angle <= LEANS[-1][0] or f.entry is not HoleEntry.FLAT or f.circle is not None:
        return []
    size = f.diameter.nominal
    deep = round(size * math.tan(math.radians(f.entry_angle)) + FLAT_ROOM, 1)
    flat = rough(setup, size, depth=deep, through=False, flat=True, entry_angle=0.0, exit_angle=0.0, cross_hole=0.0, position=None)
    rows, _ = milled(flat, stock)
    if not rows:
        return []
    return drilled_after(setup, stock, drill.BARE, "flat, drill", rows[0], "mill hole", f"Flat Ø{size:g}")


def _bored(setup: DrillSetup, stock: DrillStock) -> list[Candidate]:
    """Drilled smaller and bored to size, on the axis of a turning part or by a head that turns, where the drawing asks for more."""
    f, size = setup.feature, setup.feature.diameter.nominal
    asks = (f.diameter.tolerance or 1.0) <= BORED_FROM or f.roughness is not None or f.position is not None
    alone = f.circle is None and f.count == 1 and not f.stack and f.pilot <= 0 and (f.through or not f.flat) and not setup.machine.fixed
    if not ((asks or size >= WIDE) and alone and size >= LEAST_BORED) or "bore" not in stock.guests:
        return []
    found: list[Candidate] = []
    crib: Any = stock.guests["bore"]()
    tried = [
        min(opened, key=lambda one: score_of(setup, one[2]))  # of sizes that leave alike much the one that is opened for least
        for sizes in _drilled_first(size, sorted({one.diameter for one in stock.drills if one.type.opens}))
        if (opened := list(_opened(setup, stock, sizes)))
    ]
    for diameter, first, opener in tried:
        if found:  # a smaller drill is for a machine that lacks the power for a wide one
            break
        with suppress(CuttingError):  # a bore that cannot be is no way
            bored = _bore_after(setup, diameter, crib)
            found += [
                _opened_first(setup, bored, "drill, bore", step(first, opener), opener, row)
                for row in rank(bored, crib, bore.CONTEST, MOST_GUESTS, False).candidates
            ]
    if not setup.machine.turns:
        found += _milled_first(setup, stock, crib)
    return sorted(found, key=lambda row: score_of(setup, row))[:MOST_GUESTS]


def _opened(setup: DrillSetup, stock: DrillStock, sizes: list[float]) -> Iterator[tuple[float, DrillSetup, Candidate]]:
    """The drilled hole of each size [mm] with the best drill for it; what none opens is left out."""
    for diameter in sizes:
        first = rough(setup, diameter, position=None, straightness=None)
        if (opener := best(first, only(stock, lambda one: one.type.opens), drill.BARE)) is not None:
            yield diameter, first, opener


def _drilled_first(size: float, drills: list[float]) -> tuple[list[float], list[float]]:
    """Sizes [mm] that a drill opens for a bar: some that leave it a cut; and for a wide hole such that take less power."""
    near = [one for one in drills if LEFT[0] <= size - one <= LEFT[1]][: -MOST_DRILLS - 1 : -1]
    if size < WIDE:
        return near, []
    narrow = (max((one for one in drills if one <= share * size), default=0.0) for share in OPENED_FROM)
    return near, [one for one in narrow if one >= LEAST_BORED]


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
    return turned_for(setup, crib, feature, "bore", machine=as_head(setup.machine), holding=held)


def _milled_first(setup: DrillSetup, stock: DrillStock, crib: Any) -> list[Candidate]:
    """A helix to some tenths below the size, whatever the size is, and a fine head after it."""
    size = setup.feature.diameter.nominal - FINE_LEFT
    opened = rough(setup, size, position=None, straightness=None)
    rows, _ = milled(opened, stock)
    if not rows:
        return []
    opener, found = rows[0], list[Candidate]()
    assert opener.becomes is not None
    first = Before.by(opener, "mill hole", f"Mill Ø{size:g}", opener.becomes["feature"])
    with suppress(CuttingError):
        bored = _bore_after(setup, size, crib)
        found = [
            _opened_first(setup, bored, "mill, bore", first, opener, row)
            for row in rank(bored, crib, bore.CONTEST, MOST_GUESTS, False).candidates
        ]
    return found


def _opened_first(setup: DrillSetup, bored: Setup, way: str, first: Before, opener: Candidate, row: Candidate) -> Candidate:
    """One row of what opens the hole and a bar, with what both take together; a bore lies where the spindle turns."""
    f = bored.feature
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
        before=(first,),
        becomes={"operation": "bore", "feature": feature},
        more=tuple(told.get(name, Display("–", "–")) for name in (*drill.HEADS, *drill.FURTHER)),
        seconds=row.seconds + opener.seconds,
        cost=row.cost + opener.cost,
        left_over=row.left_over + opener.left_over,
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
            # a cut to start from; what is tried replaces it
            settings=TrepanSettings(100.0, 0.05, coolant=setup.settings.coolant),
            holding=setup.holding,
            house=setup.house,
            batch=setup.batch,
            goal=setup.goal,
            skin=setup.skin,
        )
        rows = rank(ring, heads, trepan.CONTEST, MOST_GUESTS).candidates
    except CuttingError as refused:
        return [], f"Trepanning not considered: {refused.message}"
    if not rows:
        return [], "Trepanning not considered: no head of the crib cuts this ring within its limits."
    drawn = {"keeps": "the hole", "diameter": write(size, "length"), "depth": write(f.depth, "length"), "count": f.count}
    if f.circle is not None:
        drawn["circle"] = write(f.circle, "length")
    way = "trepanned"
    more = (Display(way, way), *[Display("–", "–")] * (len(drill.HEADS) + len(drill.FURTHER) - 2), Display("1", "1"))
    return [replace(row, way=way, more=more, becomes={"operation": "trepan", "feature": drawn}) for row in rows], ""


CONTEST = replace(drill.BARE, guests=guests)
