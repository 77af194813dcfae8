"""Hostile bodies and hostile physics: refused by name, at every door, before anything else sees them."""

from __future__ import annotations

import json
from collections.abc import Callable
from contextlib import suppress
from typing import Any

import pytest
from django.core.exceptions import ValidationError
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from server.people.passwords import HardToGuess
from server.strict import Unreadable, strict_json
from tests.server.conftest import Api
from tests.server.test_contract import DOCUMENT, FILES, doors, filled

JobId = Callable[[str], int]
BODIES = (
    b'{"a":"\\ud800"}', b'{"\\udfff":1}', b"NaN", b'{"x":NaN}', b'{"x":-Infinity}', b'{"x":' + b"9" * 5000 + b"}", b'{"x":1e999}',
    b"\xff\xfe{}", b"[" * 100_000, b'{"a":' * 200 + b"1" + b"}" * 200, b"null", b'"text"',
)  # fmt: skip
HUGE = ("1e300", "-1e300", "1e999", "-5", "NaN", "9" * 400)


@pytest.mark.parametrize("body", BODIES, ids=lambda body: body[:12].decode(errors="replace"))
def test_a_body_that_is_no_json_object_is_refused_at_every_door(engineer: Api, job_id: JobId, body: bytes) -> None:
    job = job_id("Runner shaft")
    for method, path in doors():
        if method in ("post", "put", "patch") and not path.endswith(FILES) and "requestBody" in DOCUMENT["paths"][path][method]:
            answer = getattr(engineer.client, method)(filled(path, job), body, content_type="application/json")
            assert answer.status_code in (400, 403, 404, 422), (method, path, answer.status_code)


def test_a_form_with_parts_is_opened_only_where_a_file_is_taken(engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    for method, path in doors():
        if method == "post" and not path.endswith(FILES):
            answer = engineer.client.post(filled(path, job), b"--x\r\nbroken", content_type="multipart/form-data; boundary=x")
            assert answer.status_code == 415, path


VALUES = st.recursive(
    st.none() | st.booleans() | st.integers() | st.floats() | st.text(), lambda of: st.lists(of) | st.dictionaries(st.text(), of)
)


@given(VALUES)
@settings(max_examples=150, suppress_health_check=[HealthCheck.too_slow])
def test_what_the_reader_takes_can_be_kept_and_what_it_refuses_says_why(data: Any) -> None:
    with suppress(Unreadable):
        found = strict_json(json.dumps(data))
        assert strict_json(json.dumps(found, allow_nan=False)) == found
        assert json.dumps(found, ensure_ascii=False).encode()  # no half letters
        return
    assert any(word in json.dumps(data) for word in ("NaN", "Infinity", "\\ud")) or len(json.dumps(data)) > 60


@pytest.mark.parametrize("typed", HUGE)
def test_no_number_beyond_physics_is_kept_whatever_its_section(engineer: Api, job_id: JobId, typed: str) -> None:
    job = job_id("Runner shaft")
    base = engineer.get(f"/api/jobs/{job}").json()["revision"]
    for section, name in (
        ("holding", "steady"), ("holding", "free_length"), ("holding", "bore"), ("holding", "face"), ("holding", "grip_diameter"),
        ("feature", "grinding_allowance"), ("feature", "length"), ("settings", "pass_depths"), ("settings", "feed_per_rev"),
    ):  # fmt: skip
        answer = engineer.edit(job, base, action="set_settings", operation="op30", **{section: {name: typed}})
        assert answer.status_code == 422, (section, name, typed)
        assert answer.json()["errors"][0]["field"]
    for hardness in (0, 99_999, -5, "0 HB"):
        assert engineer.edit(job, base, action="set_part", hardness=hardness).status_code == 422
    assert engineer.get(f"/api/jobs/{job}").json()["revision"] == base


@pytest.mark.parametrize("name", ["   ", "\u200b\u200b", "\u202eabc", "a\x00b", "\u2066x"])
def test_a_name_can_be_seen(engineer: Api, job_id: JobId, name: str) -> None:
    job = job_id("Runner shaft")
    assert engineer.edit(job, 1, action="set_part", name=name).status_code == 422
    new = {"name": name, "material": "C45", "machine": "two-axis lathe", "diameter": "20", "free_length": "60"}
    assert engineer.post("/api/jobs", new).status_code == 422


def test_a_key_belongs_to_one_body(engineer: Api, job_id: JobId) -> None:
    path = f"/api/jobs/{job_id('Runner shaft')}/notes"
    key = {"HTTP_IDEMPOTENCY_KEY": "one-key-of-mine"}
    first = engineer.post(path, {"text": "first"}, **key)
    assert engineer.post(path, {"text": "first"}, **key).json() == first.json()
    other = engineer.post(path, {"text": "second"}, **key)
    assert other.status_code == 422
    assert len(engineer.get(path).json()) == 1


@pytest.mark.parametrize("password", ["123456789012", "aaaaaaaaaaaa", "Password1234!", "qwertyuiopas", "arrowbench12"])
def test_a_password_that_is_guessed_soon_is_refused_with_its_reason(password: str) -> None:
    with pytest.raises(ValidationError, match="guessed soon"):
        HardToGuess().validate(password)
    HardToGuess().validate("look at the chip first")
