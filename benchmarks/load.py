"""Fifty people at human pace on this machine's cores, the measuring program among them."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

from benchmarks.sizes import Sizes

LONGEST_ARRIVAL = 180  # s
CALLS = ("evaluate", "follow", "save", "search the crib")


def measure(site: str, sizes: Sizes) -> Iterator[str]:
    """Lines to print."""
    yield from _lines(_run(site, sizes.people, sizes.load_seconds), sizes.people)


def _run(site: str, people: int, seconds: int) -> list[dict[str, object]]:
    command = [sys.executable, "-m", "locust", "-f", str(Path(__file__).with_name("people.py")), "--headless", "--json"]
    longest = f"{seconds + LONGEST_ARRIVAL}s"
    more = ["-u", str(people), "-r", "2", "-t", longest, "--host", site, "--loglevel", "ERROR"]
    environment = {**os.environ, "LOAD_SECONDS": str(seconds)}
    done = subprocess.run([*command, *more], capture_output=True, text=True, check=False, env=environment)
    return list(json.loads(done.stdout))


def _lines(found: list[dict[str, object]], people: int) -> Iterator[str]:
    for name in CALLS:
        for row in (row for row in found if row["name"] == name):
            times = {int(float(ms)): int(count) for ms, count in dict(row["response_times"]).items()}  # type: ignore[call-overload]
            each = sorted(ms for ms, count in times.items() for _ in range(count))
            p = [each[min(int(len(each) * share), len(each) - 1)] for share in (0.5, 0.95)]
            yield f"{people} people, {name}: {len(each)} calls, median {p[0]} ms, 95 % {p[1]} ms, {row['num_failures']} failed"
