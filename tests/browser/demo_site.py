"""A server with nothing but the demo data, for pictures and measurements."""

from __future__ import annotations

import os
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager

from house import database
from house.ground import ROOT, application_environment

NAME = "arrow_bench_demo_only"


@contextmanager
def demo_site() -> Iterator[str]:
    """The address of a fresh server as the start command runs it; gone afterwards."""
    # a database of its own name, so that no test's data and nobody's jobs are in it
    environment = application_environment({"ARROW_BENCH_DB_NAME": NAME})
    _sql(f"DROP DATABASE IF EXISTS {NAME}; CREATE DATABASE {NAME} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
    subprocess.run([sys.executable, "-m", "django", "prepare"], env=environment, cwd=ROOT, check=True)
    port = database.free_port()
    command = [
        sys.executable,
        "-m",
        "gunicorn",
        "server.served:application",
        "--no-control-socket",
        "--bind",
        f"127.0.0.1:{port}",
        "--workers",
        "2",
    ]
    more = ["--threads", "48", "--preload", "--config", "server/workers.py", "--log-level", "error"]
    server = subprocess.Popen([*command, *more], env=environment, cwd=ROOT)
    workers = subprocess.Popen([sys.executable, "-m", "django", "work"], env=environment, cwd=ROOT)
    try:
        _wait_for(f"http://127.0.0.1:{port}/alive")
        yield f"http://127.0.0.1:{port}"
    finally:
        for process in (workers, server):
            process.terminate()
            process.wait()
        _sql(f"DROP DATABASE IF EXISTS {NAME}")


def _wait_for(address: str) -> None:
    latest = time.monotonic() + 90.0  # the processes read the whole core ahead, on a machine that may be busy
    while time.monotonic() < latest:
        try:
            urllib.request.urlopen(address, timeout=1).close()
            return
        except OSError:
            time.sleep(0.05)
    raise RuntimeError(f"{address} did not answer")


def _sql(statements: str) -> None:
    host, port, user, password = (os.environ[f"ARROW_BENCH_DB_{key}"] for key in ("HOST", "PORT", "USER", "PASSWORD"))
    subprocess.run(["mariadb", "--no-defaults", f"-h{host}", f"-P{port}", f"-u{user}"], input=statements, text=True, check=True,
                   env={**os.environ, "MYSQL_PWD": password})  # fmt: skip
