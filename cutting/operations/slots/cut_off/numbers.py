"""The numbers of a cut-off, over one blade or many: forces by zone of feed, bending, the face, power, grip, life and money."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

import numpy as np

from cutting.machine.drive import Spun
from cutting.mechanics import blade
from cutting.mechanics.deflection import round_second_moment
from cutting.money.kerf import Kerf, kerf
from cutting.motion.clock import around_seconds, rapid_seconds
from cutting.motion.trace import CLEAR
from cutting.operations.frame.jaws import held_torque
from cutting.operations.frame.over_passes import over_passes
from cutting.operations.slots.cut_off.feed_zones import FeedZone
from cutting.operations.slots.cut_off.setup import LAYER, CutOffSetup
from cutting.operations.slots.cut_off.simulation import Bar, CutOff, LeaningBlade, breaks_at, meet, pips, simulate, zone_dish
from cutting.operations.slots.shared.cut import SlotCut, lasting, paid
from cutting.operations.slots.shared.face import corner_roughness
from cutting.operations.slots.shared.slot_chip import slot_index
from cutting.operations.slots.shared.tool import Array, SlotTool
from cutting.operations.slots.shared.way import NEAR
from cutting.operations.slots.shared.written import write_plunge
from cutting.tooling.groove_inserts import usual_width
from cutting.working import Recorder, Silent

PICK_OFF = 1.5  # s that the sub-spindle takes to come, grip and pull (common practice)
HELD_SHARE = 0.2  # of its spring that a bar keeps which a tailstock or sub-spindle holds (common practice)
PULLED_OUT = 60.0  # s for which the spindle stands while a blade is loosened, pulled out and held again by hand (common practice)
TURNS_BACK = 0.3  # s that a slide loses where it turns round


@dataclass(frozen=True)
class Numbers(SlotCut):
    """What the limits and results read; forces N, lengths mm, money and seconds per piece."""

    flatness: Array
    pip_on_part: Array
    pip_on_bar: Array
    break_off_diameter: float
    usual_width: float
    bar_spring: Array
    rub: float
    y_gain: Array
    roughness: Array  # Ra of the faces, µm
    part_mass: float  # kg
    slot: Array  # its width, mm
    kerf_per_piece: Array
    zone_speed: Array  # 1/min where each zone of feed begins, and at the end

    @property
    def driven_at(self) -> Array:
        return self.zone_speed

    @cached_property
    def run(self) -> CutOff:
        """The way to the centre of the set-up's own blade, over diameter."""
        setup = self.setup
        s = setup.settings
        own = LeaningBlade(
            setup.insert.width, setup.insert.lead_angle, setup.blade.thickness, setup.blade.height, setup.overhang, s.lean, s.centre_height,
            setup.blade.stiffness_share, setup.blade.seat_drift, float(setup.starts_out(setup.overhang)), s.pull_out_at or 0.0,
        )  # fmt: skip
        spun = setup.machine.drive(s.spindle_clamp).over(s.cutting_speed, setup.feature.diameter)
        return simulate(bar_of(setup), own, setup.zones, s.cutting_speed, spun, setup.silent)

    @property
    def kerf(self) -> Kerf | None:
        """What the set-up's own kerf costs; None of a blank without a price that is no bar: not one piece and its remnant fit in it."""
        setup, f = self.setup, self.setup.feature
        if setup.bar.price <= 0 and f.part_length > setup.bar.length - setup.bar.remnant:
            return None
        bar = setup.bar
        return kerf(f.diameter, f.bore, bar.length, f.part_length, setup.slot, bar.remnant, setup.bar_price, bar.yearly)


def numbers(setup: CutOffSetup, tool: SlotTool, speed: Any, feed: Any, record: Silent) -> Numbers:
    """Everything computed at speeds [m/min] and feeds [mm/rev]; arrays (..., 1). Within a zone of feed nothing but the speed moves."""
    f, s, work, machine = setup.feature, setup.settings, setup.work, setup.machine
    drive = machine.drive(s.spindle_clamp)
    feed = drive.fed(feed)
    bar, zones = bar_of(setup), setup.zones_at(feed)
    starts = np.maximum([zone.start for zone in zones], bar.innermost)
    ends = np.maximum([zone.end for zone in zones], bar.innermost)
    shape = np.broadcast_shapes(*(np.shape(zone.feed) for zone in zones), (1,))
    feeds = np.concatenate([np.broadcast_to(zone.feed, shape) for zone in zones], axis=-1)
    met = meet(bar, _standing(setup, tool, starts), feeds, s.lean, tool.stiffness, record, tool.seat_drift)
    spun = drive.over(speed, f.diameter)
    n = spun.at(speed, np.append(starts, ends[-1]))
    worn = setup.house.wear_factor
    fc, ff = over_passes(met.cutting_force), over_passes(met.feed_force)
    _write_rim(setup, tool, feed, record)
    gain = blade.y_axis_gain(fc, ff, tool.overhang, tool.thickness, tool.height, 1e3 * machine.post_stiffness)
    power = worn * over_passes(met.cutting_force * np.pi * starts * n[..., :-1]) / 6e7
    at_rim = n[..., :1]  # where the torque is
    engaged = (
        setup.zone_seconds(zones, speed, spun) + _beside_seconds(setup, zones, speed, spun) + edge_break_seconds(setup, speed, feed, spun)
    )
    reached = np.pi * f.diameter * at_rim / 1000.0
    lasts = lasting(tool, reached, feed, record)
    window = (tool.feed_low, tool.feed_high)
    on_part, on_bar = pips(breaks_at(bar), tool.width, tool.lead_angle, s.centre_height)
    idle = around_seconds(machine) + float(rapid_seconds(setup.depth + CLEAR, machine)) + (PICK_OFF if setup.holding.sub_spindle else 0.0)
    idle += (PULLED_OUT + machine.start_time if s.pull_out_at else 0.0) + _lift_seconds(setup)
    slot = np.maximum(tool.width, s.slot_width or 0.0)
    return Numbers(
        **paid(setup, tool, lasts, engaged, idle, record, slot=slot), **vars(lasts),
        setup=setup, tool=tool, pressure=tool.pressure,
        cutting_speed=reached, feed_set=feed, feed=feed,
        feeds=window, chip_index=slot_index(feed, window, setup.depth, slot, tool.pressure, work.material.ductility),
        cutting_force=fc, side_force=over_passes(np.abs(met.side_force)), sideways=over_passes(np.abs(met.side_bend)),
        down=over_passes(met.height_bend) / (gain if setup.holding.y_axis else 1.0),
        power=power, available=record.of("power", over_passes(machine.spindle_power(n), np.minimum)),
        torque=worn * over_passes(met.cutting_force * starts) / 2000.0,
        grip=held_torque(setup, at_rim, setup.gripped, record), gripped_speed=at_rim, flatness=zone_dish(starts, ends, met),
        pip_on_part=np.where(f.bore > 0, 0.0, on_part),
        pip_on_bar=np.where(f.bore > 0, 0.0, on_bar), break_off_diameter=breaks_at(bar), usual_width=usual_width(f.diameter),
        bar_spring=record.of("give", _bar_spring(setup, worn * fc)), rub=abs(float(np.tan(np.radians(s.lean)))) * setup.depth, y_gain=gain,
        roughness=record.of("finish", corner_roughness(feed, tool.corner_radius, reached, work) * _steadier(tool)),
        part_mass=float(np.pi / 4.0 * (f.diameter**2 - f.bore**2) * f.part_length * work.material.density * 1e-6),
        kerf_per_piece=slot * setup.bar_price / setup.bar.length, zone_speed=n, slot=slot,
    )  # fmt: skip


def _standing(setup: CutOffSetup, tool: SlotTool, starts: Array) -> SlotTool:
    """The tool as it stands in each zone: before it is pulled out it stands out less."""
    pulled = setup.settings.pull_out_at
    return tool if pulled is None else replace(tool, overhang=np.where(starts > pulled, setup.starts_out(tool.overhang), tool.overhang))


def _beside_seconds(setup: CutOffSetup, zones: tuple[FeedZone, ...], speed: Any, spun: Spun) -> Any:
    """Seconds of the plunges beside the part's own in a widened slot, down to its last layer."""
    if not setup.widened:
        return 0.0
    last = setup.single_from
    return setup.zone_seconds(tuple(replace(zone, end=max(zone.end, last)) for zone in zones if zone.start > last), speed, spun)


def _lift_seconds(setup: CutOffSetup) -> float:
    """Seconds of the lifts between the plunges of a widened slot."""
    if not setup.widened:
        return 0.0
    way = setup.feature.diameter - setup.single_from
    lifts = 2.0 * way / (2.0 * LAYER * setup.insert.width)
    return float(lifts * (2.0 * rapid_seconds(way / 4.0 + NEAR, setup.machine)))


def _steadier(tool: SlotTool) -> Array:
    """How much of a plain blade's roughness is left where the blade is carried under its insert and does not tremble.

    Common practice, no source: Ra 0.7 against 2.8 µm with the same edge.
    """
    return 1.0 / np.maximum(tool.stiffness, 1.0)


def bar_of(setup: CutOffSetup) -> Bar:
    """The bar as the blade meets it."""
    f, work = setup.feature, setup.work
    return Bar(
        f.diameter, f.bore, f.part_length, work.material.density, work.strength, work.specific_force_1,
        work.material.force_exponent, setup.holding.sub_spindle, setup.inner_diameter if f.bore <= 0 else 0.0,
    )  # fmt: skip


def _write_rim(setup: CutOffSetup, tool: SlotTool, feed: Any, record: Silent) -> None:
    """The forces at the rim, written down: there speed and feed are full."""
    if not isinstance(record, Recorder):
        return
    pushed = write_plunge(setup, tool, feed, setup.feature.diameter, "at the rim", record)
    fs = record(blade.side_force, feed_force=pushed, lead_angle=tool.lead_angle)
    record(
        blade.side_bend,
        side_force=fs,
        overhang=tool.overhang,
        second_moment=tool.second_across,
        elastic_modulus=blade.STEEL_BLADE * tool.stiffness,
        note=f"a {setup.blade.style} blade has {setup.blade.stiffness_share:.0%} of a solid one's stiffness",
    )


def _bar_spring(setup: CutOffSetup, push: Array) -> Array:
    """How far the bar gives under the worn edge [mm]: a cantilever from collet, jaws or bush; a bush or tailstock holds it at the cut."""
    if setup.holding.guide_bush:
        return np.zeros_like(push)
    a, f = setup.feature.distance_from_chuck, setup.feature
    inertia = float(round_second_moment(f.diameter, f.bore))
    bent = push * a**3 / (3.0 * setup.work.material.elastic_modulus * inertia)
    jaws = push / max(setup.machine.chuck_stiffness * setup.machine.rigidity * 1e3, 1.0)
    tilt = push * a**2 / max(setup.machine.chuck_tilt_stiffness * setup.machine.rigidity * 1e6, 1.0)
    return (bent + jaws + tilt) * (HELD_SHARE if setup.holding.tailstock or setup.holding.sub_spindle else 1.0)


def edge_break_seconds(setup: CutOffSetup, speed: Any, feed: Any, spun: Spun) -> Array:
    """Seconds that breaking the part's edge takes: out of the slot, along the chamfer at half feed, and back in."""
    size, machine = setup.feature.edge_break, setup.machine
    if size <= 0:
        return np.zeros(1)
    n = spun.at(speed, setup.feature.diameter)
    along = np.sqrt(2.0) * size / (0.5 * np.asarray(feed) * n) * 60.0
    return np.asarray(along + 4.0 * 60.0 * (2.0 * size + 2.0) / machine.rapid_rate + TURNS_BACK)
