"""The numbers of a trepanned ring: feed by the edges in play, torque and power against solid drilling, core, life, money."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.mechanics import blade, force
from cutting.mechanics.ring import ring_share, ring_torque
from cutting.operations.slots.shared.edge import SLOWER, Judged, Lasting, Paid, feeds_of, idle_seconds, lasting, paid, reaching_pressure
from cutting.operations.slots.trepan.setup import Cartridges, TrepanSetup
from cutting.working import Silent

FACE_SHARE = 0.7  # of grooving's feed, as in a face (common practice)
SIDE_SHARE = 0.1
APPROACH = 2.0  # mm at feed before the metal
BREAK_THROUGH = 1.0  # mm at feed beyond it


@dataclass(frozen=True)
class Numbers(Judged):
    """What limits and results read; N, N·m, kW, mm, kg, money."""

    setup: TrepanSetup
    feeds: tuple[float, float]
    spindle_speed: float
    cutting_force: float  # of one edge
    thrust: float  # of all edges
    torque: float  # worn
    power: float
    solid_torque: float
    solid_power: float
    available: float
    share: float
    side_force: float
    sideways: float
    down: float
    core_mass: float
    core_value: float
    ring_mass: float
    engaged: float
    pressure: float
    lasting: Lasting
    paid: Paid


def numbers(setup: TrepanSetup, record: Silent) -> Numbers:
    """Everything computed for a set-up. Raises `CuttingError`."""
    setup.check()
    work, machine, s, f = setup.work, setup.machine, setup.settings, setup.feature
    material, worn = work.material, setup.house.wear_factor
    per_edge = setup.feed / setup.effective_edges
    n = setup.spindle_speed
    kc = record(
        force.specific_cutting_force,
        specific_force_1=work.specific_force_1,
        chip_thickness=per_edge,
        force_exponent=material.force_exponent,
        rake_factor=1.0,
        wear_factor=1.0,
        form_factor=blade.GROOVE_FORM,
        note=f"in the ring's slot; kc1.1 and mc of {material.name}",
    )
    outer, inner = setup.outer_diameter, setup.inner_diameter
    torque = worn * float(
        record(
            ring_torque, specific_force=kc, feed_per_rev=setup.feed, diameter=outer, inner_diameter=inner, note="sharp; the limit adds wear"
        )
    )
    solid = worn * float(ring_torque(kc, setup.feed, outer, 0.0))
    edges = 1 if s.cartridges is Cartridges.ONE else 2
    fc = float(record(force.cutting_force, specific_force=kc, chip_area=per_edge * setup.insert.width, note="of one edge"))
    push = float(record(blade.plunge_force, cutting_force=fc, chip_thickness=per_edge, note="of one edge; measured on E295, carried over"))
    upright, across = blade.blade_second_moments(setup.blade.thickness, setup.blade.height)
    modulus = blade.STEEL_BLADE * setup.blade.stiffness_share
    # the curved chip pushes an edge aside a little; two on one radius balance each other (common practice)
    side = SIDE_SHARE * push * (0.3 if s.cartridges is Cartridges.SAME else 1.0)
    way = setup.depth + APPROACH + (BREAK_THROUGH if f.through and not f.web else 0.0)
    engaged = 60.0 * way / (setup.feed * n)
    lasts = lasting(
        work, machine, setup.insert, setup.blade, setup.house, setup.goal, setup.batch, s.cutting_speed, per_edge / FACE_SHARE, engaged,
        setup.depth, s.coolant, record, slower=SLOWER * 0.85, skin=setup.skin, interrupted=setup.holding.interrupted,
    )  # fmt: skip
    money = paid(machine, setup.insert, setup.blade, engaged, idle_seconds(machine, setup.depth + 60.0), lasts.change_parts)
    if edges == 2:  # both edges are changed together
        extra = money.edge_cost / lasts.change_parts
        money = Paid(money.seconds, money.cost + extra, 2.0 * money.edge_cost)
    low, high = feeds_of(setup.insert, work)
    per_kilo = material.density * 1e-6
    core = np.pi / 4.0 * inner**2 * f.depth * per_kilo
    return Numbers(
        setup,
        (FACE_SHARE * low, FACE_SHARE * high),
        n,
        fc,
        edges * push,
        torque,
        torque * n / 9549.3,
        solid,
        solid * n / 9549.3,
        float(machine.spindle_power(n)),
        float(ring_share(outer, setup.ring_width)),
        side,
        float(blade.side_bend(worn * side, setup.overhang, across, modulus)),
        float(blade.side_bend(worn * fc, setup.overhang, upright, modulus)),
        float(core),
        float(core) * f.core_price,
        float(np.pi / 4.0 * (outer**2 - inner**2) * setup.depth * per_kilo),
        engaged,
        reaching_pressure(machine, s.coolant, setup.blade),
        lasts,
        money,
    )
