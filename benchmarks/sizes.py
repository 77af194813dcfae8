"""How much is measured: all of it, or so little that every test run can see whether it still runs."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Sizes:
    """Pairs ranked, tools imported, questions asked, keys pressed, operations of a long part, and how often each is repeated."""

    pairs: int = 20_000
    tools: int = 100_000
    questions: int = 300
    presses: int = 40
    operations: int = 60
    repeats: int = 5


FULL = Sizes()
SMALL = Sizes(pairs=300, tools=200, questions=12, presses=3, operations=8, repeats=1)
