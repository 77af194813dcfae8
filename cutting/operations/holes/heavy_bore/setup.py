"""`HeavySetup`: a heavy boring tool with part, machine, speeds, and what its chain of positions is worth."""

from __future__ import annotations

from dataclasses import dataclass, field

from cutting.errors import CuttingError, require_between
from cutting.machine.machines import Machine
from cutting.operations.frame.setup import HouseRules
from cutting.tooling.heavy.tool import HeavyTool
from cutting.workpiece.materials import Work


@dataclass(frozen=True)
class Chain:
    """How far each link may be off, mm: between the steps of one tool, from one tool change to the next, along the axis that feeds,
    from one clamping to the next. All common practice, the shop's own where it has measured them.
    """

    steps: float = 0.003
    change: float = 0.004
    axis: float = 0.003
    clamping: float = 0.02
    machine_round: float = 0.004  # cylindricity of a bore without any force


@dataclass(frozen=True)
class HeavySettings:
    """m/min at the largest step, mm a turn; `temperature` of the part [°C] and how well it is known [K]."""

    cutting_speed: float
    feed_per_rev: float
    coolant: str = "flood"
    temperature: float = 20.0
    temperature_known: float = 1.0


@dataclass(frozen=True)
class HeavyAsked:
    """What the drawing asks of all bores together, mm; None where it says nothing."""

    coaxiality: float | None = None  # zone diameter
    cylindricity: float | None = None


@dataclass(frozen=True)
class HeavySetup:
    """Everything about one pass of a heavy tool. `check` refuses what cannot be, naming the field."""

    tool: HeavyTool
    work: Work
    machine: Machine
    settings: HeavySettings
    asked: HeavyAsked = field(default_factory=HeavyAsked)
    chain: Chain = field(default_factory=Chain)
    house: HouseRules = field(default_factory=HouseRules)

    def check(self) -> None:
        """Raise `CuttingError` for the first input that cannot be."""
        self.tool.check()
        if self.machine.turns:
            raise CuttingError("machine", f"{self.machine.name} turns the part: a heavy tool turns in a spindle of its own.")
        if self.machine.pressure(self.settings.coolant) is None:
            has = ", ".join(name for name, _ in self.machine.coolant)
            raise CuttingError("settings.coolant", f"{self.machine.name} has no '{self.settings.coolant}'; it has {has}.", has)
        require_between("settings.cutting_speed", self.settings.cutting_speed, 1.0, 3000.0, "m/min")
        require_between("settings.feed_per_rev", self.settings.feed_per_rev, 0.01, 5.0, "mm/rev")
        require_between("settings.temperature", self.settings.temperature, -20.0, 120.0, "°C")
        require_between("settings.temperature_known", self.settings.temperature_known, 0.05, 20.0, "K")
        for name, value in vars(self.chain).items():
            require_between(f"chain.{name}", value, 0.0, 1.0, "mm")
