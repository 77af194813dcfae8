"""Values as the API shows them: a number with its words in both unit systems, and the marks of an axis."""

from __future__ import annotations

from typing import Any, Literal

import numpy as np
from pydantic import BaseModel, ConfigDict

from cutting.quantities import write
from cutting.quantities.kinds import KINDS, factor

Units = Literal["mm", "inch"]


class Plain(BaseModel):
    """A form that is only given out: read from plain values and dataclasses, without the detours that models of rows need."""

    model_config = ConfigDict(from_attributes=True)


class DisplayOut(Plain):
    """A value in words, in both systems."""

    metric: str
    inch: str


class TickOut(Plain):
    """A mark of an axis: where it stands in the internal unit, and its words."""

    value: float
    metric: str
    inch: str


# a point of a drawing or map: two numbers (a plain list, since fixed-length arrays lose their length in the generated types)
Point = list[float]


def ticks(top: float, kind: str, system: str, most: float = 5.5) -> list[dict[str, Any]]:
    """Round axis marks from 0 to `top` (internal unit of the kind) in the unit system shown."""
    what = KINDS[kind]
    scale = factor(what.unit, what.inch_unit) if system == "inch" else 1.0
    span = top * scale
    raw = span / most
    power = 10.0 ** np.floor(np.log10(raw))
    step = next(m * power for m in (1, 2, 5, 10) if m * power >= raw)
    values = np.arange(step, span * 0.999, step) / scale
    return [{"value": float(v), "metric": _round(float(v), kind, "metric"), "inch": _round(float(v), kind, "inch")} for v in values]


def _round(value: float, kind: str, system: str) -> str:
    """A round number as an axis has it: without idle zeros."""
    text = write(value, kind, system, False)
    return text.rstrip("0").rstrip(".") if "." in text else text
