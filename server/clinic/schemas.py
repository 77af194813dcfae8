"""What the endpoints of the clinic take and give."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import ConfigDict, Field

from cutting.clinic.turned_out import VERDICTS
from server.jobs.schemas.operation import RemedyOut
from server.schema import Schema
from server.units import DisplayOut

Named = Annotated[str, Field(max_length=40)]
TurnedOut = Literal[VERDICTS]


class SeenIn(Schema):
    """What was seen, and what looks found."""

    model_config = ConfigDict(extra="forbid")
    seen: list[Named] = Field(default=[], max_length=40)
    answers: dict[Named, bool] = Field(default={}, max_length=120)


class TroubleIn(SeenIn):
    """How a cause's change turned out."""

    cause: Named
    turned_out: TurnedOut
    words: str = Field(default="", max_length=400)


class SymptomOut(Schema):
    """Something that may be seen."""

    name: str
    title: str
    said: list[str]
    picture: str
    limits: list[str]


class LookOut(Schema):
    """A question for somebody at the machine."""

    name: str
    round: str
    question: str
    how: str
    minutes: float
    caution: str


class CauseOut(Schema):
    """What may be wrong, and what to do then."""

    name: str
    title: str
    change: str
    undo: str


class WardOut(Schema):
    """All that the clinic has for a kind of operation."""

    kind: str
    symptoms: list[SymptomOut]
    looks: list[LookOut]
    causes: list[CauseOut]
    rounds: dict[str, str]


class ReasonOut(Schema):
    """Why a cause stands where it does."""

    speaks: str
    text: DisplayOut


class SuspectOut(Schema):
    """A cause with its chance in per cent; `seen` outcomes have moved its weight, which lies between `low` and `high`."""

    name: str
    title: str
    chance: float
    reasons: list[ReasonOut]
    look: str
    change: str
    undo: str
    try_first: bool
    seen: int
    weight: float
    low: float
    high: float


class QuestionOut(Schema):
    """The round of looks that parts the leaders best."""

    round: str
    title: str
    looks: list[LookOut]
    minutes: float


class DiagnosisOut(Schema):
    """Causes, the likeliest first; `none` is the chance that it is none of them."""

    suspects: list[SuspectOut]
    none: float
    none_fits: bool
    fits: bool | None
    question: QuestionOut | None


class BeforeAfterOut(Schema):
    """One number before and after."""

    label: str
    before: DisplayOut
    after: DisplayOut


class ClinicOfferOut(Schema):
    """A change as it was run on the engine; `remedy` is what to set, None where hands do it or a limit forbids it."""

    cause: str
    change: str
    remedy: RemedyOut | None
    rows: list[BeforeAfterOut]
    side_effects: str
    undo: str
    forbidden: str
    by_hand: bool


class TroubleOut(Schema):
    """A cause that was acted on."""

    id: int
    cause: str
    title: str
    seen: list[str]
    turned_out: str
    words: str
    author: str
    at: datetime


class ExerciseIn(Schema):
    """An exercise that ships by its number, or one drawn by a seed."""

    model_config = ConfigDict(extra="forbid")
    number: int | None = Field(default=None, ge=1, le=1000)
    seed: int | None = Field(default=None, ge=0, le=2**31 - 1)
    kind: str = Field(default="", max_length=20)


class StepIn(Schema):
    """One thing that the learner does."""

    model_config = ConfigDict(extra="forbid")
    did: Literal["look", "change", "name", "give up"]
    what: str = Field(default="", max_length=40)


class EventOut(Schema):
    """What was done, what came of it, what it cost."""

    did: str
    words: str
    minutes: float
    parts: int


class ExerciseOut(Schema):
    """An exercise as it stands."""

    id: int
    name: str
    level: int
    kind: str
    seed: int
    setup: str
    told: list[str]
    events: list[EventOut]
    minutes: float
    parts: int
    over: bool
    healed: bool
    named: bool | None
    score: float
    explained: list[str]


class ExerciseRow(Schema):
    """An exercise that ships, with the best score of the person who asks; None where it was not tried."""

    number: int
    name: str
    level: int
    kind: str
    best: float | None


class ExercisesOut(Schema):
    """What there is to practise on, and how far somebody is."""

    shipped: list[ExerciseRow]
    done: int
    solved: int
    mean_score: float
    open: int | None
