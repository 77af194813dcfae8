"""Jobs over HTTP: every change is a revision, undo works, stale edits lose nothing, roles hold."""

from __future__ import annotations

import io
from collections.abc import Callable
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image
from pypdf import PdfWriter

from server.floor.models import Machine
from server.jobs.models import Revision
from tests.server.conftest import Api

JobId = Callable[[str], int]


def feed(job: dict[str, Any], operation: str = "op30") -> str:
    entry = next(one for one in job["document"]["operations"] if one["id"] == operation)
    return str(entry["settings"]["feed_per_rev"])


def test_what_needs_attention_comes_first(engineer: Api) -> None:
    rows = engineer.get("/api/jobs").json()["rows"]
    order = [row["state"]["attention"] for row in rows]
    assert order == sorted(order)
    assert rows[0]["name"] == "Deflector hub, weld repaired"
    assert "finish Ra" in rows[0]["state"]["why"]["metric"]


def test_a_saved_edit_is_a_revision_and_can_be_undone_and_redone(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    saved = engineer.edit(job, 1, action="set_settings", operation="op30", settings={"feed_per_rev": "11 thou"}).json()
    assert (saved["revision"], feed(saved)) == (2, "11 thou")
    again = engineer.edit(job, 2, action="set_settings", operation="op30", settings={"feed_per_rev": 0.25}).json()
    assert feed(again) == "0.25 mm/rev"
    undone = engineer.post(f"/api/jobs/{job}/undo", {"base_revision": 3}).json()
    assert (undone["revision"], feed(undone), undone["can_redo"]) == (4, "11 thou", True)
    first = engineer.post(f"/api/jobs/{job}/undo", {"base_revision": 4}).json()
    assert (feed(first), first["can_undo"]) == ("0.3 mm/rev", False)
    assert engineer.post(f"/api/jobs/{job}/undo", {"base_revision": 5}).status_code == 422
    redone = engineer.post(f"/api/jobs/{job}/redo", {"base_revision": 5}).json()
    redone = engineer.post(f"/api/jobs/{job}/redo", {"base_revision": redone["revision"]}).json()
    assert (feed(redone), redone["can_redo"]) == ("0.25 mm/rev", False)
    history = engineer.get(f"/api/jobs/{job}/revisions").json()
    assert [row["number"] for row in history] == [7, 6, 5, 4, 3, 2, 1]
    assert Revision.objects.filter(job_id=job).count() == 7


def test_an_edit_after_undo_forgets_the_redo(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    engineer.edit(job, 1, action="set_part", goal="fastest")
    engineer.post(f"/api/jobs/{job}/undo", {"base_revision": 2})
    fresh = engineer.edit(job, 3, action="set_part", goal="cheapest").json()
    assert fresh["can_redo"] is False
    undone = engineer.post(f"/api/jobs/{job}/undo", {"base_revision": 4}).json()
    assert undone["document"]["goal"] == "most secure"


def test_a_stale_edit_gets_both_versions_back(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    engineer.edit(job, 1, action="set_settings", operation="op30", settings={"feed_per_rev": "0.25"})
    stale = engineer.edit(job, 1, action="set_settings", operation="op30", settings={"cutting_speed": "140"})
    assert stale.status_code == 409
    body = stale.json()
    assert body["current_revision"] == 2
    assert feed({"document": body["theirs"]}) == "0.25 mm/rev"
    mine = next(one for one in body["yours"]["operations"] if one["id"] == "op30")
    assert mine["settings"]["cutting_speed"] == "140 m/min"
    assert Revision.objects.filter(job_id=job).count() == 2


def test_changing_the_metal_re_evaluates_everything(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    before = engineer.get(f"/api/jobs/{job}").json()
    after = engineer.edit(job, 1, action="set_part", material="304").json()
    assert after["document"]["material"] == "X5CrNi18-10"
    assert after["document"]["hardness"] is None
    assert after["state"]["tape"]["money"] != before["state"]["tape"]["money"]


@pytest.mark.parametrize(
    ("edit", "field"),
    [
        ({"action": "set_settings", "operation": "op30", "settings": {"feed_per_rev": "fast"}}, "settings.feed_per_rev"),
        ({"action": "set_settings", "operation": "op30", "settings": {"depth_of_cut": "1,500"}}, "settings.depth_of_cut"),
        ({"action": "set_settings", "operation": "op30", "settings": {"cutting_speed": "99999"}}, "settings.cutting_speed"),
        ({"action": "set_settings", "operation": "op30", "settings": {"colour": "red"}}, "settings.colour"),
        ({"action": "set_part", "material": "unobtainium"}, "material"),
        ({"action": "set_part", "machine": "the big one"}, "machine"),
        ({"action": "set_part", "hardness": -4}, "hardness"),
        ({"action": "set_part", "batch": {"pieces": 0}}, "batch.pieces"),
        ({"action": "take_tool", "operation": "op30", "tool": {"insert": "CNMG 999999", "holder": "PCLNR 2525 M12"}}, "tool.insert"),
        ({"action": "set_feature", "operation": "op30", "feature": {"end_diameter": "40 q9"}}, "feature.end_diameter"),
        ({"action": "set_part", "house": {"wear_factor": 99}}, "house.wear_factor"),
        ({"action": "set_holding", "holding": {"free_length": "-3"}}, "holding.free_length"),
    ],
)
def test_bad_edits_name_field_and_save_nothing(engineer: Api, job_id: JobId, edit: dict[str, Any], field: str) -> None:
    job = job_id("Runner shaft")
    answer = engineer.edit(job, 1, **edit)
    assert answer.status_code == 422, answer.content
    assert answer["Content-Type"] == "application/problem+json"
    assert field in {error["field"].removeprefix("edit.") for error in answer.json()["errors"]}
    assert Revision.objects.filter(job_id=job).count() == 1


def test_operations_can_be_added_moved_and_removed(engineer: Api, job_id: JobId) -> None:
    job = job_id("Wear bush")
    feature = {"start_diameter": "68.4", "end_diameter": "66", "length": "10", "distance_from_chuck": "40"}
    added = engineer.edit(job, 1, action="add_operation", kind="turn", title="Relief Ø66", feature=feature).json()
    new = added["document"]["operations"][-1]
    assert (new["number"], new["title"]) == (40, "Relief Ø66")
    moved = engineer.edit(job, 2, action="move_operation", operation=new["id"], by=-1).json()
    assert [one["number"] for one in moved["document"]["operations"]] == [10, 20, 30, 40]
    assert moved["document"]["operations"][2]["id"] == new["id"]
    removed = engineer.edit(job, 3, action="remove_operation", operation=new["id"]).json()
    assert len(removed["document"]["operations"]) == 3
    assert engineer.edit(job, 4, action="move_operation", operation=removed["document"]["operations"][0]["id"], by=-1).status_code == 422


def test_a_new_job_starts_empty_and_takes_its_first_operation(engineer: Api, operator: Api) -> None:
    blank = {
        "name": "Gate spindle",
        "material": "4140",
        "machine": "two-axis lathe",
        "diameter": "2.5",
        "free_length": "10",
        "units": "inch",
    }
    assert operator.post("/api/jobs", blank).status_code == 403
    made = engineer.post("/api/jobs", blank)
    assert made.status_code == 201
    job = made.json()
    assert (job["document"]["material"], job["document"]["stock"]["diameter"]) == ("42CrMo4", "2.5 in")
    assert job["state"]["outline"]["length"] == pytest.approx(254)
    feature = {"start_diameter": "63.5", "end_diameter": "60 h9", "length": "100", "distance_from_chuck": "50"}
    grown = engineer.edit(job["id"], 1, action="add_operation", kind="turn", title="Turn Ø60", feature=feature).json()
    assert grown["state"]["operations"][0]["seconds"] > 0
    fat = engineer.post("/api/jobs", {**blank, "diameter": "900 mm"})
    assert fat.status_code == 422
    assert fat.json()["errors"][0]["field"] == "diameter"
    assert "300" in fat.json()["errors"][0]["bound"]


def test_an_inch_entry_keeps_its_unit(engineer: Api, job_id: JobId) -> None:
    saved = engineer.edit(
        job_id("Runner shaft"), 1, action="set_settings", operation="op30", units="inch", settings={"feed_per_rev": "0.011"}
    ).json()
    assert feed(saved) == "0.011 ipr"


def test_live_evaluation_saves_nothing_and_speaks_both_units(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    path = f"/api/jobs/{job}/operations/op30/evaluate"
    answer = engineer.post(path, {"settings": {"feed_per_rev": "0.02"}, "units": "inch"}).json()
    nose = next(limit for limit in answer["limits"] if limit["name"] == "nose_feed")
    assert nose["utilisation"] > 1
    assert answer["feasible"] is False
    assert answer["results"]["cutting_speed"]["display"] == {"metric": "150 m/min", "inch": "492 sfm"}
    assert answer["ladders"]["feed_per_rev"]["rungs"][0].endswith("ipr")
    assert all(step["source"] for step in answer["results"]["cutting_force"]["working"])
    assert Revision.objects.filter(job_id=job).count() == 1


def test_what_follows_holds_ranking_remedies_and_tape(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    saved = engineer.get(f"/api/jobs/{job}").json()["state"]["tape"]["seconds"]
    follow = engineer.post(f"/api/jobs/{job}/operations/op30/follow", {"settings": {"feed_per_rev": "0.5"}}).json()
    assert follow["advice"]["candidates"][0]["reason"].startswith("first")
    feed, unit = follow["remedies"]["nose_feed"][0]["patch"]["settings"]["feed_per_rev"].split()
    assert float(feed) <= 0.48
    assert unit == "mm/rev"
    assert follow["state"]["tape"]["seconds"] < saved
    taken = follow["advice"]["candidates"][0]
    edit = {
        "action": "take_tool",
        "operation": "op30",
        "tool": taken["tool"],
        "settings": taken["settings"],
    }
    after = engineer.edit(job, 1, **edit).json()
    row = next(one for one in after["state"]["operations"] if one["id"] == "op30")
    assert row["seconds_display"]["metric"].removesuffix(" s") == taken["seconds"]["metric"]
    assert row["status"] != "broken"


def test_a_remedy_that_changes_holding_and_feed_is_one_gesture(engineer: Api, job_id: JobId) -> None:
    job = job_id("Guide-vane pin")
    both = {"settings": {"feed_per_rev": 0.2}, "holding": {"style": "chuck and centre", "free_length": 50}}
    saved = engineer.edit(job, 1, action="set_settings", operation="op20", **both).json()
    entry = saved["document"]["operations"][1]
    assert entry["holding"] == {"style": "chuck and centre", "free_length": "50 mm"}
    assert entry["settings"]["feed_per_rev"] == "0.2 mm/rev"
    undone = engineer.post(f"/api/jobs/{job}/undo", {"base_revision": 2}).json()
    assert undone["document"]["operations"][1]["holding"] == {}


def test_any_limit_says_what_would_move_it(engineer: Api, job_id: JobId) -> None:
    path = f"/api/jobs/{job_id('Runner shaft')}/operations/op30/limits"
    moves = engineer.post(f"{path}/spindle_power/relax", {}).json()
    assert 1 <= len(moves) <= 3
    assert all(move["patch"] and "of its limit" in move["effect"]["metric"] for move in moves)
    wrong = engineer.post(f"{path}/moon_phase/relax", {})
    assert wrong.status_code == 422
    assert "spindle_power" in wrong.json()["errors"][0]["suggestions"]


def test_a_tool_that_cannot_cut_the_metal_still_gets_a_ranking(engineer: Api, job_id: JobId) -> None:
    job = job_id("Wear bush")
    engineer.edit(job, 1, action="set_part", material="100Cr6 hardened 60 HRC")
    evaluated = engineer.post(f"/api/jobs/{job}/operations/op20/evaluate", {})
    assert evaluated.status_code == 422
    assert "no starting speed" in evaluated.json()["errors"][0]["message"]
    follow = engineer.post(f"/api/jobs/{job}/operations/op20/follow", {}).json()
    assert follow["remedies"] == {}
    assert follow["advice"]["refused"]


def test_present_process_is_beaten_or_not(engineer: Api, job_id: JobId) -> None:
    job = job_id("Wear bush")
    cost = engineer.get(f"/api/jobs/{job}").json()["state"]["tape"]["money"]
    kept = engineer.edit(
        job, 1, action="set_baseline", baseline={"name": "present process", "seconds": 90, "cost": cost + 1, "note": ""}
    ).json()
    assert kept["state"]["baseline"]["saving"]["metric"] == "1.00 €"
    assert kept["state"]["baseline"]["yearly_saving"]["metric"] == "1200 €"


def test_operators_read_note_and_measure_but_do_not_set(operator: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    assert operator.get(f"/api/jobs/{job}").status_code == 200
    assert operator.edit(job, 1, action="set_part", goal="fastest").status_code == 403
    assert operator.post(f"/api/jobs/{job}/undo", {"base_revision": 1}).status_code == 403
    assert operator.post(f"/api/jobs/{job}/notes", {"operation": "op30", "text": "chips short, blue"}).status_code == 201
    made = operator.post(
        f"/api/jobs/{job}/measurements", {"operation": "op30", "pass_number": 1, "commanded": "53.25", "measured": "53.268"}
    )
    assert made.status_code == 201
    assert made.json()["difference"]["metric"] == "18.0 µm"
    assert operator.get(f"/api/jobs/{job}/notes").json()[0]["author"] == "operator"
    assert operator.get(f"/api/jobs/{job}/measurements").json()[0]["pass_number"] == 1
    bad = operator.post(f"/api/jobs/{job}/measurements", {"operation": "op30", "pass_number": 1, "commanded": "53", "measured": "about 53"})
    assert bad.json()["errors"][0]["field"] == "measured"


def test_prints_are_kept_by_what_they_are(engineer: Api, job_id: JobId) -> None:
    path = f"/api/jobs/{job_id('Runner shaft')}/prints"

    def send(name: str, content: bytes) -> Any:
        return engineer.client.post(path, {"file": SimpleUploadedFile(name, content)}, HTTP_X_CSRFTOKEN=engineer.token)

    kept = send("shaft.pdf", b"%PDF-1.7 a drawing")
    assert (kept.status_code, kept.json()["media_type"]) == (201, "application/pdf")
    back = engineer.get(f"{path}/{kept.json()['id']}")
    assert back.content == b"%PDF-1.7 a drawing"
    assert back["Content-Disposition"].startswith("attachment")
    assert send("shaft.pdf", b"<script>alert(1)</script>").status_code == 422
    assert send("big.pdf", b"%PDF-" + b"0" * (10 * 1024 * 1024)).status_code == 413
    photo, note = io.BytesIO(), Image.Exif()
    note[0x010E], note[0x0112] = "where it was taken", 6  # described, and turned by a quarter
    Image.new("RGB", (60, 40), "grey").save(photo, "JPEG", exif=note)
    shown = engineer.get(f"{path}/{send('photo.jpg', photo.getvalue()).json()['id']}").content
    assert Image.open(io.BytesIO(shown)).size == (40, 60)  # upright, and nothing but its pixels
    assert b"where it was taken" not in shown
    giants = [io.BytesIO(), io.BytesIO()]
    for giant, side in zip(giants, (9_200, 20_000), strict=True):
        Image.new("1", (side, side)).save(giant, "PNG")
        assert len(giant.getvalue()) < 100_000
        assert send("giant.png", giant.getvalue()).json()["errors"][0]["bound"] == "80 million pixels"
    assert send("half.jpg", photo.getvalue()[:300]).status_code == 422
    assert send("none.png", b"\x89PNG\r\n\x1a\n and nothing").status_code == 422


def test_a_page_is_drawn_once_apart_and_within_its_time(engineer: Api, job_id: JobId, monkeypatch: pytest.MonkeyPatch) -> None:
    path = f"/api/jobs/{job_id('Runner shaft')}/prints"
    sheet, out = PdfWriter(), io.BytesIO()
    sheet.add_blank_page(width=595, height=842)
    sheet.write(out)

    def send(name: str) -> int:
        sent = engineer.client.post(path, {"file": SimpleUploadedFile(name, out.getvalue())}, HTTP_X_CSRFTOKEN=engineer.token)
        return int(sent.json()["id"])

    first = send("page.pdf")
    drawn = engineer.get(f"{path}/{first}/picture")
    assert Image.open(io.BytesIO(drawn.content)).size[0] == 1400
    monkeypatch.setattr("server.jobs.shown.prints.LONGEST", 0.001)
    assert engineer.get(f"{path}/{first}/picture").content == drawn.content  # kept: nothing is drawn again
    slow = engineer.get(f"{path}/{send('slow.pdf')}/picture")
    assert slow.status_code == 422
    assert "takes longer" in slow.json()["title"]


def test_hardness_as_delivered_on_any_scale(engineer: Api, job_id: Any) -> None:
    job = job_id("Runner shaft")
    edited = engineer.edit(job, 1, action="set_part", hardness="30 HRC")
    # iso-18265: 29.8 HRC is 285 HB, 31.0 HRC is 295 HB
    assert edited.json()["document"]["hardness"] == pytest.approx(286.7, abs=0.2)
    refused = engineer.edit(job, 2, action="set_part", hardness="15 HRC")
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"] == "hardness"
    stainless = engineer.edit(job_id("Wear bush"), 1, action="set_part", hardness="100 HV")
    assert stainless.status_code == 422  # bronze is not in the steel table


def test_another_machine_gives_its_own_coolant_and_says_so(engineer: Api, job_id: JobId) -> None:
    """A machine without what an operation was cooled by takes its usual one; the history names the operations."""
    job, lathe = job_id("Runner shaft"), Machine.objects.get(name="two-axis lathe")
    lathe.pk, lathe.name, lathe.key, lathe.coolant = None, "dry lathe", "drylathe", [["dry", 0.0], ["mist", 5.0]]
    lathe.save()
    moved = engineer.edit(job, 1, action="set_part", operation="", machine="dry lathe")
    assert moved.status_code == 200, moved.json()
    operations = moved.json()["document"]["operations"]
    assert {one["settings"]["coolant"] for one in operations} <= {"mist", "dry"}
    assert "there mist in 10" in moved.json()["gesture"]
    added = engineer.edit(job, 2, action="add_operation", kind="face", title="Other end", feature={"end_diameter": "0", "length": "1 mm"})
    assert added.status_code == 200, added.json()


def test_a_part_that_is_pulled_out_keeps_its_plan(engineer: Api, job_id: Callable[[str], int]) -> None:
    """Places belong to the part: further out of the jaws they go with it, in the unit in which each was typed."""
    job = job_id("Runner shaft")
    before = engineer.get(f"/api/jobs/{job}").json()
    out = engineer.edit(job, 1, action="set_part", free_length="270 mm").json()
    assert "every place goes with the part" in engineer.get(f"/api/jobs/{job}/revisions").json()[0]["gesture"]
    was, now = ({one["id"]: one for one in document["operations"]} for document in (before["document"], out["document"]))
    for name, one in was.items():
        told, then = one["feature"].get("distance_from_chuck"), now[name]["feature"].get("distance_from_chuck")
        assert (told is None) == (then is None)
        if told is not None:
            assert float(then.split()[0]) == pytest.approx(float(told.split()[0]) + 2.0)
    shapes = [[(round(place, 6), radius) for place, radius in document["state"]["outline"]["finished"][-4:]] for document in (before, out)]
    assert [(round(place + 2.0, 6), radius) for place, radius in shapes[0]] == shapes[1]
    costs = [{row["id"]: row["seconds"] for row in document["state"]["operations"]} for document in (before, out)]
    assert costs[1] == pytest.approx(costs[0], rel=0.01)
