"""The kinds of operation: one line each."""

from __future__ import annotations

from types import MappingProxyType
from typing import Any

from cutting.errors import UnknownName
from cutting.operations.frame.kind import Kind
from cutting.operations.frame.outcome import Outcome, Remedy
from cutting.operations.holes.bore.kind import KIND as BORE
from cutting.operations.holes.drill.kind import KIND as DRILL
from cutting.operations.holes.heavy_bore.kind import KIND as HEAVY_BORE
from cutting.operations.holes.mill_hole.kind import KIND as MILL_HOLE
from cutting.operations.slots.cut_off.kind import KIND as CUT_OFF
from cutting.operations.slots.face_groove.kind import KIND as FACE_GROOVE
from cutting.operations.slots.groove.kind import KIND as GROOVE
from cutting.operations.slots.trepan.kind import KIND as TREPAN
from cutting.operations.threads.mill_thread.kind import KIND as MILL_THREAD
from cutting.operations.threads.tap.kind import KIND as TAP
from cutting.operations.threads.turn_thread.kind import KIND as TURN_THREAD
from cutting.operations.turned import facing, turning

EVERY: tuple[Kind, ...] = (
    turning.KIND,
    facing.KIND,
    GROOVE,
    FACE_GROOVE,
    TREPAN,
    DRILL,
    MILL_HOLE,
    BORE,
    HEAVY_BORE,
    TURN_THREAD,
    TAP,
    MILL_THREAD,
    CUT_OFF,
)
KINDS: MappingProxyType[str, Kind] = MappingProxyType({kind.name: kind for kind in EVERY})


def kind_of(name: str) -> Kind:
    """The kind of that name. Raises `UnknownName`."""
    if name not in KINDS:
        raise UnknownName("operation", f"no operation is called '{name}'; there are {', '.join(KINDS)}.", None, tuple(KINDS))
    return KINDS[name]


def evaluate(setup: Any, crib: Any = None) -> Outcome:
    """The outcome of a set-up of any kind, with remedies from the crib where one is given. Raises `CuttingError`."""
    return kind_of(setup.operation).model.evaluate(setup, crib)


def evaluate_quickly(setup: Any) -> Outcome:
    """The outcome without remedies, for lists and tapes. Raises `CuttingError`."""
    return judged(setup)[0]


def judged(setup: Any) -> tuple[Outcome, Any]:
    """The outcome without remedies, and the numbers that remedies are reckoned from. Raises `CuttingError`."""
    return kind_of(setup.operation).model.judged(setup)


def with_remedies(outcome: Outcome, setup: Any, crib: Any = None, numbers: Any = None) -> Outcome:
    """The outcome of this set-up, judged before, with what would mend or quicken it. Raises `CuttingError`."""
    return kind_of(setup.operation).model.remedied(outcome, setup, crib, numbers)


def explore(setup: Any) -> Any:
    """The map of a set-up of any kind. Raises `CuttingError`."""
    return kind_of(setup.operation).explore(setup)


def relax(setup: Any, limit: str, crib: Any = None) -> tuple[Remedy, ...]:
    """What would move a limit of a set-up of any kind, found by trying. Raises `CuttingError`."""
    return kind_of(setup.operation).model.relax(setup, limit, crib)
