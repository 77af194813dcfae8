"""Forces of a full plunge and grip of the jaws, computed with their working written down."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.machine.machines import Machine
from cutting.mechanics import blade, force, grip
from cutting.operations.frame.setup import HouseRules
from cutting.working import Silent


def written_plunge(setup: Any, feed: float, diameter: float, where: str, record: Silent) -> float:
    """Plunge force [N] of the sharp edge at a feed [mm/rev]; power and torque at a diameter [mm] are written beside it.

    A slanted edge's chip is thinner than the feed by the cosine of its lead angle, and as much wider.
    """
    material, thickness = setup.work.material, feed * float(np.cos(np.radians(setup.insert.lead_angle)))
    kc = record(
        force.specific_cutting_force,
        specific_force_1=setup.work.specific_force_1,
        chip_thickness=thickness,
        force_exponent=material.force_exponent,
        rake_factor=1.0,
        wear_factor=1.0,
        form_factor=blade.GROOVE_FORM,
        note=f"{where}; kc1.1 and mc of {material.name}",
    )
    fc = record(force.cutting_force, specific_force=kc, chip_area=feed * setup.insert.width)
    push = float(record(blade.plunge_force, cutting_force=fc, chip_thickness=thickness, note="measured on E295, carried over"))
    record(force.cutting_power, cutting_force=fc, cutting_speed=setup.settings.cutting_speed)
    record(force.torque, cutting_force=setup.house.wear_factor * fc, diameter=diameter, note="for the worn edge")
    return push


def held_torque(
    machine: Machine, house: HouseRules, spindle_speed: float, grip_diameter: float | None, record: Silent, share: float = 1.0
) -> float:
    """Torque [N·m] that the jaws hold at a spindle speed [1/min]; 0 where no jaws grip. `share` is of the machine's jaw force."""
    if machine.jaw_force <= 0:
        return 0.0
    return float(
        record(
            grip.grip_torque,
            friction=house.jaw_friction,
            jaw_force=machine.jaw_force * share,
            jaw_mass=machine.jaw_mass,
            jaw_radius=machine.jaw_radius,
            spindle_speed=spindle_speed,
            grip_diameter=grip_diameter,
        )
    )
