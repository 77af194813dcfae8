"""`TurnThreadSetup`: all that a thread turned with a single point needs to know, frozen and checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Any, Self

from cutting.errors import CuttingError, OutOfRange
from cutting.operations.frame.checks import check_coolant, check_turns
from cutting.operations.frame.fields import WORKHOLDING, Base, Field, Fields, check_bounds
from cutting.operations.frame.setup import BaseSetup, workholding_of
from cutting.operations.threads.shared.feature import FEATURE, SHOWN, ThreadFeature, check_feature, either_side_of, title
from cutting.operations.threads.shared.sense import Feeds, Turns, feed_for, lean_for, turns_for
from cutting.tooling.thread_inserts import SHIMS, ThreadHolder, ThreadInsert
from cutting.workpiece.threads.tap_drills import tap_drill

MOST_PASSES = 40


class Infeed(StrEnum):
    """How the edge goes deeper."""

    RADIAL = "radial"
    FLANK = "modified flank"
    ALTERNATING = "alternating flanks"


class Schedule(StrEnum):
    """How the depth is shared out."""

    AREA = "equal area, first tamed"
    DEPTH = "equal depth"


class Turning(StrEnum):
    """Sense of the spindle: as the tool wants it, or said."""

    TOOL = "as the tool cuts"
    FORWARD = Turns.FORWARD.value
    REVERSE = Turns.REVERSE.value


class Feeding(StrEnum):
    """Direction of the feed: by the hand of the thread, or said."""

    HAND = "by the thread's hand"
    TOWARDS = Feeds.TOWARDS.value
    AWAY = Feeds.AWAY.value


@dataclass(frozen=True)
class TurnThreadSettings:
    """What the user sets: m/min at the thread's diameter, passes (None: as many as usual), how they go deeper and share the depth.

    `infeeds` are steps one by one [mm on the radius], which replace passes and schedule; `spring` passes at full depth; `off_flank`
    [°] less than the flank for modified infeed; `tilt` of the seat [°], None for the nearest shim.
    """

    cutting_speed: float
    passes: int | None = None
    infeed: Infeed = Infeed.FLANK
    schedule: Schedule = Schedule.AREA
    infeeds: tuple[float, ...] = ()
    spring: int = 1
    off_flank: float = 2.0
    tilt: float | None = None
    turning: Turning = Turning.TOOL
    feeding: Feeding = Feeding.HAND
    coolant: str = "flood"
    overhang: float | None = None
    passes_times: float = 1.0  # of the usual number, where it is left to the thread


@dataclass(frozen=True, kw_only=True)
class TurnThreadSetup(BaseSetup):
    """Everything about one turned thread. `check` refuses what cannot be, naming the field."""

    ROLES = ("insert", "holder")
    FEED = ""  # the lead is the feed

    insert: ThreadInsert
    holder: ThreadHolder
    feature: ThreadFeature
    settings: TurnThreadSettings
    operation: str = "turn thread"

    @property
    def feed(self) -> float:
        """The lead [mm]."""
        return self.feature.thread.lead

    def with_cut(self, cutting_speed: float, feed: float) -> Self:
        """Another speed; the feed is the lead."""
        return self.with_settings(cutting_speed=cutting_speed)

    @property
    def depth(self) -> float:
        """Length of full thread [mm]."""
        return self.feature.length

    @property
    def overhang(self) -> float:
        """How far the tool stands out [mm]: as set, or as its thread wants it inside."""
        usual = max(self.holder.overhang, self.feature.length + 10.0) if self.holder.internal else self.holder.overhang
        return float(self.settings.overhang or usual)

    @property
    def there(self) -> float:
        """The diameter that the thread finds [mm]; inside, where nothing is bored yet, what is bored for it."""
        return self.feature.there or tap_drill(self.feature.thread).diameter

    @property
    def turns(self) -> Turns:
        said = self.settings.turning
        return turns_for(self.holder.hand) if said is Turning.TOOL else Turns(said.value)

    @property
    def feeds(self) -> Feeds:
        said = self.settings.feeding
        return feed_for(self.feature.thread.left_hand, self.turns) if said is Feeding.HAND else Feeds(said.value)

    @property
    def lean(self) -> float:
        """Tilt that the seat should have [°]."""
        return lean_for(self.feature.thread.lead_angle, self.feature.thread.left_hand, self.holder.hand)

    @property
    def tilt(self) -> float:
        """Tilt of the seat [°]: as set, by the nearest shim, or the holder's own."""
        if self.settings.tilt is not None:
            return self.settings.tilt
        return min(SHIMS, key=lambda one: abs(one - self.lean)) if self.holder.shims else self.holder.tilt

    def check(self) -> None:
        """Raise `CuttingError` for the first input that cannot be."""
        self.check_case()
        f, insert, holder = self.feature, self.insert, self.holder
        if not holder.takes(insert):
            raise CuttingError("tool.holder", f"{holder.name} takes {holder.seat}, {insert.name} needs {insert.seat}.")
        if holder.internal != f.internal:
            turned, asked = ("inside", "outside") if holder.internal else ("outside", "inside")
            raise CuttingError("tool.holder", f"{holder.name} turns threads {turned}, this one is {asked}.")
        if not insert.cuts(f.thread):
            said = f"{insert.profile} of {insert.pitch_low:.4g} to {insert.pitch_high:.4g} mm"
            raise CuttingError("tool.insert", f"{insert.name} cuts {said}, not {f.thread.of.title} of {f.thread.pitch:.4g} mm.")

    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""
        f, s, m = self.feature, self.settings, self.machine
        check_turns(m)
        if m.fixed:
            raise CuttingError("machine", f"{m.name} has one speed and one feed: it turns no thread.")
        if f.circle is not None:
            raise CuttingError("feature.circle", "a thread beside the axis is tapped or milled, not turned.")
        check_coolant(m, s.coolant)
        check_bounds(FEATURE, "feature", f)
        check_bounds(FIELDS.settings, "settings", s)
        if s.passes is not None and not 2 <= s.passes <= MOST_PASSES:
            raise OutOfRange("settings.passes", f"{s.passes} is outside 2 to {MOST_PASSES}.", f"2 to {MOST_PASSES}")
        if len(s.infeeds) > MOST_PASSES or any(one <= 0 for one in s.infeeds):
            raise CuttingError("settings.infeeds", f"up to {MOST_PASSES} steps above zero are wanted.", f"1 to {MOST_PASSES}")
        largest = max((d for _, d in self.holding.steps), default=None) if f.internal else None
        check_feature(f, largest)


FIELDS = Fields(
    feature=FEATURE,
    settings=(
        Field("cutting_speed", "speed", "cutting_speed", "120", also=("spindle_speed",), required=True, bounds=(0.5, 600.0)),
        Field("passes", "passes", "whole", "as usual"),
        Field("infeed", "infeed", "choice", options=tuple(one.value for one in Infeed), default=Infeed.FLANK.value),
        Field("schedule", "depth shared", "choice", options=tuple(one.value for one in Schedule), default=Schedule.AREA.value),
        Field("infeeds", "infeed step by step", "lengths", "0.3; 0.2; 0.15; 0.1"),
        Field("spring", "spring passes", "whole", "1", default=1, bounds=(0, 4)),
        Field("off_flank", "less than the flank", "angle", "2", default=2.0, bounds=(0.0, 10.0)),
        Field("tilt", "shim inclination", "angle", "nearest shim", bounds=(-10.0, 10.0)),
        Field("turning", "spindle", "choice", options=tuple(one.value for one in Turning), default=Turning.TOOL.value),
        Field("feeding", "feed", "choice", options=tuple(one.value for one in Feeding), default=Feeding.HAND.value),
        Field("coolant", "coolant", "text", default="flood"),
        Field("overhang", "overhang", example="30", bounds=(2.0, 600.0)),
    ),
    holding=WORKHOLDING,
    title=title("Turn"),
    shown=SHOWN,
    speed_diameter="thread",
)  # fmt: skip


def build(base: Base, tool: Mapping[str, Any], given: dict[str, dict[str, Any]]) -> TurnThreadSetup:
    """The set-up from its fields, section by section. Raises `CuttingError`."""
    feature, settings = either_side_of(given["feature"]), dict(given["settings"])
    words = {"infeed": Infeed, "schedule": Schedule, "turning": Turning, "feeding": Feeding}
    usual = {"infeed": Infeed.FLANK, "schedule": Schedule.AREA, "turning": Turning.TOOL, "feeding": Feeding.HAND}
    chosen = {name: of(settings.pop(name, None) or usual[name]) for name, of in words.items()}
    settings["infeeds"] = tuple(settings.get("infeeds") or ())
    if settings.get("passes") == 0:
        settings["passes"] = None
    # a flange a little wider, where nothing is said
    holding = workholding_of(given["holding"], max(feature.distance + feature.length, 10.0), feature.thread.diameter * 1.2)
    values: dict[str, Any] = {**chosen, **settings}
    return TurnThreadSetup(**tool, feature=feature, settings=TurnThreadSettings(**values), holding=holding, **vars(base))
