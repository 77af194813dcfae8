"""Bores through the API: the demo's bearing seat from inside, on paper, and the bore that the operation after it finds."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from tests.server.conftest import Api

JobId = Callable[[str], int]


@pytest.fixture
def carrier(job_id: JobId) -> int:
    return job_id("Carrier, bored seats")


def test_the_bearing_seat_is_seen_from_inside(engineer: Api, carrier: int) -> None:
    answer = engineer.post(f"/api/jobs/{carrier}/operations/op20/evaluate", {"settings": {}})
    assert answer.status_code == 200, answer.json()
    found = answer.json()
    assert found["view"]["kind"] == "bore"
    assert found["view"]["scene"]["bar_diameter"] == 25
    assert found["view"]["map"]["window"]
    assert not [one["name"] for one in found["limits"] if one["utilisation"] > 1.0]
    rows = engineer.post(f"/api/jobs/{carrier}/operations/op20/follow", {"settings": {}}).json()["advice"]["candidates"]
    assert all(row["tool"]["holder"][0] in "SAEJDG" for row in rows)
    longer = engineer.post(f"/api/jobs/{carrier}/operations/op20/evaluate", {"settings": {"overhang": "99 mm"}}).json()
    assert longer["results"]["size_error"]["value"] > found["results"]["size_error"]["value"]


def test_what_comes_after_finds_the_bore(engineer: Api, carrier: int) -> None:
    added = engineer.edit(
        carrier, 1, action="add_operation", kind="bore", title="Bore", feature={"end_diameter": "64 H8", "length": "20 mm"}
    )
    assert added.status_code == 200, added.json()
    entry = added.json()["document"]["operations"][-1]
    told = engineer.post(f"/api/jobs/{carrier}/operations/{entry['id']}/evaluate", {"settings": {}}).json()
    assert told["passes"][0]["from_diameter"]["metric"].startswith("62.015")
    refused = engineer.edit(carrier, 2, action="set_feature", operation="op20", feature={"end_diameter": "40 H7"})
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"].endswith("end_diameter")


def test_a_bore_on_paper(engineer: Api, carrier: int) -> None:
    page = engineer.get(f"/api/jobs/{carrier}/setup-sheet?form=page&operation=op20").content.decode()
    assert "steel Ø 25 mm" in page
    assert "62 H7" in page


def test_a_hole_is_drilled_and_bored(engineer: Api) -> None:
    blank = {"diameter": "80 mm", "free_length": "60 mm", "bore": "0", "pieces": 20, "units": "mm"}
    job = engineer.post("/api/jobs", {"name": "Hub", "material": "C45", "machine": "two-axis lathe", **blank}).json()["id"]
    feature = {"diameter": "30 H7", "depth": "40 mm", "through": False, "roughness": "1.6 µm"}
    added = engineer.edit(job, 1, action="add_operation", kind="drill", title="Bore Ø30 H7", feature=feature)
    assert added.status_code == 200, added.json()
    drilled, bored = added.json()["document"]["operations"]  # the best way is a chain, and is taken whole
    assert (drilled["operation"], bored["operation"]) == ("drill", "bore")
    assert drilled["number"] < bored["number"]
    for one in (drilled, bored):
        found = engineer.post(f"/api/jobs/{job}/operations/{one['id']}/evaluate", {"settings": {}}).json()
        assert found["feasible"], (one["title"], [limit["label"] for limit in found["limits"] if limit["utilisation"] > 1])
    assert found["passes"][-1]["to_diameter"]["metric"].startswith("30.01")


def test_a_fit_on_a_machining_centre_is_milled_and_bored_by_a_head(engineer: Api) -> None:
    blank = {"diameter": "90 mm", "free_length": "50 mm", "bore": "0", "pieces": 20, "units": "mm"}
    job = engineer.post("/api/jobs", {"name": "Flange", "material": "EN AW-6082", "machine": "machining centre", **blank}).json()["id"]
    feature = {"diameter": "30 H7", "depth": "30 mm", "roughness": "1.6 µm"}
    added = engineer.edit(job, 1, action="add_operation", kind="drill", title="Seat Ø30 H7", feature=feature)
    assert added.status_code == 200, added.json()
    bored = added.json()["document"]["operations"][-1]
    base = f"/api/jobs/{job}/operations/{bored['id']}"
    found = engineer.post(f"{base}/evaluate", {"settings": {}}).json()
    assert found["feasible"], [one["name"] for one in found["limits"] if one["utilisation"] > 1]
    assert found["view"]["scene"]["turns"] == "head"
    assert {one["name"] for one in found["not_here"]} == {"ways", "hard"}
    for study in ("plan", "rigidity", "edge-life", "edge-angles", "coolant"):
        answer = engineer.post(f"{base}/{study}", {"settings": {}})
        assert answer.status_code == 200, (study, answer.json())
    fit = engineer.post(f"{base}/plan", {"settings": {}}).json()["ledger"]["fit"]
    assert [one["measured"] for one in fit["stages"]] == [0, 1, 2, 3]
    assert fit["stages"][-1]["grade"] in ("IT5", "IT6", "IT7")
    page = engineer.get(f"/api/jobs/{job}/setup-sheet?form=page&operation={bored['id']}").content.decode()
    assert "stick-out" not in page
    assert "high on its table" in page
