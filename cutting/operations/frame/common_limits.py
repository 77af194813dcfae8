"""Limits that kinds of operation share: how long an edge lasts, how surely a run ends, what the spindle drives, what the book says."""

from __future__ import annotations

from typing import Any

from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Read, Rule

SURE_ENOUGH = 0.97  # of the chance that is wanted: a run planned to be just as sure is not told as broken


def house_grip(x: Any) -> float:
    """The house's safety of a grip: what holds a tool or part gives way only beyond it."""
    return float(x.setup.house.grip_safety)


def life(noun: str = "edge", *before: str) -> Rule[Any]:
    """An edge, drill, tap or mill that does not last one piece is changed in the cut; `before` are formulae of its working."""
    article = "An" if noun[0] in "aeiou" else "A"
    return Rule(
        "life", f"life, pieces per {noun}", "count", Bound.LOWER, Severity.SOFT, "taylor-1907",
        f"{article} {noun} should last at least one piece, so that it is not changed in the cut.",
        lambda x: (x.change_parts, 1.0, None), (*before, "tool_life", "weibull_shape"),
    )  # fmt: skip


def secure(*working: str) -> Rule[Any]:
    """The chance that a run ends without a stop, against what goal and house want."""
    return Rule(
        "secure", "secure run", "share", Bound.LOWER, Severity.SOFT, "weibull-1951",
        "Probability that the run to the next planned change ends without a stop.", _security, working or ("weibull_shape",),
    )  # fmt: skip


def _security(x: Any) -> Read:
    return 100.0 * x.secure, 100.0 * SURE_ENOUGH * x.setup.house.change_probability(x.setup.goal), None


def spindle_power(why: str, *working: str, contour: bool = False, read: Any = lambda x: (x.power, None, x.available)) -> Rule[Any]:
    """The power of the worn edge against what the spindle gives at its speed."""
    return Rule(
        "spindle_power", "spindle power, worn", "power", Bound.UPPER, Severity.HARD, "kienzle-1952", why, read, working, contour=contour
    )


def book_speed(why: str, least: float | None = None, contour: bool = False) -> Rule[Any]:
    """The speeds that the trade runs; from `least` of the book's lowest, where slower costs more than time."""
    if least is None:
        return Rule(
            "book_speed", "book window, speed", "cutting_speed", Bound.UPPER, Severity.HARD, "common-practice", why,
            lambda x: (x.cutting_speed, x.book_low, x.book_high), contour=contour,
        )  # fmt: skip
    return Rule(
        "book_speed", "book window, speed", "cutting_speed", Bound.WINDOW, Severity.HARD, "common-practice", why,
        lambda x: (x.cutting_speed, least * x.book_low, x.book_high), free_below=True, contour=contour,
    )  # fmt: skip
