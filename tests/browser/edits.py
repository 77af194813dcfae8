"""Edits of a job by another person, at the API."""

from __future__ import annotations

from typing import Any


def change(job: int, edit: dict[str, Any]) -> int:
    """Apply an edit on top of the newest revision; the number of the revision that it makes."""
    from django.contrib.auth.models import User

    from server.jobs.kept.actions import newest, save_edit
    from server.jobs.schemas.job import EditIn

    other, _ = User.objects.get_or_create(username="colleague")
    parsed = EditIn(base_revision=newest(job).number, edit=edit).edit
    return int(save_edit(job, newest(job).number, parsed, other).number)


def edit_unseen(person: Any, edit: str) -> int:
    """An edit (JSON) on top of revision 1 that the open page has not heard of yet, as when its next look is still to come."""
    return int(
        person.chrome.execute_async_script(
            """const [edit, done] = arguments, real = globalThis.fetch;
            const looks = what => (what.url ?? String(what)).includes('/pulse');
            globalThis.fetch = (what, ...more) => looks(what) ? new Promise(() => {}) : real(what, ...more);
            real('/api/session').then(r => r.json()).then(s => real(`/api/jobs/${location.hash.split('/')[2]}/edits`, {
              method: 'POST', headers: {'Content-Type': 'application/json', 'X-CSRFToken': s.token},
              body: `{"base_revision": 1, "edit": ${edit}}`})).then(r => done(r.status));""",
            edit,
        )
    )
