"""The numbers of a cut-off: simulation, bending, power, grip, life and money of one set-up."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.errors import CuttingError
from cutting.mechanics import blade, force, grip
from cutting.mechanics.deflection import round_second_moment
from cutting.money.cost import insert_edge_cost, operation_cost, operation_time
from cutting.money.kerf import Kerf, kerf
from cutting.operations.cut_off.setup import CutOffSetup
from cutting.operations.cut_off.simulation import Bar, Blade, CutOff, simulate
from cutting.tooling.blades import plunge_feeds, usual_width
from cutting.wear import life, spread
from cutting.wear.reference import life_law, speed_factors
from cutting.working import Silent

SLOWER = 0.75  # cut-off against turning, middle of 0.6 to 0.8 (common practice)
BOOK_HIGH = 1.1
BRITTLE_SCATTER, EXTRA_SCATTER = 0.1, 0.05  # a narrow edge in a slot scatters more (common practice)
JAM, MOST_JAMS = 0.0003, 0.005  # chance a piece that chips jam the slot, per 10 × width of depth; and at most (common practice)


@dataclass(frozen=True)
class Numbers:
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
    tool_life: float
    weibull_shape: float
    median_parts: float
    change_parts: float
    secure: float
    seconds: float
    cost: float
    edge_cost: float
    y_gain: float
    kerf: Kerf | None


def numbers(setup: CutOffSetup, record: Silent) -> Numbers:
    """Everything computed for a set-up. Raises `CuttingError`."""
    setup.check()
    f, s, work, machine = setup.feature, setup.settings, setup.work, setup.machine
    held = setup.holding.sub_spindle
    bar = Bar(f.diameter, f.bore, f.part_length, work.material.density, work.material.strength, work.specific_force_1,
              work.material.force_exponent, held)  # fmt: skip
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
    held_torque = _grip(setup, run, record)
    engaged = run.total_seconds
    lasting = _life(setup, engaged, record)
    money = _money(setup, engaged, lasting["change_parts"])
    return Numbers(
        setup,
        run,
        usual_width(f.diameter),
        plunge_feeds(setup.insert.width, work.material.group.letter, setup.insert.grade.tool_class),
        BOOK_HIGH * lasting["start"],
        float(run.height_bend.max()) / share,
        float(run.side_bend.max()) / setup.blade.stiffness_share,
        _bar_spring(setup, worn * fc),
        abs(float(np.tan(np.radians(s.lean)))) * setup.depth,
        power,
        float(np.min(machine.spindle_power(run.spindle_speed))),
        torque,
        held_torque,
        lasting["life"],
        lasting["shape"],
        lasting["median_parts"],
        lasting["change_parts"],
        lasting["secure"],
        money[0],
        money[1],
        money[2],
        gain,
        _kerf(setup),
    )


def _record_rim(setup: CutOffSetup, record: Silent) -> None:
    """The forces at the rim, written down: there speed and feed are full."""
    s, material = setup.settings, setup.work.material
    thickness = s.feed_per_rev * np.cos(np.radians(setup.insert.lead_angle))
    kc = record(
        force.specific_cutting_force,
        specific_force_1=setup.work.specific_force_1,
        chip_thickness=thickness,
        force_exponent=material.force_exponent,
        rake_factor=1.0,
        wear_factor=1.0,
        form_factor=blade.GROOVE_FORM,
        note=f"at the rim; kc1.1 and mc of {material.name}",
    )
    fc = record(force.cutting_force, specific_force=kc, chip_area=s.feed_per_rev * setup.insert.width)
    ff = record(blade.plunge_force, cutting_force=fc, chip_thickness=thickness, note="measured on E295, carried over")
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
    record(force.cutting_power, cutting_force=fc, cutting_speed=s.cutting_speed)
    record(force.torque, cutting_force=setup.house.wear_factor * fc, diameter=setup.feature.diameter, note="for the worn edge")


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


def _grip(setup: CutOffSetup, run: CutOff, record: Silent) -> float:
    machine = setup.machine
    if machine.jaw_force <= 0:
        return 0.0
    return float(
        record(
            grip.grip_torque,
            friction=setup.house.jaw_friction,
            jaw_force=machine.jaw_force,
            jaw_mass=machine.jaw_mass,
            jaw_radius=machine.jaw_radius,
            spindle_speed=float(run.spindle_speed[0]),
            grip_diameter=setup.holding.grip_diameter or setup.feature.diameter,
            note="at the rim, where the torque is",
        )
    )


def _life(setup: CutOffSetup, engaged: float, record: Silent) -> dict[str, float]:
    law = life_law(setup.work.material.speed_row, setup.insert.grade.tool_class)
    if law is None:
        group = setup.work.material.group
        raise CuttingError(
            "tool.insert", f"no starting speed for {setup.insert.grade.tool_class} in group {group.number} ({group.description})."
        )
    pressure = setup.machine.pressure(setup.settings.coolant) or 0.0
    factors = speed_factors(setup.work, setup.insert.grade, pressure, False, "clean", False)
    factor = SLOWER * float(np.prod([one.factor for one in factors]))
    # the book's speed is meant for the middle of the width's feed window
    usual = sum(plunge_feeds(setup.insert.width, setup.work.material.group.letter, setup.insert.grade.tool_class)) / 2.0
    minutes = float(
        record(
            life.taylor_life,
            reference_speed=law.reference_speed,
            speed_factor=factor,
            cutting_speed=setup.settings.cutting_speed,
            taylor_exponent=law.taylor_exponent,
            reference_feed=law.reference_feed,
            chip_thickness=law.reference_feed * setup.settings.feed_per_rev / usual,
            feed_exponent=law.feed_exponent,
            reference_depth=law.reference_depth,
            depth_of_cut=law.reference_depth,
            depth_exponent=law.depth_exponent,
            note=f"cut-off at {SLOWER:g} of the turning speed; the feed counts against the middle of its width's window",
        )
    )
    scatter = law.coefficient_of_variation + EXTRA_SCATTER + BRITTLE_SCATTER * max(0.0, 0.7 - setup.insert.grade.toughness)
    shape = float(record(spread.weibull_shape, coefficient_of_variation=scatter))
    median = minutes * 60.0 / engaged
    planned = median * float(spread.life_quantile(setup.house.change_probability(setup.goal), shape))
    change = float(np.floor(planned)) if planned >= 1 else planned
    run_parts = float(min(max(change, 1.0), setup.batch.pieces))
    jams = JAM * setup.depth / (10.0 * setup.insert.width) * (0.3 if pressure >= 20 else 1.0) * setup.work.material.ductility
    secure = float(spread.completion_probability(run_parts / median, 1.0, shape)) * (1.0 - min(jams, MOST_JAMS)) ** run_parts
    return {
        "life": minutes,
        "shape": shape,
        "median_parts": median,
        "change_parts": change,
        "secure": secure,
        "start": law.reference_speed * factor,
    }


def _money(setup: CutOffSetup, engaged: float, change_parts: float) -> tuple[float, float, float]:
    """Seconds, money per piece, money per edge."""
    machine = setup.machine
    travel = (
        60.0 * (setup.depth + 20.0) / machine.rapid_rate
        + machine.index_time
        + machine.start_time
        + (1.5 if setup.holding.sub_spindle else 0.0)
    )
    edge = float(insert_edge_cost(setup.insert.price, setup.insert.edges, setup.blade.price))
    seconds = float(operation_time(engaged, travel, machine.edge_change_time, change_parts))
    return seconds, float(operation_cost(machine.rate, engaged, travel, machine.edge_change_time, edge, change_parts)), edge


def _kerf(setup: CutOffSetup) -> Kerf | None:
    bar, f = setup.bar, setup.feature
    if bar.price <= 0:
        return None
    return kerf(f.diameter, f.bore, bar.length, f.part_length, setup.insert.width, bar.remnant, bar.price, bar.yearly)
