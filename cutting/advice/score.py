"""What the goal orders candidates by, of whatever kind of operation."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.advice.candidate import Candidate
from cutting.operations.frame.risk import shared_risk
from cutting.operations.frame.setup import BaseSetup, Goal

Array = NDArray[np.float64]
STOP_MINUTES = 45.0  # what an unplanned stop takes from an unattended machine (common practice)
HABIT = 0.10  # share that a grade must save in a metal that it is not made for, or a way seldom taken, to stand first (common practice)
SLACK = 0.02  # of the wanted probability that a run may fall short of
SHORTFALL = 1e4  # money that a missing probability of 1 weighs: security comes first
LESS_SURE = 15.0  # shares of an operation that each missing share of the chance weighs that is asked of a hard limit (common practice)
NOT_HELD = 1e8  # what a hard limit weighs that holds less surely than is asked: it stays hard
DEAR = 1e-3  # seconds that a unit of money weighs where equally fast ones are told apart


def left_over(setup: BaseSetup, edge_cost: Any, change_parts: Any) -> Array:
    """Money a piece of what a batch leaves of its last edge, as far as it is charged: a dear edge for three pieces is not cheap.

    The house says what share of it is lost (common practice: one of fifty that are put back is not used again).
    """
    pieces = setup.batch.pieces
    unused = np.maximum(1.0 - pieces / np.asarray(change_parts, float), 0.0)
    return np.asarray(setup.house.left_over_share * unused * np.asarray(edge_cost) / pieces)


def score(setup: BaseSetup, seconds: Any, cost: Any, secure: Any, run_parts: Any, beside: Any = 0.0) -> Array:
    """Money, seconds, or security: less is better. A stop of a machine that runs alone is weighed as what it costs, with any goal.

    `secure` is the probability of a run of `run_parts` pieces, `beside` money a piece beside the operation.
    """
    stops = (1.0 - secure) / np.maximum(run_parts, 1.0)  # a piece
    if setup.goal is not Goal.MOST_SECURE and setup.batch.unattended_hours <= 0:
        stops = np.zeros_like(stops)  # who stands beside it changes an edge and goes on
    if setup.goal is Goal.FASTEST:
        return np.asarray(seconds + 60.0 * STOP_MINUTES * stops + DEAR * cost, float)
    stop = STOP_MINUTES / 60.0 * setup.machine.rate * stops
    if setup.goal is Goal.MOST_SECURE:
        # below the wanted probability security comes first; above it a stop is weighed as what it costs
        shortfall = np.maximum(setup.house.secure_probability - SLACK - secure, 0.0)
        return np.asarray(shortfall * SHORTFALL + stop + cost + beside, float)
    return np.asarray(stop + cost + beside, float)


def weighed(raw: Any, side_use: Any, risk: Any) -> Array:
    """A score with what the choice risks: shares of it for a grade made for another metal, and for soft limits that may not hold."""
    return np.asarray(np.asarray(raw, float) * (1.0 + HABIT * np.asarray(side_use) + shared_risk(risk)))


def score_of(setup: BaseSetup, row: Candidate) -> float:
    """The score of a row: what its hard limits ask for comes first, then what the goal counts with what it risks."""
    found = float(weighed(raw_score(setup, row), row.seldom, row.risk))
    return NOT_HELD + found * (1.0 + LESS_SURE * max(setup.asked_chance - row.chance, 0.0)) if row.close else found


def raw_score(setup: BaseSetup, row: Candidate) -> float:
    """What the goal counts of a row, whatever it breaks and is made for."""
    return float(score(setup, row.seconds, row.cost, row.secure, row.run_parts, row.beside + row.left_over))
