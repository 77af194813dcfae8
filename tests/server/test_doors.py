"""The edges of the server: sign-in, bad requests, headers, generated documents, production settings."""

from __future__ import annotations

import json
import os
import re
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from django.db import OperationalError, connection
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from house import database, packages
from server.people.management.commands.write_openapi import openapi_text
from tests.server.conftest import Api

ROOT = Path(__file__).parents[2]


def test_nobody_gets_nothing(nobody: Api) -> None:
    for path in ("/api/jobs", "/api/crib/tools", "/api/shelf/materials", "/api/floor/machines"):
        answer = nobody.get(path)
        assert answer.status_code == 401
        assert answer["Content-Type"] == "application/problem+json"
    wrong = nobody.post("/api/session", {"name": "engineer", "password": "guess"})
    assert wrong.status_code == 401
    assert "engineer" not in wrong.json()["title"]


def test_sign_in_keeps_preferences_and_sign_out_ends_it(engineer: Api) -> None:
    changed = engineer.client.patch(
        "/api/session/preferences",
        json.dumps({"units": "inch", "theme": "dark"}),
        content_type="application/json",
        HTTP_X_CSRFTOKEN=engineer.token,
    )
    assert (changed.json()["units"], changed.json()["theme"]) == ("inch", "dark")
    assert Api("engineer").get("/api/session").json()["units"] == "inch"
    assert engineer.client.delete("/api/session", HTTP_X_CSRFTOKEN=engineer.token).status_code == 204
    assert engineer.get("/api/jobs").status_code == 401


@pytest.mark.parametrize(
    ("body", "status"),
    [
        ("{", 400),
        ("", 422),
        ('{"base_revision": NaN, "edit": {}}', 400),
        ("[]", 400),
        ("3", 400),
        ('{"base_revision": 1e999, "edit": {}}', 400),
        ('{"base_revision": 1, "edit": {"action": "explode"}}', 422),
        ("[" * 100_000, 400),
        ('{"base_revision": "\\ud800"}', 400),  # half a letter is no text, whatever the field wants
    ],
)
def test_broken_bodies_are_problems(engineer: Api, job_id: Any, body: str, status: int) -> None:
    answer = engineer.post(f"/api/jobs/{job_id('Runner shaft')}/edits", body)
    assert answer.status_code == status
    assert answer["Content-Type"] == "application/problem+json"
    assert "Traceback" not in answer.content.decode()


@pytest.mark.parametrize("path", ["/api/jobs/999999", "/api/nowhere", "/api/shelf/materials/unobtainium", "/nowhere"])
def test_missing_things_are_problems(engineer: Api, path: str) -> None:
    answer = engineer.get(path)
    assert answer.status_code == 404
    assert answer["Content-Type"] == "application/problem+json"


def test_a_request_without_a_token_is_refused(engineer: Api) -> None:
    answer = engineer.client.post("/api/jobs/1/undo", '{"base_revision": 1}', content_type="application/json")
    assert answer.status_code == 403
    assert answer["Content-Type"] == "application/problem+json"


VALUES = st.one_of(
    st.none(),
    st.booleans(),
    st.floats(allow_nan=False, allow_infinity=False),
    st.integers(),
    st.text(max_size=12),
    st.sampled_from(["0", "-1", "1e308", "1/0 in", "NaN", "0.3 mm/rev"]),
)


@settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    name=st.sampled_from(["cutting_speed", "feed_per_rev", "depth_of_cut", "overhang", "spindle_clamp", "coolant"]),
    value=VALUES,
    holding=st.dictionaries(st.sampled_from(["free_length", "grip_diameter", "bore", "grip_share", "style", "weak"]), VALUES, max_size=2),
)
def test_no_value_breaks_the_live_loop(engineer: Api, job_id: Any, name: str, value: Any, holding: dict[str, Any]) -> None:
    """Whatever is typed: an answer, or a clear refusal; never a failure."""
    path = f"/api/jobs/{job_id('Runner shaft')}/operations/op30/evaluate"
    answer = engineer.post(path, {"settings": {name: value}, "holding": holding})
    assert answer.status_code in (200, 422), answer.content
    if answer.status_code == 422:
        assert answer.json()["title"]


def test_the_page_allows_no_inline_anything(nobody: Api) -> None:
    page = nobody.get("/")
    policy = page["Content-Security-Policy"]
    assert "script-src 'self'" in policy
    assert "style-src 'self'" in policy
    assert "unsafe" not in policy
    html = page.content.decode()
    assert not re.search(r"<script(?![^>]*\ssrc=)[^>]*>|<style|\sstyle=|\son\w+=", html)
    assert page["X-Frame-Options"] == "DENY"


def test_lookups_find_what_people_say(engineer: Api) -> None:
    assert engineer.get("/api/shelf/materials?q=4140").json()["rows"][0]["name"].startswith("42CrMo4")
    assert len(engineer.get("/api/floor/machines").json()) == 7
    assert engineer.get("/api/shelf/materials/C45").json()["speeds"]


def test_the_openapi_document_is_current() -> None:
    assert (ROOT / "web" / "openapi.json").read_text(encoding="utf-8") == openapi_text(), "run ./bench types"


def test_the_typescript_types_are_current(tmp_path: Path) -> None:
    made = tmp_path / "schema.ts"
    command = [*packages.npm_command(), "exec", "--", "openapi-typescript", "openapi.json", "--default-non-nullable=false", "-o", str(made)]
    subprocess.run(command, cwd=ROOT / "web", env=packages.npm_environment(), check=True, capture_output=True)
    assert made.read_text() == (ROOT / "web" / "src" / "api" / "schema.ts").read_text(), "run ./bench types"


def test_production_settings_pass_the_deployment_check() -> None:
    environment = os.environ | {"DJANGO_SETTINGS_MODULE": "server.settings.production", "ARROW_BENCH_SECRET_KEY": "k" * 25 + "Q7_x" * 10}
    done = subprocess.run(
        [sys.executable, "-m", "django", "check", "--deploy", "--fail-level", "WARNING"],
        cwd=ROOT,
        env=environment,
        capture_output=True,
        text=True,
        check=False,
    )
    assert done.returncode == 0, done.stderr


def test_no_secret_lies_in_the_repository() -> None:
    tracked = subprocess.run(["git", "ls-files"], cwd=ROOT, capture_output=True, text=True, check=True).stdout
    assert "secret" not in tracked
    assert "var/" not in tracked


def test_the_document_of_the_doors_is_for_insiders_where_the_shop_has_it_so(nobody: Api, operator: Api, settings: Any) -> None:
    assert nobody.get("/api/openapi.json").status_code == 200
    settings.OPENAPI_TO_ALL = False
    assert [who.get("/api/openapi.json").status_code for who in (nobody, operator)] == [401, 200]


def test_the_database_account_rules_its_own_databases_and_nothing_else(db: None) -> None:
    with connection.cursor() as cursor:
        cursor.execute("SHOW GRANTS")
        grants = [row[0] for row in cursor.fetchall()]
        assert not [one for one in grants if "*.*" in one and not one.startswith("GRANT USAGE")]
        assert any(r"`%arrow\_bench%`.*" in one for one in grants)
        for forbidden in ("SELECT * FROM mysql.global_priv", "SELECT 1 INTO OUTFILE '/tmp/arrow-bench-leak'", "CREATE DATABASE elsewhere"):
            with pytest.raises(OperationalError, match="denied"):
                cursor.execute(forbidden)
        cursor.execute("SELECT @@local_infile, @@secure_file_priv <> ''")
        assert cursor.fetchone() == (0, 1)


def test_an_instance_of_an_earlier_release_loses_its_rights_on_the_server(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    instance = database.Instance(tmp_path / "database")

    def grants() -> str:
        command = ["mariadb", "--no-defaults", "--host=127.0.0.1", f"--port={instance.port}", f"--user={database.USER}", "-N"]
        environment = os.environ | {"MYSQL_PWD": instance.password}
        return subprocess.run(command, input="SHOW GRANTS", text=True, capture_output=True, check=True, env=environment).stdout

    try:
        with monkeypatch.context() as earlier:
            earlier.setattr(database, "RIGHTS", f"GRANT ALL PRIVILEGES ON *.* TO '{database.USER}'@'127.0.0.1'")
            database.start(instance)
            assert "ALL PRIVILEGES ON *.*" in grants()
        for _ in range(2):  # once to mend it, once to find it mended
            database.start(instance)
            assert "GRANT USAGE ON *.*" in grants()
            assert r"ALL PRIVILEGES ON `%arrow\_bench%`.*" in grants().replace("\\\\", "\\")
    finally:
        database.stop(instance)


def test_every_refusal_has_the_one_form_also_before_a_door_is_reached(engineer: Api) -> None:
    damaged = {"content_type": "multipart/form-data", "HTTP_X_CSRFTOKEN": engineer.token}  # no boundary
    form = engineer.client.post("/api/jobs/file", b"x", **damaged)
    elsewhere = engineer.client.post("/api/jobs", b"x", **damaged)  # where no file is taken
    assert (elsewhere.status_code, elsewhere.json()["status"]) == (415, 415)
    refused = {400: form, 405: engineer.client.put("/api/jobs"), 414: engineer.get("/api/jobs?" + "x" * 4000)}
    plain = engineer.client.post("/api/jobs", b"{}", content_type="text/plain", HTTP_X_CSRFTOKEN=engineer.token)
    for status, answer in (refused | {415: plain}).items():
        assert (answer.status_code, answer["Content-Type"], answer.json()["status"]) == (status, "application/problem+json", status)
    assert "GET" in refused[405]["Allow"]


def test_help_tells_terms_limits_and_pages(operator: Api) -> None:
    told = operator.get("/api/help?kind=drill&words=flute").json()
    assert told["limits"][0]["name"] == "flute packing"
    assert operator.get("/api/help?kind=nothing").status_code == 404
    page = operator.get("/api/help/good-sense").json()
    assert page["title"]
    assert "<ol>" in page["html"]
    assert not re.findall(r'href="(?!#/help/)', page["html"]), "no link leaves the application"
    assert operator.get("/api/help/..%2Fsecurity").status_code == 404
    assert operator.get("/api/help/security").status_code == 404
