"""Of one hand only the newest question is answered, and nudges pass before heavy questions."""

from __future__ import annotations

import os
import signal
import threading
import time
from types import SimpleNamespace
from typing import Any

import pytest

from server.errors import Refusal
from server.jobs.choice import turns


def hand(session: str, page: str = "a") -> Any:
    return SimpleNamespace(session=SimpleNamespace(session_key=session), headers={"X-Page": page})


def asked(request: Any, said: list[str], name: str, what: str = "") -> threading.Thread:
    def ask() -> None:
        try:
            with turns.turn(request, what):
                said.append(f"{name} answered")
        except Refusal as refusal:
            said.append(f"{name} {refusal.status}")

    thread = threading.Thread(target=ask)
    thread.start()
    time.sleep(0.03)
    return thread


def test_the_newest_question_of_a_page_replaces_those_that_wait() -> None:
    said: list[str] = []
    with turns.turn(hand("ann")):  # somebody's ranking is being made
        waiting = [
            asked(hand("ann"), said, "first"),
            asked(hand("ann"), said, "second"),
            asked(hand("ann", "b"), said, "her other page"),
            asked(hand("olaf"), said, "olaf"),
        ]
        waiting[0].join(2)
        assert said == ["first 409"]
    for thread in waiting:
        thread.join(2)
    assert set(said[1:]) == {"second answered", "her other page answered", "olaf answered"}
    assert not turns._line


def test_questions_of_another_kind_do_not_replace_each_other() -> None:
    said: list[str] = []
    with turns.turn(hand("ann")):
        waiting = [asked(hand("ann"), said, "ranking"), asked(hand("ann"), said, "sheet", "sheet")]
    for thread in waiting:
        thread.join(2)
    assert set(said) == {"ranking answered", "sheet answered"}


def test_the_processes_share_the_places_of_the_machine_and_a_killed_one_gives_its_own_up(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(turns, "PLACES", 1)
    said: list[str] = []
    if not (other := os.fork()):  # another web process that is at a heavy question
        turns._taken(0)
        time.sleep(60)
        os._exit(0)
    time.sleep(0.2)
    waiting = asked(hand("ann"), said, "ann")
    time.sleep(0.2)
    assert said == []
    os.kill(other, signal.SIGKILL)
    os.waitpid(other, 0)
    waiting.join(2)
    assert said == ["ann answered"]


def test_a_heavy_question_lets_nudges_pass_but_not_for_ever(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(turns, "LONGEST", 0.5)
    said: list[str] = []
    with turns.quick():
        heavy = asked(hand("ann"), said, "heavy")
        time.sleep(0.1)
        assert said == []
        heavy.join(2 * turns.LONGEST)
        assert said == ["heavy answered"]
    with turns.turn(hand("ann")):
        pass
