"""The best tool for a step, as the ranking has it: with speed, feed, depth and coolant. What no tool does is given none."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from cutting.advice.candidate import Advice, Candidate, entries_set
from cutting.advice.contests import advise
from cutting.advice.score import score_of
from cutting.operations.coolant import wanted_deliveries
from cutting.operations.frame.outcome import Standing

ORDER = (Standing.HOLDS, Standing.CLOSE, Standing.OVER)
MOST_DELIVERIES = 2  # of the machine's, the most wanted first, that are tried
Rank = Callable[[Any, Any], Advice]


@dataclass(frozen=True)
class Pick:
    """A row of the ranking with the coolant that it was ranked with, and how surely its hard limits hold."""

    row: Candidate
    coolant: str
    standing: Standing
    score: float  # what the goal orders by: money with the risk of a stop, or seconds

    @property
    def can(self) -> bool:
        """Whether it may be taken: what is over a hard limit does not make the part."""
        return self.standing is not Standing.OVER

    @property
    def tool(self) -> dict[str, str]:
        """The tool's parts by role."""
        return self.row.tool

    @property
    def settings(self) -> dict[str, Any]:
        """What taking it sets."""
        return {**entries_set(self.row), "coolant": self.coolant}


def picks_for(setup: Any, crib: Any, coolants: bool = True, others: bool = False, chains: bool = False, rank: Rank = advise) -> list[Pick]:
    """The ranking of a request, best first, over the deliveries that suit; the nearest misses behind, that are over a limit.

    `others` are tools of other kinds of operation that make it with one tool, as a mill makes a drilled hole; `chains` such that want
    operations before them. Raises `CuttingError`.
    """
    deliveries = wanted_deliveries(setup)[:MOST_DELIVERIES] if coolants else (setup.settings.coolant,)
    found: list[Pick] = []
    for delivery in deliveries:
        advice = rank(setup.with_settings(coolant=delivery), crib)
        rows = [(row, Standing.CLOSE if row.close else Standing.HOLDS) for row in advice.candidates]
        rows = rows or [(row, Standing.OVER) for row in advice.nearly]
        # the nearest misses come in order of how near they are
        found += [
            Pick(row, delivery, standing, float(place) if standing is Standing.OVER else score_of(setup, row))
            for place, (row, standing) in enumerate(rows)
            if (others or row.becomes is None or bool(row.before)) and (chains or not row.before)
        ]
    best: dict[tuple[str, ...], Pick] = {}
    for pick in sorted(found, key=lambda one: (ORDER.index(one.standing), one.score)):
        best.setdefault((*pick.row.key, pick.row.way), pick)
    return list(best.values())


def first_choice(setup: Any, crib: Any, rank: Rank = advise) -> Pick | None:
    """What an operation that has no tool yet is given: of its own kind alone where that holds, else the best of all ways.

    None where no tool of the crib makes it within its hard limits. Raises `CuttingError`.
    """
    picks = [one for one in picks_for(setup, crib, others=True, chains=True, rank=rank) if one.can]
    own = next((one for one in picks if _made_as(one.row) in ("", setup.operation) and one.standing is Standing.HOLDS), None)
    return own or next(iter(picks), None)


def _made_as(row: Candidate) -> str:
    """The kind of operation that a row makes of it, blank where it stays what it is."""
    return str(row.becomes["operation"]) if row.becomes else ""
