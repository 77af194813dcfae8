"""Heavy tools through the API: kept as typed, studied as they stand, two people on one tool."""

from __future__ import annotations

import io
from typing import Any

import pytest
from pypdf import PdfReader

from server.crib.models import HeavyTool
from tests.server.conftest import Api

DOOR = "/api/crib/heavy-tools"


@pytest.fixture
def cup(engineer: Api) -> dict[str, Any]:
    rows = {row["name"]: row for row in engineer.get(DOOR).json()}
    found: dict[str, Any] = engineer.get(f"{DOOR}/{rows['Cup tool, arms']['id']}").json()
    return found


def put(api: Api, tool: dict[str, Any], **more: Any) -> Any:
    body = {"form": tool["form"], "revision": tool["revision"], **more}
    return api.client.put(f"{DOOR}/{tool['id']}", body, content_type="application/json", HTTP_X_CSRFTOKEN=api.token)


def test_the_list_says_which_the_changer_carries(engineer: Api) -> None:
    rows = {row["name"]: row for row in engineer.get(DOOR).json()}
    assert rows["Cup tool, arms"]["sound"]
    assert rows["Cup tool, arms"]["mass"]["metric"] == "10.51 kg"
    assert not rows["Cup tool, solid steel"]["sound"]


def test_a_tool_is_studied_as_it_is_typed(engineer: Api, cup: dict[str, Any]) -> None:
    plain = engineer.post(f"{DOOR}/study", {"form": cup["form"]}).json()
    assert plain["feasible"]
    assert plain["limits"][0]["working"]
    assert [one["carries"] for one in plain["carriers"] if one["machine"] == "horizontal centre"] == [True]
    form = {**cup["form"], "segments": [dict(row) for row in cup["form"]["segments"]]}
    form["segments"][1]["length"] = "8"
    inch = engineer.post(f"{DOOR}/study", {"form": form, "units": "inch", "typed": "segments.1.length"}).json()
    assert inch["form"]["segments"][1]["length"] == "8 in"  # what is typed means the units shown, the rest what it meant
    assert inch["form"]["steps"][0]["diameter"] == "200 mm"
    patch = remedy(plain, "hollow arms")
    form = {**cup["form"], **{name: patch[name] for name in ("segments", "steps", "machine", "tool")}}
    taken = engineer.post(f"{DOOR}/study", {"form": form}).json()
    assert float(taken["labels"]["moment"]["metric"].split()[0]) < 13.0


def remedy(answer: dict[str, Any], text: str) -> dict[str, Any]:
    patch = next(one["patch"] for one in answer["remedies"] if one["text"] == text)
    return dict(patch)


def test_what_is_wrong_names_its_cell(engineer: Api, cup: dict[str, Any]) -> None:
    form = {**cup["form"], "segments": [{**cup["form"]["segments"][0], "inner": "300 mm"}, *cup["form"]["segments"][1:]]}
    refused = engineer.post(f"{DOOR}/study", {"form": form})
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"] == "segments.0.inner"
    assert put(engineer, {**cup, "form": form}).status_code == 422
    assert engineer.post(f"{DOOR}/study", {"form": {**cup["form"], "note": "x" * 50_000}}).status_code == 422
    assert engineer.post(f"{DOOR}/study", {"form": {**cup["form"], "segments": 7}}).status_code == 422
    assert engineer.get(f"{DOOR}/987654").status_code == 404


def test_two_people_on_one_tool(engineer: Api, cup: dict[str, Any]) -> None:
    first = put(engineer, cup)
    assert first.json()["revision"] == cup["revision"] + 1
    late = put(engineer, cup)
    assert late.status_code == 409
    assert late.json()["current_revision"] == cup["revision"] + 1
    assert late.json()["yours"]["tool"]["name"] == "Cup tool, arms"


def test_copied_and_archived(engineer: Api, operator: Api, cup: dict[str, Any]) -> None:
    form = {**cup["form"], "tool": {**cup["form"]["tool"], "name": "Cup tool copy"}}
    made = engineer.post(DOOR, {"form": form})
    assert made.status_code == 201
    assert engineer.post(DOOR, {"form": form}).status_code == 409
    taken = put(engineer, {**made.json(), "form": cup["form"]})
    assert taken.status_code == 409
    assert taken.json()["errors"][0]["field"] == "tool.name"
    gone = engineer.client.delete(f"{DOOR}/{made.json()['id']}", HTTP_X_CSRFTOKEN=engineer.token)
    assert gone.status_code == 204
    assert engineer.get(f"{DOOR}/{made.json()['id']}").status_code == 404
    assert engineer.post(DOOR, {"form": form}).status_code == 201  # its name may be used again


def test_out_and_in_again_as_a_file(engineer: Api, cup: dict[str, Any]) -> None:
    answer = engineer.get(f"{DOOR}/{cup['id']}/form.json")
    assert "attachment" in answer["Content-Disposition"]
    form = answer.json()
    assert form["operation"] == "heavy bore"
    form["tool"]["heavy_tool"]["name"] = "Cup tool from a file"
    assert engineer.post(DOOR, {"form": form}).status_code == 201


def test_a_tool_that_the_shop_no_longer_understands_stands_in_the_list(engineer: Api) -> None:
    HeavyTool.objects.create(name="Lost", form={"machine": "sold", "tool": {"name": "Lost"}})
    row = next(one for one in engineer.get(DOOR).json() if one["name"] == "Lost")
    assert row["mass"] is None
    assert not row["sound"]


def test_on_paper_stands_what_the_setter_and_the_changer_want(engineer: Api, operator: Api) -> None:
    rows = {row["name"]: row["id"] for row in engineer.get(DOOR).json()}
    page = operator.get(f"{DOOR}/{rows['Cup tool, arms']}/setup-sheet?form=page").content.decode()
    for words in (
        "10.51 kg",
        "13.2 N·m",
        "HSK-A100 flange",
        "200 H6",
        "set every step at 24 ± 1 °C",
        "falls out of the changer",
        "slow swing",
    ):
        assert words in page
    assert "is the limit" not in page
    inch = operator.get(f"{DOOR}/{rows['Cup tool, solid steel']}/setup-sheet?form=page&units=inch").content.decode()
    assert "tilting moment: 22.4 lbf·ft (30.4 N·m) where 11.1 lbf·ft (15.0 N·m) is the limit." in inch
    for paper in ("a4", "letter"):
        pdf = operator.get(f"{DOOR}/{rows['Cup tool, arms']}/setup-sheet?paper={paper}")
        assert pdf["Content-Type"] == "application/pdf"
        assert len(PdfReader(io.BytesIO(pdf.content)).pages) <= 2
