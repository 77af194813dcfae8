"""Narrow kinds through the API: added, tried, ranked, remedied, exported, printed; their tools through crib and exchange."""

from __future__ import annotations

import csv
import io
from collections.abc import Callable
from typing import Any

import pytest
from pypdf import PdfReader

from server.crib.models import Tool
from server.jobs.document.plan import told_of
from server.jobs.models import Job, Revision
from tests.server.conftest import Api
from tests.server.test_exchange import apply, fates, previewed

JobId = Callable[[str], int]


def trying(who: Api, job: int, operation: str, door: str = "evaluate", **tried: Any) -> Any:
    answer = who.post(f"/api/jobs/{job}/operations/{operation}/{door}", tried)
    assert answer.status_code == 200, answer.content
    return answer.json()


def limits(evaluation: Any) -> dict[str, float]:
    return {limit["name"]: limit["utilisation"] for limit in evaluation["limits"]}


ADDED = {
    "groove": {"where": "outside", "standard": "O-ring 3.53", "diameter": "110", "distance_from_chuck": "20"},
    "face groove": {"outer_diameter": "100 H11", "width": "6 +0.1/0", "depth": "6"},
    "cut off": {"diameter": "40", "bore": "0", "part_length": "20", "distance_from_chuck": "10"},
}


@pytest.mark.parametrize("kind", ADDED)
def test_an_added_operation_starts_with_the_best_tool(engineer: Api, job_id: JobId, kind: str) -> None:
    job = job_id("Bearing carrier")
    saved = engineer.edit(job, 1, action="add_operation", kind=kind, title="New", feature=ADDED[kind])
    assert saved.status_code == 200, saved.content
    entry = saved.json()["document"]["operations"][-1]
    assert entry["number"] == 40
    follow = trying(engineer, job, entry["id"], "follow")
    assert follow["advice"]["candidates"][0]["edge"] == entry["tool"]["insert"]
    assert trying(engineer, job, entry["id"])["feasible"]


def test_an_operation_that_no_tool_makes_is_shown_as_broken(engineer: Api, job_id: JobId) -> None:
    feature = {"outer_diameter": "22", "width": "6", "depth": "6"}
    answer = engineer.edit(job_id("Bearing carrier"), 1, action="add_operation", kind="face groove", title="Small", feature=feature)
    assert answer.status_code == 200, answer.json()
    row = answer.json()["state"]["operations"][-1]
    assert (row["status"], row["seconds"], row["cost"]) == ("no tool", 0.0, 0.0)  # no blade enters so small a ring: nothing stands in
    assert row["problem"]["metric"].startswith("no tool yet: a face grooving blade curved for Ø22 mm that reaches 6 mm")
    assert answer.json()["document"]["operations"][-1]["tool"] == {}
    page = engineer.get(f"/api/jobs/{job_id('Bearing carrier')}/setup-sheet?form=page").content.decode()
    for words in ("NOT PLANNED YET", "NO TOOL YET", "a face grooving blade curved for Ø22 mm"):
        assert words in page
    assert not answer.json()["state"]["planned"]
    assert "no tool yet" in answer.json()["state"]["why"]["metric"]
    unknown = engineer.edit(job_id("Bearing carrier"), 1, action="add_operation", kind="knurl", title="x", feature={})
    assert (unknown.status_code, unknown.json()["errors"][0]["field"]) == (422, "operation")


def test_the_forms_are_drawn_from_the_kinds(engineer: Api) -> None:
    kinds = {kind["name"]: kind for kind in engineer.get("/api/kinds").json()}
    assert list(kinds) == [
        "turn",
        "face",
        "groove",
        "face groove",
        "trepan",
        "drill",
        "mill hole",
        "bore",
        "heavy bore",
        "turn thread",
        "tap",
        "mill thread",
        "cut off",
    ]
    fields = {field["name"]: field for field in kinds["groove"]["feature"]}
    assert "DIN 471" in fields["standard"]["options"]
    assert fields["diameter"]["required"]
    assert kinds["cut off"]["studies"] == ["slot ways", "setting", "process", "program"]


def test_bare_numbers_keep_the_unit_they_were_shown_in(engineer: Api, job_id: JobId) -> None:
    job = job_id("Guide-vane pin")
    settings = {"overhang": "0.5", "feed_zones": "0.4:0.002; 0.2:0.001", "spindle_clamp": "5000"}
    saved = engineer.edit(job, 1, action="set_settings", operation="op40", settings=settings, units="inch").json()
    kept = saved["document"]["operations"][-1]["settings"]
    assert (kept["overhang"], kept["feed_zones"], kept["spindle_clamp"]) == ("0.5 in", "0.4 in:0.002 ipr; 0.2 in:0.001 ipr", "5000 rpm")
    evaluation = trying(engineer, job, "op40", units="inch")
    assert [row["cells"][2]["inch"] for row in evaluation["table"]["rows"]] == ["0.0031", "0.002", "0.001"]
    drawn = engineer.edit(
        job, 2, action="set_feature", operation="op40", feature={"flatness": "800", "diameter": "0.75"}, units="inch"
    ).json()
    feature = told_of(drawn["document"], drawn["document"]["operations"][-1])
    assert (feature["flatness"], feature["diameter"]) == ("800 µin", "0.75 in")


def test_an_unsupported_bar_is_mended_by_one_edit(engineer: Api, job_id: JobId) -> None:
    job = job_id("Guide-vane pin")
    engineer.edit(job, 1, action="set_settings", operation="op40", holding={"guide_bush": False}, feature={"distance_from_chuck": "150 mm"})
    assert limits(trying(engineer, job, "op40"))["bar_support"] > 1
    offers = trying(engineer, job, "op40", "follow")["remedies"]["bar_support"]
    patch = offers[0]["patch"]
    saved = engineer.edit(job, 2, action="set_settings", operation="op40", **patch)
    assert saved.status_code == 200
    assert limits(trying(engineer, job, "op40"))["bar_support"] <= 1


def test_a_way_that_is_taken_may_change_the_kind(engineer: Api, job_id: JobId) -> None:
    """A neck whose walls lean is turned instead: the operation becomes a turning one, and undo brings the groove back."""
    job = job_id("Bearing carrier")
    leaning = {"wall_angle": "45°", "width": "30 +0.2/0"}
    engineer.edit(job, 1, action="set_feature", operation="op20", feature=leaning)
    rows = trying(engineer, job, "op20", "follow")["advice"]["candidates"]
    neck = next(row for row in rows if row["becomes"])
    tool = neck["tool"]
    saved = engineer.edit(job, 2, action="take_tool", operation="op20", tool=tool, settings=neck["settings"], becomes=neck["becomes"])
    assert saved.status_code == 200, saved.content
    assert saved.json()["document"]["operations"][1]["operation"] == "turn"
    assert trying(engineer, job, "op20")["view"]["kind"] == "turned"
    back = engineer.post(f"/api/jobs/{job}/undo", {"base_revision": 3}).json()
    assert back["document"]["operations"][1]["operation"] == "groove"


def test_the_kerf_is_paid_by_the_bar(engineer: Api, job_id: JobId) -> None:
    job = job_id("Guide-vane pin")
    engineer.edit(job, 1, action="set_part", bar_length="2 m", remnant="100", bar_price=20)
    results = trying(engineer, job, "op40")["results"]
    assert results["pieces_per_bar"]["value"] == (2000 - 100) // 40
    assert results["kerf_per_year"]["value"] == pytest.approx(2 / 2000 * 20 * 32000)
    refused = engineer.edit(job, 2, action="set_part", bar_length="soon")
    assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, "bar_length")


def test_the_way_over_diameter_as_csv(operator: Api, job_id: JobId) -> None:
    job = job_id("Guide-vane pin")
    found = {}
    for units in ("mm", "inch"):
        answer = operator.get(f"/api/jobs/{job}/operations/op40/curve.csv?units={units}")
        assert answer["Content-Type"].startswith("text/csv")
        found[units] = list(csv.reader(io.StringIO(answer.content.decode())))
    head, first = found["mm"][:2]
    assert head[0] == "diameter mm"
    assert float(first[0]) == 20.0
    assert float(found["inch"][1][0]) == pytest.approx(20 / 25.4, rel=1e-5)
    seconds = [float(row[1]) for row in found["mm"][1:]]
    assert seconds == sorted(seconds)
    assert seconds[-1] == pytest.approx(trying(operator, job, "op40")["view"]["moments"][-1]["seconds"], rel=1e-5)
    assert operator.get(f"/api/jobs/{job}/operations/op10/curve.csv").status_code == 422


@pytest.mark.parametrize("job", ["Guide-vane pin", "Bearing carrier", "Nozzle ring", "Screen cover disc"])
def test_set_up_sheets_say_what_the_operator_needs(operator: Api, job_id: JobId, job: str) -> None:
    for paper in ("a4", "letter"):
        answer = operator.get(f"/api/jobs/{job_id(job)}/setup-sheet?form=pdf&paper={paper}&units=mm")
        text = "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(answer.content)).pages)
        assert "set-up sheet" in text
        for entry in Revision.objects.get(job_id=job_id(job), number=1).document["operations"]:
            assert entry["title"] in text
            assert list(entry["tool"].values())[-1].split()[0] in text
    assert {"Guide-vane pin": "pip on the part", "Bearing carrier": "nearer wall", "Nozzle ring": "first plunge",
            "Screen cover disc": "feed a turn"}[job] in text  # fmt: skip


def test_blades_bars_and_heads_live_in_the_crib(engineer: Api, job_id: JobId) -> None:
    kinds = {kind["name"]: kind for kind in engineer.get("/api/crib/kinds").json()}
    assert {"DAXN", "DAXX", "HAND"} <= set(kinds["face groove blade"]["required"])
    blade = Tool.objects.get(name="face blade 4 dia 55 to 90")
    assert blade.properties["DAXX"] == 90
    cells = {"kind": "face groove blade", "designation": "own face blade", "pack_price": "150", "CW": "4", "CDX": "20", "DAXN": "70",
             "DAXX": "100", "DAXIN": "58", "B": "3.2", "H": "25", "OHN": "22", "HAND": "R"}  # fmt: skip
    made = engineer.post("/api/records/tools", {"cells": cells})
    assert made.status_code in (200, 201), made.content
    rows = trying(engineer, job_id("Nozzle ring"), "op20", "follow")["advice"]
    assert rows["pairs"] > 0
    assert any(Job.objects.filter(uses__name="face blade 4 dia 55 to 90"))
    incomplete = engineer.post("/api/records/tools", {"cells": {**cells, "designation": "no range", "DAXN": ""}})
    assert (incomplete.status_code, incomplete.json()["errors"][0]["field"]) == (422, "DAXN")


def test_imported_blades_compete_at_the_bench(engineer: Api, job_id: JobId) -> None:
    """A file in inches with symbols and with names: its blade and insert stand in the ranking, at millimetres."""
    head = "kind,designation,geometry,grade,pack price,pack size,CW [in],CDX [in],RE [in],CEDC,CUTDIA [in],B [in],H [in],OHN [in],CNSC"
    insert = "grooving insert,own edge 3,light positive,M15 PVD,60,10,0.1181,0.7874,0.0079,2,,,,,"
    blade = "cut-off blade,own blade 3,,,90,1,0.1181,0.7874,,,2.3622,0.0945,1.0236,0.8661,1"
    kinds = {kind["name"] for kind in engineer.get("/api/crib/kinds").json()}
    assert {"grooving insert", "cut-off blade"} <= kinds
    run = previewed(engineer, "\n".join((head, insert, blade)) + "\n")
    assert run["counts"] == {"new": 2, "changed": 0, "same": 0, "refused": 0}, fates(engineer, run)
    assert apply(engineer, run)["state"] == "done"
    follow = trying(engineer, job_id("Guide-vane pin"), "op40", "follow")
    own = [row for row in (*follow["advice"]["candidates"], *follow["advice"]["nearly"]) if row["edge"].startswith("own edge 3")]
    assert own
    tried = trying(engineer, job_id("Guide-vane pin"), "op40", tool=own[0]["tool"])
    assert tried["view"]["scene"]["width"] == pytest.approx(3.0, abs=0.001)
