"""Runs formulae; the recording kind also keeps each step as one reads it on paper."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.nomenclature import SYMBOLS, source_label
from cutting.working.formula import Formula


@dataclass(frozen=True)
class Step:
    """One line of working: symbol = formula = numbers = value unit, and where the formula is from."""

    key: str
    symbol: str
    meaning: str
    formula: str
    substituted: str
    value: float
    unit: str
    source: str
    honesty: str
    note: str = ""


class Silent:
    """Only computes: for maps and rankings."""

    def __call__(self, function: Callable[..., Any], note: str = "", **inputs: Any) -> Any:
        return function(**inputs)


class Recorder(Silent):
    """Computes and remembers. Of several passes the last one is written down."""

    def __init__(self) -> None:
        self.steps: dict[str, Step] = {}

    def __call__(self, function: Callable[..., Any], note: str = "", **inputs: Any) -> Any:
        value = function(**inputs)
        known: Formula = function.formula  # type: ignore[attr-defined]
        numbers = {name: _short(_last(given)) for name, given in inputs.items()}
        text = known.text.format_map(_Fallback(numbers))
        self.steps[known.result.name] = Step(
            known.result.name,
            known.result.symbol,
            known.result.meaning,
            known.symbolic(),
            text,
            _last(value),
            known.result.unit,
            source_label(known.source),
            known.honesty.value,
            note,
        )
        return value

    def trail(self, *names: str) -> tuple[Step, ...]:
        """The steps with these results, in the order in which they were computed, without the ones never taken."""
        return tuple(step for key, step in self.steps.items() if key in names)


class _Fallback(dict[str, str]):
    """Numbers put in; what was not given reads as its symbol."""

    def __missing__(self, key: str) -> str:
        return SYMBOLS.get(key, key)


def _last(value: Any) -> float:
    return float(np.ravel(value)[-1])


def _short(value: float) -> str:
    return f"{value:.4g}"
