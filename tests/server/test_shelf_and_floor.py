"""Doors of shelf and floor, the commands that move tables, and an upgrade that keeps what was there."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest
from django.core.management import CommandError, call_command
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from cutting.exchange.tables import TABLES
from server.crib.models import Tool
from server.crib.things import to_core
from server.exchange.files import GivenFile
from server.exchange.plan import plan_import
from server.records.models import Change
from server.work.progress import Progress
from tests.server.conftest import Api


def test_conversion_names_its_standard_and_its_limits(engineer: Api) -> None:
    found = engineer.get("/api/shelf/convert?hardness=62 HRC").json()
    scales = {row["scale"]: row for row in found["scales"]}
    assert "ISO 18265" in found["standard"]
    assert scales["HV"]["value"] == "746"  # iso-18265: 61.8 HRC is 740, 62.5 HRC is 760
    assert scales["HB"]["value"] == ""
    assert "618" in scales["HB"]["missing"]
    for query in ("hardness=15 HRC", "hardness=200 HB&material=304", "hardness=tough", "hardness=200 HB&group=21"):
        answer = engineer.get(f"/api/shelf/convert?{query}")
        assert answer.status_code == 422, query
        assert answer.json()["errors"][0]["field"]


def test_a_derived_material_shows_each_reason(engineer: Api) -> None:
    rows = {row["name"]: row for row in engineer.get("/api/shelf/derive?group=7&hardness_low=28 HRC&hardness_high=300").json()}
    assert "0.4" in rows["specific_force_1"]["reason"]
    assert "ISO 18265" in rows["strength"]["reason"]
    assert engineer.get("/api/shelf/derive?group=77&hardness_low=200&hardness_high=300").status_code == 422
    assert engineer.get("/api/shelf/derive?group=7&hardness_low=300&hardness_high=200").status_code == 422
    assert len(engineer.get("/api/shelf/groups").json()) == 41


def test_a_curve_under_the_hand(engineer: Api) -> None:
    found = engineer.post("/api/floor/curve", {"points": [[0, 0], [1000, 10], [4000, 10]], "curve_at": "motor", "efficiency": 0.8}).json()
    assert found["spindle"][-1] == [4000, 8.0]
    assert max(torque for _, torque in found["torque"]) == pytest.approx(76.4, abs=0.1)  # 9549·8/1000
    assert "76 N·m" in found["note"]
    assert engineer.post("/api/floor/curve", {"points": [[0, 0]]}).status_code == 422
    creeping = engineer.post("/api/floor/curve", {"points": [[1e-300, 10], [4000, 10]]})
    assert (creeping.status_code, creeping.json()["errors"][0]["bound"]) == (422, "0, or from 0.1 rpm")
    for points in ([], [[], []], [[0, 5], [0, 7]], [[0, 1], [1e300, 2]], [[-5, 1], [10, 2]], [[1], [2, 3, 4, 5]]):
        refused = engineer.post("/api/floor/curve", {"points": points})
        assert refused.status_code == 422, points
        assert "points" in refused.json()["errors"][0]["field"]


def test_a_pasted_list_is_tidied(engineer: Api) -> None:
    found = engineer.post("/api/floor/read-list", {"text": "90 45\n45; 30"}).json()
    assert found["numbers"] == [30, 45, 90]
    assert "1 doubles dropped" in found["note"]
    assert engineer.post("/api/floor/read-list", {"text": "fast"}).status_code == 422


def test_tool_materials_take_the_crib_s_prices(engineer: Api) -> None:
    task = {
        "material": "4140",
        "machine": "two-axis lathe",
        "diameter": "2.5 in",
        "length": "4 in",
        "feed_per_rev": "10 thou",
        "depth_of_cut": "2",
    }
    rows = {row["name"]: row for row in engineer.post("/api/floor/tool-materials", task).json()}
    assert "from the crib" in rows["coated carbide"]["edge_note"]
    assert rows["coated carbide"]["cutting_speed"]["inch"].endswith("sfm")
    assert not rows["CBN"]["suits"]
    wrong = engineer.post("/api/floor/tool-materials", {**task, "diameter": "-3"})
    assert wrong.status_code == 422
    assert wrong.json()["errors"][0]["field"] == "diameter"


CELLS = st.one_of(
    st.none(),
    st.booleans(),
    st.integers(),
    st.floats(),
    st.text(max_size=12),
    st.lists(st.integers(), max_size=3),
    st.dictionaries(st.text(max_size=2), st.integers(), max_size=1),
)


@settings(max_examples=120, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.sampled_from(list(TABLES)), st.data())
def test_no_cell_breaks_the_preview(demo: None, name: str, data: st.DataObject) -> None:
    """Whatever stands in a file: each row gets a fate, and a refusal says why."""
    table = TABLES[name]
    columns = [column.name for column in table.columns if column.required] + data.draw(
        st.lists(st.sampled_from([c.name for c in table.columns if not c.required]), unique=True, max_size=5)
    )
    rows = data.draw(st.lists(st.fixed_dictionaries(dict.fromkeys(columns, CELLS)), min_size=1, max_size=3))
    plan = plan_import([GivenFile(table, columns, list(enumerate(rows, start=2)))], Progress())
    assert len(plan.fates) == len(rows)
    assert all(fate.why for fate in plan.fates if fate.fate == "refused")


@settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(name=st.sampled_from(["designation", "pack_price", "WT", "CEDC", "geometry", "price_date", "quantity"]), value=CELLS)
def test_no_cell_breaks_the_door(engineer: Api, name: str, value: Any) -> None:
    pk = Tool.objects.get(name="CNMG 120404 light P10 CVD").pk
    try:
        body = json.dumps({"version": 1, "cells": {name: value}}, allow_nan=True)
    except ValueError:
        return
    answer = engineer.post(f"/api/records/tools/{pk}", body)
    assert answer.status_code in (200, 400, 409, 422), answer.content
    if answer.status_code == 200:
        assert engineer.get(f"/api/records/tools/{pk}").status_code == 200
        Tool.objects.filter(pk=pk).update(version=1)


@pytest.mark.django_db
def test_the_commands_move_tables(demo: None, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    file = tmp_path / "tools.csv"
    call_command("export_shop", str(file), "--table", "tools")
    file.write_text(file.read_text(encoding="utf-8-sig").replace("A-05", "Q-77"), encoding="utf-8")
    call_command("import_shop", str(file))
    assert "1 changed" in capsys.readouterr().out
    assert not Tool.objects.filter(bin="Q-77").exists()
    call_command("import_shop", str(file), "--apply")
    assert Tool.objects.get(bin="Q-77").name == "CNMG 120408 middle P20 CVD"
    assert Change.objects.get(table="tools").fields == {"bin": ["A-05", "Q-77"]}
    for wrong in (str(tmp_path / "none.csv"), str(tmp_path)):
        with pytest.raises(CommandError):
            call_command("import_shop", wrong)
    with pytest.raises(CommandError, match="must end in"):
        call_command("export_shop", str(tmp_path / "tools.doc"))


@pytest.mark.django_db(transaction=True)
def test_an_upgrade_keeps_the_tools_that_were_there() -> None:
    """From the first schema, where inserts and holders were tables of their own."""
    old = MigrationExecutor(connection)
    old.migrate([("crib", None)])
    try:
        old = MigrationExecutor(connection)
        old.migrate([("crib", "0001_initial")])
        apps = old.loader.project_state([("crib", "0001_initial")]).apps
        geometry = apps.get_model("crib", "Geometry").objects.create(
            name="own", purpose="", window=[[0.1, 0.5], [0.3, 2], [0.2, 0.4]], groove_rake=10, edge_radius=30, wiper=False, breaker=True,
            flank="N", suits="PM", strength=1, source="x",
        )  # fmt: skip
        grade = apps.get_model("crib", "Grade").objects.create(
            name="P20 x", tool_class="carbide", substrate="", spans=[["P", 10, 30], ["K", 10, 20]], main_letter="P", speed_factor=1,
            toughness=0.7, heat_factor=1, source="x",
        )  # fmt: skip
        apps.get_model("crib", "Insert").objects.create(
            name="CNMG 120408 own P20 x", designation="CNMG 120408", geometry=geometry, grade=grade, pack_price=90, pack_size=10, bin="Z",
            quantity=7, source="x",
        )  # fmt: skip
        apps.get_model("crib", "Holder").objects.create(designation="PCLNR 2525 M12", coolant="jet", overhang=27, price=118, source="x")
        new = MigrationExecutor(connection)
        new.migrate(new.loader.graph.leaf_nodes())
        insert, holder = Tool.objects.get(kind="turning insert"), Tool.objects.get(kind="turning holder")
        assert (insert.name, insert.bin, insert.quantity, insert.edges, insert.edge_price) == ("CNMG 120408 own P20 x", "Z", 7, 4, 2.25)
        assert insert.geometry
        assert insert.grade
        core = to_core(insert)
        assert (core.code.nose_radius, core.code.edge_length) == pytest.approx((0.8, 12.9), abs=0.01)
        assert insert.grade.letters == "PK"
        assert to_core(holder).overhang == 27
    finally:
        last = MigrationExecutor(connection)
        last.migrate(last.loader.graph.leaf_nodes())


def test_axes_are_marked_in_the_units_shown(engineer: Api) -> None:
    body = {"points": [[0.1, 0.5], [0.1, 2.0], [0.4, 2.0], [0.4, 0.5]]}
    metric, inch = (engineer.post("/api/crib/geometries/hull", {**body, "units": units}).json() for units in ("mm", "inch"))
    assert metric["feed_top"] == inch["feed_top"] == 0.5
    assert [t["metric"] for t in metric["feed_ticks"]] == ["0.1", "0.2", "0.3", "0.4"]
    assert [t["inch"] for t in inch["feed_ticks"]] == ["0.005", "0.01", "0.015"]
    assert inch["feed_ticks"][1]["value"] == pytest.approx(0.254)
    assert inch["points"][2] == {"feed": {"metric": "0.4 mm/rev", "inch": "0.0157 ipr"}, "depth": {"metric": "2 mm", "inch": "0.0787 in"}}
    assert engineer.post("/api/crib/geometries/hull", {"points": [[0.1, 1], [0.2], [0.3, 2]]}).status_code == 422
    lathe = next(m for m in engineer.get("/api/floor/machines?units=inch").json() if m["name"] == "mill-turn")
    assert [t["inch"] for t in lathe["axes"]["power"]] == ["10", "20", "30", "40"]  # 26 kW is 34.9 hp
    assert lathe["axes"]["power"][2]["value"] == pytest.approx(30 * 0.74569987)
