"""A map of limits over two settings: where each stands at its bound, and the field that none forbids."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from contourpy import contour_generator
from numpy.typing import NDArray

from cutting.operations.frame.outcome import TOUCHING
from cutting.operations.frame.rule import Rule

Array = NDArray[np.float64]
Polyline = tuple[tuple[float, float], ...]
Rectangle = tuple[float, float, float, float]  # across, up, across, up
DIGITS = 5


@dataclass(frozen=True)
class LimitLine:
    """Where a limit stands at its bound, in lines of (across, up)."""

    name: str
    label: str
    lines: tuple[Polyline, ...]


@dataclass(frozen=True)
class LimitMap:
    """Two settings over each other: values `across` and `up`, the limits' lines, the sound field, and where the set-up stands.

    `worst` is the closest limit's utilisation, (up, across).
    """

    across: Array
    up: Array
    edges: tuple[LimitLine, ...]
    sound: tuple[Rectangle, ...]
    worst: Array
    at: tuple[float, float]


def contour(across: Array, up: Array, used: Array) -> tuple[Polyline, ...]:
    """Lines of (across, up) along which utilisation, shape (up, across), is 1."""
    lines = contour_generator(across, up, used).lines(1.0)
    return tuple(tuple((float(f"{a:.{DIGITS}g}"), float(f"{b:.{DIGITS}g}")) for a, b in np.asarray(line)) for line in lines)


def rectangles(field: NDArray[np.bool_], across: Array, up: Array) -> tuple[Rectangle, ...]:
    """A field row by row: every unbroken stretch; `across` and `up` are the borders of its cells, one more than there are."""
    made = []
    for row, good in enumerate(field):
        ends = np.flatnonzero(np.diff(np.concatenate([[False], good, [False]]).astype(int)))
        made += [(float(across[a]), float(up[row]), float(across[b]), float(up[row + 1])) for a, b in ends.reshape(-1, 2)]
    return tuple(made)


def borders(values: Array) -> Array:
    """The borders of cells about evenly spaced values."""
    half = (values[1] - values[0]) / 2.0
    return np.concatenate([values - half, [values[-1] + half]])


def limit_map(rules: Sequence[Rule[Any]], x: Any, across: Array, up: Array, at: tuple[float, float], drawn: bool = True) -> LimitMap:
    """The map of numbers that were run over (up, across, steps); of several steps the closest counts. Only `contour` rules are on it."""
    shape = (len(up), len(across))
    worst, edges = np.zeros(shape), []
    for rule in rules:
        if not rule.contour or not np.any(rule.applies(x)):
            continue
        level = rule.used(x)
        used = np.broadcast_to(level, (*shape, np.shape(level)[-1])).max(axis=-1)
        worst = np.maximum(worst, used)
        if drawn and used.min() < 1.0 < used.max() and (lines := contour(across, up, used)):
            edges.append(LimitLine(rule.name, rule.label.split(",")[0], lines))
    sound = rectangles(worst <= 1.0 + TOUCHING, borders(across), borders(up)) if drawn else ()
    return LimitMap(across, up, tuple(edges), sound, worst, at)
