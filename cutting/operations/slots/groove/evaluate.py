"""A groove as the bench asks for it: its outcome, its strokes in the section, what would move a limit."""

from __future__ import annotations

from cutting.operations.frame.model import Model
from cutting.operations.slots.groove.cautions import cautions
from cutting.operations.slots.groove.changes import changes
from cutting.operations.slots.groove.limits import RULES
from cutting.operations.slots.groove.numbers import Numbers, Stroke, numbers
from cutting.operations.slots.groove.readings import chip, passes, results, scene
from cutting.operations.slots.groove.setup import GrooveSetup
from cutting.operations.slots.shared.otherwise import other_blades

MODEL: Model[Numbers] = Model(
    numbers, RULES, changes, results, passes, chip, cautions, scene, lambda x, crib: other_blades(x.setup, crib, "holder")
)


def explore(setup: GrooveSetup) -> tuple[Stroke, ...]:
    """The map of a groove: its strokes in order. Raises `CuttingError`."""
    return MODEL.quickly(setup).strokes
