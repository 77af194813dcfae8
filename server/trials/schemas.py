"""What the endpoints of trials take and give."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import ConfigDict, Field

from cutting.learning.entries import WATCHED
from server.jobs.schemas.study import ChartOut
from server.schema import Schema
from server.sentences import Sentence
from server.units import DisplayOut, Plain, Units

Typed = float | Annotated[str, Field(max_length=60)] | None
Watched = Literal[WATCHED]


class TrialForm(Schema):
    """What it does not know is refused."""

    model_config = ConfigDict(extra="forbid")


class TrialIn(TrialForm):
    """A question to the machine."""

    job: int
    operation: str = Field(max_length=20)
    question: str = Field(min_length=3, max_length=200)
    change: str = Field(default="", max_length=200)
    watched: Watched = "edges"
    bound: Typed = 3
    against: int | None = None
    units: Units = "mm"


class WayIn(TrialForm):
    """One way of a series: its name, and what is set otherwise than in the plan."""

    name: str = Field(min_length=1, max_length=60)
    settings: dict[Annotated[str, Field(max_length=40)], float | bool | Annotated[str, Field(max_length=60)] | None] = {}
    tool: dict[Annotated[str, Field(max_length=20)], Annotated[str, Field(max_length=180)]] = {}

    @property
    def tried(self) -> dict[str, dict[str, object]]:
        """What is laid over the plan."""
        return {name: dict(value) for name, value in (("settings", self.settings), ("tool", self.tool)) if value}


class SeriesIn(TrialForm):
    """Several ways of one operation against each other."""

    job: int
    operation: str = Field(max_length=20)
    question: str = Field(min_length=3, max_length=200)
    watched: Watched = "edges"
    bound: Typed = 3
    ways: list[WayIn] = Field(min_length=2, max_length=8)
    bars: int = Field(default=3, ge=1, le=40)
    units: Units = "mm"


class SizeIn(TrialForm):
    """One size that was read."""

    value: Typed
    at: str = Field(default="", max_length=40)
    instrument: str = Field(default="", max_length=60)
    temperature: Typed = None


class EntryIn(TrialForm):
    """What was seen; `key` is the sender's own name for it, `happened` when it was typed."""

    key: str = Field(pattern=r"^[\w-]{8,64}$")
    happened: datetime | None = None
    edge: str = Field(default="1", min_length=1, max_length=40)
    count: int = Field(ge=0, le=10_000_000)
    read: dict[Annotated[str, Field(max_length=20)], Typed] = {}
    seen: dict[Annotated[str, Field(max_length=20)], Annotated[str, Field(max_length=40)]] = {}
    sizes: list[SizeIn] = Field(default=[], max_length=60)
    words: str = Field(default="", max_length=2000)
    photo: str = Field(default="", max_length=1_400_000, description="a JPEG, base64, made small in the page")
    units: Units = "mm"


class VerdictIn(TrialForm):
    """How a trial ends."""

    verdict: Literal["keep", "go back", "ask again"]
    words: str = Field(default="", max_length=400)


class LoggedWordOut(Plain):
    """A word of a list, and what it means."""

    word: str
    meaning: str
    ended: bool


class ReadingFieldOut(Plain):
    """A reading that may be entered."""

    name: str
    label: str
    unit: DisplayOut


class VocabularyOut(Plain):
    """The words and readings that an entry may hold."""

    lists: dict[str, list[LoggedWordOut]]
    fields: list[ReadingFieldOut]
    watched: list[str]


class ReadingOut(Plain):
    """One line of an entry."""

    label: str
    value: DisplayOut


class EntryOut(Plain):
    """An entry as it is told."""

    id: int
    key: str
    edge: str
    count: int
    lines: list[ReadingOut]
    seen: dict[str, str]
    words: str
    author: str
    happened: str
    struck: str
    photos: list[int]


class PredictedOut(Plain):
    """A figure: what was predicted with its band, and what was seen."""

    name: str
    label: str
    predicted: DisplayOut
    low: DisplayOut | None
    high: DisplayOut | None
    seen: DisplayOut | None
    says: str


class LivedEdgeOut(Plain):
    """One edge: how long, and what ended it."""

    edge: str
    count: int
    cause: str
    running: bool
    share: str


class TrialRowOut(Plain):
    """A trial in a list."""

    id: int
    job: int
    job_name: str
    operation: str
    title: str
    question: str
    tool: str
    metal: str
    machine: str
    verdict: str
    entries: int
    met: bool
    progress: Sentence
    overdue: bool
    author: str
    at: str


class TrialsOut(Plain):
    """A page of trials."""

    total: int
    items: list[TrialRowOut]


class ComparedOut(Plain):
    """This trial against another one."""

    against: int
    said: list[Sentence]


class SideBySideOut(Plain):
    """One way of a series beside the others."""

    trial: int
    name: str
    tool: str
    edges: str
    worst: str
    middle: str
    between: str
    best: str
    cost: DisplayOut | None


class TrialOut(TrialRowOut):
    """A trial with all that is known of it."""

    change: str
    settings: list[ReadingOut]
    predicted: list[PredictedOut]
    edges: list[LivedEdgeOut]
    log: list[EntryOut]
    log_total: int
    charts: dict[str, ChartOut]
    says: list[Sentence]
    teaches: list[Sentence]
    compared: ComparedOut | None
    order: list[list[str]]
    ways: list[SideBySideOut]
    verdict_words: str
    planned_change: int
    next_edge: str


class ProposalOut(Plain):
    """What trials say of a quantity at one level, and what holds today."""

    quantity: str
    title: str
    level: str
    tool: str
    metal: str
    machine: str
    factor: str
    interval: str
    shipped: str
    count: int
    weight: str
    says: Sentence
    strange: list[Sentence]
    holds: str
    newer: bool


class TaughtOut(Plain):
    """What was accepted and holds."""

    id: int
    title: str
    level: str
    where: str
    factor: str
    count: int
    weight: str
    author: str
    at: str


class LearningOut(Plain):
    """What could be learned, and what was."""

    proposals: list[ProposalOut]
    taught: list[TaughtOut]


class AcceptIn(TrialForm):
    """Which of the proposals."""

    quantity: str = Field(max_length=20)
    tool: str = Field(default="", max_length=180)
    metal: str = Field(default="", max_length=120)
    machine: str = Field(default="", max_length=80)


class BeliefIn(TrialForm):
    """One thing that was learned, as it goes out and comes in."""

    quantity: str = Field(max_length=20)
    factor: float
    spread: float | None = None
    tool: str = Field(default="", max_length=180)
    metal: str = Field(default="", max_length=120)
    machine: str = Field(default="", max_length=80)
    count: int = Field(default=0, ge=0, le=1_000_000)
    note: str = Field(default="", max_length=200)


class BeliefsIn(TrialForm):
    """What was learned, in the open form."""

    beliefs: list[BeliefIn] = Field(max_length=200)


class NextOut(Plain):
    """What to try next, in one sentence, with the figures behind it."""

    said: list[Sentence]


class GaugeIn(TrialForm):
    """Readings of a gauge study: people × parts × repeats."""

    readings: list[list[list[Typed]]] = Field(max_length=20)
    zone: Typed = None
    units: Units = "mm"


class GaugeOut(Plain):
    """What the instrument sees."""

    repeatability: DisplayOut
    reproducibility: DisplayOut
    parts: DisplayOut
    share: str
    verdict: str


class InstrumentIn(TrialForm):
    """An instrument to pair: where it is and what it speaks."""

    name: str = Field(min_length=1, max_length=60)
    protocol: Literal["line", "agent"]
    host: str = Field(max_length=60)
    port: int = Field(ge=1, le=65535)
    unit: Literal["", "mm", "in"] = ""


class InstrumentOut(Plain):
    """An instrument as it is listed."""

    id: str
    name: str
    protocol: str
    where: str
    simulated: bool


class GaugeReadingOut(Plain):
    """A reading as it came, and as the field takes it."""

    text: str
    value: DisplayOut
    entry: str


class AgentValueOut(Plain):
    """One value of a machine, with its age."""

    name: str
    label: str
    value: DisplayOut
    text: str
    missing: bool
    age: str
    stale: bool


class AgentOut(Plain):
    """What a machine says now."""

    name: str
    values: list[AgentValueOut]


class StripOut(Plain):
    """A strip of the spindle's load, and what is missing of it."""

    chart: ChartOut
    gaps: int
    lost: Sentence
