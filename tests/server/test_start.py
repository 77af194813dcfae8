"""The one command says what is wrong in one sentence."""

from __future__ import annotations

import socket
import subprocess
import sys

from house.ground import ROOT


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


def test_unknown_commands_are_refused() -> None:
    assert bench("explode").returncode == 2
