"""Changes of a job: permission is checked by the caller's door, validation, write and history are here."""

from __future__ import annotations

from datetime import datetime
from functools import lru_cache
from typing import Any

from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction
from django.utils import timezone

from cutting.errors import CuttingError
from server.errors import Refusal
from server.jobs.document.differences import differences
from server.jobs.document.plan import Document, checked, readable, told_of
from server.jobs.document.stock import blank_of, check_stock
from server.jobs.edits import Edit, edited
from server.jobs.kept.uses import keep_uses
from server.jobs.models import Job, Revision
from server.shop import Shop, shop


class Stale(Refusal):
    """The edit started from an older revision; both versions are in the answer."""

    def __init__(self, base: int, current: Revision, yours: dict[str, Any] | None, started: dict[str, Any] | None = None) -> None:
        super().__init__(
            409,
            f"Somebody saved revision {current.number} since you started from {base}: {current.gesture}.",
            base_revision=base,
            current_revision=current.number,
            gesture=current.gesture,
            author=current.author.get_username(),
            theirs=current.document,
            yours=yours,
            differences=differences(started or current.document, current.document, yours) if yours else [],
        )


def create_job(document: dict[str, Any], author: AbstractBaseUser) -> Job:
    """A new job with its first revision. Raises `Refusal` or `CuttingError`."""
    content = checked(Document, document, "")
    with transaction.atomic():
        job = Job.objects.create(name=content["name"], material=content["material"], machine=content["machine"], revision=1)
        Revision.objects.create(job=job, number=1, document=content, gesture="created", author=author, effective=1)
        keep_uses(job, content)
    return job


def start_job(given: dict[str, Any], author: AbstractBaseUser) -> Job:
    """A new job from its name, material, machine and blank. Raises `Refusal` or `CuttingError`."""
    library = shop().library
    document = {
        "name": given["name"],
        "material": library.material(given["material"]).name,
        "machine": library.machine(given["machine"]).name,
        "batch": {"pieces": given["pieces"]},
        "stock": blank_of(given, given["units"]),
        "operations": [],
    }
    check_stock(document)
    return create_job(document, author)


def copy_job(job_id: int, author: AbstractBaseUser) -> Job:
    """The newest state of a job as a new job, without notes, measurements and history."""
    document = newest(job_id).document
    return create_job({**document, "name": free_name(document["name"])}, author)


def free_name(name: str) -> str:
    """The name with the first number that no job has; shortened only where the number would not fit."""
    longest = Job._meta.get_field("name").max_length or 120
    taken = set(Job.objects.values_list("name", flat=True))
    for number in range(1, 10_000):
        tail = f", copy {number}" if number > 1 else ", copy"
        if (made := name[: longest - len(tail)] + tail) not in taken:
            return made
    raise Refusal(422, "There are too many copies of this job.")


def archive_job(job_id: int, archived: bool) -> None:
    """Put a job into the archive, or take it out; nothing of it is lost."""
    job = newest(job_id).job
    job.archived_at = timezone.now() if archived else None
    job.save(update_fields=["archived_at"])


def save_edit(job_id: int, base: int, edit: Edit, author: AbstractBaseUser) -> Revision:
    """Apply an edit on top of the revision it started from. Raises `Stale`, `Refusal` or `CuttingError`."""
    current = newest(job_id)
    started = current if base == current.number else _revision(job_id, base)
    document, gesture = edited(started.document, edit)
    _check_touched(started.document, document)
    content = checked(Document, document, "")
    if base != current.number:
        raise Stale(base, current, content, started.document)
    return _append(current, content, gesture, author, before=current.effective, redo=[])


def undo(job_id: int, base: int, author: AbstractBaseUser) -> Revision:
    """Return to the state before the last effective edit, as a revision of its own."""
    current = newest(job_id)
    if base != current.number:
        raise Stale(base, current, None)
    if current.before is None:
        raise Refusal(422, "There is nothing to undo.")
    target = _revision(job_id, current.before)
    return _append(
        current,
        target.document,
        f"undo: {_revision(job_id, current.effective).gesture}",
        author,
        before=target.before,
        redo=[*current.redo, current.effective],
        effective=target.number,
    )


def redo(job_id: int, base: int, author: AbstractBaseUser) -> Revision:
    """Take back the last undo."""
    current = newest(job_id)
    if base != current.number:
        raise Stale(base, current, None)
    if not current.redo:
        raise Refusal(422, "There is nothing to redo.")
    target = _revision(job_id, current.redo[-1])
    return _append(
        current, target.document, f"redo: {target.gesture}", author, before=target.before, redo=current.redo[:-1], effective=target.number
    )


OF_THE_OPERATION = ("feature", "settings", "holding", "tool", "bar")  # fields that one operation has, and the whole part has not


def newest(job_id: int) -> Revision:
    """The newest revision of a job. Raises a 404 refusal."""
    found = Revision.objects.select_related("job", "author").defer("document").filter(job_id=job_id).order_by("-number").first()
    if found is None:
        raise Refusal(404, "There is no such job.")
    found.document = _document(found.pk, found.at)
    return found


def judged_now(job_id: int) -> Revision:
    """The newest revision of a job for reading alone: what it holds is read once, its job not at all. Raises a 404 refusal."""
    found = Revision.objects.filter(job_id=job_id).order_by("-number").values_list("pk", "number", "at").first()
    if found is None:
        raise Refusal(404, "There is no such job.")
    pk, number, at = found
    return Revision(pk=pk, job_id=job_id, number=number, at=at, document=_document(pk, at))


@lru_cache(maxsize=512)
def _document(pk: int, _at: datetime) -> dict[str, Any]:
    """What a revision holds: never changed, so it is read once. Whoever changes something takes a copy."""
    return dict(Revision.objects.values_list("document", flat=True).get(pk=pk))


def _revision(job_id: int, number: int) -> Revision:
    found = Revision.objects.select_related("author").filter(job_id=job_id, number=number).first()
    if found is None:
        raise Refusal(404, f"The job has no revision {number}.")
    return found


def _append(
    current: Revision,
    document: dict[str, Any],
    gesture: str,
    author: AbstractBaseUser,
    before: int | None,
    redo: list[int],
    effective: int | None = None,
) -> Revision:
    number = current.number + 1
    with transaction.atomic():
        # the row changes only if nobody else was first
        moved = Job.objects.filter(pk=current.job_id, revision=current.number).update(
            revision=number, name=document["name"], material=document["material"], machine=document["machine"]
        )
        if not moved:
            raise Stale(current.number, newest(current.job_id), document, current.document)
        keep_uses(current.job, document)
        return Revision.objects.create(
            job_id=current.job_id,
            number=number,
            document=document,
            gesture=gesture[:200],
            author=author,
            effective=effective or number,
            before=before,
            redo=redo,
        )


def _check_touched(before: dict[str, Any], after: dict[str, Any]) -> None:
    """Operations that the edit touched must be readable set-ups; the rest is left as it was."""
    stock = shop()
    old = {entry["id"]: entry for entry in before["operations"]}
    for entry in after["operations"]:
        was = old.get(entry["id"])
        if was != entry:
            readable(after, entry, stock)  # its own fields: the person stands before them
        elif told_of(before, was) != told_of(after, entry):
            _check_another(after, entry, stock)
    shared = ("material", "hardness", "machine", "goal", "batch", "house", "holding", "stock")
    if any(before.get(name) != after.get(name) for name in shared):
        for entry in after["operations"]:
            _check_another(after, entry, stock)


def _check_another(document: dict[str, Any], entry: dict[str, Any], stock: Shop) -> None:
    """An operation that reads what was changed elsewhere must stay a readable set-up; what forbids it is said to be its own."""
    try:
        readable(document, entry, stock)
    except CuttingError as error:
        if error.field.split(".")[0] in OF_THE_OPERATION:
            error.message = f"operation {entry['number']} {entry['title']} forbids it: {error.message}"
        raise
