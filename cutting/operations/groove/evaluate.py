"""A groove as the bench asks for it: its outcome, its strokes in the section, what would move a limit."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from cutting.operations.groove.cautions import cautions
from cutting.operations.groove.changes import changes
from cutting.operations.groove.limits import RULES
from cutting.operations.groove.numbers import Numbers, Stroke, numbers
from cutting.operations.groove.readings import chip, passes, results, scene
from cutting.operations.groove.setup import GrooveSetup
from cutting.operations.outcome import Outcome, Remedy
from cutting.operations.trial.change import Change, in_words
from cutting.operations.trial.model import Model
from cutting.tooling.blades import NarrowStock

MODEL: Model[Numbers] = Model(numbers, RULES, changes, results, passes, chip, cautions, scene)


def evaluate(setup: GrooveSetup, with_remedies: bool = True, crib: Any = None) -> Outcome:
    """The outcome of a groove. Raises `CuttingError` for inputs that cannot be."""
    return _with(crib).evaluate(setup, with_remedies)


def explore(setup: GrooveSetup) -> tuple[Stroke, ...]:
    """The map of a groove: its strokes in order. Raises `CuttingError`."""
    return MODEL.quickly(setup).strokes


def relax(setup: GrooveSetup, name: str, crib: Any = None) -> tuple[Remedy, ...]:
    """What would move one limit. Raises `UnknownName` for a limit that does not apply."""
    return _with(crib).relax(setup, name)


def _with(crib: Any) -> Model[Numbers]:
    """The model whose remedies also try the crib's other blades for this insert."""
    if not isinstance(crib, NarrowStock):
        return MODEL

    def all_changes(x: Numbers) -> Iterator[Change[GrooveSetup]]:
        yield from changes(x)
        for blade in crib.blades:
            if blade.use == x.setup.blade.use and blade.name != x.setup.blade.name and blade.takes(x.setup.insert):
                patch = {"tool": {"insert": x.setup.insert.name, "holder": blade.name}}
                yield Change(in_words(f"holder {blade.name}"), patch, replace(x.setup, blade=blade))

    return Model(numbers, RULES, all_changes, results, passes, chip, cautions, scene)
