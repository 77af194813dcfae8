"""`Setup`: all that turning and facing need to know, frozen and checked."""

from __future__ import annotations

from dataclasses import dataclass, field
from enum import StrEnum

from cutting.operations.frame.setup import BaseSetup, Workholding
from cutting.operations.turned.checks import check
from cutting.quantities.dimension import Dimension
from cutting.tooling.items import Holder, Insert


class Direction(StrEnum):
    """Which way the tool feeds along the part."""

    TOWARDS = "towards the chuck"
    AWAY = "away from the chuck"


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


@dataclass(frozen=True, kw_only=True)
class Setup(BaseSetup):
    """Everything about one operation. `check` refuses what cannot be, naming the field."""

    insert: Insert
    holder: Holder
    feature: Feature
    settings: Settings
    holding: Workholding = field(default_factory=Workholding)

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

    @property
    def each_depth(self) -> float:
        """Depth of the deepest of the passes [mm], where they are not given one by one."""
        last, count = self.last_depth, self.pass_count
        if last is None or count < 2:
            return self.stock_to_remove / count
        return max((self.stock_to_remove - last) / (count - 1), last)

    def check(self) -> None:
        """Raise `CuttingError` for the first input that cannot be."""
        check(self)
