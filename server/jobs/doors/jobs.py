"""Jobs over HTTP. Thin: loads, calls the core, stores."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import File, Router, Status
from ninja.files import UploadedFile
from pydantic import TypeAdapter

from cutting.doors.plain import plain
from cutting.errors import CuttingError
from cutting.operations.frame.fields import Field
from cutting.operations.registry import KINDS, relax, with_remedies
from cutting.quantities import display, refuse_long
from cutting.studies.registry import studies_of
from server.crib.assemblies import set_up_on
from server.errors import Refusal
from server.jobs.choice.rankings import ranked
from server.jobs.choice.turns import quick, turn
from server.jobs.document.drawing import in_either_units
from server.jobs.document.entries import either_units
from server.jobs.document.outcomes import outcome_and_numbers
from server.jobs.document.plan import entry_of, request_of, setup_of, tried_with, way_of
from server.jobs.kept import actions
from server.jobs.kept.reckonings import keep, listed
from server.jobs.kept.uses import accept, what_would_change
from server.jobs.measured.measuring import ask_about_doubts, read_measurement
from server.jobs.models import Measurement, Note, Print, Revision
from server.jobs.schemas import job as schemas
from server.jobs.schemas import operation as operation_schemas
from server.jobs.shown.cautions import discontinued, dismiss, mark_dismissed, restore
from server.jobs.shown.evaluated import evaluated
from server.jobs.shown.present import ToolsInPlace, advice_out, standing_of
from server.jobs.shown.prints import drawn_anew, picture_of
from server.jobs.shown.state import state_of
from server.people.roles import require_engineer, require_operator
from server.schema import as_json
from server.shop import Shop, shop

router, kinds = Router(), Router()
EVALUATION, FOLLOWING = TypeAdapter(operation_schemas.EvaluationOut), TypeAdapter(schemas.FollowOut)
JOBS = TypeAdapter(schemas.JobPage)
OPEN_FORMATS = {b"%PDF-": "application/pdf", b"\x89PNG\r\n\x1a\n": "image/png", b"\xff\xd8\xff": "image/jpeg"}
MOST_BYTES = 10 * 1024 * 1024
MOST_LISTED = 200


@router.get("", response=schemas.JobPage)
def list_jobs(request: HttpRequest, q: str = "", archived: bool = False, offset: int = 0, limit: int = 50) -> HttpResponse:
    """Jobs at work or in the archive by words of part, material and machine, so many at a time; what needs attention first."""
    matched, rows = listed(q, archived, min(max(offset, 0), 1_000_000), min(max(limit, 1), MOST_LISTED))
    return as_json(JOBS, {"matched": matched, "rows": rows})


@router.post("", response={201: schemas.JobOut})
def add_job(request: HttpRequest, payload: schemas.JobIn) -> Status:
    """A new job on a bar or blank, without operations yet."""
    require_engineer(request)
    return Status(201, _saved(actions.newest(actions.start_job(payload.dict(), request.user).pk)))


@kinds.get("", response=list[operation_schemas.OperationKindOut])
def list_kinds(request: HttpRequest) -> list[dict[str, Any]]:
    """The kinds of operation with the fields that each asks for."""
    return [
        {
            "name": kind.name,
            "title": kind.title,
            "shape": kind.shape,
            "studies": [one.name for one in studies_of(kind.name)],
            **{
                section: [_field(one) for one in getattr(kind.fields, section) if one.asked]
                for section in ("feature", "settings", "holding")
            },
        }
        for kind in KINDS.values()
    ]


def _field(one: Field) -> dict[str, Any]:
    plainly = {name: getattr(one, name) for name in ("name", "label", "kind", "example", "required", "drawn")}
    return {**plainly, "options": list(one.options), "default": "" if one.default is None else str(one.default)}


@router.post("/{job_id}/copy", response={201: schemas.JobOut})
def copy_job(request: HttpRequest, job_id: int) -> Status:
    """The job once more, to be changed on its own."""
    require_engineer(request)
    return Status(201, _saved(actions.newest(actions.copy_job(job_id, request.user).pk)))


@router.post("/{job_id}/archive", response={204: None})
def archive_job(request: HttpRequest, job_id: int, payload: schemas.ArchiveIn) -> Status:
    """Put the job away, or take it back to work."""
    require_engineer(request)
    actions.archive_job(job_id, payload.archived)
    return Status(204, None)


@router.get("/{job_id}/pulse", response=schemas.RevisionRow)
def read_pulse(request: HttpRequest, job_id: int) -> dict[str, Any]:
    """The newest revision in one line: asked every other second by whoever has the job open."""
    found = Revision.objects.filter(job_id=job_id).select_related("author").defer("document").order_by("-number").first()
    if found is None:
        raise Refusal(404, "There is no such job.")
    return _revision(found)


@router.get("/{job_id}", response=schemas.JobOut)
def read_job(request: HttpRequest, job_id: int) -> dict[str, Any]:
    """A job with its state."""
    return _job(actions.newest(job_id))


@router.post("/{job_id}/edits", response=schemas.JobOut)
def edit_job(request: HttpRequest, job_id: int, payload: schemas.EditIn) -> dict[str, Any]:
    """Apply one edit; a stale one is answered 409 with both versions."""
    require_engineer(request)
    return _saved(actions.save_edit(job_id, payload.base_revision, payload.edit, request.user))


@router.post("/{job_id}/undo", response=schemas.JobOut)
def undo_job(request: HttpRequest, job_id: int, payload: schemas.BaseIn) -> dict[str, Any]:
    """Take the last change back."""
    require_engineer(request)
    return _saved(actions.undo(job_id, payload.base_revision, request.user))


@router.post("/{job_id}/redo", response=schemas.JobOut)
def redo_job(request: HttpRequest, job_id: int, payload: schemas.BaseIn) -> dict[str, Any]:
    """Bring back what was taken back."""
    require_engineer(request)
    return _saved(actions.redo(job_id, payload.base_revision, request.user))


@router.get("/{job_id}/revisions", response=list[schemas.RevisionRow])
def list_revisions(request: HttpRequest, job_id: int) -> list[dict[str, Any]]:
    """All revisions of a job, the newest first."""
    actions.newest(job_id)
    found = Revision.objects.filter(job_id=job_id).select_related("author").defer("document")[:200]
    return [_revision(one) for one in found]


def _revision(one: Revision) -> dict[str, Any]:
    return {"number": one.number, "gesture": one.gesture, "author": one.author.get_username(), "at": one.at}


@router.post("/{job_id}/operations/{operation}/evaluate", response=operation_schemas.EvaluationOut)
def evaluate_operation(request: HttpRequest, job_id: int, operation: str, payload: schemas.TryIn) -> HttpResponse:
    """The live loop: evaluate with values to try; nothing is saved."""
    with quick():
        return evaluate_now(request, job_id, operation, payload)


def evaluate_now(request: HttpRequest, job_id: int, operation: str, payload: schemas.TryIn) -> HttpResponse:
    """An operation as it is being tried: what repaints at once."""
    revision, stock = actions.judged_now(job_id), shop()
    document, entry = _entry(job_id, operation, revision)
    setup = setup_of(document, entry, _tried(payload, revision, stock), stock)
    shown = evaluated(document, {**entry, "settings": {**entry["settings"], **payload.settings}}, setup, payload.units, stock)
    shown["warnings"] += discontinued({**entry, "tool": {**entry["tool"], **payload.tool}})
    answer = mark_dismissed(shown, job_id, request.user)
    return as_json(EVALUATION, answer)


@router.post("/{job_id}/operations/{operation}/follow", response=schemas.FollowOut)
def follow_operation(request: HttpRequest, job_id: int, operation: str, payload: schemas.TryIn) -> HttpResponse:
    """What may follow within a second: remedies, the ranking, and the whole part's tape with the values tried."""
    with turn(request):
        return as_json(FOLLOWING, follow_job(job_id, operation, payload))


def follow_job(job_id: int, operation: str, payload: schemas.TryIn) -> dict[str, Any]:
    """What follows when the hand rests: ranking, remedies, tape."""
    revision, stock = actions.judged_now(job_id), shop()
    document, entry = _entry(job_id, operation, revision)
    tried = _tried(payload, revision, stock)
    request_setup, crib = request_of(document, entry, tried, stock)
    tool, way = {**entry["tool"], **payload.tool}, way_of(entry, payload.settings)
    touched = any((payload.settings, payload.holding, payload.tool))
    overrides = {operation: payload.dict()} if touched else None
    setup = None
    try:
        setup = setup_of(document, entry, tried, stock)
        found, numbers = outcome_and_numbers(setup)
        outcome = with_remedies(found, setup, crib, numbers)
        remedies = {limit.name: plain(limit.remedies) for limit in outcome.limits if limit.remedies}
        faster = plain(outcome.faster)
    except CuttingError:  # the present tool may not suit the metal at all; the ranking is the remedy then
        remedies, faster = {}, []
    return {
        "advice": advice_out(ranked(request_setup, crib, stock), tool, way, _standing(document, entry, stock)),
        "state": state_of(revision, overrides, stock, {operation: setup} if setup else None),
        "remedies": remedies,
        "faster": faster,
    }


def _standing(document: dict[str, Any], entry: dict[str, Any], stock: Shop) -> ToolsInPlace:
    places = int(stock.library.machine(document["machine"]).pockets)
    return standing_of(document, entry, places, set_up_on(document["machine"]))


@router.post("/{job_id}/operations/{operation}/limits/{limit}/relax", response=list[operation_schemas.RemedyOut])
def relax_limit(request: HttpRequest, job_id: int, operation: str, limit: str, payload: schemas.TryIn) -> list[dict[str, Any]]:
    """What would move one limit, with what each change brings."""
    revision, stock = actions.newest(job_id), shop()
    document, entry = _entry(job_id, operation, revision)
    tried = _tried(payload, revision, stock)
    _, crib = request_of(document, entry, tried, stock)
    return [plain(remedy) for remedy in relax(setup_of(document, entry, tried, stock), limit, crib)]


@router.get("/{job_id}/stale", response=schemas.StaleOut)
def read_stale(request: HttpRequest, job_id: int) -> dict[str, Any]:
    """What changed under a job since somebody last looked, and what that changes in it."""
    job = actions.newest(job_id).job
    return {"reasons": job.stale, "changes": what_would_change(job) if job.stale else []}


@router.post("/{job_id}/stale/accept", response=schemas.StaleOut)
def accept_stale(request: HttpRequest, job_id: int) -> dict[str, Any]:
    """Take the present figures as the job's own."""
    require_engineer(request)
    accept(actions.newest(job_id).job)
    return {"reasons": [], "changes": []}


@router.post("/{job_id}/cautions/dismiss", response={204: None})
def dismiss_caution(request: HttpRequest, job_id: int, payload: operation_schemas.DismissIn) -> Status:
    """A person has read a caution; it stays away on this job until its risk changes."""
    dismiss(actions.newest(job_id).job, request.user, payload.name, payload.risk)
    return Status(204, None)


@router.post("/{job_id}/cautions/restore", response={204: None})
def restore_cautions(request: HttpRequest, job_id: int) -> Status:
    """Show a person all cautions of a job again."""
    restore(actions.newest(job_id).job, request.user)
    return Status(204, None)


@router.get("/{job_id}/notes", response=list[schemas.NoteOut])
def list_notes(request: HttpRequest, job_id: int) -> list[dict[str, Any]]:
    """The log of an operation."""
    actions.newest(job_id)
    return [_note(n) for n in Note.objects.filter(job_id=job_id).select_related("author")]


@router.post("/{job_id}/notes", response={201: schemas.NoteOut})
def write_note(request: HttpRequest, job_id: int, payload: schemas.NoteIn) -> Status:
    """A line more in the log."""
    require_operator(request)
    actions.newest(job_id)
    return Status(201, _note(Note.objects.create(job_id=job_id, author=request.user, **payload.dict())))


@router.get("/{job_id}/measurements", response=list[schemas.MeasurementOut])
def list_measurements(request: HttpRequest, job_id: int) -> list[dict[str, Any]]:
    """The readings of an operation."""
    actions.newest(job_id)
    return [_measurement(m) for m in Measurement.objects.filter(job_id=job_id).select_related("author")]


@router.post("/{job_id}/measurements", response={201: schemas.MeasurementOut})
def write_measurement(request: HttpRequest, job_id: int, payload: schemas.MeasurementIn) -> Status:
    """A commanded and a measured diameter after a pass; a doubtful reading is asked about before it is kept."""
    require_operator(request)
    revision = actions.newest(job_id)
    document, entry = _entry(job_id, payload.operation, revision)
    fields, given = read_measurement(payload, document, entry)
    if not payload.sure:
        ask_about_doubts(job_id, document, entry, given)
    return Status(201, _measurement(Measurement.objects.create(job_id=job_id, author=request.user, **fields)))


@router.delete("/{job_id}/measurements/{measurement_id}", response={204: None})
def drop_measurement(request: HttpRequest, job_id: int, measurement_id: int) -> Status:
    """Take back a size that was written down wrongly: one's own, or any where one is an engineer."""
    require_operator(request)
    found = get_object_or_404(Measurement, pk=measurement_id, job_id=job_id)
    if found.author_id != request.user.pk:
        require_engineer(request)
    found.delete()
    return Status(204, None)


@router.post("/{job_id}/prints", response={201: schemas.PrintRow})
def add_print(request: HttpRequest, job_id: int, file: UploadedFile = File(...)) -> Status:  # noqa: B008
    """Keep a drawing with the job: PDF, PNG or JPEG up to 10 MiB."""
    require_engineer(request)
    actions.newest(job_id)
    if (file.size or 0) > MOST_BYTES:
        raise Refusal(413, "file: larger than 10 MiB.", [{"field": "file", "message": "larger than its bound", "bound": "10 MiB"}])
    content = file.read()
    media = next((media for magic, media in OPEN_FORMATS.items() if content.startswith(magic)), None)
    if media is None:
        raise Refusal(422, "file: not a PDF, PNG or JPEG.", [{"field": "file", "message": "choose a PDF, PNG or JPEG"}])
    name = refuse_long(file.name or "print", 160, "file")
    made = Print.objects.create(job_id=job_id, name=name, media_type=media, content=drawn_anew(content, media), author=request.user)
    return Status(201, made)


@router.get("/{job_id}/prints/{print_id}")
def read_print(request: HttpRequest, job_id: int, print_id: int) -> HttpResponse:
    """A drawing that was taken in, as a file."""
    found = get_object_or_404(Print, pk=print_id, job_id=job_id)
    answer = HttpResponse(bytes(found.content), content_type=found.media_type)
    answer["Content-Disposition"] = f'attachment; filename="print-{found.pk}"'
    return answer


@router.get("/{job_id}/prints/{print_id}/picture")
def read_print_picture(request: HttpRequest, job_id: int, print_id: int) -> HttpResponse:
    """The print as a picture to look at: the first page of a PDF, or the picture itself."""
    found = get_object_or_404(Print, pk=print_id, job_id=job_id)
    content, media = picture_of(found)
    return HttpResponse(content, content_type=media)


def _entry(job_id: int, operation: str, revision: Revision | None = None) -> tuple[dict[str, Any], dict[str, Any]]:
    return entry_of((revision or actions.newest(job_id)).document, operation)


def _tried(payload: schemas.TryIn, revision: Revision, stock: Shop) -> dict[str, Any]:
    return tried_with(payload.dict(), revision.document, lambda: state_of(revision, None, stock)["tape"]["seconds"])


def _saved(revision: Revision) -> dict[str, Any]:
    """A job that was just written; what it comes to is kept for the lists."""
    stock = shop()
    keep(revision, stock)
    return _job(revision, stock)


def _job(revision: Revision, stock: Shop | None = None) -> dict[str, Any]:
    return {
        "id": revision.job_id,
        "revision": revision.number,
        "gesture": revision.gesture,
        "author": revision.author.get_username(),
        "at": revision.at,
        "can_undo": revision.before is not None,
        "can_redo": bool(revision.redo),
        "document": revision.document,
        "either": either_units(revision.document),
        "sizes": in_either_units(revision.document),
        "state": state_of(revision, None, stock),
        "stale": len(revision.job.stale),
        "archived": revision.job.archived_at is not None,
        "prints": list(Print.objects.filter(job_id=revision.job_id).defer("content", "picture")),
    }


def _note(n: Note) -> dict[str, Any]:
    return {"id": n.pk, "operation": n.operation, "text": n.text, "author": n.author.get_username(), "at": n.at}


def _measurement(m: Measurement) -> dict[str, Any]:
    return {
        "id": m.pk,
        "operation": m.operation,
        "pass_number": m.pass_number,
        "commanded": display(m.commanded, "length"),
        "measured": display(m.measured, "length"),
        "difference": display((m.measured - m.commanded) * 1000, "small_length"),
        "piece": m.piece,
        "temperature": m.temperature,
        "author": m.author.get_username(),
        "at": m.at,
    }
