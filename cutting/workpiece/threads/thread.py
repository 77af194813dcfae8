"""A thread as the drawing names it, and its basic sizes."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache, cached_property
from math import atan, degrees, pi
from types import MappingProxyType

from cutting.tables import Row, read_table

INCH = 25.4
TAPER = 1.0 / 16.0  # of the diameter over the length of taper pipe threads
COARSE_ACME = 10.0  # threads per inch up to which an Acme thread has the wide clearance


@dataclass(frozen=True)
class System:
    """A system of threads.

    `angle` [°] is the included angle of the flanks; depths are shares of the pitch: of the pitch line below the outside's crest, of
    the outside thread with its root, of the inside thread. `clearance` [mm] stands below the root where crest and root do not touch.
    """

    name: str
    title: str
    angle: float
    pitch_depth: float
    outside_depth: float
    inside_depth: float
    clearance: float
    fine_clearance: float
    taper: bool
    outside_class: str
    inside_class: str
    standard: str


@cache
def systems() -> MappingProxyType[str, System]:
    """The systems by name."""
    return MappingProxyType({row["system"]: _system(row) for row in read_table("workpiece/threads/systems.csv")})


def _system(row: Row) -> System:
    one = row.number
    return System(
        row["system"], row["title"], one("angle"), one("pitch_depth"), one("outside_depth"), one("inside_depth"), one("clearance"),
        one("fine_clearance"), row.flag("taper"), row["outside_class"], row["inside_class"], row["standard"],
    )  # fmt: skip


@cache
def trapezoidal_rows() -> MappingProxyType[float, Row]:
    """Clearance and deviations of trapezoidal threads by pitch [mm]."""
    return MappingProxyType({row.number("pitch"): row for row in read_table("workpiece/threads/trapezoidal_deviations.csv")})


@dataclass(frozen=True)
class Thread:
    """A thread; lengths mm. `size` is the words of the drawing, `diameter` the basic major one, at the gauge plane where it tapers.

    `internal` is None where the words do not say it; `class_name` is blank where the usual one is meant. Of a user's profile
    `flanks` are the leading and trailing flank angles [°] and `depth` that of the thread.
    """

    system: str
    size: str
    diameter: float
    pitch: float
    starts: int = 1
    left_hand: bool = False
    series: str = ""
    class_name: str = ""
    internal: bool | None = None
    flanks: tuple[float, float] | None = None
    depth: float | None = None

    @property
    def of(self) -> System:
        return systems()[self.system]

    @property
    def lead(self) -> float:
        """Way along the axis in one turn [mm]."""
        return self.pitch * self.starts

    @property
    def per_inch(self) -> float:
        return INCH / self.pitch

    @property
    def angle(self) -> float:
        """Included angle of the flanks [°]."""
        return sum(self.flanks) if self.flanks else self.of.angle

    @property
    def half_angles(self) -> tuple[float, float]:
        """Leading and trailing flank against the normal of the axis [°]."""
        return self.flanks or (self.of.angle / 2.0, self.of.angle / 2.0)

    @property
    def clearance(self) -> float:
        """Room between crest and root [mm] where they are not meant to touch."""
        if self.system == "trapezoidal":
            return trapezoidal_rows()[self.pitch].number("clearance") if self.pitch in trapezoidal_rows() else 0.25
        if self.system == "acme":
            return self.of.clearance if self.per_inch <= COARSE_ACME + 1e-6 else self.of.fine_clearance
        return 0.0

    @property
    def outside_depth(self) -> float:
        """From the outside thread's crest to its root [mm]."""
        return self.depth if self.depth is not None else self.of.outside_depth * self.pitch + self.clearance

    @property
    def inside_depth(self) -> float:
        """From the inside thread's crest to its root [mm]."""
        return self.depth if self.depth is not None else self.of.inside_depth * self.pitch + self.clearance

    @cached_property
    def pitch_diameter(self) -> float:
        """Basic pitch diameter d2 [mm]; of taper pipe threads at the gauge plane."""
        if self.depth is not None:
            return self.diameter - self.depth
        if self.system == "npt" and (row := taper_row(self)) is not None:
            return row.number("pitch_diameter")
        return self.diameter - 2.0 * self.of.pitch_depth * self.pitch

    @property
    def root_diameter(self) -> float:
        """Root of the outside thread, d3 [mm]."""
        top = self.pitch_diameter + 2.0 * self.of.pitch_depth * self.pitch if self.system == "npt" else self.diameter
        return top - 2.0 * self.outside_depth

    @property
    def inside_diameter(self) -> float:
        """Basic minor diameter of the inside thread, D1 [mm]."""
        top = self.pitch_diameter + 2.0 * self.of.pitch_depth * self.pitch if self.system == "npt" else self.diameter
        return top - 2.0 * (self.inside_depth - self.clearance)

    @property
    def inside_root(self) -> float:
        """Root of the inside thread, its largest diameter [mm]."""
        return self.diameter + 2.0 * self.clearance

    @property
    def depth_cut(self) -> float:
        """Depth of the side that the words name [mm]; of the outside one where they name none."""
        return self.inside_depth if self.internal else self.outside_depth

    @property
    def lead_angle(self) -> float:
        """Lead angle φ at the pitch diameter [°]: atan(lead/(π·d2))."""
        return degrees(atan(self.lead / (pi * self.pitch_diameter)))

    @property
    def stress_diameter(self) -> float:
        """Diameter of the stress area [mm]: the mean of pitch and root diameter (ISO 898-1)."""
        return (self.pitch_diameter + self.root_diameter) / 2.0


def taper_row(thread: Thread) -> Row | None:
    """Gauge length and pitch diameter of a taper pipe thread, None of others."""
    rows = read_table("workpiece/threads/taper_gauge.csv")
    return next((row for row in rows if row["system"] == thread.system and row["size"] == thread.size), None)
