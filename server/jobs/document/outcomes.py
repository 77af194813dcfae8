"""Outcomes that are kept: of a part whose one operation is nudged the others stand."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from cutting.operations.frame.outcome import Outcome
from cutting.operations.registry import judged


def outcome_of(setup: Any) -> Outcome:
    """The outcome of a set-up, kept. Raises `CuttingError`."""
    return outcome_and_numbers(setup)[0]


@lru_cache(maxsize=1024)
def outcome_and_numbers(setup: Any) -> tuple[Outcome, Any]:
    """The outcome with the numbers that remedies are reckoned from, kept. Raises `CuttingError`."""
    return judged(setup)
