"""What the endpoints of drilled holes take and give."""

from __future__ import annotations

from typing import Annotated

from pydantic import ConfigDict, Field

from server.schema import Schema
from server.sentences import Sentence
from server.units import DisplayOut, Plain, Point


class TextIn(Schema):
    """A recording as text."""

    model_config = ConfigDict(extra="forbid")
    text: str = Field(max_length=12_000_000)


class TraceColumnOut(Plain):
    """A column of a file: its heading, and what it seems to hold."""

    heading: str
    role: str
    unit: str


class TraceReadOut(Plain):
    """What a recording says, hole by hole."""

    columns: list[TraceColumnOut]
    lines: int
    sample: list[list[float]]
    along: str


class TraceIn(TextIn):
    """A file with its columns as they are meant; blank: as guessed."""

    name: str = Field(default="a file", max_length=120)
    hole: int = Field(default=1, ge=1, le=10_000_000)
    columns: dict[str, Annotated[str, Field(max_length=80)]] = {}


class TraceOut(Plain):
    """A recorded trace, aligned at the first contact; points of (depth, value)."""

    id: int
    hole: int
    origin: str
    author: str
    at: str
    speed: DisplayOut
    feed: DisplayOut
    peak_thrust: DisplayOut
    peak_torque: DisplayOut
    thrust: list[Point]
    torque: list[Point]
    problem: Sentence


class LessonOut(Plain):
    """What recordings taught, and how far it is off the tables."""

    id: int
    said: str
    author: str
    at: str


class TracesOut(Plain):
    """The recordings of an operation."""

    traces: list[TraceOut]
    lessons: list[LessonOut]
    device: bool


class IdsIn(Schema):
    """Recordings by their keys."""

    model_config = ConfigDict(extra="forbid")
    traces: list[int] = Field(min_length=1, max_length=60)


class ParameterOut(Plain):
    """A number that recordings move, before and after."""

    label: str
    value: str
    interval: str
    before: str


class FitOut(Plain):
    """What the chosen traces teach: numbers with their 95 % intervals, and what is left over."""

    parameters: list[ParameterOut]
    residual: DisplayOut
    torque_residual: DisplayOut
    explained: str
    shift: DisplayOut
    growth: Sentence
    fitted_thrust: list[Point]
    fitted_torque: list[Point]


class RecordIn(Schema):
    """What the simulated dynamometer shall record."""

    model_config = ConfigDict(extra="forbid")
    hole: int = Field(default=1, ge=1, le=10_000_000)
