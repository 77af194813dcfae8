"""`TrepanSetup`: all that a trepanned hole or disc needs to know, frozen and checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.errors import CuttingError, OutOfRange, require_between
from cutting.operations.frame.checks import check_coolant
from cutting.operations.frame.fields import PATTERN, WORKHOLDING, Base, Field, Fields, check_bounds
from cutting.operations.frame.setup import workholding_of
from cutting.operations.slots.shared.checks import CLAMP, FEED, OVERHANG, SPEED, check_tool
from cutting.operations.slots.shared.setup import SlotSetup
from cutting.tooling.blades import Blade, TrepanHead
from cutting.workpiece.pattern import check_pattern

Array = NDArray[np.float64]


class Cartridges(StrEnum):
    """How the head's cartridges stand."""

    ONE = "one cartridge"
    SAME = "two on one radius"
    TWO = "two on two radii"
    EACH = "a ring each"  # as soon as the feature has a second ring


class Keeps(StrEnum):
    """What is wanted of the plate."""

    HOLE = "the hole"
    DISC = "the disc"


@dataclass(frozen=True)
class TrepanFeature:
    """A ring through or into a plate: `diameter` of the hole (or of the disc that is kept), `depth` with the plate's thickness; mm.

    `web` is left standing at the back, `core_price` is money per kilogram of what the core may still be used for; `count` alike
    lie on a pitch `circle`. A second ring of the outside `inner_ring` is cut in the same pass, by the other cartridge.
    """

    diameter: float
    depth: float
    keeps: Keeps = Keeps.HOLE
    through: bool = True
    web: float = 0.0
    core_price: float = 0.0
    inner_ring: float | None = None
    circle: float | None = None
    count: int = 1

    @property
    def start_diameter(self) -> float:
        return self.diameter


@dataclass(frozen=True)
class TrepanSettings:
    """What the user sets: m/min at the outer edge, mm per edge."""

    cutting_speed: float
    feed_per_tooth: float
    cartridges: Cartridges = Cartridges.ONE
    coolant: str = "flood"
    spindle_clamp: float | None = None
    overhang: float | None = None


@dataclass(frozen=True, kw_only=True)
class TrepanSetup(SlotSetup):
    """Everything about one trepanned ring. `check` refuses what cannot be, naming the field."""

    FEED = "feed_per_tooth"

    blade: TrepanHead
    feature: TrepanFeature
    settings: TrepanSettings
    operation: str = "trepan"

    @property
    def depth(self) -> float:
        """How deep the ring is cut [mm]."""
        return self.feature.depth - self.feature.web

    def stands_out(self, blade: Blade) -> float:
        """How far the cartridges stand out [mm]: as set, or as little as the depth lets them."""
        return float(self.settings.overhang or blade.shortest(self.depth))

    @property
    def ring_width(self) -> float:
        """Width of the ring [mm]: one edge's, or two edges' side by side with a little overlap."""
        return float(ring_width(self.insert.width, self.standing))

    @property
    def standing(self) -> Cartridges:
        """How the cartridges stand: as set, or each in its own ring where there are two."""
        return Cartridges.EACH if self.feature.inner_ring is not None else self.settings.cartridges

    @property
    def outer_diameter(self) -> float:
        """Outside of the ring [mm]: the hole itself, or the kept disc with the ring around it."""
        return self.feature.diameter + (2.0 * self.ring_width if self.feature.keeps is Keeps.DISC else 0.0)

    @property
    def inner_diameter(self) -> float:
        return self.outer_diameter - 2.0 * self.ring_width

    @property
    def effective_edges(self) -> int:
        """Edges that share the feed: two on one radius."""
        return 2 if self.standing is Cartridges.SAME else 1

    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""
        f, s, m = self.feature, self.settings, self.machine
        check_coolant(m, s.coolant)
        if m.fixed:
            raise CuttingError("machine", f"{m.name} has one speed and one feed: no trepanning head runs on it.")
        check_bounds(FIELDS.feature, "feature", f)
        require_between("feature.web", f.web, 0.0, 0.5 * f.depth, "mm, up to half the depth")
        check_bounds(FIELDS.settings, "settings", s)
        check_pattern(f.circle, f.count, f.diameter, max((d for _, d in self.holding.steps), default=None))

    def check_tool(self) -> None:
        """Raise `CuttingError` where the set-up's own tool cannot be used like this."""
        s = self.settings
        check_tool(self.blade, self.insert, TrepanHead)
        if s.cartridges is not Cartridges.ONE and self.blade.cartridges < 2:
            raise CuttingError("settings.cartridges", f"{self.blade.name} has one cartridge.", Cartridges.ONE.value)
        if s.cartridges is Cartridges.ONE and self.blade.cartridges > 1:
            raise CuttingError("settings.cartridges", f"{self.blade.name} carries two cartridges: they stand on one radius or on two.")
        if self.inner_diameter <= 1.0:
            raise OutOfRange("feature.diameter", "the ring leaves no core: drill it instead.", f"over {2 * self.ring_width + 1:g} mm")
        if (second := self.feature.inner_ring) is not None:
            if self.blade.cartridges < 2:
                raise CuttingError("feature.inner_ring", f"{self.blade.name} has one cartridge: two rings want a head with two.")
            if self.feature.keeps is Keeps.DISC:
                raise CuttingError("feature.inner_ring", "a second ring lies within the hole: a disc is cut by its own ring alone.")
            least, most = room_within(self.outer_diameter, self.ring_width)
            require_between("feature.inner_ring", second, float(least), float(most), "mm, with a core inside and a wall to the outer ring")


def room_within(outer: ArrayLike, width: ArrayLike) -> tuple[Array, Array]:
    """Least and largest outside [mm] of a second ring of a width [mm]: with a core inside it and a wall to the outer ring."""
    return 2.0 * np.asarray(width) + LEAST_WALL, np.asarray(outer) - 2.0 * (np.asarray(width) + LEAST_WALL)


def ring_width(width: ArrayLike, cartridges: Cartridges) -> Array:
    """Width of the ring [mm] that edges of a width [mm] cut: one edge's, or two edges' side by side with a little overlap."""
    return 2.0 * np.asarray(width) - OVERLAP if cartridges is Cartridges.TWO else np.asarray(width, float)


LEAST_WALL = 1.0  # mm between two rings, and of the core that is left (common practice)
OVERLAP = 0.5  # mm by which two edges on two radii overlap (common practice)
SET = tuple(one.value for one in Cartridges if one is not Cartridges.EACH)  # of which a person chooses
FIELDS = Fields(
    feature=(
        Field("keeps", "wanted is", "choice", options=tuple(one.value for one in Keeps), default=Keeps.HOLE.value),
        Field("diameter", "Ø of the hole or of the disc", example="100", required=True, bounds=(5.0, 2000.0)),
        Field("depth", "thickness, or depth of a blind ring", example="30", required=True, bounds=(0.5, 400.0)),
        Field("through", "goes through", "flag", default=True),
        Field("web", "web left at the back", example="0", default=0.0),
        Field("core_price", "worth of the core a kg", "number", "4", default=0.0, drawn=False, bounds=(0.0, 10_000.0), unit="a kilogram"),
        Field("inner_ring", "Ø of a second ring, cut at once", example="80", bounds=(3.0, 2000.0)),
        *PATTERN,
    ),
    settings=(
        Field("cutting_speed", "speed", "cutting_speed", "250", also=("spindle_speed",), required=True, bounds=SPEED),
        Field("feed_per_tooth", "feed per edge", "feed_per_tooth", "0.08", required=True, bounds=FEED),
        Field("cartridges", "cartridges", "choice", options=SET, default=Cartridges.ONE.value),
        Field("coolant", "coolant", "text", default="flood"),
        Field("spindle_clamp", "spindle clamp", "spindle_speed", "2000", bounds=CLAMP),
        Field("overhang", "overhang of the cartridges", example="50", bounds=OVERHANG),
    ),
    holding=WORKHOLDING,
    title=lambda feature: f"Trepan Ø{feature.get('diameter', '')}",
    shown=("diameter", "depth", "keeps", "circle"),
)


def feature_of(values: dict[str, Any]) -> TrepanFeature:
    """The feature from its fields."""
    given = dict(values)
    return TrepanFeature(keeps=Keeps(given.pop("keeps", Keeps.HOLE)), **given)


def build(base: Base, tool: Mapping[str, Any], given: dict[str, dict[str, Any]]) -> TrepanSetup:
    """The set-up from its fields, section by section. Raises `CuttingError`."""
    feature, settings = feature_of(given["feature"]), dict(given["settings"])
    usual = Cartridges.ONE if tool["blade"].cartridges < 2 else Cartridges.SAME
    cartridges = Cartridges(settings.pop("cartridges", usual))
    # a disc half as wide again, where nothing is said
    holding = workholding_of(given["holding"], max(feature.depth, 10.0), feature.diameter * 1.5)
    chosen = TrepanSettings(cartridges=cartridges, **settings)
    return TrepanSetup(**tool, feature=feature, settings=chosen, holding=holding, **vars(base))
