"""Runs formulae; what is believed of a quantity acts after the formula that states it; the recording kind also keeps each step."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.belief.bands import Band, band
from cutting.nomenclature import SYMBOLS, source_label
from cutting.working.formula import Formula, Honesty
from cutting.working.line import EXACT, Line

Pick = tuple[int, int] | None  # a pass by its place, and how many passes there are
NOTHING: Mapping[str, Any] = {}  # a plain one: what is run elsewhere is sent there whole


@dataclass(frozen=True)
class WorkingStep:
    """One line of working: symbol = formula = numbers = value unit, where the formula is from, and how far it may be off."""

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
    band: str = ""  # in words; blank for what is exact


class Silent:
    """Only computes: for maps and rankings.

    `factors` by quantity are what stands after the formula that states it: what was learned, or what is drawn; numbers, or
    arrays that broadcast with the results.
    """

    def __init__(self, factors: Mapping[str, Any] = NOTHING) -> None:
        self.factors = factors

    def __call__(self, function: Callable[..., Any], note: str = "", **inputs: Any) -> Any:
        value = function(**inputs)
        if self.factors and (states := function.formula.states) in self.factors:  # type: ignore[attr-defined]
            return value * self.factors[states]
        return value

    def of(self, quantity: str, value: Any) -> Any:
        """A value that states a quantity and is no recorded formula's, as it is believed."""
        return value * self.factors[quantity] if quantity in self.factors else value

    def factor(self, quantity: str) -> Any:
        """By how much a quantity is believed to be off, 1 where nothing is said of it."""
        return self.factors.get(quantity, 1.0)


SILENT = Silent()  # by the tables alone


class Noting(Silent):
    """Computes, and notes which quantities the numbers rest on."""

    def __init__(self, factors: Mapping[str, Any] = NOTHING) -> None:
        super().__init__(factors)
        self.stated: dict[str, None] = {}

    def __call__(self, function: Callable[..., Any], note: str = "", **inputs: Any) -> Any:
        if states := function.formula.states:  # type: ignore[attr-defined]
            self.stated[states] = None
        return super().__call__(function, note, **inputs)

    def of(self, quantity: str, value: Any) -> Any:
        self.stated[quantity] = None
        return super().of(quantity, value)


@dataclass(frozen=True)
class _Taken:
    """A formula as it was computed: numbers or arrays over passes."""

    known: Formula
    inputs: dict[str, Any]
    value: Any
    note: str
    band: str

    def step(self, key: str, at: Pick) -> WorkingStep:
        term = self.known.result
        numbers = {name: _short(_one(given, at)) for name, given in self.inputs.items()}
        return WorkingStep(
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
            self.band,
        )


class Recorder(Noting):
    """Computes and remembers: one step of each formula, and where a cut has several edges or layers, one of each.

    `learned` are the words by quantity of what acts, `spreads` what trials have left of its band as standard deviations of the
    logarithm, `operation` the kind whose bands are named.
    """

    def __init__(
        self,
        factors: Mapping[str, Any] = NOTHING,
        learned: Mapping[str, str] = NOTHING,
        spreads: Mapping[str, float] = NOTHING,
        operation: str = "",
    ) -> None:
        super().__init__(factors)
        self._learned, self._spreads, self._operation = learned, spreads, operation
        self._taken: dict[tuple[str, str], _Taken] = {}
        self._steps: dict[tuple[str, str, Pick], WorkingStep] = {}  # written once, however many limits read them
        self._where = ""
        self._before: list[str] = []  # words of what was believed beside the formulae, for the next one

    def __call__(self, function: Callable[..., Any], note: str = "", **inputs: Any) -> Any:
        value = super().__call__(function, note, **inputs)
        known: Formula = function.formula  # type: ignore[attr-defined]
        words = [note, *self._before, self._learned.get(known.states, "")]
        self._before = []
        said = "; ".join(filter(None, words))
        size = self.band(known.band).words if known.band else ""
        self._taken[known.result.name, self._where] = _Taken(known, inputs, value, said, size)
        return value

    def of(self, quantity: str, value: Any) -> Any:
        if words := self._learned.get(quantity):
            self._before.append(f"{self.band(quantity).title} {words}")
        return super().of(quantity, value)

    def band(self, quantity: str) -> Band:
        """How far a quantity may be off here: as shipped for the kind of operation, narrower where trials have taught it."""
        return band(quantity, self._operation).narrowed(self._spreads)

    @contextmanager
    def about(self, where: str) -> Iterator[None]:
        """Steps of an edge or a layer of its own, kept beside those of the others."""
        self._where, before = where, self._where
        try:
            yield
        finally:
            self._where = before

    def trail(self, *names: str, at: Pick = None) -> tuple[WorkingStep, ...]:
        """The steps with these results, in the order in which they were computed, without the ones never taken.

        Of several passes the numbers are those of the last, or of `at`: its place and how many there are.
        """
        return tuple(self._step(key, taken, at) for key, taken in self._taken.items() if key[0] in names)

    def _step(self, key: tuple[str, str], taken: _Taken, at: Pick) -> WorkingStep:
        if (step := self._steps.get((*key, at))) is None:
            step = self._steps[*key, at] = taken.step(" ".join(key).rstrip(), at)
        return step


def last_step(name: str, label: str, value: float, unit: str, ends: Line, at: Pick = None) -> WorkingStep:
    """The line that ends in a number as it is shown, of a limit or a result by its label."""
    numbers = {one: _short(_one(given, at)) for one, given in ends.numbers.items()}
    honesty = (Honesty.EXACT if ends.source == EXACT else Honesty.RULE).value
    source = "arithmetic" if ends.source == EXACT else source_label(ends.source)
    text = ends.text.format_map(_Fallback())
    return WorkingStep(f"{name}, as shown", label, label, text, ends.text.format_map(_Fallback(numbers)), value, unit, source, honesty)


class _Fallback(dict[str, str]):
    """Numbers put in; what was not given reads as its symbol, else in words."""

    def __missing__(self, key: str) -> str:
        return SYMBOLS.get(key, key.replace("_", " "))


def _one(value: Any, at: Pick) -> float:
    """The number of the pass that is asked for, where there is one for each; else the last."""
    numbers = np.ravel(value)
    return float(numbers[at[0] if at and numbers.size == at[1] else -1])


def _short(value: float) -> str:
    return f"{value:.4g}"
