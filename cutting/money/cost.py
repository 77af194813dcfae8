"""Cost of an edge, an operation and a piece."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import formula

Array = NDArray[np.float64]

HOLDER_EDGES = 400.0  # edges that a holder sees before it is replaced (common practice)


def insert_edge_cost(price: ArrayLike, usable_edges: ArrayLike, holder_price: ArrayLike = 0.0) -> Array:
    """Cost Ce of one edge: insert price over its usable edges, with the holder's share. Money in, money out.

    >>> round(float(insert_edge_cost(9.2, 4)), 2)
    2.3
    """
    return np.asarray(price) / np.asarray(usable_edges) + np.asarray(holder_price) / HOLDER_EDGES


def solid_tool_cost(price: ArrayLike, regrinds: ArrayLike, regrind_price: ArrayLike) -> Array:
    """Cost Ce of one life of a tool that is reground: (price + regrinds·regrind price)/(regrinds + 1).

    >>> round(float(solid_tool_cost(60.0, 3, 15.0)), 2)
    26.25
    """
    return (np.asarray(price) + np.asarray(regrinds) * np.asarray(regrind_price)) / (np.asarray(regrinds) + 1.0)


@formula(
    "operation_cost",
    "{rate}/3600·({engaged_time} + {idle_time} + 60·{change_time}/{parts_per_edge}) + {edge_cost}/{parts_per_edge}",
    "groover",
)
def operation_cost(
    rate: ArrayLike,
    engaged_time: ArrayLike,
    idle_time: ArrayLike,
    change_time: ArrayLike,
    edge_cost: ArrayLike,
    parts_per_edge: ArrayLike,
) -> Array:
    """Cost Co of one operation per piece.

    Rate R [money/h], tc and ti [s], edge change tch [min], edge cost Ce, pieces per planned change N (may be a
    fraction where one edge does not last a piece). Source: Groover, ch. 24.

    >>> round(float(operation_cost(60.0, 60.0, 12.0, 2.0, 5.0, 10.0)), 3)
    1.9
    """
    seconds = operation_time(engaged_time, idle_time, change_time, parts_per_edge)
    return np.asarray(rate) / 3600.0 * seconds + np.asarray(edge_cost) / np.asarray(parts_per_edge)


@formula("operation_time", "{engaged_time} + {idle_time} + 60·{change_time}/{parts_per_edge}", "groover")
def operation_time(engaged_time: ArrayLike, idle_time: ArrayLike, change_time: ArrayLike, parts_per_edge: ArrayLike) -> Array:
    """Time t [s] of one operation per piece with its share of edge changes. Source: Groover, ch. 24.

    >>> round(float(operation_time(60.0, 12.0, 2.0, 10.0)), 1)
    84.0
    """
    return np.asarray(engaged_time) + np.asarray(idle_time) + 60.0 * np.asarray(change_time) / np.asarray(parts_per_edge)


def optimum_life_for_cost(taylor_exponent: ArrayLike, change_time: ArrayLike, edge_cost: ArrayLike, rate: ArrayLike) -> Array:
    """Life T [min] of least cost: (1/n − 1)(tch + Ce/R'), tch [min], R [money/h]. Source: Gilbert 1950.

    >>> round(float(optimum_life_for_cost(0.25, 2.0, 3.0, 60.0)), 2)
    15.0
    """
    per_minute = np.asarray(rate, float) / 60.0
    return (1.0 / np.asarray(taylor_exponent) - 1.0) * (np.asarray(change_time) + np.asarray(edge_cost) / per_minute)


def optimum_life_for_time(taylor_exponent: ArrayLike, change_time: ArrayLike) -> Array:
    """Life T [min] of shortest time: (1/n − 1)·tch [min]. Source: Gilbert 1950.

    >>> round(float(optimum_life_for_time(0.25, 2.0)), 2)
    6.0
    """
    return (1.0 / np.asarray(taylor_exponent) - 1.0) * np.asarray(change_time)
