"""Marks a function as a formula: its result's name, its text, its source, its honesty and the band that it states."""

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
    """What the recorder needs to print a step: `text` names parameters in braces.

    `band` names the band of its result, in `cutting/belief/bands.csv`. `states` is the quantity that this law itself may have
    wrong: what was learned of it and what is drawn of it act on this result, and so on all that is reckoned from it.
    """

    result: Term
    text: str
    source: str
    honesty: Honesty
    band: str
    states: str

    def symbolic(self) -> str:
        return self.text.format_map(SYMBOLS)


def formula(
    result: str, text: str, source: str, honesty: Honesty = Honesty.EXACT, band: str = "", states: str = ""
) -> Callable[[Function], Function]:
    """Attach a `Formula` to a function whose parameters carry the names of the nomenclature.

    `band` names how far the result may be off; of a law that `states` a quantity it is that quantity's.
    """

    def attach(function: Function) -> Function:
        function.formula = Formula(TERMS[result], text, source, honesty, band or states, states)  # type: ignore[attr-defined]
        return function

    return attach
