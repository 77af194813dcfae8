"""A save that is sent twice is done once."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import pytest
from django.db import OperationalError
from django.utils import timezone

from server import room
from server.jobs.kept import actions
from server.jobs.models import Job, Note, Revision
from server.records.models import Answered
from server.records.once import sweep
from tests.server.conftest import Api

KEY = {"HTTP_IDEMPOTENCY_KEY": "0123456789abcdef"}
EDIT = {"base_revision": 1, "edit": {"action": "set_part", "goal": "fastest"}}


def test_a_save_that_was_not_acknowledged_is_recognised(engineer: Api, job_id: Any) -> None:
    job = job_id("Runner shaft")
    first, again = (engineer.post(f"/api/jobs/{job}/edits", EDIT, **KEY) for _ in range(2))
    assert (first.status_code, again.status_code) == (200, 200)
    assert first.json() == again.json()
    assert Revision.objects.filter(job_id=job).count() == 2
    assert engineer.post(f"/api/jobs/{job}/edits", EDIT).status_code == 409  # without a key it is somebody's second thought
    notes = [engineer.post(f"/api/jobs/{job}/notes", {"text": "runs well"}, HTTP_IDEMPOTENCY_KEY="note-note") for _ in range(3)]
    assert {answer.status_code for answer in notes} == {201}
    assert Note.objects.filter(job_id=job, text="runs well").count() == 1


def test_a_refusal_is_not_kept_and_a_key_is_good_for_one_door_and_one_person(engineer: Api, operator: Api, job_id: Any) -> None:
    job = job_id("Runner shaft")
    wrong = {"base_revision": 1, "edit": {"action": "explode"}}
    assert engineer.post(f"/api/jobs/{job}/edits", wrong, **KEY).status_code == 422
    assert engineer.post(f"/api/jobs/{job}/edits", EDIT, **KEY).status_code == 200
    other = engineer.post(f"/api/jobs/{job}/undo", {"base_revision": 2}, **KEY)
    assert (other.status_code, other.json()["errors"][0]["field"]) == (422, "Idempotency-Key")
    assert operator.post(f"/api/jobs/{job}/notes", {"text": "mine"}, **KEY).status_code == 201
    assert engineer.post(f"/api/jobs/{job}/notes", {"text": "x"}, HTTP_IDEMPOTENCY_KEY="<>").status_code == 422


def test_a_failure_on_our_side_leaves_neither_the_save_nor_its_key(engineer: Api, job_id: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    def fail(*_: Any, **__: Any) -> None:
        raise RuntimeError("on our side")

    count = Job.objects.count()
    with monkeypatch.context() as patch:
        patch.setattr("server.jobs.doors.jobs._job", fail)  # after the copy was written
        assert engineer.post(f"/api/jobs/{job_id('Runner shaft')}/copy", {}, **KEY).status_code == 500
    assert Job.objects.count() == count
    assert engineer.post(f"/api/jobs/{job_id('Runner shaft')}/copy", {}, **KEY).status_code == 201
    assert Job.objects.count() == count + 1


def test_what_holds_a_password_is_kept_nowhere(demo: None) -> None:
    administrator = Api("administrator")
    first, again = (administrator.post("/api/people", {"name": "ann"}, **KEY) for _ in range(2))
    assert (first.status_code, again.status_code) == (201, 409)
    assert not Answered.objects.exists()


def test_old_keys_are_swept(engineer: Api, job_id: Any) -> None:
    engineer.post(f"/api/jobs/{job_id('Runner shaft')}/edits", EDIT, **KEY)
    for hours, gone in ((0, 0), (30, 0), (60, 1)):  # a page left open over night still recognises its save; two nights later nobody asks
        Answered.objects.update(at=timezone.now() - timedelta(hours=hours))
        assert sweep() == gone


def test_a_full_disk_is_called_one_and_told_to_whoever_watches(engineer: Api, job_id: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    """The numbers are MariaDB's own: 1021 disk full, 1114 table full; 2006 is a server that went away."""
    clock = [1000.0]
    monkeypatch.setattr(room.time, "monotonic", lambda: clock[0])
    for number, full in ((2006, False), (1114, True), (1021, True)):
        clock[0] += 2 * room.FOR
        assert room.there_is()

        def refuse(*_: object, **__: object) -> None:
            raise OperationalError(number, "refused")  # noqa: B023

        monkeypatch.setattr(actions, "save_edit", refuse)
        answer = engineer.edit(job_id("Wear bush"), 1, action="set_part", name="Other")
        assert (answer.status_code, "disk" in answer.json()["title"]) == (503, full)
        assert "nothing typed is lost" in answer.json()["title"]
        ready = engineer.get("/ready")
        assert (ready.status_code, ready.json()["room"]) == ((503, False) if full else (200, True))
