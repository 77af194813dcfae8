"""Programs over HTTP: what a text of somebody's own does, of a whole job, and of one that is pasted without a job."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router
from pydantic import Field

from cutting.errors import CuttingError, OutOfRange
from cutting.machine.machines import machines
from cutting.plan.setups import setups
from cutting.program import Chucked, check, dialects, execute, write
from cutting.program.body import findings_of
from cutting.program.job import JobOperation, job_programs
from cutting.program.own import as_data, dialect_of, sample
from cutting.program.plot import plot, seconds_of
from cutting.quantities import Asked, read_asked
from cutting.studies.program import own_program
from server.floor.controls import dialect_named, every_dialect, own_dialects
from server.floor.models import Control
from server.jobs.document.entries import Entry
from server.jobs.document.plan import entry_of, other_end, plan_of, setup_of, the_blank, tried_with
from server.jobs.kept import actions
from server.jobs.schemas.job import TryIn
from server.jobs.schemas.program import FindingOut, JobProgramsOut, ProgramReadOut
from server.jobs.shown.state import state_of
from server.jobs.studies.programs import job_programs_out, read_out
from server.people.roles import require_engineer
from server.schema import Schema
from server.shop import shop

router = Router()
pasted = Router()
MOST_CONTROLS = 40
FAST_ENOUGH = 2500.0  # 1/min of a machine for which a sample is written
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
    dialect = dialect_named(payload.dialect)
    findings, drawn, seconds = own_program(setup_of(document, entry, tried, stock), dialect, payload.text)
    return read_out(findings, drawn, seconds, len(payload.text.splitlines()), dialect.turns)


@router.post("/{job_id}/program", response=JobProgramsOut)
def job_program(request: HttpRequest, job_id: int) -> dict[str, Any]:
    """The program of a whole job, its operations in run order."""
    revision, stock = actions.newest(job_id), shop()
    document = revision.document
    found = setups(plan_of(document), stock.library)
    operations = tuple(
        JobOperation(entry["number"], entry["title"], setup, other_end(entry))
        for entry, setup in zip(document["operations"], found, strict=True)
    )
    blank, machine = the_blank(document), stock.library.machine(document["machine"])
    bar = Chucked(blank.diameter, 0.0, blank.free_length, blank.bore) if machine.turns and not blank.shape else None
    return job_programs_out(job_programs(operations, machine, document["name"], bar, own_dialects()))


class PastedProgramIn(Schema):
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
    """A dialect with its entries; `own` one of the shop's."""

    name: str
    title: str
    turns: bool
    own: bool
    data: dict[str, Any]


class DialectIn(Schema):
    """The entries of a dialect, as they are exported."""

    data: dict[str, Any]


class SampleOut(Schema):
    """A sample in a dialect, in millimetres and inches, and what reading it back found."""

    metric: str
    inch: str
    findings: list[FindingOut]


@pasted.get("/dialects", response=list[DialectOut])
def list_dialects(request: HttpRequest) -> list[dict[str, Any]]:
    """The dialects that are read and written: those that ship, then the shop's own."""
    shipped = {one.name for one in dialects()}
    return [
        {"name": one.name, "title": one.title, "turns": one.turns, "own": one.name not in shipped, "data": as_data(one)}
        for one in every_dialect()
    ]


@pasted.post("/dialects/try", response=SampleOut)
def try_dialect(request: HttpRequest, payload: DialectIn) -> dict[str, Any]:
    """A dialect on a sample, before it is kept."""
    dialect = dialect_of(payload.data)
    path, texts, findings = sample(dialect.turns), [], list[Any]()
    machine = next(one for one in machines() if one.turns == dialect.turns and one.top_speed >= FAST_ENOUGH)
    for inch in (False, True):
        texts.append(write(path, dialect, "sample", inch=inch))
        findings += check(execute(texts[-1], dialect, path.start), machine, path)
    return {"metric": texts[0], "inch": texts[1], "findings": [asdict(one) for one in findings]}


@pasted.put("/dialects", response=DialectOut)
def keep_dialect(request: HttpRequest, payload: DialectIn) -> dict[str, Any]:
    """Keep a dialect of the shop's own under its name; what ships stays as it is."""
    require_engineer(request)
    dialect = dialect_of(payload.data)
    if dialect.name in {one.name for one in dialects()}:
        raise CuttingError("name", "ships with the bench and stays as it is: give your own another name.")
    if not Control.objects.filter(name=dialect.name).exists() and Control.objects.count() >= MOST_CONTROLS:
        raise OutOfRange("name", f"more than {MOST_CONTROLS} dialects of your own.", f"at most {MOST_CONTROLS}")
    Control.objects.update_or_create(name=dialect.name, defaults={"data": as_data(dialect), "changed_by": request.user.get_username()})
    return {"name": dialect.name, "title": dialect.title, "turns": dialect.turns, "own": True, "data": as_data(dialect)}


@pasted.delete("/dialects", response={204: None})
def drop_dialect(request: HttpRequest, name: str) -> tuple[int, None]:
    """Take a dialect of the shop's own away."""
    require_engineer(request)
    if not Control.objects.filter(name=name).delete()[0]:
        raise CuttingError("name", "is no dialect of the shop's own.")
    return 204, None


@pasted.post("/check", response=ProgramReadOut)
def check_pasted(request: HttpRequest, payload: PastedProgramIn) -> dict[str, Any]:
    """What a pasted program does, by itself, on its machine, and to its bar where one is told."""
    dialect, machine = dialect_named(payload.dialect), shop().library.machine(payload.machine)
    bar = _bar(payload) if dialect.turns else None
    start = (1.5 * bar.diameter, 0.0, bar.face + bar.diameter) if bar else (0.0, 0.0, 100.0)
    found = execute(payload.text, dialect, start)
    left = findings_of(found.runs, bar, air=False)[1].profile() if bar else ()
    findings = check(found, machine, None, bar)
    return read_out(findings, plot(found), seconds_of(found, dialect.turns, machine), found.lines, dialect.turns, left)


def _bar(payload: PastedProgramIn) -> Chucked | None:
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
    return Chucked(found["diameter"], face - found["length"], face, found["bore"] or 0.0, (half, half))
