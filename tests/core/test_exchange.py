"""Open tables: cells, headings, whole records, and that what goes out comes in again."""

from __future__ import annotations

import string
from dataclasses import replace
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cutting.errors import CuttingError
from cutting.exchange.columns import match_headings, read_numbers, read_row
from cutting.exchange.tables import GEOMETRIES, GRADES, MACHINES, MATERIALS, SPINDLES, TABLES, TOOLS, WINDOWS, machine_of, spindle_of
from cutting.machine.machines import machines
from cutting.tooling.items import geometries, grades
from cutting.workpiece.materials import materials
from cutting.workpiece.user_material import material_of
from server.exchange.files import guard, read_file, unguard, write_file

TOOL = {"kind": "turning insert", "designation": "CNMG 120408", "geometry": "middle", "grade": "P20 CVD"}


def finish(table: Any, **cells: Any) -> dict[str, Any]:
    headings = match_headings(list(cells), table.columns)
    return table.finish(read_row(cells, headings, table.columns))  # type: ignore[no-any-return]


def test_one_tool_under_its_metric_and_its_inch_code() -> None:
    metric, inch = finish(TOOLS, **TOOL), finish(TOOLS, **{**TOOL, "designation": "cnmg-432", "grade": "p20 cvd"})
    assert TOOLS.key(metric) == TOOLS.key(inch)
    assert inch["designation"] == "CNMG 120408"
    assert TOOLS.key(metric) != TOOLS.key(finish(TOOLS, **{**TOOL, "geometry": "heavy"}))


@pytest.mark.parametrize(
    ("changes", "field", "word"),
    [
        ({"designation": "CNMG 110408"}, "designation", "position 5"),
        ({"RE": "1.2"}, "RE", "contradicts"),
        ({"geometry": ""}, "geometry", "has a geometry"),
        ({"pack_size": "0"}, "pack_size", "1 to 10000"),
        ({"pack_size": "2.5"}, "pack_size", "whole"),
        ({"pack_price": "-1"}, "pack_price", "outside"),
        ({"pack_price": "dear"}, "pack_price", "number"),
        ({"price_date": "soon"}, "price_date", "2026-09"),
        ({"H": "25"}, "H", "not a property"),
        ({"kind": "hammer"}, "kind", "none of"),
        ({"bin": "x" * 21}, "bin", "20"),
        ({"quantity": "nan"}, "quantity", "finite"),
        ({"kind": "boring bar", "designation": "S25T-SCLCR 09", "geometry": "", "grade": ""}, "DMIN1", "needed"),
        (
            {"kind": "boring bar", "designation": "PCLNR 2525 M12", "geometry": "", "grade": "", "DMIN1": "20"},
            "designation",
            "outside holder",
        ),
        ({"kind": "grooving insert", "designation": "own code 3"}, "CW", "needed"),
        ({"kind": "turning insert", "designation": "LNMX 191940"}, "designation", "give it as IC"),
    ],
)
def test_a_bad_tool_names_its_field(changes: dict[str, str], field: str, word: str) -> None:
    with pytest.raises(CuttingError) as refused:
        finish(TOOLS, **{**TOOL, **changes})
    assert refused.value.field == field
    assert word in str(refused.value)


def test_headings_by_symbol_by_name_and_in_inches() -> None:
    cells = {"Kind": "grooving insert", "designation": "b 3", "geometry": "light", "grade": "M15 PVD",
             "cutting width [in]": "0.125", "RE corner radius [mm]": "0.2", "CEDC": "2"}  # fmt: skip
    record = read_row(cells, match_headings(list(cells), TOOLS.columns), TOOLS.columns)
    assert record["CW"] == pytest.approx(3.175)
    assert record["RE"] == 0.2
    for headings, word in (
        (["kind", "colour"], "no column"),
        (["kind", "kind "], "twice"),
        (["geometry"], "missing"),
        (["kind [kg]"], "unit"),
    ):
        with pytest.raises(CuttingError, match=word):
            match_headings(headings, TOOLS.columns)


@pytest.mark.parametrize(
    ("text", "numbers"),
    [
        ("30 45\t63\n90", (30, 45, 63, 90)),
        ("30, 45, 63.5", (30, 45, 63.5)),
        ("0,05; 0,1", (0.05, 0.1)),
        ("30 · 45 | 63", (30, 45, 63)),
    ],
)
def test_pasted_lists(text: str, numbers: tuple[float, ...]) -> None:
    assert read_numbers(text, "speeds") == numbers


@pytest.mark.parametrize("text", ["30 fast", "30 -5", "1,2,3", "inf"])
def test_pasted_nonsense_is_refused(text: str) -> None:
    with pytest.raises(CuttingError):
        read_numbers(text, "speeds")


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"power_curve": "100:5"}, "power_curve"),
        ({"power_curve": "100:5 50:6"}, "power_curve"),
        ({"power_curve": "0:0 100:0"}, "power_curve"),
        ({"speeds": "30 9000"}, "speeds"),
        ({"speed_min": "5000"}, "speed_min"),
        ({"coolant": "beer:3"}, "coolant"),
        ({"condition": "tired"}, "condition"),
        ({"jaw_mass": "3"}, "jaw_mass"),  # at 70 mm and 4000 1/min three of them pull 110 kN
    ],
)
def test_a_machine_must_go_together(changes: dict[str, str], field: str) -> None:
    good = {"name": "m", "power_curve": "0:0 1000:11 4000:11", "speed_max": "4000", "chuck_speed_max": "3500", "swing": "300",
            "turning_length": "500", "rate": "50"}  # fmt: skip
    assert machine_of(finish(MACHINES, **good)).spindle_power(500) == pytest.approx(5.5)
    with pytest.raises(CuttingError) as refused:
        finish(MACHINES, **{**good, **changes})
    assert refused.value.field == field


def test_supplier_s_window_must_rise() -> None:
    assert finish(WINDOWS, tool="x", group="7", speed_min="100", speed_max="180 m/min")["speed_max"] == 180
    with pytest.raises(CuttingError, match="speed_min"):
        finish(WINDOWS, tool="x", group="7", speed_min="200", speed_max="180")
    with pytest.raises(CuttingError, match="no number"):
        finish(WINDOWS, tool="x", group="7")


def test_a_material_s_hardness_on_any_scale() -> None:
    steel = finish(MATERIALS, name="own", group="7", hardness_low="28 HRC", hardness_high="300")
    assert steel["hardness_low"] == pytest.approx(272, abs=1)  # iso-18265: 27.8 HRC is 271, 28.5 HRC is 276 HB
    assert steel["hardness_high"] == 300
    assert steel["strength"] == pytest.approx(968, abs=3)
    for low, word in (("15 HRC", "20.3"), ("28 HRX", "no scale"), ("2", "5 to 1000"), ("soft", "not a hardness")):
        with pytest.raises(CuttingError, match=word) as refused:
            finish(MATERIALS, name="own", group="7", hardness_low=low, hardness_high="300")
        assert refused.value.field == "hardness_low"
    with pytest.raises(CuttingError, match="unalloyed and low-alloy steel"):
        finish(MATERIALS, name="own", group="14", hardness_low="180 HV", hardness_high="200")


def test_windows_and_spans_that_are_none() -> None:
    geometry = {"name": "g", "groove_rake": "10", "edge_radius": "30", "suits": "PM"}
    for window in ("0.1:1 0.2:2", "0.1:1 0.2:2 0.3:3", "0.1:1 0.1:2 9:1"):
        with pytest.raises(CuttingError) as refused:
            finish(GEOMETRIES, **geometry, window=window)
        assert refused.value.field == "window"
    with pytest.raises(CuttingError, match="backwards"):
        finish(GRADES, name="g", tool_class="carbide", spans="P30-P10", main_letter="P")
    with pytest.raises(CuttingError, match="among the spans"):
        finish(GRADES, name="g", tool_class="carbide", spans="P10-P30", main_letter="K")


def shipped() -> dict[str, list[dict[str, Any]]]:
    return {
        "geometries": [{c.name: getattr(g, c.name, False) for c in GEOMETRIES.columns} for g in geometries().values()],
        "grades": [
            {c.name: getattr(g, c.name, False) for c in GRADES.columns} | {"spans": tuple(f"{a}{b:02d}-{a}{c:02d}" for a, b, c in g.spans)}
            for g in grades().values()
        ],
        "materials": [
            {"group": m.group.number, **{c.name: getattr(m, c.name) for c in MATERIALS.columns if c.name != "group"}} for m in materials()
        ],
        "machines": [{c.name: getattr(m, c.name) for c in MACHINES.columns} for m in machines()],
        "spindles": [
            {c.name: {"machine": m.name, "spindle": one.name}.get(c.name) or getattr(one, c.name) for c in SPINDLES.columns}
            for m in machines()
            for one in m.further
        ],
    }


@pytest.mark.parametrize("form", ["csv", "xlsx", "json"])
@pytest.mark.parametrize("name", ["geometries", "grades", "materials", "machines", "spindles"])
def test_everything_shipped_goes_out_and_comes_in_again(form: str, name: str) -> None:
    table = TABLES[name]
    records = [table.finish(record) for record in shipped()[name]]
    again = read_back(form, name, write_file(form, [(table, records)]))
    assert again == records
    if name == "materials":
        assert [material_of(record) for record in again] == list(materials())
    if name == "machines":
        assert [machine_of(record) for record in again] == [replace(m, further=()) for m in machines()]
    if name == "spindles":
        assert [spindle_of(record) for record in again] == [one for m in machines() for one in m.further]


def read_back(form: str, name: str, content: bytes) -> list[dict[str, Any]]:
    (found,) = read_file(content, form, name)
    headings = match_headings(found.headings, found.table.columns)
    return [found.table.finish(read_row(cells, headings, found.table.columns)) for _, cells in found.rows]


printable = st.text(st.characters(codec="utf-8", categories=("L", "N", "P", "S", "Zs")), max_size=20).map(lambda s: " ".join(s.split()))
money = st.integers(0, 10_000_000).map(lambda cents: cents / 100)


def twelve(value: float) -> float:
    """What reading keeps of a number."""
    return float(f"{value:.12g}")


tools = st.fixed_dictionaries(
    {
        "kind": st.just("turning insert"),
        "designation": st.sampled_from(["CNMG 120408", "CCMT 09T304", "TNMG 160404", "RCMT 1204M0", "CNGA 120408 T01020 B"]),
        "geometry": st.text(string.ascii_letters, min_size=1, max_size=8),
        "grade": st.text(string.ascii_letters + "=+-@'", min_size=1, max_size=8),
        "own_number": printable,
        "pack_price": money,
        "pack_size": st.integers(1, 100),
        "price_date": st.sampled_from(["", "2026-09", "2026-11-23"]),
        "bin": printable,
        "quantity": st.integers(0, 100_000),
        "coolant": st.sampled_from(["flood", "jet"]),
        "WT": st.one_of(st.none(), st.floats(0.001, 50).map(twelve)),
        "L": st.one_of(st.none(), st.floats(0.5, 80).map(twelve)),
        "source": printable.map(lambda s: s or "x"),
        "from_memory": st.booleans(),
    }
)


@settings(max_examples=60, deadline=None)
@given(st.lists(tools, min_size=1, max_size=5), st.sampled_from(["csv", "xlsx", "json"]))
def test_any_tools_go_out_and_come_in_again(given_tools: list[dict[str, Any]], form: str) -> None:
    """Formula starts, quotes, decimals, any script: each comes back as it was, in all three formats."""
    blank = {column.name: column.default for column in TOOLS.columns}
    records = [TOOLS.finish({**blank, **tool}) for tool in given_tools]
    assert read_back(form, "tools", write_file(form, [(TOOLS, records)])) == records


@given(st.text(max_size=30))
def test_the_guard_takes_itself_back(text: str) -> None:
    guarded = guard(text)
    assert unguard(guarded) == text
    assert not guarded or guarded[0] not in "=+-@\t\r" or guarded == text == ""


@pytest.mark.parametrize(
    ("name", "content", "word"),
    [
        ("csv", b"kind,designation\n\xff,x", "UTF-8"),
        ("csv", b"a,b\n1,2", "fit none of the tables"),
        ("csv", b"kind,designation\n", "no rows"),
        ("csv", b"kind,designation\nx,y,z", "more cells"),
        ("xlsx", b"PK\x03\x04 broken", "workbook"),
        ("json", b"[1]", "not this form"),
        ("json", b'{"format": "arrow-bench shop", "version": 2, "tables": {}}', "version"),
        ("json", b'{"format": "arrow-bench shop", "version": 1, "tables": {"hats": []}}', "hats"),
        ("json", b'{"format": "arrow-bench shop", "version": 1, "tables": {"tools": [NaN]}}', "NaN"),
        ("json", b"{", "line 1"),
    ],
)
def test_broken_files_say_what_is_wrong(name: str, content: bytes, word: str) -> None:
    with pytest.raises(CuttingError) as refused:
        read_file(content, name)
    assert word in str(refused.value)
