"""`CutOffSetup`: all that a cut-off needs to know, frozen and checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from cutting.errors import CuttingError, OutOfRange, require_between
from cutting.machine.drive import Spun
from cutting.machine.spindle import SUB
from cutting.money.kerf import bar_price_of, usual_price
from cutting.operations.frame.checks import check_coolant, check_turns
from cutting.operations.frame.fields import Base, Field, Fields, check_bounds
from cutting.operations.slots.cut_off.feed_zones import FeedZone, School, split_at, zone_seconds, zones_of
from cutting.operations.slots.shared.checks import CLAMP, FEED, HEIGHT, OVERHANG, SPEED, check_tool
from cutting.operations.slots.shared.setup import SlotSetup
from cutting.operations.slots.shared.turned_blade import check_y_axis, turned_feed
from cutting.tooling.blades import BEFORE_BLOCK, Blade, CutOffBlade

WIDER = 0.02  # mm over the insert's width from which a slot is widened
BESIDE = 0.9  # of the insert's width that a second plunge beside the first may take (common practice)
LAYER = 2.0  # × the insert's width that each plunge of a widened slot goes deep (common practice)


@dataclass(frozen=True)
class CutOffFeature:
    """What is cut off, mm and µm: a bar or tube of `diameter`, `distance_from_chuck` in front of collet or jaws."""

    diameter: float
    part_length: float
    bore: float = 0.0
    distance_from_chuck: float = 10.0
    flatness: float | None = None  # of the part's face, mm
    pip: float | None = None  # largest that may stay on the part, Ø mm
    roughness: float | None = None  # Ra, µm
    edge_break: float = 0.0  # chamfer that the blade breaks on the part before it comes off, mm

    @property
    def start_diameter(self) -> float:
        return self.diameter


@dataclass(frozen=True)
class CutOffSettings:
    """What the user sets: m/min, mm/rev, 1/min, mm, degrees."""

    cutting_speed: float
    feed_per_rev: float
    coolant: str = "flood"
    spindle_clamp: float | None = None
    school: School | None = School.EARLY
    feed_zones: tuple[tuple[float, float], ...] = ()
    overhang: float | None = None
    centre_height: float = 0.0
    lean: float = 0.0
    stop_at: float | None = None  # Ø at which the blade stops and the rest is broken or pulled off; None: cut through
    pull_out_at: float | None = None  # Ø at which a blade that stood out less is pulled out as far as the cut needs; None: one overhang
    slot_width: float | None = None  # mm to which the slot is widened by plunges beside each other; None: the insert's width


@dataclass(frozen=True)
class CutOffHolding:
    """How bar and part are held. `guide_bush` stands at the cut; the sub-spindle pulls the part away at matched speed."""

    sub_spindle: bool = False
    part_catcher: bool = False
    guide_bush: bool = False
    y_axis: bool = False
    tailstock: bool = False
    grip_diameter: float | None = None


@dataclass(frozen=True)
class BarStock:
    """The bar: length and remnant [mm], price of one bar, pieces a year."""

    length: float = 3000.0
    remnant: float = 120.0
    price: float = 0.0
    yearly: int = 0


@dataclass(frozen=True, kw_only=True)
class CutOffSetup(SlotSetup):
    """Everything about one cut-off. `check` refuses what cannot be, naming the field."""

    blade: CutOffBlade
    feature: CutOffFeature
    settings: CutOffSettings
    holding: CutOffHolding = field(default_factory=CutOffHolding)
    bar: BarStock = field(default_factory=BarStock)
    operation: str = "cut off"

    @property
    def bar_price(self) -> float:
        """Price of one bar: what the shop pays, or by its mass at what such a metal usually costs."""
        if self.bar.price > 0:
            return self.bar.price
        material, f = self.work.material, self.feature
        each = usual_price(material.group.number, material.group.letter)
        return bar_price_of(f.diameter, f.bore, self.bar.length, material.density, each)

    @property
    def depth(self) -> float:
        """How deep the blade must reach [mm]: the radius, or the wall of a tube."""
        return (self.feature.diameter - self.feature.bore) / 2.0

    def stands_out(self, blade: Blade) -> float:
        """How far a blade stands out [mm]: as set, or as little as the cut lets it where it slides in its block."""
        return float(self.settings.overhang or blade.shortest(self.depth))

    def feeds_higher(self, blade: Blade) -> float:
        """With a Y axis the force runs along the blade: the stiffer it makes it, the more feed (common practice: 1.5 to 2 times)."""
        return turned_feed(self, blade) if self.holding.y_axis else 1.0

    @property
    def inner_diameter(self) -> float:
        """Where the cut ends [mm]: the bore, the centre, or the stub at which the blade stops short."""
        return max(self.feature.bore, self.settings.stop_at or 0.0)

    @property
    def widened(self) -> bool:
        """Whether the slot is made wider than the insert."""
        return (self.settings.slot_width or 0.0) > self.insert.width + WIDER

    @property
    def slot(self) -> float:
        """Width of the slot [mm]: the insert's, or as far as it is widened."""
        return max(self.insert.width, self.settings.slot_width or 0.0)

    @property
    def single_from(self) -> float:
        """Diameter [mm] from which only the plunge at the part's side goes on in a widened slot: the last layer."""
        inner, layer = self.inner_diameter, 2.0 * LAYER * self.insert.width
        layers = max(int(np.ceil((self.feature.diameter - inner) / layer)), 1)
        return inner + (self.feature.diameter - inner) / layers

    @property
    def zones(self) -> tuple[FeedZone, ...]:
        """Feed by diameter at the feed that is set. Raises `CuttingError`."""
        return self.zones_at(self.settings.feed_per_rev)

    def zones_at(self, feed: Any) -> tuple[FeedZone, ...]:
        """Feed by diameter: the user's own, the school's shares of a feed [mm/rev], or full feed in a tube. Raises `CuttingError`."""
        f, s = self.feature, self.settings
        found = zones_of(f.diameter, self.inner_diameter, feed, None if f.bore > 0 else s.school, s.feed_zones)
        drive = self.machine.drive()
        return tuple(replace(zone, feed=drive.fed(zone.feed)) for zone in split_at(found, s.pull_out_at))

    def starts_out(self, overhang: Any) -> Any:
        """How far the blade stands out [mm] before it is pulled out to `overhang`: as far as its first stretch needs."""
        if self.settings.pull_out_at is None:
            return overhang
        return np.minimum(overhang, (self.feature.diameter - self.settings.pull_out_at) / 2.0 + BEFORE_BLOCK)

    def zone_seconds(self, zones: tuple[FeedZone, ...], cutting_speed: Any, spun: Spun) -> Any:
        """Seconds from rim to centre or bore at a speed [m/min] as far as the spindle follows."""
        return sum(zone_seconds(zone, cutting_speed, spun) for zone in zones)

    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""
        f, s, m = self.feature, self.settings, self.machine
        check_turns(m)
        check_coolant(m, s.coolant)
        require_between("feature.diameter", f.diameter, 1.0, m.swing, "mm (swing of the machine)")
        require_between("feature.bore", f.bore, 0.0, f.diameter - 0.2, "mm, below the diameter")
        require_between("feature.part_length", f.part_length, 0.2, m.turning_length, "mm")
        require_between("feature.distance_from_chuck", f.distance_from_chuck, 0.0, m.turning_length, "mm")
        require_between("feature.edge_break", f.edge_break, 0.0, min(2.0, self.depth / 2), "mm, within half the way")
        check_bounds(FIELDS.settings, "settings", s)
        if s.stop_at is not None:
            require_between("settings.stop_at", s.stop_at, 0.0, 0.5 * f.diameter, "mm, up to half the bar")
            if f.bore > 0:
                raise CuttingError("settings.stop_at", "a tube is cut through to its bore.")
        if s.pull_out_at is not None:
            require_between("settings.pull_out_at", s.pull_out_at, self.inner_diameter, f.diameter, "mm, on the way in")
        _ = self.zones  # refuses break points out of order
        check_bounds(FIELDS.bar, "bar", self.bar)
        if self.holding.y_axis:
            check_y_axis(m, "holding.y_axis")
        if self.holding.sub_spindle and not m.has(SUB):
            raise OutOfRange("holding.sub_spindle", f"{m.name} has no sub-spindle.", "a machine with a sub-spindle")

    def check_tool(self) -> None:
        """Raise `CuttingError` where the set-up's own tool cannot be used like this."""
        check_tool(self.blade, self.insert, CutOffBlade)
        if self.settings.slot_width is not None:
            widest = (1.0 + BESIDE) * self.insert.width
            require_between("settings.slot_width", self.settings.slot_width, 0.0, widest, "mm: two plunges beside each other")


SCHOOLS = {"early": School.EARLY, "late": School.LATE, "full": None}
FIELDS = Fields(
    feature=(
        Field("diameter", "bar or tube Ø", example="20", required=True, drawn=False),
        Field("part_length", "length that comes off", example="44", required=True),
        Field("bore", "bore of a tube", example="0", default=0.0, drawn=False),
        Field("distance_from_chuck", "cut in front of collet or jaws", example="8", default=10.0, drawn=False, place=True),
        Field("flatness", "flatness of the face, µm", "small_length", "30", factor=1e-3),
        Field("pip", "largest pip on the part, Ø", example="1"),
        Field("roughness", "finish, Ra µm, Rz or N6", "roughness", "3.2"),
        Field("edge_break", "edge break before it falls", example="0.3", default=0.0),
    ),
    settings=(
        Field("cutting_speed", "speed", "cutting_speed", "140", also=("spindle_speed",), required=True, bounds=SPEED),
        Field("feed_per_rev", "feed", "feed_per_rev", "0.1", also=("feed_rate",), required=True, bounds=FEED),
        Field("coolant", "coolant", "text", default="flood"),
        Field("spindle_clamp", "spindle clamp", "spindle_speed", "4000", bounds=CLAMP),
        Field(
            "feed_zones",
            "zones",
            "points",
            "10:0.06; 5:0.03",
            options=("early", "late", "full"),
            pair=("length", "feed_per_rev"),
            default="early",
        ),
        Field("stop_at", "stop short at Ø, break it off", example="cut through"),
        Field("pull_out_at", "blade pulled out at Ø", example="one overhang", drawn=False),
        Field("slot_width", "slot widened to", example="the insert's width", drawn=False),
        Field("overhang", "blade overhang", example="22", bounds=OVERHANG),
        Field("centre_height", "tip over the axis", example="0", default=0.0, bounds=HEIGHT, unit="mm over the axis"),
        Field("lean", "blade out of square, °", "angle", "0", default=0.0, bounds=(-5.0, 5.0)),
    ),
    holding=(
        Field("sub_spindle", "sub-spindle holds the part", "flag", default=False),
        Field("part_catcher", "part catcher", "flag", default=False),
        Field("guide_bush", "guide bush at the cut", "flag", default=False),
        Field("y_axis", "blade turned by the Y axis", "flag", default=False),
        Field("tailstock", "tailstock in", "flag", default=False),
        Field("grip_diameter", "gripped on Ø", example="20"),
    ),
    bar=(
        Field("length", "bar length", example="3 m", default=3000.0, bounds=(10.0, 20_000.0)),
        Field("remnant", "remnant that the chuck keeps", example="120", default=120.0),
        Field("price", "price of a bar", "number", "40", default=0.0, bounds=(0.0, 1e6)),
        Field("yearly", "pieces a year", "whole", "32000", default=0),
    ),
    title=lambda feature: f"Cut off Ø{feature.get('diameter', '')}",
    shown=("part_length", "flatness", "pip", "roughness"),
)


def build(base: Base, tool: Mapping[str, Any], given: dict[str, dict[str, Any]]) -> CutOffSetup:
    """The set-up from its fields, section by section. Raises `CuttingError`."""
    return CutOffSetup(
        **tool, feature=CutOffFeature(**given["feature"]), settings=settings_of(given["settings"]),
        holding=CutOffHolding(**given["holding"]), bar=BarStock(**given["bar"]), **vars(base),
    )  # fmt: skip


def settings_of(values: dict[str, Any]) -> CutOffSettings:
    """The settings from their fields: `feed_zones` is a school by name or break points. Raises `CuttingError`."""
    given = dict(values)
    zones = given.pop("feed_zones", None)
    known = zones is None or isinstance(zones, str)
    school = SCHOOLS[zones or "early"] if known else None
    return CutOffSettings(school=school, feed_zones=() if known else tuple(zones or ()), **given)
