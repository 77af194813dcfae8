"""A heavy boring tool as its sheet asks for it: results with their working, limits, chains, machines, remedies."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

from cutting.machine.machines import Machine
from cutting.operations.frame.outcome import Limit, Severity, Value, Warning, shown
from cutting.operations.frame.rule import limits_of
from cutting.operations.holes.heavy_bore.changes import HeavyRemedy, remedies
from cutting.operations.holes.heavy_bore.limits import RULES, carried, grade_of
from cutting.operations.holes.heavy_bore.numbers import Numbers, coaxialities, numbers
from cutting.operations.holes.heavy_bore.setup import HeavySetup
from cutting.working import Recorder

CLAMPED = 60.0  # s that a second clamping takes at least (common practice)


@dataclass(frozen=True)
class ChainRow:
    """A way to bore all steps: zone of their coaxiality [mm], seconds more than with one tool, places in the magazine."""

    name: str
    coaxiality: float
    more_seconds: float
    places: int
    fits: bool


@dataclass(frozen=True)
class Carrier:
    """Whether a machine's changer carries the tool, and why not."""

    machine: str
    carries: bool
    why: tuple[str, ...]


@dataclass(frozen=True)
class HeavyStudy:
    """What comes out."""

    x: Numbers
    results: dict[str, Value]
    limits: tuple[Limit, ...]
    warnings: tuple[Warning, ...]
    chains: tuple[ChainRow, ...]
    carriers: tuple[Carrier, ...]
    remedies: tuple[HeavyRemedy, ...] = field(default=())

    @property
    def told(self) -> dict[str, object]:
        """The sheet as plain values, for other programs."""
        return {
            "results": self.results,
            "limits": self.limits,
            "warnings": self.warnings,
            "steps": self.x.steps,
            "chains": self.chains,
            "carriers": self.carriers,
            "remedies": [
                {"text": one.text, "mass": one.x.mass, "moment": one.x.moment, "frequency": one.x.frequency, "broken": one.broken,
                 "coaxiality": one.coaxiality}
                for one in self.remedies
            ],
        }  # fmt: skip

    @property
    def feasible(self) -> bool:
        return not any(one.broken and one.severity is Severity.HARD for one in self.limits)


def study(setup: HeavySetup, machines: Iterable[Machine] = (), with_remedies: bool = True) -> HeavyStudy:
    """The sheet of a heavy tool; `machines` are those whose changers are asked. Raises `CuttingError`."""
    record, every = Recorder(), tuple(machines)
    x = numbers(setup, record)
    return HeavyStudy(
        x,
        {one.name: one for one in _results(x, record)},
        limits_of(RULES, x, record),
        _warnings(x),
        _chains(x),
        tuple(_carrier(x, one) for one in every if one.changer_mass > 0 or one.changer_moment > 0),
        remedies(x, every) if with_remedies else (),
    )


def _results(x: Numbers, record: Recorder) -> list[Value]:
    def value(name: str, label: str, number: float, kind: str, honesty: str = "exact", *trail: str) -> Value:
        band = record.band("balance").about(number) if honesty == "model" else None
        return shown(name, label, number, kind, honesty, band, record.trail(*trail))

    return [
        value("mass", "mass with its holder", x.mass, "mass"),
        value("lever", "centre of gravity, from the gripper", round(x.lever, 1), "length"),
        value("moment", "tilting moment at the gripper", x.moment, "torque", "exact", "tilting_moment"),
        value("inertia", "inertia, kg·m²", x.inertia, "number"),
        value("spindle_speed", "spindle speed", x.spindle_speed, "spindle_speed"),
        value("spin_up", "up to speed", x.spin_up, "duration", "model", "spin_up_time"),
        value("chip_to_chip", "chip to chip", x.chip_to_chip, "duration", "model", "spin_up_time"),
        value("cut_seconds", "one pass", x.cut_seconds, "duration"),
        value("unbalance", "unbalance, g·mm", x.unbalance, "number"),
        value("permissible", "its grade permits, g·mm", x.permissible, "number", "exact", "permissible_unbalance"),
        value("unbalance_force", "turns with", x.unbalance_force, "force", "exact", "unbalance_force"),
        value("frequency", "first bending frequency, Hz", x.frequency, "number", "model"),
        value("tooth_frequency", "its edges strike at, Hz", x.tooth_frequency, "number"),
        value("torque", "torque of steps together, worn", x.torque, "torque", "model", "specific_force", "cutting_force"),
        value("power", "power, worn", x.power, "power", "model", "specific_force", "cutting_force"),
        value("coaxiality", "coaxiality, zone Ø", x.coaxiality, "length", "rule"),
        value("flow", "coolant, all outlets", x.flow, "flow", "model"),
        value("pressure", "pressure at the outlets", x.pressure, "pressure", "model"),
    ]


def _chains(x: Numbers) -> tuple[ChainRow, ...]:
    asked, change = x.setup.asked.coaxiality, x.chip_to_chip
    more = {"one tool": (0.0, 1), "two tools": (change + x.cut_seconds, 2), "two clampings": (change + x.cut_seconds + CLAMPED, 2)}
    return tuple(ChainRow(name, wide, *more[name], asked is None or wide <= asked + 1e-9) for name, wide in coaxialities(x.setup.chain))


def _carrier(x: Numbers, machine: Machine) -> Carrier:
    why = carried(x, machine)
    return Carrier(machine.name, not why, why)


def _warnings(x: Numbers) -> tuple[Warning, ...]:
    setup, material = x.setup, x.setup.work.material
    found = [
        Warning("changer", "A tool that is too heavy falls out of the changer: mass and moment by the machine's manual, half speed in the"
                " magazine, nobody in its swing; by hand only with a hoist and a second person.", "care", True),
        Warning("balance", "Balance it with all inserts in; run it up in steps behind closed doors, and listen.", "note", True),
    ]  # fmt: skip
    if setup.machine.interface != setup.tool.holder.interface:
        text = f"{setup.tool.holder.name} does not sit in {setup.machine.name}, which takes {setup.machine.interface}."
        found.insert(0, Warning("interface", text, "blocks"))
    worst = x.largest
    if worst.tolerance and abs(worst.growth) > worst.tolerance:
        grade, width = grade_of(worst.step.diameter.nominal, worst.tolerance), 1000 * worst.tolerance
        text = (
            f"{material.name} at {setup.settings.temperature:g} °C: {worst.step.name} is {1000 * worst.growth:.0f} µm from its size at"
            f" 20 °C, its tolerance ({grade}) is {width:.0f} µm: measure the part's temperature and set what the sheet says."
        )
        found.append(Warning("warm", text, "care"))
    if any(one.step.diameter.nominal > 80 and one.tolerance and one.tolerance < 0.04 for one in x.steps):
        text = "Three jaws bend a thin ring to three lobes: clamp on its face, or in soft jaws that reach round, and measure it let go."
        found.append(Warning("lobes", text, "note"))
    return tuple(found)
