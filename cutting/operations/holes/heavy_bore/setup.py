"""`HeavyBoreSetup`: bores of several steps that one heavy tool makes in one pass, frozen and checked."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from cutting.errors import CuttingError, require_between
from cutting.operations.frame.checks import check_coolant
from cutting.operations.frame.fields import Base, Field, Fields, check_bounds
from cutting.operations.frame.setup import BaseSetup
from cutting.tooling.heavy.tool import BoringStep, HeavyTool
from cutting.workpiece.bores import EXAMPLE, BoreStep


@dataclass(frozen=True)
class HeavyBoreFeature:
    """What the drawing asks: bores from the face inward, and of all of them together, mm; None where it says nothing.

    `through`: the narrowest goes through. `temperature` of the part while it is bored [°C], known to `temperature_known` [K].
    """

    bores: tuple[BoreStep, ...]
    through: bool = True
    coaxiality: float | None = None  # zone diameter
    cylindricity: float | None = None
    roughness: float | None = None  # Ra, µm

    @property
    def depth(self) -> float:
        """From the face to the end of the last bore [mm]."""
        return self.bores[-1].far

    @property
    def widest(self) -> float:
        return max(one.diameter.nominal for one in self.bores)


@dataclass(frozen=True)
class HeavyBoreSettings:
    """m/min at the widest bore, mm a turn; `temperature` of the part [°C] and how well it is known [K]."""

    cutting_speed: float
    feed_per_rev: float
    coolant: str = "flood"
    temperature: float = 20.0
    temperature_known: float = 1.0


@dataclass(frozen=True)
class BoringChain:
    """How far each link beside the tool may be off, mm: from one tool change to the next, along the axis that feeds, from one
    clamping to the next; and how round the machine bores without any force. Common practice, the shop's own where it measured them.
    """

    change: float = 0.004
    axis: float = 0.003
    clamping: float = 0.02
    machine_round: float = 0.004  # cylindricity


@dataclass(frozen=True, kw_only=True)
class HeavyBoreSetup(BaseSetup):
    """Everything about one pass of a heavy tool. `check` refuses what cannot be, naming the field."""

    ROLES = ("heavy_tool",)

    heavy_tool: HeavyTool
    feature: HeavyBoreFeature
    settings: HeavyBoreSettings
    holding: BoringChain = field(default_factory=BoringChain)
    operation: str = "heavy bore"

    @property
    def speed_diameter(self) -> float:
        """The widest bore [mm]."""
        return self.feature.widest

    @property
    def overhang(self) -> float:
        """How far the tool stands out of the spindle's face [mm]."""
        return self.heavy_tool.length - self.heavy_tool.holder.face

    @property
    def steps(self) -> tuple[BoringStep, ...]:
        """The tool's step for each bore. Raises `CuttingError` for a bore that it has none for."""
        found = []
        for one in self.feature.bores:
            step = self.heavy_tool.step_for(one.diameter.nominal)
            if step is None:
                has = ", ".join(f"Ø{own.diameter:g}" for own in self.heavy_tool.steps)
                said = f"{self.heavy_tool.name} has no step for Ø{one.diameter.nominal:g}; it has {has}."
                raise CuttingError("tool.heavy_tool", said, has)
            found.append(step)
        return tuple(found)

    def check(self) -> None:
        """Raise `CuttingError` for the first input that cannot be."""
        self.check_case()
        own = {step.diameter for step in self.steps}
        if more := [step for step in self.heavy_tool.steps if step.diameter not in own]:
            raise CuttingError("tool.heavy_tool", f"{self.heavy_tool.name} would bore Ø{more[0].diameter:g} too, which nobody asks for.")

    def check_case(self) -> None:
        """Raise `CuttingError` for what cannot be with any tool."""
        if self.machine.turns:
            raise CuttingError("machine", f"{self.machine.name} turns the part: a heavy tool turns in a spindle of its own.")
        if self.machine.fixed:
            raise CuttingError("machine", f"{self.machine.name} has one speed and one feed: it does not bore.")
        check_coolant(self.machine, self.settings.coolant)
        check_bounds(FIELDS.feature, "feature", self.feature)
        check_bounds(FIELDS.settings, "settings", self.settings)
        for name, value in vars(self.holding).items():
            require_between(f"holding.{name}", value, 0.0, 1.0, "mm")


SPEED, FEED = (1.0, 3000.0), (0.01, 5.0)
FIELDS = Fields(
    feature=(
        Field("bores", "bores, from the face inward", "bores", EXAMPLE, required=True),
        Field("through", "the last goes through", "flag", default=True),
        Field("coaxiality", "coaxiality Ø", example="0.02", bounds=(0.0005, 5.0)),
        Field("cylindricity", "cylindricity", example="0.015", bounds=(0.0005, 5.0)),
        Field("roughness", "finish Ra", "roughness", "1.6", bounds=(0.05, 50.0)),
    ),
    settings=(
        Field("cutting_speed", "speed at the widest bore", "cutting_speed", "400", also=("spindle_speed",), required=True, bounds=SPEED),
        Field("feed_per_rev", "feed", "feed_per_rev", "0.2", also=("feed_rate",), required=True, bounds=FEED),
        Field("coolant", "coolant", "text", default="flood"),
        Field("temperature", "part's temperature, °C", "number", "20", default=20.0, bounds=(-20.0, 120.0), unit="°C"),
        Field("temperature_known", "known to, K", "number", "1", default=1.0, bounds=(0.05, 20.0), unit="K"),
    ),
    holding=(
        Field("change", "from one tool change to the next", example="0.004"),
        Field("axis", "along the feed axis", example="0.003"),
        Field("clamping", "from one clamping to the next", example="0.02"),
        Field("machine_round", "bore without any force", example="0.004"),
    ),
    title=lambda feature: f"Bore {_widest(str(feature.get('bores', '')))}in steps",
    shown=("bores",),
    speed_diameter="bores",
)  # fmt: skip


def _widest(bores: str) -> str:
    """The first of the bores as it was typed: from the face inward it is the widest."""
    first = bores.split("/")[0].split("x")[0].strip()
    return f"Ø{first} " if first else ""


def feature_of(values: dict[str, Any]) -> HeavyBoreFeature:
    """The feature from its fields."""
    return HeavyBoreFeature(**values)


def build(base: Base, tool: Mapping[str, Any], given: dict[str, dict[str, Any]]) -> HeavyBoreSetup:
    """The set-up from its fields, section by section. Raises `CuttingError`."""
    settings, chain = HeavyBoreSettings(**given["settings"]), BoringChain(**given["holding"])
    return HeavyBoreSetup(**tool, feature=feature_of(given["feature"]), settings=settings, holding=chain, **vars(base))
