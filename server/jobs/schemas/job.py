"""What the jobs API takes and gives of a job."""

from __future__ import annotations

from datetime import datetime
from typing import Literal

from pydantic import Field

from server.jobs.document.entries import Entry
from server.jobs.document.plan import Document
from server.jobs.document.tools import ToolWords
from server.jobs.edits import Edit
from server.jobs.edits.tools import TakeTool
from server.jobs.schemas.operation import AdviceOut, EvaluationOut, RemedyOut
from server.schema import Schema
from server.sentences import Sentence
from server.units import DisplayOut, Point
from server.words import Name

Typed = str | float  # as a person typed it; read where its kind and bounds are known


class OperationRow(Schema):
    """An operation in the run order."""

    id: str
    number: int
    title: str
    held: str
    metal: str
    operation: str
    status: Literal["holds", "close", "over", "no tool"]
    seconds: float
    seconds_display: DisplayOut
    cost: float
    cost_display: DisplayOut
    binding: str
    utilisation: float
    stiffness: float | None
    stiffness_display: DisplayOut | None
    problem: DisplayOut | None
    wanted: dict[str, str]  # where no tool does it: the record with which one that would is entered into the crib


class RemovedOut(Schema):
    """What an operation takes away, for the drawing."""

    identity: str
    corners: list[Point]


class OutlineLabel(Schema):
    """A size that stands on the drawing."""

    at: float
    radius: float
    display: DisplayOut


class LengthLabel(Schema):
    """A shoulder: its place from the chuck, and its distance from the free face in words."""

    at: float
    display: DisplayOut


class LayerOut(Schema):
    """A metal of the blank, from where to where."""

    at: float
    near: float
    thick: DisplayOut
    material: str


class ThreadDrawnOut(Schema):
    """A thread: from where to where, radii of its crests and roots, how far its axis lies off the part's."""

    identity: str
    near: float
    far: float
    crest: float
    root: float
    off: float


class OutlineOut(Schema):
    """The part in half section, as it comes and as it is left."""

    chucked: bool
    layers: list[LayerOut]
    labels: list[OutlineLabel]
    lengths: list[LengthLabel]
    stock: list[Point]
    finished: list[Point]
    removed: list[RemovedOut]
    inside: list[Point]
    rings: list[list[Point]]
    threads: list[ThreadDrawnOut] = []
    length: float
    radius: float
    bore: float
    held: float


class SegmentOut(Schema):
    """A stretch of the cycle tape."""

    kind: Literal["cut", "idle", "edges", "handling"]
    operation: str | None
    label: str
    seconds: float
    money: float


class TapeOut(Schema):
    """The cycle tape in seconds and money."""

    segments: list[SegmentOut]
    seconds: float
    money: float
    seconds_display: DisplayOut
    money_display: DisplayOut
    seconds_band: Point
    money_band: Point
    working: list[str]


class BaselineOut(Schema):
    """The present process, and what the plan saves against it."""

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
    status: Literal["open", "holds", "close", "over", "no tool"]


class SpindleName(Schema):
    """A spindle by its name and its words."""

    name: str
    title: str


class SureOut(Schema):
    """How surely every hard limit of a plan holds, against what the house asks."""

    chance: float
    asked: float
    enough: bool
    words: str


class StateOut(Schema):
    """The job as it stands: run order, tape, drawing."""

    operations: list[OperationRow]
    drawing: list[DrawnOut]
    spindles: list[SpindleName]
    tools: list[PocketOut]
    pockets: int
    outline: OutlineOut
    tape: TapeOut
    sure: SureOut | None
    meetings: list[DisplayOut]  # features that stand on one place
    attention: int
    planned: bool  # every operation has a tool
    why: DisplayOut
    over_target: bool
    target_display: DisplayOut | None
    baseline: BaselineOut | None


class TapeGlance(Schema):
    """The tape of a job in the list."""

    seconds_display: DisplayOut
    money_display: DisplayOut


class GlanceOut(Schema):
    """Of a job's state what a list of jobs shows."""

    outline: OutlineOut
    tape: TapeGlance
    attention: int
    planned: bool  # every operation has a tool
    why: DisplayOut
    over_target: bool
    target_display: DisplayOut | None
    baseline: BaselineOut | None


class JobRow(Schema):
    """A job in the list."""

    id: int
    name: str
    material: str
    machine: str
    goal: str
    pieces: int
    revision: int
    changed: datetime
    stale: int
    state: GlanceOut


class JobPage(Schema):
    """A page of the list."""

    matched: int
    rows: list[JobRow]


class PrintRow(Schema):
    """A drawing that was taken in."""

    id: int
    name: str
    media_type: str
    at: datetime


class JobOut(Schema):
    """A job with its document, its state and what may be undone."""

    id: int
    revision: int
    gesture: str
    author: str
    at: datetime
    can_undo: bool
    can_redo: bool
    document: Document
    either: dict[str, DisplayOut]  # what was typed, in either units: lengths of blank and holding, and titles
    sizes: dict[str, dict[str, DisplayOut]]  # the same of each operation and feature of the drawing, by field
    state: StateOut
    stale: int
    archived: bool
    prints: list[PrintRow]


class CardLine(Schema):
    """A line of the card at the machine."""

    label: str
    value: str


class CardTable(Schema):
    """A table of the card at the machine."""

    caption: str
    head: list[str]
    rows: list[list[str]]


class CardOut(Schema):
    """An operation as the machine's side needs it: what the set-up sheet says of it, line by line."""

    number: int
    title: str
    problem: Sentence
    tool: list[CardLine]
    speeds: list[CardLine]
    table: CardTable
    offsets: list[CardLine]
    checks: list[Sentence]
    cautions: list[Sentence]
    place: int | None


class StaleReason(Schema):
    """What changed in the shop since a job was reckoned."""

    reason: Sentence
    author: str
    at: datetime


class StaleChange(Schema):
    """One figure that a change moved."""

    where: str
    what: str
    before: DisplayOut
    now: DisplayOut


class StaleOut(Schema):
    """Whether a job was reckoned with the shop as it is now."""

    reasons: list[StaleReason]
    changes: list[StaleChange]


class RevisionRow(Schema):
    """A revision: by whom, when, what."""

    number: int
    gesture: str
    author: str
    at: datetime


class JobIn(Schema):
    """What a new job starts from; operations are added to it."""

    name: Name
    material: str = Field(max_length=120)
    machine: str = Field(max_length=80)
    diameter: str | float
    free_length: str | float
    bore: str | float = "0"
    pieces: Typed = "50"
    units: Literal["mm", "inch"] = "mm"


class EditIn(Schema):
    """A change with the revision that it started from."""

    base_revision: int = Field(ge=1)
    edit: Edit


class ArchiveIn(Schema):
    """Whether a job is put away or taken out again."""

    archived: bool


class BaseIn(Schema):
    """The revision that somebody started from."""

    base_revision: int = Field(ge=1)


class TryIn(Schema):
    """Values to try without saving them."""

    settings: dict[str, Entry] = {}
    holding: dict[str, Entry] = {}
    tool: dict[str, str] = {}
    units: Literal["mm", "inch"] = "mm"


class ChainIn(Schema):
    """A row of a ranking that is looked at before it is taken."""

    edit: TakeTool
    units: Literal["mm", "inch"] = "mm"


class PlayedStepOut(Schema):
    """One operation of a chain as it would stand."""

    number: int
    title: DisplayOut
    tool: str
    evaluation: EvaluationOut


class FollowOut(Schema):
    """What may follow within a second: remedies by limit, ranking and tape."""

    advice: AdviceOut
    state: StateOut
    remedies: dict[str, list[RemedyOut]]
    faster: list[RemedyOut]


class NoteIn(Schema):
    """A line for the log."""

    operation: str = Field(default="", max_length=20)
    text: str = Field(min_length=1, max_length=4000)


class NoteOut(Schema):
    """A line of the log."""

    id: int
    operation: str
    text: str
    author: str
    at: datetime


class MeasurementIn(Schema):
    """A reading of a size."""

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
    """A reading as it is kept."""

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
