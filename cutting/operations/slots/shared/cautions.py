"""The cautions that belong next to every narrow cut."""

from __future__ import annotations

from cutting.machine.machines import Machine
from cutting.operations.frame.outcome import Warning
from cutting.operations.turned.cautions import DEFER
from cutting.tooling.blades import Blade


def narrow_cautions(machine: Machine, blade: Blade, delivery: str) -> list[Warning]:
    """Pressure, a jet that does not reach, chips, guards."""
    found = []
    pressure = machine.pressure(delivery) or 0.0
    if pressure >= 20:
        found.append(Warning("pressure", "Coolant under pressure: doors closed, no hands near nozzles or hoses.", "care"))
        if not blade.through:
            found.append(
                Warning(
                    "beside_slot",
                    "This tool has no coolant channel: of a jet beside the slot little reaches under the chip. "
                    "Already 20 bar through the tool pays.",
                    "note",
                )
            )
    found.append(
        Warning(
            "guards",
            "Guards closed, chuck key out, eye protection; no gloves or loose sleeves near the chuck; spindle stopped "
            f"to clear chips, with a hook. {DEFER}",
            "note",
        )
    )
    return found
