"""How surely a plan holds: what is not known of metal, edges and machine is drawn many times, and every operation is run with it."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.stats import spearmanr

from cutting.belief.bands import HARDNESS, band
from cutting.operations.frame.chance import TESTED, hardness_spread, spreads_of
from cutting.operations.frame.outcome import TOUCHING
from cutting.operations.frame.rule import BOOK_RULES, all_used, hard_ones
from cutting.operations.registry import kind_of
from cutting.working import Noting, Silent

Array = NDArray[np.float64]
LEVELS = 40  # hardnesses that are told apart in a thousand deliveries: draws of one are run as one
SOFTEST, HARDEST = 0.7, 1.4  # of the usual hardness: beyond, it would be another metal (common practice)
# what one delivery of metal and one machine settle for the whole part; the rest is each operation's own: edges come in lots
SHARED = ("force", "push", "chips", "temperature", "grip", "power")
ALIKE, BINS = 1e-9, 24


@dataclass(frozen=True)
class Draw:
    """One delivery of metal, one machine and one lot of edges: hardness as a share, and factors by quantity for each operation."""

    hardness: float
    factors: tuple[Mapping[str, float], ...]


@dataclass(frozen=True)
class Ran:
    """An operation with one draw: money, seconds, and the hard limit that is broken furthest, blank where all hold."""

    cost: float
    seconds: float
    broken: str


@dataclass(frozen=True)
class StepHeld:
    """How often an operation holds, and what breaks it most often."""

    share: float
    worst: str  # name of the limit, blank where none breaks
    worst_share: float
    cost: tuple[float, float, float]  # at 5, 50 and 95 of a hundred


@dataclass(frozen=True)
class Chances:
    """A piece over all draws: money at 5, 50 and 95 of a hundred and as a histogram, seconds, how often all holds.

    `causes` are how far money goes with each quantity that was drawn, by its title: squared rank correlations (Spearman).
    """

    cost: tuple[float, float, float]
    seconds: tuple[float, float, float]
    edges: tuple[float, ...]
    counts: tuple[int, ...]
    all_hold: float
    within_target: float | None
    operations: tuple[StepHeld, ...]
    causes: tuple[tuple[str, float], ...]


def draws_for(setups: Sequence[Any], count: int, tested: bool, seed: int = 1) -> tuple[Draw, ...]:
    """`count` draws for the operations of a part, the same for the same seed, ordered by hardness.

    Hardness: the material's delivery range, or the reading's where it was `tested`; all else: the bands that every result shows, as
    narrow as trials have made them. Raises `CuttingError` for a set-up that cannot be.
    """
    chance = np.random.default_rng(seed)
    each = [spreads_of(setup, _stated(setup)) for setup in setups]
    hard = TESTED if tested else hardness_spread(setups[0].work.material)
    hardness = np.sort(np.clip(1.0 + hard * chance.standard_normal(count), SOFTEST, HARDEST))
    slices = np.array_split(hardness, min(LEVELS, count))
    hardness = np.concatenate([np.full(len(one), one.mean()) for one in slices])
    once = {quantity: chance.standard_normal(count) for quantity in SHARED}
    columns: list[dict[str, Array]] = []
    for spreads in each:
        own = {quantity: once[quantity] if quantity in once else chance.standard_normal(count) for quantity in spreads}
        columns.append({q: np.exp(float(np.max(spreads[q])) * own[q]) for q in spreads if q != HARDNESS})
    return tuple(
        Draw(float(hardness[k]), tuple({q: float(values[k]) for q, values in column.items()} for column in columns)) for k in range(count)
    )


def _stated(setup: Any) -> tuple[str, ...]:
    """The quantities that a set-up's numbers rest on."""
    noting = Noting(setup.factors)
    kind_of(setup.operation).model.run(setup, noting)
    return tuple(noting.stated)


def run_draws(setups: Sequence[Any], draws: Sequence[Draw]) -> list[list[Ran]]:
    """Every operation with every draw. Runs anywhere: what it needs it is given, what it gives is plain.

    Raises `CuttingError` for a set-up that cannot be.
    """
    found: list[list[Ran]] = [[] for _ in draws]
    for hardness in dict.fromkeys(one.hardness for one in draws):
        rows = [k for k, one in enumerate(draws) if one.hardness == hardness]
        for place, setup in enumerate(setups):
            for row, ran in zip(rows, _run(setup, hardness, [draws[k].factors[place] for k in rows]), strict=True):
                found[row].append(ran)
    return found


def _run(setup: Any, hardness: float, factors: Sequence[Mapping[str, float]]) -> list[Ran]:
    """One operation in metal of one hardness, with the factors of several draws at once."""
    model, count = kind_of(setup.operation).model, len(factors)
    there = replace(setup, work=replace(setup.work, hardness=setup.work.hardness * hardness))
    drawn = {q: np.array([[one[q]] for one in factors]) * there.factors.get(q, 1.0) for q in factors[0]}
    x = model.numbers(there, model.tool(there), there.settings.cutting_speed, there.feed, Silent({**there.factors, **drawn}))
    used = all_used(model.rules, x)
    # what a book says of another metal is its own matter: the plan is not broken by it
    names = [name for name in hard_ones(model.rules, used, there.house) if name not in BOOK_RULES]
    spares = {rule.name: rule.spare(x) for rule in model.rules}  # a safety of its own is there to be used
    levels = np.array([np.broadcast_to(used[name] / spares[name], (count, 1))[:, 0] for name in names]) if names else np.zeros((1, count))
    worst, over = levels.argmax(axis=0), levels.max(axis=0) > 1.0 + TOUCHING
    cost, seconds = (np.broadcast_to(one, (count, 1))[:, 0] for one in (x.operation_cost, x.operation_time))
    return [Ran(float(cost[k]), float(seconds[k]), names[worst[k]] if over[k] else "") for k in range(count)]


def summed(
    draws: Sequence[Draw], ran: Sequence[Sequence[Ran]], beside: tuple[float, float], good_share: float, target: float | None
) -> Chances:
    """What the draws come to. `beside` are the money and seconds of a piece that no operation takes."""
    cost = np.array([[one.cost for one in row] for row in ran])
    seconds = np.array([sum(one.seconds for one in row) for row in ran]) + beside[1]
    piece = (cost.sum(axis=1) + beside[0]) / good_share
    counts, edges = np.histogram(piece, bins=BINS)
    holds = np.array([[not one.broken for one in row] for row in ran])
    return Chances(
        _spread(piece),
        _spread(seconds),
        tuple(map(float, edges)),
        tuple(map(int, counts)),
        float(holds.all(axis=1).mean()),
        None if target is None else float((piece <= target).mean()),
        tuple(_held([row[k] for row in ran], cost[:, k]) for k in range(cost.shape[1])),
        tuple((band(quantity).title, _goes_with(piece, values)) for quantity, values in _causes(draws).items()),
    )


def _held(rows: Sequence[Ran], cost: Array) -> StepHeld:
    broken = [one.broken for one in rows if one.broken]
    worst = max(sorted(set(broken)), key=broken.count, default="")
    return StepHeld(1.0 - len(broken) / len(rows), worst, broken.count(worst) / len(rows) if worst else 0.0, _spread(cost))


def _spread(values: Array) -> tuple[float, float, float]:
    low, middle, high = np.percentile(values, (5, 50, 95))  # % of the deliveries
    return float(low), float(middle), float(high)


def _causes(draws: Sequence[Draw]) -> dict[str, Array]:
    """What was drawn by quantity: of what each operation has of its own, all together."""
    found = {HARDNESS: np.array([one.hardness for one in draws])}
    names = dict.fromkeys(quantity for factors in draws[0].factors for quantity in factors)
    for quantity in names:
        each = [[math.log(factors[quantity]) for factors in one.factors if quantity in factors] for one in draws]
        found[quantity] = np.array([sum(logs) for logs in each])
    return found


def _goes_with(piece: Array, values: Array) -> float:
    if np.ptp(piece) < ALIKE or np.ptp(values) < ALIKE:
        return 0.0
    return float(spearmanr(piece, values).statistic ** 2)
