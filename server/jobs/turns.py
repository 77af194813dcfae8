"""Whose question is answered when: of one hand the newest, of all hands one heavy question at a time in each process, in order.

A hand on an arrow key asks faster than a ranking is made. What it asked before nobody reads any more, and it would hold up the others.
"""

from __future__ import annotations

import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager

from django.http import HttpRequest

from server.errors import Refusal

LONGEST = 0.5  # s that quick questions may keep a heavy one waiting
LOOK_EVERY = 0.005  # s
_moved = threading.Condition()
_line: dict[str, object] = {}  # who waits, in the order in which they came: the hand, and its newest question
_busy = False
_quick = 0


@contextmanager
def quick() -> Iterator[None]:
    """A nudge: while one is being answered no heavy question begins."""
    global _quick
    with _moved:
        _quick += 1
    try:
        yield
    finally:
        with _moved:
            _quick -= 1


@contextmanager
def turn(request: HttpRequest) -> Iterator[None]:
    """Wait for one's turn; raises a 409 refusal where the same page has asked anew meanwhile."""
    global _busy
    hand, mine = f"{request.session.session_key} {request.headers.get('X-Page', '')}", object()
    with _moved:
        _line[hand] = mine  # at the place of the question that it replaces
        _moved.notify_all()
        try:
            _moved.wait_for(lambda: _line.get(hand) is not mine or (not _busy and next(iter(_line)) == hand))
            if _line.get(hand) is not mine:
                raise Refusal(409, "A newer question of yours is being answered.", superseded=True)
            _busy = True
        finally:
            if _line.get(hand) is mine:
                del _line[hand]
    try:
        _let_pass()
        yield
    finally:
        with _moved:
            _busy = False
            _moved.notify_all()


def _let_pass() -> None:
    until = time.monotonic() + LONGEST
    while _quick and time.monotonic() < until:
        time.sleep(LOOK_EVERY)
