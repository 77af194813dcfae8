"""Who comes in, who does not, and what is written down of it."""

from __future__ import annotations

import json
import re
from datetime import timedelta
from typing import Any

import pytest
from django.contrib.auth.models import User
from django.core.management import CommandError, call_command
from django.test import Client, override_settings
from django.utils import timezone

from server.people.demo import fill_people
from server.people.guessing import pause_of
from server.people.models import Happening, Preferences, Session
from server.people.sessions import sweep
from tests.server.conftest import PASSWORDS, Api

OWN = "a-lathe-of-my-own"


def send(who: Api, method: str, path: str, data: Any = None) -> Any:
    body = json.dumps(data or {})
    return getattr(who.client, method)(path, body, content_type="application/json", HTTP_X_CSRFTOKEN=who.token)


def enter(name: str, password: str, **more: Any) -> Any:
    """Somebody at the door: the answer to their sign-in."""
    return Api(None).post("/api/session", {"name": name, "password": password}, **more)


@pytest.fixture
def administrator(demo: None) -> Api:
    return Api("administrator")


@pytest.fixture
def ann(administrator: Api) -> tuple[int, str]:
    """A new person, and the password to hand over."""
    made = administrator.post("/api/people", {"name": "ann", "role": "engineer"})
    assert made.status_code == 201
    return made.json()["person"]["id"], made.json()["password"]


def happened(what: str) -> list[tuple[str, str, str]]:
    return [(row.who, row.about, row.more) for row in Happening.objects.filter(what=what)]


def test_a_new_person_chooses_a_password_before_anything_else(ann: tuple[int, str]) -> None:
    assert re.fullmatch(r"[a-z2-9]{5}(-[a-z2-9]{5}){2}", ann[1])  # 74 bits: nobody guesses it on the way to the machine
    came = Api(None)
    assert came.post("/api/session", {"name": "ann", "password": ann[1]}).json()["must_change"]
    came.token = came.get("/api/session").json()["token"]
    assert came.get("/api/jobs").status_code == 403
    for old, new, field in (("guess-guess-guess", OWN, "old"), (ann[1], "short", "new"), (ann[1], ann[1], "new")):
        refused = came.post("/api/session/password", {"old": old, "new": new})
        assert (refused.status_code, refused.json()["errors"][0]["field"]) == (422, field)
    assert came.post("/api/session/password", {"old": ann[1], "new": OWN}).status_code == 200
    assert came.get("/api/jobs").status_code == 200
    assert enter("ann", ann[1]).status_code == 401
    assert enter("ann", OWN).json()["role"] == "engineer"
    assert happened("added") == [("administrator", "ann", "engineer")]
    assert happened("password changed") == [("ann", "", "")]


def test_names_are_spelled_as_they_were_given(ann: tuple[int, str], administrator: Api) -> None:
    for near in ("Ann", "ANN", "änn"):
        assert enter(near, ann[1]).status_code == 401
    assert enter("  ann ", ann[1]).status_code == 200
    for bad, status in (("Ann", 409), ("a b", 422), ("", 422), ("x" * 61, 422), ("<b>", 422)):
        refused = administrator.post("/api/people", {"name": bad})
        assert (refused.status_code, refused.json()["errors"][0]["field"]) == (status, "name"), bad


def test_locked_people_are_out_at_once_and_renamed_ones_keep_what_they_wrote(ann: tuple[int, str], administrator: Api) -> None:
    came = Api("operator")
    person = User.objects.get(username="operator").pk
    assert send(administrator, "patch", f"/api/people/{person}", {"locked": True}).json()["locked"]
    assert came.get("/api/jobs").status_code == 401
    assert enter("operator", PASSWORDS["operator"]).status_code == 401
    send(administrator, "patch", f"/api/people/{person}", {"locked": False, "name": "olaf", "role": "reader"})
    assert enter("operator", PASSWORDS["operator"]).status_code == 401
    assert enter("olaf", PASSWORDS["operator"]).json()["role"] == "reader"
    assert [happened(what) for what in ("locked", "unlocked", "renamed", "role changed")] == [
        [("administrator", "operator", "")],
        [("administrator", "olaf", "")],
        [("administrator", "olaf", "was operator")],
        [("administrator", "olaf", "operator to reader")],
    ]


def test_one_administrator_always_stays(administrator: Api, ann: tuple[int, str]) -> None:
    only = User.objects.get(username="administrator").pk
    for change in ({"locked": True}, {"role": "engineer"}):
        assert send(administrator, "patch", f"/api/people/{only}", change).status_code == 409
    send(administrator, "patch", f"/api/people/{ann[0]}", {"role": "administrator"})
    assert send(administrator, "patch", f"/api/people/{only}", {"role": "engineer"}).status_code == 200
    assert administrator.get("/api/people").status_code == 403


def test_guessing_is_stopped_before_the_password_is_looked_at(demo: None) -> None:
    there = {"REMOTE_ADDR": "10.0.0.7"}
    answers = [enter("engineer", f"guess {n}", **there).status_code for n in range(8)]
    assert set(answers[:7]) == {401}
    stopped = enter("engineer", PASSWORDS["engineer"], **there)  # right, and yet not looked at
    assert (stopped.status_code, stopped["Retry-After"], stopped["Content-Type"]) == (429, "300", "application/problem+json")
    assert enter("operator", "guess", **there).status_code == 429  # another name from there
    assert enter("engineer", PASSWORDS["engineer"], REMOTE_ADDR="10.0.0.8").status_code == 200  # its owner elsewhere is not locked out
    assert len(happened("refused")) == 7
    assert {who for who, _, _ in happened("throttled")} == {"engineer", "operator"}
    assert Happening.objects.filter(what="throttled").first().address == "10.0.0.7"  # type: ignore[union-attr]


def test_ones_own_sign_in_clears_nothing_of_what_was_guessed(demo: None) -> None:
    """Whoever has an account of their own would else guess at others' for ever, eight tries and a sign-in at a time."""
    there = {"REMOTE_ADDR": "10.0.0.11"}
    answers = []
    for n in range(8):
        answers.append(enter("administrator", f"guess {n}", **there).status_code)
        enter("engineer", PASSWORDS["engineer"], **there)
    assert answers[-1] == 429
    assert enter("engineer", PASSWORDS["engineer"], **there).status_code == 429


@override_settings(BEHIND_PROXY=True)
def test_behind_a_proxy_the_address_is_what_the_proxy_saw(demo: None) -> None:
    """Common practice: only the last entry is the proxy's own; the others are the caller's word."""
    enter("engineer", "guess", HTTP_X_FORWARDED_FOR="1.2.3.4, 10.0.0.9")
    assert Happening.objects.filter(what="refused").get().address == "10.0.0.9"


def test_no_page_elsewhere_signs_anybody_in(demo: None) -> None:
    body = json.dumps({"name": "engineer", "password": PASSWORDS["engineer"]})
    strange = Client(enforce_csrf_checks=True)
    assert strange.post("/api/session", body, content_type="text/plain").status_code in (403, 415)
    assert strange.post("/api/session", body, content_type="application/json").status_code == 403
    assert "sessionid" not in strange.cookies


def test_sessions_are_listed_ended_and_end_by_themselves(administrator: Api, engineer: Api) -> None:
    second = Api("engineer")
    listed = engineer.get("/api/session/list").json()
    assert sorted(row["here"] for row in listed) == [False, True]
    assert all(row["name"] not in str(engineer.client.cookies) for row in listed)  # what is shown takes nobody over
    send(engineer, "delete", "/api/session/list/others")
    assert (engineer.get("/api/jobs").status_code, second.get("/api/jobs").status_code) == (200, 401)
    person = User.objects.get(username="engineer").pk
    assert len(administrator.get(f"/api/people/{person}/sessions").json()) == 1
    send(administrator, "delete", f"/api/people/{person}/sessions")
    assert engineer.get("/api/jobs").status_code == 401


def test_a_session_that_nobody_uses_ends_and_a_page_that_only_waits_does_not_count(engineer: Api, job_id: Any) -> None:
    pulse = f"/api/jobs/{job_id('Runner shaft')}/pulse"

    def left(minutes: float) -> None:
        Session.objects.update(seen_at=timezone.now() - timedelta(minutes=minutes))

    left(400)
    assert engineer.client.get(pulse, HTTP_X_WAITING="1").status_code == 200
    assert timezone.now() - Session.objects.get().seen_at > timedelta(minutes=399)
    assert engineer.get("/api/jobs").status_code == 200
    assert timezone.now() - Session.objects.get().seen_at < timedelta(minutes=1)
    left(481)
    assert engineer.get("/api/jobs").status_code == 401
    assert not Session.objects.filter(person__username="engineer").exists()
    Api("engineer")
    Session.objects.update(expire_date=timezone.now() - timedelta(days=1))
    assert sweep() >= 1


def test_a_given_password_ends_what_was_open(administrator: Api, engineer: Api) -> None:
    person = User.objects.get(username="engineer").pk
    given = administrator.post(f"/api/people/{person}/password", {}).json()
    assert engineer.get("/api/jobs").status_code == 401
    assert enter("engineer", PASSWORDS["engineer"]).status_code == 401
    assert enter("engineer", given["password"]).json()["must_change"]


def test_happenings_are_found_by_kind_and_person(administrator: Api, operator: Api, job_id: Any) -> None:
    door = f"/api/jobs/{job_id('Runner shaft')}/copy"
    operator.post(door, {})
    operator.post("/api/exchange/exports", {"table": "tools", "format": "csv"})
    page = administrator.get("/api/people/happenings?name=operator").json()
    assert [row["what"] for row in page["rows"]] == ["exported", "forbidden", "signed in"]
    assert page["rows"][1]["more"] == f"POST {door}"
    assert administrator.get("/api/people/happenings?what=exported&offset=1").json() == {"matched": 1, "rows": []}


def test_administrators_see_how_the_backups_stand(administrator: Api, operator: Api) -> None:
    def stand() -> Any:
        return administrator.get("/api/people/backups").json()

    assert operator.get("/api/people/backups").status_code == 403
    assert stand() == {"newest": None, "failed": None, "late": True}
    call_command("note_backup", "failed", "no room")
    assert stand()["failed"]["more"] == "no room"
    call_command("note_backup", "taken", "a.zip, 0.1 MB")
    found = stand()
    assert (found["newest"]["more"], found["failed"], found["late"]) == ("a.zip, 0.1 MB", None, False)
    for hours, late in ((35, False), (37, True)):  # one night may be missed
        Happening.objects.filter(what="backup taken").update(at=timezone.now() - timedelta(hours=hours))
        assert stand()["late"] == late
    call_command("note_backup", "failed", "no room")
    assert stand()["failed"]["more"] == "no room"


def test_the_first_administrator_comes_by_the_command_line_and_demo_people_go_with_the_demo(demo: None, capsys: Any) -> None:
    User.objects.filter(username="administrator").delete()
    fill_people()
    assert User.objects.filter(username="administrator").exists()
    call_command("add_person", "berta", role="administrator")
    assert "berta, administrator: " in capsys.readouterr().out
    with pytest.raises(CommandError, match="already"):
        call_command("add_person", "Berta")
    User.objects.filter(username="administrator").delete()
    fill_people()  # a shop with people of its own gets none whose passwords are printed
    assert [row.user.username for row in Preferences.objects.filter(role="administrator")] == ["berta"]


def test_panes_are_kept_within_bounds(engineer: Api) -> None:
    def prefer(panes: dict[str, int]) -> Any:
        body = json.dumps({"panes": panes})
        token = {"HTTP_X_CSRFTOKEN": engineer.token}
        return engineer.client.patch("/api/session/preferences", body, content_type="application/json", **token)

    kept = prefer({"bench scene": 240, "bench limits": 0})
    assert kept.json()["panes"] == {"bench scene": 240, "bench limits": 0}
    assert engineer.get("/api/session").json()["panes"] == {"bench scene": 240, "bench limits": 0}
    for panes in ({"bench scene": 99_999}, {"bench scene": -1}, {"<b>": 5}, {f"pane {'x' * k}": 1 for k in range(60)}):
        refused = prefer(panes)
        assert refused.status_code == 422
        assert refused.json()["errors"]
    assert engineer.get("/api/session").json()["panes"] == {"bench scene": 240, "bench limits": 0}


def test_a_name_guessed_at_from_everywhere_waits_longer_each_time_but_not_on_its_own_device(demo: None) -> None:
    own = Client(SERVER_NAME="127.0.0.1")
    assert sign_in_on(own, "engineer", PASSWORDS["engineer"], "10.9.0.1").status_code == 200
    codes = [enter("engineer", "a guess", REMOTE_ADDR=f"10.1.{n}.7").status_code for n in range(24)]
    assert set(codes[:20]) == {401}
    assert codes[-1] == 429
    waited = enter("engineer", PASSWORDS["engineer"], REMOTE_ADDR="10.2.0.1")
    assert waited.status_code == 429  # right, and yet not looked at
    assert sign_in_on(own, "engineer", PASSWORDS["engineer"], "10.9.0.2").status_code == 200
    assert enter("operator", PASSWORDS["operator"], REMOTE_ADDR="10.2.0.2").status_code == 200
    Happening.objects.filter(what="refused").update(at=timezone.now() - timedelta(seconds=40))
    assert enter("engineer", "a guess", REMOTE_ADDR="10.2.0.3").status_code == 401  # the pause is over: one more is looked at
    assert pause_of("engineer") > 1.0
    assert pause_of("nobody of that name") == 0.0


def sign_in_on(device: Client, name: str, password: str, address: str) -> Any:
    token = device.get("/api/session").json()["token"]
    body = json.dumps({"name": name, "password": password})
    return device.post("/api/session", body, content_type="application/json", HTTP_X_CSRFTOKEN=token, REMOTE_ADDR=address)
