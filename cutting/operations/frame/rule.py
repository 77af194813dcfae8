"""A limit as data over the numbers of one set-up or of many, and the sorted list that it makes."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

import numpy as np
from numpy.typing import NDArray

from cutting.nomenclature import source_label
from cutting.operations.frame.outcome import TOUCHING, Bound, Limit, Severity, Standing
from cutting.operations.frame.over_passes import over_passes
from cutting.operations.frame.setup import HouseRules
from cutting.quantities.kinds import KINDS
from cutting.quantities.write import Display, display, write
from cutting.working import Line, Recorder, WorkingStep, last_step

Array = NDArray[np.float64]
Mask = NDArray[np.bool_]
N = TypeVar("N")
Read = tuple[Any, Any, Any]  # value, lower bound, upper bound: numbers or arrays (..., steps); None where there is none
SIDES = ("metric", "inch")
LEAST = 1e-9
ALL_OF_IT: Mapping[str, Any] = {}  # nothing is kept in hand
BOOK_RULES = ("book_speed", "book_feed", "book_depth")


def _always(x: Any) -> bool:
    return True


def _none_spare(x: Any) -> float:
    return 1.0


@dataclass(frozen=True)
class Rule(Generic[N]):
    """A limit: value and bounds read from a kind's numbers, and what breaking it means.

    `applies` may tell for each of many; `free_below` is a window whose lower side costs nothing. `told` gives value, bounds,
    kind and label as a person reads them where they are not what is compared, `told_source` its source where that depends.
    `contour` rules are drawn on a map. `where` says in words at which of several steps it is closest. `spare` is by what factor the
    bound lies below what really gives way, where it holds a safety of its own: so much of what is not known is covered by it.
    `working` names the formulae behind the value and `bounded` those behind the bound; `ends` and `bound_ends` are their last
    lines, where a formula's own result is not what is shown.
    """

    name: str
    label: str
    kind: str
    bound: Bound
    severity: Severity
    source: str
    why: str
    read: Callable[[N], Read]
    working: tuple[str, ...] = ()
    applies: Callable[[N], Any] = _always
    contour: bool = False
    free_below: bool = False
    told: Callable[[N], tuple[float, float | None, float | None, str, str]] | None = None
    told_source: Callable[[N], str] | None = None
    where: Callable[[N, int], str] | None = None
    spare: Callable[[N], float] = _none_spare
    ends: Callable[[N], Line | None] | None = None
    bounded: tuple[str, ...] = ()
    bound_ends: Callable[[N], Line | None] | None = None

    def used(self, x: N) -> Array:
        """Utilisation of this limit at every step, 0 where it does not apply."""
        return self.used_where(self.applies(x), x)

    def used_where(self, applies: Any, x: N) -> Array:
        """Utilisation at every step, 0 where it was found not to apply."""
        used = utilisation(self, *self.read(x))
        return used if applies is True or np.all(applies) else np.where(applies, used, 0.0)

    def weight(self, house: HouseRules) -> Severity:
        """Above the book is a matter of the house rule."""
        return Severity.SOFT if self.name in BOOK_RULES and not house.never_above_book else self.severity


def utilisation(rule: Rule[Any], value: Any, lower: Any, upper: Any) -> Array:
    """How much of a limit is used: value/upper, lower/value, or the worse side of a window (0 at its middle, 1 at its edge)."""
    value = np.asarray(value, float)
    if rule.name == "secure":  # risk taken against risk allowed
        return (100.0 - value) / np.maximum(100.0 - np.asarray(lower, float), LEAST)
    if rule.bound is Bound.LOWER:
        return np.asarray(lower, float) / np.maximum(value, LEAST)
    if rule.bound is Bound.UPPER or rule.free_below or lower is None:
        return value / np.maximum(np.inf if upper is None else upper, LEAST)
    middle, half = (np.asarray(upper) + lower) / 2.0, (np.asarray(upper) - lower) / 2.0
    return np.abs(value - middle) / np.maximum(half, LEAST)


def all_used(rules: Sequence[Rule[N]], x: N) -> dict[str, Array]:
    """Utilisation of every limit that applies to any, the worst over the steps: shape (..., 1)."""
    found: dict[str, Array] = {}
    for rule in rules:
        applies = rule.applies(x)
        if applies is True or (applies is not False and np.any(applies)):  # most rules know it of all at once
            found[rule.name] = over_passes(rule.used_where(applies, x))
    return found


def hard_ones(rules: Sequence[Rule[N]], used: Mapping[str, Any], house: HouseRules) -> list[str]:
    """Names of the limits in `used` that exclude where they are broken."""
    return [rule.name for rule in rules if rule.name in used and rule.weight(house) is Severity.HARD]


def soft_ones(rules: Sequence[Rule[N]], used: Mapping[str, Any]) -> list[str]:
    """Names of the limits in `used` that tell a tool from a better one where they are broken.

    What the house rule on books decides is the house's own; how surely a run ends the goal weighs.
    """
    apart = (*BOOK_RULES, "secure")
    return [rule.name for rule in rules if rule.name in used and rule.severity is Severity.SOFT and rule.name not in apart]


def excluded(rules: Sequence[Rule[N]], used: Mapping[str, Array], house: HouseRules, kept: Mapping[str, Any] = ALL_OF_IT) -> Mask:
    """Where a hard limit is over, shape (..., 1); `kept` are the utilisations by name up to which it holds as surely as is asked."""
    bad: Mask = np.zeros((1,), bool)
    for name in hard_ones(rules, used, house):
        bad = bad | (used[name] > kept.get(name, 1.0) * (1.0 + TOUCHING))
    return bad


def limits_of(rules: Sequence[Rule[Any]], x: Any, record: Recorder) -> tuple[Limit, ...]:
    """Every limit that applies to one set-up, hard ones that do not hold first, then by how close they are."""
    found = [_limit(rule, x, record) for rule in rules if np.any(rule.applies(x))]
    return in_order(one for one in found if one.upper != np.inf)  # a supplier's book that is silent bounds nothing


def in_order(limits: Iterable[Limit]) -> tuple[Limit, ...]:
    """Hard limits that are over first, then those that are close, then all by how much of what they may use they use."""
    order = (Standing.OVER, Standing.CLOSE, Standing.HOLDS)

    def place(one: Limit) -> tuple[int, float]:
        return order.index(one.standing) if one.severity is Severity.HARD else len(order) - 1, -one.utilisation / one.kept

    return tuple(sorted(limits, key=place))


def _limit(rule: Rule[Any], x: Any, record: Recorder) -> Limit:
    value, lower, upper = rule.read(x)
    used = np.atleast_1d(rule.used(x))
    worst = int(np.argmax(used))

    def at(number: Any) -> float | None:
        """The number of the worst step, where it differs from step to step."""
        if number is None:
            return None
        flat = np.ravel(number)
        return float(flat[worst] if flat.size > 1 else flat[0])

    found, low, high, kind, label = at(value), at(lower), at(upper), rule.kind, rule.label
    if rule.told is not None:
        found, low, high, kind, label = rule.told(x)
    if rule.where is not None and used.size > 1:
        label = f"{label}, {rule.where(x, worst)}"
    assert found is not None

    def led_to(names: tuple[str, ...], ends: Callable[[Any], Line | None] | None, number: float | None, of: str) -> tuple[WorkingStep, ...]:
        trail = record.trail(*names, at=(worst, used.size))
        last = None if ends is None or number is None else ends(x)
        return (
            trail
            if last is None or number is None
            else (*trail, last_step(rule.name, label, number, KINDS[of].metric, last, (worst, used.size)))
        )

    return Limit(
        rule.name,
        label,
        kind,
        rule.bound,
        found,
        low,
        high,
        display(found, kind),
        _bounds(low, high, kind),
        float(np.ravel(used)[worst]),
        rule.weight(x.setup.house),
        rule.told_source(x) if rule.told_source is not None else source_label(rule.source),
        rule.why,
        (),
        led_to(rule.working, rule.ends, found, kind),
        bound_working=led_to(rule.bounded, rule.bound_ends, high if high is not None else low, kind),
    )


def _bounds(low: float | None, high: float | None, kind: str) -> Display:
    if low is not None and high is not None:
        return Display(*(f"{write(low, kind, s, False)} – {write(high, kind, s, False)}" for s in SIDES))
    sign, bound = ("≤", high) if high is not None else ("≥", low or 0.0)
    return Display(*(f"{sign} {write(float(bound or 0.0), kind, s, False)}" for s in SIDES))
