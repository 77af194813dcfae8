"""The numbers of a cut-off: simulation, bending, power, grip, life and money of one set-up."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.mechanics import blade
from cutting.mechanics.deflection import round_second_moment
from cutting.money.kerf import Kerf, kerf
from cutting.operations.slots.cut_off.setup import CutOffSetup
from cutting.operations.slots.cut_off.simulation import Bar, Blade, CutOff, simulate
from cutting.operations.slots.shared.edge import Judged, Lasting, Paid, feeds_of, idle_seconds, lasting, paid, reaching_pressure
from cutting.operations.slots.shared.face import corner_roughness
from cutting.operations.slots.shared.written import held_torque, written_plunge
from cutting.tooling.blades import usual_width
from cutting.working import Silent

PICK_OFF = 1.5  # s that the sub-spindle takes to come, grip and pull (common practice)


@dataclass(frozen=True)
class Numbers(Judged):
    """What the limits and results read; forces N, lengths mm, money and seconds per piece."""

    setup: CutOffSetup
    run: CutOff
    usual_width: float
    feeds: tuple[float, float]
    book_high: float
    down: float
    sideways: float
    bar_spring: float
    rub: float
    power: float
    available: float
    torque: float
    grip: float
    lasting: Lasting
    paid: Paid
    y_gain: float
    pressure: float
    roughness: float  # Ra of the faces, µm
    part_mass: float  # kg
    kerf: Kerf | None


def numbers(setup: CutOffSetup, record: Silent) -> Numbers:
    """Everything computed for a set-up. Raises `CuttingError`."""
    setup.check()
    f, s, work, machine = setup.feature, setup.settings, setup.work, setup.machine
    held = setup.holding.sub_spindle
    bar = Bar(f.diameter, f.bore, f.part_length, work.material.density, work.material.strength, work.specific_force_1,
              work.material.force_exponent, held, setup.inner_diameter if f.bore <= 0 else 0.0)  # fmt: skip
    tool = Blade(
        setup.insert.width, setup.insert.lead_angle, setup.blade.thickness, setup.blade.height, setup.overhang, s.lean, s.centre_height
    )
    run = simulate(bar, tool, setup.zones, s.cutting_speed, setup.top_speed)
    _record_rim(setup, record)
    fc, ff = float(run.cutting_force.max()), float(run.feed_force.max())
    gain = float(blade.y_axis_gain(fc, ff, setup.overhang, setup.blade.thickness, setup.blade.height))
    share = setup.blade.stiffness_share * (gain if setup.holding.y_axis else 1.0)
    worn = setup.house.wear_factor
    power = worn * float(np.max(run.cutting_force * run.cutting_speed)) / 60_000.0
    torque = worn * float(np.max(run.cutting_force * run.diameter)) / 2000.0
    grip_at = setup.holding.grip_diameter or f.diameter
    holds = held_torque(machine, setup.house, float(run.spindle_speed[0]), grip_at, record)  # at the rim, where the torque is
    engaged = run.total_seconds + edge_break_seconds(setup)
    lasts = lasting(
        work, machine, setup.insert, setup.blade, setup.house, setup.goal, setup.batch, s.cutting_speed, s.feed_per_rev, engaged,
        setup.depth, s.coolant, record,
    )  # fmt: skip
    return Numbers(
        setup,
        run,
        usual_width(f.diameter),
        feeds_of(setup.insert, work),
        lasts.book_high,
        float(run.height_bend.max()) / share,
        float(run.side_bend.max()) / setup.blade.stiffness_share,
        _bar_spring(setup, worn * fc),
        abs(float(np.tan(np.radians(s.lean)))) * setup.depth,
        power,
        float(np.min(machine.spindle_power(run.spindle_speed))),
        torque,
        holds,
        lasts,
        paid(machine, setup.insert, setup.blade, engaged, _idle(setup), lasts.change_parts),
        gain,
        reaching_pressure(machine, s.coolant, setup.blade),
        corner_roughness(s.feed_per_rev, setup.insert.corner_radius, s.cutting_speed, work),
        float(np.pi / 4.0 * (f.diameter**2 - f.bore**2) * f.part_length * work.material.density * 1e-6),
        _kerf(setup),
    )


def _record_rim(setup: CutOffSetup, record: Silent) -> None:
    """The forces at the rim, written down: there speed and feed are full."""
    ff = written_plunge(setup, setup.settings.feed_per_rev, setup.feature.diameter, "at the rim", record)
    fs = record(blade.side_force, feed_force=ff, lead_angle=setup.insert.lead_angle)
    _, across = blade.blade_second_moments(setup.blade.thickness, setup.blade.height)
    record(
        blade.side_bend,
        side_force=fs,
        overhang=setup.overhang,
        second_moment=across,
        elastic_modulus=blade.STEEL_BLADE * setup.blade.stiffness_share,
        note=f"a {setup.blade.style} blade keeps {setup.blade.stiffness_share:.0%} of a solid one's stiffness",
    )


def _bar_spring(setup: CutOffSetup, push: float) -> float:
    """How far the bar gives under the worn edge [mm]: a cantilever from collet, jaws or bush; a bush or tailstock holds it at the cut."""
    if setup.holding.guide_bush:
        return 0.0
    a, f = setup.feature.distance_from_chuck, setup.feature
    inertia = float(round_second_moment(f.diameter, f.bore))
    bent = push * a**3 / (3.0 * setup.work.material.elastic_modulus * inertia)
    jaws = push / max(setup.machine.chuck_stiffness * setup.machine.rigidity * 1e3, 1.0)
    tilt = push * a**2 / max(setup.machine.chuck_tilt_stiffness * setup.machine.rigidity * 1e6, 1.0)
    return (bent + jaws + tilt) * (0.2 if setup.holding.tailstock or setup.holding.sub_spindle else 1.0)


def _idle(setup: CutOffSetup) -> float:
    """Indexing and rapid moves, and the sub-spindle coming to hold the part [s]."""
    return idle_seconds(setup.machine, setup.depth + 20.0) + (PICK_OFF if setup.holding.sub_spindle else 0.0)


def edge_break_seconds(setup: CutOffSetup) -> float:
    """Seconds that breaking the part's edge takes: out of the slot, along the chamfer at half feed, and back in."""
    size, machine = setup.feature.edge_break, setup.machine
    if size <= 0:
        return 0.0
    n = min(1000.0 * setup.settings.cutting_speed / (np.pi * setup.feature.diameter), setup.top_speed)
    along = 1.4142 * size / (0.5 * setup.settings.feed_per_rev * n) * 60.0
    return float(along + 4.0 * 60.0 * (2.0 * size + 2.0) / machine.rapid_rate + 0.3)


def _kerf(setup: CutOffSetup) -> Kerf | None:
    bar, f = setup.bar, setup.feature
    if bar.price <= 0:
        return None
    return kerf(f.diameter, f.bore, bar.length, f.part_length, setup.insert.width, bar.remnant, bar.price, bar.yearly)
