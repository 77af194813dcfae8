"""What a face groove shows: blade, hub and jaws in section, and the curved blade in its ring, seen along the axis."""

from __future__ import annotations

from itertools import accumulate
from typing import Any, Literal

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Outcome
from cutting.operations.slots.face_groove.readings import FaceGrooveScene
from cutting.quantities import display
from server.jobs.kinds.strokes import StrokeOut, stroke_out, stroke_table
from server.jobs.kinds.view import NARROW_CHECKS, Shown, Viewer, both, drawn, length, points
from server.units import DisplayOut, Plain, Point


class FaceGrooveView(Plain):
    """What the browser draws of a ring groove."""

    kind: Literal["face groove"]
    scene: FaceGrooveScene
    scene_labels: dict[str, DisplayOut]
    part: list[Point]
    blade: list[Point]
    strokes: list[StrokeOut]


def view(shown: Shown) -> dict[str, Any]:
    """Drawing along and across the axis, strokes."""
    setup, outcome, x = shown.setup, shown.outcome, shown.explored
    return {
        "kind": "face groove",
        "scene": plain(outcome.scene),
        "scene_labels": {
            "outer_diameter": display(round(setup.feature.outer_diameter.target, 2), "length", False),
            "inner_diameter": display(round(setup.feature.inner_diameter, 2), "length", False),
            "depth": display(setup.depth, "length"),
            "first_diameter": display(round(x.first_diameter, 2), "length", False),
            "face_low": display(setup.blade.face_low, "length", False),
            "face_high": display(setup.blade.face_high, "length", False),
            "outer_clearance": display(round(x.standing.outer, 2), "length"),
            "inner_clearance": display(round(x.standing.inner, 2), "length"),
            "cutting_force": outcome.results["cutting_force"].display,
            "feed_force": outcome.results["feed_force"].display,
            "overhang": display(setup.overhang, "length"),
            "reach": display(min(setup.blade.reach, setup.insert.reach), "length"),
        },
        "part": points(shown.part),
        "blade": points(x.standing.outline),
        "strokes": [
            stroke_out(
                one.kind,
                (one.outer, one.depth),
                (one.to_outer, one.to_depth),
                one.engaged,
                one.seconds,
                until,
                {
                    "diameter": display(round(one.to_outer, 2), "length", False),
                    "spindle_speed": display(one.spindle_speed, "spindle_speed"),
                    "feed": display(one.feed, "feed_per_rev"),
                    "side_force": display(one.side_force, "force"),
                },
            )
            for one, until in zip(x.strokes, accumulate(one.seconds for one in x.strokes), strict=True)
        ],
    }


def table(shown: Shown) -> dict[str, Any]:
    """The strokes with the diameter of the edge's outer corner."""
    strokes = shown.explored.strokes
    return stroke_table(strokes, [display(round(one.outer, 2), "length", False) for one in strokes])


def facts(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    """What the set-up sheet says of a face groove."""
    f, blade = setup.feature, setup.blade
    return [
        (
            "groove",
            f"Ø{drawn(f.outer_diameter, system)}, {drawn(f.width, system)} wide, {length(f.depth, system)} deep",
        ),
        (
            "first plunge",
            f"Ø{both(outcome.results['first_diameter'].display, system)}; the blade is made for"
            f" Ø{length(blade.face_low, system)} to Ø{length(blade.face_high, system)}",
        ),
        ("spindle", f"{setup.settings.spindle.value}, {'right' if blade.hand == 'R' else 'left'}-hand blade"),
        ("way", setup.settings.way.value),
        ("edge", f"{length(setup.insert.width, system)} wide, corner {length(setup.insert.corner_radius, system)}"),
    ]


VIEWER = Viewer(view, table, facts, stops=lambda view: [one["until"] for one in view["strokes"]], checks=NARROW_CHECKS)
