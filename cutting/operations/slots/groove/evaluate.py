"""A groove as the bench asks for it: its part of the one engine, and its strokes in the section."""

from __future__ import annotations

from cutting.operations.frame.model import Model, Readings
from cutting.operations.slots.groove.cautions import cautions
from cutting.operations.slots.groove.changes import changes, supported
from cutting.operations.slots.groove.limits import RULES
from cutting.operations.slots.groove.numbers import GrooveStroke, Numbers, numbers
from cutting.operations.slots.groove.readings import chip, passes, results, scene
from cutting.operations.slots.groove.setup import GrooveSetup
from cutting.operations.slots.shared.cut import plain
from cutting.operations.slots.shared.otherwise import other_blades
from cutting.operations.slots.shared.tool import single_tool
from cutting.operations.slots.shared.usual_speed import usual_speed

MODEL: Model[Numbers] = Model(
    single_tool,
    numbers,
    RULES,
    changes,
    Readings(results, passes, chip, cautions, scene, usual_speed=usual_speed()),
    lambda x, crib: other_blades(x.setup, crib, "holder"),
    supported=supported,
    read_as=plain,
)


def explore(setup: GrooveSetup) -> tuple[GrooveStroke, ...]:
    """The map of a groove: its strokes in order. Raises `CuttingError`."""
    return MODEL.quickly(setup).strokes.taken()
