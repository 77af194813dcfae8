"""One money and one security for every kind of operation: how often the edge is changed, what a piece costs, how surely it runs."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.money.cost import operation_cost, operation_time, optimum_life_for_cost, optimum_life_for_time
from cutting.operations.frame.outcome import Warning
from cutting.operations.frame.setup import BaseSetup, Goal
from cutting.quantities.write import Display, display
from cutting.wear import spread
from cutting.working import Silent

Array = NDArray[np.float64]
LEAST_SECONDS = 1e-6
EARLY = "pieces per edge a little below the planned change: edges that fail before it are paid too"
SECURE_LIFE = 1.5  # × the cheapest life, where security is the goal (common practice)


@dataclass(frozen=True)
class Spent:
    """Seconds, money and security of an operation on one piece: arrays (..., 1)."""

    engaged_time: Array
    idle_time: Array
    change_parts: Array  # pieces between planned changes of the edge
    median_parts: Array
    run_parts: Array  # pieces between two looks at the machine
    stop_chance: Array  # that chips stop the machine, a piece
    edge_lasts: Array  # chance that the edge lasts the pieces between two looks
    secure: Array
    edge_cost: Array
    operation_cost: Array
    operation_time: Array


def spend(
    setup: BaseSetup, engaged: Array, idle: Any, life_used: Array, shape: Array, edge_cost: Any, stop_chance: Any, record: Silent
) -> dict[str, Array]:
    """The fields of `Spent`: an edge of which each piece takes `life_used` of a life, changed at the planned share of lives.

    `engaged` and `idle` [s] a piece, `shape` the Weibull shape, `stop_chance` the chance a piece that chips stop the machine.
    """
    machine, house, batch = setup.machine, setup.house, setup.batch
    median_parts = 1.0 / life_used
    planned = median_parts / _drawn(setup, record) * spread.life_quantile(house.change_probability(setup.goal), shape)
    shift = house.longest_change_hours * 3600.0 / np.maximum(engaged, LEAST_SECONDS)
    planned = np.minimum(planned, shift)
    change_parts = np.where(planned >= 1.0, np.floor(planned), planned)
    money: dict[str, Any] = {
        "engaged_time": engaged,
        "idle_time": idle,
        "change_time": machine.edge_change_time,
        # an edge that fails before it is changed is paid all the same
        "parts_per_edge": change_parts * spread.mean_used(change_parts * life_used, shape),
    }
    seconds = record(operation_time, note=EARLY, **money)
    cost = record(operation_cost, note=EARLY, rate=machine.rate, edge_cost=edge_cost, **money)
    alone = batch.unattended_hours * 3600.0
    attended = np.minimum(np.maximum(change_parts, 1.0), batch.pieces)
    run_parts = np.ceil(alone / (batch.piece_seconds or seconds)) if alone > 0 else attended
    edge_lasts = record(
        spread.completion_probability,
        time_in_cut=run_parts * life_used,
        tool_life=1.0,
        weibull_shape=shape,
        note="time in cut as a share of life",
    )
    return {
        "engaged_time": engaged,
        "idle_time": np.asarray(idle, float),
        "change_parts": change_parts,
        "median_parts": median_parts,
        "run_parts": run_parts,
        "stop_chance": np.asarray(stop_chance, float),
        "edge_lasts": edge_lasts,
        "secure": edge_lasts * (1.0 - stop_chance) ** run_parts,
        "edge_cost": np.asarray(edge_cost, float),
        "operation_cost": cost,
        "operation_time": seconds,
    }


def _drawn(setup: BaseSetup, record: Silent) -> Any:
    """How much longer an edge lasts in a draw than it is believed to: a plan keeps its interval, whatever the edges turn out to be."""
    drawn = np.asarray(record.factor("life") / setup.factors.get("life", 1.0))
    return drawn[..., :1] if drawn.ndim else drawn


def goal_life(setup: BaseSetup, taylor_exponent: Any, edge_cost: Any, shape: Any) -> Array:
    """Median life [min] that the goal wants of an edge: its planned interval is the life of least cost or of shortest time."""
    change = setup.machine.edge_change_time
    if setup.goal is Goal.FASTEST:
        life = optimum_life_for_time(taylor_exponent, change)
    else:
        life = optimum_life_for_cost(taylor_exponent, change, edge_cost, setup.machine.rate)
        if setup.goal is Goal.MOST_SECURE:
            life = SECURE_LIFE * life
    # the planned interval is a share of the median, and it is the interval that the optimum speaks of
    return np.maximum(life / spread.life_quantile(setup.house.change_probability(setup.goal), shape), LEAST_LIFE)


def unattended_life(setup: BaseSetup, shape: Any, cutting_seconds: Any) -> Array | None:
    """Median life [min] with which an edge lasts a run alone as surely as the goal wants; None where nobody goes away.

    `cutting_seconds` a piece tell its share of the time where other operations take turns.
    """
    if setup.batch.unattended_hours <= 0:
        return None
    share = CUTTING_SHARE
    if setup.batch.piece_seconds:
        share = np.minimum(cutting_seconds / setup.batch.piece_seconds, CUTTING_SHARE)
    return np.asarray(setup.batch.unattended_hours * 60.0 * share / spread.life_quantile(setup.house.change_probability(setup.goal), shape))


CUTTING_SHARE = 0.85  # of unattended time that an edge is engaged, at most (common practice)
LEAST_LIFE = 3.0  # min: nobody plans for less (common practice)
# minutes in the cut between which Taylor's law is trusted: beyond, size drift, nicks and chips end an edge first (common practice)
TRUSTED_LIFE = 120.0


def life_shown(minutes: float) -> Display:
    """A life [min] as far as a law of wear says anything."""
    return _over(TRUSTED_LIFE, "life") if minutes > TRUSTED_LIFE else display(minutes, "life")


def parts_shown(parts: float, minutes: float) -> Display:
    """Pieces that an edge lasts, of a life of so many minutes in the cut, as far as a law of wear says anything."""
    return _over(parts * TRUSTED_LIFE / minutes, "count") if minutes > TRUSTED_LIFE else display(parts, "count")


def _over(value: float, kind: str) -> Display:
    said = display(value, kind)
    return Display(f"over {said.metric}", f"over {said.inch}")


def life_notes(setup: BaseSetup, life: float, engaged: float, median_parts: float, change_parts: float, shape: float) -> list[Warning]:
    """What to know of a life [min] that is longer or shorter than people plan; `engaged` [s] a piece."""
    found = []
    if life > TRUSTED_LIFE:
        planned = median_parts * float(spread.life_quantile(setup.house.change_probability(setup.goal), shape))
        early = f" It is changed after {setup.house.longest_change_hours:g} h in the cut." if planned > change_parts + 1.0 else ""
        found.append(
            Warning(
                "beyond_wear",
                f"Wear alone would let this edge last longer than {TRUSTED_LIFE:g} min in the cut: size drift, nicks and chips"
                f" end it first.{early}",
                "note",
            )
        )
    if 0.0 < life < LEAST_LIFE:
        found.append(
            Warning("short_life", f"{life:.1f} min in the cut: edges are normally planned for at least {LEAST_LIFE:g} min.", "care")
        )
    return found
