"""Whose question is answered when: of one hand the newest, of all hands one heavy question at a time in each process.

A hand on an arrow key asks faster than a ranking is made. What it asked before nobody reads any more, and it would hold up the others.
"""

from __future__ import annotations

import itertools
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager

from django.http import HttpRequest

from server.errors import Refusal

LOOK_EVERY = 0.02  # s between two looks whether a newer question has come
LONGEST = 0.5  # s that quick questions may keep a heavy one waiting
_free = threading.Semaphore(1)
_numbers = itertools.count()
_newest: dict[str, int] = {}


_lock = threading.Lock()
_quick = 0


@contextmanager
def quick() -> Iterator[None]:
    """A nudge: while one is being answered no heavy question begins."""
    global _quick
    with _lock:
        _quick += 1
    try:
        yield
    finally:
        with _lock:
            _quick -= 1


def _let_pass() -> None:
    until = time.monotonic() + LONGEST
    while _quick and time.monotonic() < until:
        time.sleep(LOOK_EVERY / 4)


@contextmanager
def turn(request: HttpRequest) -> Iterator[None]:
    """Wait for one's turn; raises a 409 refusal where the same page has asked anew meanwhile."""
    hand = f"{request.session.session_key} {request.headers.get('X-Page', '')}"
    mine = _newest[hand] = next(_numbers)
    try:
        while not _free.acquire(timeout=LOOK_EVERY):
            if _newest.get(hand) != mine:
                raise Refusal(409, "A newer question of yours is being answered.", superseded=True)
        try:
            _let_pass()
            yield
        finally:
            _free.release()
    finally:
        if _newest.get(hand) == mine:
            del _newest[hand]
