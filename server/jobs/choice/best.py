"""The best tool for an operation, or for all of a job, as the ranking has it: with speed, feed, depth and coolant."""

from __future__ import annotations

import copy
from collections.abc import Callable, Hashable
from typing import Any

from cutting.advice import Advice
from cutting.advice.fewest import share_tools
from cutting.errors import CuttingError
from cutting.plan.choose import Pick, picks_for
from cutting.plan.chosen import surer
from server.jobs.choice.rankings import ranked
from server.jobs.document.plan import merged, plan_of, request_of
from server.shop import Shop, shop


def picks_of(
    document: dict[str, Any],
    entry: dict[str, Any],
    stock: Shop | None = None,
    coolants: bool = True,
    others: bool = False,
    chains: bool = False,
    rank: Callable[[Any, Any, Shop], Advice] = ranked,
) -> list[Pick]:
    """The ranking of an operation as `picks_for` orders it; `rank` makes the ranking of a request where that is not asked for here.

    Raises `CuttingError` for an operation that cannot be read.
    """
    stock = stock or shop()
    setup, crib = request_of(document, entry, None, stock)
    return picks_for(setup, crib, coolants, others, chains, rank=lambda asked, tools: rank(asked, tools, stock))


def best_for_all(document: dict[str, Any], worth: float, stock: Shop | None = None) -> list[tuple[dict[str, Any], Pick | None, str]]:
    """For each operation the tool to take: its best, or one that others use too where that costs less than `worth` a piece."""
    stock = stock or shop()
    each: list[tuple[dict[str, Any], list[Pick], str]] = []
    for entry in document["operations"]:
        try:
            picks = [pick for pick in picks_of(document, entry, stock, others=True) if pick.can]
            if not picks:  # what no tool does alone a chain may do
                picks = [pick for pick in picks_of(document, entry, stock, others=True, chains=True) if pick.can][:1]
            each.append((entry, picks, "" if picks else "no tool of the crib fits"))
        except CuttingError as error:
            each.append((entry, [], error.message))
    goal, rate = document["goal"], stock.library.machine(document["machine"]).rate
    extras = [_extras(picks, goal, rate) for _, picks, _ in each if picks]
    chosen = iter(share_tools(extras, worth))
    found: list[tuple[dict[str, Any], Pick | None, str]] = []
    for entry, picks, why in each:
        tool = next(chosen) if picks else None
        found.append((entry, next((pick for pick in picks if _key(pick) == tool), None), why))
    surely = surer_together(document, found, stock)
    return [(entry, surely.get(entry["id"], pick), why) for entry, pick, why in found]


def surer_together(
    document: dict[str, Any],
    found: list[tuple[dict[str, Any], Pick | None, str]],
    stock: Shop,
    rank: Callable[[Any, Any, Shop], Advice] = ranked,
) -> dict[str, Pick]:
    """Other choices where all of them together would hold less often than is asked; none where one changes what the plan is made of."""
    if any(pick is None or pick.row.becomes or pick.row.before for _, pick, _ in found):
        return {}
    then = copy.deepcopy(document)
    for entry, (_, pick, _) in zip(then["operations"], found, strict=True):
        if pick is not None:
            set_to(entry, pick)
    names = {entry["id"] for entry in then["operations"]}
    return surer(plan_of(then), stock.library, names, lambda asked, tools: rank(asked, tools, stock))


def set_to(entry: dict[str, Any], pick: Pick) -> None:
    """An operation with a pick's tool and settings, beside those that the pick leaves as they are."""
    entry["tool"] = pick.tool
    entry["settings"] = merged(entry["settings"], {name: str(value) for name, value in pick.settings.items()})


def _key(pick: Pick) -> Hashable:
    return pick.row.key


def _extras(picks: list[Pick], goal: str, rate: float) -> dict[Hashable, float]:
    """What each tool costs a piece more than the first, in money of what the goal counts: machine time, or cost with its risk."""
    money = rate / 3600.0 if goal == "fastest" else 1.0
    found: dict[Hashable, float] = {}
    for pick in picks:
        found.setdefault(_key(pick), (pick.score - picks[0].score) * money)
    return found
