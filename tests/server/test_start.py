"""The one command says what is wrong in one sentence."""

from __future__ import annotations

import socket
import subprocess
import sys
from pathlib import Path

import pytest

from house import commands, database, packages
from house.ground import ROOT, VAR, SetupProblem


def bench(*arguments: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run([sys.executable, str(ROOT / "bench"), *arguments], capture_output=True, text=True, timeout=60, check=False)


def test_a_port_in_use_is_one_sentence() -> None:
    with socket.socket() as taken:
        taken.bind(("127.0.0.1", 0))
        taken.listen()
        port = taken.getsockname()[1]
        done = bench("start", "--port", str(port))
    assert done.returncode == 1
    assert f"Port {port} is in use" in done.stderr
    assert "Traceback" not in done.stderr


def test_an_impossible_port_is_one_sentence() -> None:
    done = bench("start", "--port", "70000")
    assert done.returncode == 1
    assert "choose one from 1 to 65535" in done.stderr


def test_a_second_start_in_one_folder_says_who_holds_it(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(packages, "ensure_everything", lambda: None)
    monkeypatch.setattr(database, "claim", pytest.fail)  # nothing is touched
    monkeypatch.setattr(database, "owner", lambda instance: (4711, "python3 ./bench start --port 8321"))
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    with pytest.raises(SetupProblem, match="process 4711"):
        commands.start(port)


def test_who_runs_the_instance_is_known_while_it_lives(tmp_path: Path) -> None:
    instance = database.Instance(VAR / "test-database")
    there = database.owner(instance)  # the run of these tests
    assert there is not None
    assert "bench" in there[1]
    assert database.owner(database.Instance(tmp_path)) is None


def test_unknown_commands_are_refused() -> None:
    assert bench("explode").returncode == 2
