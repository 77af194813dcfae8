"""A hole in two or three steps: spot and drill, pilot and drill, drill and ream, drill and open with a core drill."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import replace
from typing import Any

from cutting.advice.candidate import Before, Candidate
from cutting.advice.contest import Contest
from cutting.advice.contests.drill import FURTHER, HEADS, PLACED, SPOT_DEPTH
from cutting.advice.rank import rank
from cutting.errors import CuttingError
from cutting.operations.holes.drill.limits import DEEP, LEANS, allowances, deeper_for_reamer
from cutting.operations.holes.drill.setup import DrillSetup, HoleEntry, HoleFeature
from cutting.quantities.dimension import Dimension
from cutting.quantities.write import Display, write
from cutting.tooling.drill_stock import DrillStock
from cutting.tooling.drills import Drill
from cutting.workpiece.stack import written

PILOT_DEEP = 2.0  # diameters of a pilot for a deep hole (common practice)
MOST_SIZES = 4  # drills before a reamer or core drill that are tried
FINE = 0.06  # mm of tolerance above which nobody reams (common practice)
NEAR = 1.0  # mm from the size of a step, beyond which no drill is looked at
KEPT = 3  # rows of each chain that are shown
WORDS = {"spot": "spot, drill", "pilot": "pilot, drill", "ream": "drill, ream", "core": "drill, open", "three": "spot, drill, ream"}


def chains(setup: DrillSetup, stock: DrillStock, contest: Contest, single: bool) -> list[Candidate]:
    """Rows of the chains that make the hole; `single` says that one drill alone does. Raises nothing: what cannot be is left out."""
    f, found = setup.feature, list[Candidate]()
    if f.pilot > 0 or f.chamfer > 0:
        return found
    tight = f.diameter.tolerance is not None and f.diameter.tolerance <= FINE
    if f.entry is HoleEntry.FLAT and (not single or f.entry_angle > 0):
        found += _two(setup, stock, contest, "spot", _spots(setup, stock))
    if setup.depth >= DEEP * f.diameter.nominal and f.entry is HoleEntry.FLAT:
        found += _two(setup, stock, contest, "pilot", _pilots(setup, stock))
    if tight or f.roughness is not None:
        found += _two(setup, stock, contest, "ream", _before(setup, stock, "reamer"))
    if f.diameter.nominal >= 10.0:
        found += _two(setup, stock, contest, "core", _before(setup, stock, "core drill"))
    if not single and not found and tight:
        found += _three(setup, stock, contest)
    return found


Steps = Iterator[tuple[DrillSetup, Callable[[Drill], bool], DrillSetup, Callable[[Drill], bool]]]


def only(stock: DrillStock, wanted: Callable[[Drill], bool]) -> DrillStock:
    """The stock with some of its drills."""
    return DrillStock(tuple(one for one in stock.drills if wanted(one)), stock.chucks)


def _with(setup: DrillSetup, **feature: Any) -> DrillSetup:
    return replace(setup, feature=replace(setup.feature, **feature))


def rough(setup: DrillSetup, diameter: float, **more: Any) -> DrillSetup:
    """The hole before its last step: another size, and nothing asked of its wall."""
    return _with(setup, diameter=Dimension(diameter, entered=f"{diameter:g} mm"), roughness=None, burr=None, asked_holes=None, **more)


_SQUARE: dict[str, Any] = {"exit_angle": 0.0, "cross_hole": 0.0}


def _spots(setup: DrillSetup, stock: DrillStock) -> Steps:
    """A spot drill first: on a leaning face it is judged there itself, and above its most nothing is spotted."""
    size = setup.feature.diameter.nominal
    if setup.feature.entry_angle > LEANS[-1][0]:
        return
    wide = sorted({one.diameter for one in stock.drills if one.type.spots}, key=lambda d: (d < size, abs(d - size)))
    for diameter in wide[:1]:
        first = rough(setup, diameter, depth=SPOT_DEPTH, through=False, stack=(), position=None, **_SQUARE)
        yield first, lambda one: one.type.spots, _with(setup, entry=HoleEntry.SPOTTED), lambda one: not one.type.enlarges


def _pilots(setup: DrillSetup, stock: DrillStock) -> Steps:
    size = setup.feature.diameter.nominal
    deep = PILOT_DEEP * size
    first = rough(setup, size, depth=deep, through=False, stack=(), position=None, straightness=None, exit_angle=0.0, cross_hole=0.0)
    yield (
        first,
        lambda one: not one.type.enlarges and one.reach < DEEP * size,
        _with(setup, entry=HoleEntry.SPOTTED),
        lambda one: not one.type.enlarges and one.reach >= setup.depth,
    )


def _before(setup: DrillSetup, stock: DrillStock, kind: str) -> Steps:
    """Drills that leave what a reamer or core drill takes."""
    size = setup.feature.diameter.nominal
    if not any(one.type.kind == kind and abs(one.diameter - size) <= NEAR for one in stock.drills):
        return
    low, high = (float(one) for one in allowances(size, kind == "reamer"))
    sizes = sorted({one.diameter for one in stock.drills if not one.type.enlarges and low <= size - one.diameter <= high}, reverse=True)
    f = setup.feature
    deeper = {"depth": f.depth + deeper_for_reamer(size)} if kind == "reamer" and not f.through and not f.stack else {}
    for diameter in sizes[:MOST_SIZES]:
        yield (
            rough(setup, diameter, **deeper),
            lambda one: one.type.opens,
            _with(setup, pilot=diameter, position=None, straightness=None),
            lambda one: one.type.kind == kind,
        )


def _two(setup: DrillSetup, stock: DrillStock, contest: Contest, name: str, steps: Steps) -> list[Candidate]:
    found: list[Candidate] = []
    for first, opens, last, closes in steps:
        opener = best(first, only(stock, opens), contest)
        if opener is None:
            continue
        for row in _rows(last, only(stock, closes), contest)[:KEPT]:
            found.append(_joined(setup, WORDS[name], ((first, opener),), last, row))
    return sorted(found, key=lambda row: row.cost)[:KEPT]


def drilled_after(
    setup: DrillSetup, stock: DrillStock, contest: Contest, way: str, opener: Candidate, kind: str, title: str
) -> list[Candidate]:
    """The hole drilled from a flat that a tool of another kind made: rows with both."""
    assert opener.becomes is not None
    last = _with(setup, entry_angle=0.0)
    found = [_joined(setup, way, ((setup, opener),), last, row) for row in _rows(last, only(stock, lambda one: one.type.opens), contest)]
    first = Before.by(opener, kind, title, opener.becomes["feature"])
    return [replace(row, before=(first,), becomes={"operation": setup.operation, "feature": {"entry_angle": "0°"}}) for row in found]


def _three(setup: DrillSetup, stock: DrillStock, contest: Contest) -> list[Candidate]:
    """Spot, drill, ream: where the drilled hole would lie too far off its place."""
    for first, opens, last, closes in _before(setup, stock, "reamer"):
        for spot, spots, drilled, _ in _spots(first, stock):
            spotter = best(spot, only(stock, spots), contest)
            second = best(drilled, only(stock, opens), contest)
            if spotter is None or second is None:
                continue
            for row in _rows(last, only(stock, closes), contest)[:1]:
                return [_joined(setup, WORDS["three"], ((spot, spotter), (drilled, second)), last, row)]
    return []


def _rows(setup: DrillSetup, stock: DrillStock, contest: Contest) -> list[Candidate]:
    size = setup.feature.diameter.nominal
    stock = only(stock, lambda one: abs(one.diameter - size) <= NEAR)
    if not stock.drills:
        return []
    try:
        return list(rank(setup, stock, contest, KEPT, misses=False).candidates)
    except CuttingError:
        return []


def best(setup: DrillSetup, stock: DrillStock, contest: Contest) -> Candidate | None:
    """The first choice for a step of a chain, None where nothing makes it."""
    return next(iter(_rows(setup, stock, contest)), None)


def _joined(setup: DrillSetup, way: str, before: tuple[tuple[DrillSetup, Candidate], ...], last: DrillSetup, row: Candidate) -> Candidate:
    """One row of a chain: its last tool, with what all steps take together and what comes before it."""
    steps = [one for _, one in before]
    every = [*steps, row]
    own: dict[str, Any] = {"entry": last.feature.entry.value}
    if last.feature.pilot:
        own["pilot"] = write(last.feature.pilot, "length")
    return replace(
        row,
        way=way,
        before=tuple(step(there, one) for there, one in before),
        becomes={"operation": setup.operation, "feature": own},
        more=_figures(way, steps, row, last.feature.pilot > 0),
        seconds=sum(one.seconds for one in every),
        cost=sum(one.cost for one in every),
        left_over=sum(one.left_over for one in every),
        secure=_product(one.secure for one in every),
        passes=len(every),
    )


def _figures(way: str, before: list[Candidate], row: Candidate, opened: bool) -> tuple[Display, ...]:
    """The last tool's, but that an opened hole lies where the drill before it went; and a pocket for each tool."""
    figures = dict(zip((*HEADS, *FURTHER), row.more, strict=True))
    if opened:
        drilled = dict(zip((*HEADS, *FURTHER), before[-1].more, strict=True))
        figures |= {name: drilled[name] for name in PLACED}
    pockets = str(len(before) + 1)
    figures |= {HEADS[0]: Display(way, way), "pockets": Display(pockets, pockets)}
    return tuple(figures.values())


def _product(values: Iterator[float]) -> float:
    found = 1.0
    for value in values:
        found *= value
    return found


def step(setup: DrillSetup, row: Candidate) -> Before:
    """A chain's step as an operation to come before."""
    f = setup.feature
    title = f"Spot Ø{f.diameter.nominal:g}" if f.depth == SPOT_DEPTH else f"Drill Ø{f.diameter.nominal:g}"
    return Before.by(row, setup.operation, title, _entries(f))


def _entries(f: HoleFeature) -> dict[str, Any]:
    """A step's feature as it is entered."""
    said: dict[str, Any] = {"diameter": write(f.diameter.nominal, "length"), "through": f.through, "entry": f.entry.value, "count": f.count}
    said |= {"stack": written(f.stack)} if f.stack else {"depth": write(f.depth, "length")}
    if f.circle is not None:
        said["circle"] = write(f.circle, "length")
    for name in ("entry_angle", "exit_angle"):
        if getattr(f, name):
            said[name] = write(getattr(f, name), "angle")
    if f.cross_hole:
        said["cross_hole"] = write(f.cross_hole, "length")
    return said
