"""A cut-off as the bench asks for it: its outcome, its way over diameter, what would move a limit."""

from __future__ import annotations

from typing import Any

from cutting.operations.cut_off.cautions import cautions
from cutting.operations.cut_off.changes import changes, other_inserts
from cutting.operations.cut_off.limits import RULES
from cutting.operations.cut_off.numbers import Numbers, numbers
from cutting.operations.cut_off.readings import chip, passes, results, scene
from cutting.operations.cut_off.setup import CutOffSetup
from cutting.operations.cut_off.simulation import CutOff
from cutting.operations.outcome import Outcome, Remedy
from cutting.operations.trial.model import Model
from cutting.tooling.blades import NarrowStock

MODEL: Model[Numbers] = Model(numbers, RULES, changes, results, passes, chip, cautions, scene)


def evaluate(setup: CutOffSetup, with_remedies: bool = True, crib: Any = None) -> Outcome:
    """The outcome of a cut-off. Raises `CuttingError` for inputs that cannot be."""
    return _with(crib).evaluate(setup, with_remedies)


def explore(setup: CutOffSetup) -> CutOff:
    """The map of a cut-off: everything over diameter. Raises `CuttingError`."""
    return MODEL.quickly(setup).run


def relax(setup: CutOffSetup, name: str, crib: Any = None) -> tuple[Remedy, ...]:
    """What would move one limit. Raises `UnknownName` for a limit that does not apply."""
    return _with(crib).relax(setup, name)


def _with(crib: Any) -> Model[Numbers]:
    """The model whose remedies also try the crib's other inserts."""
    if not isinstance(crib, NarrowStock):
        return MODEL
    inserts = crib.inserts
    return Model(numbers, RULES, lambda x: (*changes(x), *other_inserts(x, inserts)), results, passes, chip, cautions, scene)
