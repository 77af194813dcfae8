"""Remedies found by running them: each change of a set-up is tried, and what it brings is what is said."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from cutting.errors import CuttingError
from cutting.operations.frame.outcome import Limit, Remedy
from cutting.operations.frame.rule import N, Rule, sound
from cutting.quantities.kinds import currency
from cutting.quantities.write import Display, write

S = TypeVar("S")
SYSTEMS = ("metric", "inch")


@dataclass(frozen=True)
class Change(Generic[S]):
    """One thing that can be done otherwise: its words, what to set in the form, and the set-up that it makes."""

    text: Display
    patch: dict[str, Any]
    setup: S


def in_words(text: str) -> Display:
    """The same words in both systems."""
    return Display(text, text)


def step(what: str, before: float, after: float, kind: str) -> Display:
    """`what before → after` in both systems."""
    return Display(*(f"{what} {write(before, kind, s, False)} → {write(after, kind, s)}" for s in SYSTEMS))


def setting(name: str, what: str, before: float, after: float, kind: str, changed: Any) -> Change[Any]:
    """A change of one setting; `changed` is the set-up with it."""
    return Change(step(what, before, after, kind), {"settings": {name: write(after, kind)}}, changed)


def remedies_for(
    limit: Limit, x: N, rules: Sequence[Rule[N]], changes: Iterable[Change[Any]], run: Callable[[Any], N]
) -> tuple[Remedy, ...]:
    """Up to three changes, run and found to help: below the bound, sound ones first, then the cheapest."""
    rule = next(one for one in rules if one.name == limit.name)
    tried = []
    for change in changes:
        try:
            then = run(change.setup)
        except CuttingError:
            continue
        used = rule.used(then)
        if used < 0.97 * limit.utilisation:
            tried.append((not sound(rules, then), used > 1.0, then.cost, change, used, then))
    # what brings it below its bound, cheapest first; where nothing does, what comes nearest
    enough = [one for one in tried if not one[1]]
    tried = sorted(enough, key=lambda one: (one[0], one[2])) if enough else sorted(tried, key=lambda one: one[4])
    said = limit.label.split(",")[0]
    return tuple(
        Remedy(
            change.text,
            in_words(f"{said} {limit.utilisation:.0%} → {used:.0%} of its bound, {_paid(x, then)}"),
            change.patch,
        )
        for _, _, _, change, used, then in _unlike(tried)
    )


def faster(x: N, rules: Sequence[Rule[N]], changes: Iterable[Change[Any]], run: Callable[[Any], N]) -> tuple[Remedy, ...]:
    """Up to two sound changes that save the most time."""
    found = []
    for change in changes:
        try:
            then = run(change.setup)
        except CuttingError:
            continue
        if then.seconds < 0.985 * x.seconds and sound(rules, then):
            found.append((then.seconds, change, then))
    found.sort(key=lambda one: one[0])
    return tuple(Remedy(change.text, in_words(_paid(x, then)), change.patch) for _, change, then in found[:2])


def _unlike(tried: list[Any]) -> list[Any]:
    """The first three, at most two of which set the same thing."""
    kept: list[Any] = []
    for one in tried:
        alike = sum(1 for other in kept if _sets(other[3]) == _sets(one[3]))
        if alike < 1:
            kept.append(one)
    return kept[:3]


def _sets(change: Change[Any]) -> tuple[str, ...]:
    return tuple(f"{section}.{name}" for section, values in change.patch.items() for name in values)


def _paid(before: N, then: N) -> str:
    return f"{then.seconds - before.seconds:+.1f} s, {then.cost - before.cost:+.2f} {currency()}".replace("-", "−")
