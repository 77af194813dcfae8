"""Outcomes as plain JSON values: what the command line and the API give out."""

from __future__ import annotations

import dataclasses
import math
from enum import Enum
from typing import Any

from cutting.errors import CuttingError


def plain(thing: Any) -> Any:
    """Dataclasses, enums and containers as JSON values; a number that is not finite becomes null."""
    if dataclasses.is_dataclass(thing) and not isinstance(thing, type):
        return {f.name: plain(getattr(thing, f.name)) for f in dataclasses.fields(thing)}
    if isinstance(thing, Enum):
        return thing.value
    if isinstance(thing, dict):
        return {str(key): plain(value) for key, value in thing.items()}
    if isinstance(thing, (list, tuple)):
        return [plain(value) for value in thing]
    if isinstance(thing, float):
        return float(f"{thing:.8g}") if math.isfinite(thing) else None
    return thing


def problem(error: CuttingError) -> dict[str, Any]:
    """An error as a person or program reads it: field, message, bound, and what would be right."""
    found: dict[str, Any] = {"field": error.field, "message": error.message}
    if error.bound:
        found["bound"] = error.bound
    for extra in ("readings", "suggestions"):
        if getattr(error, extra, None):
            found[extra] = list(getattr(error, extra))
    return found
