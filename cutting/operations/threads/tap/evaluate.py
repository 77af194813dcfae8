"""A tapped thread as the bench asks for it: its outcome, its torque over the way, what would move a limit."""

from __future__ import annotations

from cutting.operations.frame.model import Model, Readings
from cutting.operations.holes.shared.held import misfits, row_speed
from cutting.operations.threads.tap.changes import changes, from_stock
from cutting.operations.threads.tap.limits import RULES
from cutting.operations.threads.tap.numbers import Numbers, numbers
from cutting.operations.threads.tap.readings import cautions, chip, passes, results, scene
from cutting.operations.threads.tap.setup import TapSetup
from cutting.operations.threads.tap.simulation import TapRun, simulate
from cutting.operations.threads.tap.tool import single_tool

MODEL: Model[Numbers] = Model(
    single_tool,
    numbers,
    RULES,
    changes,
    Readings(results, passes, chip, cautions, scene, usual_speed=row_speed),
    from_stock,
    misfits=misfits,
)


def explore(setup: TapSetup) -> TapRun:
    """The map: torque over the way. Raises `CuttingError`."""
    return simulate(MODEL.quickly(setup))
