"""A set-up in which something is wrong that its plan does not know."""

from __future__ import annotations

import re
from collections.abc import Mapping
from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.errors import CuttingError
from cutting.operations.frame.rule import all_used
from cutting.operations.registry import kind_of
from cutting.working import Silent

STEP = re.compile(r"([a-z_]+)\.([a-z_ ]+)([*=])(.+)")


@dataclass(frozen=True)
class Faulty:
    """What really runs: the set-up, and by what the tables are off, by quantity."""

    setup: Any
    factors: Mapping[str, float]


@dataclass(frozen=True)
class FaultRun:
    """How much of each limit is used, seconds and money of a piece; numbers, or arrays over draws."""

    used: Mapping[str, Any]
    seconds: Any
    cost: Any


def faulty(setup: Any, fault: tuple[str, ...], size: float = 1.0) -> Faulty | None:
    """The set-up with a fault, `size` times as grave as the table has it; None where it cannot have it."""
    factors: dict[str, float] = {}
    there = setup
    for text in fault:
        match = STEP.fullmatch(text.strip())
        assert match, text
        place, name, sign, told = match.groups()
        if place == "factors":
            factors[name] = factors.get(name, 1.0) * float(told) ** size
            continue
        owner = getattr(there, place, None)
        name = there.FEED if (place, name) == ("settings", "feed") else name  # per revolution or per tooth
        if owner is None or not name or not hasattr(owner, name):
            return None
        now = getattr(owner, name)
        if now is None and name == "overhang":
            now = getattr(there, "overhang", None)
        if sign == "*" and not isinstance(now, (int, float)):
            return None
        value = now * float(told) ** size if sign == "*" else _as(now, told, size)
        if value == now:
            return None
        there = replace(there, **{place: replace(owner, **{name: value})})
    return Faulty(there, factors)


def _as(now: Any, told: str, size: float) -> Any:
    if isinstance(now, bool):
        return told == "yes"
    with suppress(ValueError):
        return float(told) * size
    return type(now)(told) if now is not None and not isinstance(now, str) else told


def run(there: Faulty, drawn: Mapping[str, Any] | None = None) -> FaultRun | None:
    """Its limits, seconds and money, once or for many draws of what is not known; None where it cannot be run."""
    setup = there.setup
    model = kind_of(setup.operation).model
    factors: dict[str, Any] = dict(setup.factors)
    for more in (there.factors, drawn or {}):
        for quantity, by in more.items():
            factors[quantity] = factors.get(quantity, 1.0) * by
    with suppress(CuttingError):
        setup.check()
        x = model.numbers(setup, model.tool(setup), setup.settings.cutting_speed, setup.feed, Silent(factors))
        used = {name: np.squeeze(level) for name, level in all_used(model.rules, x).items()}
        return FaultRun(used, np.squeeze(x.operation_time), np.squeeze(x.operation_cost))
    return None
