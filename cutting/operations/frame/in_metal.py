"""A tool that is shut in by the metal, in a hole, a slot or a thread: the window and factor of its speed, and how long it lasts."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import lru_cache
from typing import Any

import numpy as np

from cutting.errors import CuttingError
from cutting.tooling.items import Grade
from cutting.wear.reference import OUTSIDE_USE, grade_fit, speed_factors
from cutting.workpiece.materials import Work

ONLY = np.zeros(1, np.intp)  # of a stock of one
OUT_OF_LETTER = 0.65  # of its speed that a tool keeps in a metal that its grade is not made for at all (common practice)
EXTRA_SCATTER = 0.05  # its life scatters more than a turning edge's (common practice)
REACHES = 5.0  # bar: of more, nothing more reaches an edge from outside a hole (common practice)


def pressure_outside(setup: Any) -> float:
    """Pressure [bar] that counts for the speed: of a jet from outside only some arrives."""
    return min(setup.machine.pressure(setup.settings.coolant) or 0.0, REACHES)


def speed_factor(work: Work, grade: Grade, pressure: float, skin: str) -> float:
    """What grade, metal, skin and coolant [bar] leave of the book's speed."""
    factor = math.prod(one.factor for one in speed_factors(work, grade, pressure, False, skin, False))
    return factor if grade_fit(grade, work.material.group.letter) is not None else factor * OUT_OF_LETTER / OUTSIDE_USE


def shut_in(work: Work, grade: Grade, law: Any, window: tuple[float, float], pressure: float, skin: str) -> dict[str, float]:
    """The numbers of a grade in a metal by name: its window of speeds [m/min] and their factor, and how it wears by its `law`."""
    return {
        "speed_low": window[0],
        "speed_high": window[1],
        "speed_factor": speed_factor(work, grade, pressure, skin),
        "taylor_exponent": law.taylor_exponent,
        "feed_exponent": law.feed_exponent,
        "scatter": law.coefficient_of_variation + EXTRA_SCATTER,
    }


@lru_cache(maxsize=512)
def stock_of_one(stock: Callable[..., Any], *parts: Any) -> Any:
    """A stock that holds one tool of these parts, kept because a set-up is evaluated many times."""
    return stock(*((part,) for part in parts))


def refuse_unrun(tool: Any, role: str, said: str) -> None:
    """Refuse a tool that nobody runs in this metal. Raises `CuttingError` of its role."""
    if np.isnan(tool.speed_high).any():
        raise CuttingError(f"tool.{role}", said)
