"""First choices of holes and threads that nobody picked: sizes, depths, tolerances and metals drawn from ranges, on every machine.

The rules of sense are common practice, no source; each may be missed by few of the drawn cases.
"""

from __future__ import annotations

import math
import os
import random
from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from typing import Any

import pytest

from cutting.advice import advise
from cutting.doors.json_form import read_request
from cutting.errors import CuttingError
from cutting.machine.machines import machines
from cutting.operations.frame.outcome import Standing
from cutting.plan.choose import Pick, picks_for
from cutting.workpiece.materials import materials
from cutting.workpiece.threads.spelling import read_thread

SEED = os.environ.get("BENCH_SEED", "good sense")
HOLES, THREADS = 60, 40
MACHINES = [one for one in machines() if not one.fixed]
METALS = [one for one in materials() if one.group.letter in "PMKNS" and one.group.number < 36] + [
    one for one in materials() if one.group.number in (37, 38, 39)
]
MISSES = 0.025  # of the drawn cases that may miss a rule
LEAST_CLEARED = 15.0  # cm³/min that a drill clears of the hottest alloys (common practice)
TAPPED = (
    "M3", "M4", "M5", "M6", "M8", "M10", "M12", "M16", "M20", "M24", "M10x1", "M12x1.5", "1/4-20 UNC", "3/8-16 UNC", "1/2-13 UNC", "G1/4",
)  # fmt: skip


@dataclass(frozen=True)
class Case:
    """A case as it is asked, and what was found, the best first."""

    form: dict[str, Any]
    setup: Any
    picks: list[Pick]

    @property
    def first(self) -> Pick | None:
        """The first choice, where one may be taken."""
        return next((one for one in self.picks if one.can), None)

    def __str__(self) -> str:
        told = self.first or next(iter(self.picks), None)
        row = told and told.row
        if told is None or row is None:
            return f"{self.form}: nothing"
        steps = [(one.title, *one.tool.values()) for one in row.before]
        said = (told.standing.value, row.edge, row.way, steps, round(row.seconds, 1), round(row.cost, 2), round(row.secure, 2))
        return f"{self.form['material']} {self.form['machine']} {self.form['feature']}: {said}"


def _hole(chance: random.Random) -> dict[str, Any]:
    size = round(chance.choice((chance.uniform(1.0, 6.0), chance.uniform(4.0, 16.0), chance.uniform(12.0, 60.0))), 1)
    tolerance, through = chance.random(), chance.random() < 0.5
    if tolerance < 0.4:
        size = float(max(round(size), 3))
    deep = min(round(size * chance.choice((1.0, 2.0, 3.0, 5.0, 8.0)), 1), 200.0)
    fit = " H7" if tolerance < 0.25 else " H9" if tolerance < 0.4 else ""
    return {"operation": "drill", "feature": {"diameter": f"{size:g}{fit}", "depth": deep, "through": through}}


def _thread(chance: random.Random) -> dict[str, Any]:
    name = chance.choice(TAPPED)
    long = round(read_thread(name).diameter * chance.choice((1.0, 1.5, 2.0)), 1)
    return {"operation": "tap", "feature": {"thread": name, "side": "inside", "length": long, "through": chance.random() < 0.4}}


def _asked(chance: random.Random, form: dict[str, Any]) -> Case:
    metal, machine = chance.choice(METALS), chance.choice(MACHINES)
    feature = form["feature"]
    wide = read_thread(feature["thread"]).diameter if "thread" in feature else float(str(feature["diameter"]).split()[0])
    form |= {"material": metal.name, "machine": machine.name, "settings": {"coolant": machine.usual_coolant}, "batch": {"pieces": 50}}
    if machine.turns:
        long = float(feature.get("depth") or feature["length"])
        outside = min(max(3.0 * wide, wide + 10.0), machine.swing)
        form["holding"] = {"free_length": min(long + 25.0, machine.turning_length), "grip_diameter": outside}
    try:
        setup, crib = read_request(form)
        return Case(form, setup, picks_for(setup, crib, others=True, chains=True))
    except CuttingError as refused:
        pytest.fail(f"{form}: {refused}")


@cache
def drawn(kind: str) -> tuple[Case, ...]:
    """The cases of the seed."""
    chance = random.Random(f"{SEED} {kind}")
    make, count = (_hole, HOLES) if kind == "holes" else (_thread, THREADS)
    return tuple(_asked(chance, make(chance)) for _ in range(count))


def hard(case: Case) -> bool:
    return case.setup.work.hardness > 420.0  # HB: about 45 HRC


def not_in_a_drawer(case: Case) -> bool:
    """What nobody has at hand: wide holes and threads in a sliding head's thin bar, wide ones deeper than five diameters, deep seats."""
    feature = case.form["feature"]
    if "thread" in feature and "laminate" in case.form["material"]:  # a laminate gets an insert, not a thread
        return True
    size = read_thread(feature["thread"]).diameter if "thread" in feature else float(str(feature["diameter"]).split()[0])
    deep = float(feature.get("depth") or feature["length"]) / size
    return (case.setup.machine.guide_bush and size > 13.0) or (deep > 3.9 and size > 20.0) or (deep > 4.9 and " H" in str(feature))


def found(case: Case) -> bool:
    """Something makes it; in hardened metal, in depth and beyond what a small lathe holds, nobody is blamed for nothing."""
    return case.first is not None or hard(case) or not_in_a_drawer(case)


def no_steel_in_hard(case: Case) -> bool:
    """High-speed steel does not cut what is as hard as itself."""
    edges = [case.first.row.edge, *(edge for one in case.first.row.before for edge in one.tool.values())] if case.first else []
    return not hard(case) or not any("HSS" in edge for edge in edges)


def worth_it(case: Case) -> bool:
    """The first is not three times as dear as what makes it as well behind it."""
    sound = [one for one in case.picks if one.standing is Standing.HOLDS]
    return len(sound) < 2 or sound[0].row.cost <= 3.0 * min(one.row.cost for one in sound)


def sure_before_unsure(case: Case) -> bool:
    """What fails half of the time does not stand before what is nearly sure and hardly dearer."""
    sound = [one.row for one in case.picks if one.standing is Standing.HOLDS]
    better = [row for row in sound if row.secure > 0.9 and row.cost < 1.15 * sound[0].cost] if sound else []
    return not sound or sound[0].secure > 0.6 or not better


def in_sensible_time(case: Case) -> bool:
    """Holes take seconds to minutes: ten are no way, but in what is hardened, and where there is more metal than they clear."""
    if case.first is None or hard(case) or not_in_a_drawer(case):
        return True
    size, deep, _ = size_and_depth(case)
    cleared = math.pi / 4.0 * size**3 * deep / 1000.0 / LEAST_CLEARED
    return case.first.row.seconds < max(600.0, 60.0 * cleared)


def wide_drilled_narrow(case: Case) -> bool:
    """A wide plain hole is not fed at hundredths of a millimetre from solid."""
    row = case.first.row if case.first else None
    return row is None or hard(case) or row.way or row.feed_kind != "feed_per_rev" or row.feed >= 0.002 * float(case.setup.speed_diameter)


def size_and_depth(case: Case) -> tuple[float, float, bool]:
    """Diameter [mm], depth in diameters, and whether a fit is asked for."""
    feature = case.form["feature"]
    size = read_thread(feature["thread"]).diameter if "thread" in feature else float(str(feature["diameter"]).split()[0])
    return size, float(feature.get("depth") or feature["length"]) / size, " H" in str(feature.get("diameter", ""))


# why nobody makes it so, each by hand (common practice)
NOBODY: dict[str, Callable[[Case], Any]] = {
    "hardened steel is drilled to three diameters, threaded before it is hardened": lambda case: hard(case) and (
        size_and_depth(case)[1] > 2.9 or "thread" in case.form["feature"] or size_and_depth(case)[2] or size_and_depth(case)[0] > 20.0
    ),
    "a laminate takes no fit and no thread: it gets a bush or an insert": lambda case: "laminate" in case.form["material"] and (
        size_and_depth(case)[2] or "thread" in case.form["feature"]
    ),
    "a sliding head's spindle and bar are thin": lambda case: case.setup.machine.guide_bush and size_and_depth(case)[0] > 12.0,
    "a fit so deep is honed or bored by a tool made for it": lambda case: size_and_depth(case)[2] and size_and_depth(case)[1] > 4.9,
    "wide and deep is trepanned by a special tool": lambda case: size_and_depth(case)[0] > 20.0 and size_and_depth(case)[1] > 3.9,
    "a geared spindle is too slow for such a size": lambda case: size_and_depth(case)[0] < 2.0 and bool(case.setup.machine.speeds),
}  # fmt: skip


@pytest.mark.parametrize("kind", ["holes", "threads"])
def test_where_nothing_is_found_nobody_would_make_it_so(kind: str) -> None:
    nothing = [case for case in drawn(kind) if case.first is None]
    unsaid = [str(case) for case in nothing if not any(why(case) for why in NOBODY.values())]
    assert len(unsaid) <= MISSES * len(drawn(kind)), unsaid
    for case in nothing:  # and it is told what is missed, or by which rule nothing fits
        advice = advise(*read_request(case.form))
        assert advice.nearly or advice.refused or advice.note


RULES: dict[str, tuple[Callable[[Case], Any], float]] = {
    "something makes it": (found, MISSES),
    "no high-speed steel in hardened metal": (no_steel_in_hard, 0.0),
    "the first is worth its money": (worth_it, MISSES),
    "sure before unsure": (sure_before_unsure, MISSES),
    "in sensible time": (in_sensible_time, MISSES),
    "fed enough to cut": (wide_drilled_narrow, MISSES),
}


@pytest.mark.parametrize("kind", ["holes", "threads"])
@pytest.mark.parametrize("rule", list(RULES))
def test_first_choices_of_drawn_holes_and_threads_make_sense(rule: str, kind: str) -> None:
    holds, allowed = RULES[rule]
    cases = drawn(kind)
    missed = [str(case) for case in cases if not holds(case)]
    assert len(missed) <= max(allowed * len(cases), 0), "\n".join(missed)
