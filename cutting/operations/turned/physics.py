"""The cut itself: from speed, feed and depth to chip, force, size, finish, heat, life, time and money.

Every array broadcasts to (..., passes); the same lines serve one set-up, a map and a ranking.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.chips.window import chip_index_of, depth_scale, feed_scale, window_gauge
from cutting.mechanics import chatter, chip_section, deflection, finish, force, grip, heat, kinematics, tool_setting
from cutting.money.cost import operation_cost, operation_time
from cutting.nomenclature import source_label
from cutting.operations.turned.case import APPROACH, Case, Cutter, edge_cost, standing_heat
from cutting.operations.turned.contour import path_length
from cutting.operations.turned.over_passes import over_passes
from cutting.wear import life, spread
from cutting.working import Silent

Array = NDArray[np.float64]

SQUARE = float(np.sin(np.radians(95.0)))  # the edge for which windows are drawn
CHIP_STOP = 0.02  # chance per piece that chips stop the machine when the index is 0 (common practice)
CHIPS_SURE = 0.9  # from this index on, chips are not what stops the machine


@dataclass(frozen=True)
class Cut:
    """Everything computed; arrays (..., passes), sums over passes (..., 1). Units as in the nomenclature."""

    diameter: Array
    spindle_speed: Array
    cutting_speed: Array
    feed_per_rev: Array
    depth_of_cut: Array
    feed_rate: Array
    chip_area: Array
    engaged_edge: Array
    chip_thickness: Array
    specific_force: Array
    cutting_force: Array
    worn_cutting_force: Array
    feed_force: Array
    passive_force: Array
    cutting_power: Array
    worn_power: Array
    available_power: Array
    torque: Array
    grip_torque: Array
    effective_rake: Array
    effective_clearance: Array
    size_error: Array
    tool_bend: Array
    stable_part: Array
    stable_tool: Array
    roughness: Array
    least_useful_feed: Array
    minimum_chip: Array
    temperature_rise: Array
    standing_rise: Array
    tool_life: Array
    weibull_shape: Array
    window_gauge: Array
    window_feed_scale: Array
    window_depth_scale: Array
    chip_index: Array
    pass_seconds: Array
    engaged_time: Array
    idle_time: Array
    change_parts: Array
    median_parts: Array
    run_parts: Array
    secure: Array
    edge_cost: Array
    operation_cost: Array
    operation_time: Array


def cut(case: Case, cutter: Cutter, speed: Any, feed: Any, depth: Any, diameters: Any, record: Silent) -> Cut:
    """Compute a cut.

    `speed` vc [m/min], `feed` f [mm/rev], `depth` ap [mm], `diameters` uncut diameters of the passes [mm], last
    axis passes. `record` runs the formulae and may keep the working.
    """
    setup = case.setup
    house, machine, work = setup.house, setup.machine, setup.work
    diameters = np.atleast_1d(np.asarray(diameters, float))
    feed = _on_ladder(feed, machine.feeds)
    n, v = _spindle(case, speed, diameters, record)

    area = record(chip_section.chip_area, feed_per_rev=feed, depth_of_cut=depth)
    edge = record(
        chip_section.engaged_edge, depth_of_cut=depth, cutting_edge_angle=cutter.cutting_edge_angle, nose_radius=cutter.nose_radius
    )
    h = record(chip_section.mean_chip_thickness, chip_area=area, engaged_edge=edge)
    chord = record(
        chip_section.chord_angle,
        feed_per_rev=feed,
        depth_of_cut=depth,
        cutting_edge_angle=cutter.cutting_edge_angle,
        nose_radius=cutter.nose_radius,
    )

    # facing runs down to its inner diameter, where the height of the tip tells most
    working = np.maximum(2.0 * setup.feature.end.nominal, diameters / 2.0) if case.facing else diameters
    height = setup.centre_height
    theta = record(tool_setting.height_angle, centre_height=height, diameter=working)
    rake = record(tool_setting.effective_rake, rake=cutter.rake, height_angle=theta) if height else cutter.rake
    reference_rake = work.material.group.reference_rake
    k_rake = record(
        force.rake_factor,
        rake=rake,
        reference_rake=rake if reference_rake is None else reference_rake,
        note="no correction without a source for this group" if reference_rake is None else "",
    )
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
    fc = record(force.cutting_force, specific_force=kc, chip_area=area)
    q = (
        record(force.in_plane_ratio, chip_thickness=h, note=f"measured on E295; carried over to {work.material.name} for want of a source")
        * k_rake**2
    )
    ploughing = record(force.ploughing_force, specific_force=kc, edge_radius=cutter.edge_radius, engaged_edge=edge, chip_thickness=h)
    ff = record(force.feed_force, cutting_force=fc, in_plane_ratio=q, chord_angle=chord)
    fp = record(force.passive_force, cutting_force=fc, in_plane_ratio=q, chord_angle=chord, ploughing_force=ploughing)
    worn = fc * house.wear_factor
    power = record(force.cutting_power, cutting_force=fc, cutting_speed=v)
    moment = record(force.torque, cutting_force=worn, diameter=diameters, note="for the worn edge")
    held = record(
        grip.grip_torque,
        friction=house.jaw_friction,
        jaw_force=machine.jaw_force * setup.holding.grip_share,
        jaw_mass=machine.jaw_mass,
        jaw_radius=machine.jaw_radius,
        spindle_speed=n,
        grip_diameter=setup.holding.grip_diameter,
    )

    # facing presses along the axis, so it is the feed force that bends the part there
    sideways = ff if case.facing else fp
    after = diameters if case.facing else diameters - 2.0 * np.asarray(depth)
    give = case.compliance(diameters, after)
    spring = record(
        deflection.part_deflection,
        passive_force=sideways,
        compliance=give,
        note=f"{setup.holding.style.value}, at the weakest place of the cut, with jaws and centre as springs",
    )
    error = record(deflection.size_error, deflection=spring)
    bend = deflection.tool_deflection(worn, cutter.overhang, cutter.shank_second_moment)

    stable_part, stable_tool = _stability(case, cutter, kc, q, chord, n, give, record)

    h_min = record(finish.minimum_chip_thickness, edge_radius=cutter.edge_radius, minimum_chip_share=case.minimum_chip_share)
    marks = record(finish.feed_mark_height, feed_per_rev=feed, nose_radius=cutter.nose_radius)
    height = record(finish.brammertz_height, peak_height=marks, feed_per_rev=feed, nose_radius=cutter.nose_radius, minimum_chip=h_min)
    ratio = record(finish.finish_factor, cutting_speed=v, ductile=1.0 if case.hard else min(case.ductility * 2, 1.0))
    ratio = ratio * np.where(cutter.wiper > 0, finish.WIPER_GAIN, 1.0)
    ra = record(finish.arithmetic_roughness, peak_height=height, finish_factor=ratio)

    standing = standing_heat(case, cutter)
    rise = record(
        heat.cook_temperature_rise,
        specific_force=kc,
        heat_capacity=work.material.heat_capacity,
        cutting_speed=v,
        chip_thickness=h,
        diffusivity=work.material.diffusivity,
        note=f"a guide for comparing, not a measurement; on the same scale this edge stands {np.ravel(standing)[-1]:.0f} K here",
    )
    t = record(
        life.taylor_life,
        reference_speed=cutter.reference_speed,
        speed_factor=cutter.speed_factor,
        cutting_speed=v,
        taylor_exponent=cutter.taylor_exponent,
        reference_feed=cutter.reference_feed,
        chip_thickness=h,
        feed_exponent=cutter.feed_exponent,
        reference_depth=cutter.reference_depth,
        depth_of_cut=depth,
        depth_exponent=cutter.depth_exponent,
    )
    shape = record(spread.weibull_shape, coefficient_of_variation=cutter.coefficient_of_variation)

    stretch, tall = window_scales(case, cutter, v)
    gauge = record(
        window_gauge,
        feed_per_rev=feed,
        depth_of_cut=depth,
        normals=cutter.window_normals,
        centre=cutter.window_centre,
        scale_feed=stretch,
        scale_depth=tall,
        ductility=case.ductility,
    )
    index = chip_index_of(gauge)
    if case.ductility > 0.3:
        index = np.where(cutter.breaker > 0, index, np.minimum(index, 45.0))

    seconds = _pass_seconds(case, v, feed, n, diameters, record)
    money = _money(case, cutter, seconds, t, shape, index, depth, record)
    return Cut(
        diameter=diameters,
        spindle_speed=n,
        cutting_speed=v,
        feed_per_rev=np.asarray(feed, float),
        depth_of_cut=np.asarray(depth, float),
        feed_rate=kinematics.feed_rate(feed, n),
        chip_area=area,
        engaged_edge=edge,
        chip_thickness=h,
        specific_force=kc,
        cutting_force=fc,
        worn_cutting_force=worn,
        feed_force=ff,
        passive_force=fp,
        cutting_power=power,
        worn_power=power * house.wear_factor,
        available_power=machine.spindle_power(n),
        torque=moment,
        grip_torque=held,
        effective_rake=np.asarray(rake, float),
        effective_clearance=tool_setting.effective_clearance(cutter.clearance, theta),
        size_error=error,
        tool_bend=bend,
        stable_part=stable_part,
        stable_tool=stable_tool,
        roughness=ra,
        least_useful_feed=finish.least_useful_feed(cutter.nose_radius, h_min),
        minimum_chip=h_min,
        temperature_rise=rise,
        standing_rise=standing,
        tool_life=t,
        weibull_shape=shape,
        window_gauge=gauge,
        window_feed_scale=stretch,
        window_depth_scale=tall,
        chip_index=index,
        pass_seconds=seconds,
        **money,
    )


def window_scales(case: Case, cutter: Cutter, speed: Any) -> tuple[Array, Array]:
    """How far nose, metal, speed and jet stretch the breaker window along feed, and the insert's size along depth.

    The window is drawn for a square edge: a slanted one makes a thinner, wider chip of the same feed and depth.
    """
    lean = np.where(cutter.round_shape > 0, 1.0, np.minimum(np.sin(np.radians(cutter.cutting_edge_angle)) / SQUARE, 1.0))
    across = feed_scale(cutter.nose_radius, case.curl_need, speed, case.pressure) / lean
    return across, depth_scale(cutter.inscribed_circle) * lean


def _stability(case: Case, cutter: Cutter, kc: Array, q: Array, chord: Array, n: Array, give: Array, record: Silent) -> tuple[Array, Array]:
    """Width of cut that stays stable, for the part that is pushed away and for the shank that is pushed along the feed."""
    slope = record(chatter.force_slope, specific_force=kc, force_exponent=case.setup.work.material.force_exponent)
    share = record(chatter.axial_mode_share if case.facing else chatter.radial_mode_share, in_plane_ratio=q, chord_angle=chord)
    part = record(
        chatter.stable_width,
        stiffness=1.0 / give,
        damping_ratio=chatter.DAMPING,
        force_slope=slope,
        mode_share=share,
        note=f"at every speed; the part swings at about {case.frequency:.0f} Hz",
    )
    # the shank stands square to the direction that bends the part, and takes the rest: sin² + cos² = 1
    tool = chatter.stable_width(cutter.side_stiffness, chatter.DAMPING, slope, q - share)
    return part * chatter.sure_gain(n / (60.0 * case.frequency), chatter.DAMPING), tool


def _on_ladder(feed: Any, ladder: tuple[float, ...]) -> Any:
    return kinematics.nearest_step_below(feed, ladder) if ladder else feed


def _spindle(case: Case, speed: Any, diameters: Array, record: Silent) -> tuple[Array, Array]:
    """Spindle speed after clamp and gearbox, and the cutting speed that is really reached."""
    machine = case.setup.machine
    wanted = record(
        kinematics.spindle_speed, cutting_speed=speed, diameter=diameters, note="before clamp and gearbox" if machine.speeds else ""
    )
    n = np.minimum(wanted, case.top_speed)
    n = kinematics.nearest_step_below(n, machine.speeds) if machine.speeds else np.maximum(n, machine.speed_min)
    return n, record(kinematics.cutting_speed, spindle_speed=n, diameter=diameters)


def _pass_seconds(case: Case, speed: Array, feed: Any, n: Array, diameters: Array, record: Silent) -> Array:
    setup = case.setup
    if not case.facing:
        travel = path_length(setup.feature) + APPROACH
        return np.asarray(record(kinematics.turning_time, length=travel, feed_per_rev=feed, spindle_speed=n))
    inner = setup.feature.end.nominal
    outer = diameters + 2 * APPROACH
    if setup.machine.constant_surface_speed:
        return np.asarray(
            record(
                kinematics.facing_time,
                diameter=outer,
                inner_diameter=inner,
                cutting_speed=speed,
                feed_per_rev=feed,
                clamp_speed=case.top_speed,
            )
        )
    return np.asarray(
        record(kinematics.facing_time_at_fixed_speed, diameter=outer, inner_diameter=inner, feed_per_rev=feed, spindle_speed=n)
    )


def _money(
    case: Case,
    cutter: Cutter,
    seconds: Array,
    tool_life: Array,
    shape: Array,
    index: Array,
    depth: Any,
    record: Silent,
) -> dict[str, Array]:
    setup = case.setup
    machine, house, batch = setup.machine, setup.house, setup.batch
    engaged = over_passes(seconds, np.add)
    passes = seconds.shape[-1]
    idle = np.full_like(engaged, passes * case.travel_idle + machine.index_time + machine.start_time)
    # wear adds up over passes at their own speeds: share of life used per piece
    used = over_passes(seconds / 60.0 / tool_life, np.add)
    median_parts = 1.0 / used
    planned = median_parts * spread.life_quantile(house.change_probability(setup.goal), shape)
    change_parts = np.where(planned >= 1.0, np.floor(planned), planned)
    price = edge_cost(cutter, over_passes(np.asarray(depth, float)))
    money: dict[str, Any] = {
        "engaged_time": engaged,
        "idle_time": idle,
        "change_time": machine.edge_change_time,
        "parts_per_edge": change_parts,
    }
    seconds_each = record(operation_time, **money)
    cost = record(operation_cost, rate=machine.rate, edge_cost=price, **money)
    alone = batch.unattended_hours * 3600.0
    run_parts = (
        np.ceil(alone / (batch.piece_seconds or seconds_each)) if alone > 0 else np.minimum(np.maximum(change_parts, 1.0), batch.pieces)
    )
    edge_lasts = record(
        spread.completion_probability,
        time_in_cut=run_parts * used,
        tool_life=1.0,
        weibull_shape=shape,
        note="time in cut as a share of life",
    )
    worst_index = over_passes(index, np.minimum)
    chips_behave = (1.0 - CHIP_STOP * np.maximum(CHIPS_SURE - worst_index / 100.0, 0.0) ** 2) ** run_parts
    return {
        "engaged_time": engaged,
        "idle_time": idle,
        "change_parts": change_parts,
        "median_parts": median_parts,
        "run_parts": run_parts,
        "secure": edge_lasts * chips_behave,
        "edge_cost": price,
        "operation_cost": cost,
        "operation_time": seconds_each,
    }
