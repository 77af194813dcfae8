"""Forces of a full plunge and the speed that the jaws stand, computed with their working written down."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.mechanics import blade, force, grip
from cutting.operations.slots.shared.setup import SlotSetup
from cutting.operations.slots.shared.tool import Array, SlotTool
from cutting.working import Recorder, Silent


def write_plunge(setup: SlotSetup, tool: SlotTool, feed: Any, diameter: float, where: str, record: Silent) -> Any:
    """Write down the forces of the sharp edge at a feed [mm/rev], with power and torque at a diameter [mm]; returns its push [N].

    A slanted edge's chip is thinner than the feed by the cosine of its lead angle, and as much wider.
    """
    if not isinstance(record, Recorder):
        return 0.0
    thickness = feed * np.cos(np.radians(tool.lead_angle))
    fc = _write_force(setup, thickness, feed * tool.width, blade.GROOVE_FORM, where, record)
    push = record(blade.plunge_force, cutting_force=fc, chip_thickness=thickness, note="measured on E295, carried over")
    record(force.cutting_power, cutting_force=fc, cutting_speed=setup.settings.cutting_speed)
    record(force.torque, cutting_force=setup.house.wear_factor * fc, diameter=diameter, note="for the worn edge")
    return push


def write_layer(setup: SlotSetup, thickness: float, area: float, form: float, where: str, record: Silent) -> None:
    """Write down the forces of a cut sideways beside those of the plunge: chip thickness [mm], area [mm²], form factor."""
    if not isinstance(record, Recorder):
        return
    with record.about(where):
        fc = _write_force(setup, thickness, area, form, where, record)
        record(blade.plunge_force, cutting_force=fc, chip_thickness=thickness, note=f"{where}, against the feed")


def _write_force(setup: SlotSetup, thickness: Any, area: Any, form: float, where: str, record: Silent) -> Any:
    """The sharp edge's cutting force [N] with its specific force: chip thickness [mm], area [mm²], form factor."""
    material = setup.work.material
    kc = record(
        force.specific_cutting_force,
        specific_force_1=setup.work.specific_force_1,
        chip_thickness=thickness,
        force_exponent=material.force_exponent,
        rake_factor=1.0,
        wear_factor=1.0,
        form_factor=form,
        note=f"{where}; kc1.1 and mc of {material.name}",
    )
    return record(force.cutting_force, specific_force=kc, chip_area=area, note=where)


def holding_speed(setup: SlotSetup, torque: Array) -> Array:
    """Spindle speed [1/min] up to which the jaws hold a torque [N·m] with the house's safety; without end where no jaws grip."""
    machine, house, holding = setup.machine, setup.house, setup.holding
    if machine.jaw_force <= 0:
        return np.full_like(torque, np.inf)
    force = machine.jaw_force * getattr(holding, "grip_share", 1.0)
    return grip.speed_that_holds(house.grip_safety * torque, house.jaw_friction, force, machine.jaw_mass, machine.jaw_radius, setup.gripped)
