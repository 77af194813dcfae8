"""A stock of layers: each cut is judged in the metal that it goes through, of several in the slowest to cut."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from tests.server.conftest import Api

JobId = Callable[[str], int]


def rows(answer: Any) -> list[dict[str, Any]]:
    assert answer.status_code == 200, answer.content
    return answer.json()["state"]["operations"]  # type: ignore[no-any-return]


def test_each_cut_is_judged_in_its_layer(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")  # 268 mm of 34CrNiMo6; its thin end is turned over 128 mm, its face taken 2 mm
    one = rows(engineer.get(f"/api/jobs/{job}"))
    layered = engineer.edit(job, 1, action="set_part", operation="", layers="1.0503: 150; 34CrNiMo6: 118 mm")
    assert layered.json()["document"]["stock"]["layers"] == "C45: 150 mm; 34CrNiMo6: 118 mm", "by the shop's own name"
    two = rows(layered)
    assert [row["metal"] for row in two] == [
        "in C45",
        "in 34CrNiMo6, 2 layers",
        "in 34CrNiMo6, 2 layers",
        "in 34CrNiMo6, 2 layers",
        "in C45",
        "in C45",
    ]
    assert [row["metal"] for row in one] == [""] * 6
    assert two[4]["cost"] != one[4]["cost"], "another metal, other speeds and lives"
    drawn = layered.json()["state"]["outline"]["layers"]
    assert [(layer["material"], layer["near"]) for layer in drawn] == [("C45", 118), ("34CrNiMo6", 0)]
    card = engineer.get(f"/api/jobs/{job}/operations/op20/card").json()
    assert card["speeds"][0]["value"] == "34CrNiMo6, 2 layers"
    # from the other end the first metal that the tool meets is the one that was in the chuck
    engineer.edit(job, 2, action="set_part", operation="", layers="", length="300 mm")
    engineer.edit(job, 3, action="set_part", operation="", layers="C45: 150; 34CrNiMo6: 150")
    face = {"action": "add_operation", "kind": "face", "title": "Other end", "feature": {"end_diameter": "0", "length": "1 mm"}}
    assert rows(engineer.edit(job, 4, **face, turned_round=True))[-1]["metal"] == "in 34CrNiMo6"


@pytest.mark.parametrize(
    ("layers", "said"),
    [
        ("C45: 100", "the layers are 100 mm thick together, the blank is 268 mm long."),
        ("C45", "no layer"),
        ("Unobtainium: 268", "Unobtainium"),
        ("C45: thick", "thick"),
        ("C45: -2; 304: 270", "thicker than 0"),
    ],
)
def test_layers_that_cannot_be_are_refused_by_name(engineer: Api, job_id: JobId, layers: str, said: str) -> None:
    answer = engineer.edit(job_id("Runner shaft"), 1, action="set_part", operation="", layers=layers)
    (error,) = answer.json()["errors"]
    assert answer.status_code == 422
    assert error["field"].endswith("layers")
    assert said in error["message"]


def test_layers_are_told_in_inch_too(engineer: Api, job_id: JobId) -> None:
    job = job_id("Screen cover disc")
    whole = engineer.get(f"/api/jobs/{job}").json()["document"]["stock"]["free_length"]
    assert whole == "30 mm"
    made = engineer.edit(job, 1, action="set_part", operation="", layers="EN AW-5083: 0.5; EN AW-7075: 0.6811", units="inch")
    assert made.json()["document"]["stock"]["layers"].startswith("EN AW-5083: 0.5 in; EN AW-7075")
    (row,) = rows(made)
    assert "2 layers" in row["metal"]


def test_several_on_a_pitch_circle_are_said_and_drawn_beside_the_axis(engineer: Api, job_id: JobId) -> None:
    job = job_id("Screen cover disc")
    feature = {"circle": "200 mm", "count": "3", "keeps": "the hole", "web": ""}
    beyond = engineer.edit(job, 1, action="set_feature", operation="op10", feature=feature)
    assert beyond.json()["errors"][0]["bound"] == "at most 50 mm", "the plate is Ø150"
    engineer.edit(job, 1, action="set_part", operation="", diameter="320 mm")
    document = engineer.get(f"/api/jobs/{job}").json()["document"]
    found = engineer.edit(job, 2, action="set_feature", operation=document["operations"][0]["id"], feature=feature)
    (asked,) = found.json()["state"]["drawing"]
    assert asked["words"]["metric"] == "3 × Trepan Ø100 mm × 30 mm, the hole, on Ø200 mm"
    assert found.json()["document"]["features"][0]["axis"] == "on a pitch circle"
    (hole,) = found.json()["state"]["outline"]["rings"]
    assert (min(r for _, r in hole), max(r for _, r in hole)) == (50, 150)
