"""Edits of a job by another person, at the API."""

from __future__ import annotations

from typing import Any


def change(job: int, edit: dict[str, Any]) -> int:
    """Apply an edit on top of the newest revision; the number of the revision that it makes."""
    from django.contrib.auth.models import User

    from server.jobs.actions import newest, save_edit
    from server.jobs.schemas import EditIn

    other, _ = User.objects.get_or_create(username="colleague")
    parsed = EditIn(base_revision=newest(job).number, edit=edit).edit
    return int(save_edit(job, newest(job).number, parsed, other).number)
