"""Boring where the tool turns: a bar in a fine boring head, and a part that stands still on its table."""

from __future__ import annotations

from dataclasses import replace

from cutting.machine.machines import Machine
from cutting.operations.frame.setup import Workholding
from cutting.operations.turned.feature import Bore

HEAD_STIFFNESS = 40.0  # N/µm of spindle, head and its slide at the bar's seat (common practice)
STILL = 1e6  # N/µm and kN·m/rad: a part that is clamped on a table gives nothing here
ROOMY = 1e5  # mm: no jaws and no swing bound it
SOLID, STUB = 8.0, 5.0  # × the bore and mm: the stub that stands for the clamped part


def as_head(machine: Machine) -> Machine:
    """The machine as it bores: one that turns the part as it is, one that turns the tool with a head in its spindle."""
    if machine.turns:
        return machine
    return replace(
        machine,
        post_stiffness=HEAD_STIFFNESS,
        chuck_stiffness=STILL,
        chuck_tilt_stiffness=STILL,
        centre_stiffness=STILL,
        turning_length=ROOMY,
        swing=ROOMY,
    )


def clamped(feature: Bore) -> Workholding:
    """What stands for a part on its table: short and thick, so that only the bar gives."""
    return Workholding(free_length=feature.length + STUB, grip_diameter=SOLID * feature.end_diameter.nominal)
