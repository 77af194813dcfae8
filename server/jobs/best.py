"""The best tool for an operation, or for all of a job, as the ranking has it: with speed, feed, depth and coolant."""

from __future__ import annotations

from collections.abc import Callable, Hashable
from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Any

from cutting.advice import Advice, Candidate
from cutting.advice.fewest import share_tools
from cutting.advice.score import score_of
from cutting.errors import CuttingError
from cutting.operations.coolant import wanted_deliveries
from cutting.operations.registry import kind_of
from cutting.tooling.roles import tool_at
from server.jobs.document import request_of
from server.jobs.present import settings_of
from server.jobs.rankings import ranked
from server.shop import Shop, shop

MOST_TRIED = 5000  # tools that are tried for an operation that none fits
MOST_DELIVERIES = 2  # of the machine's, the most wanted first, that are tried for a new operation
START = {
    "cutting_speed": "80 m/min",
    "feed_per_rev": "0.1 mm/rev",
    "feed_per_tooth": "0.1 mm/z",
    "depth_of_cut": "1 mm",
}  # where nothing fits at all


@dataclass(frozen=True)
class Pick:
    """A row of the ranking with the coolant that it was ranked with."""

    row: Candidate
    coolant: str
    sound: bool
    score: float  # what the goal orders by: money with the risk of a stop, or seconds

    @property
    def tool(self) -> dict[str, str]:
        """The tool's parts by role."""
        return self.row.tool

    @property
    def settings(self) -> dict[str, Any]:
        """What taking it sets."""
        return {**settings_of(self.row), "coolant": self.coolant}


def picks_of(
    document: dict[str, Any],
    entry: dict[str, Any],
    stock: Shop | None = None,
    coolants: bool = True,
    others: bool = False,
    rank: Callable[[Any, Any, Shop], Advice] = ranked,
) -> list[Pick]:
    """The ranking of an operation, best first, over the deliveries that suit; the nearest misses where nothing is sound.

    `others` are tools of other kinds of operation that make it with one tool, as a mill makes a drilled hole; `rank` makes the
    ranking of a request where that is not asked for here.

    Raises `CuttingError` for an operation that cannot be read.
    """
    stock = stock or shop()
    setup, crib = request_of(document, entry, None, stock)
    deliveries = wanted_deliveries(setup)[:MOST_DELIVERIES] if coolants else (setup.settings.coolant,)
    found: list[Pick] = []
    for delivery in deliveries:
        advice = rank(setup.with_settings(coolant=delivery), crib, stock)
        rows = [(row, True) for row in advice.candidates] or [(row, False) for row in advice.nearly]
        # the nearest misses come in order of how near they are
        found += [Pick(row, delivery, sound, score_of(setup, row) if sound else float(place)) for place, (row, sound) in enumerate(rows)]
    best: dict[tuple[str, ...], Pick] = {}
    alone = [one for one in found if _alone(one, others)]
    # where nothing does it alone, the last tool of a chain of its own kind stands: what must come before is said on the bench
    alone = alone or [_bare(one) for one in found if one.row.becomes is not None and one.row.becomes["operation"] == entry["operation"]]
    for pick in sorted(alone, key=lambda one: (not one.sound, one.score)):
        best.setdefault((*pick.row.key, pick.row.way), pick)
    return list(best.values())


def _bare(pick: Pick) -> Pick:
    return replace(pick, row=replace(pick.row, becomes=None, before=()))


def _alone(pick: Pick, others: bool) -> bool:
    """Whether one tool makes it: of the operation's own kind, or of another where that is asked."""
    return pick.row.becomes is None or (others and not pick.row.before)


def take_best(document: dict[str, Any], entry: dict[str, Any]) -> None:
    """Give a new operation the first of the ranking with its settings, or the nearest where nothing fits."""
    picks = picks_of(document, entry)
    if picks:
        entry["tool"] = picks[0].tool
        entry["settings"] = {**entry["settings"], **picks[0].settings}
        return
    setup, stock = request_of(document, entry)
    entry["tool"] = _fitting(setup, stock).tool_names
    known = kind_of(entry["operation"]).fields
    entry["settings"] |= {name: value for name, value in START.items() if known.has("settings", name)}


def _fitting(setup: Any, stock: Any) -> Any:
    """The set-up with the first tool of a stock that it can be checked with at all; as it is where there is none."""
    for k in range(min(len(stock.places[0]), MOST_TRIED)):
        tried = replace(setup, **tool_at(stock.parts, stock.places, k))
        with suppress(CuttingError):
            tried.check()
            return tried
    return setup


def best_for_all(document: dict[str, Any], worth: float, stock: Shop | None = None) -> list[tuple[dict[str, Any], Pick | None, str]]:
    """For each operation the tool to take: its best, or one that others use too where that costs less than `worth` a piece."""
    stock = stock or shop()
    ranked: list[tuple[dict[str, Any], list[Pick], str]] = []
    for entry in document["operations"]:
        try:
            picks = picks_of(document, entry, stock, others=True)
            picks = [pick for pick in picks if pick.sound] or picks[:1]
            ranked.append((entry, picks, "" if picks else "no tool of the crib fits"))
        except CuttingError as error:
            ranked.append((entry, [], error.message))
    goal, rate = document["goal"], stock.library.machine(document["machine"]).rate
    extras = [_extras(picks, goal, rate) for _, picks, _ in ranked if picks]
    chosen = iter(share_tools(extras, worth))
    found: list[tuple[dict[str, Any], Pick | None, str]] = []
    for entry, picks, why in ranked:
        tool = next(chosen) if picks else None
        found.append((entry, next((pick for pick in picks if _key(pick) == tool), None), why))
    return found


def _key(pick: Pick) -> Hashable:
    return pick.row.key


def _extras(picks: list[Pick], goal: str, rate: float) -> dict[Hashable, float]:
    """What each tool costs a piece more than the first, in money of what the goal counts: machine time, or cost with its risk."""
    money = rate / 3600.0 if goal == "fastest" else 1.0
    found: dict[Hashable, float] = {}
    for pick in picks:
        found.setdefault(_key(pick), (pick.score - picks[0].score) * money)
    return found
