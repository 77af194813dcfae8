"""Shops with a hidden truth: how far the bench is off at the first trial of a tool and at the fourth, and how honest its interval is."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from scipy.stats import norm

from benchmarks.sizes import Sizes
from cutting.belief.bands import band
from cutting.learning.pool import SHARES, Seen, life_level, pooled

SHAPE = 3.0  # of the scatter of lives
EDGES, TRIALS = 5, 4
READING = 0.12  # sd of ln of a reading of the finish
SURE = 0.90


@dataclass(frozen=True)
class Told:
    """Median error of the prediction |ln| at each trial in turn, and how often the 90 % interval held the truth."""

    errors: tuple[float, ...]
    covered: float
    worse: float  # share of shops whose prediction after three trials is further off than before the first


def simulate(shops: int, seed: int = 1) -> dict[str, Told]:
    """Trials in so many shops: of lives, five edges each, a fifth stopped early; and of the finish, one reading each."""
    dice = np.random.default_rng(seed)
    return {"life": _told(shops, dice, "life"), "finish": _told(shops, dice, "finish")}


def _told(shops: int, dice: np.random.Generator, quantity: str) -> Told:
    prior = band(quantity).spread
    off: list[list[float]] = []
    held = []
    for _ in range(shops):
        parts = dice.normal(0, prior * np.sqrt(SHARES))
        truth = float(parts.sum())
        # beside it two tools of the same grade and one of another are tried, which say something about this one too
        near, far = (
            truth - parts[2] + dice.normal(0, prior * SHARES[2] ** 0.5, 2),
            parts[0] + dice.normal(0, prior * sum(SHARES[1:]) ** 0.5),
        )
        seen: list[Seen] = []
        misses = []
        for k in range(TRIALS):
            mean, spread = _now(seen, prior)
            misses.append(abs(truth - mean))
            held.append(abs(truth - mean) <= norm.ppf(0.5 + SURE / 2) * spread)
            seen.append(_trial(dice, quantity, truth, Seen(0, 1, "this tool", "metal", "machine", "grade", "group"), prior))
            if k < 2:
                seen.append(_trial(dice, quantity, near[k], Seen(0, 1, f"tool {k}", "metal", "machine", "grade", "group"), prior))
            if k == 2:
                seen.append(_trial(dice, quantity, far, Seen(0, 1, "another", "metal", "machine", "other", "group"), prior))
        off.append(misses)
    table = np.array(off)
    return Told(tuple(map(float, np.median(table, axis=0))), float(np.mean(held)), float((table[:, -1] > table[:, 0]).mean()))


def _now(seen: list[Seen], prior: float) -> tuple[float, float]:
    """What the bench says of this tool before the next trial."""
    if not seen:
        return 0.0, prior
    here = next(one for one in pooled(seen, prior) if one.tool == "this tool")
    return here.mean, here.spread


def _trial(dice: np.random.Generator, quantity: str, truth: float, of: Seen, prior: float) -> Seen:
    if quantity != "life":
        return Seen(truth + float(dice.normal(0, READING)), READING, of.tool, of.metal, of.machine, of.grade, of.group)
    median = 40.0 * np.exp(truth)
    lives = median * (dice.exponential(size=EDGES) / np.log(2.0)) ** (1.0 / SHAPE)
    stop = np.where(dice.uniform(size=EDGES) < 0.2, 0.7 * median, np.inf)
    return life_level(np.minimum(lives, stop), lives <= stop, np.full(EDGES, 40.0), SHAPE, prior, of).seen


def measure(site: object, sizes: Sizes) -> Iterator[str]:
    """The figures of learning."""
    for quantity, told in simulate(sizes.shops).items():
        steps = " → ".join(f"{100 * (np.exp(one) - 1):.1f} %" for one in told.errors)
        yield (
            f"{quantity}: median error from trial to trial {steps}; 90 % intervals hold {100 * told.covered:.1f} %; "
            f"further off after three trials than before in {100 * told.worse:.0f} % of {sizes.shops} shops"
        )
