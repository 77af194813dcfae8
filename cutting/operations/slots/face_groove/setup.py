"""`FaceGrooveSetup`: all that a groove in a face needs to know, frozen and checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from cutting.errors import CuttingError, OutOfRange, require_between
from cutting.operations.frame.checks import check_coolant, check_turns
from cutting.operations.frame.fields import WORKHOLDING, Base, Field, Fields, check_bounds
from cutting.operations.frame.setup import workholding_of
from cutting.operations.slots.shared.checks import CLAMP, DWELL, FEED, OVERHANG, SPEED, check_tool
from cutting.operations.slots.shared.setup import SlotSetup, usual_corner
from cutting.quantities.dimension import Dimension
from cutting.tooling.blades import FaceBlade

WIDER = 0.02  # mm over the insert's width, from which a groove is widened and not plunged
BLANK_OUT = 50.0  # mm that a blank stands out of its jaws where nothing is said


class FaceGrooveWay(StrEnum):
    """How the groove is widened after its first plunge."""

    INWARDS = "from the outside in"
    TURNED = "turned across"
    ROUND = "round path"


class SpindleSense(StrEnum):
    """Which way the spindle turns; it goes with the blade's hand."""

    FORWARD = "forward"
    REVERSE = "reverse"


@dataclass(frozen=True)
class FaceGrooveFeature:
    """What the drawing says: a groove between `outer_diameter` and `width` inwards, `depth` into the face; mm.

    `hub_diameter` is a hub inside the groove that stands `hub_height` in front of its face (0: none), `jaw_diameter` the bore
    between jaws that stand `jaw_height` in front of the face (0: behind it).
    """

    outer_diameter: Dimension
    width: Dimension
    depth: float
    hub_diameter: float = 0.0
    hub_height: float = 0.0
    jaw_diameter: float = 0.0
    jaw_height: float = 0.0
    corner_radius: float | None = None
    roughness: float | None = None

    @property
    def inner_diameter(self) -> float:
        return self.outer_diameter.target - 2.0 * self.width.target

    @property
    def corner(self) -> float:
        """The corner radius that may stay [mm]: the drawing's, or a usual one where it says none."""
        return usual_corner(self.width.nominal) if self.corner_radius is None else self.corner_radius

    @property
    def start_diameter(self) -> float:
        return self.outer_diameter.target


@dataclass(frozen=True)
class FaceGrooveSettings:
    """What the user sets: m/min, mm/rev, mm; `dwell` in revolutions."""

    cutting_speed: float
    feed_per_rev: float
    way: FaceGrooveWay = FaceGrooveWay.INWARDS
    spindle: SpindleSense = SpindleSense.FORWARD
    finish: bool = True
    dwell: float = 1.0
    coolant: str = "flood"
    spindle_clamp: float | None = None
    overhang: float | None = None


@dataclass(frozen=True, kw_only=True)
class FaceGrooveSetup(SlotSetup):
    """Everything about one groove in a face. `check` refuses what cannot be, naming the field."""

    blade: FaceBlade
    feature: FaceGrooveFeature
    settings: FaceGrooveSettings
    operation: str = "face groove"

    @property
    def depth(self) -> float:
        return self.feature.depth

    @property
    def widened(self) -> bool:
        """Whether the groove is wider than its insert."""
        return self.feature.width.target > self.insert.width + WIDER

    @property
    def corners_left(self) -> bool:
        """Whether a full radius leaves corners that a second tool must clear."""
        return self.insert.round_edge and self.insert.corner_radius > self.feature.corner + 1e-9

    @property
    def hand_fits(self) -> bool:
        """A right-hand blade curves with a groove that turns forward, a left-hand one with a reversed spindle."""
        return self.blade.hand == "N" or (self.blade.hand == "R") == (self.settings.spindle is SpindleSense.FORWARD)

    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""
        f, s, m = self.feature, self.settings, self.machine
        check_turns(m)
        check_coolant(m, s.coolant)
        require_between("feature.outer_diameter", f.outer_diameter.target, 5.0, m.swing, "mm (swing of the machine)")
        require_between("feature.width", f.width.target, 0.5, f.outer_diameter.target / 2.0, "mm, up to the centre")
        check_bounds(FIELDS.feature, "feature", f)
        if f.hub_diameter > f.inner_diameter + 1e-9:
            raise OutOfRange("feature.hub_diameter", f"Ø{f.hub_diameter:g} reaches into the groove.", f"at most {f.inner_diameter:g} mm")
        if 0 < f.jaw_diameter < f.outer_diameter.target:
            raise OutOfRange("feature.jaw_diameter", "the jaws stand in the groove.", f"at least {f.outer_diameter.target:g} mm")
        check_bounds(FIELDS.settings, "settings", s)

    def check_tool(self) -> None:
        """Raise `CuttingError` where the set-up's own tool cannot be used like this."""
        f = self.feature
        check_tool(self.blade, self.insert, FaceBlade)
        rolls = self.settings.way is FaceGrooveWay.ROUND
        if self.insert.round_edge and not rolls:
            raise CuttingError(
                "settings.way", f"{self.insert.name} has a full radius: it cuts a round path only.", FaceGrooveWay.ROUND.value
            )
        if rolls and not self.insert.round_edge:
            raise CuttingError("settings.way", f"a round path wants an insert with a full radius; {self.insert.name} has a straight edge.")
        widest = f.width.nominal + (f.width.upper_deviation if f.width.upper_deviation is not None else 0.1)
        if self.insert.width > widest + 1e-9:
            raise OutOfRange("tool.insert", f"{self.insert.width:g} mm is wider than the groove.", f"at most {widest:g} mm")


FIELDS = Fields(
    feature=(
        Field("outer_diameter", "outer Ø, with tolerance", "dimension", "80 H11", required=True),
        Field("width", "width, with tolerance", "dimension", "6 +0.1/0", required=True),
        Field("depth", "depth into the face", example="8", required=True, bounds=(0.1, 200.0)),
        Field("hub_diameter", "hub inside, Ø", example="0", default=0.0, bounds=(0.0, 3000.0)),
        Field("hub_height", "hub stands out by", example="0", default=0.0, bounds=(0.0, 3000.0)),
        Field("jaw_diameter", "jaws around it, Ø between", example="0", default=0.0, drawn=False, bounds=(0.0, 3000.0)),
        Field("jaw_height", "jaws stand out by", example="0", default=0.0, drawn=False, bounds=(0.0, 3000.0)),
        Field("corner_radius", "largest corner radius", example="0.4"),
        Field("roughness", "finish, Ra µm, Rz or N6", "roughness", "3.2"),
    ),
    settings=(
        Field("cutting_speed", "speed", "cutting_speed", "110", also=("spindle_speed",), required=True, bounds=SPEED),
        Field("feed_per_rev", "plunge feed", "feed_per_rev", "0.08", also=("feed_rate",), required=True, bounds=FEED),
        Field("way", "way", "choice", options=tuple(way.value for way in FaceGrooveWay), default=FaceGrooveWay.INWARDS),
        Field("spindle", "spindle", "choice", options=tuple(one.value for one in SpindleSense), default=SpindleSense.FORWARD),
        Field("finish", "finish walls and floor", "flag", default=True),
        Field("dwell", "dwell at the floor, turns", "number", "1", default=1.0, bounds=DWELL, unit="revolutions"),
        Field("coolant", "coolant", "text", default="flood"),
        Field("spindle_clamp", "spindle clamp", "spindle_speed", "3000", bounds=CLAMP),
        Field("overhang", "blade overhang", example="18", bounds=OVERHANG),
    ),
    holding=WORKHOLDING,
    title=lambda feature: f"Face groove Ø{feature.get('outer_diameter', '')}",
    shown=("outer_diameter", "width", "depth", "roughness"),
    speed_diameter="outer_diameter",
)


def feature_of(values: dict[str, Any]) -> FaceGrooveFeature:
    """The feature from its fields."""
    return FaceGrooveFeature(**values)


def build(base: Base, tool: Mapping[str, Any], given: dict[str, dict[str, Any]]) -> FaceGrooveSetup:
    """The set-up from its fields, section by section. Raises `CuttingError`."""
    feature, settings = feature_of(given["feature"]), dict(given["settings"])
    way, spindle = FaceGrooveWay(settings.pop("way", FaceGrooveWay.INWARDS)), SpindleSense(settings.pop("spindle", SpindleSense.FORWARD))
    holding = workholding_of(given["holding"], BLANK_OUT, feature.outer_diameter.target)
    chosen = FaceGrooveSettings(way=way, spindle=spindle, **settings)
    return FaceGrooveSetup(**tool, feature=feature, settings=chosen, holding=holding, **vars(base))
