"""What goes out of programs: of an operation, of a job, and of a text that is read."""

from __future__ import annotations

from typing import Literal

from server.schema import Schema
from server.sentences import Sentence
from server.units import DisplayOut


class FindingOut(Schema):
    """What is wrong on a line of a program."""

    line: int
    rule: str
    severity: str
    text: Sentence
    remedy: str


class ProgramTextOut(Schema):
    """A program in one dialect and system of units."""

    dialect: str
    title: str
    units: Literal["mm", "inch"]
    text: str
    findings: list[FindingOut]


class PlotOut(Schema):
    """What a text does: places (x, y, z) in order, each with its line and how the way to it is drawn: 0 rapid, 1 feed, 2 thread.

    `whole` unless there were too many to draw; of a `turned` part x is the radius and z goes along it.
    """

    lines: list[int]
    drawn: list[int]
    places: list[list[float]]
    whole: bool
    turned: bool


class ProgramReadOut(Schema):
    """What a text does and what is wrong with it; `left` is the metal that stays: place, outer and inner radius."""

    findings: list[FindingOut]
    plot: PlotOut
    seconds: DisplayOut | None
    blocks: int
    not_checked: list[str]
    left: list[list[float]]


class OwnProgramOut(Schema):
    """A program that somebody wrote for an operation; `moved` where the plan has moved on since."""

    dialect: str
    units: Literal["mm", "inch"]
    text: str
    moved: bool


class LeftOutOut(Schema):
    """An operation that is not in the program of its job, with the reason."""

    number: int
    title: str
    why: Sentence


class JobProgramsOut(Schema):
    """A job's programs in run order."""

    texts: list[ProgramTextOut]
    left_out: list[LeftOutOut]
    seconds: DisplayOut | None
    broken: list[str]
    dangers: list[Sentence]
    not_checked: list[str]


class ProgramsOut(Schema):
    """An operation's programs, with what was not checked."""

    texts: list[ProgramTextOut]
    seconds: DisplayOut
    zero: str
    broken: list[str]
    dangers: list[Sentence]
    not_checked: list[str]
    own: OwnProgramOut | None
