"""`DrillSetup`: all that a drilled hole needs to know, frozen and checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from functools import cached_property
from typing import Any

from cutting.errors import CuttingError, OutOfRange, require_between
from cutting.operations.frame.checks import check_coolant
from cutting.operations.frame.fields import PATTERN, WORKHOLDING, Base, Field, Fields, check_bounds
from cutting.operations.frame.setup import BaseSetup, workholding_of
from cutting.quantities.dimension import Dimension
from cutting.tooling.drills import Chuck, Drill
from cutting.workpiece.pattern import check_pattern
from cutting.workpiece.stack import StackLayer


class Pecks(StrEnum):
    """How the drill comes back on its way."""

    NONE = "none"
    BREAK = "to break chips"
    CLEAR = "to clear chips"


class HoleEntry(StrEnum):
    """What the drill meets first."""

    FLAT = "flat"
    SPOTTED = "spotted"
    CURVED = "curved"


@dataclass(frozen=True)
class HoleFeature:
    """A hole: `diameter` with its tolerance, `depth` to its shoulder where it is blind, the part's thickness where it goes through; mm.

    `pilot` is a hole that is there already, `entry_angle` and `exit_angle` [°] lean against the axis, `cross_hole` is the diameter of
    a hole that it meets, `span` the free part around it that can bend, `flat` a blind hole's floor without a cone. `stack` are layers
    from the entry on.
    """

    diameter: Dimension
    depth: float
    through: bool = True
    flat: bool = False
    pilot: float = 0.0
    entry: HoleEntry = HoleEntry.FLAT
    entry_angle: float = 0.0
    exit_angle: float = 0.0
    cross_hole: float = 0.0
    span: float = 0.0
    chamfer: float = 0.0  # its diameter at the mouth
    roughness: float | None = None  # µm
    position: float | None = None  # mm, tolerance zone's diameter
    straightness: float | None = None  # mm over the depth
    burr: float | None = None  # mm, highest that is allowed at the exit
    backed: bool = False  # a plate held behind its exit
    asked_holes: int | None = None  # that one drill has to make
    circle: float | None = None
    count: int = 1
    stack: tuple[StackLayer, ...] = ()

    @property
    def breaks_out(self) -> bool:
        """Whether the point leaves the metal at the end, or meets another hole there."""
        return self.through or self.cross_hole > 0.0

    @property
    def start_diameter(self) -> float:
        return self.diameter.nominal


@dataclass(frozen=True)
class DrillSettings:
    """What the user sets: m/min at the corner, mm a turn; pecks in mm, shares of the feed at entry and exit.

    `per_layer` are speed and feed of each layer, where the machine changes them on the way.
    """

    cutting_speed: float
    feed_per_rev: float
    coolant: str = "flood"
    pecks: Pecks = Pecks.NONE
    first_peck: float | None = None
    next_peck: float | None = None
    least_peck: float | None = None
    entry_feed: float = 1.0
    exit_feed: float = 1.0
    offset: float = 0.0  # mm that a standing drill is off the axis of a turning part
    per_layer: tuple[tuple[float, float], ...] = ()


@dataclass(frozen=True, kw_only=True)
class DrillSetup(BaseSetup):
    """Everything about one drilled hole, or several alike. `check` refuses what cannot be, naming the field."""

    ROLES = ("drill", "chuck")
    TAKES = ("chisel_share", "growth")

    drill: Drill
    chuck: Chuck
    feature: HoleFeature
    settings: DrillSettings
    operation: str = "drill"

    @cached_property
    def layers(self) -> tuple[StackLayer, ...]:
        """The layers that it goes through; one of the part's own metal where no stack is given."""
        if self.feature.stack:
            return self.feature.stack
        return (
            StackLayer(self.work.material.name, self.feature.depth, backed=not self.feature.through or self.feature.backed, work=self.work),
        )

    @property
    def may_split(self) -> bool:
        """Whether it leaves a laminate with nothing behind it that a plate could hold."""
        f = self.feature
        return f.through and not f.backed and not f.stack and self.layers[0].laminate is not None

    @property
    def metals(self) -> tuple[str, ...]:
        """The names of what is cut, layer by layer."""
        return tuple(one.material.name for one in self.layers)

    @property
    def depth(self) -> float:
        """From the entry to the hole's shoulder, or through all layers with their gaps [mm]."""
        return self.feature.depth

    @property
    def overhang(self) -> float:
        """How far the drill stands out of its chuck [mm]: as far as its flutes go."""
        return self.drill.flute_length

    @property
    def turns_part(self) -> bool:
        """Whether the part turns and the drill stands."""
        return self.machine.turns

    @property
    def from_tailstock(self) -> bool:
        """Whether the drill stands in the tailstock of a geared lathe, which a hand can feed."""
        return self.turns_part and self.machine.geared and not self.machine.fixed

    def check(self) -> None:
        """Raise `CuttingError` for the first input that cannot be."""
        self.check_case()
        self.check_tool()

    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""
        f, s, m = self.feature, self.settings, self.machine
        check_coolant(m, s.coolant)
        check_bounds(FIELDS.feature, "feature", f)
        require_between("feature.diameter", f.diameter.nominal, *DIAMETER, "mm")
        check_bounds(FIELDS.settings, "settings", s)
        if f.pilot >= f.diameter.nominal:
            raise OutOfRange(
                "feature.pilot", f"Ø{f.pilot:g} is not below the hole's Ø{f.diameter.nominal:g}.", f"below {f.diameter.nominal:g} mm"
            )
        if m.turns and f.circle is not None:
            raise CuttingError("feature.circle", f"{m.name} turns the part: holes beside the axis want driven tools or another machine.")
        check_pattern(f.circle, f.count, f.diameter.nominal, max((d for _, d in self.holding.steps), default=None))
        largest = max((d for _, d in self.holding.steps), default=None)
        if largest is not None and f.circle is None and f.diameter.nominal >= largest:
            raise OutOfRange("feature.diameter", f"Ø{f.diameter.nominal:g} is not inside the part's Ø{largest:g}.", f"below {largest:g} mm")
        if s.per_layer and len(s.per_layer) != len(self.layers):
            raise CuttingError(
                "settings.per_layer",
                f"{len(s.per_layer)} pairs of speed and feed for {len(self.layers)} layers.",
                f"{len(self.layers)} pairs",
            )
        if s.pecks is not Pecks.NONE and m.fixed:
            raise CuttingError("settings.pecks", f"{m.name} has one feed to the end: it does not come back on its way.", Pecks.NONE.value)
        if s.per_layer and m.fixed:
            raise CuttingError("settings.per_layer", f"{m.name} has one speed and one feed.")

    def check_tool(self) -> None:
        """Raise `CuttingError` where the set-up's own tool cannot be used like this."""
        if not self.chuck.takes(self.drill):
            said = self.drill.taper or f"Ø{self.drill.shank:g}"
            raise CuttingError("tool.chuck", f"{self.chuck.name} does not take {self.drill.name}, whose shank is {said}.")


DIAMETER = (0.2, 200.0)
SPEED, FEED, PECK = (0.5, 1500.0), (0.001, 3.0), (0.02, 500.0)
SHARE = (0.1, 1.0)
FIELDS = Fields(
    feature=(
        Field("diameter", "Ø", "dimension", "8.5 H9", required=True),
        Field("depth", "depth to the shoulder, or thickness", example="30", bounds=(0.05, 3000.0)),
        Field("through", "goes through", "flag", default=True),
        Field("flat", "flat floor", "flag", default=False),
        Field("stack", "layers from the entry", "stack", "GFRP 4 / 1.4301 1.5 x2 / EN AW-2024 6"),
        Field("pilot", "existing hole Ø", example="0", default=0.0, drawn=False, bounds=(0.0, 190.0)),
        Field("entry", "entry", "choice", options=tuple(one.value for one in HoleEntry), default=HoleEntry.FLAT.value, drawn=False),
        Field("entry_angle", "face at the entry leans", "angle", "0", default=0.0, bounds=(0.0, 60.0)),
        Field("exit_angle", "face at the exit leans", "angle", "0", default=0.0, bounds=(0.0, 60.0)),
        Field("cross_hole", "crosses a hole Ø", example="0", default=0.0, bounds=(0.0, 200.0)),
        Field("span", "free span under it", example="0", default=0.0, bounds=(0.0, 3000.0)),
        Field("chamfer", "chamfer at the mouth, Ø", example="0", default=0.0, bounds=(0.0, 250.0)),
        Field("roughness", "finish Ra", "roughness", "3.2", bounds=(0.05, 50.0)),
        Field("position", "position Ø", example="0.2", bounds=(0.001, 10.0)),
        Field("straightness", "straightness", example="0.1", bounds=(0.001, 10.0)),
        Field("burr", "burr at the exit, at most", example="0.1", bounds=(0.005, 5.0)),
        Field("backed", "backing plate at the exit", "flag", default=False, drawn=False),
        Field("asked_holes", "holes that one drill has to make", "whole", "112", drawn=False, bounds=(1, 10_000_000), unit="holes"),
        *PATTERN,
    ),
    settings=(
        Field("cutting_speed", "speed", "cutting_speed", "80", also=("spindle_speed",), required=True, bounds=SPEED),
        Field("feed_per_rev", "feed", "feed_per_rev", "0.15", also=("feed_rate",), required=True, bounds=FEED),
        Field("coolant", "coolant", "text", default="flood"),
        Field("pecks", "pecks", "choice", options=tuple(one.value for one in Pecks), default=Pecks.NONE.value),
        Field("first_peck", "first peck", example="3 × Ø", bounds=PECK),
        Field("next_peck", "next peck", example="1 × Ø", bounds=PECK),
        Field("least_peck", "least peck", example="Ø / 4", bounds=PECK),
        Field("entry_feed", "share of the feed at entry", "number", "1", default=1.0, bounds=SHARE),
        Field("exit_feed", "share of the feed at exit", "number", "1", default=1.0, bounds=SHARE),
        Field("offset", "drill off-centre", example="0.02", default=0.0, bounds=(0.0, 2.0)),
        Field("per_layer", "speed and feed of each layer", "points", "80:0.1; 30:0.05", pair=("cutting_speed", "feed_per_rev")),
    ),
    holding=WORKHOLDING,
    title=lambda feature: f"Drill Ø{str(feature.get('diameter', '')).removeprefix('Ø')}",
    shown=("diameter", "depth", "stack", "circle"),
)


def feature_of(values: dict[str, Any]) -> HoleFeature:
    """The feature from its fields; a stack says how deep it is. Raises `CuttingError`."""
    given = dict(values)
    if stack := given.get("stack"):
        given["depth"] = sum(one.thickness + one.gap for one in stack)
    elif "depth" not in given:
        raise CuttingError("feature.depth", "is missing: how deep, or through which layers?")
    return HoleFeature(entry=HoleEntry(given.pop("entry", HoleEntry.FLAT)), **given)


def build(base: Base, tool: Mapping[str, Any], given: dict[str, dict[str, Any]]) -> DrillSetup:
    """The set-up from its fields, section by section. Raises `CuttingError`."""
    feature, settings = feature_of(given["feature"]), dict(given["settings"])
    chosen = DrillSettings(pecks=Pecks(settings.pop("pecks", Pecks.NONE)), **settings)
    holding = workholding_of(given["holding"], max(feature.depth, 10.0), feature.diameter.nominal * 2.0)
    return DrillSetup(**tool, feature=feature, settings=chosen, holding=holding, **vars(base))
