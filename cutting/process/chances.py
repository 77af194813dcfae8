"""How surely a plan holds: what is not known of metal and edges is drawn many times, and every operation is run with each draw."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.stats import spearmanr

from cutting.operations.frame.outcome import TOUCHING
from cutting.operations.frame.results import FORCE_BAND, LIFE_BAND
from cutting.operations.frame.rule import BOOK_RULES, all_used, hard_ones
from cutting.operations.registry import kind_of
from cutting.wear.reference import taylor_exponent

Array = NDArray[np.float64]
SIGMAS = 2.0  # a band is taken to hold nineteen of twenty
TESTED = 0.02  # spread of a hardness that was measured: a Brinell reading repeats within about 4 % (common practice)
ALIKE, BINS = 1e-9, 24
CAUSES = ("hardness of the metal", "cutting force", "life of the edges")


@dataclass(frozen=True)
class Draw:
    """One delivery of metal and one lot of edges, as shares of what the plan reckons with; `lives` one for each operation."""

    hardness: float
    force: float
    lives: tuple[float, ...]


@dataclass(frozen=True)
class Ran:
    """An operation with one draw: money, seconds, and the hard limit that is broken furthest, blank where all hold."""

    cost: float
    seconds: float
    broken: str


@dataclass(frozen=True)
class Held:
    """How often an operation holds, and what breaks it most often."""

    share: float
    worst: str  # label of the limit, blank where none breaks
    worst_share: float
    cost: tuple[float, float, float]  # at 5, 50 and 95 of a hundred


@dataclass(frozen=True)
class Chances:
    """A piece over all draws: money at 5, 50 and 95 of a hundred and as a histogram, seconds, how often all holds.

    `causes` are how far money goes with each of `CAUSES`: squared rank correlations (Spearman).
    """

    cost: tuple[float, float, float]
    seconds: tuple[float, float, float]
    edges: tuple[float, ...]
    counts: tuple[int, ...]
    all_hold: float
    within_target: float | None
    operations: tuple[Held, ...]
    causes: tuple[float, ...]


def draws_for(setups: Sequence[Any], count: int, tested: bool, seed: int = 1) -> tuple[Draw, ...]:
    """`count` draws for the operations of a part, the same for the same seed.

    Hardness: the material's delivery range, or the reading's where it was `tested`; force and life: the bands that every result
    shows; each taken as two standard deviations. One delivery serves all operations; edges come in lots of their own.
    """
    chance = np.random.default_rng(seed)
    material = setups[0].work.material
    hard = TESTED if tested else (material.hardness_high - material.hardness_low) / (2.0 * SIGMAS * material.usual_hardness)
    hardness = np.clip(1.0 + hard * chance.standard_normal(count), 0.7, 1.4)
    force = np.exp(np.log1p(FORCE_BAND) / SIGMAS * chance.standard_normal(count))
    lives = np.exp(np.log(LIFE_BAND) / SIGMAS * chance.standard_normal((count, len(setups))))
    return tuple(Draw(float(h), float(f), tuple(map(float, each))) for h, f, each in zip(hardness, force, lives, strict=True))


def with_draw(setup: Any, draw: Draw, place: int) -> Any:
    """The set-up in this delivery with this lot of edges."""
    work, grade = setup.work, setup.edge.grade
    material = work.material
    speed = draw.lives[place] ** taylor_exponent(grade.tool_class if grade else "hss")  # at which the edge lasts as long as before
    metal = replace(material, specific_force_1=material.specific_force_1 * draw.force, speed_factor=material.speed_factor * speed)
    return replace(setup, work=replace(work, material=metal, hardness=work.hardness * draw.hardness))


def run_draws(setups: Sequence[Any], draws: Sequence[Draw]) -> list[list[Ran]]:
    """Every operation with every draw. Runs anywhere: what it needs it is given, what it gives is plain.

    Raises `CuttingError` for a set-up that cannot be.
    """
    return [[_run(with_draw(setup, draw, place)) for place, setup in enumerate(setups)] for draw in draws]


def _run(setup: Any) -> Ran:
    model = kind_of(setup.operation).model
    x = model.quickly(setup)
    used = {name: float(np.max(level)) for name, level in all_used(model.rules, x).items()}
    # what a book says of another metal is its own matter: the plan is not broken by it
    hard = [name for name in hard_ones(model.rules, used, setup.house) if name not in BOOK_RULES and used[name] > 1.0 + TOUCHING]
    worst = max(hard, key=lambda name: used[name], default="")
    broken = next((rule.label.split(",")[0] for rule in model.rules if rule.name == worst), "")
    return Ran(float(np.ravel(x.operation_cost)[0]), float(np.ravel(x.operation_time)[0]), broken)


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
        tuple(_goes_with(piece, values) for values in _causes(draws)),
    )


def _held(rows: Sequence[Ran], cost: Array) -> Held:
    broken = [one.broken for one in rows if one.broken]
    worst = max(sorted(set(broken)), key=broken.count, default="")
    return Held(1.0 - len(broken) / len(rows), worst, broken.count(worst) / len(rows) if worst else 0.0, _spread(cost))


def _spread(values: Array) -> tuple[float, float, float]:
    low, middle, high = np.percentile(values, (5, 50, 95))
    return float(low), float(middle), float(high)


def _causes(draws: Sequence[Draw]) -> tuple[Array, ...]:
    lives = np.array([np.log(one.lives).sum() for one in draws])
    return np.array([one.hardness for one in draws]), np.array([one.force for one in draws]), lives


def _goes_with(piece: Array, values: Array) -> float:
    if np.ptp(piece) < ALIKE or np.ptp(values) < ALIKE:
        return 0.0
    return float(spearmanr(piece, values).statistic ** 2)
