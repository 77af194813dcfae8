"""Which tools, materials and machines a job uses, and what a change of one of them means for it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.db.models import Q
from django.utils import timezone

from server.jobs.models import Job, Revision, Use
from server.jobs.state import state_of
from server.shop import shop

MOST_REASONS = 20


def names_used(document: dict[str, Any]) -> set[tuple[str, str]]:
    """(table, name) of everything that a job's document names."""
    names = {("materials", document["material"]), ("machines", document["machine"])}
    for operation in document["operations"]:
        names |= {("tools", name) for name in operation["tool"].values()}
    return names


def keep_uses(job: Job, document: dict[str, Any]) -> None:
    """Bring the job's uses up to its newest document."""
    wanted = names_used(document)
    there = {(use.table, use.name): use.pk for use in job.uses.all()}
    Use.objects.filter(pk__in=[pk for pair, pk in there.items() if pair not in wanted]).delete()
    Use.objects.bulk_create([Use(job=job, table=table, name=name) for table, name in sorted(wanted - set(there))])


def jobs_using(names: Iterable[tuple[str, str]]) -> list[Job]:
    """Jobs whose newest revision uses any of the things."""
    by_table: dict[str, list[str]] = {}
    for table, name in names:
        by_table.setdefault(table, []).append(name)
    found: dict[int, Job] = {}
    for table, wanted in by_table.items():
        for start in range(0, len(wanted), 1000):
            for job in Job.objects.filter(Q(uses__table=table, uses__name__in=wanted[start : start + 1000])).distinct():
                found[job.pk] = job
    return sorted(found.values(), key=lambda job: job.name)


def remember(jobs: list[Job]) -> None:
    """Keep each job's figures as they are before a change, unless older ones still wait to be looked at."""
    stock = shop()
    for job in jobs:
        if job.reckoned is None:
            job.reckoned = _figures(_newest(job), stock)
            job.save(update_fields=["reckoned"])


def mark_stale(jobs: list[Job], reason: str, author: str) -> None:
    """Say on each job what changed under it."""
    for job in jobs:
        entry = {"reason": reason[:300], "author": author, "at": timezone.now().isoformat(timespec="seconds")}
        job.stale = [*job.stale, entry][-MOST_REASONS:]
        job.save(update_fields=["stale"])


def what_would_change(job: Job) -> list[dict[str, Any]]:
    """Each figure of each operation that the changes moved: before and now."""
    before = job.reckoned or {}
    now = _figures(_newest(job), shop())
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


def _figures(revision: Revision, stock: Any) -> dict[str, dict[str, Any]]:
    state = state_of(revision, None, stock)
    found: dict[str, dict[str, Any]] = {}
    for row in state["operations"]:
        found[f"{row['number']} {row['title']}"] = {
            "seconds": row["seconds_display"],
            "cost": row["cost_display"],
            "status": {"ok": "within its limits", "care": "with care", "broken": "breaks a limit"}[row["status"]],
            "closest limit": row["binding"],
            "problem": row["problem"]["metric"] if row["problem"] else "none",
        }
    tape = state["tape"]
    found["whole piece"] = {"seconds": tape["seconds_display"], "cost": tape["money_display"]}
    return found


def _shown(value: Any) -> dict[str, str]:
    return value if isinstance(value, dict) else {"metric": str(value), "inch": str(value)}
