"""What was shown as saved survives a kill of the server and of the database."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
import threading
import time
import urllib.request
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any

import pytest

from house import database
from house.ground import ROOT, application_environment
from server.people.demo_people import PEOPLE


class Shop:
    """A shop of its own: database instance and server, both of which can be killed."""

    def __init__(self, folder: Path) -> None:
        self.instance = database.Instance(folder / "database")
        self.port = database.free_port()
        self.server: subprocess.Popen[bytes] | None = None
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))
        self.token = ""

    def start(self, prepare: bool) -> None:
        database.start(self.instance)
        environment = application_environment(self.instance.environment())
        if prepare:
            subprocess.run([sys.executable, "-m", "django", "prepare"], cwd=ROOT, env=environment, check=True, capture_output=True)
        command = [
            sys.executable,
            "-m",
            "gunicorn",
            "server.wsgi:application",
            "--no-control-socket",
            "--bind",
            f"127.0.0.1:{self.port}",
            "--workers",
            "1",
            "--threads",
            "4",
            "--log-level",
            "critical",
        ]
        self.server = subprocess.Popen(command, cwd=ROOT, env=environment, start_new_session=True, stderr=subprocess.DEVNULL)
        for _ in range(200):
            try:
                self.ask("/alive")
                return
            except OSError:
                time.sleep(0.05)
        raise AssertionError("the server did not come up")

    def kill(self) -> None:
        assert self.server is not None
        os.killpg(self.server.pid, signal.SIGKILL)
        self.server.wait()
        pid = database.running_pid(self.instance)
        assert pid is not None
        os.kill(pid, signal.SIGKILL)
        while database.running_pid(self.instance) is not None:
            try:
                os.waitpid(pid, os.WNOHANG)
            except ChildProcessError:
                break
            time.sleep(0.02)

    def ask(self, path: str, data: Any = None) -> Any:
        request = urllib.request.Request(
            f"http://127.0.0.1:{self.port}{path}",
            method="POST" if data is not None else "GET",
            data=None if data is None else json.dumps(data).encode(),
            headers={"Content-Type": "application/json", "X-CSRFToken": self.token},
        )
        with self.opener.open(request, timeout=10) as answer:
            return json.load(answer)

    def sign_in(self) -> None:
        self.token = self.ask("/api/session")["token"]
        name, password, _ = PEOPLE[0]
        self.token = self.ask("/api/session", {"name": name, "password": password})["token"]


@pytest.fixture
def shop(tmp_path: Path) -> Any:
    made = Shop(tmp_path)
    yield made
    if made.server and made.server.poll() is None:
        os.killpg(made.server.pid, signal.SIGKILL)
    database.stop(made.instance)


def test_nothing_shown_as_saved_is_lost_by_a_kill(shop: Shop) -> None:
    shop.start(prepare=True)
    shop.sign_in()
    job = shop.ask("/api/jobs")[0]["id"]
    confirmed: list[int] = []

    def save_without_pause() -> None:
        revision = 1
        while True:
            feed = f"{0.1 + revision % 10 / 100:.2f} mm/rev"
            edit = {"action": "set_settings", "operation": "op10", "settings": {"feed_per_rev": feed}}
            try:
                answer = shop.ask(f"/api/jobs/{job}/edits", {"base_revision": revision, "edit": edit})
            except OSError:
                return
            revision = answer["revision"]
            confirmed.append(revision)

    worker = threading.Thread(target=save_without_pause)
    worker.start()
    deadline = time.monotonic() + 20
    while len(confirmed) < 8 and time.monotonic() < deadline:
        time.sleep(0.01)
    shop.kill()
    worker.join(timeout=20)
    assert len(confirmed) >= 8

    shop.start(prepare=False)
    shop.sign_in()
    found = shop.ask(f"/api/jobs/{job}")
    # the one in flight may or may not have been written; every confirmed one is there, whole
    assert confirmed[-1] <= found["revision"] <= confirmed[-1] + 1
    numbers = [row["number"] for row in shop.ask(f"/api/jobs/{job}/revisions")]
    assert numbers == list(range(found["revision"], 0, -1))
    expected = f"{0.1 + (found['revision'] - 1) % 10 / 100:.2f} mm/rev"
    assert found["document"]["operations"][0]["settings"]["feed_per_rev"] == expected


def test_a_broken_database_folder_is_one_sentence(tmp_path: Path) -> None:
    from house.ground import SetupProblem

    broken = database.Instance(tmp_path / "database")
    broken.data.mkdir(parents=True)
    (broken.data / "ibdata1").write_bytes(b"not a database")
    with pytest.raises(SetupProblem, match=r"is broken.*backup"):
        database.start(broken)
