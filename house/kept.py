"""Small texts that are made once and kept: a key, a password."""

from __future__ import annotations

import fcntl
import os
from collections.abc import Callable
from pathlib import Path


def kept(file: Path, make: Callable[[], str]) -> str:
    """The text in `file`, made where there is none yet and readable by its owner alone.

    Several processes start at once on a fresh machine: the first makes it, the others wait and read the same.
    """
    file.parent.mkdir(parents=True, exist_ok=True)
    with open(file, "a+", opener=lambda path, flags: os.open(path, flags, 0o600)) as held:
        fcntl.flock(held, fcntl.LOCK_EX)
        held.seek(0)
        if text := held.read().strip():
            return text
        text = make()
        held.write(text)
        held.flush()
        os.fsync(held.fileno())
        return text
