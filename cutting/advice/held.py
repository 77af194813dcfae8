"""Which limit holds the feed and the speed of each row of a ranking, found by asking for a little more of one of them."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from cutting.advice.best import Best
from cutting.advice.contest import Contest, Entrants
from cutting.advice.search import alike
from cutting.operations.frame.chance import kept_in_hand, spreads_over
from cutting.operations.frame.over_passes import over_passes
from cutting.operations.frame.rule import Array, all_used, hard_ones
from cutting.tooling.roles import Index

NOTHING = np.zeros((1, 1))
MORE, CLOSE, GROWS = 1.1, 0.97, 1.01  # a tenth more of it; the limit is then at least so full, and fuller than before by so much


def label_of(contest: Contest, name: str) -> str:
    """The words for a limit, without what follows a comma."""
    return next(rule.label.split(",")[0] for rule in contest.model.rules if rule.name == name)


class LimitHeld(NamedTuple):
    """Labels of the hard limits that a tenth more would meet; blank where none."""

    feed: str
    speed: str


def held_by(contest: Contest, field: Entrants, best: Best, rows: Index) -> dict[int, LimitHeld]:
    """What holds feed and speed of every entry."""
    found: dict[int, LimitHeld] = {}
    for places, setup in alike(best, rows):
        tool = field.tool.take(places).take(np.s_[:, None])
        speed, feed = (best.figures[name][places][:, None, None] for name in ("cutting_speed", "feed"))
        speeds = np.concatenate([speed, speed, MORE * speed], axis=1)
        feeds = np.concatenate([feed, MORE * feed, feed], axis=1)
        done = contest.model.numbers(setup, tool, speeds, feeds, setup.silent)
        used = all_used(contest.model.rules, done)
        names = hard_ones(contest.model.rules, used, setup.house)
        spreads = spreads_over(contest.model, setup, field.tool.take(places), speed[..., 0], feed[..., 0])
        spares = {rule.name: rule.spare(done) for rule in contest.model.rules}
        levels = np.stack(
            [
                np.broadcast_to(over_passes(used[name]), (*speeds.shape[:2], 1))[..., 0]
                / kept_in_hand(setup.aimed_chance, spreads.get(name, NOTHING), spares[name])
                for name in names
            ]
        )
        of_feed, of_speed = (_met(levels[..., 0], levels[..., place], names) for place in (1, 2))
        for k, by_feed, by_speed in zip(places, of_feed, of_speed, strict=True):
            found[int(k)] = LimitHeld(*(label_of(contest, limit) if limit else "" for limit in (by_feed, by_speed)))
    return found


def _met(before: Array, after: Array, names: list[str]) -> list[str]:
    """The fullest limit among those that more fills, where it comes close; arrays (limits, rows)."""
    grown = np.where((after > GROWS * before) & (after >= CLOSE), after, 0.0)
    fullest = grown.argmax(axis=0)
    return [names[one] if grown[one, k] > 0 else "" for k, one in enumerate(fullest)]
