"""What is kept of jobs, sheets and lessons: it holds as long as what it stands on, and no longer."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest
from django.contrib.auth.models import User

from server.crib.models import Tool
from server.floor.models import Machine
from server.jobs.kept import actions, reckonings, uses
from server.jobs.models import Job, Reckoning, Sheet
from server.records.api import MOST_NAMED
from server.records.models import Stamp
from server.shop import shop
from tests.server.conftest import Api

JobId = Callable[[str], int]
INSERT = "CNMG 120408 middle P20 CVD"
SPANS = {
    f"{what}_{end}": value
    for what, ends in {"speed": (90, 120, 150), "feed": (0.1, 0.2, 0.3), "depth": (0.5, 1.5, 3)}.items()
    for end, value in zip(("min", "start", "max"), ends, strict=True)
}
SUB = {"machine": "two-axis lathe", "spindle": "sub", "power_curve": "0:0 1000:5 4000:5", "speed_max": 4000, "chuck_speed_max": 4000}


@pytest.fixture
def reckoned(monkeypatch: pytest.MonkeyPatch) -> list[int]:
    """The jobs that are reckoned anew."""
    found: list[int] = []

    def state_of(revision: Any, *more: Any) -> dict[str, Any]:
        found.append(revision.job_id)
        return true_state_of(revision, *more)

    true_state_of = reckonings.state_of
    monkeypatch.setattr(reckonings, "state_of", state_of)
    return found


def reprice(engineer: Api, name: str = INSERT) -> None:
    tool = Tool.objects.get(name=name)
    changed = engineer.post(f"/api/records/tools/{tool.pk}", {"version": tool.version, "cells": {"pack_price": f"{tool.pack_price * 2:g}"}})
    assert changed.status_code == 200, changed.json()


def test_a_list_reckons_only_what_something_has_touched(
    engineer: Api, job_id: JobId, reckoned: list[int], monkeypatch: pytest.MonkeyPatch
) -> None:
    first = engineer.get("/api/jobs").json()
    assert len(reckoned) == first["matched"] == len(first["rows"]) == Job.objects.count()
    reckoned.clear()
    assert engineer.get("/api/jobs").json() == first
    assert reckoned == []
    reprice(engineer)
    touched = {job.pk for job in uses.jobs_using([("tools", INSERT)])}
    assert job_id("Runner shaft") in touched
    assert len(touched) < Job.objects.count()
    assert reckoned == [], "the figures before the change were kept already"
    rows = {row["id"]: row for row in engineer.get("/api/jobs").json()["rows"]}
    assert set(reckoned) == touched
    before = {row["id"]: row for row in first["rows"]}
    dearer = {one for one in before if rows[one]["state"]["tape"]["money_display"] != before[one]["state"]["tape"]["money_display"]}
    assert job_id("Runner shaft") in dearer
    assert dearer <= touched, "an edge that lasts for thousands moves no cent"
    reckoned.clear()
    saved = engineer.edit(job_id("Runner shaft"), 1, action="set_settings", operation="op30", settings={"feed_per_rev": "0.2"})
    assert reckoned == [saved.json()["id"]], "when it is saved, not when somebody lists it"
    reckoned.clear()
    shaft = next(row for row in engineer.get("/api/jobs").json()["rows"] if row["name"] == "Runner shaft")
    assert shaft["state"]["tape"]["money_display"] == saved.json()["state"]["tape"]["money_display"]
    assert reckoned == []
    monkeypatch.setattr(reckonings, "release", lambda: "the next one")
    engineer.get("/api/jobs?limit=3")
    assert len(reckoned) == 3, "another release may reckon otherwise"
    rounds = 1
    while reckonings.catch_up():  # as idle workers do
        rounds += 1
        assert rounds < 20
    assert sorted(reckoned) == sorted(Job.objects.values_list("pk", flat=True))


def test_what_was_reckoned_with_the_shop_as_it_was_is_not_kept(engineer: Api, job_id: JobId) -> None:
    job, before = job_id("Runner shaft"), shop()
    reprice(engineer)
    late = reckonings.keep(actions.newest(job), before)
    assert late.figures
    assert not Reckoning.objects.filter(job=job, release=reckonings.release()).exists()
    reckonings.keep(actions.newest(job), shop())
    assert reckonings.holds(Reckoning.objects.get(job=job), Job.objects.get(pk=job))


def test_a_list_comes_in_pages_and_by_words(engineer: Api, job_id: JobId) -> None:
    every = engineer.get("/api/jobs").json()
    order = [min(row["state"]["attention"], 1.5 if row["stale"] else 9) for row in every["rows"]]
    assert order == sorted(order)
    paged = [row for start in range(0, every["matched"], 4) for row in engineer.get(f"/api/jobs?offset={start}&limit=4").json()["rows"]]
    assert paged == every["rows"]
    assert engineer.get(f"/api/jobs?offset={10**30}").json() == {"matched": every["matched"], "rows": []}
    found = engineer.get("/api/jobs?q=shaft+34crnimo").json()
    assert [row["name"] for row in found["rows"]] == ["Runner shaft"]
    assert found["matched"] == 1
    assert engineer.get("/api/jobs?q=shaft+bush").json()["matched"] == 0, "all of the words, not any"
    assert engineer.get("/api/jobs?q=shaft&archived=true").json() == {"matched": 0, "rows": []}
    inside = [row["id"] for row in every["rows"] if row["state"]["attention"] == 3]
    used = (one["tool"] for job in inside for one in actions.newest(job).document["operations"])
    tool = next(one["insert"] for one in used if "insert" in one)
    reprice(engineer, tool)
    ranks = [(row["state"]["attention"], row["stale"]) for row in engineer.get("/api/jobs").json()["rows"]]
    assert ranks.index((3, 1)) < ranks.index((2, 0)), "what changed under its feet comes before what is to be run with care"


def test_a_machine_that_hundreds_of_jobs_use_names_some_and_counts_all(engineer: Api, job_id: JobId) -> None:
    document = actions.newest(job_id("Runner shaft")).document
    author = User.objects.get(username="engineer")
    here = len(uses.ids_using([("machines", "two-axis lathe")]))
    for k in range(70):
        actions.create_job({**document, "name": f"Shaft {k}"}, author)
    machine = Machine.objects.get(name="two-axis lathe")
    record = engineer.get(f"/api/records/machines/{machine.pk}").json()
    assert record["used_in_all"] == here + 70
    assert len(record["used_in"]) == MOST_NAMED
    engineer.get("/api/jobs?limit=200")
    changed = engineer.post(f"/api/records/machines/{machine.pk}", {"version": machine.version, "cells": {"rate": "99"}})
    assert changed.status_code == 200, changed.json()
    stale = Job.objects.exclude(reckoned=None)
    assert {job.pk for job in stale} == uses.ids_using([("machines", "two-axis lathe")])
    assert all(len(job.stale) == 1 and job.reckoned["whole piece"]["cost"] for job in stale)


@pytest.mark.parametrize(
    ("table", "cells", "owner"),
    [
        ("windows", {"tool": INSERT, "group": 7, **SPANS}, ("tools", INSERT)),
        ("spindles", SUB, ("machines", "two-axis lathe")),
    ],
)
def test_what_a_thing_is_given_anew_touches_its_jobs_too(engineer: Api, table: str, cells: dict[str, Any], owner: tuple[str, str]) -> None:
    """A row that belongs to a tool or machine is no change of that row, but what the jobs stand on is another thing then."""
    engineer.get("/api/jobs")
    using = uses.ids_using([owner])
    assert using
    made = engineer.post(f"/api/records/{table}", {"cells": cells})
    assert made.status_code == 201, made.json()
    assert {row.job_id for row in Reckoning.objects.filter(release="")} == using
    assert all("was entered" in job.stale[-1]["reason"] for job in Job.objects.filter(pk__in=using))
    engineer.get("/api/jobs")
    assert engineer.post(f"/api/records/{table}/{made.json()['id']}/archive", {}).status_code == 200
    assert {row.job_id for row in Reckoning.objects.filter(release="")} == using


def test_a_sheet_is_drawn_again_when_something_was_measured(engineer: Api, job_id: JobId, settings: Any) -> None:
    settings.SHEET_PATIENCE = 0
    job = job_id("Runner shaft")

    def ask() -> int:
        assert engineer.client.get(f"/api/jobs/{job}/setup-sheet").status_code == 202
        return Sheet.objects.count()

    assert (ask(), ask()) == (1, 1)
    read = {"operation": "op30", "pass_number": 1, "commanded": "53.25", "measured": "53.268"}
    made = engineer.post(f"/api/jobs/{job}/measurements", read)
    assert made.status_code == 201
    assert ask() == 2, "the sheet says the offset and the next command"


def test_what_traces_teach_moves_the_whole_part(engineer: Api, job_id: JobId) -> None:
    """A lesson is no row of crib, shelf or floor, but what was reckoned without it holds no more."""
    from server.jobs.kept.lessons import _changes

    job = job_id("Coupling cup")
    drill = next(one["tool"]["drill"] for one in actions.newest(job).document["operations"] if "drill" in one["tool"])
    engineer.get("/api/jobs")
    before = shop().version
    _changes(drill)
    assert shop().version != before
    held = {row.job_id: row.release for row in Reckoning.objects.all()}
    assert held.pop(job) == ""
    assert "" not in [held[one] for one in held if ("tools", drill) not in uses.names_used(actions.newest(one).document)]


def test_every_metal_of_a_job_is_one_that_it_uses(engineer: Api, job_id: JobId) -> None:
    layered = engineer.edit(job_id("Runner shaft"), 1, action="set_part", operation="", layers="1.0503: 150; 34CrNiMo6: 118 mm")
    assert {("materials", "C45"), ("materials", "34CrNiMo6")} <= uses.names_used(layered.json()["document"])
    [stacked] = [job for job in Job.objects.all() if "GFRP" in str(actions.newest(job.pk).document)]
    wanted = {("materials", name) for name in ("GFRP laminate", "X5CrNi18-10", "EN AW-5083")}
    assert wanted <= uses.names_used(actions.newest(stacked.pk).document)
    assert stacked in uses.jobs_using([("materials", "EN AW-5083")])
    assert Stamp.objects.filter(room="shelf").exists()
