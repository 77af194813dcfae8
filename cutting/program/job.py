"""The program of a whole job: its operations in run order, each from its own path, or why one is not in it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from cutting.errors import CuttingError
from cutting.motion.moves import Arc, Feed, Frame, Helix, Path, Rapid, ThreadPass, ToolChange
from cutting.operations.registry import judged, kind_of
from cutting.program.body import Bar
from cutting.program.check import check
from cutting.program.dialect import Dialect, dialects_for
from cutting.program.finding import Finding
from cutting.program.plot import seconds_of
from cutting.program.read import Executed, execute
from cutting.program.write import JobStep, write_job

TURNED_ROUND = "TURN THE PART ROUND, SET ITS ZERO ANEW"


@dataclass(frozen=True)
class Planned:
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


def job_programs(operations: tuple[Planned, ...], machine: Any, title: str, bar: Bar | None) -> JobPrograms:
    """The programs of a job on a machine. `bar` is its blank in z from the jaws, where it is turned in one clamping."""
    steps, left_out, broken, dangers = list[JobStep](), list[tuple[int, str, str]](), list[str](), dict[str, None]()
    tools: dict[str, int] = {}
    turned, zeros, around = machine.turns, list[float](), False
    for one in operations:
        if isinstance(one.setup, CuttingError):
            left_out.append((one.number, one.title, one.setup.message))
            continue
        outcome, x = judged(one.setup)
        path = kind_of(one.setup.operation).path(x, None)
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
        zeros.append(zero)
    texts = []
    for dialect in dialects_for(turned) if steps else ():
        for inch in (False, True):
            text = write_job(steps, dialect, title, inch)
            found = execute(text, dialect, steps[0].path.start, zeros[0])
            whole = bar if not around and len(set(zeros)) == 1 and all(step.path.frame is Frame.TURNED for step in steps) else None
            texts.append(JobText(dialect, inch, text, check(found, machine, None, whole), found, steps[0].path.start, zeros[0]))
    seconds = seconds_of(texts[0].found, turned, machine) if texts else None
    return JobPrograms(tuple(texts), tuple(left_out), tuple(broken), tuple(dangers), seconds)


def _tool_of(path: Path) -> str:
    """The name of the tool that a path calls."""
    return next((step.name for step in path.steps if isinstance(step, ToolChange)), "")
