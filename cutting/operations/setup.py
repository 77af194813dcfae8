"""`Setup`: all that an operation needs to know, frozen and checked."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from enum import StrEnum
from typing import Any

from cutting.errors import CuttingError, OutOfRange, require_between
from cutting.machine.machines import Machine
from cutting.mechanics.deflection import Holding
from cutting.quantities.dimension import Dimension
from cutting.tooling.items import Holder, Insert
from cutting.workpiece.materials import Work


class Goal(StrEnum):
    """What the candidates are ordered by."""

    CHEAPEST = "cheapest"
    FASTEST = "fastest"
    MOST_SECURE = "most secure"


class Skin(StrEnum):
    """What lies on the stock where this cut starts."""

    CLEAN = "clean"
    BAR = "bar"
    FORGED = "forged"
    CAST = "cast"
    WELD = "weld"


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
    grip_share: float = 1.0  # of the chuck's force, less for thin parts


@dataclass(frozen=True)
class Settings:
    """What the user sets: m/min, mm/rev, mm. `spindle_clamp` 1/min is the program's own speed limit."""

    cutting_speed: float
    feed_per_rev: float
    depth_of_cut: float
    coolant: str = "flood"
    spindle_clamp: float | None = None
    overhang: float | None = None


@dataclass(frozen=True)
class HouseRules:
    """The shop's choices between schools, and its common-practice numbers."""

    never_above_book: bool = True
    equal_cuts: bool = True
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
    def stock_to_remove(self) -> float:
        """Depth of all passes together, mm."""
        if self.operation == "face":
            return self.feature.length
        return (self.feature.start_diameter - self.feature.end_diameter) / 2.0

    @property
    def pass_count(self) -> int:
        """Equal cuts that stay at or below the depth set."""
        return max(1, -int(-(self.stock_to_remove / self.settings.depth_of_cut - 1e-6) // 1))

    def check(self) -> None:
        """Raise `OutOfRange` for the first input that cannot be."""
        f, s, h, m = self.feature, self.settings, self.holding, self.machine
        require_between("settings.cutting_speed", s.cutting_speed, 0.5, 5000, "m/min")
        require_between("settings.feed_per_rev", s.feed_per_rev, 0.005, 3, "mm/rev")
        require_between("settings.depth_of_cut", s.depth_of_cut, 0.01, 30, "mm")
        if s.spindle_clamp is not None:
            require_between("settings.spindle_clamp", s.spindle_clamp, 10, 30_000, "1/min")
        if s.overhang is not None:
            require_between("settings.overhang", s.overhang, 5, 400, "mm")
        if not m.turns:
            raise CuttingError("machine", f"{m.name} does not turn parts: it is a {m.description}.")
        if m.pressure(s.coolant) is None:
            has = ", ".join(name for name, _ in m.coolant)
            raise CuttingError("settings.coolant", f"{m.name} has no '{s.coolant}'; it has {has}.", has)
        require_between("feature.start_diameter", f.start_diameter, 0.5, m.swing, "mm (swing of the machine)")
        require_between("feature.length", f.length, 0.01, m.turning_length, "mm (turning length of the machine)")
        require_between("feature.distance_from_chuck", f.distance_from_chuck, 0, m.turning_length, "mm")
        if self.operation == "face":
            require_between("feature.end_diameter", f.end.nominal, 0, f.start_diameter - 0.1, "mm, below the start diameter")
        else:
            require_between("feature.end_diameter", f.end.nominal, 0.3, f.start_diameter, "mm, not above the start diameter")
            if self.stock_to_remove <= 0:
                raise OutOfRange(
                    "feature.grinding_allowance",
                    "with the allowance nothing is left to turn.",
                    f"below {f.start_diameter - f.end.target:g} mm",
                )
        if f.fillet is not None:
            require_between("feature.fillet", f.fillet, 0.01, 50, "mm")
        if f.roughness is not None:
            require_between("feature.roughness", f.roughness, 0.05, 50, "µm")
        require_between("holding.free_length", h.free_length, 1, m.turning_length, "mm")
        require_between("holding.grip_diameter", h.grip_diameter, 1, m.swing, "mm")
        require_between("holding.bore", h.bore, 0, max(f.end.nominal - 0.2, 0) if self.operation != "face" else f.start_diameter, "mm")
        if self.operation != "face" and f.distance_from_chuck + f.length > h.free_length + 1e-6:
            raise OutOfRange(
                "feature.length",
                f"the cut ends {f.distance_from_chuck + f.length:g} mm from the chuck, the part only {h.free_length:g} mm.",
                f"at most {h.free_length - f.distance_from_chuck:g} mm",
            )
        if self.pass_count > 60:
            raise OutOfRange(
                "settings.depth_of_cut", f"this depth needs {self.pass_count} passes.", f"at least {self.stock_to_remove / 60:.3g} mm"
            )
