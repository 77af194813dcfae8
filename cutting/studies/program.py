"""The program of an operation in every dialect that its machine may speak, read back and checked against what is planned."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from cutting.motion.clock import clock
from cutting.motion.moves import Frame, Path
from cutting.operations.registry import KINDS, judged, kind_of
from cutting.program import Dialect, Finding, check, execute, write
from cutting.program.dialect import dialects_for
from cutting.program.entering import body_of, entering
from cutting.program.job import TURNED_KINDS, on_axis
from cutting.program.plot import Plot, plot, seconds_of
from cutting.studies.study import Study


@dataclass(frozen=True)
class ProgramText:
    """A program in one dialect and system of units: its text, and what reading it back found."""

    dialect: Dialect
    inch: bool
    text: str
    findings: tuple[Finding, ...]


@dataclass(frozen=True)
class Programs:
    """An operation's programs, the seconds of its path, where z is zero in words, and its broken limits and gravest warnings."""

    texts: tuple[ProgramText, ...]
    seconds: float
    zero: str
    broken: tuple[str, ...]
    dangers: tuple[str, ...]  # warnings of what maims, in full


def programs_of(setup: Any, stock: Any = None, own: tuple[Dialect, ...] = ()) -> Programs:
    """The programs of a set-up's own path, in what ships and in the shop's `own` dialects. Raises `CuttingError`."""
    outcome, x = judged(setup)
    path = _path(setup, x)
    turned = path.frame is Frame.TURNED
    face = float(getattr(setup.holding, "face", 0.0) or 0.0) if turned else 0.0
    zero = "the finished face" if face else "the jaws" if turned and setup.operation != "face groove" else "the face where it begins"
    number = KINDS[setup.operation].title
    found = []
    turns = turned or (setup.machine.turns and on_axis(path))
    for dialect in (*dialects_for(turns), *(one for one in own if one.turns == turns)):
        for inch in (False, True):
            text = write(path, dialect, number, zero=face, inch=inch)
            found.append(ProgramText(dialect, inch, text, check(execute(text, dialect, path.start, face), setup.machine, path)))
    broken = tuple(one.label for one in outcome.limits if one.broken and one.severity.value == "hard")
    return Programs(
        tuple(found), clock(path, setup.machine).total, zero, broken, tuple(one.text for one in outcome.warnings if one.harm == "danger")
    )


def _path(setup: Any, x: Any) -> Path:
    """How the tool goes, entering at a feed where the part in front of it stands in the way."""
    path = kind_of(setup.operation).path(x, None)
    body = body_of(setup) if setup.operation in TURNED_KINDS else None
    return path if body is None else entering(path, body)


def own_program(setup: Any, spoken: Dialect, text: str) -> tuple[tuple[Finding, ...], Plot, float | None]:
    """What a text of somebody's own does in place of the planned one: its findings beside the plan, its ways and seconds.

    Raises `CuttingError`.
    """
    _, x = judged(setup)
    path = _path(setup, x)
    turned = path.frame is Frame.TURNED
    face = float(getattr(setup.holding, "face", 0.0) or 0.0) if turned else 0.0
    done = execute(text, spoken, path.start, face)
    return check(done, setup.machine, path), plot(done), seconds_of(done, spoken.turns, setup.machine)


STUDY = Study("program", "program", "i", tuple(KINDS), ask=programs_of)
