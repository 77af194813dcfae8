"""A turned thread as the bench asks for it: its outcome, its groove filling up, what would move a limit."""

from __future__ import annotations

from dataclasses import dataclass

from cutting.mechanics.threading import Array
from cutting.operations.frame.model import Model, Readings
from cutting.operations.frame.speed_reason import UsualSpeed
from cutting.operations.threads.turn_thread.changes import changes, from_stock, quicker
from cutting.operations.threads.turn_thread.groove import ThreadGroove
from cutting.operations.threads.turn_thread.limits import RULES
from cutting.operations.threads.turn_thread.numbers import Numbers, numbers
from cutting.operations.threads.turn_thread.readings import cautions, chip, passes, results, scene
from cutting.operations.threads.turn_thread.setup import TurnThreadSetup
from cutting.operations.threads.turn_thread.tool import single_tool, thread_tools
from cutting.wear.reference import SpeedFactor

__all__ = ["MODEL", "Filling", "explore", "thread_tools"]


def usual_speed(x: Numbers) -> UsualSpeed:
    """The middle of the row of threading speeds."""
    row = float((x.tool.speed_low + x.tool.speed_high)[0] / 2.0)
    factor = SpeedFactor("grade, metal and coolant", float(x.tool.speed_factor[0]), "as for every cut")
    return UsualSpeed(float(x.cutting_speed.ravel()[0]), row, (factor,), ("the goal",))


def misfits(setup: TurnThreadSetup) -> frozenset[str]:
    """The exact rules that forbid a set-up's tool here."""
    return frozenset() if setup.machine.takes_shank(setup.holder.height, setup.holder.internal) else frozenset({"seat"})


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


@dataclass(frozen=True)
class Filling:
    """The groove with every pass in it, and what each pass asks: N, mm."""

    groove: ThreadGroove
    force: Array
    chip_thickness: Array
    load: Array


def explore(setup: TurnThreadSetup) -> Filling:
    """The map: the groove filling up. Raises `CuttingError`."""
    x = MODEL.quickly(setup)
    return Filling(x.groove, x.cutting_force.ravel(), x.chip_thickness.ravel(), x.load.ravel())
