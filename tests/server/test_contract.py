"""The OpenAPI document as a contract: every door is guarded, refuses nonsense in the one form, and gives what it says."""

from __future__ import annotations

import json
import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from pydantic import TypeAdapter

from cutting.nomenclature import TERMS
from server.api import api
from server.jobs.demo.jobs import DEMO_JOBS
from server.jobs.schemas import job as schemas
from server.jobs.schemas import operation as operation_schemas
from server.people.models import Preferences
from tests.server.conftest import Api

SERVER = Path(__file__).parents[2] / "server"
DOCUMENT = api.get_openapi_schema()
OPEN_TO_ALL = {("get", "/api/session"), ("post", "/api/session")}
TRACE_DOORS = ("traces", "traces/{trace}/archive", "lessons", "lessons/{lesson}/undo", "record")
ENGINEERS_ONLY = {
    ("post", "/api/jobs/file"),
    ("post", "/api/jobs"), ("post", "/api/jobs/{job_id}/edits"), ("post", "/api/jobs/{job_id}/undo"), ("post", "/api/jobs/{job_id}/redo"),
    ("post", "/api/jobs/{job_id}/prints"), ("post", "/api/jobs/{job_id}/stale/accept"),
    ("post", "/api/jobs/{job_id}/copy"), ("post", "/api/jobs/{job_id}/archive"),
    ("post", "/api/jobs/{job_id}/part-studies"), ("post", "/api/jobs/{job_id}/part-studies/{study_id}/cancel"),
    ("post", "/api/records/{table}"), ("post", "/api/records/{table}/{record_id}"), ("post", "/api/records/{table}/{record_id}/archive"),
    ("post", "/api/records/{table}/{record_id}/restore"), ("post", "/api/crib/assemblies"),
    ("delete", "/api/crib/assemblies/{assembly_id}"), ("post", "/api/crib/heavy-tools"),
    ("put", "/api/crib/heavy-tools/{tool_id}"), ("delete", "/api/crib/heavy-tools/{tool_id}"),
    *(("post", "/api/jobs/{job_id}/operations/{operation}/" + door) for door in TRACE_DOORS),
    ("post", "/api/exchange/imports"), ("post", "/api/exchange/runs/{run_id}/apply"), ("post", "/api/exchange/runs/{run_id}/cancel"),
    ("post", "/api/trials/{trial_id}/verdict"), ("post", "/api/learning"),
    ("post", "/api/learning/import"), ("post", "/api/learning/{taught_id}/undo"),
    ("post", "/api/instruments"), ("post", "/api/instruments/{identity}/archive"),
}  # fmt: skip
OPERATORS_AND_MORE = {
    ("post", "/api/jobs/{job_id}/notes"), ("post", "/api/jobs/{job_id}/measurements"),
    ("delete", "/api/jobs/{job_id}/measurements/{measurement_id}"),
    ("post", "/api/trials"), ("post", "/api/trials/series"), ("post", "/api/trials/{trial_id}/entries"),
    ("post", "/api/trials/{trial_id}/entries/{entry_id}/strike"),
    ("post", "/api/jobs/{job_id}/operations/{operation}/troubles"),
}  # fmt: skip
VALID: dict[str, Any] = {
    "/api/people": {"name": "ann"},
    "/api/jobs/{job_id}/notes": {"text": "x"},
    "/api/jobs/{job_id}/measurements": {"operation": "op30", "pass_number": "1", "commanded": "45", "measured": "45"},
    "/api/jobs": {"name": "Pin", "material": "C45", "machine": "two-axis lathe", "diameter": "20", "free_length": "60"},
    "/api/jobs/{job_id}/edits": {"base_revision": 1, "edit": {"action": "set_part", "goal": "fastest"}},
    "/api/jobs/{job_id}/undo": {"base_revision": 1},
    "/api/jobs/{job_id}/redo": {"base_revision": 1},
    "/api/jobs/{job_id}/archive": {"archived": True},
    "/api/jobs/{job_id}/part-studies": {"kind": "chances"},
    "/api/records/{table}": {"cells": {}},
    "/api/records/{table}/{record_id}": {"cells": {}, "version": 1},
    "/api/jobs/{job_id}/cautions/dismiss": {"name": "guards", "risk": "x"},
    **{f"/api/jobs/{{job_id}}/operations/{{operation}}/{door}": {"traces": [1]} for door in ("lessons", "traces/fit")},
    "/api/jobs/{job_id}/operations/{operation}/traces": {"text": "a;b;c"},
    "/api/jobs/{job_id}/operations/{operation}/record": {"hole": 1},
    "/api/trials": {"job": 987654, "operation": "op20", "question": "How long?"},
    "/api/trials/series": {"job": 987654, "operation": "op20", "question": "Which?", "ways": [{"name": "a"}, {"name": "b"}]},
    "/api/trials/{trial_id}/entries": {"key": "an-entry", "count": 3},
    "/api/trials/{trial_id}/verdict": {"verdict": "keep"},
    "/api/learning": {"quantity": "life"},
    "/api/learning/import": {"beliefs": []},
    "/api/learning/gauge": {"readings": []},
    "/api/jobs/{job_id}/operations/{operation}/troubles": {"cause": "bar_hard", "turned_out": "helped"},
    **{f"/api/session/factor/{door}": {"code": "123456"} for door in ("confirm", "drop")},
    "/api/exercises/{exercise_id}/steps": {"did": "give up"},
    "/api/instruments": {"name": "x", "protocol": "line", "host": "127.0.0.1", "port": 9},
    "/api/crib/heavy-tools": {"form": {}},
    "/api/crib/heavy-tools/{tool_id}": {"form": {}, "revision": 1},
    "/api/crib/assemblies": {"name": "x", "tool": {"insert": "CNMG 120408 middle P20 CVD", "holder": "PCLNR 2525 M12"}, "overhang": "30"},
}
FILES = ("/prints", "/imports", "/file")


def doors() -> Iterator[tuple[str, str]]:
    for path, methods in DOCUMENT["paths"].items():
        for method in methods:
            yield method, path


def takes_an_object(method: str, path: str) -> bool:
    return "application/json" in DOCUMENT["paths"][path][method].get("requestBody", {}).get("content", {})


def filled(path: str, job: int) -> str:
    values = {
        "job_id": job,
        "operation": "op30",
        "trace": 987654,
        "lesson": 987654,
        "print_id": 987654,
        "limit": "spindle_power",
        "name": "C45",
        "table": "materials",
        "page": "line",
        "kind": "turn",
        "cause": "bar_hard",
    }
    values |= {"person_id": 987654} | {
        "record_id": 987654,
        "assembly_id": 987654,
        "tool_id": 987654,
        "run_id": 987654,
        "study_id": 987654,
        "measurement_id": 987654,
        **dict.fromkeys(("trial_id", "entry_id", "photo_id", "taught_id", "identity", "exercise_id"), 987654),
    }
    return re.sub(r"{(\w+)}", lambda found: str(values[found[1]]), path)


def call(who: Api, method: str, path: str, body: str = "{}") -> Any:
    return (
        getattr(who.client, method)(path, body, content_type="application/json", HTTP_X_CSRFTOKEN=who.token)
        if method != "get"
        else who.get(path)
    )


@pytest.mark.parametrize(("method", "path"), sorted(set(doors()) - OPEN_TO_ALL))
def test_nobody_passes_without_signing_in(nobody: Api, job_id: Any, method: str, path: str) -> None:
    assert call(nobody, method, filled(path, job_id("Runner shaft"))).status_code == 401


def _try(who: Api, method: str, path: str, job: int) -> int:
    if path.endswith(FILES) and method == "post":
        return int(who.client.post(filled(path, job), {"file": _pdf()}, HTTP_X_CSRFTOKEN=who.token).status_code)
    return int(call(who, method, filled(path, job), json.dumps(VALID.get(path, {}))).status_code)


@pytest.mark.parametrize(("method", "path"), sorted(set(doors())))
def test_each_meets_a_403_exactly_where_others_work(operator: Api, job_id: Any, method: str, path: str) -> None:
    """Operators at the engineers' doors, engineers at the administrators', readers wherever something is kept."""
    job, door = job_id("Runner shaft"), (method, path)
    of_people = path.startswith("/api/people")
    status = _try(operator, method, path, job)
    assert (status == 403) == (door in ENGINEERS_ONLY or of_people)
    assert status < 500
    if of_people:
        assert _try(Api("engineer"), method, path, job) == 403
        assert _try(Api("administrator"), method, path, job) in (200, 201, 404, 422)
    elif method != "get" and door not in ENGINEERS_ONLY and not path.startswith("/api/session"):
        Preferences.objects.filter(user__username="operator").update(role="reader")
        assert (_try(operator, method, path, job) == 403) == (door in OPERATORS_AND_MORE)


@pytest.mark.parametrize("body", ["{", "[]", '{"settings": 3}', '"text"', '{"units": "cubit"}'])
@pytest.mark.parametrize(("method", "path"), sorted(door for door in doors() if takes_an_object(*door)))
def test_nonsense_is_a_problem_with_a_field(demo: None, job_id: Any, method: str, path: str, body: str) -> None:
    answer = call(Api("administrator"), method, filled(path, job_id("Runner shaft")), body)
    if answer.status_code < 300:  # a door may ignore what it does not know
        assert body == '{"units": "cubit"}' or body == '{"settings": 3}'
        return
    assert answer.status_code in (400, 401, 404, 409, 422), answer.content
    assert answer["Content-Type"] == "application/problem+json"
    problem = answer.json()
    assert problem["title"]
    assert problem["status"] == answer.status_code
    if answer.status_code == 422:
        assert all(error["field"] and error["message"] for error in problem["errors"])


@pytest.mark.parametrize("job", [document["name"] for document in DEMO_JOBS])
def test_every_demo_operation_answers_as_documented(engineer: Api, job_id: Any, job: str) -> None:
    """Each operation of the demo evaluates and ranks; what comes out is of the documented form and says why."""
    identity = job_id(job)
    for row in engineer.get(f"/api/jobs/{identity}").json()["document"]["operations"]:
        base = f"/api/jobs/{identity}/operations/{row['id']}"
        evaluation = TypeAdapter(operation_schemas.EvaluationOut).validate_python(engineer.post(f"{base}/evaluate", {}).json())
        assert all(limit.source and limit.why for limit in evaluation.limits)
        assert all(value.display.metric and value.display.inch for value in evaluation.results.values())
        if evaluation.view.kind == "turned":
            assert len(evaluation.view.stages) == len(evaluation.passes)
        assert set(evaluation.headline) <= set(evaluation.results)
        assert {one.name for one in evaluation.settings} == set(evaluation.ladders)
        follow = TypeAdapter(schemas.FollowOut).validate_python(engineer.post(f"{base}/follow", {}).json())
        assert follow.advice.candidates, row["title"]
        assert all(candidate.reason for candidate in follow.advice.candidates)


def test_no_two_forms_share_a_name() -> None:
    """The document keeps one form per name: a second of the same name would silently take its place."""
    names = [
        found for path in SERVER.rglob("*.py") for found in re.findall(r"^class (\w+)\((?:Schema|Strict|Plain)\)", path.read_text(), re.M)
    ]
    assert len(names) == len(set(names)), sorted(name for name in set(names) if names.count(name) > 1)


def test_steps_of_the_working_use_the_nomenclature(engineer: Api, job_id: Any) -> None:
    answer = engineer.post(f"/api/jobs/{job_id('Runner shaft')}/operations/op30/evaluate", {}).json()
    steps = [step for one in (*answer["limits"], *answer["results"].values()) for step in one["working"]]
    formulae = [step for step in steps if not step["key"].endswith(", as shown")]
    assert 0 < len(formulae) < len(steps)
    for step in formulae:
        assert step["key"] in TERMS
        assert step["symbol"] == TERMS[step["key"]].symbol
        assert step["unit"] == TERMS[step["key"]].unit


def _pdf() -> Any:
    return SimpleUploadedFile("a.pdf", b"%PDF-1.7")
