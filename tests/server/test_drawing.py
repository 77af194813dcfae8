"""What the drawing asks stands by itself; operations make or prepare it, and documents of version 1 become such with nothing lost."""

from __future__ import annotations

import copy
import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth.models import User

from server.jobs.document.plan import Document, checked, setup_of, told_of
from server.jobs.document.upgrade import to_version_2
from server.jobs.models import Job, Revision
from tests.server.conftest import Api

JobId = Callable[[str], int]
OLD: list[dict[str, Any]] = json.loads((Path(__file__).parent / "demo_version_1.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("old", OLD, ids=lambda document: document["name"])
def test_a_document_of_version_1_loses_nothing(demo: None, old: dict[str, Any]) -> None:
    """Every operation is told what it was told, and its set-up is the one that the demo of today has."""
    before = copy.deepcopy(old)
    new = checked(Document, to_version_2(old), "")
    assert old == before
    assert (new["stock"].pop("length"), new["stock"].pop("layers")) == ("", ""), "nobody was asked for them"
    assert {name: value for name, value in new.items() if name not in ("version", "features", "operations", "noted")} == {
        name: value for name, value in old.items() if name not in ("version", "operations")
    }
    today = Revision.objects.get(job__name=old["name"]).document
    moved = (
        "tool",
        "feature",
        "drawn",
        "prepares",
        "spindle",
        "turned_round",
        "process",
        "accepted",
        "program",
        *(("settings",) if old["name"] == "Screen cover disc" else ()),
    )
    for was, entry, fresh in zip(old["operations"], new["operations"], today["operations"], strict=True):
        assert told_of(new, entry) == {name: value for name, value in was["feature"].items() if value not in (None, "")}
        assert list(entry["tool"].values()) == list(was["tool"].values())
        assert {k: v for k, v in entry.items() if k not in moved} == {k: v for k, v in was.items() if k not in moved}
        assert setup_of(new, entry) == setup_of(today, {**fresh, "settings": entry["settings"]})  # what the demo sets today is its own
    assert {entry["drawn"] for entry in new["operations"]} == {feature["id"] for feature in new["features"]}


def test_roughing_prepares_what_finishing_makes(demo: None) -> None:
    shaft = to_version_2(next(one for one in OLD if one["name"] == "Runner shaft"))
    by_number = {entry["number"]: entry for entry in shaft["operations"]}
    assert [entry["prepares"] for entry in by_number.values()] == [False, False, True, False, True, False]
    assert by_number[30]["drawn"] == by_number[40]["drawn"] != by_number[50]["drawn"] == by_number[60]["drawn"]
    asked = next(one["asked"] for one in shaft["features"] if one["id"] == by_number[40]["drawn"])
    assert (asked["end_diameter"], asked["roughness"]) == ("49 h8", "1.6 µm")
    assert "start_diameter" not in asked  # what a cut starts from is not the drawing's to say


def test_rows_of_version_1_are_migrated_once(demo: None) -> None:
    from importlib import import_module

    from django.apps import apps

    upgrade = import_module("server.jobs.migrations.0005_version_2").upgrade
    job = Job.objects.create(name="old", material="C45", machine="two-axis lathe")
    author = User.objects.get(username="engineer")
    row = Revision.objects.create(job=job, number=1, document=OLD[0], gesture="created", author=author, effective=1)
    upgrade(apps, None)
    row.refresh_from_db()
    assert row.document["version"] == 2
    kept = row.document
    upgrade(apps, None)
    row.refresh_from_db()
    assert row.document == kept


def test_the_drawing_comes_first_and_says_what_is_open(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    asked = {"end_diameter": "40 h6", "length": "30", "distance_from_chuck": "20", "roughness": "0.8"}
    noted = engineer.edit(job, 1, action="note_feature", kind="turn", feature=asked).json()["state"]
    row = noted["drawing"][-1]
    assert (row["status"], row["words"]["metric"], row["makes"]) == ("open", "Ø40 h6 × 30 mm, Ra 0.8 µm", [])
    assert row["words"]["inch"].startswith("Ø1.5748 h6 × 1.181 in")
    assert "no operation yet for Ø40 h6" in noted["why"]["metric"]
    planned = engineer.edit(
        job, 2, action="add_operation", kind="turn", title="Seat", feature={"end_diameter": "41"}, drawn=row["id"], prepares=True
    ).json()["state"]["drawing"][-1]
    assert (planned["status"], planned["prepares"], planned["makes"]) == ("open", [70], [])  # prepared is not made
    made = engineer.edit(job, 3, action="add_operation", kind="turn", title="Seat", feature={}, drawn=row["id"]).json()
    assert made["state"]["drawing"][-1]["makes"] == [80]
    rough, fine = made["document"]["operations"][-2:]
    assert (told_of(made["document"], rough)["end_diameter"], told_of(made["document"], fine)["end_diameter"]) == ("41", "40 h6")
    # the drawing's length is every cut's length; a size that a cut leaves is its own
    longer = engineer.edit(job, 4, action="set_feature", operation=fine["id"], feature={"length": "32", "end_diameter": "40 h5"}).json()
    rough, fine = longer["document"]["operations"][-2:]
    assert [told_of(longer["document"], one)["length"] for one in (rough, fine)] == ["32 mm", "32 mm"]
    assert [told_of(longer["document"], one)["end_diameter"] for one in (rough, fine)] == ["41", "40 h5"]
    alone = engineer.edit(job, 5, action="remove_operation", operation=fine["id"]).json()
    assert alone["state"]["drawing"][-1]["status"] == "open"  # what was noted stays
    gone = engineer.edit(job, 6, action="remove_feature", identity=row["id"]).json()
    assert row["id"] not in [one["id"] for one in gone["state"]["drawing"]]
    assert rough["id"] not in [one["id"] for one in gone["document"]["operations"]]


def test_an_operation_that_brought_its_feature_takes_it_along(engineer: Api, job_id: JobId) -> None:
    job = job_id("Bearing carrier")
    before = engineer.get(f"/api/jobs/{job}").json()
    left = engineer.edit(job, 1, action="remove_operation", operation=before["document"]["operations"][-1]["id"]).json()
    assert len(left["state"]["drawing"]) == len(before["state"]["drawing"]) - 1


@pytest.mark.parametrize(
    ("edit", "status", "field"),
    [
        ({"action": "note_feature", "kind": "turn", "feature": {"start_diameter": "60"}}, 422, "feature.start_diameter"),
        ({"action": "note_feature", "kind": "turn", "feature": {"length": "long"}}, 422, "feature.length"),
        ({"action": "note_feature", "kind": "turn", "identity": "none", "feature": {}}, 404, "edit.feature"),
        ({"action": "remove_feature", "identity": "none"}, 404, "edit.feature"),
        ({"action": "add_operation", "kind": "turn", "title": "x", "feature": {}, "drawn": "none"}, 404, "edit.feature"),
        ({"action": "take_tool", "operation": "op30", "tool": {"insert": "x", "blade": "y"}}, 422, "edit.tool"),
        ({"action": "set_feature", "operation": "op30", "spindle": "sub"}, 422, "spindle"),
    ],
)
def test_what_cannot_be_is_refused_by_name(engineer: Api, job_id: JobId, edit: dict[str, Any], status: int, field: str) -> None:
    answer = engineer.edit(job_id("Runner shaft"), 1, **edit)
    assert (answer.status_code, answer.json()["errors"][0]["field"]) == (status, field)
