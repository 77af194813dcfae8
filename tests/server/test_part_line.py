"""A part in one line through the door: where a refusal is, both ends, and how its operations stand with the crib."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

import pytest

from tests.server.conftest import Api

ROOT = Path(__file__).parents[2]
PAGE = (ROOT / "docs" / "line.md").read_text(encoding="utf-8")
BLANK = {"diameter": "50 mm", "free_length": "200 mm", "bore": "0", "pieces": 50, "units": "mm"}


@pytest.fixture
def job(engineer: Api) -> int:
    found: int = engineer.post("/api/jobs", {"name": "Pin", "material": "C45", "machine": "two-axis lathe", **BLANK}).json()["id"]
    return found


def said(api: Api, job: int, line: str, **more: Any) -> Any:
    return api.post(f"/api/jobs/{job}/shaft-line", {"line": line, **more})


@pytest.mark.parametrize(
    ("line", "word"),
    [
        ("Ø45 x 60, cut off | Ø35 x 2o", "o"),
        ("Ø45 x 60, Ø30 h6 x bad", "Ø30 h6 x bad"),
        ("Ø45 x 60, groove DIN 999", "groove DIN 999"),
        ("Ø45 x 60, Ø70 x 10", "Ø70"),
    ],
)
def test_a_refusal_says_where_in_the_line_it_is(engineer: Api, job: int, line: str, word: str) -> None:
    refused = said(engineer, job, line)
    assert refused.status_code == 422
    [error] = refused.json()["errors"]
    assert line[slice(*error["where"])] == word
    assert error["where"][0] == line.rindex(word), "where it stands, and not where the same letter stands before it"
    assert error["message"] in refused.json()["title"]


def test_both_ends_of_a_line_are_tried_and_then_really_there(engineer: Api, job: int) -> None:
    line = "Ø45 x 60, Ø30 h6 x 50 Ra 1.6 1x45°, cut off | Ø35 x 20, tapped M10 x 15, keyseat 8 x 25"
    found = said(engineer, job, line, tried=True).json()
    assert found["noted"] == ["keyseat 8 x 25"]
    assert {one["title"]: one["status"] for one in found["tried"]}["Finish Ø30 h6"] == "holds"
    assert {one["status"] for one in found["tried"]} <= {"holds", "close"}
    assert sum(one["turned_round"] for one in found["operations"]) >= 4
    assert engineer.get(f"/api/jobs/{job}").json()["document"]["operations"] == [], "trying keeps nothing"
    operations = [{name: one[name] for name in ("kind", "title", "feature", "turned_round")} for one in found["operations"]]
    made = engineer.edit(job, 1, action="add_operations", operation="", operations=operations, noted=found["noted"]).json()
    assert made["document"]["noted"] == ["keyseat 8 x 25"]
    assert made["state"]["sure"]["enough"], "the plan of a line is chosen so that all of it holds as often as is asked"
    rows = made["state"]["operations"]
    assert [row["title"] for row in rows] == [one["title"] for one in found["tried"]]
    assert [row["status"] for row in rows] == [one["status"] for one in found["tried"]], "what was tried is what is made"
    assert [row["held"] for row in rows if row["held"]], "the list says which are made turned round"


def test_the_help_beside_the_field_is_on_the_page() -> None:
    sheet = (ROOT / "web" / "src" / "job" / "ShaftLineSheet.svelte").read_text(encoding="utf-8")
    found = re.findall(r'^    \["[^"]+", "([^"]+)"\],$', sheet, re.MULTILINE)
    assert len(found) >= 8
    for example in found:
        for word in re.split(r", | \| ", example.removeprefix("… ").replace("Ø18 x 60", "Ø18 x 50")):
            assert word in PAGE.replace("\\|", "|"), word


def test_what_is_only_noted_stays_with_the_job_until_it_is_left(engineer: Api, job: int) -> None:
    """A keyseat is on the drawing and made elsewhere: the job and its sheet say so."""
    words = ["keyseat 8 x 25", "knurl RAA 1"]
    kept = engineer.edit(job, 1, action="set_noted", noted=words).json()
    assert kept["document"]["noted"] == words
    assert "keyseat 8 x 25, knurl RAA 1" in engineer.get(f"/api/jobs/{job}/setup-sheet?form=page").content.decode()
    assert engineer.edit(job, 2, action="set_noted", noted=words[1:]).json()["document"]["noted"] == words[1:]
    assert engineer.edit(job, 3, action="set_noted", noted=["x" * 121]).status_code == 422


def test_a_taper_is_measured_at_both_its_ends(engineer: Api, job: int) -> None:
    """ISO 3040: a rate of taper 1:10 over 40 mm makes 4 mm of Ø; its thin steps are neither labelled nor dimensioned."""
    found = said(engineer, job, "Ø45 x 60, Ø40 x 40 taper 1:10").json()
    operations = [{name: one[name] for name in ("kind", "title", "feature", "turned_round")} for one in found["operations"]]
    drawn = engineer.edit(job, 1, action="add_operations", operation="", operations=operations).json()["state"]["outline"]
    assert [one["display"]["metric"] for one in drawn["labels"]] == ["50", "45", "40", "36"]
    assert [one["display"]["metric"] for one in drawn["lengths"]] == ["100", "40"]


def test_where_the_part_gives_way_no_new_tool_is_wanted(engineer: Api) -> None:
    """A ring groove 195 mm out of the jaws on Ø50 chatters with any blade; 150 mm out it is cut (common practice: 3 to 4 diameters)."""

    def groove(out: str) -> Any:
        made = {"name": "Pin", "material": "C45", "machine": "two-axis lathe", **BLANK, "free_length": out}
        job = engineer.post("/api/jobs", made).json()["id"]
        found = said(engineer, job, "Ø45 x 80, Ø30 h6 x 50, groove DIN 471", tried=True).json()
        return next(one for one in found["tried"] if one["title"].startswith("Groove"))

    far = groove("200 mm")
    assert far["status"] == "no tool"
    assert "support the part, or set it out less" in far["why"]["metric"]
    assert "chatter" in far["why"]["metric"]
    assert groove("150 mm")["status"] == "holds"
