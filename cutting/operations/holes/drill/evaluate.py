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
from cutting.operations.holes.drill.simulation import Run, simulate
from cutting.operations.holes.drill.tool import single_tool
from cutting.tooling.fitting import drill_seats
from cutting.wear.reference import SpeedFactor


def usual_speed(x: Numbers) -> UsualSpeed | None:
    """The middle of the row of the drill's type, of one metal alone: of several layers the slowest decides."""
    if x.layers.count > 1:
        return None
    tool = x.tool
    row = float((tool.speed_low + tool.speed_high)[0] / 2.0)
    factor = SpeedFactor("grade, metal and coolant", float(tool.speed_factor[0]), "as for every cut")
    return UsualSpeed(float(x.cutting_speed.ravel()[0]), row, (factor,), ("the goal",))


def misfits(setup: DrillSetup) -> frozenset[str]:
    """The exact rules that forbid a set-up's tool here."""
    return frozenset() if setup.chuck.sits_in in drill_seats(setup.machine) else frozenset({"seat"})


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


def explore(setup: DrillSetup) -> Run:
    """The map: everything over depth. Raises `CuttingError`."""
    return simulate(MODEL.quickly(setup))
