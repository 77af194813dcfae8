"""Writes values as the trade writes them, in both unit systems, without false digits."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

from cutting.quantities.kinds import KINDS, currency, factor

LARGE, LARGE_INCH = 1000.0, 10_000.0  # µm and µin from which a small length is written in mm and in
FINE_INCH = 0.1  # in below which a length is told in tenths of a thou (common practice)
CLOCK = 100.0  # s from which a time is written in minutes


@dataclass(frozen=True)
class Display:
    """A value in words, once per unit system."""

    metric: str
    inch: str


def write(value: float, kind: str, system: str = "metric", with_unit: bool = True) -> str:
    """One value as text: decimals by kind, trailing zeros of lengths dropped, thin grouping from 10 000."""
    return _written(float(value), kind, system, with_unit, currency())


@lru_cache(maxsize=1 << 15)  # a ranking's rows are shown again at every nudge
def _written(value: float, kind: str, system: str, with_unit: bool, _currency: str) -> str:
    what = KINDS[kind]
    inch = system == "inch"
    shown = value * factor(what.unit, what.inch_unit) if inch else value
    decimals = what.inch_decimals if inch else what.metric_decimals
    label = what.inch if inch else what.metric
    if with_unit and kind == "duration" and abs(value) >= CLOCK:
        return _clock(value)
    if with_unit and kind == "small_length" and abs(shown) >= (LARGE_INCH if inch else LARGE):
        # a thousand of the small unit is said in the large one
        return write(value / 1000.0, "length", system)
    text = _thous(shown, kind == "size") if inch and kind in ("length", "size") else _digits(shown, decimals, kind)
    return f"{text} {label}".strip() if with_unit else text


def display(value: float, kind: str, with_unit: bool = True) -> Display:
    """One value in both unit systems."""
    return Display(write(value, kind, "metric", with_unit), write(value, kind, "inch", with_unit))


def _clock(seconds: float) -> str:
    """A longer time as on a clock: 12:22 min, 3:05:10 h."""
    minutes, rest = divmod(round(seconds), 60)
    hours, part = divmod(minutes, 60)
    return f"{hours}:{part:02d}:{rest:02d} h" if hours else f"{minutes}:{rest:02d} min"


def _thous(inches: float, to_tenths: bool) -> str:
    """A length as an inch shop writes it, with its zeros: thous, of a limit of size and of an odd 64th tenths of them."""
    if not math.isfinite(inches) or (not to_tenths and abs(inches) < FINE_INCH):
        return _digits(inches, 4, "length")
    odd = math.isclose(64.0 * inches, round(64.0 * inches), abs_tol=1e-4) and not math.isclose(inches, round(inches, 3), abs_tol=1e-6)
    decimals = 4 if to_tenths or odd else 3
    text = f"{inches:,.{decimals}f}" if abs(inches) >= 10_000 else f"{inches:.{decimals}f}"
    return text.replace(",", "\u202f")


def _digits(value: float, decimals: int | None, kind: str) -> str:
    if decimals is None:
        return f"{value:.4g}"
    if kind in ("small_length", "duration", "life", "torque") and abs(value) >= 100:
        decimals = 0
    if kind == "power" and abs(value) >= 10:
        decimals = 1
    if kind == "stiffness" and abs(value) >= 10:
        decimals = 0
    if kind == "money" and abs(value) >= 1000:
        decimals = 0
    if kind == "count" and 0 < abs(value) < 0.95:  # less than one piece is not none
        decimals = 1 if abs(value) >= 0.095 else 2  # what rounds to 0.1
    text = f"{value:,.{decimals}f}" if abs(value) >= 10_000 else f"{value:.{decimals}f}"
    if kind in ("length", "size", "feed_per_rev", "area", "angle", "stiffness") and "." in text:
        text = text.rstrip("0").rstrip(".")
    text = text.replace(",", "\u202f")
    return "0" if text in ("-0", "-0.0", "-0.00") else text
