"""Runs formulae; the recording kind also keeps each step as one reads it on paper."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.nomenclature import SYMBOLS, source_label
from cutting.working.formula import Formula

Pick = tuple[int, int] | None  # a pass by its place, and how many passes there are


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


@dataclass(frozen=True)
class _Taken:
    """A formula as it was computed: numbers or arrays over passes."""

    known: Formula
    inputs: dict[str, Any]
    value: Any
    note: str

    def step(self, key: str, at: Pick) -> Step:
        term = self.known.result
        numbers = {name: _short(_one(given, at)) for name, given in self.inputs.items()}
        return Step(
            key,
            term.symbol,
            term.meaning,
            self.known.symbolic(),
            self.known.text.format_map(_Fallback(numbers)),
            _one(self.value, at),
            term.unit,
            source_label(self.known.source),
            self.known.honesty.value,
            self.note,
        )


class Recorder(Silent):
    """Computes and remembers: one step of each formula, and where a cut has several edges or layers, one of each."""

    def __init__(self) -> None:
        self._taken: dict[tuple[str, str], _Taken] = {}
        self._steps: dict[tuple[str, str, Pick], Step] = {}  # written once, however many limits read them
        self._where = ""

    def __call__(self, function: Callable[..., Any], note: str = "", **inputs: Any) -> Any:
        value = function(**inputs)
        known: Formula = function.formula  # type: ignore[attr-defined]
        self._taken[known.result.name, self._where] = _Taken(known, inputs, value, note)
        return value

    @contextmanager
    def about(self, where: str) -> Iterator[None]:
        """Steps of an edge or a layer of its own, kept beside those of the others."""
        self._where, before = where, self._where
        try:
            yield
        finally:
            self._where = before

    def trail(self, *names: str, at: Pick = None) -> tuple[Step, ...]:
        """The steps with these results, in the order in which they were computed, without the ones never taken.

        Of several passes the numbers are those of the last, or of `at`: its place and how many there are.
        """
        return tuple(self._step(key, taken, at) for key, taken in self._taken.items() if key[0] in names)

    def _step(self, key: tuple[str, str], taken: _Taken, at: Pick) -> Step:
        if (step := self._steps.get((*key, at))) is None:
            step = self._steps[*key, at] = taken.step(" ".join(key).rstrip(), at)
        return step


class _Fallback(dict[str, str]):
    """Numbers put in; what was not given reads as its symbol."""

    def __missing__(self, key: str) -> str:
        return SYMBOLS.get(key, key)


def _one(value: Any, at: Pick) -> float:
    """The number of the pass that is asked for, where there is one for each; else the last."""
    numbers = np.ravel(value)
    return float(numbers[at[0] if at and numbers.size == at[1] else -1])


def _short(value: float) -> str:
    return f"{value:.4g}"
