"""Outcomes as plain JSON values: what the command line and the API give out."""

from __future__ import annotations

import dataclasses
import math
from enum import Enum
from functools import cache
from typing import Any

from cutting.errors import CuttingError
from cutting.operations.frame.outcome import Limit


def plain(thing: Any) -> Any:
    """Dataclasses, enums and containers as JSON values; a number that is not finite becomes null."""
    kind = type(thing)
    if kind is str or thing is None or kind is bool or kind is int:
        return thing
    if kind is float:
        return float(f"{thing:.8g}") if math.isfinite(thing) else None
    if kind is tuple or kind is list:
        return [plain(value) for value in thing]
    if names := _fields(kind):  # type: ignore[arg-type]
        return {name: plain(getattr(thing, name)) for name in names}
    if isinstance(thing, Enum):
        return thing.value
    if isinstance(thing, dict):
        return {str(key): plain(value) for key, value in thing.items()}
    if isinstance(thing, float):  # NumPy's own
        return plain(float(thing))
    return thing


@cache
def _fields(kind: type) -> tuple[str, ...]:
    """Names of a dataclass's fields, empty for any other type: asked thousands of times for one answer."""
    return tuple(field.name for field in dataclasses.fields(kind)) if dataclasses.is_dataclass(kind) else ()


def limit_facts(limit: Limit) -> dict[str, Any]:
    """A limit with what follows from its chance: whether it holds, is close or over, and whether something has to be done."""
    return {**plain(limit), "standing": limit.standing.value, "wanting": limit.wanting}


def problem(error: CuttingError) -> dict[str, Any]:
    """An error as a person or program reads it: field, message, bound, and what would be right."""
    found: dict[str, Any] = {"field": error.field, "message": error.message}
    if error.bound:
        found["bound"] = error.bound
    for extra in ("readings", "suggestions"):
        if getattr(error, extra, None):
            found[extra] = list(getattr(error, extra))
    return found
