"""The second factor: a code of the device's clock opens once, a recovery code once, and a role may be asked to have one."""

from __future__ import annotations

import re
from datetime import timedelta
from typing import Any

import pyotp
import pytest
from django.contrib.auth.models import User
from django.test import override_settings
from django.utils import timezone

from server.people import factor
from server.people.models import Happening, SecondFactor
from tests.server.conftest import PASSWORDS, Api

NAME = "engineer"


def enter(code: str = "", name: str = NAME) -> Any:
    return Api(None).post("/api/session", {"name": name, "password": PASSWORDS[name], "code": code})


def clock_of(who: Api) -> pyotp.TOTP:
    """A device that shares a new secret with the bench, confirmed with a code of a minute ago's step."""
    begun = who.post("/api/session/factor", {}).json()
    assert begun["address"].startswith("otpauth://totp/Arrow%20Bench:engineer?secret=")
    assert begun["picture"].startswith("data:image/svg+xml")
    return pyotp.TOTP(begun["secret"])


def test_a_code_opens_once_and_a_recovery_code_once(engineer: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    clock = clock_of(engineer)
    assert enter().status_code == 200  # nothing is asked before it is confirmed
    wrong = engineer.post("/api/session/factor/confirm", {"code": "000000"})
    assert wrong.status_code == 422
    codes = engineer.post("/api/session/factor/confirm", {"code": clock.now()}).json()["codes"]
    assert len(set(codes)) == 8
    assert all(re.fullmatch(r"[a-z2-9]{10}", one) for one in codes)
    asked = enter()
    assert (asked.status_code, asked.json()["errors"][0]["field"]) == (401, "code")
    assert enter(clock.now()).status_code == 401  # it was used to confirm
    later = timezone.now() + timedelta(seconds=60)
    monkeypatch.setattr("server.people.factor.timezone.now", lambda: later)
    assert enter(clock.at(later)).status_code == 200
    assert enter(clock.at(later)).status_code == 401  # once
    assert enter(clock.at(later + timedelta(minutes=5))).status_code == 401
    spoken = f"{codes[3][:5]} {codes[3][5:]}".upper()
    assert enter(spoken).status_code == 200
    assert enter(codes[3]).status_code == 401
    assert engineer.get("/api/session/factor").json() == {"on": True, "wanted": False, "left": 7}
    assert Happening.objects.filter(what="refused", more="second factor").count() == 4
    assert not any(one in str(list(SecondFactor.objects.values_list("recovery", flat=True))) for one in codes)


def test_it_is_taken_away_with_a_code_only(engineer: Api) -> None:
    clock = clock_of(engineer)
    codes = engineer.post("/api/session/factor/confirm", {"code": clock.now()}).json()["codes"]
    assert engineer.post("/api/session/factor/drop", {"code": "123456"}).status_code == 422
    assert engineer.post("/api/session/factor/drop", {"code": codes[0]}).json()["on"] is False
    assert enter().status_code == 200


def test_another_device_needs_a_code_of_the_one_before_and_a_given_password_takes_it_away(engineer: Api) -> None:
    codes = engineer.post("/api/session/factor/confirm", {"code": clock_of(engineer).now()}).json()["codes"]
    assert engineer.post("/api/session/factor", {}).status_code == 422  # whoever finds a page open does not get in for good
    assert engineer.post("/api/session/factor", {"code": codes[0]}).status_code == 200
    assert enter().status_code == 401  # the one before still counts
    administrator = Api("administrator")
    who = User.objects.get(username=NAME)
    given = administrator.post(f"/api/people/{who.pk}/password", {}).json()["password"]
    assert Api(None).post("/api/session", {"name": NAME, "password": given}).status_code == 200


def test_a_role_is_asked_to_have_one_before_anything_else(engineer: Api, operator: Api) -> None:
    with override_settings(FACTOR_ROLES=("engineer",)):
        assert engineer.get("/api/jobs").status_code == 403
        assert engineer.get("/api/session").json()["must_have_factor"]
        assert operator.get("/api/jobs").status_code == 200
        engineer.post("/api/session/factor/confirm", {"code": clock_of(engineer).now()})
        assert engineer.get("/api/jobs").status_code == 200


def test_the_codes_are_those_of_the_standard() -> None:
    """RFC 6238, appendix B, SHA-1, 8 digits cut to 6: T = 59 s gives 94287082, T = 1111111109 s gives 07081804."""
    clock = pyotp.TOTP("GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ")
    assert (clock.at(59), clock.at(1_111_111_109)) == ("287082", "081804")
    assert factor.STEP == 30
