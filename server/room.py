"""Whether the database has room to write: learnt from what it refuses, for it may lie on another machine."""

from __future__ import annotations

import time

from django.db import DatabaseError

FULL = {1021, 1114, 1026, 3}  # MariaDB's numbers: disk full, table full, errors of writing a file
SAID = "The disk of the database is full. Nothing was saved by this request, and nothing typed is lost: who sees to the server makes room."
FOR = 60.0  # s that a refusal is held to be the state of things
_refused = -FOR


def is_full(error: DatabaseError) -> bool:
    """Whether this is the refusal of a full disk; it is remembered."""
    global _refused
    full = bool(error.args) and error.args[0] in FULL
    if full:
        _refused = time.monotonic()
    return full


def there_is() -> bool:
    """Whether nothing was refused for want of room of late."""
    return time.monotonic() - _refused > FOR
