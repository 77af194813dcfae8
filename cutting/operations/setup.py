"""`Setup`: all that an operation needs to know, frozen and checked."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from enum import StrEnum
from typing import Any

from cutting.errors import OutOfRange
from cutting.machine.machines import Machine
from cutting.mechanics.deflection import Holding
from cutting.operations.checks import check
from cutting.quantities.dimension import Dimension
from cutting.tooling.items import Holder, Insert
from cutting.workpiece.materials import Work


class Goal(StrEnum):
    """What the candidates are ordered by."""

    CHEAPEST = "cheapest"
    FASTEST = "fastest"
    MOST_SECURE = "most secure"


class Direction(StrEnum):
    """Which way the tool feeds along the part."""

    TOWARDS = "towards the chuck"
    AWAY = "away from the chuck"


class Skin(StrEnum):
    """What lies on the stock where this cut starts."""

    CLEAN = "clean"
    BAR = "bar"
    FORGED = "forged"
    CAST = "cast"
    WELD = "weld"
    HARDENED = "hardened"


@dataclass(frozen=True)
class Feature:
    """What the drawing says, mm and µm.

    Turning goes from `start_diameter` to `end_diameter` over `length`; facing from `start_diameter` to
    `inner_diameter` (bore or boss, 0 for the centre) and takes `length` off the face.
    """

    start_diameter: float
    end: Dimension
    length: float
    distance_from_chuck: float = 5.0
    shoulder: bool = False
    fillet: float | None = None
    profile: tuple[tuple[float, float], ...] = ()  # contour to copy: (from the chuck, diameter), mm
    skin_depth: float | None = None  # of scale, hardened layer or uneven build-up, mm on radius
    polish: bool = False  # polished to size afterwards, by the house's allowance
    roughness: float | None = None  # Ra, µm
    grinding_allowance: float = 0.0  # on diameter

    @property
    def end_diameter(self) -> float:
        """The diameter to turn to: the middle of the limits, with what is left for grinding."""
        return self.end.target + self.grinding_allowance


@dataclass(frozen=True)
class Workholding:
    """How the part is held; lengths in mm."""

    style: Holding = Holding.CHUCK
    free_length: float = 100.0
    grip_diameter: float = 50.0
    bore: float = 0.0
    centre_diameter: float = 12.0
    interrupted: bool = False
    weak: bool = False
    steps: tuple[tuple[float, float], ...] = ()  # the part before this cut: (from the chuck, diameter to the next), mm
    steady: float | None = None  # a steady rest, mm from the chuck
    grip_share: float = 1.0  # of the chuck's force, less for thin parts
    face: float | None = None  # the part's free end where earlier cuts shortened it, mm from the chuck

    @property
    def stretches(self) -> tuple[tuple[float, float, float], ...]:
        """The part before this cut from the chuck to its free end: (from, to, diameter), mm."""
        face = self.free_length if self.face is None else self.face
        ends = (*(start for start, _ in self.steps[1:]), face)
        return tuple((start, min(end, face), d) for (start, d), end in zip(self.steps, ends, strict=False) if start < face)


def workholding_of(values: dict[str, Any], free_length: float, grip_diameter: float) -> Workholding:
    """The holding from its fields; `free_length` and `grip_diameter` [mm] where they are not given. Raises `CuttingError`."""
    given = {"free_length": free_length, "grip_diameter": grip_diameter, **values}
    share = given.get("grip_share", 1.0)
    if not 0.05 <= share <= 1:
        raise OutOfRange("holding.grip_share", f"{share:g} is outside 0.05 to 1.", "0.05 to 1")
    return Workholding(style=Holding(given.pop("style", "chuck")), **given)


@dataclass(frozen=True)
class Settings:
    """What the user sets: m/min, mm/rev, mm. `spindle_clamp` 1/min is the program's own speed limit."""

    cutting_speed: float
    feed_per_rev: float
    depth_of_cut: float
    coolant: str = "flood"
    spindle_clamp: float | None = None
    overhang: float | None = None
    last_depth: float | None = None  # a planned last cut; None: like the others
    pass_depths: tuple[float, ...] = ()  # the passes one by one; the last takes what is left
    centre_height: float | None = None  # of the tip over the axis; None: as the house sets it
    direction: Direction = Direction.TOWARDS
    nozzles: int = 2
    nozzle_diameter: float = 1.0


@dataclass(frozen=True)
class HouseRules:
    """The shop's choices between schools, and its common-practice numbers."""

    never_above_book: bool = True
    equal_cuts: bool = True  # else a light last cut with a sharp edge
    light_cut: float = 0.2  # depth of that last cut, mm
    off_centre: float = 0.0  # tip below the axis outside, above it inside, as a share of the diameter
    polishing_allowance: float = 0.01  # mm on diameter, where a surface is polished to size
    measuring_uncertainty: float = 0.01  # mm, expanded (k = 2), of the shop's usual micrometer
    wear_factor: float = 1.3
    secure_probability: float = 0.95
    attended_probability: float = 0.80
    chip_index_wanted: float = 60.0
    rough_size_error: float = 0.10  # mm on diameter, where the drawing gives no tolerance
    share_of_tolerance: float = 0.5
    grip_safety: float = 2.0
    jaw_friction: float = 0.2
    tool_bend: float = 0.05  # mm

    def change_probability(self, goal: Goal) -> float:
        return self.secure_probability if goal is Goal.MOST_SECURE else self.attended_probability


@dataclass(frozen=True)
class Batch:
    """How many and for how long alone."""

    pieces: int = 50
    unattended_hours: float = 0.0
    piece_seconds: float | None = None  # of the whole piece, where this operation is one of several


@dataclass(frozen=True)
class Setup:
    """Everything about one operation. `check` refuses what cannot be, naming the field."""

    operation: str
    work: Work
    machine: Machine
    insert: Insert
    holder: Holder
    feature: Feature
    settings: Settings
    holding: Workholding = field(default_factory=Workholding)
    house: HouseRules = field(default_factory=HouseRules)
    batch: Batch = field(default_factory=Batch)
    goal: Goal = Goal.CHEAPEST
    skin: Skin = Skin.CLEAN

    def with_settings(self, **changes: Any) -> Setup:
        return replace(self, settings=replace(self.settings, **changes))

    @property
    def target_diameter(self) -> float:
        """The size to turn to, with what the house leaves for polishing."""
        return self.feature.end_diameter + (self.house.polishing_allowance if self.feature.polish else 0.0)

    @property
    def centre_height(self) -> float:
        """Height of the tip over the axis [mm]: what was set, or the house's school."""
        if self.settings.centre_height is not None:
            return self.settings.centre_height
        return -self.house.off_centre * self.feature.end_diameter

    @property
    def away(self) -> bool:
        return self.settings.direction is Direction.AWAY and self.operation == "turn"

    @property
    def stock_to_remove(self) -> float:
        """Depth of all passes together, mm."""
        if self.operation == "face":
            return self.feature.length
        return (self.feature.start_diameter - self.target_diameter) / 2.0

    @property
    def last_depth(self) -> float | None:
        """Depth of a last cut that differs from the others [mm], None where all are equal."""
        light = None if self.house.equal_cuts or not self.feature.end.tolerance else self.house.light_cut
        wanted = self.settings.last_depth or light
        return wanted if wanted is not None and wanted < self.stock_to_remove - 1e-9 else None

    @property
    def pass_count(self) -> int:
        """Cuts that stay at or below the depth set, with the planned last one."""
        if self.settings.pass_depths:
            return len(self.settings.pass_depths)
        last = self.last_depth
        rest = self.stock_to_remove - (last or 0.0)
        return max(1, -int(-(rest / self.settings.depth_of_cut - 1e-6) // 1)) + (last is not None)

    def check(self) -> None:
        """Raise `CuttingError` for the first input that cannot be."""
        check(self)
