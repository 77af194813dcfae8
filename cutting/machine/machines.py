"""Machines: power over speed, gearboxes, limits, times and money."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache
from typing import Any

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.errors import UnknownName
from cutting.machine.drive import Drive
from cutting.machine.seats import Seats, read_seats
from cutting.machine.spindle import MAIN, SAME, TITLES, TOOL, Spindle, curve, deliveries, further_spindles
from cutting.names import find, index
from cutting.tables import Row, read_table

USUAL_ACCELERATION = 3.0  # m/s² where nobody says one (common practice: 1 to 10)
PACKED_UP = 0.6  # of the seat: the lowest shank that a tool post packs up to the centre line (common practice)
SLEEVE = 2.0  # of the seat: the thickest bar that a sleeve in its place holds (common practice)


SLIDING_SWING = 80.0  # mm, below which a bar lathe has a guide bush (common practice)
JUST_UNDER = 0.99  # of its seat: a shank of the same nominal height


@dataclass(frozen=True)
class Machine:
    """A machine, as the spindle that it works with drives it. Power kW, feed rates mm/min, lengths mm, times s (edge change min).

    Its first spindle's figures stand in its own columns; `on` gives it as another of its `spindles` drives it. Speeds in 1/min,
    rate per hour. `turns` says what turns: the part, or else the tool.
    """

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
    coolant: tuple[tuple[str, float], ...]  # delivery, pressure in bar
    jaw_force: float
    jaw_mass: float
    jaw_radius: float
    condition: str
    start_time: float
    source: str = ""
    turns: bool = True
    y_axis: bool = False
    pockets: float = 0  # 0: a tool post or one spindle
    x_travel: float = 0  # mm, 0: not given
    z_travel: float = 0
    changer_mass: float = 0  # kg that a tool changer lifts, 0: none
    changer_moment: float = 0  # N·m about its gripper
    changer_diameter: float = 0  # mm that its places take, 0: not given
    changer_length: float = 0  # mm from the gripper
    chuck_stiffness: float = 150.0  # N/µm, radial, spindle and jaws
    chuck_tilt_stiffness: float = 1500.0  # kN·m/rad, jaws and bearings
    centre_stiffness: float = 60.0  # N/µm, tailstock with its centre
    post_stiffness: float = 100.0  # N/µm, turret or tool post
    pump_flow: float = 0  # l/min at the highest pressure, 0: not given
    axial_force: float = 0  # N that its feed pushes, 0: not given
    acceleration: float = USUAL_ACCELERATION  # m/s² of its slides in rapid
    gear_set: tuple[float, ...] = ()  # speeds that a unit of one speed may be given by other gears, 1/min
    feed_set: tuple[float, ...] = ()  # and feeds, mm/rev
    interface: str = ""  # what the spindle takes, in words
    further: tuple[Spindle, ...] = ()  # spindles beside the first
    seats: tuple[str, ...] = ()  # places for tools beside its usual ones, in words
    drives: str = ""  # the spindle that it works with; blank: its first

    @property
    def first(self) -> str:
        """The name of its first spindle."""
        return MAIN if self.turns else TOOL

    @property
    def spindles(self) -> tuple[Spindle, ...]:
        """Its first spindle and the further ones, by their own figures; asked of a machine that works with its first."""
        return Spindle(name=self.first, source=self.source, **{name: getattr(self, name) for name in SAME}), *self.further

    def has(self, spindle: str) -> bool:
        """Whether it has a spindle of that name."""
        return spindle == self.first or any(one.name == spindle for one in self.further)

    def on(self, spindle: str) -> Machine:
        """The machine as one of its spindles drives it. Raises `UnknownName`."""
        if spindle in ("", self.first):
            return self
        found = next((one for one in self.further if one.name == spindle), None)
        if found is None:
            names = tuple(one.name for one in self.spindles)
            raise UnknownName("spindle", f"{self.name} has no {TITLES.get(spindle, spindle)}; it has {', '.join(names)}.", None, names)
        return replace(self, drives=spindle, turns=found.turns_part, **{name: getattr(found, name) for name in SAME})

    @property
    def places(self) -> tuple[Seats, ...]:
        """Where tools sit: its usual places, and the further ones."""
        return *self._usual_places, *read_seats(self.seats)

    @property
    def _usual_places(self) -> tuple[Seats, ...]:
        if not self.pockets:
            return (Seats("tool post", f"{self.shank_height:g} mm", 1),) if self.shank_height > 0 else ()
        if self.shank_height <= 0:
            return (Seats("changer pocket", self.interface or "own taper", int(self.pockets)),)
        kind = "tool post" if self.speeds else "turret position"
        return (Seats(kind, f"{self.shank_height:g} mm", int(self.pockets)),)

    @property
    def top_speed(self) -> float:
        return min(self.speed_max, self.chuck_speed_max)

    def drive(self, clamp: float | None = None) -> Drive:
        """What its spindle and feed run; `clamp` [1/min] is a highest speed that was set for the cut."""
        steps = self.gear_set or self.speeds
        top = max(self.gear_set, default=self.top_speed)
        return Drive(
            low=min(steps, default=self.speed_min),
            top=min(top, clamp or top),
            steps=steps,
            feeds=self.feed_set or self.feeds,
            constant=self.constant_surface_speed,
        )

    def spindle_power(self, spindle_speed: ArrayLike) -> NDArray[np.float64]:
        """Power [kW] at the spindle at a speed [1/min], from the curve; a motor's curve loses the efficiency."""
        speeds, powers = zip(*self.power_curve, strict=True)
        power = np.interp(np.asarray(spindle_speed, float), speeds, powers)
        return power * (self.efficiency if self.curve_at == "motor" else 1.0)

    def curve_around(self, spindle_speed: ArrayLike) -> tuple[NDArray[np.float64], ...]:
        """Speeds [1/min] and powers [kW] of the curve's points below and above a speed; beyond its ends the last two, alike in power."""
        speeds, powers = np.array(self.power_curve, float).T
        n = np.asarray(spindle_speed, float)
        above = np.clip(np.searchsorted(speeds, n), 1, len(speeds) - 1) if len(speeds) > 1 else np.zeros(n.shape, int)
        below = np.maximum(above - 1, 0)
        below, above = np.where(n >= speeds[-1], len(speeds) - 1, below), np.where(n <= speeds[0], 0, above)
        return speeds[below], powers[below], speeds[above], powers[above]

    @property
    def lowest_shank(self) -> float:
        """Height [mm] from which shanks are seated: a turret takes one height, a tool post packs lower ones up."""
        return self.shank_height * (PACKED_UP if self.geared else JUST_UNDER)

    @property
    def thickest_bar(self) -> float:
        """Diameter [mm] of the thickest bar that a sleeve holds."""
        return SLEEVE * self.shank_height

    def takes_shank(self, size: ArrayLike, bar: ArrayLike) -> NDArray[np.bool_]:
        """Whether a shank of a height [mm], or a bar of a diameter, sits here; arrays in, one array out."""
        size = np.asarray(size, float)
        return np.where(bar, size <= self.thickest_bar, (self.lowest_shank <= size) & (size <= self.shank_height))

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

    @property
    def guide_bush(self) -> bool:
        """Whether its bar slides out of a guide bush: a sliding-head lathe, told by its small swing."""
        return 0 < self.swing < SLIDING_SWING and self.bar_bore > 0

    @property
    def usual_coolant(self) -> str:
        """The delivery that is meant where nobody says one: flood, where the machine has none what comes nearest to it."""
        return next(name for name in USUAL_COOLANT if self.pressure(name) is not None)


@cache
def machines() -> tuple[Machine, ...]:
    """All machines of the shipped table."""
    return tuple(
        Machine(
            name=row["name"],
            description=row["description"],
            power_curve=curve(row["power_curve"]),
            curve_at=row["curve_at"],
            speeds=row.floats("speeds"),
            feeds=row.floats("feeds"),
            gear_set=row.floats("gear_set"),
            feed_set=row.floats("feed_set"),
            constant_surface_speed=row.flag("constant_surface_speed"),
            coolant=deliveries(row),
            interface=row["interface"],
            seats=row.words("seats"),
            further=further_spindles(row["name"]),
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


FLAGS = ("turns", "y_axis")
MORE_NUMBERS = (
    "pockets",
    "x_travel",
    "z_travel",
    "changer_mass",
    "changer_moment",
    "changer_diameter",
    "changer_length",
    "chuck_stiffness",
    "chuck_tilt_stiffness",
    "centre_stiffness",
    "post_stiffness",
    "pump_flow",
    "axial_force",
    "acceleration",
)
# from what is meant where nobody says one
USUAL_COOLANT = ("flood", "jet", "through", "high", "mist", "minimal oil", "cold air", "air", "dry")
WORN_STIFFNESS = 0.5  # what is left of spindle, centre and slides on a worn machine (common practice)


def _flags_and_numbers(row: Row) -> dict[str, Any]:
    return {name: row.flag(name) for name in FLAGS} | {name: row.number(name) for name in (*NUMBERS, *MORE_NUMBERS)}


def find_machine(name: str, field: str = "machine") -> Machine:
    """A shipped machine by name. Raises `UnknownName`."""
    return find(name, index(((m.name,), m) for m in machines()), field, "machine", (m.name for m in machines()))
