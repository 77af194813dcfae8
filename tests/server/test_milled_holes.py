"""Milled holes through the API: seen, on paper, taken from a hole's ranking, and decided by places in the turret."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from tests.server.conftest import Api

JobId = Callable[[str], int]


@pytest.fixture
def cap(job_id: JobId) -> int:
    return job_id("Valve cap, flat floors")


def follow(api: Api, job: int, operation: str) -> list[dict[str, Any]]:
    rows: list[dict[str, Any]] = api.post(f"/api/jobs/{job}/operations/{operation}/follow", {"settings": {}}).json()["advice"]["candidates"]
    return rows


def test_the_mill_on_its_helix(engineer: Api, cap: int) -> None:
    found = engineer.post(f"/api/jobs/{cap}/operations/op20/evaluate", {"settings": {}}).json()
    view = found["view"]
    assert view["kind"] == "mill hole"
    assert view["map"]["sound"]
    assert view["map"]["edges"]
    assert len(view["moments"]) == 96
    assert view["moments"][-1]["depth"] == 16
    assert not [one["name"] for one in found["limits"] if one["utilisation"] > 1.0]
    steep = engineer.post(f"/api/jobs/{cap}/operations/op20/evaluate", {"settings": {"pitch": "2.6 mm"}}).json()
    assert steep["results"]["ramp"]["value"] > found["results"]["ramp"]["value"]
    assert steep["results"]["operation_time"]["value"] < found["results"]["operation_time"]["value"]
    straight = engineer.post(f"/api/jobs/{cap}/operations/op20/evaluate", {"settings": {"path": "plunge"}}).json()
    assert straight["view"]["map"]["edges"] == []


def test_on_paper(engineer: Api, cap: int) -> None:
    page = engineer.get(f"/api/jobs/{cap}/setup-sheet?form=page&operation=op20").content.decode()
    for words in ("helix, pitch 1.8 mm", "path set outward", "last turn", "20 H8"):
        assert words in page


def test_what_has_its_place_already_wants_none(engineer: Api, cap: int) -> None:
    rows = follow(engineer, cap, "op20")
    chosen = next(row for row in rows if row["chosen"])
    assert chosen["in_place"] == "10"
    assert not any(row["no_place"] for row in rows)


def test_a_full_turret_decides(engineer: Api, cap: int) -> None:
    """Every place taken by other operations: only what stands there already is offered first, and the reason says so."""
    from server.floor.models import Machine

    machine = Machine.objects.get(name="mill-turn")
    machine.numbers = {**machine.numbers, "pockets": 1}
    machine.save()
    _bump()
    rows = follow(engineer, cap, "op20")
    assert rows[0]["in_place"] == "10"
    assert rows[0]["no_place"] is False
    assert all("no place left" in row["reason"] for row in rows if row["no_place"])
    assert any(row["no_place"] for row in rows)


def _bump() -> None:
    from server.records.models import Stamp

    Stamp.bump("floor")


def test_a_drilled_hole_is_milled_instead(engineer: Api) -> None:
    blank = {"diameter": "80 mm", "free_length": "60 mm", "bore": "0", "pieces": 20, "units": "mm"}
    job = engineer.post("/api/jobs", {"name": "Plate", "material": "C45", "machine": "mill-turn", **blank}).json()["id"]
    feature = {"diameter": "12 mm", "depth": "14 mm", "through": False}
    added = engineer.edit(job, 1, action="add_operation", kind="drill", title="Hole Ø12", feature=feature)
    entry = added.json()["document"]["operations"][-1]
    milled = engineer.take(job, added.json()["revision"], entry["id"], "helix")[-1]
    assert milled["operation"] == "mill hole"
    assert milled["spindle"] == "driven"
    told = engineer.post(f"/api/jobs/{job}/operations/{entry['id']}/evaluate", {"settings": {}}).json()
    assert told["feasible"], [one["name"] for one in told["limits"] if one["utilisation"] > 1]


def test_end_mills_in_the_crib(engineer: Api) -> None:
    row = engineer.get("/api/crib/tools?q=mill 12 gashed").json()["rows"][0]
    sheet = engineer.get(f"/api/crib/tools/{row['id']}").json()
    assert sheet["round"]["drawing"]["side"]
    assert any("plunge" in fact for fact in sheet["round"]["facts"])
    assert [one["letter"] for one in sheet["round"]["advice"]][:2] == ["", "P"]
    assert any("BT40" in partner for partner in sheet["partners"])
    refused = engineer.post(
        "/api/records/tools", {"cells": {"kind": "end mill", "designation": "x", "grade": "K30 fine PVD", "DC": "10 mm"}}
    )
    assert refused.status_code == 422
    fit = {"tool": {"mill": row["name"], "chuck": "shrink BT40 for 6"}, "overhang": "30", "machine": "machining centre"}
    assert not all(one["fits"] for one in engineer.post("/api/crib/fit", fit).json())


def test_a_tool_less_is_worth_milling_a_hole(engineer: Api, cap: int) -> None:
    """A drilled hole beside two milled ones: for itself the drill is best; with a price on every tool the mill that is there makes it."""
    none, dear = (engineer.post(f"/api/jobs/{cap}/best", {"worth": worth}).json() for worth in (0, 50))
    assert none["rows"][-1]["becomes"] is None
    assert (none["tools_then"], dear["tools_then"]) == (none["tools_then"], 1)
    assert none["tools_then"] > 1
    tools = [{name: row[name] for name in ("operation", "settings", "becomes")} | {"tool": row["then"]["tool"]} for row in dear["rows"]]
    taken = engineer.edit(cap, 1, action="take_tools", operation="", tools=tools)
    assert taken.status_code == 200, taken.json()
    made = taken.json()["document"]["operations"]
    assert [one["operation"] for one in made] == ["mill hole"] * 3
    assert len({tuple(one["tool"].values()) for one in made}) == 1
