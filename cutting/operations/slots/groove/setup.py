"""`GrooveSetup`: all that a groove needs to know, frozen and checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from cutting.errors import CuttingError, OutOfRange, require_between
from cutting.operations.frame.checks import check_coolant, check_turns
from cutting.operations.frame.fields import WORKHOLDING, Base, Field, Fields, check_bounds
from cutting.operations.frame.setup import workholding_of
from cutting.operations.slots.shared.checks import CLAMP, DWELL, FEED, HEIGHT, OVERHANG, SPEED, check_tool
from cutting.operations.slots.shared.setup import SlotSetup, usual_corner
from cutting.operations.slots.shared.turned_blade import check_y_axis, turned_feed
from cutting.quantities.dimension import Dimension
from cutting.tooling.blades import Blade, CutOffBlade, GrooveBar
from cutting.workpiece.ring_grooves import STANDARDS, standard_groove

LAYER_SHARE, LAYER_MOST = 0.4, 0.7  # depth of a layer that is turned sideways, of the insert's width; and at most (common practice)
ROUND_LAYER = 0.25  # of a full-radius insert's width
SIDE_FEED, NOSE_SHARE = 1.5, 0.6  # feed sideways over the plunge's; and the most of the corner radius (common practice)
BAR_ROOM, LEAST_OUT = (
    5.0,
    1.0,
)  # mm that a bar stands out further than the wall of its groove; and of its shank at the least (common practice)
BESIDE = 12.0  # mm on either side of a blade within which its holder meets what stands there (common practice)
ALLOWANCE = 0.15  # mm left on walls and floor for the finishing pass (common practice)


class Where(StrEnum):
    """On which side of the metal the groove is."""

    OUTSIDE = "outside"
    INSIDE = "inside"


WORKS: dict[Where, type[Blade]] = {Where.OUTSIDE: CutOffBlade, Where.INSIDE: GrooveBar}


class GrooveWay(StrEnum):
    """How a groove is cleared."""

    ONE = "one plunge"
    SIDE_BY_SIDE = "side by side"
    TURNED = "plunge and turn"
    RAMP = "ramp"
    ROUND = "round path"


@dataclass(frozen=True)
class GrooveFeature:
    """What the drawing says: a groove in or on `diameter` down to `floor`, `width` wide at its floor; mm, degrees.

    `distance_from_chuck` is its wall nearer to the jaws, `wall_angle` how far each wall leans out of square, `corner_radius` the
    largest radius that its corners may have, `roughness` Ra [µm] of walls and floor.
    """

    diameter: float
    floor: Dimension
    width: Dimension
    where: Where = Where.OUTSIDE
    distance_from_chuck: float = 20.0
    wall_angle: float = 0.0
    corner_radius: float | None = None
    roughness: float | None = None
    standard: str = ""

    @property
    def depth(self) -> float:
        """From the surface to the floor [mm]."""
        return abs(self.diameter - self.floor.target) / 2.0

    @property
    def corner(self) -> float:
        """The corner radius that may stay [mm]: the drawing's, or a usual one where it says none (common practice)."""
        return usual_corner(self.width.nominal) if self.corner_radius is None else self.corner_radius

    @property
    def start_diameter(self) -> float:
        return self.diameter

    @property
    def length(self) -> float:
        return self.width.target

    @property
    def narrowest(self) -> float:
        return self.width.nominal + (self.width.lower_deviation or 0.0)

    @property
    def widest(self) -> float:
        """The widest that the drawing allows: its limit, or a general tolerance of 0.1 mm (ISO 2768-1 fine, to 6 mm 0.05)."""
        upper = self.width.upper_deviation
        return self.width.nominal + (upper if upper is not None else 0.1 if self.width.nominal > 6 else 0.05)


@dataclass(frozen=True)
class GrooveSettings:
    """What the user sets: m/min, mm/rev, mm; `dwell` in revolutions at the floor."""

    cutting_speed: float
    feed_per_rev: float
    way: GrooveWay = GrooveWay.ONE
    side_feed: float | None = None
    side_depth: float | None = None
    finish: bool = True
    dwell: float = 1.0
    coolant: str = "flood"
    spindle_clamp: float | None = None
    overhang: float | None = None
    centre_height: float = 0.0
    measured_width: float | None = None  # of this very insert, mm; None: its nominal width within its tolerance
    y_axis: bool = False  # whether the blade is turned, so that the force runs along it


@dataclass(frozen=True, kw_only=True)
class GrooveSetup(SlotSetup):
    """Everything about one groove. `check` refuses what cannot be, naming the field."""

    feature: GrooveFeature
    settings: GrooveSettings
    operation: str = "groove"

    @property
    def inside(self) -> bool:
        return self.feature.where is Where.INSIDE

    @property
    def depth(self) -> float:
        return self.feature.depth

    @property
    def way_down(self) -> float:
        """From what stands highest beside the groove to its floor [mm]: the blade's shoulder must pass it."""
        f = self.feature
        if self.inside:
            return self.depth
        near, far = f.distance_from_chuck - BESIDE, f.distance_from_chuck + f.length + BESIDE
        beside = [d for start, end, d in self.holding.stretches if start < far and end > near]
        return max([self.depth, *((d - f.floor.target) / 2.0 for d in beside)])

    def stands_out(self, blade: Blade) -> float:
        """How far a blade stands out here [mm]; a bar in a bore as far as the groove wants, where nothing else is set."""
        if self.settings.overhang or not (self.inside and blade.round_shank):
            return super().stands_out(blade)
        face = self.holding.face or self.holding.free_length
        return max(face - self.feature.distance_from_chuck + BAR_ROOM, LEAST_OUT * blade.round_shank)

    def feeds_higher(self, blade: Blade) -> float:
        return turned_feed(self, blade) if self.settings.y_axis else 1.0

    @property
    def layer(self) -> float:
        """Depth of a layer that is cut sideways [mm]."""
        share = ROUND_LAYER if self.settings.way is GrooveWay.ROUND else LAYER_SHARE
        return self.settings.side_depth or share * self.insert.width

    @property
    def corners_left(self) -> bool:
        """Whether a full radius leaves corners that a second tool must clear."""
        return self.settings.way is GrooveWay.ROUND and self.insert.corner_radius > self.feature.corner + 1e-9

    @property
    def finished(self) -> bool:
        """Whether walls and floor get a pass of their own."""
        return self.settings.finish and self.settings.way is not GrooveWay.ONE

    @property
    def largest(self) -> float:
        """The largest diameter that is cut [mm]."""
        return self.feature.floor.target if self.inside else self.feature.diameter

    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""
        f, s, m = self.feature, self.settings, self.machine
        check_turns(m)
        check_coolant(m, s.coolant)
        require_between("feature.diameter", f.diameter, 2.0, m.swing, "mm (swing of the machine)")
        out = f.floor.target > f.diameter
        if out != self.inside:
            side = "above" if self.inside else "below"
            raise OutOfRange(
                "feature.floor", f"Ø{f.floor.target:g} is not {side} Ø{f.diameter:g}: the groove has no depth.", f"{side} {f.diameter:g} mm"
            )
        require_between("feature.floor", f.floor.target, 0.5, m.swing, "mm")
        require_between("feature.width", f.width.target, 0.3, 400.0, "mm")
        require_between("feature.distance_from_chuck", f.distance_from_chuck, 0.0, m.turning_length, "mm")
        check_bounds(FIELDS.feature, "feature", f)
        check_bounds(FIELDS.settings, "settings", s)
        if s.y_axis:
            check_y_axis(m, "settings.y_axis")
            if self.inside:
                raise CuttingError("settings.y_axis", "a bar in a bore cannot be turned: outside grooves only.")

    def check_tool(self) -> None:
        """Raise `CuttingError` where the set-up's own tool cannot be used like this."""
        f, s = self.feature, self.settings
        check_tool(self.blade, self.insert, WORKS[f.where])
        if s.way is GrooveWay.ROUND and not self.insert.round_edge:
            raise CuttingError(
                "settings.way", f"a round path needs an insert with a full radius; {self.insert.name} has {self.insert.corner_radius:g} mm."
            )
        if s.way is not GrooveWay.ROUND and self.insert.round_edge:
            raise CuttingError("settings.way", f"{self.insert.name} has a full radius: it cuts a round path only.", GrooveWay.ROUND.value)
        if self.insert.width > f.widest + 1e-9:
            raise OutOfRange("tool.insert", f"{self.insert.width:g} mm is wider than the groove.", f"at most {f.widest:g} mm")


FIELDS = Fields(
    feature=(
        Field("where", "where", "choice", options=("outside", "inside"), default="outside"),
        Field("standard", "standard groove", "text", "DIN 471, O-ring 3.53, DIN 509 F; empty for its own shape", options=STANDARDS),
        Field("diameter", "Ø that it is cut into", example="50", required=True, drawn=False),
        Field("floor", "Ø of its floor, with tolerance", "dimension", "44 h11"),
        Field("width", "width at the floor, with tolerance", "dimension", "6 +0.1/0"),
        Field("distance_from_chuck", "nearer wall from the jaws", example="30", default=20.0, place=True),
        Field("wall_angle", "walls out of square, °", "angle", "0", default=0.0, bounds=(0.0, 75.0)),
        Field("corner_radius", "largest corner radius", example="0.4"),
        Field("roughness", "finish, Ra µm, Rz or N6", "roughness", "3.2"),
    ),
    settings=(
        Field("cutting_speed", "speed", "cutting_speed", "140", also=("spindle_speed",), required=True, bounds=SPEED),
        Field("feed_per_rev", "plunge feed", "feed_per_rev", "0.12", also=("feed_rate",), required=True, bounds=FEED),
        Field("way", "way", "choice", options=tuple(way.value for way in GrooveWay), default=GrooveWay.ONE),
        Field("side_feed", "feed sideways", "feed_per_rev", "as the plunge", bounds=FEED),
        Field("side_depth", "depth of a layer", example="1.6", bounds=(0.02, 20.0)),
        Field("finish", "finish walls and floor", "flag", default=True),
        Field("dwell", "dwell at the floor, turns", "number", "1", default=1.0, bounds=DWELL, unit="revolutions"),
        Field("coolant", "coolant", "text", default="flood"),
        Field("spindle_clamp", "spindle clamp", "spindle_speed", "3000", bounds=CLAMP),
        Field("measured_width", "this insert's width, measured", example="as nominal", bounds=(0.3, 30.0)),
        Field("y_axis", "blade turned by the Y axis", "flag", default=False),
        Field("overhang", "overhang of blade or bar", example="20", bounds=OVERHANG),
        Field("centre_height", "tip over the axis", example="0", default=0.0, bounds=HEIGHT, unit="mm over the axis"),
    ),
    holding=WORKHOLDING,
    title=lambda feature: f"Groove {feature.get('standard') or feature.get('width', '')} in Ø{feature.get('diameter', '')}",
    shown=("standard", "width", "floor", "roughness"),
)


def build(base: Base, tool: Mapping[str, Any], given: dict[str, dict[str, Any]]) -> GrooveSetup:
    """The set-up from its fields, section by section. Raises `CuttingError`."""
    feature, settings = feature_of(given["feature"]), dict(given["settings"])
    way = GrooveWay(settings.pop("way", GrooveWay.ONE))
    out = feature.distance_from_chuck + feature.width.target + 10.0
    holding = workholding_of(given["holding"], out, feature.diameter)
    return GrooveSetup(**tool, feature=feature, settings=GrooveSettings(way=way, **settings), holding=holding, **vars(base))


def feature_of(values: dict[str, Any]) -> GrooveFeature:
    """The feature from its fields; a standard groove brings width and floor with their limits. Raises `CuttingError`."""
    given = dict(values)
    where = Where(given.pop("where", "outside"))
    if name := given.get("standard"):
        known = standard_groove(name, given["diameter"])
        sign = 1.0 if where is Where.INSIDE else -1.0
        floor = known.diameter if known.diameter is not None else given["diameter"] + sign * 2.0 * (known.depth or 0.0)
        deeper = 2.0 * known.depth_tolerance if known.diameter is None else 0.2  # mm of a floor whose Ø is told
        given["width"] = Dimension(known.width, known.tolerance, 0.0, f"{known.width:g} +{known.tolerance:g}/0")
        given.setdefault("floor", Dimension(floor, deeper if sign > 0 else 0.0, 0.0 if sign > 0 else -deeper, f"{floor:g}"))
        if known.radius is not None:
            given.setdefault("corner_radius", known.radius)
        if where.value != ("inside" if name.upper().endswith("472") else "outside") and "DIN 47" in name.upper():
            raise CuttingError("feature.where", f"{name} rings sit {'in bores' if name.endswith('472') else 'on shafts'}.")
    for wanted in ("floor", "width"):
        if wanted not in given:
            raise CuttingError(f"feature.{wanted}", "is missing; a standard groove would bring it.")
    return GrooveFeature(where=where, **given)
