"""Folders, progress lines and the one kind of failure that a person is shown."""

from __future__ import annotations

import os
import subprocess
import sys
import time
from collections.abc import Mapping, Sequence
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
VAR = Path(os.environ.get("ARROW_BENCH_VAR", ROOT / "var"))
VENV = VAR / "venv"
PYTHON = VENV / "bin" / "python"
WEB = ROOT / "web"
LOGS = VAR / "logs"


def keep_private() -> None:
    """What lies under var/ is for the one who runs the application: data, logs, keys."""
    os.umask(0o077)
    VAR.mkdir(parents=True, exist_ok=True)
    VAR.chmod(0o700)
    for file in LOGS.glob("*"):  # of releases before
        file.chmod(0o600)


class SetupProblem(Exception):
    """Something outside the program stops it; the text is one sentence for a person."""


def say(text: str) -> None:
    print(f"  {text}", file=sys.stderr, flush=True)


def run_logged(what: str, command: Sequence[str | Path], sentence: str, **options: object) -> None:
    """Run a set-up step with its output in a log; on failure raise `sentence` and name the log."""
    LOGS.mkdir(parents=True, exist_ok=True)
    log = LOGS / (what.split(" ")[0].lower().strip(",:") + ".log")
    started = time.monotonic()
    print(f"  {what} ... ", end="", file=sys.stderr, flush=True)
    with log.open("ab") as out:
        try:
            done = subprocess.run(
                [str(part) for part in command],
                stdout=out,
                stderr=subprocess.STDOUT,
                stdin=subprocess.DEVNULL,
                **options,  # type: ignore[call-overload]
            )
        except FileNotFoundError as error:
            print("failed", file=sys.stderr)
            raise SetupProblem(f"{sentence} ({error.filename} is not on this machine.)") from error
    if done.returncode:
        print("failed", file=sys.stderr)
        raise SetupProblem(f"{sentence} Details: {log}")
    print(f"{time.monotonic() - started:.0f} s", file=sys.stderr, flush=True)


def application_environment(extra: Mapping[str, str] | None = None) -> dict[str, str]:
    """The environment of our own processes: the repository on the path and nothing surprising."""
    environment = dict(os.environ)
    environment["PYTHONPATH"] = str(ROOT)
    environment["DJANGO_SETTINGS_MODULE"] = environment.get("DJANGO_SETTINGS_MODULE", "server.settings.loopback")
    environment["PYTHONUNBUFFERED"] = "1"
    environment.setdefault("OMP_NUM_THREADS", "1")
    environment.setdefault("OPENBLAS_NUM_THREADS", "1")
    environment.update(extra or {})
    return environment
