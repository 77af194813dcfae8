"""`MillHoleSetup`: all that a milled hole needs to know, frozen and checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import Any

from cutting.errors import CuttingError, OutOfRange, require_between
from cutting.operations.frame.checks import check_coolant
from cutting.operations.frame.fields import WORKHOLDING, Base, Field, Fields, check_bounds
from cutting.operations.frame.setup import BaseSetup, workholding_of
from cutting.operations.holes.drill.setup import DIAMETER, HoleFeature
from cutting.operations.holes.drill.setup import FIELDS as HOLE
from cutting.tooling.drills import Chuck
from cutting.tooling.mills import EndMill
from cutting.workpiece.pattern import check_pattern

SAME_SIZE = 0.02  # mm by which a mill that plunges may differ from its hole where no tolerance is given


class Descent(StrEnum):
    """How the mill goes down."""

    HELIX = "helix"
    PLUNGE = "plunge"


class Sense(StrEnum):
    """Which way it runs round the wall."""

    CLIMB = "climb"
    AGAINST = "against the feed"


LEAST_LEFT = 0.001  # mm on the radius: below it a mill rubs (common practice)


@dataclass(frozen=True)
class MillHoleSettings:
    """What the user sets: m/min, mm a tooth at the wall, pitch of the helix in mm a turn where it is not left to the tool.

    `finish` [mm on the radius] is left to a last turn over the whole depth, `offset` [mm] moves the path outward against the push-off.
    """

    cutting_speed: float
    feed_per_tooth: float
    coolant: str = "flood"
    path: Descent = Descent.HELIX
    pitch: float | None = None
    finish: float = 0.0
    offset: float = 0.0
    sense: Sense = Sense.CLIMB
    pitch_times: float = 1.0  # of the usual pitch, where it is left to the tool


@dataclass(frozen=True, kw_only=True)
class MillHoleSetup(BaseSetup):
    """Everything about one milled hole, or several alike. `check` refuses what cannot be, naming the field."""

    ROLES = ("mill", "chuck")
    FEED = "feed_per_tooth"

    mill: EndMill
    chuck: Chuck
    feature: HoleFeature
    settings: MillHoleSettings
    operation: str = "mill hole"

    @property
    def depth(self) -> float:
        """From the entry to the floor, or through the part [mm]."""
        return self.feature.depth

    @property
    def speed_diameter(self) -> float:
        """The mill's own: it is the mill that turns [mm]."""
        return self.mill.diameter

    @property
    def overhang(self) -> float:
        """How far the mill stands out of its chuck [mm]."""
        return self.mill.reach

    def check(self) -> None:
        """Raise `CuttingError` for the first input that cannot be."""
        self.check_case()
        if not self.chuck.takes(self.mill):
            raise CuttingError("tool.chuck", f"{self.chuck.name} does not take {self.mill.name}, whose shank is Ø{self.mill.shank:g}.")
        size, d = self.feature.diameter.nominal, self.mill.diameter
        if self.settings.path is Descent.HELIX and d >= size:
            raise CuttingError("tool.mill", f"Ø{d:g} does not run round in a hole of Ø{size:g}.", f"below {size:g} mm")
        if 0.0 < self.settings.finish < LEAST_LEFT:
            raise OutOfRange(
                "settings.finish",
                f"{self.settings.finish:g} mm is less than a mill cuts; leave {LEAST_LEFT:g} mm or nothing.",
                f"0 or {LEAST_LEFT:g} mm and more",
            )
        if self.settings.path is Descent.HELIX and 2.0 * self.settings.finish >= size - d:
            raise OutOfRange("settings.finish", f"{self.settings.finish:g} mm leaves no helix inside Ø{size:g} for Ø{d:g}.",
                             f"below {(size - d) / 2.0:g} mm")  # fmt: skip

    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""
        f, s, m = self.feature, self.settings, self.machine
        if m.turns:
            raise CuttingError("machine", f"{m.name} turns the part here: milling wants its driven tools, or another machine.")
        if m.fixed:
            raise CuttingError("machine", f"{m.name} has one speed and one feed: it does not mill.")
        if f.stack:
            raise CuttingError("feature.stack", "a stack is drilled; milled holes are of one metal.")
        check_coolant(m, s.coolant)
        check_bounds(FIELDS.feature, "feature", f)
        require_between("feature.diameter", f.diameter.nominal, *DIAMETER, "mm")
        check_bounds(FIELDS.settings, "settings", s)
        if f.pilot >= f.diameter.nominal:
            raise OutOfRange("feature.pilot", f"Ø{f.pilot:g} is not below the hole's Ø{f.diameter.nominal:g}.",
                             f"below {f.diameter.nominal:g} mm")  # fmt: skip
        largest = max((d for _, d in self.holding.steps), default=None)
        check_pattern(f.circle, f.count, f.diameter.nominal, largest)
        if largest is not None and f.circle is None and f.diameter.nominal >= largest:
            raise OutOfRange("feature.diameter", f"Ø{f.diameter.nominal:g} is not inside the part's Ø{largest:g}.", f"below {largest:g} mm")


ASKED = ("diameter", "depth", "through", "flat", "pilot", "entry_angle", "chamfer", "roughness", "position", "circle", "count")
FIELDS = Fields(
    feature=tuple(
        replace(one, required=True) if one.name == "depth" else one for one in HOLE.feature if one.name in ASKED
    ),
    settings=(
        Field("cutting_speed", "speed", "cutting_speed", "120", also=("spindle_speed",), required=True, bounds=(0.5, 2000.0)),
        Field("feed_per_tooth", "feed at the wall", "feed_per_tooth", "0.06", required=True, bounds=(0.001, 1.0)),
        Field("coolant", "coolant", "text", default="flood"),
        Field("path", "way down", "choice", options=tuple(one.value for one in Descent), default=Descent.HELIX.value),
        Field("pitch", "pitch of the helix", example="as the tool goes", bounds=(0.01, 100.0)),
        Field("finish", "left to a last turn, on the radius", example="0", default=0.0, bounds=(0.0, 5.0)),
        Field("offset", "path set outward", example="0", default=0.0, bounds=(-0.5, 0.5)),
        Field("sense", "sense", "choice", options=tuple(one.value for one in Sense), default=Sense.CLIMB.value),
    ),
    holding=WORKHOLDING,
    title=lambda feature: f"Mill Ø{str(feature.get('diameter', '')).removeprefix('Ø')}",
    shown=("diameter", "depth", "circle"),
    speed_role="mill",
)  # fmt: skip


def feature_of(values: dict[str, Any]) -> HoleFeature:
    """The feature from its fields."""
    return HoleFeature(**values)


def build(base: Base, tool: Mapping[str, Any], given: dict[str, dict[str, Any]]) -> MillHoleSetup:
    """The set-up from its fields, section by section. Raises `CuttingError`."""
    feature, settings = feature_of(given["feature"]), dict(given["settings"])
    path, sense = Descent(settings.pop("path", Descent.HELIX)), Sense(settings.pop("sense", Sense.CLIMB))
    holding = workholding_of(given["holding"], max(feature.depth, 10.0), feature.diameter.nominal * 2.0)
    return MillHoleSetup(
        **tool, feature=feature, settings=MillHoleSettings(path=path, sense=sense, **settings), holding=holding, **vars(base)
    )
