"""`Setup`: all that turning and facing need to know, frozen and checked."""

from __future__ import annotations

from dataclasses import dataclass, field

from cutting.operations.frame.checks import check_coolant, check_turns
from cutting.operations.frame.setup import BaseSetup, Workholding
from cutting.operations.turned.checks import check_feature, check_holding, check_passes, check_settings
from cutting.operations.turned.feature import Direction, Feature, Settings
from cutting.operations.turned.surface import Surface
from cutting.tooling.items import Holder, Insert
from cutting.workpiece.finish_asked import implied_roughness

BAR_ROOM = 5.0  # mm that a bar stands out further than its bore is deep


@dataclass(frozen=True, kw_only=True)
class Setup(BaseSetup):
    """Everything about one operation. `check` refuses what cannot be, naming the field."""

    ROLES = ("insert", "holder")

    insert: Insert
    holder: Holder
    feature: Feature
    settings: Settings
    holding: Workholding = field(default_factory=Workholding)

    @property
    def surface(self) -> Surface:
        """What it makes."""
        return Surface(self.operation)

    @property
    def inside(self) -> bool:
        """Whether a bore is made wider: cuts make the diameter larger, and a bar reaches into the part."""
        return self.surface is Surface.INSIDE

    @property
    def head_turns(self) -> bool:
        """Whether the bar turns in a head and the part stands still."""
        return self.inside and not self.machine.turns

    @property
    def keeps_size(self) -> bool:
        """Whether a diameter comes out that is measured after each pass."""
        return self.surface.keeps_size

    @property
    def shrinks(self) -> float:
        """1 where cuts make the diameter smaller, −1 where they make it larger."""
        return self.surface.shrinks

    @property
    def target_diameter(self) -> float:
        """The size to turn to, with what the house leaves for polishing."""
        return self.feature.turned_diameter + self.shrinks * (self.house.polishing_allowance if self.feature.polish else 0.0)

    @property
    def overhang(self) -> float:
        """How far the tool stands out [mm]: as set, or its own; of a bar as little as the depth of the bore lets it."""
        return float(self.settings.overhang or (self.feature.length + BAR_ROOM if self.inside else self.holder.overhang))

    @property
    def centre_height(self) -> float:
        """Height of the tip over the axis [mm]: what was set, or the house's school."""
        if self.settings.centre_height is not None:
            return self.settings.centre_height
        return -self.shrinks * self.house.off_centre * self.feature.turned_diameter

    @property
    def away(self) -> bool:
        return self.settings.direction is Direction.AWAY and self.surface is Surface.OUTSIDE

    @property
    def stock_to_remove(self) -> float:
        """Depth of all passes together, mm."""
        if self.surface is Surface.FACE:
            return self.feature.length
        return self.shrinks * (self.feature.start_diameter - self.target_diameter) / 2.0

    @property
    def finish_asked(self) -> float | None:
        """Ra [µm] that the drawing says or its tolerance implies; None where neither does, or a later cut, wheel or cloth makes it."""
        f = self.feature
        if f.roughness is not None or f.grinding_allowance > 0 or f.polish or f.roughing:
            return f.roughness
        return implied_roughness(f.end_diameter, self.house.finish_of_tolerance) if self.surface is not Surface.FACE else None

    @property
    def last_depth(self) -> float | None:
        """Depth of a last cut that differs from the others [mm], None where all are equal."""
        light = None if self.house.equal_cuts or not self.feature.end_diameter.tolerance else self.house.light_cut
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

    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""
        self.check()

    def check(self) -> None:
        """Raise `CuttingError` for the first input that cannot be."""
        feature, settings, machine = self.feature, self.settings, self.machine
        check_settings(settings)
        if not self.inside:  # a bore may be made by a head that turns
            check_turns(machine)
        check_coolant(machine, settings.coolant)
        check_feature(feature, self.surface, machine, self.stock_to_remove)
        check_holding(self.holding, feature, self.surface, machine)
        check_passes(settings, self.stock_to_remove, self.pass_count)
