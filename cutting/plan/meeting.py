"""Features of a plan that stand on one place: grooves and threads that overlap, holes that run into each other."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from cutting.errors import CuttingError
from cutting.plan.plan import Plan, Step, before, complete, pulled_out, region
from cutting.plan.there import OPENS
from cutting.plan.values import Values, given
from cutting.quantities.write import Display, write
from cutting.workpiece.solid import Side

TOUCH = 0.05  # mm by which two features may overlap and only touch
SIDES = ("metric", "inch")


@dataclass(frozen=True)
class Meeting:
    """Two steps by identity whose features stand on one place, and where, in both systems; twice the same of holes that have no wall."""

    first: str
    second: str
    where: Display


@dataclass(frozen=True)
class _Along:
    """A feature along the axis, of one side and one clamping: its places [mm from the chuck]."""

    side: Side
    turned_round: bool
    near: float
    far: float


@dataclass(frozen=True)
class _Holes:
    """Holes on a circle (0: on the axis) in one face: diameters [mm] and how many."""

    turned_round: bool
    circle: float
    diameter: float
    count: int


def meetings(plan: Plan) -> tuple[Meeting, ...]:
    """Every two features of a plan that stand on one place. What cannot be read meets nothing; it is said where it is judged."""
    placed = [(step, found) for step in plan.steps if not step.prepares and (found := _place(plan, step)) is not None]
    alone = [
        Meeting(step.identity, step.identity, _round(found.circle))
        for step, found in placed
        if isinstance(found, _Holes) and _too_many(found)
    ]
    pairs = itertools.combinations(placed, 2)
    return (*alone, *(Meeting(a.identity, b.identity, where) for (a, one), (b, two) in pairs for where in _shared(one, two)))


def _round(circle: float) -> Display:
    return Display(*(f"round the circle of Ø{write(circle, 'length', side)}" for side in SIDES))


def _place(plan: Plan, step: Step) -> _Along | _Holes | None:
    if not isinstance(step.told, Values):
        return None
    try:
        stands_out = step.clamping.stands_out
        told = complete(step.kind, given(step.told), before(plan, step), pulled_out(plan, step, stands_out))
        if (step.kind in OPENS and told.get("circle") not in (None, "")) or step.kind == "drill":
            return _holes(step, told)
        if step.kind == "turn thread" and told.get("side") == "outside":
            near = float(told["distance"])
            return _Along(Side.OUTSIDE, step.clamping.turned_round, near, near + float(told["length"]))
        if step.kind == "groove":
            cut = region(step.kind, told)
            ((near, far, _),) = cut.spans
            return _Along(cut.side, step.clamping.turned_round, near, far)
    except (CuttingError, KeyError, ValueError):
        return None
    return None


def _holes(step: Step, told: dict[str, Any]) -> _Holes:
    size = told["diameter"]
    circle = float(told.get("circle") or 0.0)
    return _Holes(step.clamping.turned_round, circle, float(getattr(size, "target", size)), int(told.get("count") or 1) if circle else 1)


def _shared(one: _Along | _Holes, two: _Along | _Holes) -> Iterator[Display]:
    if isinstance(one, _Along) and isinstance(two, _Along):
        near, far = max(one.near, two.near), min(one.far, two.far)
        if one.side is two.side and one.turned_round == two.turned_round and far - near > TOUCH:
            yield Display(*(f"from {write(near, 'length', s, False)} to {write(far, 'length', s)} from the jaws" for s in SIDES))
    elif isinstance(one, _Holes) and isinstance(two, _Holes) and one.turned_round == two.turned_round:
        reach = (one.diameter + two.diameter) / 2.0 - TOUCH
        if one.circle > 0 and two.circle > 0 and one.circle == two.circle and one.diameter != two.diameter:
            return  # the same holes, opened
        if one.circle != two.circle and abs(one.circle - two.circle) / 2.0 < reach:
            yield _round(max(one.circle, two.circle))


def _too_many(holes: _Holes) -> bool:
    """Whether the holes of one circle leave no wall between them."""
    return holes.count > 1 and holes.circle * math.sin(math.pi / holes.count) < holes.diameter + TOUCH
