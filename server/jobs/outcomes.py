"""Outcomes that are kept: of a part whose one operation is nudged the others stand."""

from __future__ import annotations

from functools import lru_cache
from typing import Any

from cutting.operations.frame.outcome import Outcome
from cutting.operations.registry import evaluate_quickly


@lru_cache(maxsize=2048)
def outcome_of(setup: Any) -> Outcome:
    """The outcome of a set-up, kept. Raises `CuttingError`."""
    return evaluate_quickly(setup)
