"""Big studies of a whole part over HTTP: begun, watched, stopped; nothing of the job is changed."""

from __future__ import annotations

from contextlib import suppress
from typing import Any, Literal

from django.db import IntegrityError
from django.http import HttpRequest
from ninja import Router, Status

from server.errors import Refusal
from server.jobs.kept import actions
from server.jobs.models import PartStudy
from server.people.roles import require_engineer
from server.release import key_of
from server.schema import Schema
from server.sentences import Sentence
from server.shop import shop
from server.units import DisplayOut
from server.work.tasks import start

router = Router()
State = PartStudy.State
OVER = (State.REFUSED, State.CANCELLED)


class OperationChance(Schema):
    """How often an operation holds, and what breaks it most often; money at 5, 50 and 95 of a hundred."""

    operation: str
    number: int
    title: str
    share: float
    worst: str
    limit: str  # its name, blank where nothing breaks
    worst_share: float
    cost: list[DisplayOut]


class CauseOfSpread(Schema):
    """How far money goes with a quantity that was drawn."""

    name: str
    share: float


class ChancesOut(Schema):
    """A piece over all draws; `cost` and `seconds` at 5, 50 and 95 of a hundred, `edges` of the histogram and `…_money` in money."""

    draws: int
    left_out: int
    planned_money: float
    target_money: float | None
    planned: DisplayOut
    target: DisplayOut | None
    cost: list[DisplayOut]
    seconds: list[DisplayOut]
    edges: list[float]
    counts: list[int]
    all_hold: float
    within_target: float | None
    operations: list[OperationChance]
    causes: list[CauseOfSpread]


class OnMachine(Schema):
    """The part planned on one machine."""

    machine: str
    money: float
    cost: DisplayOut
    seconds: DisplayOut
    sound: int
    of: int
    tools: int
    pockets: int


class WithBest(OnMachine):
    """`other_tools` are operations that another tool than the present one makes best there."""

    other_tools: int
    why: DisplayOut


class MachinesOut(Schema):
    """The part on every machine that may make it."""

    rankings: int
    now: OnMachine
    rows: list[WithBest]


class StudyIn(Schema):
    """What a study of the whole part is asked."""

    kind: Literal["chances", "machines"]


class StudyOut(Schema):
    """A study: `done` of `total` pieces; one of the two results where it is done."""

    id: int
    kind: Literal["chances", "machines"]
    revision: int
    state: Literal["waiting", "running", "previewed", "done", "refused", "cancelled"]
    done: int
    total: int
    seconds: float
    message: Sentence
    chances: ChancesOut | None
    machines: MachinesOut | None


@router.post("/{job_id}/part-studies", response={201: StudyOut})
def begin_study(request: HttpRequest, job_id: int, payload: StudyIn) -> Status:
    """A study of the part as it stands; the same one where it was made already."""
    require_engineer(request)
    revision = actions.newest(job_id)
    key = key_of(payload.kind, revision.pk, shop().version)
    row = PartStudy(job_id=job_id, kind=payload.kind, revision=revision.number, key=key)
    there = PartStudy.objects.filter(key=row.key)
    there.filter(state__in=OVER).delete()  # asked for again, it is tried again
    if not there.exists():
        with suppress(IntegrityError):  # somebody asked at the same moment
            start(row)
    return Status(201, _study(there.get()))


@router.get("/{job_id}/part-studies/{study_id}", response=StudyOut)
def read_study(request: HttpRequest, job_id: int, study_id: int) -> dict[str, Any]:
    """How far a study is, and what it found."""
    return _study(_found(job_id, study_id))


@router.post("/{job_id}/part-studies/{study_id}/cancel", response=StudyOut)
def cancel_study(request: HttpRequest, job_id: int, study_id: int) -> dict[str, Any]:
    """Stop a study; what waits is not begun, what runs ends within a second."""
    require_engineer(request)
    row = PartStudy.objects.filter(pk=_found(job_id, study_id).pk)
    if not row.filter(state=State.WAITING).update(state=State.CANCELLED, message="Stopped on request."):
        row.filter(state=State.RUNNING).update(cancel=True)
    return _study(row.get())


def _found(job_id: int, study_id: int) -> PartStudy:
    found = PartStudy.objects.filter(job_id=job_id, pk=study_id).first()
    if found is None:
        raise Refusal(404, "The job has no such study.")
    return found


def _study(row: PartStudy) -> dict[str, Any]:
    plainly = {name: getattr(row, name) for name in ("id", "kind", "revision", "state", "done", "total", "seconds", "message")}
    return {**plainly, "chances": None, "machines": None, **({row.kind: row.result} if row.state == State.DONE else {})}
