"""What a kept answer stands on: what computes it, what the shop has, and what was asked. Where one of them is another, it is made anew."""

from __future__ import annotations

import hashlib
import json
from functools import cache
from typing import Any

from django.conf import settings

ROOMS = ("cutting", "server")


@cache
def release() -> str:
    """Names everything that computes and words answers: what another release kept is not shown for this one's."""
    digest = hashlib.sha256()
    for room in ROOMS:
        for file in sorted((settings.ROOT / room).rglob("*")):
            if file.is_file() and "__pycache__" not in file.parts:
                digest.update(f"{file.relative_to(settings.ROOT)}\0".encode() + file.read_bytes())
    return digest.hexdigest()


def key_of(*stands_on: Any) -> str:
    """The key of an answer that stands on these values and on the release."""
    return hashlib.sha256(json.dumps([release(), *stands_on], sort_keys=True).encode()).hexdigest()
