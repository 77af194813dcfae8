"""The spindles of a machine: what each turns, how strongly and how fast, what it takes and which coolant reaches it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache
from types import MappingProxyType

from cutting.tables import Row, read_table

MAIN, SUB, DRIVEN, TOOL = "main", "sub", "driven", "tool"
TURNS_PART = MappingProxyType({MAIN: True, SUB: True, DRIVEN: False, TOOL: False})  # else it turns the tool
TITLES = MappingProxyType({MAIN: "main spindle", SUB: "sub-spindle", DRIVEN: "driven tools", TOOL: "tool spindle"})
NUMBERS = (
    "efficiency",
    "speed_min",
    "speed_max",
    "chuck_speed_max",
    "jaw_force",
    "jaw_mass",
    "jaw_radius",
    "start_time",
    "chuck_stiffness",
    "chuck_tilt_stiffness",
)
SAME = ("power_curve", "curve_at", "speeds", "interface", "coolant", *NUMBERS)  # what a machine is for the spindle that it works with


@dataclass(frozen=True, kw_only=True)
class Spindle:
    """One spindle. Speeds in 1/min, power kW, coolant pressure bar; chuck: N, kg, mm, N/µm, kN·m/rad; 0 where it has no chuck.

    `interface` is what it takes, in words: a chuck's size, a taper, a collet. `speeds` are its gears or its fixed set; empty:
    continuous.
    """

    name: str
    power_curve: tuple[tuple[float, float], ...]
    curve_at: str = "spindle"
    efficiency: float = 0.85
    speed_min: float
    speed_max: float
    speeds: tuple[float, ...] = ()
    interface: str = ""
    coolant: tuple[tuple[str, float], ...]
    chuck_speed_max: float
    jaw_force: float = 0.0
    jaw_mass: float = 0.0
    jaw_radius: float = 0.0
    start_time: float = 1.0
    chuck_stiffness: float = 0.0
    chuck_tilt_stiffness: float = 0.0
    source: str = ""

    @property
    def turns_part(self) -> bool:
        return TURNS_PART[self.name]

    @property
    def title(self) -> str:
        return TITLES[self.name]


@cache
def further_spindles(machine: str) -> tuple[Spindle, ...]:
    """The spindles of a shipped machine beside its first one."""
    return tuple(_spindle(row) for row in read_table("machine/spindles.csv") if row["machine"] == machine)


def _spindle(row: Row) -> Spindle:
    return Spindle(
        name=row["spindle"],
        power_curve=curve(row["power_curve"]),
        curve_at=row["curve_at"],
        speeds=row.floats("speeds"),
        interface=row["interface"],
        coolant=deliveries(row),
        source=row["source"],
        **{name: row.number(name) for name in NUMBERS},
    )


def curve(text: str) -> tuple[tuple[float, float], ...]:
    """A curve from `speed:power` words."""
    return tuple((float(word.split(":")[0]), float(word.split(":")[1])) for word in text.split())


def deliveries(row: Row) -> tuple[tuple[str, float], ...]:
    """Coolant deliveries with their pressures [bar]."""
    return tuple((word.split(":")[0], float(word.split(":")[1])) for word in row.words("coolant"))
