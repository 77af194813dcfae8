"""What is let go after its time: ended sessions, keys of saves, done tasks, sheets and studies nobody asks for, old happenings."""

from __future__ import annotations

from datetime import timedelta

from django.utils import timezone
from django_tasks_db.models import DBTaskResult

from server.jobs.models import PartStudy, Sheet
from server.people.models import Happening
from server.people.sessions import sweep as sweep_sessions
from server.records.once import sweep as sweep_keys

HAPPENINGS = timedelta(days=400)  # a year and the month in which somebody looks back at it
TASKS = timedelta(days=7)
SHEETS = timedelta(days=14)


def tidy() -> dict[str, int]:
    """Let go what has had its time; gives how much of each."""
    now = timezone.now()
    return {
        "sessions": sweep_sessions(),
        "keys": sweep_keys(),
        "tasks": DBTaskResult.objects.finished().filter(finished_at__lt=now - TASKS).delete()[0],
        "sheets": Sheet.objects.filter(at__lt=now - SHEETS).delete()[0],
        "studies": PartStudy.objects.filter(at__lt=now - SHEETS).delete()[0],
        "happenings": Happening.objects.filter(at__lt=now - HAPPENINGS).delete()[0],
    }
