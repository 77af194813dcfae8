"""Limits that kinds of operation share: how long an edge lasts, how surely a run ends, what the spindle drives, what the book says."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.machine.machines import Machine
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Read, Rule
from cutting.operations.frame.spent_lines import change_planned, secured
from cutting.working import Line, in_words, line
from cutting.working.line import COMMON

Array = NDArray[np.float64]

SURE_ENOUGH = 0.97  # of the chance that is wanted: a run planned to be just as sure is not told as broken


def house_grip(x: Any) -> float:
    """The house's safety of a grip: what holds a tool or part gives way only beyond it."""
    return float(x.setup.house.grip_safety)


def spindle_runs(asked: Any, diameter: Any, runs: Any) -> Line | None:
    """Why a spindle does not run as the speed asks [m/min at a diameter, mm]; None where it does."""
    if np.allclose(1000.0 * asked / (np.pi * np.asarray(diameter)), runs, rtol=1e-3):
        return None
    return in_words("the machine's own step, or a clamp, below that")


def grip_kept(held: Callable[[Any], Any]) -> Callable[[Any], Line]:
    """What the jaws hold, read by `held` [N·m], less the house's safety."""
    return lambda x: line("{grip_torque}/{grip_safety}", COMMON, grip_torque=held(x), grip_safety=x.setup.house.grip_safety)


def chuck_keeps(x: Any) -> Line:
    """What the tool's chuck holds, less the house's safety."""
    return line("{chuck_holds}/{grip_safety}", COMMON, chuck_holds=x.tool.grip, grip_safety=x.setup.house.grip_safety)


def power_of_torque(x: Any) -> Line:
    """Power of a torque at the spindle's speed."""
    return line("{torque_worn}·{spindle_speed}/9549.3", torque_worn=x.torque, spindle_speed=x.spindle_speed)


def torque_of_power(x: Any) -> Line:
    """Torque of a power at the spindle's speed."""
    return line("9549.3·{cutting_power}/{spindle_speed}", cutting_power=x.power, spindle_speed=x.spindle_speed)


def life(noun: str = "edge", *before: str) -> Rule[Any]:
    """An edge, drill, tap or mill that does not last one piece is changed in the cut; `before` are formulae of its working."""
    article = "An" if noun[0] in "aeiou" else "A"
    return Rule(
        "life", f"life, pieces per {noun}", "count", Bound.LOWER, Severity.SOFT, "taylor-1907",
        f"{article} {noun} should last at least one piece, so that it is not changed in the cut.",
        lambda x: (x.change_parts, 1.0, None), (*before, "speed_factor", "tool_life", "weibull_shape"), ends=change_planned,
    )  # fmt: skip


def secure(*working: str) -> Rule[Any]:
    """The chance that a run ends without a stop, against what goal and house want."""
    return Rule(
        "secure", "reliability", "share", Bound.LOWER, Severity.SOFT, "weibull-1951",
        "Probability that the run to the next planned change ends without a stop.", _security,
        working or ("weibull_shape", "completion_probability"), ends=secured,
        bound_ends=lambda x: line("100·{near}·{sure}", COMMON, near=SURE_ENOUGH, sure=x.setup.house.change_probability(x.setup.goal)),
    )  # fmt: skip


def _security(x: Any) -> Read:
    return 100.0 * x.secure, 100.0 * SURE_ENOUGH * x.setup.house.change_probability(x.setup.goal), None


def spindle_power(
    why: str,
    *working: str,
    ends: Callable[[Any], Line | None] | None = None,
    contour: bool = False,
    read: Any = lambda x: (x.power, None, x.available),
    turning: Callable[[Any], Any] = lambda x: x.spindle_speed,
) -> Rule[Any]:
    """The power of the worn edge against what the spindle gives at the speed [1/min] at which it is `turning`."""
    return Rule(
        "spindle_power", "spindle power, worn", "power", Bound.UPPER, Severity.HARD, "kienzle-1952", why, read, working, contour=contour,
        ends=ends, bound_ends=lambda x: _off_the_curve(x.setup.machine, np.ravel(read(x)[2]), np.ravel(turning(x))),
    )  # fmt: skip


def _off_the_curve(machine: Machine, given: Array, n: Array) -> Line:
    """What the spindle gives [kW] at the speed of the hardest cut [1/min], between the two points of its curve."""
    if n.size != given.size:  # the cut that binds, of many
        n = n[np.argmin(np.abs(machine.spindle_power(n) - given[0]))][None]
    slow, weak, fast, strong = machine.curve_around(n)
    text, numbers = "{its_curve}", dict[str, Any](its_curve=weak)
    if not np.allclose(weak, strong):
        text = "({power_below} + ({power_above} − {power_below})·({spindle_speed} − {speed_below})/({speed_above} − {speed_below}))"
        beside = np.where(fast > slow, fast, slow + 1.0)  # beyond the curve's ends both points are one
        numbers = {"power_below": weak, "power_above": strong, "spindle_speed": n, "speed_below": slow, "speed_above": beside}
    if machine.curve_at == "motor" and machine.efficiency != 1.0:
        text, numbers = f"{text}·{{efficiency}}", numbers | {"efficiency": machine.efficiency}
    believed = given / machine.spindle_power(n)
    if not np.allclose(believed, 1.0):
        text, numbers = f"{text}·{{as_learned}}", numbers | {"as_learned": believed}
    return line(text, "machine-data", **numbers)


def book_speed(why: str, least: float | None = None, contour: bool = False) -> Rule[Any]:
    """The speeds that the trade runs; from `least` of the book's lowest, where slower costs more than time."""
    if least is None:
        return Rule(
            "book_speed", "recommended speed", "cutting_speed", Bound.UPPER, Severity.HARD, "common-practice", why,
            lambda x: (x.cutting_speed, x.book_low, x.book_high), contour=contour,
        )  # fmt: skip
    return Rule(
        "book_speed", "recommended speed", "cutting_speed", Bound.WINDOW, Severity.HARD, "common-practice", why,
        lambda x: (x.cutting_speed, least * x.book_low, x.book_high), free_below=True, contour=contour,
    )  # fmt: skip
