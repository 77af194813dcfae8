"""How much is measured: all of it, or so little that every test run can see whether it still runs."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Sizes:
    """Pairs ranked by goals, tools imported, questions asked, keys pressed on benches, operations of a long part, jobs of a shop,
    people at work and for how long, calls at each door, kills; repeats of each; shops simulated, and faults of the clinic's."""

    pairs: int = 20_000
    goals: int = 3
    tools: int = 100_000
    questions: int = 300
    presses: int = 40
    benches: int = 8
    operations: int = 60
    jobs: int = 1000
    people: int = 50
    load_seconds: int = 60
    calls: int = 100
    kills: int = 1000
    repeats: int = 5
    shops: int = 500
    faults: int = 1000


FULL = Sizes()
SMALL = Sizes(
    pairs=60,
    goals=1,
    tools=60,
    questions=6,
    presses=2,
    benches=1,
    operations=6,
    jobs=3,
    people=2,
    load_seconds=6,
    calls=1,
    kills=2,
    repeats=1,
    shops=20,
    faults=13,
)
