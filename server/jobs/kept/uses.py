"""Which tools, materials and machines a job uses, and what a change of one of them means for it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.utils import timezone

from cutting.errors import CuttingError
from cutting.workpiece.layers import split_layers
from cutting.workpiece.stack import read_stack
from server.jobs.document.plan import told_of
from server.jobs.kept import reckonings
from server.jobs.models import Job, Revision, Use
from server.jobs.shown.state import state_of
from server.shop import shop

MOST_REASONS = 20
BATCH = 500


def names_used(document: dict[str, Any]) -> set[tuple[str, str]]:
    """(table, name) of everything that a job's document names."""
    names = {("machines", document["machine"])} | {("materials", name) for name in _metals(document)}
    for operation in document["operations"]:
        names |= {("tools", name) for name in operation["tool"].values()}
    return names


def _metals(document: dict[str, Any]) -> set[str]:
    """The material of the part, those of its layers, and those that a drill is told to go through, by the shelf's own names."""
    told = [name for name, _ in split_layers(document["stock"].get("layers") or "")]
    for operation in document["operations"]:
        if stack := told_of(document, operation).get("stack"):
            told += [one.name for one in read_stack(str(stack))]
    found, library = {document["material"]}, shop().library
    for name in told:
        try:
            found.add(library.material(name).name)
        except CuttingError:  # nobody keeps it yet; it is known by the name it has here
            found.add(name)
    return found


def keep_uses(job: Job, document: dict[str, Any]) -> None:
    """Bring the job's uses up to its newest document."""
    wanted = names_used(document)
    there = {(use.table, use.name): use.pk for use in job.uses.all()}
    Use.objects.filter(pk__in=[pk for pair, pk in there.items() if pair not in wanted]).delete()
    Use.objects.bulk_create([Use(job=job, table=table, name=name) for table, name in sorted(wanted - set(there))])


def jobs_using(names: Iterable[tuple[str, str]]) -> list[Job]:
    """Jobs whose newest revision uses any of the things, with what they come to."""
    return list(Job.objects.filter(pk__in=ids_using(names)).select_related("reckoning").order_by("name", "pk"))


def ids_using(names: Iterable[tuple[str, str]]) -> set[int]:
    """The keys of those jobs."""
    by_table: dict[str, list[str]] = {}
    for table, name in names:
        by_table.setdefault(table, []).append(name)
    found: set[int] = set()
    for table, wanted in by_table.items():
        for start in range(0, len(wanted), BATCH):
            found |= set(Use.objects.filter(table=table, name__in=wanted[start : start + BATCH]).values_list("job_id", flat=True))
    return found


def remember(jobs: list[Job]) -> None:
    """Keep each job's figures as they are before a change, unless older ones still wait to be looked at."""
    fresh = [job for job in jobs if job.reckoned is None]
    for job, reckoning in reckonings.brought_up(fresh):
        job.reckoned = reckoning.figures
    Job.objects.bulk_update(fresh, ["reckoned"], batch_size=BATCH)


def mark_stale(jobs: list[Job], reason: str, author: str) -> None:
    """Say on each job what changed under it; the change's transaction is still open."""
    reckonings.unsettle(jobs)
    entry = {"reason": reason[:300], "author": author, "at": timezone.now().isoformat(timespec="seconds")}
    for job in jobs:
        job.stale = [*job.stale, entry][-MOST_REASONS:]
    Job.objects.bulk_update(jobs, ["stale"], batch_size=BATCH)


def what_would_change(job: Job) -> list[dict[str, Any]]:
    """Each figure of each operation that the changes moved: before and now."""
    before = job.reckoned or {}
    now = reckonings.figures_of(state_of(_newest(job), None, shop()))
    rows = []
    for key, figures in now.items():
        for name, value in figures.items():
            old = (before.get(key) or {}).get(name)
            if key in before and old != value:
                rows.append({"where": key, "what": name, "before": _shown(old), "now": _shown(value)})
    return rows


def accept(job: Job) -> None:
    """The present figures are the job's own from now on."""
    job.stale, job.reckoned = [], None
    job.save(update_fields=["stale", "reckoned"])


def _newest(job: Job) -> Revision:
    return Revision.objects.get(job=job, number=job.revision)


def _shown(value: Any) -> dict[str, str]:
    return value if isinstance(value, dict) else {"metric": str(value), "inch": str(value)}
