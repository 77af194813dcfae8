"""A map of limits as it goes to the browser: two axes, the limits' lines, the sound field."""

from __future__ import annotations

from typing import Any

from cutting.operations.frame.limit_map import LimitMap
from server.units import Plain, Point


class LimitLineOut(Plain):
    """Where a limit stands at its bound: lines of (across, up)."""

    label: str
    lines: list[list[Point]]


class LimitMapOut(Plain):
    """`sound` are rectangles (across, up, across, up) that no limit of the map forbids."""

    edges: list[LimitLineOut]
    sound: list[list[float]]
    at: Point


def limit_map_out(found: LimitMap) -> dict[str, Any]:
    """The map as plain values."""
    return {
        "edges": [{"label": one.label, "lines": [[list(point) for point in line] for line in one.lines]} for one in found.edges],
        "sound": [list(one) for one in found.sound],
        "at": [float(one) for one in found.at],
    }
