"""Marks a function as a formula: its result's name, its text, its source and its honesty."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from enum import StrEnum
from typing import Any, TypeVar

from cutting.nomenclature import SYMBOLS, TERMS, Term

Function = TypeVar("Function", bound=Callable[..., Any])


class Honesty(StrEnum):
    """How far a number can be trusted."""

    EXACT = "exact"  # geometry and arithmetic
    MODEL = "model"  # a fitted law, with a band
    RULE = "rule"  # common practice


@dataclass(frozen=True)
class Formula:
    """What the recorder needs to print a step: `text` names parameters in braces."""

    result: Term
    text: str
    source: str
    honesty: Honesty
    band: float

    def symbolic(self) -> str:
        return self.text.format_map(SYMBOLS)


def formula(result: str, text: str, source: str, honesty: Honesty = Honesty.EXACT, band: float = 0.0) -> Callable[[Function], Function]:
    """Attach a `Formula` to a function whose parameters carry the names of the nomenclature.

    `band` is the relative uncertainty of the law itself (0.25 for ±25 %).
    """

    def attach(function: Function) -> Function:
        function.formula = Formula(TERMS[result], text, source, honesty, band)  # type: ignore[attr-defined]
        return function

    return attach
