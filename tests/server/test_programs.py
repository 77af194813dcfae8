"""Every planned operation leaves the bench as a program that reads back to its plan."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from server.jobs.studies.programs import fingerprint
from tests.server.conftest import Api
from tests.server.test_slots import trying

JOBS = ("Runner shaft", "Guide-vane pin", "Valve block, six M10", "Nozzle ring", "Nozzle-ring bolt circle", "Gate spindle Tr 20x4")


@pytest.mark.parametrize("job", JOBS)
def test_every_operation_of_a_job_has_its_program(engineer: Api, job_id: Callable[[str], int], job: str) -> None:
    number = job_id(job)
    operations = engineer.get(f"/api/jobs/{number}").json()["document"]["operations"]
    assert operations
    for entry in operations:
        answer = trying(engineer, number, entry["id"], "program")
        assert {one["units"] for one in answer["texts"]} == {"mm", "inch"}
        for one in answer["texts"]:
            assert one["findings"] == [], (entry["title"], one["dialect"], one["findings"][:3])
            assert one["text"].rstrip().endswith(("M30", "M2"))
        assert answer["not_checked"]


def test_a_program_over_a_limit_says_not_to_run_it(engineer: Api, job_id: Callable[[str], int]) -> None:
    number = job_id("Runner shaft")
    sound = trying(engineer, number, "op20", "program")
    fast = trying(engineer, number, "op20", "program", settings={"cutting_speed": "400 m/min"})
    assert sound["broken"] == []
    assert fast["broken"]
    assert fast["texts"][0]["text"] != sound["texts"][0]["text"]


def test_a_text_of_one_s_own_is_set_against_the_plan_and_kept_until_the_plan_moves(engineer: Api, job_id: Callable[[str], int]) -> None:
    number = job_id("Runner shaft")
    answer = trying(engineer, number, "op20", "program")
    written = next(one for one in answer["texts"] if one["units"] == "mm")
    place = f"/api/jobs/{number}/operations/op20/program-check"
    same = engineer.post(place, {"dialect": written["dialect"], "text": written["text"]}).json()
    assert same["findings"] == []
    assert len(same["plot"]["lines"]) == len(same["plot"]["places"]) > 3
    assert same["blocks"] == len(written["text"].splitlines())
    wrong = written["text"].replace("G1 ", "G0 ", 1)
    found = engineer.post(place, {"dialect": written["dialect"], "text": wrong}).json()
    line = next(k for k, text in enumerate(wrong.splitlines(), 1) if text != written["text"].splitlines()[k - 1])
    assert {one["line"] for one in found["findings"]} == {line}
    assert engineer.post(place, {"dialect": "own", "text": wrong}).status_code == 422
    kept = engineer.edit(
        number,
        1,
        action="set_program",
        operation="op20",
        dialect=written["dialect"],
        units="mm",
        text=wrong,
        of=fingerprint(written["text"]),
    )
    assert kept.status_code == 200, kept.content
    own = trying(engineer, number, "op20", "program")["own"]
    assert (own["text"], own["moved"]) == (wrong, False)
    moved = trying(engineer, number, "op20", "program", settings={"cutting_speed": "100 m/min"})["own"]
    assert moved["moved"]
    assert engineer.edit(number, 2, action="set_program", operation="op20", text=None).status_code == 200
    assert trying(engineer, number, "op20", "program")["own"] is None


@pytest.mark.parametrize("job", JOBS)
def test_a_job_leaves_as_one_program(engineer: Api, job_id: Callable[[str], int], job: str) -> None:
    answer = engineer.post(f"/api/jobs/{job_id(job)}/program", {})
    assert answer.status_code == 200, answer.content
    found = answer.json()
    operations = engineer.get(f"/api/jobs/{job_id(job)}").json()["document"]["operations"]
    left_out = {one["number"] for one in found["left_out"]}
    for one in found["texts"]:
        assert one["text"].count("OPERATION ") == len(operations) - len(left_out)
        assert [finding for finding in one["findings"] if finding["severity"] == "stop"] == [], (one["dialect"], one["findings"][:3])


def test_a_pasted_program_asks_only_for_what_it_needs(engineer: Api) -> None:
    text = "T0101\nG97 S500 M3\nG0 X46. Z2.\nG0 Z-30.\nG0 X60.\nM5\nM30\n"
    asked = {"text": text, "dialect": "lathe", "machine": "two-axis lathe"}
    alone = engineer.post("/api/programs/check", asked).json()
    assert alone["findings"] == []
    assert alone["left"] == []
    held = engineer.post("/api/programs/check", {**asked, "diameter": "50", "length": "80"}).json()
    assert [(one["line"], one["rule"]) for one in held["findings"]] == [(4, "rapid_metal")]
    assert held["left"][0] == pytest.approx([-80.0, 25.0, 0.0], abs=0.1)
    inch = engineer.post("/api/programs/check", {**asked, "diameter": "2", "length": "3", "units": "inch"}).json()
    assert inch["left"][0][1] == pytest.approx(25.4)
    for wrong, field in (({"diameter": "50"}, "length"), ({"diameter": "x", "length": "80"}, "diameter"),
                         ({"diameter": "50", "length": "80", "bore": "60"}, "bore"), ({"machine": "none"}, "machine")):  # fmt: skip
        refused = engineer.post("/api/programs/check", {**asked, **wrong})
        assert refused.status_code == 422
        assert refused.json()["errors"][0]["field"] == field
    assert {one["turns"] for one in engineer.get("/api/programs/dialects").json()} == {True, False}


def test_a_dialect_of_the_shop_s_own_is_tried_kept_used_and_taken_away(engineer: Api, operator: Api, job_id: Callable[[str], int]) -> None:
    shipped = next(one for one in engineer.get("/api/programs/dialects").json() if one["name"] == "plain lathe")
    assert not shipped["own"]
    own = {**shipped["data"], "name": "shop lathe", "title": "the shop's lathe", "tool": "T{number:04d}", "end": "M30"}
    tried = engineer.post("/api/programs/dialects/try", {"data": own}).json()
    assert tried["findings"] == []
    assert "T0001" in tried["metric"]
    assert "G20" in tried["inch"]
    for wrong, field in (({"decimals": 12}, "decimals"), ({"name": "lathe"}, "name"), ({"tool": "{number.real}"}, "tool")):
        refused = engineer.put("/api/programs/dialects", {"data": {**own, **wrong}})
        assert refused.status_code == 422
        assert refused.json()["errors"][0]["field"] == field
    assert operator.put("/api/programs/dialects", {"data": own}).status_code == 403
    assert engineer.put("/api/programs/dialects", {"data": own}).status_code == 200
    texts = trying(engineer, job_id("Runner shaft"), "op20", "program")["texts"]
    mine = next(one for one in texts if one["dialect"] == "shop lathe" and one["units"] == "mm")
    assert mine["findings"] == []
    assert "T0001" in mine["text"]
    whole = engineer.post(f"/api/jobs/{job_id('Runner shaft')}/program", {}).json()
    assert "shop lathe" in {one["dialect"] for one in whole["texts"]}
    place = f"/api/jobs/{job_id('Runner shaft')}/operations/op20/program-check"
    assert engineer.post(place, {"dialect": "shop lathe", "text": mine["text"]}).json()["findings"] == []
    assert operator.delete("/api/programs/dialects?name=shop%20lathe").status_code == 403
    assert engineer.delete("/api/programs/dialects?name=shop%20lathe").status_code == 204
    assert engineer.delete("/api/programs/dialects?name=lathe").status_code == 422
    assert "shop lathe" not in {one["name"] for one in engineer.get("/api/programs/dialects").json()}
