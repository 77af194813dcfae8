"""A shop of a test's own: database and server in processes that can be killed."""

from __future__ import annotations

import json
import os
import signal
import subprocess
import sys
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
        self.kill_database()

    def kill_database(self) -> None:
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

    def workers(self) -> subprocess.Popen[bytes]:
        environment = application_environment(self.instance.environment())
        return subprocess.Popen([sys.executable, "-m", "django", "work"], cwd=ROOT, env=environment)

    def upload(self, text: str) -> int:
        edge = "----durable"
        body = f'--{edge}\r\nContent-Disposition: form-data; name="file"; filename="a.csv"\r\n\r\n{text}\r\n--{edge}--\r\n'
        headers = {"Content-Type": f"multipart/form-data; boundary={edge}", "X-CSRFToken": self.token}
        address = f"http://127.0.0.1:{self.port}/api/exchange/imports"
        with self.opener.open(urllib.request.Request(address, body.encode(), headers), timeout=30) as answer:
            return int(json.load(answer)["id"])

    def wait(self, run: int, state: str, seconds: float = 40) -> None:
        deadline = time.monotonic() + seconds
        while (found := self.ask(f"/api/exchange/runs/{run}"))["state"] != state:
            assert time.monotonic() < deadline, found
            assert found["state"] in ("waiting", "running"), found
            time.sleep(0.1)

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
