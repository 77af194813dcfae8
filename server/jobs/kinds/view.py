"""How a kind shows itself: what it is given, and the small forms that all kinds share."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from cutting.motion.drawn import drawn as drawn_path
from cutting.operations.frame.outcome import ChipVerdict, Outcome
from cutting.operations.registry import kind_of
from cutting.process.outline import OutlineStage
from cutting.quantities import Dimension, Display, display, write
from cutting.quantities.drill_gauges import read_gauge
from cutting.quantities.kinds import KINDS
from cutting.workpiece.solid import Corner
from server.units import DisplayOut, Plain, Point, TickOut, ticks


class ChipOut(Plain):
    """The chip by its form, and why it is so."""

    form: str
    length: str
    code: str
    verdict: str
    index: float
    thickness: DisplayOut
    thickness_after: DisplayOut
    curl_radius: DisplayOut | None
    strain: str
    long: DisplayOut
    why: str


class AxisOut(Plain):
    """An axis: what stands on it, and its marks."""

    label: DisplayOut
    low: float
    high: float
    ticks: list[TickOut]


class RowOut(Plain):
    """A row of a kind's table; `good` where a chip or a limit speaks of it."""

    cells: list[DisplayOut]
    good: bool | None


Way = list[list[float]]  # seconds at feed, x, y, z of the tool's reference point, mm


def way_of(kind: str, x: Any) -> list[list[float]]:
    """How the tool goes in the first of several alike, as a picture follows it."""
    moments = drawn_path(kind_of(kind).path(x, None), x.setup.machine, first_hole=True)
    return [[round(one, 4) for one in moment] for moment in moments]


class TableOut(Plain):
    """The table below the settings: feed zones, strokes."""

    caption: str
    head: list[DisplayOut]
    rows: list[RowOut]


@dataclass(frozen=True)
class Shown:
    """What a kind's view is made from: set-up, outcome, map, the part before, and stages where it has them."""

    setup: Any
    outcome: Outcome
    explored: Any
    system: str
    part: tuple[Corner, ...] = ()
    stages: tuple[OutlineStage, ...] = ()


@dataclass(frozen=True)
class Viewer:
    """How a kind shows itself. `table` may be None; `facts` are its own lines of the set-up sheet, in the system asked."""

    view: Callable[[Shown], dict[str, Any]]
    table: Callable[[Shown], dict[str, Any]] | None = None
    facts: Callable[[Any, Outcome, str], list[tuple[str, str]]] = lambda setup, outcome, system: []
    checks: tuple[str, ...] = ()  # what the set-up sheet has the operator look at before the cut
    staged: bool = False  # draws the part in the middle of each pass
    stops: Callable[[dict[str, Any]], list[float]] = lambda view: []  # seconds at which its cut can be looked at


def chip_out(chip: ChipVerdict) -> dict[str, Any]:
    """A chip in words of both systems."""
    strain = f"{chip.strain:.1%} of {chip.fracture_strain:.1%} at break" if chip.strain is not None else "no groove curls it"
    return {
        **{name: getattr(chip, name) for name in ("form", "length", "code", "verdict", "index", "why")},
        "thickness": display(chip.thickness, "length"),
        "thickness_after": display(round(chip.thickness_after, 3), "length"),
        "curl_radius": display(round(chip.curl_radius, 2), "length") if chip.curl_radius else None,
        "strain": strain,
        "long": display(chip.long, "length"),
    }


NARROW_CHECKS = (
    "Edge on centre within 0.1 mm, blade square to the axis, shortest overhang; insert and seat clean; the right key.",
    "Coolant at the edge before the cut; chips clear of the slot.",
)


def same(text: str) -> Display:
    """The same words in both systems."""
    return Display(text, text)


def axis(label: str, low: float, high: float, kind: str, system: str, unit: str = "", most: float = 5.5) -> dict[str, Any]:
    """An axis with its marks; `unit` where the kind has none of its own."""
    what = KINDS[kind]
    named = Display(f"{label}, {unit or what.metric}", f"{label}, {unit or what.inch}")
    return {"label": named, "low": low, "high": high, "ticks": [mark for mark in ticks(high, kind, system, most) if mark["value"] >= low]}


def both(shown: Display, system: str) -> str:
    """Both systems in one line, for paper: the one that the sheet is in first."""
    first, second = (shown.inch, shown.metric) if system == "inch" else (shown.metric, shown.inch)
    return first if first == second else f"{first} ({second})"


def pieces(count: float) -> str:
    """So many pieces, whole where there is more than one."""
    return "1 piece" if round(count) == 1 else f"{count:.1f} of a piece" if count < 1 else f"{count:,.0f} pieces".replace(",", "\u202f")


def length(value: float, system: str) -> str:
    """A length in both systems, for paper."""
    return both(display(value, "length"), system)


def drawn(size: Dimension, system: str) -> str:
    """A size as the drawing has it, and on an inch sheet in inches too."""
    entered = size.entered.removeprefix("Ø") or f"{size.target:g}"
    if system != "inch" or "in" in entered:
        return entered
    as_typed = entered if read_gauge(entered) is not None else f"{entered.removesuffix('mm').strip()} mm"
    limits = ""
    if size.upper_deviation is not None and size.lower_deviation is not None:
        limits = f" {size.upper_deviation / 25.4:+.4f}/{size.lower_deviation / 25.4:+.4f}".replace("+0.0000", "0").replace("-0.0000", "0")
    return f"{write(size.nominal, 'size' if limits else 'length', 'inch')}{limits} ({as_typed})"


def points(pairs: Any) -> list[Point]:
    """Pairs as plain numbers."""
    return [[float(a), float(b)] for a, b in pairs]
