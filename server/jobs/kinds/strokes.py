"""Strokes of grooves as drawings and tables show them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from cutting.quantities import Display, display
from server.jobs.kinds.view import same
from server.units import DisplayOut, Plain, Point

WORDS = {
    "plunge": "plunge",
    "ridge": "ridge",
    "turn": "turn across",
    "ramp": "ramp",
    "arc": "roll in",
    "wall": "finish wall",
    "floor": "finish floor",
}


class StrokeOut(Plain):
    """One stroke: where the edge's corner starts and ends (across, deep), mm, and its words."""

    kind: str
    start: Point
    end: Point
    engaged: float
    seconds: float
    until: float
    labels: dict[str, DisplayOut]


def stroke_out(
    kind: str, start: Sequence[float], end: Sequence[float], engaged: float, seconds: float, until: float, labels: dict[str, Display]
) -> dict[str, Any]:
    """A stroke of a narrow tool as the browser draws it."""
    said = {
        "kind": same(WORDS[kind]),
        "seconds": display(seconds, "duration"),
        "engaged": display(round(engaged, 2), "length"),
        **labels,
    }
    return {"kind": kind, "start": list(start), "end": list(end), "engaged": engaged, "seconds": seconds, "until": until, "labels": said}


def stroke_table(strokes: Sequence[Any], places: Sequence[Display]) -> dict[str, Any]:
    """Strokes with what is engaged, their feed and seconds; alike ones that follow each other stand in one row."""
    rows: list[dict[str, Any]] = []
    count, last = 0, None
    for one, place in zip(strokes, places, strict=True):
        kind = getattr(one, "move", one).kind
        engaged = getattr(one, "move", one).engaged
        key = (kind, round(engaged, 3), round(one.feed, 4))
        if key == last:
            count += 1
            rows[-1]["seconds"] += one.seconds
            rows[-1]["count"] = count
            continue
        last, count = key, 1
        rows.append({"kind": kind, "place": place, "engaged": engaged, "feed": one.feed, "seconds": one.seconds, "count": 1})
    return {
        "caption": "Strokes",
        "head": [same("stroke"), same("from"), same("cuts"), same("feed"), same("s")],
        "rows": [
            {
                "cells": [
                    same(f"{row['count']} × {WORDS[row['kind']]}" if row["count"] > 1 else WORDS[row["kind"]]),
                    row["place"],
                    display(round(row["engaged"], 2), "length", False),
                    display(row["feed"], "feed_per_rev", False),
                    display(row["seconds"], "duration", False),
                ],
                "good": None,
            }
            for row in rows
        ],
    }
