"""`NarrowSetup`: what every set-up of a narrow edge in a held part carries; a kind adds its feature and settings."""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Any, Self

from cutting.machine.machines import Machine
from cutting.operations.frame.setup import Batch, Goal, HouseRules, Skin, Workholding
from cutting.tooling.blades import GrooveBlade, GrooveInsert
from cutting.workpiece.materials import Work


@dataclass(frozen=True)
class NarrowSetup:
    """Work, machine and tool, what the drawing says, what the user sets, and the shop's rules for it."""

    work: Work
    machine: Machine
    insert: GrooveInsert
    blade: GrooveBlade
    feature: Any
    settings: Any
    holding: Workholding = field(default_factory=Workholding)
    house: HouseRules = field(default_factory=HouseRules)
    batch: Batch = field(default_factory=Batch)
    goal: Goal = Goal.CHEAPEST
    skin: Skin = Skin.CLEAN
    operation: str = ""

    def with_settings(self, **changes: Any) -> Self:
        """The same set-up with other settings."""
        return replace(self, settings=replace(self.settings, **changes))

    @property
    def overhang(self) -> float:
        """How far the tool stands out [mm]: as set, or its own."""
        return float(self.settings.overhang or self.blade.overhang)
