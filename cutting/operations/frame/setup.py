"""What every kind of operation is told beside its own feature and settings: goal, holding, house rules, batch."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from enum import StrEnum
from functools import cached_property
from typing import Any, ClassVar, Self

import numpy as np

from cutting.belief.bands import band
from cutting.belief.beliefs import Belief, learned_words, spread_of, strongest
from cutting.errors import require_between
from cutting.machine.machines import Machine
from cutting.mechanics.deflection import Holding
from cutting.operations.frame.learned import UNTAUGHT, Learned
from cutting.working import SILENT, Recorder, Silent
from cutting.workpiece.materials import Work

SHARED_OUT = 0.6  # power of the number of operations by which the risk of a plan is shared out (held against draws of whole plans)


class Goal(StrEnum):
    """What the candidates are ordered by."""

    CHEAPEST = "cheapest"
    FASTEST = "fastest"
    MOST_SECURE = "most secure"


class Skin(StrEnum):
    """What lies on the stock where this cut starts."""

    CLEAN = "clean"
    BAR = "bar"
    FORGED = "forged"
    CAST = "cast"
    WELD = "weld"
    HARDENED = "hardened"


@dataclass(frozen=True)
class Workholding:
    """How the part is held; lengths in mm."""

    style: Holding = Holding.CHUCK
    free_length: float = 100.0
    grip_diameter: float = 50.0
    bore: float = 0.0
    centre_diameter: float = 12.0
    guide_bush: bool = False  # the bar comes out of a bush where the tool stands
    interrupted: bool = False
    weak: bool = False
    steps: tuple[tuple[float, float], ...] = ()  # the part before this cut: (from the chuck, diameter to the next), mm
    steady: float | None = None  # a steady rest, mm from the chuck
    grip_share: float = 1.0  # of the chuck's force, less for thin parts
    face: float | None = None  # the part's free end where earlier cuts shortened it, mm from the chuck

    @property
    def stretches(self) -> tuple[tuple[float, float, float], ...]:
        """The part before this cut from the chuck to its free end: (from, to, diameter), mm."""
        face = self.free_length if self.face is None else self.face
        ends = (*(start for start, _ in self.steps[1:]), face)
        return tuple((start, min(end, face), d) for (start, d), end in zip(self.steps, ends, strict=False) if start < face)


SHORTEST, LONGEST = 1.0, 20_000.0  # mm that may stand between centres
THINNEST = 0.05  # mm: what is thinner is no part that a tool could touch


def workholding_of(values: dict[str, Any], free_length: float, grip_diameter: float) -> Workholding:
    """The holding from its fields; `free_length` and `grip_diameter` [mm] where they are not given. Raises `CuttingError`."""
    given = {"free_length": free_length, "grip_diameter": grip_diameter, **values}
    share = given.get("grip_share", 1.0)
    require_between("holding.grip_share", share, 0.05, 1.0)
    for _, diameter in given.get("steps", ()):
        require_between("holding.steps", diameter, THINNEST, LONGEST, "mm in diameter")
    style = Holding(given.pop("style", "chuck"))
    if style is Holding.BETWEEN_CENTRES:  # a beam of no length has no stiffness
        require_between("holding.free_length", given["free_length"], SHORTEST, LONGEST, "mm between the centres")
    return Workholding(style=style, **given)


@dataclass(frozen=True)
class HouseRules:
    """The shop's choices between schools, and its common-practice numbers."""

    never_above_book: bool = True
    equal_cuts: bool = True  # else a light last cut with a sharp edge
    light_cut: float = 0.2  # depth of that last cut, mm
    off_centre: float = 0.0  # tip below the axis outside, above it inside, as a share of the diameter
    polishing_allowance: float = 0.01  # mm on diameter, where a surface is polished to size
    measuring_uncertainty: float = 0.01  # mm, expanded (k = 2), of the shop's usual micrometer
    setting_step: float = 0.002  # mm on diameter, the finest by which an offset or a boring head is set
    temperature_known: float = 1.0  # K, within which a part's temperature is known
    wear_factor: float = 1.3
    sure_fastest: float = 0.80  # chance that a plan asks of its hard limits together, by goal (common practice)
    sure_cheapest: float = 0.90
    sure_secure: float = 0.97
    secure_probability: float = 0.95
    attended_probability: float = 0.80
    longest_change_hours: float = 8.0  # in the cut, after which an edge is changed however it looks
    chip_index_wanted: float = 60.0
    rough_size_error: float = 0.10  # mm on diameter, where the drawing gives no tolerance
    share_of_tolerance: float = 0.5
    finish_of_tolerance: float = 0.33  # share of a tolerance that the height of its surface, Rz, may have; 0: a tolerance implies none
    general_roughness: float = 6.3  # µm Ra, where a drawing says nothing (common practice)
    left_over_share: float = 0.02  # of what a batch leaves of its last edge, that is charged to it (common practice)
    grip_safety: float = 2.0
    jaw_friction: float = 0.2
    tool_bend: float = 0.05  # mm

    def asked_chance(self, goal: Goal, operations: int = 1) -> float:
        """The chance [–] that a hard limit holds, asked of a plan by its goal, or aimed at in each operation of a plan of so many.

        As one delivery is hard, or one spindle weak, for all operations at once, the risk is shared out by a
        power of their number below one.
        """
        whole = {Goal.FASTEST: self.sure_fastest, Goal.CHEAPEST: self.sure_cheapest, Goal.MOST_SECURE: self.sure_secure}[goal]
        return 1.0 - (1.0 - whole) / max(operations, 1) ** SHARED_OUT

    def change_probability(self, goal: Goal) -> float:
        return self.secure_probability if goal is Goal.MOST_SECURE else self.attended_probability


@dataclass(frozen=True)
class Batch:
    """How many and for how long alone."""

    pieces: int = 50
    unattended_hours: float = 0.0
    piece_seconds: float | None = None  # of the whole piece, where this operation is one of several
    part_value: float | None = None  # money that the part is worth when this operation begins, None where nobody said
    operations: int = 1  # of the plan that this one is part of


@dataclass(frozen=True, kw_only=True)
class BaseSetup:
    """Work and machine, what the drawing says, what the user sets, and the shop's rules for it; a kind adds its tool.

    `ROLES` are the names of the fields that hold the tool's parts, the one with the edge first; `FEED` the setting that is its
    feed, per revolution or per tooth; blank where it is given by the feature, as a thread's lead is; `TAKES` what it takes of
    `Learned` beside the beliefs.
    """

    ROLES: ClassVar[tuple[str, ...]] = ()
    FEED: ClassVar[str] = "feed_per_rev"
    TAKES: ClassVar[tuple[str, ...]] = ()

    operation: str
    work: Work
    machine: Machine
    feature: Any
    settings: Any
    holding: Any = field(default_factory=Workholding)
    house: HouseRules = field(default_factory=HouseRules)
    batch: Batch = field(default_factory=Batch)
    goal: Goal = Goal.CHEAPEST
    skin: Skin = Skin.CLEAN
    learned: Learned = UNTAUGHT

    @property
    def asked_chance(self) -> float:
        """The chance [–] that is asked of each of its hard limits, and of the plan."""
        return self.house.asked_chance(self.goal)

    @property
    def aimed_chance(self) -> float:
        """The chance [–] that its speed, feed and depth are chosen for, so that the whole plan has the one that is asked."""
        return self.house.asked_chance(self.goal, self.batch.operations)

    @property
    def tool(self) -> dict[str, Any]:
        """The tool's parts by role."""
        return {role: getattr(self, role) for role in self.ROLES}

    @property
    def edge(self) -> Any:
        """The part that carries the edge."""
        return getattr(self, self.ROLES[0])

    @property
    def tool_names(self) -> dict[str, str]:
        """The names of the tool's parts by role."""
        return {role: part.name for role, part in self.tool.items()}

    @property
    def metals(self) -> tuple[str, ...]:
        """The names of what is cut: one metal, or that of each layer."""
        return (self.work.material.name,)

    def belief(self, quantity: str, metal: str) -> Belief | None:
        """What was learned of a quantity in a metal with this tool on this machine."""
        grade = getattr(self.edge, "grade", None)
        tools = (*self.tool_names.values(), *(() if grade is None else (grade.name,)))
        known = self.work.material
        metals = (metal, known.group.called) if metal == known.name else (metal,)
        return strongest(self.learned.beliefs, quantity, tools, metals, self.machine.name)

    @cached_property
    def factors(self) -> Mapping[str, Any]:
        """What was learned and holds here, as factors by quantity: a number, or an array over layers of several metals."""
        found: dict[str, Any] = {}
        for quantity in dict.fromkeys(one.quantity for one in self.learned.beliefs):
            said = [self.belief(quantity, metal) for metal in self.metals]
            if any(said):
                each = [one.centre if one else 1.0 for one in said]
                found[quantity] = each[0] if len(set(each)) == 1 else np.array(each)
        return found

    @cached_property
    def silent(self) -> Silent:
        """Computes as what was learned has it."""
        return Silent(self.factors) if self.learned.beliefs else SILENT

    def recorder(self) -> Recorder:
        """Computes as what was learned has it, and keeps the working."""
        words = {name: "; ".join(dict.fromkeys(self._learned_words(name))) for name in self.factors}
        spreads = {name: max(self._spreads(name)) for name in self.factors}
        return Recorder(self.factors, words, spreads, self.operation)

    @property
    def told_of_trials(self) -> tuple[str, ...]:
        """What was learned and acts here, in words: `life of the edge × 1.45, learned within ±22 % (3 seen; ann, 2026-12-02)`."""
        return tuple(
            f"{band(name, self.operation).title} {words}" for name in self.factors for words in dict.fromkeys(self._learned_words(name))
        )

    def _spreads(self, quantity: str) -> list[float]:
        return [spread_of(self.belief(quantity, metal), quantity, self.operation) for metal in self.metals]

    def _learned_words(self, quantity: str) -> Iterator[str]:
        for metal in self.metals:
            if found := self.belief(quantity, metal):
                yield learned_words(found) + (f" in {metal}" if len(self.metals) > 1 else "")

    @property
    def feed(self) -> float:
        """The feed as it is set, mm per revolution or per tooth."""
        return float(getattr(self.settings, self.FEED))

    @property
    def speed_diameter(self) -> float:
        """The diameter [mm] at which the cutting speed is stated: of the part where it turns."""
        return float(self.feature.start_diameter)

    def with_cut(self, cutting_speed: float, feed: float) -> Self:
        """The same set-up at another speed and feed."""
        return self.with_settings(cutting_speed=cutting_speed, **{self.FEED: feed})

    def with_settings(self, **changes: Any) -> Self:
        """The same set-up with other settings."""
        return replace(self, settings=replace(self.settings, **changes))

    @property
    def pass_count(self) -> int:
        """How often the tool runs over the feature."""
        return 1

    @property
    def each_depth(self) -> float:
        """Depth of the deepest pass [mm], 0 where passes have none."""
        return 0.0
