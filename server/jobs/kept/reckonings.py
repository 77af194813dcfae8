"""What every job comes to, kept: a list of a thousand jobs evaluates none, and a change in the crib none but those that it touches.

A reckoning holds for its revision and release until something that the job uses is changed. Where it does not hold, it still says
where in the list its job stood last; whoever shows the job reckons anew, and the workers do so for the rest while nothing else waits.
"""

from __future__ import annotations

import logging
from collections.abc import Iterable, Sequence
from typing import Any

from django.db import DatabaseError, transaction
from django.db.models import Case, F, FloatField, Q, QuerySet, Value, When
from django.db.models.functions import Coalesce, Least

from cutting.errors import CuttingError
from cutting.names import plain
from server.jobs.models import Job, Reckoning, Revision
from server.jobs.schemas.job import GlanceOut
from server.jobs.shown.state import state_of
from server.records.models import Stamp
from server.release import release
from server.shop import Shop, shop, version_of

FIRST, STALE, LAST = 0, 1.5, 9.0  # places in the list: what was never reckoned is looked at first
AT_ONCE = 5  # jobs that an idle worker reckons before it looks for work again
log = logging.getLogger(__name__)


def listed(words: str, archived: bool, offset: int, limit: int) -> tuple[int, list[dict[str, Any]]]:
    """How many jobs have all the words in their names, and a page of them: what needs attention first."""
    jobs = Job.objects.filter(archived_at__isnull=not archived)
    if wanted := [plain(word) for word in words.split()]:
        names = jobs.values_list("pk", "name", "material", "machine")
        jobs = jobs.filter(pk__in=[pk for pk, *said in names if all(word in plain(" ".join(said)) for word in wanted)])
    page = _in_order(jobs)[offset : offset + limit]
    held = brought_up(list(page.select_related("reckoning").defer("reckoning__figures")))
    held.sort(key=lambda one: _place(*one))  # what was reckoned anew may have moved
    return jobs.count(), [_row(job, reckoning) for job, reckoning in held]


def _in_order(jobs: QuerySet[Job]) -> QuerySet[Job]:
    """What is broken or over target first, then what changed under its feet, then the rest."""
    stale = Case(When(reckoned__isnull=False, then=Value(STALE)), default=Value(LAST), output_field=FloatField())
    attention = Coalesce("reckoning__attention", Value(FIRST), output_field=FloatField())
    return jobs.annotate(place=Least(attention, stale)).order_by("place", "name", "pk")


def _place(job: Job, reckoning: Reckoning) -> tuple[float, str, int]:
    return min(reckoning.attention, LAST if job.reckoned is None else STALE), job.name, job.pk


def _row(job: Job, reckoning: Reckoning) -> dict[str, Any]:
    row = {name: getattr(job, name) for name in ("name", "material", "machine", "revision", "changed")}
    kept = {"goal": reckoning.goal, "pieces": reckoning.pieces, "state": reckoning.glance}
    return {"id": job.pk, "stale": len(job.stale), **row, **kept}


def holds(reckoning: Reckoning | None, job: Job) -> bool:
    """Whether a reckoning was made with the shop as it is now."""
    return reckoning is not None and reckoning.revision == job.revision and reckoning.release == release()


def of(job: Job) -> Reckoning | None:
    """The reckoning of a job, held or not; None where it was never reckoned."""
    return getattr(job, "reckoning", None)


def brought_up(jobs: Sequence[Job]) -> list[tuple[Job, Reckoning]]:
    """The jobs with what they come to; what does not hold is reckoned anew."""
    stock, found = shop(), []
    behind = [job.pk for job in jobs if not holds(of(job), job)]
    newest = Revision.objects.filter(job__in=behind, number=F("job__revision")).defer("document")
    revisions = {one.job_id: one for one in newest}
    for job in jobs:
        reckoning = keep(revisions[job.pk], stock) if job.pk in revisions else of(job)
        assert reckoning is not None
        found.append((job, reckoning))
    return found


def keep(revision: Revision, stock: Shop) -> Reckoning:
    """Reckon what a job's newest revision comes to and keep it, where nothing has changed meanwhile."""
    state, document = state_of(revision, None, stock), revision.document
    reckoning = Reckoning(
        job_id=revision.job_id,
        revision=revision.number,
        release=release(),
        attention=state["attention"],
        goal=document["goal"],
        pieces=document["batch"]["pieces"],
        glance=GlanceOut.model_validate(state).model_dump(),
        figures=figures_of(state),
    )
    try:
        with transaction.atomic():
            # whoever changes the shop holds the rows of the jobs that this touches
            Job.objects.select_for_update().only("pk").get(pk=revision.job_id)
            if version_of(Stamp.all()) == stock.version:
                fields = [field.name for field in Reckoning._meta.concrete_fields if field.name != "job"]
                Reckoning.objects.bulk_create([reckoning], update_conflicts=True, update_fields=fields)
    except DatabaseError:  # a full disk, say: it is reckoned again next time
        log.warning("the reckoning of job %s could not be kept", revision.job_id, exc_info=True)
    return reckoning


def unsettle(jobs: Iterable[Job]) -> None:
    """Something that these jobs use is being changed: within that change's transaction their reckonings hold no more."""
    rows = Job.objects.select_for_update().filter(pk__in=[job.pk for job in jobs]).order_by("pk")
    Reckoning.objects.filter(job__in=list(rows.values_list("pk", flat=True))).update(release="")


def catch_up() -> bool:
    """Reckon a few of the jobs whose reckoning does not hold; tells whether there may be more of them."""
    behind = Q(reckoning__isnull=True) | ~Q(reckoning__release=release()) | ~Q(reckoning__revision=F("revision"))
    jobs = list(Job.objects.filter(behind).select_related("reckoning").order_by("?")[:AT_ONCE])
    for job in jobs:
        try:
            brought_up([job])
        except CuttingError as error:  # somebody who opens the job is told the same
            log.warning("job %s cannot be reckoned: %s", job.pk, error)
    return len(jobs) == AT_ONCE


def figures_of(state: dict[str, Any]) -> dict[str, dict[str, Any]]:
    """Of a job's state what people compare before and after a change: by operation and for the whole piece."""
    found: dict[str, dict[str, Any]] = {}
    for row in state["operations"]:
        found[f"{row['number']} {row['title']}"] = {
            "seconds": row["seconds_display"],
            "cost": row["cost_display"],
            "status": row["status"],
            "closest limit": row["binding"],
            "problem": row["problem"]["metric"] if row["problem"] else "none",
        }
    tape = state["tape"]
    found["whole piece"] = {"seconds": tape["seconds_display"], "cost": tape["money_display"]}
    return found
