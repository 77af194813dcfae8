"""The second map of drilling as it is drawn: speed × feed, the limits of every layer, the field, what would open it."""

from __future__ import annotations

import itertools
from typing import Any

import numpy as np

from cutting.operations.frame.change import Change
from cutting.operations.frame.limit_map import contour, rectangles
from cutting.operations.holes.drill.setup import DrillSetup
from cutting.operations.holes.drill.window import LayerEdge, StackWindow, gears
from cutting.quantities import Display, write
from cutting.quantities.kinds import KINDS, factor
from server.jobs.kinds.view import AxisOut, same
from server.jobs.schemas.operation import RemedyOut
from server.units import DisplayOut, Plain, Point

MOST_NAMES = 5
STEPS = (1.0, 2.0, 5.0)


class EdgeOut(Plain):
    """Where a limit stands at its bound in one layer; `parts`: it is one of the two that leave no field."""

    label: str
    layer: int
    parts: bool
    lines: list[list[Point]]


class NameOut(Plain):
    """A limit's words beside its line."""

    label: str
    at: Point


class CutWindowOut(Plain):
    """`field` and `workable` are rectangles (speed, feed, speed, feed), the latter where nothing is harmed though no field is; `gears`
    the steps that the machine has.
    """

    speed_axis: AxisOut
    feed_axis: AxisOut
    field: list[list[float]]
    workable: list[list[float]]
    edges: list[EdgeOut]
    named: list[NameOut]
    gears: list[Point]
    now: Point
    best: Point | None
    open: bool
    says: DisplayOut
    opens: list[RemedyOut]


def window_out(found: StackWindow, setup: DrillSetup, opening: tuple[tuple[Change[Any], StackWindow], ...], system: str) -> dict[str, Any]:
    """The map with its words."""
    parting = {found.conflict[2], found.conflict[3]} if found.conflict else set()
    edges = [_edge(found, one, one.rule.label in parting) for one in found.edges]
    s = setup.settings
    return {
        "speed_axis": _axis("speed", found.speeds, "cutting_speed", system),
        "feed_axis": _axis("feed", found.feeds, "feed_per_rev", system),
        "field": _rectangles(found, found.field),
        "workable": [] if found.field.any() else _rectangles(found, found.workable),
        "edges": [one for one in edges if one["lines"]],
        "named": _names(found, edges),
        "gears": _gears(setup, found),
        "now": [s.cutting_speed, s.feed_per_rev],
        "best": list(found.best) if found.best else None,
        "open": found.best is not None or bool(found.field.any()),
        "says": said(found, setup),
        "opens": [_opening(change, there) for change, there in opening],
    }


def said(found: StackWindow, setup: DrillSetup) -> Display:
    """In one line: the middle of the field, or who conflicts with whom."""
    if found.best:
        speed, feed = found.best
        return Display(*(f"Field open; best {write(speed, 'cutting_speed', one)}, {write(feed, 'feed_per_rev', one)}" for one in SYSTEMS))
    if found.least_bad:
        return Display(*(_works(found.least_bad, system) for system in SYSTEMS))
    if found.field.any():
        return same("A common range exists, but no gear of this machine stands in it.")
    if found.conflict is None:
        return same("No field: three layers together leave none.")
    one, other, first, second = found.conflict
    names = [layer.name for layer in setup.layers]
    if one == other:
        return same(f"No common range: {names[one]} exceeds {_short(first)} everywhere.")
    return same(f"No field: {names[one]} ({_short(first)}) against {names[other]} ({_short(second)}).")


SYSTEMS = ("metric", "inch")


def _works(found: tuple[float, float, tuple[str, ...]], system: str) -> str:
    """Where nothing is harmed though no point is ideal."""
    speed, feed, missed = found
    at = f"{write(speed, 'cutting_speed', system)}, {write(feed, 'feed_per_rev', system)}"
    return f"No ideal point. Nothing is harmed at {at}; not ideal there: {', '.join(_short(one) for one in missed)}."


def _short(label: str) -> str:
    return label.split(",")[0]


def _edge(found: StackWindow, one: LayerEdge, parts: bool) -> dict[str, Any]:
    points = [[list(point) for point in line] for line in contour(found.speeds, found.feeds, one.used)]
    return {"label": one.rule.label.split(",")[0], "layer": one.layer, "parts": parts, "lines": points}


def _names(found: StackWindow, edges: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Words at the middle of the lines that matter: those that part the layers, then those nearest to the field."""
    near = sorted((one for one in edges if one["lines"]), key=lambda one: (not one["parts"], -sum(len(line) for line in one["lines"])))
    chosen: dict[str, dict[str, Any]] = {}
    for one in near:
        chosen.setdefault(one["label"], one)
    longest = [(one["label"], max(one["lines"], key=len)) for one in itertools.islice(chosen.values(), MOST_NAMES)]
    return [{"label": label, "at": line[(k + 1) * len(line) // (MOST_NAMES + 1)]} for k, (label, line) in enumerate(longest)]


def _rectangles(found: StackWindow, where: Any) -> list[list[float]]:
    """A field row by row, between values that lie evenly on a logarithmic scale."""
    speeds, feeds = (np.concatenate([[v[0]], np.sqrt(v[1:] * v[:-1]), [v[-1]]]) for v in (found.speeds, found.feeds))
    return [list(one) for one in rectangles(where, speeds, feeds)]


def _gears(setup: DrillSetup, found: StackWindow) -> list[list[float]]:
    """Points that the machine's gears have, or may be given, as far as the map shows them."""
    if (steps := gears(setup)) is None:
        return []
    (low, high), (least, most) = ((values[0], values[-1]) for values in (found.speeds, found.feeds))
    return [[float(v), float(f)] for v in steps[0] for f in steps[1] if low <= v <= high and least <= f <= most]


def _axis(label: str, values: Any, kind: str, system: str) -> dict[str, Any]:
    what = KINDS[kind]
    scale = factor(what.unit, what.inch_unit) if system == "inch" else 1.0
    low, high = float(values[0]), float(values[-1])
    decades = range(int(np.floor(np.log10(low * scale))), int(np.ceil(np.log10(high * scale))) + 1)
    marks = [step * 10.0**decade / scale for decade in decades for step in STEPS]
    inside = [value for value in marks if low <= value <= high]
    ticks = [{"value": value, **{one: write(value, kind, one, False) for one in SYSTEMS}} for value in inside]
    return {"label": Display(f"{label}, {what.metric}", f"{label}, {what.inch}"), "low": low, "high": high, "ticks": ticks}


def _opening(change: Change[Any], there: StackWindow) -> dict[str, Any]:
    assert there.best
    speed, feed = there.best
    words = [f"opens a field about {write(speed, 'cutting_speed', one)}, {write(feed, 'feed_per_rev', one)}" for one in SYSTEMS]
    settings = {
        **change.patch.get("settings", {}),
        "cutting_speed": write(speed, "cutting_speed"),
        "feed_per_rev": write(feed, "feed_per_rev"),
    }
    patch = {**change.patch, "settings": {name: "" if value is None else value for name, value in settings.items()}}
    return {"text": change.text, "effect": Display(*words), "patch": patch}
