"""The clinic over HTTP: of a kind of operation, or of an operation of a job with its own numbers."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router, Status

from cutting.clinic.changes import offer
from cutting.clinic.suspects import case_of, case_of_kind, diagnose
from cutting.clinic.words import cause as find_cause
from cutting.clinic.words import look, symptom
from server.clinic import schemas
from server.clinic.models import Trouble
from server.clinic.shown import diagnosis_out, offer_out, trouble_out, ward_out, weights
from server.jobs.choice.turns import quick, turn
from server.jobs.document.outcomes import outcome_of
from server.jobs.document.plan import entry_of, request_of, setup_of
from server.jobs.kept import actions
from server.people.roles import require_operator
from server.shop import Shop, shop

router = Router()
of_jobs = Router()
MOST_TOLD = 100  # outcomes of one operation that are listed


@router.get("/{kind}", response=schemas.WardOut)
def read_ward(request: HttpRequest, kind: str) -> dict[str, Any]:
    """Symptoms, looks and causes of a kind of operation."""
    return ward_out(kind)


@router.post("/{kind}/suspects", response=schemas.DiagnosisOut)
def suspect_kind(request: HttpRequest, kind: str, payload: schemas.SeenIn) -> dict[str, Any]:
    """What may be behind it where nothing is known of the operation but its kind."""
    learned = weights(kind)
    case = case_of_kind(kind, {name: one.factor for name, one in learned.items()})
    return diagnosis_out(diagnose(case, payload.seen, payload.answers), learned)


@of_jobs.post("/{job_id}/operations/{operation}/suspects", response=schemas.DiagnosisOut)
def suspect(request: HttpRequest, job_id: int, operation: str, payload: schemas.SeenIn) -> dict[str, Any]:
    """What may be behind it, weighed with this operation's own numbers."""
    with quick():
        setup = _setup(job_id, operation, shop())
        learned = weights(setup.operation)
        case = case_of(setup, outcome_of(setup), {name: one.factor for name, one in learned.items()})
        return diagnosis_out(diagnose(case, payload.seen, payload.answers), learned)


@of_jobs.post("/{job_id}/operations/{operation}/suspects/{cause}", response=schemas.ClinicOfferOut)
def offer_change(request: HttpRequest, job_id: int, operation: str, cause: str) -> dict[str, Any]:
    """The change that a cause asks for, run on this operation."""
    stock = shop()
    with turn(request, f"offer {cause}"):
        setup = _setup(job_id, operation, stock)
        document, entry = entry_of(actions.newest(job_id).document, operation)
        _, crib = request_of(document, entry, None, stock)
        return offer_out(offer(setup, find_cause(setup.operation, cause), crib, outcome_of(setup)))


@of_jobs.get("/{job_id}/operations/{operation}/troubles", response=list[schemas.TroubleOut])
def list_troubles(request: HttpRequest, job_id: int, operation: str) -> list[dict[str, Any]]:
    """Causes that were acted on in this operation, the newest first."""
    entry_of(actions.newest(job_id).document, operation)
    found = Trouble.objects.filter(job_id=job_id, operation=operation).select_related("author")
    return [trouble_out(one) for one in found[:MOST_TOLD]]


@of_jobs.post("/{job_id}/operations/{operation}/troubles", response={201: schemas.TroubleOut})
def log_trouble(request: HttpRequest, job_id: int, operation: str, payload: schemas.TroubleIn) -> Status:
    """Keep how a cause's change turned out: it moves what is suspected next time."""
    require_operator(request)
    revision = actions.newest(job_id)
    _, entry = entry_of(revision.document, operation)
    kind = entry["operation"]
    find_cause(kind, payload.cause)
    for name in payload.seen:
        symptom(kind, name)
    for name in payload.answers:
        look(kind, name)
    kept = Trouble.objects.create(
        job_id=job_id, operation=operation, revision=revision.number, kind=kind, cause=payload.cause, seen=payload.seen,
        answers=payload.answers, turned_out=payload.turned_out, words=payload.words.strip(), author=request.user,
    )  # fmt: skip
    return Status(201, trouble_out(kept))


def _setup(job_id: int, operation: str, stock: Shop) -> Any:
    """An operation's set-up as it stands. Raises `Refusal` or `CuttingError`."""
    document, entry = entry_of(actions.newest(job_id).document, operation)
    return setup_of(document, entry, None, stock)
