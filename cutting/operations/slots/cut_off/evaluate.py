"""A cut-off as the bench asks for it: its outcome, its way over diameter, what would move a limit."""

from __future__ import annotations

from cutting.operations.frame.model import Model, Readings
from cutting.operations.slots.cut_off.cautions import cautions
from cutting.operations.slots.cut_off.changes import changes, other_inserts
from cutting.operations.slots.cut_off.limits import RULES
from cutting.operations.slots.cut_off.numbers import Numbers, numbers
from cutting.operations.slots.cut_off.readings import chip, passes, results, scene
from cutting.operations.slots.cut_off.setup import CutOffSetup
from cutting.operations.slots.cut_off.simulation import CutOff
from cutting.operations.slots.shared.cut import plain
from cutting.operations.slots.shared.tool import single_tool
from cutting.operations.slots.shared.usual_speed import usual_speed

MODEL: Model[Numbers] = Model(
    single_tool,
    numbers,
    RULES,
    changes,
    Readings(results, passes, chip, cautions, scene, usual_speed=usual_speed()),
    other_inserts,
    read_as=plain,
)


def explore(setup: CutOffSetup) -> CutOff:
    """The map of a cut-off: everything over diameter. Raises `CuttingError`."""
    return MODEL.quickly(setup).run
