"""The program of a whole job: its operations in run order, each from its own path, or why one is not in it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from cutting.errors import CuttingError
from cutting.motion.moves import Arc, Feed, Frame, Helix, Path, Rapid, ThreadPass, ToolChange
from cutting.operations.registry import judged, kind_of
from cutting.program.body import Chucked, TurnedBody
from cutting.program.check import check
from cutting.program.dialect import Dialect, dialects_for
from cutting.program.entering import entering
from cutting.program.finding import Finding
from cutting.program.plot import seconds_of
from cutting.program.read import Executed, execute
from cutting.program.write import JobStep, write_job

TURNED_KINDS = ("turn", "face")
FROM_THE_FACE = ("face groove",)  # kinds whose path begins at the face, not at the jaws
TURNED_ROUND = "TURN THE PART ROUND, SET ITS ZERO ANEW"


@dataclass(frozen=True)
class JobOperation:
    """An operation of a job: number, title, its set-up or why there is none, and whether the part is turned round for it."""

    number: int
    title: str
    setup: Any  # or a CuttingError
    around: bool


@dataclass(frozen=True)
class JobText:
    """A job's program in one dialect and system of units, what reading it found, and what it does."""

    dialect: Dialect
    inch: bool
    text: str
    findings: tuple[Finding, ...]
    found: Executed
    start: tuple[float, float, float]
    zero: float


@dataclass(frozen=True)
class JobPrograms:
    """A job's programs; the operations that are left out with their reasons, those over a limit, its seconds, the gravest warnings."""

    texts: tuple[JobText, ...]
    left_out: tuple[tuple[int, str, str], ...]
    broken: tuple[str, ...]
    dangers: tuple[str, ...]
    seconds: float | None


def on_axis(path: Path) -> bool:
    """Whether a tool in a hole never leaves its axis: a lathe goes there with its two slides."""
    places = [path.start, *(step.to for step in path.steps if isinstance(step, Rapid | Feed | Arc | Helix | ThreadPass))]
    return all(x == 0.0 and y == 0.0 for x, y, _ in places)


def job_programs(
    operations: tuple[JobOperation, ...], machine: Any, title: str, bar: Chucked | None, own: tuple[Dialect, ...] = ()
) -> JobPrograms:
    """The programs of a job on a machine, in what ships and in the shop's `own` dialects.

    `bar` is its blank in z from the jaws, where it is turned in one clamping.
    """
    steps, left_out, broken, dangers = list[JobStep](), list[tuple[int, str, str]](), list[str](), dict[str, None]()
    tools: dict[str, int] = {}
    body = TurnedBody(bar) if bar is not None else None
    turned, places, around = machine.turns, list[_Place](), False
    for one in operations:
        if isinstance(one.setup, CuttingError):
            left_out.append((one.number, one.title, one.setup.message))
            continue
        outcome, x = judged(one.setup)
        path = kind_of(one.setup.operation).path(x, None)
        if body is not None and path.frame is Frame.TURNED and not one.around and one.setup.operation in TURNED_KINDS:
            path = entering(path, body)
        if turned and path.frame is not Frame.TURNED and not on_axis(path):
            left_out.append((one.number, one.title, "driven tools are written in a program of their own: open it at the operation"))
            continue
        broken += [
            f"{one.number} {one.title}: {limit.label}" for limit in outcome.limits if limit.broken and limit.severity.value == "hard"
        ]
        dangers |= dict.fromkeys(warning.text for warning in outcome.warnings if warning.harm == "danger")
        zero = float(getattr(one.setup.holding, "face", 0.0) or 0.0) if path.frame is Frame.TURNED else 0.0
        halt = TURNED_ROUND if one.around and not around else ""
        around = around or one.around
        number = tools.setdefault(_tool_of(path) or one.title, len(tools) + 1)
        steps.append(JobStep(one.number, one.title, path, number, zero, halt))
        places.append(
            _Place(one.around, one.setup.operation in FROM_THE_FACE, float(getattr(one.setup.holding, "free_length", 0.0) or 0.0))
        )
    steps = _from_one_home(_from_one_zero(steps, places))
    zero = next((step.zero for step in steps if step.zero > 0.0), 0.0)
    texts = []
    for dialect in (*dialects_for(turned), *(one for one in own if one.turns == turned)) if steps else ():
        for inch in (False, True):
            text = write_job(steps, dialect, title, inch)
            found = execute(text, dialect, steps[0].path.start, zero)
            whole = bar if not around and all(step.path.frame is Frame.TURNED for step in steps) else None
            texts.append(JobText(dialect, inch, text, check(found, machine, None, whole), found, steps[0].path.start, zero))
    seconds = seconds_of(texts[0].found, turned, machine) if texts else None
    return JobPrograms(tuple(texts), tuple(left_out), tuple(broken), tuple(dangers), seconds)


@dataclass(frozen=True)
class _Place:
    """Where a step is told from: its clamping, whether its own path begins at the face, and how far the part stands out [mm]."""

    around: bool
    from_face: bool
    stands_out: float


def _from_one_zero(steps: list[JobStep], places: list[_Place]) -> list[JobStep]:
    """The steps told from one zero for each clamping: the finished face, where one of its operations makes it; else the jaws."""
    faces: dict[bool, float] = {}
    for step, place in zip(steps, places, strict=True):
        if step.zero and step.path.frame is Frame.TURNED and not place.from_face:
            faces[place.around] = step.zero
    found = []
    for step, place in zip(steps, places, strict=True):
        face = faces.get(place.around, 0.0)
        if step.path.frame is not Frame.TURNED:
            found.append(step)
        elif place.from_face:  # its own zero is the face already
            found.append(replace(step, zero=0.0 if face else -place.stands_out))
        else:
            found.append(replace(step, zero=face))
    return found


def _from_one_home(steps: list[JobStep]) -> list[JobStep]:
    """The steps with one place for all at which tools are changed: clear of everything that any of them passes."""
    found = []
    for step in steps:
        alike = [one.path.start for one in steps if one.path.frame is step.path.frame]
        home = (max(place[0] for place in alike), 0.0, max(place[2] for place in alike))
        found.append(replace(step, path=replace(step.path, start=home, steps=(*step.path.steps, Rapid(home)))))
    return found


def _tool_of(path: Path) -> str:
    """The name of the tool that a path calls."""
    return next((step.name for step in path.steps if isinstance(step, ToolChange)), "")
