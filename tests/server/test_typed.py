"""Every number of the product that a person types goes through one reader: comma and point, letters, bounds, both ways of `1,500`."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from server.jobs.document.plan import setup_of
from server.jobs.models import Revision
from tests.server.conftest import Api

JobId = Callable[[str], int]
VALUE = "the value"
GRINDING = {"seconds": "210", "rate": "64", "wheel": "0,35"}
BASELINE = {"name": "present", "seconds": "742", "cost": "31,80", "note": ""}
# how each number of a job is edited, and a value below its bounds; its name says where the document holds it
NUMBERS: dict[str, tuple[dict[str, Any], str]] = {
    "money.target": ({"action": "set_part", "money": {"target": VALUE}}, "-5"),
    "money.setup_minutes": ({"action": "set_part", "money": {"setup_minutes": VALUE}}, "-1"),
    "money.blank": ({"action": "set_part", "money": {"blank": VALUE}}, "-1"),
    "batch.unattended_hours": ({"action": "set_part", "batch": {"unattended_hours": VALUE}}, "-1"),
    "stock.bar_price": ({"action": "set_part", "bar_price": VALUE}, "-5"),
    "house.wear_factor": ({"action": "set_part", "house": {"wear_factor": VALUE}}, "0"),
    "grinding.rate": ({"action": "set_grinding", "operation": "op30", "grinding": {**GRINDING, "rate": VALUE}}, "-1"),
    "baseline.cost": ({"action": "set_baseline", "baseline": {**BASELINE, "cost": VALUE}}, "0"),
}


def filled(edit: Any, value: str) -> Any:
    """The edit with the value in its place."""
    if isinstance(edit, dict):
        return {name: filled(one, value) for name, one in edit.items()}
    return value if edit == VALUE else edit


def held(document: dict[str, Any], name: str) -> float:
    room, last = name.split(".")
    where = document["operations"][2] if room == "grinding" else document
    return float(str(where[room][last]).replace(",", "."))


@pytest.mark.parametrize("name", NUMBERS)
def test_each_number_of_a_job_reads_commas_and_refuses_the_rest(engineer: Api, job_id: JobId, name: str) -> None:
    job = job_id("Runner shaft")
    edit, low = NUMBERS[name]
    assert held(engineer.edit(job, 1, **filled(edit, "1,50")).json()["document"], name) == 1.5
    for nonsense in ("C45", low, "soon", "1,2,3"):
        refused = engineer.edit(job, 2, **filled(edit, nonsense))
        assert refused.status_code == 422, nonsense
        error = refused.json()["errors"][0]
        assert name.endswith(error["field"])
        assert "Input should" not in error["message"]
        assert "set_" not in refused.json()["title"]
    twofold = engineer.edit(job, 2, **filled(edit, "1,500"))
    assert (twofold.status_code, name.endswith(twofold.json()["errors"][0]["field"])) == (422, True)
    assert twofold.json()["errors"][0]["readings"][0] in ("1.500", "1500")


def test_counts_are_whole_and_their_change_leaves_the_rest(engineer: Api, job_id: JobId) -> None:
    job = job_id("Guide-vane pin")
    changed = engineer.edit(job, 1, action="set_part", batch={"pieces": "9 000"}).json()["document"]["batch"]
    assert changed == {"pieces": 9000, "unattended_hours": 6, "yearly": 32000}
    for wrong, readings in (("1,500", ["1500"]), ("2,5", None), ("0", None)):
        error = engineer.edit(job, 2, action="set_part", batch={"pieces": wrong}).json()["errors"][0]
        assert (error["field"], error.get("readings")) == ("batch.pieces", readings)
    assert engineer.edit(job, 2, action="set_part", money={"target": ""}).json()["document"]["money"]["target"] is None


@pytest.mark.parametrize(
    ("change", "field"),
    [({"bar_length": "-5"}, "bar_length"), ({"bore": "64"}, "bore"), ({"bore": "70"}, "bore"), ({"diameter": "0"}, "diameter"),
     ({"diameter": "9 m"}, "diameter"), ({"free_length": "-2"}, "free_length"), ({"remnant": "4 m"}, "remnant"),
     ({"name": "n" * 121}, "name"), ({"name": ""}, "name"), ({"free_length": "100"}, "free_length")],
)  # fmt: skip
def test_a_blank_that_cannot_be_is_refused(engineer: Api, job_id: JobId, change: dict[str, str], field: str) -> None:
    job = job_id("Runner shaft")
    refused = engineer.edit(job, 1, action="set_part", **change)
    assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, field)
    assert engineer.get(f"/api/jobs/{job}").json()["revision"] == 1


def test_a_new_job_refuses_the_same(engineer: Api) -> None:
    new = {
        "name": "Stub",
        "material": "C45",
        "machine": "two-axis lathe",
        "diameter": "50",
        "free_length": "80",
        "bore": "0",
        "pieces": "1,500",
    }
    for change, field in (({}, "pieces"), ({"bore": "60", "pieces": "5"}, "bore"), ({"diameter": "C45", "pieces": "5"}, "diameter")):
        refused = engineer.post("/api/jobs", {**new, **change})
        assert (refused.status_code, refused.json()["errors"][0]["field"].split(".")[-1]) == (422, field)
    assert engineer.post("/api/jobs", {**new, "pieces": "50", "diameter": "1-3/8 in"}).status_code == 201


def test_a_blank_follows_its_field_and_names_the_operation_that_forbids(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    grown = engineer.edit(job, 1, action="set_part", diameter="2,75", units="inch").json()["document"]["stock"]
    assert grown["diameter"] == "2,75 in"
    said = engineer.edit(job, 2, action="set_part", free_length="200").json()["title"]
    assert "operation 20 Rough turn" in said


def test_refusals_and_sentences_are_told_in_the_readers_units(engineer: Api, job_id: Callable[[str], int]) -> None:
    job = job_id("Runner shaft")
    path = f"/api/jobs/{job}/shaft-line"
    metric = engineer.post(path, {"line": "Ø50 x 300"})
    inch = engineer.post(path, {"line": "Ø50 mm x 300 mm"}, HTTP_X_UNITS="inch")
    assert "300 mm long" in metric.json()["errors"][0]["message"]
    assert "11.811 in long" in inch.json()["errors"][0]["message"]
    assert "mm" not in inch.json()["title"]
    body = {"settings": {"depth_of_cut": "0.1 mm"}}
    for units, unit in (("mm", " mm"), ("inch", " in")):
        told = engineer.post(f"/api/jobs/{job}/operations/op40/evaluate", body, HTTP_X_UNITS=units).json()["warnings"]
        assert any(f"{unit} is below half the corner radius" in one["text"] for one in told), [one["text"] for one in told]


@pytest.mark.parametrize(
    ("typed", "target", "inch"),
    [
        ("1.9 h9", 48.229, "Ø1.9000 h9"),  # 48.26 less half of 62 µm
        ("Ø1.9 ±0.001", 48.26, "Ø1.9000 ±0.0010"),
        ("1.9 +0/-0.002", 48.2346, "Ø1.9000 0/-0.0020"),
        ("1.9 +0.004/+0.001", 48.3235, "Ø1.9000 +0.0040/+0.0010"),
        ("48 mm h9", 47.969, "Ø1.8898 h9"),
    ],
)
def test_a_size_with_its_tolerance_is_in_the_units_it_was_typed_in(
    engineer: Api, job_id: JobId, typed: str, target: float, inch: str
) -> None:
    """49 h8 of the drawing, typed anew by someone who sees inches."""
    job = job_id("Runner shaft")
    made = engineer.edit(job, 1, action="set_feature", operation="op40", feature={"end_diameter": typed}, units="inch")
    assert made.status_code == 200, made.content
    document = Revision.objects.get(job=job, number=2).document
    entry = next(one for one in document["operations"] if one["id"] == "op40")
    assert setup_of(document, entry).feature.end_diameter.target == pytest.approx(target, abs=1e-4)
    assert any(one["words"]["inch"].startswith(f"{inch} × ") for one in made.json()["state"]["drawing"])


def test_what_comes_back_as_it_was_keeps_its_meaning(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    same = {"end_diameter": "49 h8", "length": "70 mm"}
    made = engineer.edit(job, 1, action="set_feature", operation="op40", feature=same, units="inch").json()
    told = next(one for one in made["state"]["drawing"] if 40 in one["makes"])["words"]
    assert told["metric"].startswith("Ø49 h8 ×")
    assert told["inch"].startswith("Ø1.9291 h8 ×")


def test_a_refusal_counts_and_repeats_what_was_typed(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    long = engineer.edit(job, 1, action="set_part", name="n" * 130)
    assert "has 130 characters; maximum 120" in long.json()["title"]
    word = engineer.edit(job, 1, action="move_operation", operation="op10", by="two")
    assert "'two' is none of: -1, 1." in word.json()["title"]


def test_what_was_typed_of_the_blank_is_told_in_either_units(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    made = engineer.edit(job, 1, action="set_part", diameter="80 mm", length='12 1/2"', shape="0:60; 40:45", units="mm").json()
    stock, either = made["document"]["stock"], made["either"]
    assert either["80 mm"] == {"metric": "80 mm", "inch": "3.150 in"}
    assert either[stock["length"]] == {"metric": "317.5 mm", "inch": '12 1/2"'}
    assert either[stock["shape"]]["inch"] == "0 in:2.362 in; 1.575 in:1.772 in"
    titled = engineer.edit(job, 2, action="set_feature", operation="op30", title="Rough Ø64", feature={}).json()
    assert titled["either"]["Rough Ø64"]["inch"] == "Rough Ø2.520"


def test_sizes_of_a_feature_are_shown_in_inch_and_keep_their_meaning(engineer: Api, job_id: JobId) -> None:
    """What comes back as it was shown is the entry that it was; what is changed is read in the units shown."""
    job = job_id("Runner shaft")
    feature = {"end_diameter": "49 h9", "length": "120", "roughness": "Ra 1.6"}
    made = engineer.edit(job, 1, action="set_feature", operation="op30", feature=feature).json()
    shown = {name: both["inch"] for name, both in made["sizes"]["op30"].items()}
    assert shown["end_diameter"] == "1.9291 in h9"
    assert shown["length"] == "4.724 in"
    again = engineer.edit(job, 2, action="set_feature", operation="op30", feature=shown, units="inch").json()
    assert again["document"]["operations"][2] == made["document"]["operations"][2]
    other = engineer.edit(job, 3, action="set_feature", operation="op30", feature=shown | {"length": "4.5"}, units="inch").json()
    assert other["sizes"]["op30"]["length"] == {"metric": "114.3 mm", "inch": "4.5 in"}
