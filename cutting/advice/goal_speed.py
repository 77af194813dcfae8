"""The speed at which an edge lasts as long as the goal wants, found by Taylor from one run of a kind's numbers; and the book around it."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.operations.frame.money import goal_life, unattended_life

Array = NDArray[np.float64]

# of the book's top, below which hardened metal is not cut: the heat of the zone softens the chip, and a slow edge breaks out before it
# wears, however dear it is (common practice: turned at 120 to 200 m/min, threads at 100 to 160, grooves at 80 to 140)
HARD_FROM = 0.82
ABOVE_BOOK = 1.3  # × the book's top, as far as a house that lets a speed go above it is taken (common practice)


def wanted_life(setup: Any, exponent: Any, edge_cost: Any, shape: Any, cutting_seconds: Any) -> Array:
    """Life in cut [min] that the goal wants of an edge, and that hours alone ask for; arrays like those of the numbers."""
    wanted = goal_life(setup, exponent, edge_cost, shape)
    alone = unattended_life(setup, shape, cutting_seconds)
    return wanted if alone is None else np.maximum(wanted, alone)


def goal_speed(setup: Any, x: Any, run_at: Any, exponent: Any) -> Array:
    """Cutting speed vc [m/min] of the goal, from numbers `x` that were run at one: vc·(T/T_wanted)^n. Source: Taylor 1907."""
    return np.asarray(run_at * (x.tool_life / wanted_life(setup, exponent, x.edge_cost, x.weibull_shape, x.engaged_time)) ** exponent)


def book_top(setup: Any, high: Any) -> Array:
    """The highest speed that the house takes, for a book's highest [m/min]."""
    return np.asarray(high * (1.0 if setup.house.never_above_book else ABOVE_BOOK))


def within_book(setup: Any, speed: Any, least: Any, high: Any) -> Array:
    """A speed between the least one that is useful and what the house takes of the book's highest; all m/min."""
    top = book_top(setup, high)
    if setup.work.material.group.letter == "H":
        least = np.maximum(least, HARD_FROM * top)
    return np.clip(speed, np.minimum(least, top), top)
