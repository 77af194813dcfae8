"""Search in any spelling and any combination of facets, the decoder, fits, and narrowing a crib too large to rank whole."""

from __future__ import annotations

import itertools
import random
from typing import Any

import pytest

from cutting.machine.machines import find_machine
from cutting.tooling.records import properties
from server.crib import narrow
from server.crib.index import FACETS, CribIndex, crib_index
from server.crib.models import Tool
from server.records.filling import fill
from tests.server.conftest import Api


def names(api: Api, query: str) -> list[str]:
    return [row["name"] for row in api.get(f"/api/crib/tools?{query}").json()["rows"]]


@pytest.mark.parametrize(
    "words", ["cnmg 120408 middle p20", "CNMG-432 P20 middle", "cnmg432 p20cvd middle", "p20 CNMG120408 middle", "cnmg 12 04 08 middle p20"]
)
def test_any_spelling_finds_the_tool(engineer: Api, words: str) -> None:
    assert "CNMG 120408 middle P20 CVD" in names(engineer, f"q={words.replace(' ', '+')}")


def test_bins_purposes_and_bars_are_found_too(engineer: Api) -> None:
    assert names(engineer, "q=F-03") == ["A16R-SCLCR 09"]
    assert names(engineer, "q=a16r+sclcr09") == ["A16R-SCLCR 09"]
    assert "16 ER 1.5 ISO light positive M15 PVD" in names(engineer, "q=16er1.5iso")
    assert all("wiper" in name for name in names(engineer, "q=wiper"))
    assert names(engineer, "q=nothing+such") == []


def test_facets_count_under_the_other_filters(engineer: Api) -> None:
    page = engineer.get("/api/crib/tools?shape=C&shape=D&nose_radius=0.8&letter=P&kind=turning+insert").json()
    rows = [t for t in Tool.objects.select_related("grade").filter(kind="turning insert") if "P" in t.grade.letters]
    wanted = [t for t in rows if t.said["shape"] in "CD" and t.said["nose_radius"] == 0.8]
    assert page["matched"] == len(wanted) > 0
    facets = {f["name"]: {v["value"]: v["count"] for v in f["values"]} for f in page["facets"]}
    # a facet's own choice does not narrow its counts, the others do
    assert facets["shape"]["W"] == len([t for t in rows if t.said["shape"] == "W" and t.said["nose_radius"] == 0.8])
    assert facets["nose_radius"]["0.4"] == len([t for t in rows if t.said["shape"] in "CD" and t.said["nose_radius"] == 0.4])


def test_pages_come_in_order_without_gaps(engineer: Api) -> None:
    whole = [name for start in range(0, Tool.objects.count(), 200) for name in names(engineer, f"limit=200&offset={start}")]
    assert whole == sorted(whole)
    assert len(whole) == Tool.objects.count()
    assert whole == [n for start in range(0, len(whole), 50) for n in names(engineer, f"limit=50&offset={start}")]
    assert engineer.get("/api/crib/tools?offset=-1").status_code == 422
    assert engineer.get("/api/crib/tools?letter=Q").status_code == 422


@pytest.mark.django_db
def test_a_patched_index_is_the_one_that_is_read_afresh(demo: None) -> None:
    from server.crib.index import _entries

    chance = random.Random(7)
    rows = list(Tool.objects.order_by("pk"))
    index = CribIndex(_entries(Tool.objects.filter(pk__in=[t.pk for t in rows[:60]])))
    for tool in chance.sample(rows, 25):
        tool.quantity, tool.bin = chance.randint(0, 5), f"Q-{chance.randint(1, 9)}"
        tool.save()
    index.patch(_entries(Tool.objects.order_by("?")))
    fresh = CribIndex(_entries(Tool.objects.all()))
    for words, chosen in (("", {}), ("q-3", {}), ("middle", {"shape": ["C"]}), ("", {"grade": ["P20 CVD"], "circle": ["12.7"]})):
        a, b = index.search(words, chosen, limit=500), fresh.search(words, chosen, limit=500)
        assert (a.ids, a.matched) == (b.ids, b.matched)
        assert a.counts == b.counts


def test_the_decoder_explains_draws_and_knows_who_holds_it(engineer: Api) -> None:
    read = engineer.get("/api/crib/read?designation=cnmg431.5").json()
    assert (read["designation"], read["other"], read["edges"]) == ("CNMG 120406", "CNMG 431.5", 4)
    assert [part["code"] for part in read["parts"]] == ["C", "N", "M", "G", "4", "3", "1.5"]
    assert "PCLNR 2525 M12" in read["partners"]
    assert read["drawing"]["circle_display"] == {"metric": "12.7 mm", "inch": "0.500 in"}
    wrong = engineer.get("/api/crib/read?designation=CNMG+110408")
    assert wrong.status_code == 422
    assert "position 5" in wrong.json()["title"]
    holder = engineer.get("/api/crib/read?designation=A16R-SCLCR+09").json()
    assert holder["kind"] == "bar"
    assert any("4 ×" in remark for remark in holder["remarks"])


def test_assemblies_say_why_they_do_not_fit(engineer: Api, operator: Api) -> None:
    body = {
        "name": "odd",
        "tool": {"insert": "CNMG 120408 middle P20 CVD", "holder": "SCLCR 1616 H09"},
        "overhang": "2 in",
        "machine": "two-axis lathe",
    }
    assert operator.post("/api/crib/assemblies", body).status_code == 403
    made = engineer.post("/api/crib/assemblies", body).json()
    assert not made["fits"]
    assert made["overhang"]["metric"] == "50.8 mm"
    assert {c["name"] for c in made["checks"] if not c["fits"]} == {"clearance", "size", "shank", "overhang"}
    assert engineer.post("/api/crib/assemblies", body).status_code == 409
    assert engineer.post("/api/crib/assemblies", {**body, "name": "b", "overhang": "far"}).status_code == 422


def test_a_drill_is_put_together_with_what_holds_it(engineer: Api) -> None:
    body = {"name": "deep", "tool": {"drill": "carbide 5xD 8.5 K30 fine PVD", "chuck": "shrink BT40 for 10"}, "machine": "machining centre"}
    made = engineer.post("/api/crib/assemblies", {**body, "overhang": "62"}).json()
    assert made["fits"]
    assert made["round"]["side"]
    assert [one["name"] for one in made["checks"]] == ["shank", "seat", "condition", "overhang"]
    odd = {**body, "machine": "two-axis lathe", "overhang": "1 in", "tool": {**body["tool"], "chuck": "shrink BT40 for 6"}}
    wrong = engineer.post("/api/crib/fit", {key: odd[key] for key in ("tool", "machine", "overhang")} | {"units": "mm"}).json()
    assert {one["name"] for one in wrong if not one["fits"]} == {"shank", "seat", "overhang"}


def test_the_ranking_says_what_is_set_up(engineer: Api, job_id: Any) -> None:
    job = job_id("Runner shaft")
    rows = engineer.post(f"/api/jobs/{job}/operations/op20/follow", {"settings": {}, "units": "mm"}).json()["advice"]["candidates"]
    wanted = next(row for row in rows if not row["set_up"])
    body = {
        "name": "here",
        "tool": wanted["tool"],
        "overhang": "25",
        "machine": "two-axis lathe",
        "pocket": "7",
    }
    assert engineer.post("/api/crib/assemblies", body).status_code == 201
    again = engineer.post(f"/api/jobs/{job}/operations/op20/follow", {"settings": {}, "units": "mm"}).json()["advice"]["candidates"]
    assert {row["edge"]: row["set_up"] for row in again}[wanted["edge"]] == "here, pocket 7"


def many_tools() -> list[dict[str, Any]]:
    base = {"own_number": "", "pack_price": 50.0, "pack_size": 10, "price_date": "", "bin": "", "successor": "", "quantity": 0,
            "coolant": "flood",
            **dict.fromkeys(properties()), "source": "made for a test", "from_memory": False}  # fmt: skip
    codes = [f"{shape}NMG 1204{nose}" for shape, nose in itertools.product("CS", ("04", "08", "12", "16"))]
    grades = ("P10 CVD", "P20 CVD", "P30 CVD", "M15 PVD", "K15 CVD")
    geometries = ("light", "middle", "heavy", "light wiper", "middle wiper", "sticky", "hot alloy")
    made = [(c, g, m) for c, g, m in itertools.product(codes, geometries, grades)]
    return [{**base, "kind": "turning insert", "designation": c, "geometry": g, "grade": m} for c, g, m in made]


@pytest.mark.django_db
def test_a_large_crib_is_narrowed_by_exact_rules_and_says_so(demo: None, monkeypatch: pytest.MonkeyPatch) -> None:
    fill("tools", many_tools())
    machine = find_machine("two-axis lathe")
    what = narrow.wanted("turn", "P", 8, machine)
    whole = narrow._load(what)
    assert whole.note == ""
    monkeypatch.setattr(narrow, "MOST_PAIRS", 900)
    ruled = narrow._load(what)
    assert "all are ranked" in ruled.note
    assert {i.grade.name for i in ruled.inserts} <= {g.name for g in ruled.grades if "P" in g.letters}
    assert all(h.code.shank_height == 25 for h in ruled.holders)
    # nothing that fits is lost by the exact rules
    fitting = {i.name for i in whole.inserts if "P" in i.grade.letters and "P" in i.geometry.suits}
    seats = {(h.code.shape, h.code.clearance, h.code.size) for h in ruled.holders}
    assert {i.name for i in ruled.inserts} == {
        n for n in fitting if (c := next(i for i in whole.inserts if i.name == n).code) and (c.shape, c.clearance, c.size) in seats
    }
    monkeypatch.setattr(narrow, "MOST_PAIRS", 200)
    cut = narrow._load(what)
    assert "The best 200 by pre-order" in cut.note
    assert len(cut.places[0]) <= 200
    assert narrow.PRE_ORDER in cut.note
    # the stated order holds: nothing left out is in stock while something kept is not
    stocked = [i.quantity > 0 for i in cut.inserts]
    assert stocked == sorted(stocked, reverse=True)
    mains = [i.grade.main_letter == "P" for i in cut.inserts if i.quantity > 0]
    assert mains == sorted(mains, reverse=True)


@pytest.mark.django_db
def test_the_index_follows_the_crib(demo: None) -> None:
    assert len(crib_index().order) == Tool.objects.count()
    fill("tools", many_tools())
    index = crib_index()
    assert len(index.order) == Tool.objects.count() > 350
    assert {name for name in FACETS if index.search("", {}).counts[name]} >= {"kind", "shape", "grade", "geometry", "section"}
