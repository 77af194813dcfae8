"""The clinic over HTTP: an operation's own numbers weigh, a change is run, what turned out counts, an exercise keeps its secret."""

from __future__ import annotations

import io
from collections.abc import Callable
from typing import Any

import pytest
from pypdf import PdfReader

from cutting.clinic.trainer import shipped
from server.clinic.models import Practice, Trouble
from tests.server.conftest import Api

JobId = Callable[[str], int]


def post(who: Api, path: str, body: dict[str, Any]) -> Any:
    return who.post(path, body)


def first(answer: Any) -> str:
    return str(answer.json()["suspects"][0]["name"])


def test_a_kind_alone_is_asked_and_answers_narrow_it(engineer: Api) -> None:
    ward = engineer.get("/api/clinic/drill").json()
    assert {"packed_flutes", "oversize"} <= {one["name"] for one in ward["symptoms"]}
    asked = post(engineer, "/api/clinic/drill/suspects", {"seen": ["oversize"]}).json()
    assert asked["question"]["looks"]
    assert asked["question"]["minutes"] > 0
    found = post(engineer, "/api/clinic/drill/suspects", {"seen": ["oversize"], "answers": {"tool_runout": True}})
    assert first(found) == "drill_runs_out"
    assert any(one["speaks"] == "for" for one in found.json()["suspects"][0]["reasons"])
    refused = post(engineer, "/api/clinic/drill/suspects", {"seen": ["barrel"]})
    assert refused.status_code == 422
    assert "barrel" in refused.content.decode()
    assert engineer.get("/api/clinic/polish").status_code == 422


def test_an_operation_is_asked_with_its_numbers_and_its_change_is_run(engineer: Api, job_id: JobId) -> None:
    path = f"/api/jobs/{job_id('Runner shaft')}/operations/op30/suspects"
    told = post(engineer, path, {"seen": ["feed_lines"], "answers": {"line_pitch": True}}).json()
    assert told["suspects"][0]["name"] == "feed_for_finish"
    offer = post(engineer, f"{path}/feed_for_finish", {}).json()
    assert offer["remedy"]["patch"]["settings"]["feed_per_rev"]
    assert offer["rows"][0]["before"] != offer["rows"][0]["after"]
    by_hand = post(engineer, f"{path}/edge_nicked", {}).json()
    assert by_hand["by_hand"]
    assert by_hand["remedy"] is None
    assert post(engineer, f"{path}/no_such_cause", {}).status_code == 422


def test_how_changes_turned_out_moves_what_is_suspected(operator: Api, job_id: JobId) -> None:
    path = f"/api/jobs/{job_id('Runner shaft')}/operations/op30"
    before = post(operator, f"{path}/suspects", {"seen": ["size_wanders"]}).json()
    for _ in range(6):
        kept = post(
            operator, f"{path}/troubles", {"cause": "seat_bad", "turned_out": "helped", "seen": ["size_wanders"], "words": "new shim"}
        )
        assert kept.status_code == 201
    after = post(operator, f"{path}/suspects", {"seen": ["size_wanders"]}).json()

    def of(told: dict[str, Any]) -> dict[str, Any]:
        return next(one for one in told["suspects"] if one["name"] == "seat_bad")

    assert of(after)["chance"] > of(before)["chance"]
    assert of(after)["seen"] == 6 > of(before)["seen"]
    assert of(after)["low"] < of(after)["weight"] < of(after)["high"]
    told = operator.get(f"{path}/troubles").json()
    assert len(told) == 6
    assert told[0]["words"] == "new shim"
    assert told[0]["author"] == "operator"
    assert post(operator, f"{path}/troubles", {"cause": "seat_bad", "turned_out": "perhaps"}).status_code == 422
    assert post(operator, f"{path}/troubles", {"cause": "tap_worn", "turned_out": "helped"}).status_code == 422
    assert Trouble.objects.count() == 6


def test_an_exercise_is_solved_and_nobody_else_sees_it(engineer: Api, operator: Api) -> None:
    begun = post(engineer, "/api/exercises", {"number": 1})
    assert begun.status_code == 201
    told, cause = begun.json(), shipped()[0].cause
    assert not told["explained"]
    assert cause not in str({**told, "name": ""})
    path = f"/api/exercises/{told['id']}"
    assert operator.get(path).status_code == 404
    looked = post(engineer, f"{path}/steps", {"did": "look", "what": "override"}).json()
    assert looked["minutes"] > 0
    assert not looked["over"]
    assert post(engineer, f"{path}/steps", {"did": "look", "what": "the moon"}).status_code == 422
    ended = post(engineer, f"{path}/steps", {"did": "name", "what": cause}).json()
    assert ended["over"]
    assert ended["named"]
    assert ended["score"] == pytest.approx(100 - ended["minutes"])
    assert post(engineer, f"{path}/steps", {"did": "name", "what": cause}).status_code == 422
    mine = engineer.get("/api/exercises").json()
    assert mine["done"] == mine["solved"] == 1
    assert mine["shipped"][0]["best"] == ended["score"]
    assert operator.get("/api/exercises").json()["done"] == 0


def test_an_exercise_is_drawn_and_the_oldest_open_ones_make_room(engineer: Api) -> None:
    drawn = post(engineer, "/api/exercises", {"seed": 77, "kind": "tap"}).json()
    assert drawn["kind"] == "tap"
    assert drawn["seed"] == 77
    for seed in range(25):
        assert post(engineer, "/api/exercises", {"seed": seed, "kind": "face"}).status_code == 201
    assert Practice.objects.filter(over=False).count() <= 20
    assert post(engineer, "/api/exercises", {"number": 999}).status_code == 404
    assert post(engineer, "/api/exercises", {"kind": "polish"}).status_code == 422


def test_a_trouble_card_fits_one_page_and_tells_the_operations_own_numbers(engineer: Api, job_id: JobId) -> None:
    path = f"/api/jobs/{job_id('Runner shaft')}/operations/op30/trouble-card"
    page = engineer.get(f"{path}?form=page").content.decode()
    assert "lines as far apart as the feed" in page
    assert "feed 0.3 → " in page
    assert "Spindle stopped and locked out" in page
    inch = engineer.get(f"{path}?form=page&units=inch").content.decode()
    assert "mm/rev" not in inch
    sheet = engineer.get(f"{path}?paper=letter")
    assert sheet["Content-Type"] == "application/pdf"
    assert len(PdfReader(io.BytesIO(sheet.content)).pages) == 1
