"""A drilled hole as the bench asks for it: its outcome, its way over depth, what would move a limit."""

from __future__ import annotations

from cutting.operations.frame.model import Model, Readings
from cutting.operations.frame.speed_reason import UsualSpeed
from cutting.operations.holes.drill.cautions import cautions
from cutting.operations.holes.drill.changes import changes, from_stock, quicker
from cutting.operations.holes.drill.limits import RULES
from cutting.operations.holes.drill.numbers import Numbers, numbers
from cutting.operations.holes.drill.readings import chip, passes, results, scene
from cutting.operations.holes.drill.setup import DrillSetup
from cutting.operations.holes.drill.simulation import DrillRun, simulate
from cutting.operations.holes.drill.tool import single_tool
from cutting.operations.holes.shared.held import misfits, row_speed


def usual_speed(x: Numbers) -> UsualSpeed | None:
    """The middle of the row of the drill's type, of one metal alone: of several layers the slowest decides."""
    return row_speed(x) if x.layers.count == 1 else None


MODEL: Model[Numbers] = Model(
    single_tool,
    numbers,
    RULES,
    changes,
    Readings(results, passes, chip, cautions, scene, usual_speed=usual_speed),
    from_stock,
    quicker,
    misfits=misfits,
)


def explore(setup: DrillSetup) -> DrillRun:
    """The map: everything over depth. Raises `CuttingError`."""
    return simulate(MODEL.quickly(setup))
