"""What holds a round tool on a machine: whether its chuck sits there, which others would, and the speed that its row says."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from cutting.operations.frame.outcome import Warning
from cutting.operations.frame.speed_reason import UsualSpeed
from cutting.tooling.drills import Chuck
from cutting.tooling.fitting import drill_seats
from cutting.wear.reference import SpeedFactor


def misfits(setup: Any) -> frozenset[str]:
    """The exact rules that forbid a set-up's tool here."""
    return frozenset() if setup.chuck.sits_in in drill_seats(setup.machine) else frozenset({"seat"})


def seat_warnings(setup: Any) -> Iterator[Warning]:
    """That a chuck does not sit on the machine, where it does not."""
    if misfits(setup):
        seats = ", ".join(sorted(drill_seats(setup.machine)))
        yield Warning("seat", f"{setup.chuck.name} sits in {setup.chuck.sits_in}; {setup.machine.name} has {seats}.", "blocks")


def seated(setup: Any, chucks: tuple[Chuck, ...]) -> list[Chuck]:
    """The chucks that sit on the set-up's machine."""
    return [one for one in chucks if one.sits_in in drill_seats(setup.machine)]


def row_speed(x: Any) -> UsualSpeed:
    """The middle of the row of speeds of a round tool in one metal."""
    row = float((x.tool.speed_low + x.tool.speed_high)[0] / 2.0)
    factor = SpeedFactor("grade, metal and coolant", float(x.tool.speed_factor[0]), "as for every cut")
    return UsualSpeed(float(x.cutting_speed.ravel()[0]), row, (factor,), ("the goal",))
