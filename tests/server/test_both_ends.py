"""A part has two ends: what is turned round for the other one, in the chuck or on the sub-spindle, is found as it stands there."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from server.jobs.document.plan import setup_of, told_of
from server.jobs.models import Revision
from tests.server.conftest import Api

JobId = Callable[[str], int]
FACE = {"action": "add_operation", "kind": "face", "title": "Face the other end", "feature": {"end_diameter": "0", "length": "1 mm"}}


def newest(job: int) -> dict[str, Any]:
    return Revision.objects.filter(job=job).order_by("-number")[0].document  # type: ignore[no-any-return]


def rows(answer: Any) -> dict[str, dict[str, Any]]:
    assert answer.status_code == 200, answer.content
    return {row["title"]: row for row in answer.json()["state"]["operations"]}


def test_a_part_turned_round_is_found_with_its_steps_mirrored(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")  # 268 mm out of the chuck
    unknown = engineer.edit(job, 1, **FACE, turned_round=True)
    assert unknown.json()["errors"][0]["field"] == "stock.length"
    short = engineer.edit(job, 1, action="set_part", operation="", length="200 mm")
    assert short.json()["errors"][0]["field"] == "length", "no shorter than what stands out of the chuck"
    engineer.edit(job, 1, action="set_part", operation="", length="300")
    whole = engineer.edit(job, 2, **FACE, turned_round=True)
    assert rows(whole)["Face the other end"]["problem"] is None
    document = newest(job)
    setup = setup_of(document, document["operations"][-1])
    # 300 mm less 2 mm that were faced off; 25 mm of the turned end are gripped
    assert setup.holding.free_length == 273.0
    assert setup.holding.style.value == "chuck", "the centre of the first clamping is not there"
    assert setup.feature.start_diameter == 64.0, "the end that was gripped is as it came"
    first, *_, last = setup.holding.steps
    assert first[1] < 50 < last[1] == 64
    drawn = whole.json()["state"]["outline"]
    assert (drawn["length"], drawn["held"]) == (300, 32)
    assert min(place for place, radius in drawn["finished"] if radius > 0) == pytest.approx(1.0), "the face that was taken off"


def test_a_part_cut_off_goes_on_at_the_sub_spindle_and_not_in_the_chuck(engineer: Api, job_id: JobId) -> None:
    job = job_id("Guide-vane pin")
    document = newest(job)
    assert document["operations"][-1]["operation"] == "cut off"
    long = float(told_of(document, document["operations"][-1])["part_length"].removesuffix(" mm"))
    assert "cut off before" in engineer.edit(job, 1, **FACE).json()["errors"][0]["message"]
    there = engineer.edit(job, 1, **FACE, spindle="sub")
    assert rows(there)["Face the other end"]["problem"] is None
    other = newest(job)["operations"][-1]["id"]
    assert setup_of(newest(job), newest(job)["operations"][-1]).holding.free_length == pytest.approx(long - long / 3)
    drawn = there.json()["state"]["outline"]
    gap = [place for place, radius in drawn["finished"] if radius == 0]
    assert gap, "the part stands apart from its bar"
    assert drawn["lengths"][0]["display"]["metric"] == f"{long - 1:g}", "its own length, without the bar, less the face"
    assert rows(there)["Face the other end"]["held"] == "on the sub-spindle"
    card = engineer.get(f"/api/jobs/{job}/operations/{other}/card").json()
    assert card["speeds"][0]["value"] == "on the sub-spindle, 25.333 mm out", "whoever clamps it must know"
    # it cannot stand out further than it is long
    far = engineer.edit(job, 2, action="set_holding", operation=other, holding={"free_length": "60 mm"})
    assert (far.json()["errors"][0]["field"], far.json()["errors"][0]["bound"]) == ("holding.free_length", f"0 to {long:g} mm")


def test_a_cut_off_is_not_made_on_the_other_end(engineer: Api, job_id: JobId) -> None:
    job = job_id("Guide-vane pin")
    cut = newest(job)["operations"][-1]
    answer = engineer.edit(job, 1, action="set_feature", operation=cut["id"], turned_round=True)
    assert answer.json()["errors"][0]["field"] == "turned_round"
