"""Ten thousand calls of every shape at every door: how many failed on our side, how many answers were not declared."""

from __future__ import annotations

import re
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

from benchmarks.crib import Door
from benchmarks.sizes import FULL, Sizes

# what streams from a device, what would sign the caller out or lock them out
LEFT_OUT = "/record$|^/api/session$|/session/password$|/api/people/.*/(password|sessions)$|^/api/people/{person_id}$"
SAID = re.compile(r"(\d+ generated|Server error|Undocumented|in \d+[.\d]* ?s\b)")


def measure(site: str, sizes: Sizes = FULL) -> Iterator[str]:
    """Lines to print."""
    caller = Door(site)
    cookie = "; ".join(f"{one.name}={one.value}" for one in caller.jar)
    command = [
        str(Path(sys.executable).with_name("schemathesis")),
        "run",
        f"{site}/api/openapi.json",
        "--no-color",
        "--continue-on-failure",
    ]
    command += ["--header", f"Cookie: {cookie}", "--header", f"X-CSRFToken: {caller.token}", "--max-examples", str(sizes.calls)]
    command += ["--phases", "fuzzing", "--checks", "not_a_server_error,status_code_conformance", "--seed", "1"]
    command += ["--exclude-path-regex", LEFT_OUT]
    said = subprocess.run(command, capture_output=True, text=True, check=False).stdout
    yield from (
        line.strip() for line in said.splitlines() if re.search(r"(\d+ generated|Server error|Undocumented|in \d+[.\d]* ?s\b)", line)
    )
