"""Big studies of a whole part: begun, watched, stopped; on this machine's cores and on a cluster of two workers the same."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any

import pytest
from pytest_django.fixtures import Settings

from server.floor.models import Machine
from server.jobs.kept import actions
from server.jobs.models import Job, PartStudy
from server.jobs.shown.state import state_of
from server.jobs.studies import whole_part
from server.shop import shop
from server.work import spread
from server.work.progress import Progress
from tests.server.conftest import Api, work_through

JobId = Callable[[str], int]
DRAWS = 60


@pytest.fixture(autouse=True)
def small(monkeypatch: pytest.MonkeyPatch, settings: Settings) -> None:
    monkeypatch.setattr(whole_part, "DRAWS", DRAWS)
    settings.STUDY_PROCESSES = 2


@pytest.fixture(scope="module")
def cluster() -> Iterator[str]:
    """A Dask cluster of two worker processes on the loopback."""
    from distributed import LocalCluster

    with LocalCluster(n_workers=2, threads_per_worker=1, processes=True, dashboard_address=None, protocol="tcp") as started:
        yield started.scheduler_address


def begin(person: Api, job: int, kind: str) -> Any:
    answer = person.post(f"/api/jobs/{job}/part-studies", {"kind": kind})
    assert answer.status_code == 201, answer.content
    return answer.json()


def test_how_surely_the_plan_holds(engineer: Api, job_id: JobId) -> None:
    job = job_id("Guide-vane pin")
    row = begin(engineer, job, "chances")
    assert (row["state"], row["chances"], row["revision"]) == ("waiting", None, 1)
    work_through()
    done = engineer.get(f"/api/jobs/{job}/part-studies/{row['id']}").json()
    found = done["chances"]
    assert (done["state"], done["done"], done["total"], found["draws"]) == ("done", 3, 3, DRAWS)
    state = engineer.get(f"/api/jobs/{job}").json()["state"]
    assert found["planned"] == state["tape"]["money_display"]
    assert found["planned_money"] == pytest.approx(state["tape"]["money"])
    assert found["edges"][0] <= found["planned_money"] <= found["edges"][-1]
    assert [one["number"] for one in found["operations"]] == [one["number"] for one in state["operations"]]
    assert begin(engineer, job, "chances")["id"] == row["id"], "the same part is not studied twice"


def test_what_is_not_drawn_counts_once_and_what_cannot_run_is_left_out(demo: None, job_id: JobId) -> None:
    """A good share below one, and a machine that only drills: the piece is what the bench says, the face is left out."""
    job = job_id("Gate-valve body")
    revision = actions.newest(job)
    money = {**revision.document["money"], "good_share": 0.8}
    revision.document, revision.pk = {**revision.document, "machine": "machining centre", "money": money}, 10**9
    found = whole_part.chances(revision, shop(), Progress())
    tape = state_of(revision)["tape"]
    assert (found["left_out"], len(found["operations"])) == (1, 1)
    assert found["edges"][0] <= tape["money"] <= found["edges"][-1]
    low, _, high = (sum(60**k * int(part) for k, part in enumerate(reversed(one.metric.split()[0].split(":")))) for one in found["seconds"])
    assert low - 1 <= tape["seconds"] <= high + 1
    rows = whole_part.machines(revision, shop(), Progress())["rows"]
    assert {one["sound"] for one in rows} == {0, 1, 2}
    assert all(bool(one["why"]["metric"]) == (one["sound"] < one["of"]) for one in rows)


def test_what_breaks_most_often_has_a_change_that_holds_more_often(engineer: Api, job_id: JobId, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(whole_part, "DRAWS", 200)
    job = job_id("Runner shaft")

    def held() -> dict[str, Any]:
        found = whole_part.chances(actions.newest(job), shop(), Progress())
        return next(one for one in found["operations"] if one["operation"] == "op30")

    engineer.edit(job, 1, action="set_settings", operation="op30", settings={"feed_per_rev": "0.45 mm/rev"})
    pushed = held()
    assert pushed["share"] < 0.9
    assert pushed["worst"] not in ("", pushed["limit"]), "told by its label, named for the change"
    offers = engineer.post(f"/api/jobs/{job}/operations/op30/limits/{pushed['limit']}/relax", {"settings": {}}).json()
    assert engineer.edit(job, 2, action="set_settings", operation="op30", **{"settings": {}, **offers[0]["patch"]}).status_code == 200
    assert held()["share"] > pushed["share"] + 0.1


def test_on_which_machine(engineer: Api, job_id: JobId) -> None:
    job = job_id("Wear bush")
    row = begin(engineer, job, "machines")
    work_through()
    found = engineer.get(f"/api/jobs/{job}/part-studies/{row['id']}").json()["machines"]
    rows = {one["machine"]: one for one in found["rows"]}
    now = rows[found["now"]["machine"]]
    best = engineer.post(f"/api/jobs/{job}/best", {"worth": 0}).json()
    assert now["sound"] == now["of"] == len(best["rows"])
    others = sum(row["then"]["tool"] != row["now"]["tool"] for row in best["rows"])
    assert now["other_tools"] == others
    tools = [{"operation": r["operation"], **{k: r[k] for k in ("settings", "becomes")}, "tool": r["then"]["tool"]} for r in best["rows"]]
    taken = engineer.edit(job, 1, action="take_tools", operation="", tools=[one for one in tools if one["becomes"] is None]).json()
    assert now["money"] == pytest.approx(taken["state"]["tape"]["money"], rel=1e-6), "what it says is what taking them gives"
    assert "does not turn parts" in rows["machining centre"]["why"]["metric"]
    order = [(one["of"] - one["sound"], one["money"]) for one in found["rows"]]
    assert order == sorted(order)


def test_what_risks_the_part_is_ranked_by_what_it_is_worth_there(demo: None, job_id: JobId) -> None:
    """A tapped hole behind operations whose tools change on the other machine: the part is worth something else when it begins."""
    jobs = [job for job in Job.objects.all() if any(one["operation"] == "tap" for one in actions.newest(job.pk).document["operations"][1:])]
    assert jobs
    for job in jobs:
        revision = actions.newest(job.pk)
        moved = {**revision.document, "money": {**revision.document["money"], "blank": 40.0}}
        for entry in moved["operations"]:  # as before the crib was ranked: none of them has its best tool
            entry["settings"] = {**entry["settings"], "cutting_speed": "5 m/min"}
        revision.document, revision.pk = moved, 10**9
        rows = whole_part.machines(revision, shop(), Progress())["rows"]
        assert len(rows) == Machine.objects.filter(archived_at=None).count()


def test_cores_and_cluster_come_to_the_same(demo: None, job_id: JobId, settings: Settings, cluster: str) -> None:
    revision = actions.newest(job_id("Guide-vane pin"))
    here = [way(revision, shop(), Progress()) for way in (whole_part.chances, whole_part.machines)]
    settings.STUDY_CLUSTER = cluster
    there = [way(revision, shop(), Progress()) for way in (whole_part.chances, whole_part.machines)]
    assert here == there


def test_a_cluster_that_is_not_there_is_said(engineer: Api, job_id: JobId, settings: Settings, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(spread, "PATIENCE", "1s")
    settings.STUDY_CLUSTER = "tcp://127.0.0.1:9"
    job = job_id("Guide-vane pin")
    row = begin(engineer, job, "chances")
    work_through()
    refused = engineer.get(f"/api/jobs/{job}/part-studies/{row['id']}").json()
    assert (refused["state"], refused["message"]) == ("refused", "The cluster at tcp://127.0.0.1:9 does not answer.")
    assert begin(engineer, job, "chances")["id"] != row["id"], "asked again it is tried again"


def test_who_may_and_what_is_stopped(engineer: Api, operator: Api, job_id: JobId) -> None:
    job = job_id("Wear bush")
    assert operator.post(f"/api/jobs/{job}/part-studies", {"kind": "chances"}).status_code == 403
    assert engineer.post(f"/api/jobs/{job}/part-studies", {"kind": "weather"}).status_code == 422
    row = begin(engineer, job, "machines")
    assert operator.post(f"/api/jobs/{job}/part-studies/{row['id']}/cancel", {}).status_code == 403
    place = f"/api/jobs/{job}/part-studies/{row['id']}"
    assert engineer.post(f"{place}/cancel", {}).json()["state"] == "cancelled"
    work_through()
    assert operator.get(place).json()["machines"] is None
    assert engineer.get(f"/api/jobs/{job_id('Guide-vane pin')}/part-studies/{row['id']}").status_code == 404
    running = begin(engineer, job, "machines")
    PartStudy.objects.filter(pk=running["id"]).update(state="running")
    engineer.post(f"/api/jobs/{job}/part-studies/{running['id']}/cancel", {})
    assert PartStudy.objects.get(pk=running["id"]).cancel
