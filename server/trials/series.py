"""Several ways against each other on the same bars: which is cut when, and how they stand side by side."""

from __future__ import annotations

import random
from collections.abc import Sequence
from typing import Any

import numpy as np
from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction

from cutting.errors import CuttingError
from cutting.learning.entries import Edges, edges_of
from cutting.learning.lives import fit_weibull
from cutting.quantities import display
from server.errors import Refusal
from server.jobs.document.outcomes import outcome_and_numbers
from server.trials.kept import setup_at, start_trial
from server.trials.models import Trial
from server.trials.reading import logged
from server.trials.says import cost_as_seen
from server.trials.schemas import SeriesIn, TrialIn


def start_series(given: SeriesIn, author: AbstractBaseUser, dice: random.Random | None = None) -> Trial:
    """A trial for each way, all held against the first, and on each bar all of them in an order left to chance.

    What drifts along a bar or over a day then falls on all alike. Raises `Refusal` or `CuttingError`, and nothing is kept.
    Source: blocked, randomised comparison; Montgomery, Design and Analysis of Experiments, chapter 4.
    """
    names = [one.name.strip() for one in given.ways]
    if len(set(names)) != len(names):
        raise Refusal(422, "Two ways have the same name.", [{"field": "ways", "message": "each wants a name of its own"}])
    with transaction.atomic():
        first: Trial | None = None
        for k, way in enumerate(given.ways):
            asked = TrialIn(
                job=given.job,
                operation=given.operation,
                question=given.question,
                watched=given.watched,
                bound=given.bound,
                against=first.pk if first else None,
                units=given.units,
            )
            try:
                made = start_trial(asked, author, way.tried, way.name.strip())
            except CuttingError as error:
                raise error.under(f"ways.{k}") from error
            first = first or made
        assert first is not None
        first.order = in_order(names, given.bars, dice or random.SystemRandom())
        first.save(update_fields=["order"])
    return first


def in_order(names: Sequence[str], bars: int, dice: random.Random) -> list[list[str]]:
    """Bar by bar the ways in an order left to chance."""
    return [dice.sample(list(names), len(names)) for _ in range(bars)]


def side_by_side(trial: Trial) -> list[dict[str, Any]]:
    """Every way of a trial's series: edges, worst, middle with its interval, best, and what a piece costs with such edges."""
    first = trial.against or trial
    ways = [first, *Trial.objects.filter(against=first).exclude(variant="").order_by("pk")]
    return [_way(one) for one in ways] if first.variant and len(ways) > 1 else []


def _way(trial: Trial) -> dict[str, Any]:
    told = logged(list(trial.entries.all()), 0.0, 0.0)
    edges = edges_of(told)
    ended = [count for count, end in zip(edges.lasted, edges.ended, strict=True) if end]
    middle, between = _middle(trial, edges)
    cost = cost_as_seen(trial, told)
    return {
        "trial": trial.pk,
        "name": trial.variant,
        "tool": trial.tool,
        "edges": f"{len(ended)} of {len(edges.names)}",
        "worst": str(min(ended)) if ended else "",
        "middle": middle,
        "between": between,
        "best": str(max(ended)) if ended else "",
        "cost": display(cost, "money") if cost is not None else None,
    }


def _middle(trial: Trial, edges: Edges) -> tuple[str, str]:
    """The life that half of the edges reach; with one end only by the scatter of the tables."""
    try:
        lives = edges.lives
        shape = None if lives.failures > 1 else float(np.ravel(outcome_and_numbers(setup_at(trial))[1].weibull_shape)[0])
        law = fit_weibull(lives, shape)
    except (CuttingError, Refusal):
        return "", ""
    low, high = law.between()
    return f"{law.median:.0f}", f"{low:.0f} – {high:.0f}"
