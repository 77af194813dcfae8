"""From the drawing to a plan over HTTP: sketch, shaft line, best tools; jobs copied, archived, told of, and in conflict."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from server.jobs.document.differences import differences
from server.jobs.models import Job, Measurement, Note
from tests.server.conftest import Api

JobId = Callable[[str], int]


def sketch(who: Api, job: int, kind: str, feature: dict[str, Any], **more: Any) -> dict[str, Any]:
    answer = who.post(f"/api/jobs/{job}/sketch", {"kind": kind, "feature": feature, "units": "mm", **more})
    assert answer.status_code == 200, answer.content
    found: dict[str, Any] = answer.json()
    return found


def test_a_sketch_settles_what_the_part_knows_and_draws_it(operator: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    found = sketch(operator, job, "turn", {"end_diameter": "30", "length": "40"})
    settled = {one["name"]: one for one in found["settled"]}
    assert settled["start_diameter"]["display"]["metric"] == "35.01 mm"
    assert settled["shoulder"]["flag"] is True
    assert any(one["identity"] == "new" for one in found["outline"]["removed"])
    lengths = [one["display"]["metric"] for one in found["outline"]["lengths"]]
    assert lengths == ["248", "198", "128", "42"]  # shoulders from the free face, the boss of 2 mm in front of it
    broken = sketch(operator, job, "turn", {"end_diameter": "soon", "length": "40"})
    assert broken["problem"]["field"] == "feature.end_diameter"
    assert Job.objects.get(pk=job).revision == 1  # nothing is saved by looking


def test_an_operation_without_its_from_diameter_follows_the_part(engineer: Api, job_id: JobId) -> None:
    job = job_id("Wear bush")
    added = engineer.edit(job, 1, action="add_operation", kind="turn", title="Neck", feature={"end_diameter": "60", "length": "20"}).json()
    entry = added["document"]["operations"][-1]
    assert "start_diameter" not in entry["feature"]

    def starts() -> float:
        answer = engineer.post(f"/api/jobs/{job}/operations/{entry['id']}/evaluate", {"settings": {}, "units": "mm"}).json()
        return float(answer["view"]["scene"]["start_diameter"])

    assert starts() == pytest.approx(68.0, abs=0.1)
    engineer.edit(job, 2, action="remove_operation", operation="op30")
    engineer.edit(job, 3, action="set_feature", operation="op20", feature={"end_diameter": "70"})
    assert starts() == pytest.approx(70.0)


def test_a_shaft_in_one_line_becomes_operations_with_their_best_tools(engineer: Api) -> None:
    new = {"name": "Pin", "material": "C45", "machine": "two-axis lathe", "diameter": "50", "free_length": "110"}
    job = engineer.post("/api/jobs", new).json()["id"]
    line = {"line": "Ø45 x 40, Ø30 h7 x 40 Ra 1.6, groove DIN 471, cut off", "units": "mm"}
    read = engineer.post(f"/api/jobs/{job}/shaft-line", line).json()
    assert [one["kind"] for one in read["operations"]] == ["face", "turn", "turn", "turn", "groove", "cut off"]
    assert {label["display"]["metric"] for label in read["outline"]["labels"]} >= {"45", "30"}
    operations = [{name: one[name] for name in ("kind", "title", "feature")} for one in read["operations"]]
    made = engineer.edit(job, 1, action="add_operations", operations=operations).json()
    assert made["revision"] == 2  # one gesture
    assert [row["status"] for row in made["state"]["operations"]].count("broken") == 0
    inch = engineer.post(f"/api/jobs/{job}/shaft-line", {"line": "1-3/4 x 2, 1 x 1.5", "units": "inch"}).json()
    assert inch["operations"][-1]["feature"]["end_diameter"] == "25.4"
    refused = engineer.post(f"/api/jobs/{job}/shaft-line", {"line": "Ø45 x 500"})
    assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, "line")
    assert "the blank has 110 mm" in refused.json()["title"]


def test_an_inside_profile_in_one_line_is_drilled_by_what_the_crib_has(engineer: Api) -> None:
    new = {"name": "Ring", "material": "C45", "machine": "two-axis lathe", "diameter": "80", "free_length": "60"}
    job = engineer.post("/api/jobs", new).json()["id"]
    line = "Ø70 x 45, bore Ø40 H7 x 25 Ra 1.6 R0.8, bore Ø30 x 40, recess 4 x Ø44 at 10"
    ring = engineer.post(f"/api/jobs/{job}/shaft-line", {"line": line}).json()
    assert [one["kind"] for one in ring["operations"]] == ["face", "drill", "turn", "bore", "bore", "bore", "groove"]
    assert ring["operations"][1]["feature"]["diameter"] == "29 mm"  # the widest that leaves a bar its cut
    operations = [{name: one[name] for name in ("kind", "title", "feature")} for one in ring["operations"]]
    made = engineer.edit(job, 1, action="add_operations", operations=operations).json()["state"]["operations"]
    assert [row["title"] for row in made if row["status"] == "broken"] == []


def test_the_best_tools_cost_what_they_said(engineer: Api, job_id: JobId) -> None:
    job = job_id("Guide-vane pin")
    door = f"/api/jobs/{job}/best"
    each, shared = (engineer.post(door, {"worth": worth}).json() for worth in ("0", "0,3"))
    assert shared["tools_then"] < each["tools_then"] <= each["tools_now"]
    tools = [{"operation": row["operation"], "tool": row["then"]["tool"], "settings": row["settings"]} for row in shared["rows"]]
    taken = engineer.edit(job, 1, action="take_tools", tools=tools).json()
    assert taken["revision"] == 2
    assert len(taken["state"]["tools"]) == shared["tools_then"]
    promised = float(shared["cost_then"]["metric"].split()[0])
    assert sum(row["cost"] for row in taken["state"]["operations"]) == pytest.approx(promised, rel=0.02)
    assert engineer.post(door, {"worth": "-1"}).json()["errors"][0]["field"] == "worth"


def test_a_copy_is_a_job_of_its_own_and_the_archive_keeps_all(engineer: Api, job_id: JobId) -> None:
    job = job_id("Wear bush")
    copy = engineer.post(f"/api/jobs/{job}/copy", {}).json()
    assert (copy["document"]["name"], copy["revision"]) == ("Wear bush, copy", 1)
    again = engineer.post(f"/api/jobs/{job}/copy", {}).json()
    assert again["document"]["name"] == "Wear bush, copy 2"
    engineer.edit(copy["id"], 1, action="set_part", goal="fastest")
    assert engineer.get(f"/api/jobs/{job}").json()["document"]["goal"] == "cheapest"
    assert engineer.post(f"/api/jobs/{copy['id']}/archive", {"archived": True}).status_code == 204
    at_work = {row["id"] for row in engineer.get("/api/jobs").json()["rows"]}
    assert copy["id"] not in at_work
    assert [row["id"] for row in engineer.get("/api/jobs?archived=true").json()["rows"]] == [copy["id"]]
    assert engineer.get(f"/api/jobs/{copy['id']}").json()["archived"] is True
    engineer.post(f"/api/jobs/{copy['id']}/archive", {"archived": False})
    assert copy["id"] in {row["id"] for row in engineer.get("/api/jobs").json()["rows"]}
    assert not Note.objects.filter(job_id=copy["id"]).exists()
    assert not Measurement.objects.filter(job_id=copy["id"]).exists()


def test_an_empty_job_claims_nothing(engineer: Api) -> None:
    new = {"name": "Nothing yet", "material": "C45", "machine": "two-axis lathe", "diameter": "50", "free_length": "80"}
    state = engineer.post("/api/jobs", new).json()["state"]
    assert (state["attention"], state["why"]["inch"], state["tools"]) == (4, "no operations yet", [])


def test_the_pulse_says_who_changed_what(engineer: Api, operator: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    engineer.edit(job, 1, action="set_part", batch={"pieces": "61"})
    pulse = operator.get(f"/api/jobs/{job}/pulse").json()
    assert (pulse["number"], pulse["author"], pulse["gesture"]) == (2, "engineer", "pieces 61")
    assert operator.get("/api/jobs/987654/pulse").status_code == 404


def test_a_conflict_names_every_value_in_which_two_versions_differ(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    engineer.edit(job, 1, action="set_settings", operation="op30", settings={"feed_per_rev": "0.22"})
    stale = engineer.edit(job, 1, action="set_settings", operation="op30", settings={"feed_per_rev": "0.25"})
    assert stale.status_code == 409
    assert stale.json()["differences"] == [
        {"where": "30 Rough turn Ø49.5", "what": "feed", "base": "0.3 mm/rev", "theirs": "0.22 mm/rev", "yours": "0.25 mm/rev"}
    ]


def test_differences_tell_moved_added_and_emptied_apart() -> None:
    one = {"id": "a", "number": 10, "title": "Face", "tool": {"insert": "x"}, "settings": {"coolant": "jet"}}
    two = {"id": "b", "number": 20, "title": "Turn", "tool": {"insert": "y"}, "settings": {}}
    base = {"name": "part", "money": {"target": None}, "operations": [one, two]}
    theirs = {**base, "operations": [two, one]}
    yours = {**base, "money": {"target": 5}, "operations": [one]}
    rows = {(row["where"], row["what"]): (row["base"], row["theirs"], row["yours"]) for row in differences(base, theirs, yours)}
    assert rows["money", "target"] == ("–", "–", "5")
    assert rows["10 Face", "place in the run order"] == ("1", "2", "1")
    assert rows["20 Turn", "insert"] == ("y", "y", "–")
    assert ("10 Face", "coolant") not in rows
    assert differences(base, base, base) == []


def test_the_steps_of_a_row_are_looked_at_before_it_is_taken(engineer: Api) -> None:
    """What would be added, step by step as it would stand; nothing is saved, and taking it makes just that."""
    blank = {"diameter": "60", "free_length": "60"}
    job = engineer.post("/api/jobs", {"name": "Bush", "material": "C45", "machine": "two-axis lathe", "pieces": 50, **blank}).json()
    feature = {"diameter": "12 H7", "depth": "30", "through": False}
    added = engineer.edit(job["id"], 1, action="add_operation", kind="drill", title="Hole", feature=feature).json()
    first, *_, last = added["document"]["operations"]
    alone = engineer.edit(job["id"], 2, action="remove_operation", operation=first["id"]).json()
    path = f"/api/jobs/{job['id']}/operations/{last['id']}"
    rows = engineer.post(f"{path}/follow", {"units": "mm"}).json()["advice"]["candidates"]
    row = next(one for one in rows if one["before"])
    edit = {"action": "take_tool", "operation": last["id"], **{name: row[name] for name in ("tool", "settings", "becomes", "before")}}
    answer = engineer.post(f"{path}/chain", {"edit": edit, "units": "mm"})
    assert answer.status_code == 200, answer.content
    steps = answer.json()
    assert [one["evaluation"]["operation"] for one in steps][-1] in ("drill", "bore")
    assert len(steps) == len(row["before"]) + 1
    assert all(one["evaluation"]["feasible"] and len(one["evaluation"]["stops"]) > 1 for one in steps)
    assert engineer.get(f"/api/jobs/{job['id']}").json()["revision"] == alone["revision"]
    taken = engineer.edit(job["id"], alone["revision"], **edit).json()
    assert [one["title"] for one in taken["document"]["operations"]] == [one["title"]["metric"] for one in steps]
