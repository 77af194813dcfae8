"""The book's row and the supplier's own window, as bounds on speed, feed and depth."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np

from cutting.nomenclature import source_label
from cutting.operations.frame.rule import Array
from cutting.operations.turned.case import Cutter
from cutting.operations.turned.physics import Cut
from cutting.wear.life import factor_along_edge, speed_for_life

BOOK_LOW, BOOK_HIGH = 0.6, 1.1
SPEED_LOW, SPEED_HIGH, FEED_LOW, FEED_HIGH, DEPTH_LOW, DEPTH_HIGH = range(6)  # columns of a supplier's spans


def book_window(x: Cut) -> tuple[Array, Array]:
    """Least and largest cutting speed [m/min]: the supplier's own where the shop has entered it, else around the starting speed."""
    start = book_start(x.cutter, x.chip_thickness, x.depth_of_cut)
    low, high = x.cutter.book[..., SPEED_LOW], x.cutter.book[..., SPEED_HIGH]
    return np.where(np.isnan(low), BOOK_LOW * start, low), np.where(np.isnan(high), BOOK_HIGH * start, high)


def largest_of_book(column: int) -> Callable[[Cutter], Array]:
    """The supplier's largest value, inf where the book says nothing."""
    return lambda cutter: np.where(np.isnan(cutter.book[..., column]), np.inf, cutter.book[..., column])


def book_start(cutter: Cutter, chip_thickness: Any, depth: Any) -> Array:
    """The book's starting speed: the group's row, corrected, moved to this chip as far as a book does."""
    return speed_for_life(
        15.0,  # min that an edge lasts at the speeds of the book
        cutter.reference_speed,
        factor_along_edge(cutter.speed_factor, cutter.cutting_edge_angle, depth, cutter.nose_radius),
        cutter.taylor_exponent,
        cutter.reference_feed,
        chip_thickness,
        cutter.feed_exponent,
        cutter.reference_depth,
        depth,
        cutter.depth_exponent,
        cutter.light_gain,
    )


def has_book(x: Cut) -> Any:
    """Where the supplier's book says something for the tool in this group."""
    return ~np.isnan(x.cutter.book).all(axis=-1)


def book_source(x: Cut) -> str:
    """Who says the window of the set-up's own tool: the shop's supplier, else the trade."""
    group = x.setup.work.material.group.number
    own = next((window for window in x.setup.insert.book if window.group == group), None)
    return source_label("common-practice") if own is None else own.source or "the shop's supplier, entered by the user"
