"""`TapSetup`: all that a tapped thread needs to know, frozen and checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from typing import Any, Self

from cutting.errors import CuttingError
from cutting.operations.frame.checks import check_coolant
from cutting.operations.frame.fields import WORKHOLDING, Base, Field, Fields, check_bounds
from cutting.operations.frame.setup import BaseSetup, workholding_of
from cutting.operations.threads.shared.core_hole import usual_hole
from cutting.operations.threads.shared.feature import FEATURE, SHOWN, ThreadFeature, check_feature, feature_of, title
from cutting.tooling.drills import Chuck
from cutting.tooling.taps import Tap


class TapHolding(StrEnum):
    """How the tap is led along its thread."""

    SYNCHRONISED = "synchronised"
    FLOATING = "floating holder"
    REVERSING = "self-reversing head"


@dataclass(frozen=True)
class TapSettings:
    """What the user sets: m/min at the thread's diameter; `clutch` is the torque at which the holder slips [N·m], None for none."""

    cutting_speed: float
    coolant: str = "flood"
    held: TapHolding = TapHolding.SYNCHRONISED
    clutch: float | None = None


@dataclass(frozen=True, kw_only=True)
class TapSetup(BaseSetup):
    """Everything about one tapped thread, or several alike. `check` refuses what cannot be, naming the field."""

    ROLES = ("tap", "chuck")
    FEED = ""  # the lead is the feed

    tap: Tap
    chuck: Chuck
    feature: ThreadFeature
    settings: TapSettings
    operation: str = "tap"

    @property
    def feed(self) -> float:
        """The lead [mm]."""
        return self.feature.thread.lead

    def with_cut(self, cutting_speed: float, feed: float) -> Self:
        """Another speed; the feed is the lead."""
        return self.with_settings(cutting_speed=cutting_speed)

    @property
    def depth(self) -> float:
        """Full thread [mm]."""
        return self.feature.length

    @property
    def overhang(self) -> float:
        """How far the tap stands out [mm]."""
        return self.tap.reach + 2.0 * self.tap.diameter

    @property
    def hole(self) -> float:
        """The hole that is there, or that will be drilled for this tap [mm]."""
        return self.feature.there or usual_hole(self.feature.thread, self.tap.type.forms)

    def check(self) -> None:
        """Raise `CuttingError` for the first input that cannot be."""
        self.check_case()
        f, tap = self.feature, self.tap
        if not self.chuck.takes(tap):
            raise CuttingError("tool.chuck", f"{self.chuck.name} does not take {tap.name}, whose shank is Ø{tap.shank:g}.")
        if not same_thread(tap, f):
            raise CuttingError("tool.tap", f"{tap.name} does not cut {f.thread.size} × {f.thread.pitch:.4g} mm{_hand(f)}.")

    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""
        f, s, m = self.feature, self.settings, self.machine
        if not f.internal:
            raise CuttingError("feature.side", "a tap cuts inside threads; outside a die, a roller, a single point or a mill does.")
        if m.fixed:
            raise CuttingError("machine", f"{m.name} has one speed and one feed, and does not turn back: no tapping.")
        check_coolant(m, s.coolant)
        check_bounds(FEATURE, "feature", f)
        check_bounds(FIELDS.settings, "settings", s)
        check_feature(f, max((d for _, d in self.holding.steps), default=None))


def _hand(f: ThreadFeature) -> str:
    return ", left hand" if f.thread.left_hand else ""


def same_thread(tap: Tap, f: ThreadFeature) -> bool:
    """Whether a tap is made for a thread: form, size, lead and hand."""
    own, wanted = tap.thread, f.thread
    sizes = abs(own.diameter - wanted.diameter) < 1e-6 and abs(own.lead - wanted.lead) < 1e-6
    return own.system == wanted.system and sizes and own.left_hand == wanted.left_hand


FIELDS = Fields(
    feature=FEATURE,
    settings=(
        Field("cutting_speed", "speed", "cutting_speed", "15", also=("spindle_speed",), required=True, bounds=(0.5, 200.0)),
        Field("coolant", "coolant", "text", default="flood"),
        Field("held", "led by", "choice", options=tuple(one.value for one in TapHolding), default=TapHolding.SYNCHRONISED.value),
        Field("clutch", "clutch slips at", "torque", example="none", bounds=(0.05, 2000.0)),
    ),
    holding=WORKHOLDING,
    title=title("Tap"),
    shown=SHOWN,
    speed_diameter="thread",
)


def build(base: Base, tool: Mapping[str, Any], given: dict[str, dict[str, Any]]) -> TapSetup:
    """The set-up from its fields, section by section. Raises `CuttingError`."""
    feature, settings = feature_of(given["feature"]), dict(given["settings"])
    held = TapHolding(settings.pop("held", None) or TapHolding.SYNCHRONISED)
    holding = workholding_of(given["holding"], max(feature.length, 10.0), feature.thread.diameter * 2.0)
    return TapSetup(**tool, feature=feature, settings=TapSettings(held=held, **settings), holding=holding, **vars(base))
