"""What every kind checks of its machine before it computes."""

from __future__ import annotations

from cutting.errors import CuttingError
from cutting.machine.machines import Machine


def check_turns(machine: Machine) -> None:
    """Raise `CuttingError` where the part does not turn."""
    if not machine.turns:
        raise CuttingError("machine", f"{machine.name} does not turn parts: it is a {machine.description}.")


def check_coolant(machine: Machine, delivery: str) -> None:
    """Raise `CuttingError` for a delivery that the machine does not have."""
    if machine.pressure(delivery) is None:
        has = ", ".join(name for name, _ in machine.coolant)
        raise CuttingError("settings.coolant", f"{machine.name} has no '{delivery}'; it has {has}.", has)
