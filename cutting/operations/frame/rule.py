"""A limit as data over the numbers of a set-up, and the sorted list that it makes."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Generic, Protocol, TypeVar

import numpy as np

from cutting.nomenclature import source_label
from cutting.operations.frame.outcome import Bound, Limit, Severity
from cutting.operations.frame.setup import HouseRules
from cutting.quantities.write import Display, display, write
from cutting.working import Recorder

BOOK_RULES = ("book_speed",)


class Housed(Protocol):
    """A set-up that carries the shop's house rules."""

    @property
    def house(self) -> HouseRules: ...


class Numbers(Protocol):
    """What every kind computes: the set-up, and what it takes and costs."""

    @property
    def setup(self) -> Any: ...
    @property
    def seconds(self) -> float: ...
    @property
    def cost(self) -> float: ...
    @property
    def secure(self) -> float: ...
    @property
    def change_parts(self) -> float: ...
    @property
    def edge_cost(self) -> float: ...


N = TypeVar("N", bound=Numbers)
Read = tuple[float, float | None, float | None]  # value, lower bound, upper bound


def _always(x: Any) -> bool:
    return True


@dataclass(frozen=True)
class Rule(Generic[N]):
    """A limit: value and bounds read from the numbers of a set-up, and what breaking it means."""

    name: str
    label: str
    kind: str
    bound: Bound
    severity: Severity
    source: str
    why: str
    read: Callable[[N], Read]
    working: tuple[str, ...] = ()
    applies: Callable[[N], bool] = _always

    def used(self, x: N) -> float:
        """Utilisation of this limit, 0 where it does not apply."""
        return utilisation(self.name, self.bound, *self.read(x)) if self.applies(x) else 0.0

    def weight(self, house: HouseRules) -> Severity:
        """Above the book is a matter of the house rule."""
        return Severity.SOFT if self.name in BOOK_RULES and not house.never_above_book else self.severity


def utilisation(name: str, bound: Bound, value: float, lower: float | None, upper: float | None) -> float:
    """How much of a limit is used: value/upper, lower/value, or the worse side of a window (0 middle, 1 edge)."""
    if name == "secure":  # risk taken against risk allowed
        return (100.0 - value) / max(100.0 - (lower or 0.0), 1e-9)
    if bound is Bound.WINDOW and lower is not None and upper is not None:
        return float(abs(value - (upper + lower) / 2) / max((upper - lower) / 2, 1e-9))
    if bound is Bound.LOWER and lower is not None:
        return lower / max(value, 1e-9)
    return float(value / np.maximum(upper if upper is not None else np.inf, 1e-9))


def limits_of(rules: Sequence[Rule[N]], x: N, record: Recorder) -> tuple[Limit, ...]:
    """Every limit that applies, broken hard ones first, then by how close they are."""
    house: HouseRules = x.setup.house
    found = []
    for rule in rules:
        if not rule.applies(x):
            continue
        value, low, high = rule.read(x)
        found.append(
            Limit(
                rule.name,
                rule.label,
                rule.kind,
                rule.bound,
                float(value),
                low,
                high,
                display(value, rule.kind),
                _bounds(low, high, rule.kind),
                utilisation(rule.name, rule.bound, value, low, high),
                rule.weight(house),
                source_label(rule.source),
                rule.why,
                (),
                record.trail(*rule.working),
            )
        )
    return tuple(sorted(found, key=lambda one: (not (one.broken and one.severity is Severity.HARD), -one.utilisation)))


def sound(rules: Sequence[Rule[N]], x: N) -> bool:
    """Whether no hard limit is broken."""
    house: HouseRules = x.setup.house
    return all(rule.used(x) <= 1.0 + 1e-9 for rule in rules if rule.weight(house) is Severity.HARD)


def worst(rules: Sequence[Rule[N]], x: N) -> Rule[N]:
    """The hard limit that is used the most."""
    house: HouseRules = x.setup.house
    return max((rule for rule in rules if rule.weight(house) is Severity.HARD and rule.applies(x)), key=lambda rule: rule.used(x))


def closest(rules: Sequence[Rule[N]], x: N) -> Rule[N]:
    """The limit that is used the most, hard or soft."""
    return max((rule for rule in rules if rule.applies(x)), key=lambda rule: rule.used(x))


def _bounds(low: float | None, high: float | None, kind: str) -> Display:
    if low is not None and high is not None:
        return Display(*(f"{write(low, kind, s, False)} – {write(high, kind, s, False)}" for s in ("metric", "inch")))
    sign, bound = ("≤", high) if high is not None else ("≥", low or 0.0)
    return Display(*(f"{sign} {write(float(bound or 0.0), kind, s, False)}" for s in ("metric", "inch")))
