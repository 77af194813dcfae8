"""Fewest tools for a part: the same tool for several operations where that costs less than a pocket is worth."""

from __future__ import annotations

from collections.abc import Hashable, Mapping, Sequence

Extra = Mapping[Hashable, float]  # of one operation: what each tool costs a piece more than its best one


def share_tools(extras: Sequence[Extra], worth: float) -> tuple[Hashable, ...]:
    """A tool for each operation, so that the extra cost of all and `worth` for each different tool is least.

    `extras` holds for each operation its tools, each with the money a piece that it costs more than the best; at least one
    each. Opens or exchanges one tool at a time and puts away what that makes idle, from the best of each: for a handful of
    operations as good as trying all sets (facility location by local search).

    >>> share_tools([{"a": 0.0, "b": 0.05}, {"b": 0.0}], worth=0.1)
    ('b', 'b')
    """
    if not extras:
        return ()
    every = list(dict.fromkeys(tool for one in extras for tool in one))
    opened = {min(one, key=lambda tool: (one[tool], every.index(tool))) for one in extras}
    least = _cost(extras, opened, worth)
    while True:
        tries = [_without_idle(extras, opened | {tool}, worth) for tool in every]
        tries += [_without_idle(extras, (opened - {out}) | {tool}, worth) for out in opened for tool in every]
        best = min(tries, key=lambda tools: _cost(extras, tools, worth), default=opened)
        cost = _cost(extras, best, worth)
        if cost >= least - 1e-9:
            break
        opened, least = best, cost
    order = [tool for tool in every if tool in opened]
    return tuple(min((tool for tool in order if tool in one), key=lambda tool: one[tool]) for one in extras)


def _without_idle(extras: Sequence[Extra], tools: set[Hashable], worth: float) -> set[Hashable]:
    """The tools, put away one by one as long as that saves."""
    kept = set(tools)
    while len(kept) > 1:
        fewer = min((kept - {tool} for tool in kept), key=lambda some: _cost(extras, some, worth))
        if _cost(extras, fewer, worth) >= _cost(extras, kept, worth) - 1e-12:
            break
        kept = fewer
    return kept


def _cost(extras: Sequence[Extra], tools: set[Hashable], worth: float) -> float:
    total = worth * len(tools)
    for one in extras:
        # dearer than any part: a step without a tool
        total += min((one[tool] for tool in tools if tool in one), default=1e12)
    return total
