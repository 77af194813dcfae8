"""What the jobs API gives of one operation: its kind, its evaluation, its ranking."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from server.jobs.document.entries import Entry
from server.jobs.document.tools import ToolWords
from server.jobs.edits import Becomes, ChainStep
from server.jobs.kinds import AnyView
from server.jobs.kinds.view import ChipOut, TableOut
from server.schema import Schema
from server.sentences import Sentence
from server.units import DisplayOut, Plain

Typed = str | float  # as a person typed it; read where its kind and bounds are known


class StepOut(Plain):
    """One line of working."""

    key: str
    symbol: str
    meaning: str
    formula: str
    substituted: str
    value: float | None
    unit: str
    source: str
    honesty: str
    note: str
    band: str


class ValueOut(Plain):
    """A result with its band, its honesty and its working."""

    name: str
    label: str
    value: float | None
    kind: str
    display: DisplayOut
    honesty: str
    low: DisplayOut | None
    high: DisplayOut | None
    working: list[StepOut]
    means: Sentence


class RemedyOut(Plain):
    """A change that was run: what it brings, and what taking it sets."""

    text: DisplayOut
    effect: DisplayOut
    patch: dict[str, dict[str, Entry]]


class MovedOut(Plain):
    """A quantity that may be off, and its share of what a limit may be off."""

    title: str
    band: str
    share: float


class LimitOut(Plain):
    """A limit with value, bound, source and working."""

    name: str
    label: str
    kind: str
    bound: Literal["upper", "lower", "window"]
    value: float | None
    lower: float | None
    upper: float | None
    value_display: DisplayOut
    bound_display: DisplayOut
    utilisation: float
    severity: Literal["hard", "soft"]
    source: str
    why: str
    working: list[StepOut]
    bound_working: list[StepOut]
    holds: float
    asked: float
    kept: float  # utilisation up to which it holds as surely as is asked
    standing: Literal["holds", "close", "over"]
    wanting: bool
    moved_by: list[MovedOut]
    wants: DisplayOut | None = None  # the tool that it asks for, where no setting meets it
    wanted: dict[str, str] = {}  # the record with which that is entered into the crib


class PassOut(Plain):
    """One pass as it will be taken."""

    number: int
    from_diameter: DisplayOut
    to_diameter: DisplayOut
    depth: DisplayOut
    spindle_speed: DisplayOut
    cutting_speed: DisplayOut
    seconds: DisplayOut
    push: DisplayOut
    springs: DisplayOut
    chip: ChipOut


class WarningOut(Plain):
    """Something to know that is no limit."""

    name: str
    text: Sentence
    severity: Literal["blocks", "care", "note"]
    harm: Literal["danger", "warning", "caution", ""]
    risk: str
    dismissed: bool


class DismissIn(Schema):
    """A warning that somebody has read, at the risk that it told of."""

    name: str = Field(min_length=1, max_length=40)
    risk: str = Field(min_length=1, max_length=40)


class StudyNameOut(Plain):
    """A sheet of the operation: its name, its words on the menu, the key that opens it."""

    name: str
    title: str
    key: str


class NotHereOut(StudyNameOut):
    """A sheet of other operations, and why it is not one of this."""

    why: Sentence


class LadderOut(Plain):
    """The rungs that a setting is walked on."""

    rungs: list[str]
    place: int
    normal: int
    coarse: int


class SettingOut(Plain):
    """A setting as it stands: what was entered, in both units, and the range that its window allows."""

    name: str
    label: str
    entered: str
    display: DisplayOut
    value: float
    low: float | None
    high: float | None
    low_display: DisplayOut | None
    high_display: DisplayOut | None


class ChoiceOut(Plain):
    """A setting that is picked from a list."""

    name: str
    label: str
    options: list[str]
    value: str


class TypedOut(Plain):
    """A further setting that is typed: as it was entered, and what one may look like."""

    name: str
    label: str
    value: str
    example: str


class EvaluationOut(Plain):
    """An operation as it stands: what every kind shows, and the kind's own view."""

    operation: str
    feasible: bool
    results: dict[str, ValueOut]
    headline: list[str]
    studies: list[StudyNameOut]
    not_here: list[NotHereOut]
    limits: list[LimitOut]
    passes: list[PassOut]
    chip: ChipOut
    warnings: list[WarningOut]
    learned: list[str] = Field(description="what trials taught that acts here")
    settings: list[SettingOut]
    typed: list[TypedOut]
    choices: list[ChoiceOut]
    ladders: dict[str, LadderOut]
    coolants: list[str]
    table: TableOut | None
    stops: list[float] = Field(description="seconds at which the cut can be looked at")
    view: AnyView


class FieldOut(Schema):
    """An input of a kind of operation, as forms are drawn from it."""

    name: str
    label: str
    kind: str
    example: str
    options: list[str]
    required: bool
    default: str
    drawn: bool


class OperationKindOut(Schema):
    """A kind of operation, the shape that it makes, and what it asks for."""

    name: str
    title: str
    shape: str
    feature: list[FieldOut]
    settings: list[FieldOut]
    holding: list[FieldOut]
    studies: list[str]


class ChainStepOut(ToolWords):
    """A step of a chain with what it takes."""

    title: str
    seconds: DisplayOut
    cost: DisplayOut


class CandidateOut(ToolWords):
    """A row of the ranking with its figures, its reason and what taking it sets."""

    designation: str
    geometry: str
    grade: str
    passes: int
    speed: DisplayOut
    feed: DisplayOut
    depth: DisplayOut | None
    seconds: DisplayOut
    cost: DisplayOut
    parts_per_edge: DisplayOut
    secure: str
    secure_value: float
    chip_index: float
    edge_price: DisplayOut
    roughness: DisplayOut | None
    reason: Sentence
    miss: DisplayOut | None
    set_up: str
    in_place: str  # numbers of the job's other operations that use the same tool
    no_place: bool
    chosen: bool
    way: str
    more: list[DisplayOut]
    becomes: Becomes | None
    before: list[ChainStep]
    steps: list[ChainStepOut]  # of a chain, its own last; none of what one tool makes alone
    settings: dict[str, str]


class RefusedOut(Schema):
    """A rule of fit and how many pairs it shut out."""

    reason: Sentence
    pairs: int


class AdviceOut(Schema):
    """The ranking, the near misses, and why the rest is refused."""

    candidates: list[CandidateOut]
    nearly: list[CandidateOut]
    refused: list[RefusedOut]
    pairs: int
    fitting: int
    feasible: int
    note: Sentence
    missed: int
    heads: list[str]
    feed_unit: DisplayOut
    further: list[str]
