"""Threads through the API: read on the shelf, seen on the bench, on paper, ranked with the hole before them, measured and corrected."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from server.jobs.document.plan import told_of
from tests.server.conftest import Api

JobId = Callable[[str], int]
BLANK = {"diameter": "80 mm", "free_length": "60 mm", "bore": "0", "pieces": 200, "units": "mm"}


def tried(api: Api, job: int, operation: str, **settings: Any) -> dict[str, Any]:
    found: dict[str, Any] = api.post(f"/api/jobs/{job}/operations/{operation}/evaluate", {"settings": settings}).json()
    return found


def rows_of(api: Api, job: int, operation: str) -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = api.post(f"/api/jobs/{job}/operations/{operation}/follow", {"settings": {}}).json()["advice"][
        "candidates"
    ]
    return found


def new_job(api: Api, feature: dict[str, Any], machine: str = "machining centre", kind: str = "tap") -> tuple[int, int, str]:
    job = api.post("/api/jobs", {"name": "Block", "material": "C45", "machine": machine, **BLANK}).json()["id"]
    added = api.edit(job, 1, action="add_operation", kind=kind, title="Thread", feature=feature)
    assert added.status_code == 200, added.json()
    return job, added.json()["revision"], added.json()["document"]["operations"][-1]["id"]


def test_a_thread_has_a_sheet_and_a_wrong_one_says_what_exists(engineer: Api) -> None:
    sheet = engineer.get("/api/shelf/thread?words=m10 x 1,5").json()
    assert sheet["name"] == "M10"
    outside, inside = sheet["sides"]
    assert (outside["class_name"], inside["class_name"]) == ("6g", "6H")
    assert [zone["high"]["metric"] for zone in outside["zones"][:2]] == ["9.968 mm", "8.994 mm"]
    assert outside["zones"][0]["low"]["inch"] == "0.3831 in"
    assert len(outside["most"]) == len(outside["least"]) == 14
    assert next(one for one in sheet["drills"] if one["usual"])["diameter"]["metric"] == "8.5 mm"
    wide = engineer.get("/api/shelf/thread?words=M10&inside=6G").json()["sides"][1]
    assert wide["zones"][1]["low"]["metric"] == "9.058 mm"
    refused = engineer.get("/api/shelf/thread?words=M10x9")
    assert refused.status_code == 422
    assert "pitch 9 mm" in refused.json()["title"]
    assert engineer.get("/api/shelf/thread?words=M10&outside=6H").status_code == 422
    hit = engineer.get("/api/shelf/thread/hit?words=1/2-14 UNC").json()
    assert hit["name"] == ""
    assert "1/2-13 UNC" in hit["offered"]
    assert engineer.get("/api/shelf/thread/hit?words=CNMG 120408").json()["kind"] == ""
    for words in ("1/2-13 UNC-2B", "G1/2", "R3/4", "1/2 NPT", "Tr 40x14 P7", "1 1/2-4 Acme", "30x4 45/3"):
        assert engineer.get(f"/api/shelf/thread?words={words}").json()["sides"][1]["zones"], words


def test_the_three_benches(engineer: Api, job_id: JobId) -> None:
    spindle = tried(engineer, job_id("Gate spindle Tr 20x4"), "op20")
    view = spindle["view"]
    assert view["kind"] == "turn thread"
    assert len(view["passes"]) == spindle["results"]["passes"]["value"]
    assert sum(one["present"] for one in view["hands"]) == 1
    assert spindle["feasible"]
    tap = tried(engineer, job_id("Valve block, six M10"), "op20")
    assert tap["view"]["kind"] == "tap"
    assert tap["results"]["risk"]["value"] > 0.5  # what the block is worth after its holes, six times
    seat = tried(engineer, job_id("Needle seat M8x1, hardened"), "op10")
    assert seat["view"]["kind"] == "mill thread"
    assert [one["passes"] for one in seat["view"]["passes"] if one["present"]] == [1]
    wrong = tried(engineer, job_id("Needle seat M8x1, hardened"), "op10", along="up, out of the hole")
    assert wrong["feasible"] is False
    assert any(one["name"] == "hand" for one in wrong["warnings"])
    for name in ("Nozzle screw M10x1.5", "Inspection plug G1/2", "Repair nut, Acme inside"):
        state = engineer.get(f"/api/jobs/{job_id(name)}").json()["state"]
        assert not [row for row in state["operations"] if row["status"] == "broken"], name


def test_on_paper(engineer: Api, job_id: JobId) -> None:
    page = engineer.get(f"/api/jobs/{job_id('Gate spindle Tr 20x4')}/setup-sheet?form=page&operation=op20").content.decode()
    for words in ("Tr 20x4-7e outside", "over wires", "thread ring go", "tilt 4.5°", "modified flank", "towards the chuck"):
        assert words in page
    page = engineer.get(
        f"/api/jobs/{job_id('Needle seat M8x1, hardened')}/setup-sheet?form=page&operation=op10&units=inch"
    ).content.decode()
    for words in ("counter-clockwise (M4)", "down, into the hole", "path set outward"):
        assert words in page


def test_a_chain_of_three_against_one_tool_is_taken_as_operations(engineer: Api) -> None:
    job, revision, thread = new_job(engineer, {"thread": "M10-6H", "length": "15 mm", "hole": "24 mm"})
    made = engineer.get(f"/api/jobs/{job}").json()["document"]["operations"]
    assert [one["operation"] for one in made] == ["drill", "tap"], "the best way is a chain, and is taken whole"
    assert made[1]["settings"]["held"] == "synchronised"
    # with the drill out of the run order there is no hole, and the chains compete
    alone = engineer.edit(job, revision, action="remove_operation", operation=made[0]["id"]).json()
    assert alone["state"]["operations"][0]["status"] == "over"
    assert "No hole is there yet" in str(tried(engineer, job, thread)["warnings"])
    revision += 1
    ways = {row["way"]: row for row in rows_of(engineer, job, thread)}
    assert {"drill, chamfer, tap", "drill, chamfer, mill"} <= set(ways)
    assert ways["drill, chamfer, tap"]["more"][2]["metric"] in ("2", "3")
    again = engineer.take(job, revision, thread, "drill, chamfer, tap")
    assert [one["operation"] for one in again] == ["drill", "tap"]
    for one in again:
        told = tried(engineer, job, one["id"])
        assert told["feasible"], [one["label"] for one in told["limits"] if one["utilisation"] > 1] + told["warnings"]


def test_the_best_tools_for_all_are_a_chain_where_no_tool_does_it_alone(engineer: Api) -> None:
    job, revision, _ = new_job(engineer, {"thread": "M16-6H", "length": "20 mm"})
    drilled = engineer.get(f"/api/jobs/{job}").json()["document"]["operations"][0]
    engineer.edit(job, revision, action="remove_operation", operation=drilled["id"])
    best = engineer.post(f"/api/jobs/{job}/best", {"worth": 0}).json()
    [row] = best["rows"]
    assert [step["operation"] for step in row["before"]] == ["drill"]
    assert (best["tools_now"], best["tools_then"]) == (1, 2)
    chain = {name: row[name] for name in ("operation", "settings", "becomes", "before")} | {"tool": row["then"]["tool"]}
    taken = engineer.edit(job, revision + 1, action="take_tools", operation="", tools=[chain]).json()
    assert [one["status"] for one in taken["state"]["operations"]] == ["holds", "holds"]


def test_a_tap_becomes_a_mill(engineer: Api, job_id: JobId) -> None:
    block = job_id("Valve block, six M10")
    first = rows_of(engineer, block, "op20")[0]
    assert first["becomes"]["operation"] == "mill thread"
    milled = engineer.take(block, 1, "op20", first["way"])[-1]
    assert milled["operation"] == "mill thread"
    told = tried(engineer, block, milled["id"])
    assert told["feasible"]
    assert told["results"]["risk"]["value"] < 0.1


def test_wrong_threads_are_refused_beside_their_field(engineer: Api) -> None:
    job = engineer.post("/api/jobs", {"name": "Block", "material": "C45", "machine": "two-axis lathe", **BLANK}).json()["id"]
    for feature, field, words in (
        ({"thread": "M10x9", "length": "15 mm"}, "feature.thread", "M10x1.25"),
        ({"thread": "1/2-14 UNC", "length": "15 mm"}, "feature.thread", "1/2-13 UNC"),
        ({"thread": "Tr 20x40", "length": "15 mm"}, "feature.thread", "Tr 20x4"),
        ({"thread": "M10", "length": "15 mm"}, "feature.side", "inside or outside"),
    ):
        refused = engineer.edit(job, 1, action="add_operation", kind="turn thread", title="Thread", feature=feature)
        assert refused.status_code == 422
        error = refused.json()["errors"][0]
        assert error["field"].endswith(field)
        assert words in error["message"]


def test_size_over_wires_and_by_gauge(engineer: Api, job_id: JobId) -> None:
    job = job_id("Gate spindle Tr 20x4")
    path = f"/api/jobs/{job}/operations/op20/thread-size"

    def said(**reading: Any) -> dict[str, Any]:
        found: dict[str, Any] = engineer.post(path, {"settings": {}, **reading}).json()
        return found

    plain = said()
    assert plain["target"]["wire"]["metric"] == "2.071 mm"
    assert (plain["target"]["least"]["metric"], plain["target"]["largest"]["metric"]) == ("20.266 mm", "20.53 mm")
    thick = said(measured="20.62 mm")
    assert thick["state"] == "cut on"
    assert thick["commands"][0]["display"]["metric"] == "+111 µm"
    assert said(measured="20.40 mm")["state"] == "good"
    assert said(measured="20.20 mm")["state"] == "beyond"
    assert said(gauged="go does not go")["state"] == "cut on"
    assert said(gauged="no-go goes")["commands"][0]["display"]["metric"].startswith("−")
    other = said(measured="20.3 mm", wire="2.05 mm")
    assert other["pitch_diameter"]["metric"] != said(measured="20.3 mm")["pitch_diameter"]["metric"]
    refused = engineer.post(path, {"settings": {}, "measured": "12 mm"})
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"] == "measured"
    assert engineer.post(path, {"settings": {}, "wire": "9 mm"}).json()["errors"][0]["field"] == "wire"
    kept = {"operation": "op20", "pass_number": "1", "commanded": "20.398 mm", "measured": "20.45 mm", "piece": "1"}
    assert engineer.post(f"/api/jobs/{job}/measurements", kept).status_code in (200, 201)
    again = said()
    assert [(row["piece"], row["off"]["metric"], row["state"]) for row in again["kept"]] == [(1, "+52.0 µm", "good")]
    assert again["next_piece"] == 2
    assert engineer.post(f"/api/jobs/{job}/operations/op10/thread-size", {"settings": {}}).status_code == 422


def test_threading_tools_in_the_crib(engineer: Api) -> None:
    for query, words in (
        ("tap M10 spiral flute", "92 % of 5/8 H"),
        ("helical thread mill 5.1", "left-cutting"),
        ("form tap M8", "no chips"),
    ):
        row = engineer.get(f"/api/crib/tools?q={query}").json()["rows"][0]
        sheet = engineer.get(f"/api/crib/tools/{row['id']}").json()
        assert sheet["round"]["drawing"]["side"]
        assert any(words in fact for fact in sheet["round"]["facts"]), query
        assert sheet["partners"]
    facets = {one["name"]: one for one in engineer.get("/api/crib/tools?kind=spiral flute tap").json()["facets"]}
    assert "1.5" in {value["value"] if isinstance(value, dict) else value[0] for value in facets["pitch"]["values"]}
    cells = {"kind": "spiral flute tap", "designation": "x", "grade": "HSS cobalt", "TDZ": "M10x9", "LU": "20 mm"}
    refused = engineer.post("/api/records/tools", {"cells": cells})
    assert refused.status_code == 422
    assert "pitch 9 mm" in str(refused.json())


@pytest.mark.parametrize("speed", ["1500 1/min"])
def test_a_spindle_speed_of_a_mill_is_the_mills(engineer: Api, job_id: JobId, speed: str) -> None:
    """Typed as turns a minute, a speed is that at the tool and not at the hole: of a mill that runs round."""
    told = tried(engineer, job_id("Valve cap, flat floors"), "op20", cutting_speed=speed)
    assert told["results"]["spindle_speed"]["value"] == pytest.approx(1500, rel=0.01)
    told = tried(engineer, job_id("Needle seat M8x1, hardened"), "op10", cutting_speed=speed)
    assert told["results"]["spindle_speed"]["value"] == pytest.approx(1500, rel=0.01)


def test_a_hole_that_is_too_narrow_is_drilled_wider_or_opened_before_the_tap(engineer: Api) -> None:
    job, revision, thread = new_job(engineer, {"thread": "M10-6H", "length": "15 mm"})
    drilled = engineer.get(f"/api/jobs/{job}").json()["document"]["operations"][0]
    for there, kinds in (("7.8 mm", {"drill"}), ("6 mm", {"drill", "mill hole"})):
        narrow = engineer.edit(job, revision, action="set_feature", operation=drilled["id"], feature={"diameter": there}).json()
        assert narrow["state"]["operations"][-1]["status"] == "over"
        offers = engineer.post(f"/api/jobs/{job}/operations/{thread}/limits/core_hole/relax", {"settings": {}}).json()
        [before] = [one["patch"]["before"] for one in offers if one["patch"].get("before")]
        assert before["diameter"] == "8.5 mm", "the usual drill of M10"
        step = {name: before.pop(name) for name in ("operation", "title")} | {"feature": before}
        nameless = engineer.edit(job, revision + 1, action="set_settings", operation=thread, before={**step, "title": ""})
        assert (nameless.status_code, nameless.json()["errors"][0]["field"]) == (422, "before.title")
        mended = engineer.edit(job, revision + 1, action="set_settings", operation=thread, before=step).json()
        first, *more, _tap = mended["document"]["operations"]
        assert told_of(mended["document"], (more or [first])[-1])["diameter"] == "8.5 mm"
        assert {one["operation"] for one in (*more, first)} <= kinds
        assert len(more) == (there == "6 mm"), "a hole that is only a little narrower is drilled wider, and not twice"
        assert all(one["tool"] for one in (first, *more))
        assert mended["state"]["operations"][-1]["status"] != "over"
        assert "Core hole Ø8.5" in mended["gesture"]
        revision += 2
