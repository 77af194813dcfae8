"""`SlotSetup`: what every set-up of a narrow edge in a held part carries; a kind adds its feature and settings."""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass

from cutting.operations.frame.setup import BaseSetup
from cutting.tooling.blades import Blade
from cutting.tooling.groove_inserts import GrooveInsert

# corner radius that may stay where the drawing says none, up to a width and in wider grooves, mm (common practice: 0.2 to 0.4)
USUAL_CORNER, WIDE_GROOVE, WIDE_CORNER = 0.4, 6.0, 0.8


def usual_corner(width: float) -> float:
    """Corner radius [mm] that may stay in a groove of a width [mm] whose drawing says none."""
    return USUAL_CORNER if width <= WIDE_GROOVE else WIDE_CORNER


@dataclass(frozen=True, kw_only=True)
class SlotSetup(BaseSetup, ABC):
    """A set-up whose tool is an insert in a blade, bar or head."""

    ROLES = ("insert", "blade")

    insert: GrooveInsert
    blade: Blade

    @property
    def overhang(self) -> float:
        """How far the tool stands out [mm]."""
        return self.stands_out(self.blade)

    def stands_out(self, blade: Blade) -> float:
        """How far a blade stands out here [mm]: as set, or its own."""
        return float(self.settings.overhang or blade.overhang)

    def feeds_higher(self, blade: Blade) -> float:
        """How many times its width's largest feed a blade stands here, for the way in which it is loaded."""
        return 1.0

    @property
    def gripped(self) -> float:
        """Diameter in the jaws [mm]: the holding's, or where it does not say the cut's own."""
        return float(self.holding.grip_diameter or self.feature.start_diameter)

    @property
    @abstractmethod
    def depth(self) -> float:
        """How deep the edge goes in its slot [mm]."""

    def check(self) -> None:
        """Raise `CuttingError` for the first input that cannot be."""
        self.check_case()
        self.check_tool()

    @abstractmethod
    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""

    @abstractmethod
    def check_tool(self) -> None:
        """Raise `CuttingError` where the set-up's own tool cannot be used like this."""
