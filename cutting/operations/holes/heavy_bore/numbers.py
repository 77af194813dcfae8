"""The numbers of a heavy tool in its pass: on the gripper, up to speed, steps that cut together, what their bores keep."""

from __future__ import annotations

from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Any

import numpy as np

from cutting.machine.machines import Machine
from cutting.mechanics import finish, force, rotor
from cutting.mechanics.jet import nozzle_flow
from cutting.motion.clock import rapid_seconds
from cutting.motion.trace import CLEAR, HOME
from cutting.operations.frame.money import Spent, spend
from cutting.operations.frame.over_passes import of_one, over_passes
from cutting.operations.holes.drill.tool import pump_budget
from cutting.operations.holes.heavy_bore.setup import BoringChain, HeavyBoreSetup
from cutting.operations.holes.heavy_bore.tool import FEED_HIGH, FEED_LOW, Array, HeavyTools
from cutting.sizing.warmth import REFERENCE, growth
from cutting.wear import life, spread
from cutting.working import Silent

BORING_FORM = 1.1  # of the specific force inside a bore (Tschätsch's correction)
RADIAL = 0.35  # of the cutting force that an edge pushes inward (common practice)
UNEVEN = 0.15  # of it that several edges leave between them, as one cuts a little more (common practice)
PADS_CARRY = 0.25  # of the movement that guide pads leave (common practice)
LEFT_FOR_TOOL = 0.5  # of the spindle's torque, as its own rotor takes the rest (common practice)
SPIN_STEPS = 60
RUN_IN = 2.0  # mm at feed before the first step cuts
BREAK_OUT = 0.5  # mm that the edges of a bore that goes through run out beyond it
CURLS = 0.1  # mm of chip from which breakers of boring inserts curl it (common practice)
LEAST_CORNER = 0.01  # mm
SETS_AGAIN = 3.0  # × the machine's change of an edge, for each step: cartridges are set and measured (common practice)


@dataclass(frozen=True)
class Numbers(Spent):
    """What limits and results read: by bore (…, bores), else (…, 1); kg, mm, N, N·m, kW, g·mm, Hz, s, l/min, bar."""

    setup: Any
    tool: HeavyTools
    spindle_speed: Array
    feed_set: Array
    feed_rate: Array
    moment: Array  # about the gripper
    spin_up: Array
    chip_to_chip: Array
    unbalance: Array
    permissible: Array
    unbalance_force: Array
    tooth_frequency: Array
    bore_speed: Array  # m/min, by bore
    cutting_speed: Array  # of the widest
    chip_thickness: Array  # by bore
    cutting_force: Array  # all edges of a step together, worn
    step_torque: Array
    moved: Array  # what its own push bends the tool at a step's edges
    cylindricity: Array
    grown: Array
    set_to: Array  # what to bore at this temperature, so that it is on target at 20 °C
    unsure: Array  # what a temperature that is not known better costs
    flow: Array
    enters: Array  # feed of the pass after which each step begins
    short: Array  # how far each step ends before its floor
    torque: Array  # of all that cut together
    power: Array
    spindle_torque: Array
    available: Array
    coaxiality: Array
    pressure: float
    roughness: Array
    tool_life: Array
    weibull_shape: Array
    book_low: Array
    book_high: Array
    chip_index: Array

    @property
    def strokes_taken(self) -> int:
        """One pass bores them all."""
        return 1


def zone(*links: Any) -> Array:
    """Diameter of the zone [mm] of an axis whose links may each be off by so much: they seldom all err the same way.

    >>> round(float(zone(0.003, 0.004)), 6)
    0.01
    """
    return np.asarray(2.0 * np.sqrt(sum(np.asarray(one, float) ** 2 for one in links)))


def coaxialities(between_steps: float, chain: BoringChain) -> tuple[tuple[str, float], ...]:
    """Coaxiality [mm, zone Ø] of one tool, of two tools in one clamping, of two clampings."""
    two = (between_steps, chain.change, chain.change, chain.axis)
    ways = (("one tool", (between_steps,)), ("two tools", two), ("two clampings", (*two, chain.clamping)))
    return tuple((name, float(zone(*links))) for name, links in ways)


def numbers(setup: HeavyBoreSetup, tool: HeavyTools, speed: Any, feed: Any, record: Silent) -> Numbers:
    """Everything computed at speeds [m/min at the widest bore] and feeds [mm/rev]."""
    f, s, machine, own = setup.feature, setup.settings, setup.machine, tool.own
    drive, material, worn = machine.drive(), setup.work.material, setup.house.wear_factor
    sizes, targets = (np.array([getattr(one.diameter, name) for one in f.bores]) for name in ("nominal", "target"))
    n = drive.at(speed, f.widest) + 0.0 * own["mass"]
    fed = drive.fed(feed) + 0.0 * n
    v = np.pi * sizes * n / 1000.0
    moment = record(rotor.tilting_moment, tool_mass=own["mass"], mass_lever=own["lever"])
    unbalance = own["mass"] * own["eccentricity"]
    permits = record(rotor.permissible_unbalance, balance_grade=own["balance_grade"], spindle_speed=n, tool_mass=own["mass"])
    pushed = record(rotor.unbalance_force, unbalance=unbalance, spindle_speed=n)
    up = _spun_up(machine, n, own["inertia"], record)
    h = fed / own["inserts"] * own["sine"]
    depth = own["allowance"] / 2.0
    kc = record(
        force.specific_cutting_force,
        specific_force_1=setup.work.specific_force_1,
        chip_thickness=np.maximum(h, 1e-3),
        force_exponent=material.force_exponent,
        rake_factor=1.0,
        wear_factor=worn,
        form_factor=BORING_FORM,
        note="worn; form of a bore",
    )
    # all edges of a step together: each takes its share of the feed
    cuts = record(force.cutting_force, specific_force=kc, chip_area=fed * depth, note="all edges of a step")
    each = RADIAL * cuts / own["inserts"]
    beside = record.of("push", np.where(own["inserts"] > 1, UNEVEN, 1.0) * each)
    moved = record.of("give", beside * own["give"]) * np.where(own["pads"] > 0, PADS_CARRY, 1.0)
    enters, short, stroke = _pass(setup, own["at"])
    twist = cuts * (sizes - depth) / 2000.0
    torque = over_passes(_together(setup, enters, twist))
    power = torque * n / 9549.3
    grown = growth(sizes, material.expansion, s.temperature)
    seconds = 60.0 * (stroke + RUN_IN) / (n * fed)
    lasts = _lasting(tool, v, h, record)
    lengths = np.array([one.length for one in f.bores])
    used = over_passes(60.0 * lengths / (n * fed) / 60.0 / lasts)
    shape = record(spread.weibull_shape, coefficient_of_variation=tool.coefficient_of_variation)
    engaged = seconds + 0.0 * used
    # in rapid through what is there until the first edge comes to its bore, and out again
    inside = begins_inside(setup, own["at"])
    ways = rapid_seconds(np.maximum(CLEAR + inside - RUN_IN, 0.0), machine) + rapid_seconds(CLEAR + inside + stroke, machine)
    chip_to_chip = machine.index_time + 2.0 * up
    idle = chip_to_chip + 2.0 * float(rapid_seconds(HOME, machine)) + ways
    money = spend(setup, engaged, idle, used, shape, own["edge_price"] + _set_again(machine, len(f.bores)), 0.0, record)
    pressure, flow = _coolant(setup, own, machine)
    # of several edges the one that stands furthest out leaves its marks, once a turn
    peaks = record(finish.feed_mark_height, feed_per_rev=fed, nose_radius=np.maximum(own["nose_radius"], LEAST_CORNER))
    ra = record(finish.arithmetic_roughness, peak_height=peaks, finish_factor=finish.finish_factor(v, material.ductility))
    return Numbers(
        **money, setup=setup, tool=tool,
        spindle_speed=n, feed_set=fed, feed_rate=fed * n, moment=moment + 0.0 * n, spin_up=up, chip_to_chip=chip_to_chip,
        unbalance=unbalance + 0.0 * n, permissible=permits, unbalance_force=pushed,
        tooth_frequency=n / 60.0 * over_passes(own["inserts"]),
        bore_speed=v, cutting_speed=np.pi * f.widest * n / 1000.0, chip_thickness=h, cutting_force=cuts, step_torque=twist, moved=moved,
        cylindricity=setup.holding.machine_round + 2.0 * moved, grown=grown + 0.0 * moved,
        set_to=targets * (1.0 + material.expansion * 1e-6 * (s.temperature - REFERENCE)) + 0.0 * moved,
        unsure=sizes * material.expansion * 1e-6 * s.temperature_known,
        flow=flow, enters=enters, short=short, torque=torque, power=power,
        spindle_torque=record.of("power", machine.spindle_torque(n)), available=record.of("power", machine.spindle_power(n)),
        coaxiality=zone(own["between_steps"]) + 0.0 * n, pressure=pressure,
        roughness=ra,
        tool_life=engaged / 60.0 / used, weibull_shape=shape,
        book_low=tool.speed_low * tool.speed_factor, book_high=tool.speed_high * tool.speed_factor,
        chip_index=100.0 * np.clip(over_passes(h, np.minimum) / CURLS, 0.0, 1.0),
    )  # fmt: skip


def _lasting(tool: HeavyTools, v: Array, h: Array, record: Silent) -> Array:
    """Minutes of cutting that each step's edges last alone."""
    return np.asarray(
        record(
            life.taylor_life,
            reference_speed=(tool.speed_low + tool.speed_high) / 2.0,
            speed_factor=tool.speed_factor,
            cutting_speed=v,
            taylor_exponent=tool.taylor_exponent,
            reference_feed=(FEED_LOW + FEED_HIGH) / 2.0,
            chip_thickness=h,
            feed_exponent=tool.feed_exponent,
            reference_depth=1.0,
            depth_of_cut=1.0,
            depth_exponent=0.0,
            light_gain=life.LIGHT_GAIN,
            note="of each step's edges alone; all are changed when the first is worn",
        )
    )


def _set_again(machine: Machine, steps: int) -> float:
    """Money of setting the cartridges when the edges are changed, beyond the change of one edge."""
    return (SETS_AGAIN * steps - 1.0) * machine.edge_change_time / 60.0 * machine.rate


def _spun_up(machine: Machine, n: Array, inertia: Array, record: Silent) -> Array:
    """Seconds from rest to speed, with the torque that the spindle has at every speed on its way."""
    shares = (np.arange(SPIN_STEPS) + 0.5) / SPIN_STEPS
    slowness = 1.0 / np.maximum(machine.spindle_torque(shares * n[..., None]), 1e-3)
    mean = LEFT_FOR_TOOL / slowness.mean(axis=-1)
    return np.asarray(record(rotor.spin_up_time, rotor_inertia=inertia, spindle_speed=n, spindle_torque=mean,
                             note="half of what the spindle gives on its way up: its own rotor takes the rest"))  # fmt: skip


def _pass(setup: HeavyBoreSetup, at: Array) -> tuple[Array, Array, Array]:
    """When each step begins, how far it ends before its floor, and how long the pass is, in mm of feed.

    The tool goes in until the first of its edges stands at its floor; the last bore's, where that goes through, run out behind it.
    """
    bores, open_end = setup.feature.bores, setup.feature.through
    near, far = (np.array([getattr(one, name) for one in bores]) for name in ("near", "far"))
    stops = np.ones(len(bores), bool)
    far = far + 0.0
    if open_end:
        stops[-1], far[-1] = len(bores) == 1, far[-1] + BREAK_OUT
    ends = over_passes((far - at)[..., stops], np.minimum)
    begins = over_passes(near - at, np.minimum)
    return near - at - begins, np.maximum(far - at - ends, 0.0), ends - begins


def begins_inside(setup: HeavyBoreSetup, at: Array) -> Array:
    """How far inside the face the foremost edge stands when the first edge comes to its bore [mm], (…, 1)."""
    near = np.array([one.near for one in setup.feature.bores])
    return over_passes(near - at, np.minimum) + over_passes(at)


def _together(setup: HeavyBoreSetup, enters: Array, twist: Array) -> Array:
    """Torque of all steps that cut when each of them begins, (…, bores)."""
    lengths = np.array([one.length for one in setup.feature.bores])
    enters, twist = np.broadcast_arrays(enters, twist)
    then, here = enters[..., :, None], enters[..., None, :]
    cutting = (here <= then + 1e-9) & (then < here + lengths - 1e-9)
    return np.asarray(np.where(cutting, twist[..., None, :], 0.0).sum(axis=-1))


def torque_over(x: Numbers) -> tuple[Array, Array]:
    """Feed of the pass [mm] and the torque [N·m] of all steps of one tool that cut there together."""
    enters, twist = np.ravel(x.enters), np.ravel(x.step_torque)
    ends = enters + np.array([one.length for one in x.setup.feature.bores])
    marks = sorted({0.0, *map(float, enters), *map(float, ends)})
    places, torques = [], []
    for a, b in pairwise(marks):
        cuts = float(twist[(enters <= a + 1e-9) & (b <= ends + 1e-9)].sum())
        places += [a, b]
        torques += [cuts, cuts]
    return np.array(places), np.array(torques)


def _coolant(setup: HeavyBoreSetup, own: dict[str, Array], machine: Machine) -> tuple[float, Array]:
    """Pressure [bar] that the pump gives, and the flow at each step [l/min]: split by areas, less where the pump cannot feed them all."""
    pressure = machine.pressure(setup.settings.coolant) or 0.0
    wanted = nozzle_flow(own["outlets"], own["outlet_diameter"], pressure)
    whole = over_passes(wanted, np.add)
    share = np.minimum(1.0, pump_budget(machine, pressure) / np.maximum(whole, 1e-9))
    return pressure, share * wanted


def pressure_left(x: Numbers) -> float:
    """Pressure [bar] at the outlets of one tool: where the pump cannot feed them all it falls with the square of the flow."""
    own = {name: np.atleast_1d(values) for name, values in x.tool.own.items()}
    whole = float(np.sum(nozzle_flow(own["outlets"], own["outlet_diameter"], x.pressure)))
    return x.pressure * min(1.0, float(np.sum(x.flow)) / max(whole, 1e-9)) ** 2


def one_of(x: Numbers, k: int, setup: HeavyBoreSetup) -> Numbers:
    """The numbers of one of many tools, in its own set-up."""
    own: dict[str, Any] = dict(of_one(x, k))
    return replace(x, setup=setup, tool=x.tool.take(k), **own)
