"""Entering, changing and archiving what the shop keeps; history, where it is used, and what it means for jobs."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from cutting.operations.turned.kinds import ROLES
from server.crib.models import Geometry, Tool
from server.floor.models import Machine
from server.jobs.models import Job
from server.records.models import Stamp
from server.records.registry import KEEPERS
from server.shelf.models import Material
from server.shop import shop
from tests.server.conftest import Api

JobId = Callable[[str], int]
NEW = {"kind": "turning insert", "designation": "cnmg 433", "geometry": "Middle", "grade": "p20 cvd", "pack_price": "96", "pack_size": "10"}


def tool_id(name: str) -> int:
    return int(Tool.objects.get(name=name).pk)


def change(api: Api, table: str, pk: int, version: int, **cells: Any) -> Any:
    return api.post(f"/api/records/{table}/{pk}", {"version": version, "cells": cells})


def read(api: Api, table: str, pk: int) -> Any:
    return api.get(f"/api/records/{table}/{pk}").json()


def test_a_tool_is_entered_from_what_stands_on_the_box(engineer: Api) -> None:
    made = engineer.post("/api/records/tools", {"cells": NEW})
    assert made.status_code == 409  # the demo stocks CNMG 120412 middle P20 CVD: its inch code is the same tool
    assert made.json()["title"] == "CNMG 120412 middle P20 CVD is kept already."
    made = engineer.post("/api/records/tools", {"cells": {**NEW, "grade": "K15 CVD"}})
    assert made.status_code == 201
    body = made.json()
    assert body["label"] == "CNMG 120412 middle K15 CVD"
    assert body["entered"] == "by engineer"
    found = engineer.get("/api/crib/tools?q=cnmg+433+k15").json()
    row = next(row for row in found["rows"] if row["name"] == "CNMG 120412 middle K15 CVD")
    assert row["edge_price"]["metric"] == "2.40 €"  # 96 / 10 / 4
    assert shop().library.tool(ROLES[0], "cnmg 120412 MIDDLE k15 cvd").code.nose_radius == 1.2


@pytest.mark.parametrize(
    ("cells", "field"),
    [
        ({**NEW, "designation": "CNMG 999999"}, "designation"),
        ({**NEW, "geometry": "wavy"}, "geometry"),
        ({**NEW, "pack_size": "none"}, "pack_size"),
        ({k: v for k, v in NEW.items() if k != "kind"}, "kind"),
        ({**NEW, "colour": "gold"}, "colour"),
        ({**NEW, "WT": "1,500"}, "WT"),
    ],
)
def test_a_refused_tool_names_its_field_and_nothing_is_kept(engineer: Api, cells: dict[str, str], field: str) -> None:
    before = Tool.objects.count()
    answer = engineer.post("/api/records/tools", {"cells": cells})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == field
    assert Tool.objects.count() == before


def test_only_engineers_change_the_crib(operator: Api, nobody: Api) -> None:
    assert operator.post("/api/records/tools", {"cells": NEW}).status_code == 403
    assert operator.get("/api/records/tools/columns").status_code == 200
    assert nobody.get("/api/records/tools/columns").status_code == 401


def test_a_change_marks_its_jobs_stale_and_says_what_moves(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    pk = tool_id("CNMG 120408 middle P20 CVD")
    record = read(engineer, "tools", pk)
    assert "Runner shaft" in [used["name"] for used in record["used_in"]]
    assert engineer.get(f"/api/jobs/{job}/stale").json() == {"reasons": [], "changes": []}
    before = engineer.get(f"/api/jobs/{job}").json()["state"]["tape"]["money_display"]["metric"]
    changed = change(engineer, "tools", pk, record["version"], pack_price="184.00 €", bin="B-01").json()
    assert changed["history"][0]["fields"] == {"pack_price": ["92.0", "184.0"], "bin": ["A-05", "B-01"]}
    assert changed["history"][0]["author"] == "engineer"
    rows = {row["id"]: row["stale"] for row in engineer.get("/api/jobs").json()["rows"]}
    assert rows[job] == 1
    stale = engineer.get(f"/api/jobs/{job}/stale").json()
    assert "pack price, bin changed" in stale["reasons"][0]["reason"]
    whole = next(c for c in stale["changes"] if c["where"] == "whole piece")
    assert whole["before"]["metric"] == before
    assert whole["now"]["metric"] != before
    assert {c["what"] for c in stale["changes"]} == {"cost"}
    assert engineer.post(f"/api/jobs/{job}/stale/accept", {}).json()["reasons"] == []
    assert Job.objects.get(pk=job).reckoned is None


def test_the_figures_before_are_those_before_the_first_change(engineer: Api, job_id: JobId) -> None:
    job, pk = job_id("Runner shaft"), tool_id("CNMG 120408 middle P20 CVD")
    first = engineer.get(f"/api/jobs/{job}").json()["state"]["tape"]["money_display"]["metric"]
    change(engineer, "tools", pk, 1, pack_price="200")
    change(engineer, "tools", pk, 2, pack_price="300")
    stale = engineer.get(f"/api/jobs/{job}/stale").json()
    assert len(stale["reasons"]) == 2
    assert next(c for c in stale["changes"] if c["where"] == "whole piece")["before"]["metric"] == first


def test_a_material_and_a_machine_mark_jobs_too(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    assert change(engineer, "materials", Material.objects.get(name="34CrNiMo6").pk, 1, specific_force_1="3000").status_code == 200
    assert change(engineer, "machines", Machine.objects.get(name="two-axis lathe").pk, 1, condition="worn", rate="90").status_code == 200
    stale = engineer.get(f"/api/jobs/{job}/stale").json()
    assert len(stale["reasons"]) == 2
    assert any(c["what"] == "cost" for c in stale["changes"])


def test_a_stale_change_is_answered_with_both(engineer: Api) -> None:
    pk = tool_id("CNMG 120404 light P10 CVD")
    assert change(engineer, "tools", pk, 1, quantity="41").status_code == 200
    late = change(engineer, "tools", pk, 1, quantity="39")
    assert late.status_code == 409
    assert late.json()["current_version"] == 2
    assert late.json()["yours"] == {"quantity": [41, 39]}
    assert read(engineer, "tools", pk)["cells"]["quantity"]["value"] == "41"


def test_what_jobs_go_by_keeps_its_name(engineer: Api) -> None:
    pk = tool_id("CNMG 120408 middle P20 CVD")
    answer = change(engineer, "tools", pk, 1, designation="CNMG 120416")
    assert answer.status_code == 409
    assert "archive this" in answer.json()["title"]
    renamed = change(engineer, "geometries", Geometry.objects.get(name="middle").pk, 1, name="centre")
    assert renamed.status_code == 409


def test_archived_tools_leave_the_search_and_the_ranking_but_not_their_jobs(engineer: Api, job_id: JobId) -> None:
    job, name = job_id("Runner shaft"), "CNMG 120408 middle P20 CVD"
    pk = tool_id(name)
    assert engineer.post(f"/api/records/tools/{pk}/archive", {}).json()["archived"]
    assert name not in [row["name"] for row in engineer.get("/api/crib/tools?q=cnmg120408+middle").json()["rows"]]
    assert [row["name"] for row in engineer.get("/api/crib/tools?q=cnmg120408+middle+p20&archived=true").json()["rows"]] == [name]
    follow = engineer.post(f"/api/jobs/{job}/operations/op30/follow", {"settings": {}, "units": "mm"}).json()
    assert name not in [row["edge"] for row in follow["advice"]["candidates"]]
    assert engineer.get(f"/api/jobs/{job}").json()["state"]["operations"][2]["status"] != "broken"
    assert not engineer.post(f"/api/records/tools/{pk}/restore", {}).json()["archived"]
    assert [entry["action"] for entry in read(engineer, "tools", pk)["history"]] == ["restored", "archived"]


def test_a_material_of_ones_own_is_found_and_cuts(engineer: Api) -> None:
    cells = {"name": "Gate steel", "aliases": "gs1; old gate", "group": "7", "hardness_low": "270", "hardness_high": "290"}
    made = engineer.post("/api/records/materials", {"cells": cells}).json()
    assert made["cells"]["strength"]["value"] == "950"  # 280 HB by ISO 18265
    found = engineer.get("/api/shelf/materials?q=OLD gate").json()["rows"]
    assert [m["name"] for m in found] == ["Gate steel"]
    assert shop().library.material("gs1").name == "Gate steel"
    sheet = engineer.get("/api/shelf/materials/Gate%20steel").json()
    assert sheet["neighbours"][0]["name"] in {"42CrMo4", "41Cr4", "34CrMo4", "50CrV4", "34CrAlNi7-10"}
    assert len(sheet["traits"]) == 5


def test_the_supplier_s_window_reaches_the_bench(engineer: Api, job_id: JobId) -> None:
    name = "CNMG 120408 middle P20 CVD"
    cells = {"tool": name.lower(), "group": "8", "speed_min": "100", "speed_max": "400 sfm", "source": "our supplier, page 3"}
    assert engineer.post("/api/records/windows", {"cells": cells}).status_code == 201
    sheet = engineer.get(f"/api/crib/tools/{tool_id(name)}").json()
    assert sheet["windows"][0]["speed"]["max"]["inch"] == "400 sfm"
    body = {"settings": {"cutting_speed": "150 m/min"}, "units": "mm"}
    limits = engineer.post(f"/api/jobs/{job_id('Runner shaft')}/operations/op30/evaluate", body).json()["limits"]
    book = next(limit for limit in limits if limit["name"] == "book_speed")
    assert book["upper"] == pytest.approx(121.92)
    assert book["source"] == "our supplier, page 3"
    assert book["utilisation"] > 1


def test_every_change_moves_the_room_s_stamp(engineer: Api) -> None:
    before = Stamp.all()
    change(engineer, "tools", tool_id("CNMG 120404 light P10 CVD"), 1, quantity="1")
    after = Stamp.all()
    assert after["crib"] != before["crib"]
    assert after["shelf"] == before["shelf"]


@pytest.mark.parametrize("table", list(KEEPERS))
def test_what_the_door_shows_it_takes_back_unchanged(engineer: Api, table: str) -> None:
    """Every cell of every kept thing, sent back as it was written, changes nothing; each column says how to enter it."""
    keeper = KEEPERS[table]
    if table == "windows":
        engineer.post("/api/records/windows", {"cells": {"tool": "CNMG 120408 middle P20 CVD", "group": "8", "feed_max": "0.3"}})
    columns = engineer.get(f"/api/records/{table}/columns").json()
    assert [column["name"] for column in columns] == [column.name for column in keeper.table.columns]
    assert all(column["choices"] for column in columns if column["kind"] == "choice")
    rows = list(keeper.model.objects.order_by("pk"))  # type: ignore[attr-defined]
    assert rows
    for row in rows[:: max(1, len(rows) // 12)]:
        record = read(engineer, table, row.pk)
        cells = {name: cell["value"] for name, cell in record["cells"].items()}
        again = change(engineer, table, row.pk, row.version, **cells)
        assert again.status_code == 200, again.json()
        assert again.json()["version"] == row.version, again.json()["history"][0]
        assert all(cell["shown"]["metric"] == "" or cell["shown"]["inch"] for cell in record["cells"].values())


def test_an_archived_material_still_serves_its_jobs_and_says_so(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    pk = Material.objects.get(name="34CrNiMo6").pk
    engineer.post(f"/api/records/materials/{pk}/archive", {})
    assert "34CrNiMo6" not in [m["name"] for m in engineer.get("/api/shelf/materials?q=34CrNiMo6").json()["rows"]]
    assert [m["name"] for m in engineer.get("/api/shelf/materials?q=34CrNiMo6&archived=true").json()["rows"]] == ["34CrNiMo6"]
    state = engineer.get(f"/api/jobs/{job}").json()
    assert state["stale"] == 1
    assert all(row["status"] != "broken" for row in state["state"]["operations"])
    again = engineer.post(
        "/api/records/materials", {"cells": {"name": "34crnimo6", "group": "8", "hardness_low": "280", "hardness_high": "300"}}
    )
    assert again.status_code == 409
    assert "restore it" in again.json()["title"]


def test_two_people_on_one_tool_one_at_a_time(engineer: Api) -> None:
    """Both started from the same version: the second is told, and its words are in the answer."""
    other = Api("engineer")
    pk = tool_id("TNMG 160404 light P10 CVD")
    answers = [change(who, "tools", pk, 1, bin=place).status_code for who, place in ((engineer, "X-1"), (other, "X-2"), (engineer, "X-3"))]
    assert answers == [200, 409, 409]
    assert read(engineer, "tools", pk)["cells"]["bin"]["value"] == "X-1"
    assert len(read(engineer, "tools", pk)["history"]) == 1
