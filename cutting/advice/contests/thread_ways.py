"""What all ways to a thread share in their one ranked list: heads, the hole before it, and the other ways as guests."""

from __future__ import annotations

from collections.abc import Callable
from contextlib import suppress
from dataclasses import replace
from typing import Any

import numpy as np

from cutting.advice.candidate import Before, Candidate
from cutting.advice.contest import Contest
from cutting.advice.contests import drill
from cutting.advice.contests.drill_chains import best, only
from cutting.advice.rank import rank
from cutting.errors import CuttingError
from cutting.operations.holes.drill.setup import DrillSettings, DrillSetup, HoleFeature
from cutting.operations.threads.shared.core_hole import hole_window, usual_hole
from cutting.operations.threads.shared.feature import OPEN_END, ThreadFeature
from cutting.quantities.dimension import Dimension
from cutting.quantities.kinds import currency
from cutting.quantities.write import Display, write
from cutting.workpiece.threads.spelling import write_thread

HEADS = ("way", "covers", "pockets", "gauge", "at risk")
FURTHER = ("load", "hardest work, HRC", "tools for 100 threads", "reaches")
Opened = tuple[float, Candidate, DrillSetup, frozenset[str]]  # size, its drill, the hole, the names of drills with a step
MOST_GUESTS = 8
CHAMFER = 0.2  # mm by which the chamfer at a thread's mouth is wider (common practice)


def cells(
    way: str, covers: str, certainty: float, risk: Display, load: Display, hardest: float, price: Display, reach: Display
) -> tuple[Display, ...]:
    """A row under the shared heads."""
    plain = [Display(one, one) for one in (way, covers, "1", f"{100.0 * certainty:.1f} %")]
    return (*plain, risk, load, Display(f"{hardest:.0f}", f"{hardest:.0f}"), price, reach)


def at_risk(x: Any) -> Display:
    """Money at risk, to a tenth of a cent."""
    said = f"{float(np.max(x.at_risk)):.3f} {currency()}"
    return Display(said, said)


def hole_first(
    setup: Any, stock: Any, rows: list[Candidate], forms: Callable[[str], bool | None], chained: Callable[[Candidate], str]
) -> list[Candidate]:
    """Rows with the hole that they need drilled and chamfered before, where none is there; without what no drill of the crib opens.

    `forms` says of a tool's name whether it presses its thread, None where it opens its own hole; `chained` names the chain.
    """
    f: ThreadFeature = setup.feature
    if not f.internal or f.there > 0 or not rows:
        return rows
    opened: dict[bool, Opened | None] = {}
    found = []
    for row in rows:
        kind = forms(row.edge)
        if kind is None:
            found.append(row)
            continue
        if kind not in opened:
            opened[kind] = _opener(setup, stock, kind)
        if (hole := opened[kind]) is not None:
            found.append(_joined(row, *hole, chained(row), setup.operation))
    return found


def _opener(setup: Any, stock: Any, forms: bool) -> Opened | None:
    """The drill for the hole of a cut or a formed thread: the usual one, else another inside its limits; None where there is none."""
    if "drill" not in stock.guests:
        return None
    f: ThreadFeature = setup.feature
    drills: Any = stock.guests["drill"]()
    low, high = hole_window(f.thread, forms)
    usual = usual_hole(f.thread, forms)
    sizes = {one.diameter for one in drills.drills if low - 1e-6 <= one.diameter <= high + 1e-6 and one.type.opens}
    for size in sorted(sizes, key=lambda one: abs(one - usual))[:3]:
        step = _hole(setup, drills, size)
        with suppress(CuttingError):
            row = best(step, only(drills, lambda one: one.type.opens), drill.BARE)
            if row is not None:
                return size, row, step, frozenset(one.name for one in drills.drills if one.step > 0)
    return None


def _hole(setup: Any, drills: Any, size: float) -> DrillSetup:
    """The core hole as a drilled one, with its chamfer."""
    f: ThreadFeature = setup.feature
    deep = f.room if f.room < OPEN_END else f.length + 2.0 * f.thread.pitch
    return DrillSetup(
        work=setup.work,
        machine=setup.machine,
        drill=drills.drills[0],
        chuck=drills.chucks[0],
        feature=HoleFeature(
            Dimension(size, entered=f"{size:g} mm"),
            deep,
            through=f.through,
            chamfer=f.thread.diameter + CHAMFER,
            circle=f.circle,
            count=f.count,
        ),
        # a cut to start from; what is tried replaces it
        settings=DrillSettings(30.0, 0.05, setup.settings.coolant),
        holding=setup.holding,
        house=setup.house,
        batch=setup.batch,
        goal=setup.goal,
        skin=setup.skin,
    )


def _joined(
    row: Candidate, size: float, opener: Candidate, step: DrillSetup, stepped: frozenset[str], way: str, operation: str
) -> Candidate:
    """A row with the drill before it, and what both take together."""
    f = step.feature
    said: dict[str, Any] = {
        "diameter": write(size, "length"), "depth": write(f.depth, "length"), "through": f.through, "chamfer": write(f.chamfer, "length"),
        "count": f.count,
    }  # fmt: skip
    if f.circle is not None:
        said["circle"] = write(f.circle, "length")
    first = Before.by(opener, "drill", f"Drill Ø{size:g}, chamfer", said)
    pockets = "2" if opener.edge in stepped else "3"  # a step drill cuts the chamfer with its step
    more = dict(zip((*HEADS, *FURTHER), row.more, strict=True)) | {"way": Display(way, way), "pockets": Display(pockets, pockets)}
    return replace(
        row,
        way=way,
        before=(first,),
        becomes={"operation": operation, "feature": {}},  # what hole is there the part says when it is drilled
        more=tuple(more.values()),
        seconds=row.seconds + opener.seconds,
        cost=row.cost + opener.cost,
        left_over=row.left_over + opener.left_over,
        secure=row.secure * opener.secure,
    )


def drawn(f: ThreadFeature) -> dict[str, Any]:
    """A thread's entries, as another kind of operation is told of it."""
    said: dict[str, Any] = {
        "thread": write_thread(f.thread), "side": "inside" if f.internal else "outside", "length": write(f.length, "length"),
        "through": f.through, "count": f.count,
    }  # fmt: skip
    lengths = {"hole": f.hole, "relief": f.relief, "distance": f.distance, "circle": f.circle, "there": f.there if f.internal else None}
    return said | {name: write(value, "length") for name, value in lengths.items() if value}


def other_ways(
    builders: dict[str, tuple[Callable[[Any, Any], Any], Callable[[], Contest]]],
) -> Callable[[Any, Any, bool], tuple[list[Candidate], str]]:
    """Guests: every other way to the thread, each with its best tools, or why it not considered.

    `builders` make a kind's set-up from this one and its stock, and give its contest.
    """

    def guests(setup: Any, stock: Any, sound: bool) -> tuple[list[Candidate], str]:
        found, why = list[Candidate](), list[str]()
        for name, (build, contest) in builders.items():
            if name not in stock.guests:
                continue
            try:
                crib = stock.guests[name]()
                if not len(crib.places[0]):
                    continue
                there = build(setup, crib)
                crib = _with_drills(crib, stock)
                rows = rank(there, crib, contest(), MOST_GUESTS, False).candidates
            except CuttingError as refused:
                why.append(f"{TITLES[name]} not considered: {refused.message}")
                continue
            found += [_as_guest(there, name, row) for row in rows]
            if not rows:
                why.append(f"{TITLES[name]} not considered: no tool of the crib does it within its limits.")
        return found, " ".join([*why, *_noted(setup)])

    return guests


TITLES = {"tap": "Tapping", "mill thread": "Milling", "turn thread": "Turning"}


def _with_drills(crib: Any, stock: Any) -> Any:
    """A guest's stock with the drills that open its hole."""
    return replace(crib, guests={"drill": stock.guests["drill"]} if "drill" in stock.guests else {})


def _as_guest(setup: Any, name: str, row: Candidate) -> Candidate:
    own = (row.becomes or {}).get("feature", {})
    return replace(row, becomes={"operation": name, "feature": {**drawn(setup.feature), **own}})


def _noted(setup: Any) -> list[str]:
    """Ways that are not computed here, and when they are the right ones (common practice)."""
    f: ThreadFeature = setup.feature
    soft = setup.work.material.ductility >= 0.35
    if f.internal or f.thread.of.taper:
        return []
    said = ["A die cuts M3 to M12 by hand or in its head where size and straightness do not matter."]
    if soft and f.thread.system in ("metric", "unified"):
        said.append(
            "Rolled, a thread is a third stronger and takes seconds: worth a roller from some hundred pieces; blank Ø about the pitch Ø."
        )
    return said
