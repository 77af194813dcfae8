"""`Outcome`: results, limits, passes, warnings and their working."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum
from typing import Any

from cutting.operations.frame.harm import ORDER, Harm, harm_of
from cutting.quantities.write import Display, display
from cutting.working import WorkingStep

AS_SURE = 0.005  # of a chance that is not told apart from the one that is asked
TOUCHING = 1e-9  # a limit is broken beyond this much over its bound: on it is within


class Severity(StrEnum):
    """What a broken limit means."""

    HARD = "hard"  # not a candidate
    SOFT = "soft"  # costs something; may be accepted


class Standing(StrEnum):
    """How surely a limit holds, against the chance that is asked of it."""

    HOLDS = "holds"
    CLOSE = "close"  # at least half as surely as is asked
    OVER = "over"


class Bound(StrEnum):
    """On which side a limit stands."""

    UPPER = "upper"
    LOWER = "lower"
    WINDOW = "window"


@dataclass(frozen=True)
class Value:
    """A number with its honesty: band from `low` to `high`, exact where they are None."""

    name: str
    label: str
    value: float
    kind: str
    display: Display
    honesty: str
    low: Display | None = None
    high: Display | None = None
    working: tuple[WorkingStep, ...] = ()


@dataclass(frozen=True)
class Remedy:
    """One change with what it brings, found by running it. `patch` is what to set."""

    text: Display
    effect: Display
    patch: dict[str, Any]


@dataclass(frozen=True)
class Moved:
    """A quantity that may be off, its band in words, and its share of what may be off in a limit."""

    title: str
    band: str
    share: float


@dataclass(frozen=True)
class Limit:
    """A limit with where the value stands: utilisation 1 is on the bound."""

    name: str
    label: str
    kind: str
    bound: Bound
    value: float
    lower: float | None
    upper: float | None
    value_display: Display
    bound_display: Display
    utilisation: float
    severity: Severity
    source: str
    why: str
    remedies: tuple[Remedy, ...] = ()
    working: tuple[WorkingStep, ...] = ()
    holds: float = 1.0  # chance that it holds, from the bands of what its numbers rest on
    asked: float = 0.5  # chance that is asked of it
    kept: float = 1.0  # utilisation up to which it holds as surely as is asked: the rest is kept in hand
    moved_by: tuple[Moved, ...] = ()
    bound_working: tuple[WorkingStep, ...] = ()

    @property
    def broken(self) -> bool:
        """Whether the value that is most likely lies beyond the bound."""
        return self.utilisation > 1.0 + TOUCHING

    @property
    def standing(self) -> Standing:
        """Whether it holds as surely as is asked, half as surely, or less."""
        holds = 0.0 if self.broken and self.holds >= 1.0 else self.holds  # of what nobody reckoned a chance the value itself tells
        if holds >= self.asked - AS_SURE and not self.broken:
            return Standing.HOLDS
        return Standing.CLOSE if holds >= self.asked / 2.0 else Standing.OVER

    @property
    def held(self) -> bool:
        """Whether it holds as surely as is asked."""
        return self.standing is Standing.HOLDS

    @property
    def wanting(self) -> bool:
        """Whether something has to be done: a hard limit does not hold as surely as is asked, another is over its bound."""
        return not self.held if self.severity is Severity.HARD else self.broken


@dataclass(frozen=True)
class Pass:
    """One pass as it will be taken."""

    number: int
    from_diameter: float
    to_diameter: float
    depth: float
    spindle_speed: float
    cutting_speed: float
    feed_per_rev: float
    seconds: float
    chip: ChipVerdict
    passive_force: float
    size_error: float


@dataclass(frozen=True)
class ChipVerdict:
    """The chip by ISO 3685 form class."""

    form: str
    length: str
    code: str
    verdict: str  # breaks, strings, packs
    index: float
    thickness: float  # before the cut, mm
    thickness_after: float
    curl_radius: float | None
    strain: float | None  # of its outer side, against the metal's own
    fracture_strain: float
    long: float  # length, mm
    why: str


@dataclass(frozen=True)
class Warning:
    """Something to know that is not a limit: a fit, a caution, a reason."""

    name: str
    text: str
    severity: str  # blocks, care, note
    source: str = "common-practice"
    harm: Harm = field(init=False)  # what it may do to a person

    def __post_init__(self) -> None:
        object.__setattr__(self, "harm", harm_of(self.name))

    @property
    def gravity(self) -> tuple[bool, int, int]:
        """What comes first: what stops the cut, then the worst harm, then what to mind before what to know."""
        return self.severity != "blocks", ORDER.index(self.harm), ("blocks", "care", "note").index(self.severity)

    @property
    def said(self) -> str:
        """Its text after the safety word, as it is printed."""
        return f"{(self.harm or 'note').capitalize()}: {self.text}"


@dataclass(frozen=True)
class Bow:
    """Change of diameter along the last cut [mm] at places [mm from the chuck], and the shape in words."""

    places: tuple[float, ...]
    errors: tuple[float, ...]
    at_chuck: float
    at_end: float
    largest: float
    largest_at: float
    taper: float  # larger at the free end by this much on diameter
    barrel: float  # larger inside the cut than at the worse end
    shape: str


@dataclass(frozen=True)
class Outcome:
    """What comes out of an operation's evaluation."""

    operation: str
    results: dict[str, Value]
    limits: tuple[Limit, ...]
    passes: tuple[Pass, ...]
    chip: ChipVerdict
    warnings: tuple[Warning, ...]
    faster: tuple[Remedy, ...]
    scene: Mapping[str, Any]
    bow: Bow | None = None  # of operations that bend the part along a cut

    @property
    def binding(self) -> Limit:
        return self.limits[0]

    @property
    def blocked(self) -> bool:
        """Whether something is in its way that no limit tells of, such as a hole that is not there."""
        return any(one.severity == "blocks" for one in self.warnings)

    @property
    def standing(self) -> Standing:
        """The worst of its hard limits; what blocks is over."""
        if self.blocked:
            return Standing.OVER
        order = (Standing.OVER, Standing.CLOSE, Standing.HOLDS)
        hard = (limit.standing for limit in self.limits if limit.severity is Severity.HARD)
        return min(hard, key=order.index, default=Standing.HOLDS)

    @property
    def feasible(self) -> bool:
        """Whether every hard limit holds as surely as is asked."""
        return self.standing is Standing.HOLDS


def shown(
    name: str,
    label: str,
    value: float,
    kind: str,
    honesty: str,
    band: tuple[float, float] | None = None,
    working: tuple[WorkingStep, ...] = (),
) -> Value:
    """A `Value` with its displays made."""
    low, high = (display(band[0], kind), display(band[1], kind)) if band else (None, None)
    return Value(name, label, value, kind, display(value, kind), honesty, low, high, working)
