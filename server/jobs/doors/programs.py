"""Programs over HTTP: what a text of somebody's own does, of a whole job, and of one that is pasted without a job."""

from __future__ import annotations

from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router
from pydantic import Field

from cutting.errors import CuttingError
from cutting.plan.setups import setups
from cutting.program import Bar, check, execute
from cutting.program.body import findings_of
from cutting.program.dialect import dialects, find_dialect
from cutting.program.job import Planned, job_programs
from cutting.program.plot import plot, seconds_of
from cutting.quantities import Asked, read_asked
from cutting.studies.program import own_program
from server.jobs.document.entries import Entry
from server.jobs.document.plan import entry_of, other_end, plan_of, setup_of, the_blank, tried_with
from server.jobs.kept import actions
from server.jobs.schemas.job import TryIn
from server.jobs.schemas.study import JobProgramsOut, ProgramReadOut
from server.jobs.shown.state import state_of
from server.jobs.studies.programs import job_programs_out, read_out
from server.schema import Schema
from server.shop import shop

router = Router()
pasted = Router()
MOST_TEXT = 2_400_000  # letters: about 100,000 blocks
DIAMETER = Asked("blank Ø", "length", 0.5, 3000.0)
LENGTH = Asked("stick-out from jaws", "length", 0.5, 5000.0)
BORE = Asked("bore", "length", 0.0, 2900.0)
EDGE = Asked("width of the edge", "length", 0.0, 100.0)


class ProgramCheckIn(TryIn):
    """A text in a dialect, in place of the planned program."""

    dialect: str = Field(max_length=40)
    text: str = Field(max_length=MOST_TEXT)


@router.post("/{job_id}/operations/{operation}/program-check", response=ProgramReadOut)
def check_program(request: HttpRequest, job_id: int, operation: str, payload: ProgramCheckIn) -> dict[str, Any]:
    """What a text does in place of an operation's planned program."""
    revision, stock = actions.newest(job_id), shop()
    document, entry = entry_of(revision.document, operation)
    given = {name: value for name, value in payload.dict().items() if name not in ("dialect", "text")}
    tried = tried_with(given, revision.document, lambda: state_of(revision)["tape"]["seconds"])
    findings, drawn, seconds = own_program(setup_of(document, entry, tried, stock), payload.dialect, payload.text)
    return read_out(findings, drawn, seconds, len(payload.text.splitlines()), find_dialect(payload.dialect).turns)


@router.post("/{job_id}/program", response=JobProgramsOut)
def job_program(request: HttpRequest, job_id: int) -> dict[str, Any]:
    """The program of a whole job, its operations in run order."""
    revision, stock = actions.newest(job_id), shop()
    document = revision.document
    found = setups(plan_of(document), stock.library)
    operations = tuple(
        Planned(entry["number"], entry["title"], setup, other_end(entry))
        for entry, setup in zip(document["operations"], found, strict=True)
    )
    blank, machine = the_blank(document), stock.library.machine(document["machine"])
    bar = Bar(blank.diameter, 0.0, blank.free_length, blank.bore) if machine.turns and not blank.shape else None
    return job_programs_out(job_programs(operations, machine, document["name"], bar))


class PastedIn(Schema):
    """A text without a job: for which control and machine, and what is in the chuck; its zero is the face or the jaws."""

    text: str = Field(max_length=MOST_TEXT)
    dialect: str = Field(max_length=40)
    machine: str = Field(max_length=120)
    diameter: Entry = None
    length: Entry = None
    bore: Entry = None
    edge: Entry = None
    zero: Literal["face", "jaws"] = "face"
    units: Literal["mm", "inch"] = "mm"


class DialectOut(Schema):
    """A dialect, for lathes or for machines that turn the tool."""

    name: str
    title: str
    turns: bool


@pasted.get("/dialects", response=list[DialectOut])
def every_dialect(request: HttpRequest) -> list[dict[str, Any]]:
    """The dialects that are read and written."""
    return [{"name": one.name, "title": one.title, "turns": one.turns} for one in dialects()]


@pasted.post("/check", response=ProgramReadOut)
def check_pasted(request: HttpRequest, payload: PastedIn) -> dict[str, Any]:
    """What a pasted program does, by itself, on its machine, and to its bar where one is told."""
    dialect, machine = find_dialect(payload.dialect), shop().library.machine(payload.machine)
    bar = _bar(payload) if dialect.turns else None
    start = (1.5 * bar.diameter, 0.0, bar.face + bar.diameter) if bar else (0.0, 0.0, 100.0)
    found = execute(payload.text, dialect, start)
    left = findings_of(found.runs, bar, air=False)[1].profile() if bar else ()
    findings = check(found, machine, None, bar)
    return read_out(findings, plot(found), seconds_of(found, dialect.turns, machine), found.lines, dialect.turns, left)


def _bar(payload: PastedIn) -> Bar | None:
    """What is in the chuck, in the program's own z; None where nothing of it is told. Raises `CuttingError` by field."""
    system = "inch" if payload.units == "inch" else "metric"
    said = {"diameter": DIAMETER, "length": LENGTH, "bore": BORE, "edge": EDGE}
    typed = {name: getattr(payload, name) for name in said}
    found = {name: None if typed[name] in (None, "") else read_asked(typed[name], asked, system, name) for name, asked in said.items()}
    if not found["diameter"] or not found["length"]:
        if any(found.values()):
            raise CuttingError("diameter" if not found["diameter"] else "length", "is needed with the others to know what is in the chuck.")
        return None
    if (found["bore"] or 0.0) >= found["diameter"]:
        raise CuttingError("bore", "is not smaller than the blank.")
    face = 0.0 if payload.zero == "face" else found["length"]
    half = (found["edge"] or 0.0) / 2.0
    return Bar(found["diameter"], face - found["length"], face, found["bore"] or 0.0, (half, half))
