"""A database with the demo data, and clients who are signed in."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

import pytest
from django.test import Client

from server.crib.demo import fill_crib
from server.floor.demo import fill_floor
from server.jobs.demo.jobs import fill_jobs
from server.jobs.models import Job
from server.people.demo import fill_people
from server.people.demo_people import PEOPLE
from server.shelf.demo import fill_shelf
from server.trials.demo import fill_trials
from server.work.tasks import claim, execute, kinds

PASSWORDS = {name: password for name, password, _ in PEOPLE}


def fill_all() -> None:
    fill_people()
    fill_shelf()
    fill_crib()
    fill_floor()
    fill_jobs()
    fill_trials()


@pytest.fixture(scope="session")
def django_db_setup(django_db_setup: None, django_db_blocker: Any) -> None:
    """The demo data is filled in once; each test's changes are rolled back."""
    with django_db_blocker.unblock():
        fill_all()


@pytest.fixture
def demo(db: None) -> None:
    """The demo data, in a transaction of the test's own."""


def work_through() -> None:
    """What the workers do, without the telling thread, which would wait for the test's own transaction."""
    for kind in kinds():
        for pk in kind.objects.filter(state="waiting").order_by("pk").values_list("pk", flat=True):  # type: ignore[attr-defined]
            if row := claim(kind._meta.label, pk):
                execute(row, telling=False)


class Api:
    """A small JSON client that keeps cross-site checks on, as a browser does."""

    def __init__(self, name: str | None) -> None:
        self.client = Client(SERVER_NAME="127.0.0.1", enforce_csrf_checks=True)
        self.token = self.get("/api/session").json()["token"]
        if name:
            answer = self.post("/api/session", {"name": name, "password": PASSWORDS[name]})
            assert answer.status_code == 200
            self.token = answer.json()["token"]

    def get(self, path: str) -> Any:
        answer = self.client.get(path)
        if answer.status_code == 202:  # a sheet that a worker draws
            work_through()
            answer = self.client.get(path)
        return answer

    def post(self, path: str, data: Any, **more: Any) -> Any:
        body = data if isinstance(data, str) else json.dumps(data)
        return self.client.post(path, body, content_type="application/json", HTTP_X_CSRFTOKEN=self.token, **more)

    def put(self, path: str, data: Any) -> Any:
        return self.client.put(path, json.dumps(data), content_type="application/json", HTTP_X_CSRFTOKEN=self.token)

    def delete(self, path: str) -> Any:
        return self.client.delete(path, HTTP_X_CSRFTOKEN=self.token)

    def edit(self, job: int, base: int, **edit: Any) -> Any:
        return self.post(f"/api/jobs/{job}/edits", {"base_revision": base, "edit": edit})

    def take(self, job: int, base: int, operation: str, way: str) -> list[dict[str, Any]]:
        """Take the first row of a way from the ranking of an operation; the operations that the job has then."""
        rows = self.post(f"/api/jobs/{job}/operations/{operation}/follow", {"settings": {}}).json()["advice"]["candidates"]
        chain = next(row for row in rows if row["way"] == way)
        chosen = {name: chain[name] for name in ("tool", "settings", "becomes", "before")}
        taken = self.edit(job, base, action="take_tool", operation=operation, **chosen)
        assert taken.status_code == 200, taken.json()
        found: list[dict[str, Any]] = taken.json()["document"]["operations"]
        return found


@pytest.fixture
def engineer(demo: None) -> Api:
    return Api("engineer")


@pytest.fixture
def operator(demo: None) -> Api:
    return Api("operator")


@pytest.fixture
def nobody(demo: None) -> Api:
    return Api(None)


@pytest.fixture
def job_id(demo: None) -> Callable[[str], int]:
    return lambda name: int(Job.objects.get(name=name).pk)
