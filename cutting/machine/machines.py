"""Machines: power over speed, gearboxes, limits, times and money."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from typing import Any

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.names import find, index
from cutting.tables import Row, read_table


@dataclass(frozen=True)
class Machine:
    """A lathe. Speeds in 1/min, power kW, feed rates mm/min, lengths mm, times s (edge change min), rate per hour."""

    name: str
    description: str
    power_curve: tuple[tuple[float, float], ...]
    curve_at: str  # spindle or motor
    efficiency: float
    speed_min: float
    speed_max: float
    chuck_speed_max: float
    speeds: tuple[float, ...]  # empty: continuous
    feeds: tuple[float, ...]  # empty: continuous
    constant_surface_speed: bool
    feed_rate_max: float
    rapid_rate: float
    shank_height: float
    bar_bore: float
    swing: float
    turning_length: float
    rate: float
    index_time: float
    edge_change_time: float
    handling_time: float
    sub_spindle: bool
    coolant: tuple[tuple[str, float], ...]  # delivery, pressure in bar
    jaw_force: float
    jaw_mass: float
    jaw_radius: float
    condition: str
    start_time: float
    source: str = ""
    turns: bool = True
    driven_tools: bool = False
    y_axis: bool = False
    pockets: float = 0  # 0: a tool post or one spindle
    x_travel: float = 0  # mm, 0: not given
    z_travel: float = 0
    changer_mass: float = 0  # kg that a tool changer lifts, 0: none
    changer_moment: float = 0  # N·m about its gripper
    chuck_stiffness: float = 150.0  # N/µm, radial, spindle and jaws
    chuck_tilt_stiffness: float = 1500.0  # kN·m/rad, jaws and bearings
    centre_stiffness: float = 60.0  # N/µm, tailstock with its centre
    post_stiffness: float = 100.0  # N/µm, turret or tool post
    pump_flow: float = 0  # l/min at the highest pressure, 0: not given

    @property
    def top_speed(self) -> float:
        return min(self.speed_max, self.chuck_speed_max)

    def spindle_power(self, spindle_speed: ArrayLike) -> NDArray[np.float64]:
        """Power [kW] at the spindle at a speed [1/min], from the curve; a motor's curve loses the efficiency."""
        speeds, powers = zip(*self.power_curve, strict=True)
        power = np.interp(np.asarray(spindle_speed, float), speeds, powers)
        return power * (self.efficiency if self.curve_at == "motor" else 1.0)

    @property
    def geared(self) -> bool:
        """Speeds come in steps."""
        return bool(self.speeds)

    @property
    def fixed(self) -> bool:
        """One speed and one feed, set once: a feed-drilling unit."""
        return len(self.speeds) == 1 and len(self.feeds) == 1

    def spindle_torque(self, spindle_speed: ArrayLike) -> NDArray[np.float64]:
        """Torque [N·m] at the spindle at a speed [1/min]: M = 9549·P/n; nan at standstill."""
        speed = np.asarray(spindle_speed, float)
        with np.errstate(divide="ignore", invalid="ignore"):
            return np.where(speed > 0, 9549.3 * self.spindle_power(speed) / speed, np.nan)

    @property
    def rigidity(self) -> float:
        """Share of the stiffness that the machine's condition leaves."""
        return WORN_STIFFNESS if self.condition == "worn" else 1.0

    def pressure(self, delivery: str) -> float | None:
        """Pressure [bar] of a coolant delivery, None where the machine does not have it."""
        return dict(self.coolant).get(delivery)


@cache
def machines() -> tuple[Machine, ...]:
    """All machines of the shipped table."""
    return tuple(
        Machine(
            name=row["name"],
            description=row["description"],
            power_curve=pairs(row["power_curve"]),
            curve_at=row["curve_at"],
            speeds=row.floats("speeds"),
            feeds=row.floats("feeds"),
            constant_surface_speed=row.flag("constant_surface_speed"),
            sub_spindle=row["sub_spindle"] == "1",
            coolant=tuple((word.split(":")[0], float(word.split(":")[1])) for word in row.words("coolant")),
            condition=row["condition"],
            source=row["source"],
            **_flags_and_numbers(row),
        )
        for row in read_table("machine/machines.csv")
    )


NUMBERS = (
    "efficiency",
    "speed_min",
    "speed_max",
    "chuck_speed_max",
    "feed_rate_max",
    "rapid_rate",
    "shank_height",
    "bar_bore",
    "swing",
    "turning_length",
    "rate",
    "index_time",
    "edge_change_time",
    "handling_time",
    "jaw_force",
    "jaw_mass",
    "jaw_radius",
    "start_time",
)


FLAGS = ("turns", "driven_tools", "y_axis")
MORE_NUMBERS = (
    "pockets",
    "x_travel",
    "z_travel",
    "changer_mass",
    "changer_moment",
    "chuck_stiffness",
    "chuck_tilt_stiffness",
    "centre_stiffness",
    "post_stiffness",
    "pump_flow",
)
WORN_STIFFNESS = 0.5  # what is left of spindle, centre and slides on a worn machine (common practice)


def _flags_and_numbers(row: Row) -> dict[str, Any]:
    return {name: row.flag(name) for name in FLAGS} | {name: row.number(name) for name in (*NUMBERS, *MORE_NUMBERS)}


def pairs(text: str) -> tuple[tuple[float, float], ...]:
    """A curve from `speed:power` words."""
    return tuple((float(word.split(":")[0]), float(word.split(":")[1])) for word in text.split())


def find_machine(name: str, field: str = "machine") -> Machine:
    """A shipped machine by name. Raises `UnknownName`."""
    return find(name, index(((m.name,), m) for m in machines()), field, "machine", (m.name for m in machines()))
