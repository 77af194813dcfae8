"""What the studies' answers are made of."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from cutting.quantities import Display, display

Answer = dict[str, Any]


def curve(name: str, label: str, xs: Sequence[float], ys: Sequence[float]) -> Answer:
    """A curve as plain numbers."""
    return {"name": name, "label": label, "points": [[x, y] for x, y in zip(xs, ys, strict=True)]}


def small(millimetres: float) -> Display:
    """A small length in words."""
    return display(1000.0 * millimetres, "small_length")
