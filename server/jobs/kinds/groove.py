"""What a groove shows: tool and part to scale, and the groove filling up stroke by stroke."""

from __future__ import annotations

from itertools import accumulate
from typing import Any, Literal

import numpy as np

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Outcome
from cutting.operations.slots.groove.cautions import advised_way
from cutting.operations.slots.groove.moves import diameter_at
from cutting.operations.slots.groove.numbers import GrooveStroke
from cutting.operations.slots.groove.readings import GrooveScene
from cutting.quantities import display
from server.jobs.kinds.strokes import StrokeOut, stroke_out, stroke_table
from server.jobs.kinds.view import NARROW_CHECKS, AxisOut, Shown, Viewer, axis, drawn, length, points
from server.units import DisplayOut, Plain, Point


class GrooveView(Plain):
    """What the browser draws of a groove."""

    kind: Literal["groove"]
    scene: GrooveScene
    scene_labels: dict[str, DisplayOut]
    part: list[Point]
    section: list[Point]
    across: AxisOut
    deep: AxisOut
    strokes: list[StrokeOut]
    advised: str
    advised_why: str


def view(shown: Shown) -> dict[str, Any]:
    """Drawing, section, strokes."""
    setup, outcome, strokes = shown.setup, shown.outcome, shown.explored
    f = setup.feature
    lean = float(np.tan(np.radians(f.wall_angle))) * f.depth
    width, margin = f.width.target, 0.15 * f.width.target + lean
    section = ((-margin, 0.0), (-lean, 0.0), (0.0, f.depth), (width, f.depth), (width + lean, 0.0), (width + margin, 0.0))
    way, why = advised_way(setup)
    return {
        "kind": "groove",
        "scene": plain(outcome.scene),
        "scene_labels": {
            "diameter": display(f.diameter, "length", False),
            "floor": display(round(f.floor.target, 3), "length", False),
            "width": display(round(width, 3), "length"),
            "cutting_force": outcome.results["cutting_force"].display,
            "feed_force": outcome.results["feed_force"].display,
            "side_force": outcome.results["side_force"].display,
            "overhang": display(setup.overhang, "length"),
            "reach": display(min(setup.blade.reach, setup.insert.reach), "length"),
            "needs": display(round(setup.way_down, 2), "length"),
            "springs": outcome.results["size_error"].display,
        },
        "part": points(shown.part),
        "section": points(section),
        "across": axis("across", 0.0, width, "length", shown.system, most=6),
        "deep": axis("deep", 0.0, f.depth, "length", shown.system, most=4),
        "strokes": _strokes(setup, strokes),
        "advised": way.value,
        "advised_why": why,
    }


def _strokes(setup: Any, strokes: tuple[GrooveStroke, ...]) -> list[dict[str, Any]]:
    found = []
    for stroke, until in zip(strokes, accumulate(one.seconds for one in strokes), strict=True):
        move = stroke.move
        labels = {
            "diameter": display(round(diameter_at(setup, move.to_depth), 2), "length", False),
            "spindle_speed": display(stroke.spindle_speed, "spindle_speed"),
            "feed": display(stroke.feed, "feed_per_rev"),
            "side_force": display(stroke.side_force, "force"),
        }
        found.append(
            stroke_out(move.kind, (move.place, move.depth), (move.to_place, move.to_depth), move.engaged, stroke.seconds, until, labels)
        )
    return found


def table(shown: Shown) -> dict[str, Any]:
    """The strokes, alike ones together."""
    places = [display(round(one.move.place, 2), "length", False) for one in shown.explored]
    return stroke_table(shown.explored, places)


def facts(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    """What the set-up sheet says of a groove."""
    f = setup.feature
    found = [
        (
            "groove",
            f"Ø{length(f.diameter, system)} to Ø{drawn(f.floor, system)}, {drawn(f.width, system)} wide, {f.where.value}",
        ),
        ("nearer wall from the jaws", length(f.distance_from_chuck, system)),
        ("way", setup.settings.way.value),
        ("edge", f"{length(setup.insert.width, system)} wide, corner {length(setup.insert.corner_radius, system)}"),
        ("dwell, turns", f"{setup.settings.dwell:g}"),
    ]
    return [("standard", f"{f.standard}, hold it against the standard"), *found] if f.standard else found


VIEWER = Viewer(view, table, facts, stops=lambda view: [one["until"] for one in view["strokes"]], checks=NARROW_CHECKS)
