"""`MillThreadSetup`: all that a milled thread needs to know, frozen and checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Any

from cutting.errors import CuttingError, OutOfRange
from cutting.operations.frame.checks import check_coolant
from cutting.operations.frame.fields import WORKHOLDING, Base, Field, Fields, check_bounds
from cutting.operations.frame.setup import BaseSetup, workholding_of
from cutting.operations.threads.shared.core_hole import usual_hole
from cutting.operations.threads.shared.feature import FEATURE, SHOWN, ThreadFeature, check_feature, feature_of, title
from cutting.operations.threads.shared.sense import Goes, PathSense, climbing_path, goes_for
from cutting.tooling.drills import Chuck
from cutting.tooling.thread_mills import ThreadMill

STILL_CIRCLES = 0.97  # of the thread's Ø: a mill as wide would be a tap


class ThreadMillSense(StrEnum):
    """Sense of the path: by climb, or said."""

    CLIMB = "by climb"
    COUNTER = PathSense.COUNTER.value
    CLOCKWISE = PathSense.CLOCKWISE.value


class Along(StrEnum):
    """Which way along the axis: by the hand of the thread, or said."""

    HAND = "by the thread's hand"
    UP = Goes.UP.value
    DOWN = Goes.DOWN.value


@dataclass(frozen=True)
class MillThreadSettings:
    """What the user sets: m/min, mm a tooth at the wall, radial passes and repeats at size, path set outward [mm, None for what
    takes flank error and push-off back], arc in and out [°]."""

    cutting_speed: float
    feed_per_tooth: float
    coolant: str = "flood"
    passes: int = 1
    repeats: int = 0
    offset: float | None = None
    arc: float = 180.0
    sense: ThreadMillSense = ThreadMillSense.CLIMB
    along: Along = Along.HAND


@dataclass(frozen=True, kw_only=True)
class MillThreadSetup(BaseSetup):
    """Everything about one milled thread, or several alike. `check` refuses what cannot be, naming the field."""

    ROLES = ("mill", "chuck")
    FEED = "feed_per_tooth"

    mill: ThreadMill
    chuck: Chuck
    feature: ThreadFeature
    settings: MillThreadSettings
    operation: str = "mill thread"

    @property
    def depth(self) -> float:
        """Full thread [mm]."""
        return self.feature.length

    @property
    def overhang(self) -> float:
        """How far the mill stands out of its chuck [mm]."""
        return self.mill.reach

    @property
    def hole(self) -> float:
        """The hole that is there, that will be drilled, or that the mill itself makes [mm]."""
        return self.feature.there or usual_hole(self.feature.thread, False)

    @property
    def speed_diameter(self) -> float:
        """The mill's own: it is the mill that turns [mm]."""
        return self.mill.diameter

    @property
    def pass_count(self) -> int:
        return self.settings.passes

    @property
    def path(self) -> PathSense:
        """Sense of the path, seen from the spindle."""
        said = self.settings.sense
        return climbing_path(self.mill.left_cutting) if said is ThreadMillSense.CLIMB else PathSense(said.value)

    @property
    def goes(self) -> Goes:
        """Which way the path goes along the axis."""
        said = self.settings.along
        return goes_for(self.path, self.feature.thread.left_hand) if said is Along.HAND else Goes(said.value)

    def check(self) -> None:
        """Raise `CuttingError` for the first input that cannot be."""
        self.check_case()
        f, mill = self.feature, self.mill
        if not self.chuck.takes(mill):
            raise CuttingError("tool.chuck", f"{self.chuck.name} does not take {mill.name}, whose shank is Ø{mill.shank:g}.")
        if not cuts(mill, f):
            raise CuttingError("tool.mill", f"{mill.name} does not cut {f.thread.pitch:.4g} mm with flanks of {f.thread.angle:g}°.")
        if mill.diameter >= STILL_CIRCLES * f.thread.diameter:
            raise CuttingError(
                "tool.mill", f"Ø{mill.diameter:g} does not run round inside Ø{f.thread.diameter:g}.", f"below {f.thread.diameter:g} mm"
            )
        if not mill.type.opens and mill.diameter >= self.hole:
            raise OutOfRange("tool.mill", f"Ø{mill.diameter:g} does not enter a hole of Ø{self.hole:.4g}.", f"below {self.hole:.4g} mm")

    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""
        f, s, m = self.feature, self.settings, self.machine
        if m.turns:
            raise CuttingError("machine", f"{m.name} turns the part here: milling wants its driven tools, or another machine.")
        if m.fixed:
            raise CuttingError("machine", f"{m.name} has one speed and one feed: it does not mill.")
        if not f.internal:
            raise CuttingError("feature.side", "outside threads are turned here; a mill outside is not computed yet.")
        if f.thread.of.taper:
            raise CuttingError("feature.thread", "a taper thread is milled with a cutter of its own taper: not computed yet.")
        if f.thread.flanks and f.thread.flanks[0] != f.thread.flanks[1]:
            raise CuttingError("feature.thread", "flanks of two angles are turned, not milled.")
        check_coolant(m, s.coolant)
        check_bounds(FEATURE, "feature", f)
        check_bounds(FIELDS.settings, "settings", s)
        check_feature(f, max((d for _, d in self.holding.steps), default=None))


def cuts(mill: ThreadMill, f: ThreadFeature) -> bool:
    """Whether a mill has the form and the pitch of a thread, and is made for it where it is made for one alone."""
    t = f.thread
    form = abs(mill.angle - t.angle) < 0.1 and mill.pitch_low - 1e-3 <= t.pitch <= mill.pitch_high + 1e-3
    own = mill.thread is None or (abs(mill.thread.diameter - t.diameter) < 1e-6 and mill.thread.system == t.system)
    return form and own and (t.starts == 1 or mill.type.rows != "many")


FIELDS = Fields(
    feature=FEATURE,
    settings=(
        Field("cutting_speed", "speed", "cutting_speed", "100", also=("spindle_speed",), required=True, bounds=(0.5, 1500.0)),
        Field("feed_per_tooth", "feed at the wall", "feed_per_tooth", "0.05", required=True, bounds=(0.001, 0.6)),
        Field("coolant", "coolant", "text", default="flood"),
        Field("passes", "radial passes", "whole", "1", default=1, bounds=(1, 9)),
        Field("repeats", "repeats at size", "whole", "0", default=0, bounds=(0, 4)),
        Field("offset", "path set outward", example="as reckoned", bounds=(-0.5, 0.5)),
        Field("arc", "arc in and out", "angle", "180", default=180.0, bounds=(30.0, 360.0)),
        Field(
            "sense", "sense of the path", "choice", options=tuple(one.value for one in ThreadMillSense), default=ThreadMillSense.CLIMB.value
        ),
        Field("along", "along the axis", "choice", options=tuple(one.value for one in Along), default=Along.HAND.value),
    ),
    holding=WORKHOLDING,
    title=title("Mill"),
    shown=SHOWN,
    speed_diameter="thread",
    speed_role="mill",
)


def build(base: Base, tool: Mapping[str, Any], given: dict[str, dict[str, Any]]) -> MillThreadSetup:
    """The set-up from its fields, section by section. Raises `CuttingError`."""
    feature, settings = feature_of(given["feature"]), dict(given["settings"])
    sense, along = ThreadMillSense(settings.pop("sense", None) or ThreadMillSense.CLIMB), Along(settings.pop("along", None) or Along.HAND)
    holding = workholding_of(given["holding"], max(feature.length, 10.0), feature.thread.diameter * 2.0)
    chosen = MillThreadSettings(sense=sense, along=along, **settings)
    return MillThreadSetup(**tool, feature=feature, settings=chosen, holding=holding, **vars(base))
