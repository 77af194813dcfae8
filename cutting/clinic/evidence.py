"""What an operation's own numbers say for or against a cause: `limit.finish>0.85`, `under.chip_window>0.9`, `skin=forged`."""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from cutting.operations.frame.outcome import Limit, Outcome
from cutting.quantities.write import Display

SOFT = 0.15  # of a value's logarithm, over which what it says turns from no to yes: no cliff at the bound
STRENGTH = 2.5  # by what the odds of a cause move where its numbers speak for it (common practice)
PATTERN = re.compile(r"(\w+)(?:\.(\w+))?([<>=])(.+)")
SIDES = {">": 1.0, "<": -1.0}


@dataclass(frozen=True)
class Weighed:
    """One piece of evidence as it stands here: 0 not at all, 1 wholly, and the numbers in words."""

    degree: float
    words: Display


def factor(supports: tuple[Weighed, ...], denies: tuple[Weighed, ...]) -> float:
    """By what the odds of a cause move.

    What is said for a cause shares its reasons, and so does what is said against it: of each only the strongest counts.
    """
    found = 1.0
    if supports:
        found *= STRENGTH ** (2.0 * max(one.degree for one in supports) - 1.0)
    if denies:
        found *= STRENGTH ** -max(one.degree for one in denies)
    return float(found)


def weigh(text: str, setup: Any, outcome: Outcome) -> Weighed | None:
    """How far one expression holds of an operation; None where it has nothing that the expression speaks of."""
    found = PATTERN.fullmatch(text.strip())
    assert found, text
    place, name, sign, wanted = found.groups()
    if place in ("limit", "under", "over"):
        return _of_limit(place, outcome, name, sign, float(wanted))
    if place == "result":
        value = outcome.results.get(name)
        if value is None:
            return None
        return Weighed(_soft(value.value, float(wanted), sign), Display(*(f"{value.label} {one}" for one in _sides(value.display))))
    return _of_setting(setup, place, name, sign, wanted)


def _of_limit(place: str, outcome: Outcome, name: str, sign: str, wanted: float) -> Weighed | None:
    limit = next((one for one in outcome.limits if one.name == name), None)
    if limit is None:
        return None
    value = _used(place, limit)
    if value is None:
        return None
    told = (f"{limit.label}: {a}, bound {b}" for a, b in zip(_sides(limit.value_display), _sides(limit.bound_display), strict=True))
    return Weighed(_soft(value, wanted, sign), Display(*told))


def _used(place: str, limit: Limit) -> float | None:
    """How near a limit stands to its bound, or to its lower or upper one; None where it has no such bound."""
    if place == "under":
        return None if limit.lower is None or limit.value <= 0 else limit.lower / limit.value
    if place == "over":
        return None if not limit.upper else limit.value / limit.upper
    return limit.utilisation


def _of_setting(setup: Any, place: str, name: str | None, sign: str, wanted: str) -> Weighed | None:
    owner = getattr(setup, place, None)
    if place == "work" and name == "group":
        value: Any = setup.work.material.group.letter
    elif name is None:
        value = owner
    else:
        value = getattr(owner, name, None)
    if value is None:
        return None
    label = (name or place).replace("_", " ")
    if sign == "=":
        told = _word(value)
        return Weighed(1.0 if told == wanted else 0.0, Display(*[f"{label} {told}"] * 2))
    return Weighed(_soft(float(value), float(wanted), sign), Display(*[f"{label} {float(value):g}"] * 2))


def _word(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return str(getattr(value, "value", value))


def _soft(value: float, wanted: float, sign: str) -> float:
    """0 to 1: a half at the bound that is asked."""
    if value <= 0:
        return 0.0 if sign == ">" else 1.0
    return 1.0 / (1.0 + math.exp(-SIDES[sign] * math.log(value / wanted) / SOFT))


def _sides(told: Display) -> tuple[str, str]:
    return (told.metric, told.inch)


def names_in(expressions: tuple[str, ...]) -> Mapping[str, set[str]]:
    """Names that expressions speak of, by place: for the test that holds them to the registry."""
    found: dict[str, set[str]] = {}
    for text in expressions:
        if match := PATTERN.fullmatch(text.strip()):
            found.setdefault(match[1], set()).add(match[2] or "")
    return found
