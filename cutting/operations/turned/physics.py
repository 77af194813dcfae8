"""The cut itself, stage by stage: chip, forces, bending, surface, life, window, money.

Every array broadcasts to (..., passes); the same lines serve one set-up, a map and a ranking.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.chips.window import chip_index_of, depth_scale, feed_scale, light_index, light_weight, softest_index, stop_chance, window_gauge
from cutting.mechanics import chatter, chip_section, deflection, finish, force, heat, kinematics, tool_setting
from cutting.motion.clock import around_seconds
from cutting.nomenclature import source_label
from cutting.operations.frame.jaws import held_torque
from cutting.operations.frame.money import Spent, spend
from cutting.operations.frame.over_passes import over_passes
from cutting.operations.frame.stability import stable_on_part
from cutting.operations.turned.case import APPROACH, Case, Cutter, edge_cost, standing_heat
from cutting.operations.turned.contour import path_length
from cutting.operations.turned.setup import Setup
from cutting.wear import life, spread
from cutting.wear.reference import speed_as_in_steel
from cutting.working import Silent

Array = NDArray[np.float64]

SQUARE = float(np.sin(np.radians(95.0)))  # the edge for which windows are drawn
THIN_PUSHES = 0.35  # exponent with which the in-plane share grows as chips get thin, between 0.23 and 0.44 (König & Essel)
BARE_INDEX = 45.0  # the best that an edge without a breaker does in a ductile metal (common practice)
LONG_CHIPS = 0.3  # ductility from which chips must be broken


@dataclass(frozen=True)
class Chip:
    """What is cut: speeds and the section of the chip before it is compressed."""

    diameter: Array
    spindle_speed: Array
    cutting_speed: Array
    feed_per_rev: Array
    depth_of_cut: Array
    feed_rate: Array
    chip_area: Array
    engaged_edge: Array
    chip_thickness: Array
    chord_angle: Array


@dataclass(frozen=True)
class Forces:
    """What it takes: sharp forces in three directions, the worn edge's, power and torque, and what the jaws hold."""

    effective_rake: Array
    effective_clearance: Array
    specific_force: Array
    in_plane_ratio: Array
    cutting_force: Array
    worn_cutting_force: Array
    feed_force: Array
    passive_force: Array
    cutting_power: Array
    worn_power: Array
    available_power: Array
    torque: Array
    grip_torque: Array


@dataclass(frozen=True)
class Bending:
    """What gives way: part and shank, and the widths of cut that stay stable."""

    size_error: Array
    tool_bend: Array
    stable_part: Array
    stable_tool: Array


@dataclass(frozen=True)
class SurfaceLeft:
    """What it leaves."""

    roughness: Array
    least_useful_feed: Array
    minimum_chip: Array


@dataclass(frozen=True)
class Wear:
    """How hot the edge runs and how long it lasts."""

    temperature_rise: Array
    standing_rise: Array
    tool_life: Array
    weibull_shape: Array


@dataclass(frozen=True)
class ChipGauge:
    """Where feed and depth stand in the chip breaker's window."""

    window_gauge: Array
    window_harm: Array  # the same, where a light chip that strings counts less
    window_feed_scale: Array
    window_depth_scale: Array
    chip_index: Array
    stop_index: Array  # the same, where a light chip counts only as far as nobody leads it away


@dataclass(frozen=True)
class Cut(Spent, ChipGauge, Wear, SurfaceLeft, Bending, Forces, Chip):
    """Everything computed; arrays (..., passes), sums over passes (..., 1). Units as in the nomenclature."""

    case: Case
    cutter: Cutter
    pass_seconds: Array

    @property
    def setup(self) -> Setup:
        return self.case.setup

    @property
    def strokes_taken(self) -> int:
        """How often the tool runs over the feature."""
        return self.setup.pass_count

    @property
    def feed_set(self) -> Array:
        """The feed to set [mm/rev]: one that the machine has."""
        return self.feed_per_rev


def cut(case: Case, cutter: Cutter, speed: Any, feed: Any, depth: Any, diameters: Any, record: Silent) -> Cut:
    """Compute a cut.

    `speed` vc [m/min], `feed` f [mm/rev], `depth` ap [mm], `diameters` uncut diameters of the passes [mm], last
    axis passes. `record` runs the formulae and may keep the working.
    """
    diameters = np.atleast_1d(np.asarray(diameters, float))
    chip = _chip(case, cutter, speed, case.setup.machine.drive().fed(feed), depth, diameters, record)
    forces = _forces(case, cutter, chip, record)
    bending = _bending(case, cutter, chip, forces, record)
    surface = _surface(case, cutter, chip, record)
    wear = _wear(case, cutter, chip, forces, record)
    window = _window(case, cutter, chip, record)
    seconds = _pass_seconds(case, chip, record)
    return Cut(
        case=case, cutter=cutter, pass_seconds=seconds,
        **vars(chip), **vars(forces), **vars(bending), **vars(surface), **vars(wear), **vars(window),
        **_money(case, cutter, chip, wear, window, seconds, record),
    )  # fmt: skip


def _chip(case: Case, cutter: Cutter, speed: Any, feed: Any, depth: Any, diameters: Array, record: Silent) -> Chip:
    n, v = _spindle(case, speed, diameters, record)
    shape: dict[str, Any] = {"depth_of_cut": depth, "cutting_edge_angle": cutter.cutting_edge_angle, "nose_radius": cutter.nose_radius}
    area = record(chip_section.chip_area, feed_per_rev=feed, depth_of_cut=depth)
    edge = record(chip_section.engaged_edge, **shape)
    h = record(chip_section.mean_chip_thickness, chip_area=area, engaged_edge=edge)
    chord = record(chip_section.chord_angle, feed_per_rev=feed, **shape)
    rate = kinematics.feed_rate(feed, n)
    return Chip(diameters, n, v, np.asarray(feed, float), np.asarray(depth, float), rate, area, edge, h, chord)


def _forces(case: Case, cutter: Cutter, chip: Chip, record: Silent) -> Forces:
    setup = case.setup
    house, machine, work = setup.house, setup.machine, setup.work
    # facing runs down to its inner diameter, where the height of the tip tells most
    working = np.maximum(2.0 * setup.feature.end_diameter.nominal, chip.diameter / 2.0) if case.facing else chip.diameter
    height = setup.centre_height
    theta = record(tool_setting.height_angle, centre_height=height, diameter=working)
    theta = setup.shrinks * theta  # inside a tip above centre turns the planes the other way
    rake = record(tool_setting.effective_rake, rake=cutter.rake, height_angle=theta) if height else cutter.rake
    reference_rake = work.material.group.reference_rake
    k_rake = record(
        force.rake_factor,
        rake=rake,
        reference_rake=rake if reference_rake is None else reference_rake,
        note="no correction without a source for this group" if reference_rake is None else "",
    )
    h = chip.chip_thickness
    kc = record(
        force.specific_cutting_force,
        specific_force_1=work.specific_force_1,
        chip_thickness=h,
        force_exponent=work.material.force_exponent,
        rake_factor=k_rake,
        wear_factor=1.0,
        form_factor=1.0,
        note=f"kc1.1 and mc of {work.material.name}: {source_label(work.material.source)}",
    )
    fc = record(force.cutting_force, specific_force=kc, chip_area=chip.chip_area)
    q = (
        record(force.in_plane_ratio, chip_thickness=h, note=f"measured on E295; carried over to {work.material.name} for want of a source")
        * k_rake**2
    )
    ploughing = record(
        force.ploughing_force, specific_force=kc, edge_radius=cutter.edge_radius, engaged_edge=chip.engaged_edge, chip_thickness=h
    )
    ff = record(force.feed_force, cutting_force=fc, in_plane_ratio=q, chord_angle=chip.chord_angle)
    fp = record(force.passive_force, cutting_force=fc, in_plane_ratio=q, chord_angle=chip.chord_angle, ploughing_force=ploughing)
    worn = fc * house.wear_factor
    power = record(force.cutting_power, cutting_force=fc, cutting_speed=chip.cutting_speed)
    moment = record(force.torque, cutting_force=worn, diameter=chip.diameter, note="for the worn edge")
    held = held_torque(setup, chip.spindle_speed, setup.holding.grip_diameter, record)
    return Forces(
        effective_rake=np.asarray(rake, float),
        effective_clearance=tool_setting.effective_clearance(cutter.clearance, theta),
        specific_force=kc,
        in_plane_ratio=q,
        cutting_force=fc,
        worn_cutting_force=worn,
        feed_force=ff,
        passive_force=fp,
        cutting_power=power,
        worn_power=power * house.wear_factor,
        available_power=record.of("power", machine.spindle_power(chip.spindle_speed)),
        torque=moment,
        grip_torque=held,
    )


def _bending(case: Case, cutter: Cutter, chip: Chip, forces: Forces, record: Silent) -> Bending:
    # facing presses along the axis, so it is the feed force that bends the part there
    sideways = forces.feed_force if case.facing else forces.passive_force
    after = chip.diameter if case.facing else chip.diameter - 2.0 * chip.depth_of_cut
    give = record.of("give", case.compliance(chip.diameter, after) + cutter.bar_compliance)
    spring = record(
        deflection.part_deflection,
        passive_force=sideways,
        compliance=give,
        note=f"{case.setup.holding.style.value}, at the weakest place of the cut, with jaws and centre as springs"
        + ("; and the bar in its sleeve" if case.setup.inside else ""),
    )
    error = record(deflection.size_error, deflection=spring)
    shank = (cutter.overhang, cutter.shank_second_moment, cutter.shank_modulus)
    bend = record.of("give", deflection.tool_deflection(forces.worn_cutting_force, *shank))
    return Bending(error, bend, *_stability(case, cutter, chip, forces, give, record))


def _stability(case: Case, cutter: Cutter, chip: Chip, forces: Forces, give: Array, record: Silent) -> tuple[Array, Array]:
    """Width of cut that stays stable, for the part that is pushed away and for the shank that is pushed along the feed."""
    kc, q = forces.specific_force, forces.in_plane_ratio
    slope = record(chatter.force_slope, specific_force=kc, force_exponent=case.setup.work.material.force_exponent)
    shape: dict[str, Any] = {
        "depth_of_cut": chip.depth_of_cut, "cutting_edge_angle": cutter.cutting_edge_angle, "nose_radius": cutter.nose_radius,
    }  # fmt: skip
    thin = case.setup.work.material.force_exponent + THIN_PUSHES
    radial, axial = chip_section.radial_direction, chip_section.axial_direction
    of_part, of_shank = (axial, radial) if case.facing else (radial, axial)
    direction = record(of_part, **shape, thin_exponent=thin)
    share = record(chatter.mode_share, in_plane_ratio=q, direction_factor=direction)
    if case.setup.inside:
        return _stable_inside(case, cutter, chip, give, slope, share, q, record)
    part = stable_on_part(give, case.frequency, slope, share, q, chip.cutting_speed, chip.spindle_speed, record)
    # the shank stands square to the direction that bends the part
    stiff = cutter.side_stiffness / record.factor("give")
    tool = chatter.stable_width(stiff, chatter.DAMPING, slope, chatter.mode_share(q, of_shank(**shape, thin_exponent=thin)))
    tool = record.of("damping", tool)
    tool_damped = chatter.process_damping(chatter.wave_length(chip.cutting_speed, cutter.side_frequency), slope, q)
    return part, tool * tool_damped


def _stable_inside(
    case: Case, cutter: Cutter, chip: Chip, give: Array, slope: Array, share: Array, q: Array, record: Silent
) -> tuple[Array, Array]:
    """In a bore the bar swings along the radius, as the part does: each alone, the bar with its own damping."""
    bar_gives = cutter.bar_compliance * record.factor("give")
    unwritten = Silent(record.factors)
    part = stable_on_part(give - bar_gives, case.frequency, slope, share, q, chip.cutting_speed, chip.spindle_speed, unwritten)
    note = "of the bar, at every speed"
    bar = record(
        chatter.stable_width, stiffness=1.0 / bar_gives, damping_ratio=cutter.bar_damping, force_slope=slope, mode_share=share,
        note=note,
    )  # fmt: skip
    waves = chatter.wave_length(chip.cutting_speed, cutter.bar_frequency)
    damped = record(chatter.process_damping, wave_length=waves, force_slope=slope, in_plane_ratio=q)
    return part, np.asarray(bar * damped)


def _surface(case: Case, cutter: Cutter, chip: Chip, record: Silent) -> SurfaceLeft:
    slow = speed_as_in_steel(case.setup.work.material.speed_row)
    as_in_steel = slow * chip.cutting_speed
    ductile = min(case.ductility * 2, 1.0)
    share = finish.HARD_CHIP_SHARE if case.hard else finish.minimum_chip_share(as_in_steel, ductile)
    least = record(finish.minimum_chip_thickness, edge_radius=cutter.edge_radius, minimum_chip_share=share)
    marks = record(finish.feed_mark_height, feed_per_rev=chip.feed_per_rev, nose_radius=cutter.nose_radius)
    if case.hard:
        peaks = record(finish.hard_turned_height, peak_height=marks)
    else:
        peaks = record(
            finish.brammertz_height, peak_height=marks, feed_per_rev=chip.feed_per_rev, nose_radius=cutter.nose_radius, minimum_chip=least
        )
    ratio = np.ones(1)
    if not case.hard:  # hardened work builds no edge
        note = "a slow metal leaves the built-up edge behind sooner" if slow > 1 else ""
        ratio = record(finish.finish_factor, cutting_speed=as_in_steel, ductile=ductile, note=note)
    ratio = ratio * np.where(cutter.wiper > 0, finish.WIPER_GAIN, 1.0)
    ra = record(finish.arithmetic_roughness, peak_height=peaks, finish_factor=ratio)
    return SurfaceLeft(ra, finish.least_useful_feed(cutter.nose_radius, least), least)


def _wear(case: Case, cutter: Cutter, chip: Chip, forces: Forces, record: Silent) -> Wear:
    material = case.setup.work.material
    standing = standing_heat(case, cutter)
    rise = record(
        heat.cook_temperature_rise,
        specific_force=forces.specific_force / record.factor("force"),  # the scale is the metal's own: its force cancels
        heat_capacity=material.heat_capacity,
        cutting_speed=chip.cutting_speed,
        chip_thickness=chip.chip_thickness,
        diffusivity=material.diffusivity,
        note=f"a guide for comparing, not a measurement; on the same scale this edge stands {np.ravel(standing)[-1]:.0f} K here",
    )
    factor = record(
        life.factor_along_edge,
        speed_factor_at_90=cutter.speed_factor,
        cutting_edge_angle=cutter.cutting_edge_angle,
        depth_of_cut=chip.depth_of_cut,
        nose_radius=cutter.nose_radius,
    )
    minutes = record(
        life.taylor_life,
        reference_speed=cutter.reference_speed,
        speed_factor=factor,
        cutting_speed=chip.cutting_speed,
        taylor_exponent=cutter.taylor_exponent,
        reference_feed=cutter.reference_feed,
        chip_thickness=chip.chip_thickness,
        feed_exponent=cutter.feed_exponent,
        reference_depth=cutter.reference_depth,
        depth_of_cut=chip.depth_of_cut,
        depth_exponent=cutter.depth_exponent,
        light_gain=cutter.light_gain,
    )
    shape = record(spread.weibull_shape, coefficient_of_variation=cutter.coefficient_of_variation)
    return Wear(rise, standing, minutes, shape)


def _window(case: Case, cutter: Cutter, chip: Chip, record: Silent) -> ChipGauge:
    across, along = window_scales(case, cutter, chip.cutting_speed)
    place: dict[str, Any] = {
        "feed_per_rev": chip.feed_per_rev,
        "depth_of_cut": chip.depth_of_cut,
        "normals": cutter.window_normals,
        "centre": cutter.window_centre,
        "scale_feed": across,
        "scale_depth": along,
        "ductility": case.ductility,
    }
    gauge, light = record(window_gauge, **place), light_weight(chip.chip_area)
    harm = window_gauge(**place, light_chip=light) if np.any(light < 1.0) else gauge
    index = chip_index_of(gauge)
    if case.ductility > LONG_CHIPS:
        index = np.where(cutter.breaker > 0, index, np.minimum(index, BARE_INDEX))
    index = np.minimum(index, softest_index(case.ductility, case.pressure))
    strings = index * light_index(chip.chip_area)
    # who stands beside it leads a light chip away; where nobody does it gathers
    return ChipGauge(gauge, harm, across, along, strings, strings if case.setup.batch.unattended_hours > 0 else index)


def window_scales(case: Case, cutter: Cutter, speed: Any) -> tuple[Array, Array]:
    """How far nose, metal, speed and jet stretch the breaker window along feed, and the insert's size along depth.

    The window is drawn for a square edge: a slanted one makes a thinner, wider chip of the same feed and depth.
    """
    lean = np.where(cutter.round_shape > 0, 1.0, np.minimum(np.sin(np.radians(cutter.cutting_edge_angle)) / SQUARE, 1.0))
    across = feed_scale(cutter.nose_radius, case.curl_need, speed, case.pressure) / lean
    return across, depth_scale(cutter.inscribed_circle) * lean


def _spindle(case: Case, speed: Any, diameters: Array, record: Silent) -> tuple[Array, Array]:
    """Spindle speed after clamp and gearbox, and the cutting speed that is really reached."""
    machine = case.setup.machine
    wanted = record(
        kinematics.spindle_speed, cutting_speed=speed, diameter=diameters, note="before clamp and gearbox" if machine.speeds else ""
    )
    n = machine.drive(case.top_speed).runs(wanted)
    return n, record(kinematics.cutting_speed, spindle_speed=n, diameter=diameters)


def _pass_seconds(case: Case, chip: Chip, record: Silent) -> Array:
    setup = case.setup
    if not case.facing:
        travel = path_length(setup.feature) + APPROACH
        return np.asarray(record(kinematics.turning_time, length=travel, feed_per_rev=chip.feed_per_rev, spindle_speed=chip.spindle_speed))
    way: dict[str, Any] = {
        "diameter": chip.diameter + 2 * APPROACH,
        "inner_diameter": setup.feature.end_diameter.nominal,
        "feed_per_rev": chip.feed_per_rev,
    }
    if setup.machine.constant_surface_speed:
        return np.asarray(record(kinematics.facing_time, cutting_speed=chip.cutting_speed, clamp_speed=case.top_speed, **way))
    return np.asarray(record(kinematics.facing_time_at_fixed_speed, spindle_speed=chip.spindle_speed, **way))


def _money(case: Case, cutter: Cutter, chip: Chip, wear: Wear, window: ChipGauge, seconds: Array, record: Silent) -> dict[str, Array]:
    machine = case.setup.machine
    engaged = over_passes(seconds, np.add)
    idle = np.full_like(engaged, seconds.shape[-1] * case.travel_idle + around_seconds(machine))
    # wear adds up over passes at their own speeds: share of life used per piece
    used = over_passes(seconds / 60.0 / wear.tool_life, np.add)
    chips_stop = stop_chance(over_passes(window.stop_index, np.minimum))
    return spend(case.setup, engaged, idle, used, wear.weibull_shape, edge_cost(cutter, over_passes(chip.depth_of_cut)), chips_stop, record)
