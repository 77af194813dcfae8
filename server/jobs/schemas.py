"""What the jobs API takes and gives."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from ninja import Schema
from pydantic import Field

from server.jobs.document import Document
from server.jobs.edits import Becomes, Edit
from server.jobs.entries import Entry
from server.jobs.kinds import AnyView
from server.jobs.kinds.view import ChipOut, TableOut
from server.jobs.tools import ToolWords
from server.units import DisplayOut, Plain, Point

Typed = str | float  # as a person typed it; read where its kind and bounds are known


class StepOut(Plain):
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


class ValueOut(Plain):
    name: str
    label: str
    value: float | None
    kind: str
    display: DisplayOut
    honesty: str
    low: DisplayOut | None
    high: DisplayOut | None
    working: list[StepOut]


class RemedyOut(Plain):
    text: DisplayOut
    effect: DisplayOut
    patch: dict[str, dict[str, Entry]]


class LimitOut(Plain):
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


class PassOut(Plain):
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
    name: str
    text: str
    severity: Literal["blocks", "care", "note"]
    danger: bool
    risk: str
    dismissed: bool


class DismissIn(Schema):
    name: str = Field(min_length=1, max_length=40)
    risk: str = Field(min_length=1, max_length=40)


class LadderOut(Plain):
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


class EvaluationOut(Plain):
    """An operation as it stands: what every kind shows, and the kind's own view."""

    operation: str
    feasible: bool
    results: dict[str, ValueOut]
    headline: list[str]
    studies: list[str]
    limits: list[LimitOut]
    passes: list[PassOut]
    chip: ChipOut
    warnings: list[WarningOut]
    settings: list[SettingOut]
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


class CandidateOut(ToolWords):
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
    reason: str
    miss: DisplayOut | None
    set_up: str
    chosen: bool
    way: str
    more: list[DisplayOut]
    becomes: Becomes | None
    settings: dict[str, str]


class RefusedOut(Schema):
    reason: str
    pairs: int


class AdviceOut(Schema):
    candidates: list[CandidateOut]
    nearly: list[CandidateOut]
    refused: list[RefusedOut]
    pairs: int
    fitting: int
    feasible: int
    note: str
    missed: int
    heads: list[str]


class OperationRow(Schema):
    id: str
    number: int
    title: str
    operation: str
    status: Literal["ok", "care", "broken"]
    seconds: float
    seconds_display: DisplayOut
    cost: float
    cost_display: DisplayOut
    binding: str
    utilisation: float
    stiffness: float | None
    stiffness_display: DisplayOut | None
    problem: str | None


class RemovedOut(Schema):
    identity: str
    corners: list[Point]


class OutlineLabel(Schema):
    at: float
    radius: float
    display: DisplayOut


class LengthLabel(Schema):
    """A shoulder: its place from the chuck, and its distance from the free face in words."""

    at: float
    display: DisplayOut


class OutlineOut(Schema):
    chucked: bool
    labels: list[OutlineLabel]
    lengths: list[LengthLabel]
    stock: list[Point]
    finished: list[Point]
    removed: list[RemovedOut]
    inside: list[Point]
    rings: list[list[Point]]
    length: float
    radius: float
    bore: float


class SegmentOut(Schema):
    kind: Literal["cut", "idle", "edges", "handling"]
    operation: str | None
    label: str
    seconds: float
    money: float


class TapeOut(Schema):
    segments: list[SegmentOut]
    seconds: float
    money: float
    seconds_display: DisplayOut
    money_display: DisplayOut
    seconds_band: Point
    money_band: Point
    working: list[str]


class BaselineOut(Schema):
    name: str
    seconds: DisplayOut
    cost: DisplayOut
    saving: DisplayOut
    yearly_saving: DisplayOut | None
    note: str
    better: bool


class PocketOut(ToolWords):
    """A tool of the part: its place in the turret, and the numbers of the operations that use it."""

    pocket: int
    operations: list[int]


class DrawnOut(Schema):
    """A feature of the drawing: the numbers of the operations that make or prepare it; `status` is open where none makes it."""

    id: str
    shape: str
    words: DisplayOut
    makes: list[int]
    prepares: list[int]
    status: Literal["open", "ok", "care", "broken"]


class SpindleName(Schema):
    name: str
    title: str


class StateOut(Schema):
    operations: list[OperationRow]
    drawing: list[DrawnOut]
    spindles: list[SpindleName]
    tools: list[PocketOut]
    pockets: int
    outline: OutlineOut
    tape: TapeOut
    attention: int
    why: str
    over_target: bool
    target_display: DisplayOut | None
    baseline: BaselineOut | None


class JobRow(Schema):
    id: int
    name: str
    material: str
    machine: str
    goal: str
    pieces: int
    revision: int
    changed: datetime
    stale: int
    state: StateOut


class PrintRow(Schema):
    id: int
    name: str
    media_type: str
    at: datetime


class JobOut(Schema):
    id: int
    revision: int
    gesture: str
    author: str
    at: datetime
    can_undo: bool
    can_redo: bool
    document: Document
    state: StateOut
    stale: int
    archived: bool
    prints: list[PrintRow]


class CardLine(Schema):
    label: str
    value: str


class CardTable(Schema):
    caption: str
    head: list[str]
    rows: list[list[str]]


class CardOut(Schema):
    """An operation as the machine's side needs it: what the set-up sheet says of it, line by line."""

    number: int
    title: str
    problem: str
    tool: list[CardLine]
    speeds: list[CardLine]
    table: CardTable
    offsets: list[CardLine]
    checks: list[str]
    cautions: list[str]
    place: int | None


class StaleReason(Schema):
    reason: str
    author: str
    at: datetime


class StaleChange(Schema):
    """One figure that a change moved."""

    where: str
    what: str
    before: DisplayOut
    now: DisplayOut


class StaleOut(Schema):
    reasons: list[StaleReason]
    changes: list[StaleChange]


class RevisionRow(Schema):
    number: int
    gesture: str
    author: str
    at: datetime


class JobIn(Schema):
    """What a new job starts from; operations are added to it."""

    name: str = Field(min_length=1, max_length=120)
    material: str = Field(max_length=120)
    machine: str = Field(max_length=80)
    diameter: str | float
    free_length: str | float
    bore: str | float = "0"
    pieces: Typed = "50"
    units: Literal["mm", "inch"] = "mm"


class EditIn(Schema):
    base_revision: int = Field(ge=1)
    edit: Edit


class ArchiveIn(Schema):
    archived: bool


class BaseIn(Schema):
    base_revision: int = Field(ge=1)


class TryIn(Schema):
    """Values to try without saving them."""

    settings: dict[str, Entry] = {}
    holding: dict[str, Entry] = {}
    tool: dict[str, str] = {}
    units: Literal["mm", "inch"] = "mm"


class FollowOut(Schema):
    """What may follow within a second: remedies by limit, ranking and tape."""

    advice: AdviceOut
    state: StateOut
    remedies: dict[str, list[RemedyOut]]
    faster: list[RemedyOut]


class NoteIn(Schema):
    operation: str = Field(default="", max_length=20)
    text: str = Field(min_length=1, max_length=4000)


class NoteOut(Schema):
    id: int
    operation: str
    text: str
    author: str
    at: datetime


class MeasurementIn(Schema):
    operation: str = Field(max_length=20)
    pass_number: Typed
    commanded: Typed
    measured: Typed
    piece: Typed = "1"
    temperature: Typed = Field(default="20", description="of the part, °C")
    uncertainty: Typed | None = Field(default=None, description="expanded, k = 2; empty: the house's own")
    sure: bool = Field(default=False, description="a doubtful reading was read again and is what the instrument says")
    units: Literal["mm", "inch"] = "mm"


class MeasurementOut(Schema):
    id: int
    operation: str
    pass_number: int
    commanded: DisplayOut
    measured: DisplayOut
    difference: DisplayOut
    piece: int
    temperature: float
    author: str
    at: datetime
