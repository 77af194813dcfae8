"""Which cautions a person has read on a job. A caution comes back when what it warns of changes."""

from __future__ import annotations

import hashlib
import re
from typing import Any

from django.contrib.auth.models import AbstractBaseUser

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Warning
from server.crib.models import Tool
from server.jobs.models import Dismissal, Job


def risk_of(text: str) -> str:
    """A fingerprint of what a caution says; its numbers may move without making it another risk."""
    return hashlib.sha256(re.sub(r"[\d.,]+", "#", text).encode()).hexdigest()[:16]


def discontinued(entry: dict[str, Any]) -> list[dict[str, Any]]:
    """A note for each tool of an operation that is in the archive, with what is taken in its place."""
    names = [str(name) for name in entry.get("tool", {}).values()]
    rows = Tool.objects.filter(name__in=names, archived_at__isnull=False).order_by("name")
    found = []
    for name, successor in rows.values_list("name", "successor"):
        text = f"{name} is in the archive" + (f": {successor} is taken in its place." if successor else ": take another from the ranking.")
        found.append(plain(Warning("discontinued", text, "note")))
    return found


def mark_dismissed(evaluation: dict[str, Any], job_id: int, person: AbstractBaseUser) -> dict[str, Any]:
    """The evaluation with every warning marked by its risk and whether this person has put it away."""
    if not evaluation["warnings"]:
        return evaluation
    read = set(Dismissal.objects.filter(job_id=job_id, person_id=person.pk).values_list("name", "risk"))
    for warning in evaluation["warnings"]:
        warning["risk"] = risk_of(warning["text"])
        warning["dismissed"] = (warning["name"], warning["risk"]) in read
    return evaluation


def dismiss(job: Job, person: AbstractBaseUser, name: str, risk: str) -> None:
    """Put a caution away for a person on a job; twice is once."""
    Dismissal.objects.get_or_create(job=job, person_id=person.pk, name=name, risk=risk)


def restore(job: Job, person: AbstractBaseUser) -> None:
    """Show a person all cautions of a job again."""
    Dismissal.objects.filter(job=job, person_id=person.pk).delete()
