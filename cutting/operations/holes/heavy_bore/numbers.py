"""The numbers of a heavy tool in its pass: on the gripper, up to speed, steps that cut together, what their bores keep."""

from __future__ import annotations

import math
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from cutting.mechanics import force, rotor
from cutting.mechanics.jet import nozzle_flow
from cutting.operations.holes.drill.tool import pump_budget
from cutting.operations.holes.heavy_bore.setup import Chain, HeavySetup
from cutting.sizing.warmth import REFERENCE, growth
from cutting.tooling.heavy.tool import BoringStep
from cutting.working import Silent

Array = NDArray[np.float64]
BORING_FORM = 1.1  # of the specific force inside a bore (Tschätsch's correction)
RADIAL = 0.35  # of the cutting force that an edge pushes inward (common practice)
UNEVEN = 0.15  # of it that several edges leave between them, as one cuts a little more (common practice)
PADS_CARRY = 0.25  # of the movement that guide pads leave (common practice)
LEFT_FOR_TOOL = 0.5  # of the spindle's torque, as its own rotor takes the rest (common practice)
SPIN_STEPS = 60
RUN_IN = 2.0  # mm at feed before the first step cuts


@dataclass(frozen=True)
class StepNumbers:
    """One step: N, N·m, mm, m/min, l/min."""

    step: BoringStep
    cutting_speed: float
    cutting_force: float
    torque: float
    moved: float  # what its own push bends the tool at its edges
    cylindricity: float
    growth: float
    set_to: float  # what to bore at this temperature, so that it is on target at 20 °C
    tolerance: float | None
    flow: float


@dataclass(frozen=True)
class Numbers:
    """Everything computed of one set-up; `stroke` and `torque_over` are the pass, `pressure` what stands at the outlets."""

    setup: HeavySetup
    spindle_speed: float
    mass: float
    lever: float
    moment: float
    inertia: float
    spin_up: float
    chip_to_chip: float
    cut_seconds: float
    unbalance: float
    permissible: float
    unbalance_force: float
    frequency: float
    tooth_frequency: float
    steps: tuple[StepNumbers, ...]
    stroke: Array
    torque_over: Array
    torque: float
    power: float
    spindle_torque: float
    spindle_power: float
    coaxiality: float
    pressure: float
    flow: float

    @property
    def largest(self) -> StepNumbers:
        """The step that uses most of its tolerance by warmth."""
        return max(self.steps, key=lambda one: abs(one.growth) / (one.tolerance or 1e9))


def zone(*links: float) -> float:
    """Diameter of the zone [mm] of an axis whose links may each be off by so much: they seldom all err the same way."""
    return 2.0 * math.sqrt(sum(one**2 for one in links))


def coaxialities(chain: Chain) -> tuple[tuple[str, float], ...]:
    """Coaxiality [mm, zone Ø] of one tool, of two tools in one clamping, of two clampings."""
    one = zone(chain.steps)
    two = zone(chain.steps, chain.change, chain.change, chain.axis)
    return (
        ("one tool", one),
        ("two tools", two),
        ("two clampings", zone(chain.steps, chain.change, chain.change, chain.axis, chain.clamping)),
    )


def numbers(setup: HeavySetup, record: Silent) -> Numbers:
    """Everything of one set-up. Raises `CuttingError`."""
    setup.check()
    tool, machine, s = setup.tool, setup.machine, setup.settings
    widest = max(step.diameter.nominal for step in tool.steps)
    n = float(machine.drive().at(s.cutting_speed, widest))
    whole = tool.whole
    moment = float(record(rotor.tilting_moment, tool_mass=whole.mass, mass_lever=whole.lever))
    unbalance = whole.mass * tool.eccentricity
    permits = float(record(rotor.permissible_unbalance, balance_grade=tool.balance_grade, spindle_speed=n, tool_mass=whole.mass))
    pushed = float(record(rotor.unbalance_force, unbalance=unbalance, spindle_speed=n))
    up = spun_up(setup, n, whole.inertia, record)
    pressure, flows = _coolant(setup)
    steps = tuple(_step(setup, step, n, flow, record) for step, flow in zip(tool.steps, flows, strict=True))
    stroke, over = torque_over(steps)
    torque = float(over.max())
    return Numbers(
        setup=setup,
        spindle_speed=n,
        mass=whole.mass,
        lever=whole.lever,
        moment=moment,
        inertia=whole.inertia,
        spin_up=up,
        chip_to_chip=machine.index_time + 2.0 * up,
        cut_seconds=60.0 * (float(stroke[-1]) + RUN_IN) / (n * s.feed_per_rev),
        unbalance=unbalance,
        permissible=permits,
        unbalance_force=pushed,
        frequency=tool.bending.frequency(),
        tooth_frequency=n / 60.0 * max(step.inserts for step in tool.steps),
        steps=steps,
        stroke=stroke,
        torque_over=over,
        torque=torque,
        power=torque * n / 9549.3,
        spindle_torque=float(machine.spindle_torque(n)),
        spindle_power=float(machine.spindle_power(n)),
        coaxiality=coaxialities(setup.chain)[0][1],
        pressure=pressure,
        flow=float(sum(flows)),
    )


def spun_up(setup: HeavySetup, n: float, inertia: float, record: Silent) -> float:
    """Seconds from rest to speed, with the torque that the spindle has at every speed on its way."""
    speeds = (np.arange(SPIN_STEPS) + 0.5) / SPIN_STEPS * n
    mean = LEFT_FOR_TOOL / float(np.mean(1.0 / np.maximum(setup.machine.spindle_torque(speeds), 1e-3)))
    return float(record(rotor.spin_up_time, rotor_inertia=inertia, spindle_speed=n, spindle_torque=mean,
                        note="half of what the spindle gives on its way up: its own rotor takes the rest"))  # fmt: skip


def _step(setup: HeavySetup, step: BoringStep, n: float, flow: float, record: Silent) -> StepNumbers:
    s, material, worn = setup.settings, setup.work.material, setup.house.wear_factor
    sine = math.sin(math.radians(step.cutting_edge_angle))
    h = s.feed_per_rev / step.inserts * sine
    kc = record(
        force.specific_cutting_force,
        specific_force_1=setup.work.specific_force_1,
        chip_thickness=max(h, 1e-3),
        force_exponent=material.force_exponent,
        rake_factor=1.0,
        wear_factor=worn,
        form_factor=BORING_FORM,
        note=f"of {step.name}, worn",
    )
    depth, size = step.allowance / 2.0, step.diameter.nominal
    # all edges of the step together: each takes its share of the feed
    cuts = float(record(force.cutting_force, specific_force=kc, chip_area=s.feed_per_rev * depth, note=f"all edges of {step.name}"))
    beside = RADIAL * cuts / step.inserts if step.inserts == 1 else UNEVEN * RADIAL * cuts / step.inserts
    moved = setup.tool.bending.given(beside, step.at, step.at) * (PADS_CARRY if step.pads else 1.0)
    grown = float(growth(size, material.expansion, s.temperature))
    return StepNumbers(
        step=step,
        cutting_speed=math.pi * size * n / 1000.0,
        cutting_force=cuts,
        torque=cuts * (size - depth) / 2000.0,
        moved=moved,
        cylindricity=setup.chain.machine_round + 2.0 * moved,
        growth=grown,
        set_to=step.diameter.target * (1.0 + material.expansion * 1e-6 * (s.temperature - REFERENCE)),
        tolerance=step.diameter.tolerance,
        flow=flow,
    )


def torque_over(steps: tuple[StepNumbers, ...]) -> tuple[Array, Array]:
    """Feed of the pass [mm] and the torque [N·m] of all steps that cut there together."""
    marks = sorted({0.0, *(one.step.enters for one in steps), *(one.step.enters + one.step.length for one in steps)})
    places, torques = [], []
    for a, b in pairwise(marks):
        cuts = sum(one.torque for one in steps if one.step.enters <= a + 1e-9 and b <= one.step.enters + one.step.length + 1e-9)
        places += [a, b]
        torques += [cuts, cuts]
    return np.array(places), np.array(torques)


def _coolant(setup: HeavySetup) -> tuple[float, list[float]]:
    """Pressure [bar] at the outlets and the flow of each step [l/min]: split by the areas, less where the pump cannot feed them all."""
    pressure = setup.machine.pressure(setup.settings.coolant) or 0.0
    wanted = [float(nozzle_flow(one.outlets, one.outlet_diameter, pressure)) for one in setup.tool.steps]
    whole = sum(wanted)
    share = min(1.0, pump_budget(setup.machine, pressure) / whole) if whole > 0 else 1.0
    return pressure * share**2, [share * one for one in wanted]
