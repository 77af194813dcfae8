"""Whose question is answered when: of one hand the newest, of all hands one heavy question at a time in each process, in order.

A hand on an arrow key asks faster than a ranking is made. What it asked before nobody reads any more, and it would hold up the others.
Of all processes as many are at a heavy question as the machine has cores: quick ones find room beside them.
"""

from __future__ import annotations

import fcntl
import os
import random
import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager

from django.http import HttpRequest

from server.errors import Refusal

LONGEST = 0.02  # s that quick questions may keep a heavy one waiting
LOOK_EVERY = 0.005  # s
PLACES = os.cpu_count() or 1
_places = tempfile.TemporaryFile()  # noqa: SIM115 - a byte for each place, locked by who has it; made before the workers part, it is theirs
_lock = threading.Lock()
_line: dict[str, _Question] = {}  # who waits, in the order in which they came, with the newest question of each
_busy = False
_quick = 0


class _Question:
    """A heavy question that waits; only who is next or replaced is woken."""

    def __init__(self) -> None:
        self.decided = threading.Event()
        self.replaced = False


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


@contextmanager
def turn(request: HttpRequest, what: str = "") -> Iterator[None]:
    """Wait for one's turn; raises a 409 refusal where the same page has asked for the same anew meanwhile."""
    global _busy
    hand, mine = f"{request.session.session_key} {request.headers.get('X-Page', '')} {what}", _Question()
    with _lock:
        if older := _line.get(hand):
            older.replaced = True
            older.decided.set()
        _line[hand] = mine  # at the place of the question that it replaces
        _begin_next()
    mine.decided.wait()
    if mine.replaced:
        raise Refusal(409, "A newer question of yours is being answered.", superseded=True)
    try:
        _let_pass()
        with _place():
            yield
    finally:
        with _lock:
            _busy = False
            _begin_next()


def _begin_next() -> None:
    """Let the first of the line begin, where nobody is at it; the lock is held."""
    global _busy
    if _line and not _busy:
        _busy = True
        _line.pop(next(iter(_line))).decided.set()


def _let_pass() -> None:
    until = time.monotonic() + LONGEST
    while _quick and time.monotonic() < until:
        time.sleep(LOOK_EVERY)


@contextmanager
def _place() -> Iterator[None]:
    """One of the machine's places: a process that is killed gives its own up by that."""
    order = random.sample(range(PLACES), PLACES)
    while (mine := next((place for place in order if _taken(place)), None)) is None:
        time.sleep(LOOK_EVERY)
    try:
        yield
    finally:
        fcntl.lockf(_places, fcntl.LOCK_UN, 1, mine)


def _taken(place: int) -> bool:
    try:
        fcntl.lockf(_places, fcntl.LOCK_EX | fcntl.LOCK_NB, 1, place)
    except OSError:
        return False
    return True
