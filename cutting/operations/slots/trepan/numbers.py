"""The numbers of a trepanned ring, over one head or many: feed by the edges in play, torque and power against solid drilling, core."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.mechanics import blade, force
from cutting.mechanics.ring import ring_torque
from cutting.motion.clock import around_seconds, rapid_seconds
from cutting.motion.places import between_seconds
from cutting.motion.trace import CLEAR
from cutting.operations.slots.shared.cut import SLOWER, SlotCut, lasting, leaning, paid
from cutting.operations.slots.shared.slot_chip import slot_index
from cutting.operations.slots.shared.tool import Array, SlotTool
from cutting.operations.slots.trepan.setup import Cartridges, Keeps, TrepanSetup, ring_width
from cutting.working import Silent

FACE_SHARE = 0.7  # of grooving's feed, as in a face (common practice)
SLOWER_STILL = 0.85 * SLOWER  # of the turning speed: a head stands out further than a blade (common practice)
SIDE_SHARE = 0.1  # of its push that the curved chip pushes an edge aside (common practice)
BALANCED = 0.3  # of it that is left where two on one radius hold each other (common practice)
APPROACH = 2.0  # mm at feed before the metal
BREAK_THROUGH = 1.0  # mm at feed beyond it


@dataclass(frozen=True)
class Numbers(SlotCut):
    """What limits and results read; N, N·m, kW, mm, kg, money."""

    outer_diameter: Array
    second: Array  # outside of the second ring, 0 where there is one ring
    ring_width: Array
    spindle_speed: Array
    thrust: Array  # of all edges
    solid_torque: Array
    solid_power: Array
    share: Array
    core_mass: Array
    core_value: Array
    ring_mass: Array


def numbers(setup: TrepanSetup, tool: SlotTool, speed: Any, feed: Any, record: Silent, diameter: Any = None) -> Numbers:
    """Everything computed at speeds [m/min] and feeds per edge [mm]; `diameter` [mm] in place of the drawing's; arrays (..., 1)."""
    work, machine, s, f = setup.work, setup.machine, setup.settings, setup.feature
    material, worn = work.material, setup.house.wear_factor
    width = ring_width(tool.width, setup.standing)
    outer = np.asarray(f.diameter if diameter is None else diameter) + (2.0 * width if f.keeps is Keeps.DISC else 0.0)
    inner = outer - 2.0 * width
    drive = machine.drive(s.spindle_clamp)
    real = drive.fed(np.asarray(feed) * setup.effective_edges)
    per_edge = real / setup.effective_edges
    n = drive.at(speed, outer)
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
    metal, within, note = outer**2 - inner**2, inner, "sharp; the limit adds wear"
    if (second := f.inner_ring) is not None:  # torque goes with D² − d², so that both rings are one of as much metal
        metal = metal + second**2 - (second - 2.0 * width) ** 2
        within, note = np.sqrt(outer**2 - metal), "both rings as one of as much metal; sharp, the limit adds wear"
    torque = worn * record(ring_torque, specific_force=kc, feed_per_rev=real, diameter=outer, inner_diameter=within, note=note)
    solid = worn * ring_torque(kc, real, outer, 0.0)
    edges = 1 if setup.standing is Cartridges.ONE else 2
    fc = record(force.cutting_force, specific_force=kc, chip_area=per_edge * tool.width, note="of one edge")
    push = record(blade.plunge_force, cutting_force=fc, chip_thickness=per_edge, note="of one edge; measured on E295, carried over")
    side = SIDE_SHARE * push * (BALANCED if setup.standing is Cartridges.SAME else 1.0)
    sideways, down = leaning(tool, worn * side, worn * fc, record)
    way = setup.depth + APPROACH + (BREAK_THROUGH if f.through and not f.web else 0.0)
    engaged = 60.0 * f.count * way / (real * n)  # of all alike in a piece
    reached = np.pi * outer * n / 1000.0
    lasts = lasting(tool, reached, per_edge / FACE_SHARE, record, SLOWER_STILL)
    feeds = (FACE_SHARE * tool.feed_low, FACE_SHARE * tool.feed_high)
    per_kilo = material.density * 1e-6
    core = np.pi / 4.0 * (outer**2 - metal) * f.depth * per_kilo
    return Numbers(
        **paid(setup, tool, lasts, engaged, _idle(setup), record, float(edges)), **vars(lasts),
        setup=setup, tool=tool, pressure=tool.pressure,
        cutting_speed=reached, feed_set=per_edge, feed=real, feeds=feeds,
        chip_index=slot_index(per_edge, feeds, setup.depth, width, tool.pressure, material.ductility),
        cutting_force=fc, side_force=side, sideways=sideways, down=down,
        power=torque * n / 9549.3, available=record.of("power", machine.spindle_power(n)), torque=torque,
        grip=np.zeros_like(n), gripped_speed=n,
        outer_diameter=outer, second=np.full_like(outer, f.inner_ring or 0.0),
        ring_width=width, spindle_speed=n, thrust=edges * push, solid_torque=solid, solid_power=solid * n / 9549.3,
        share=metal / outer**2, core_mass=f.count * core, core_value=f.count * core * f.core_price,
        ring_mass=np.pi / 4.0 * metal * setup.depth * per_kilo,
    )  # fmt: skip


def _idle(setup: TrepanSetup) -> float:
    """Seconds that do not cut: in and out of each ring, from one to the next, and around them."""
    f, machine = setup.feature, setup.machine
    out = setup.depth + APPROACH + CLEAR + (BREAK_THROUGH if f.through and not f.web else 0.0)
    each = float(sum(rapid_seconds([CLEAR, out], machine)))
    return around_seconds(machine) + f.count * each + between_seconds(machine, f.circle, f.count)
