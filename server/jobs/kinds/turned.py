"""What turning and facing show: tool and part to scale at every pass, and the chip map."""

from __future__ import annotations

from typing import Any, Literal

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Bow
from cutting.operations.turned.readings import TurnedScene
from cutting.quantities import display
from cutting.tooling.plan_view import holder_outline, insert_outline
from server.jobs.kinds.view import Shown, Viewer
from server.units import DisplayOut, Plain, Point, TickOut, ticks


class StageOut(Plain):
    """The part in the middle of a pass."""

    corners: list[Point]
    tip: Point
    band: list[Point]


class BowOut(Plain):
    """How the last cut springs along the part: places mm from the chuck, change of diameter mm, and the shape it leaves."""

    places: list[float]
    errors: list[float]
    shape: str
    at_chuck: DisplayOut
    at_end: DisplayOut
    largest: DisplayOut


class ContourOut(Plain):
    """Where a limit stands at its bound on the chip map."""

    name: str
    label: str
    lines: list[list[Point]]


class MapOut(Plain):
    """The chip map."""

    feed_axis: Point
    depth_axis: Point
    feed_ticks: list[TickOut]
    depth_ticks: list[TickOut]
    window: list[Point]
    drawn_window: list[Point]
    contours: list[ContourOut]
    feed: float
    depth: float
    passes: list[Point]


class TurnedView(Plain):
    """What the browser draws of a turned cut."""

    kind: Literal["turned"]
    scene: TurnedScene
    scene_labels: dict[str, DisplayOut]
    bow: BowOut
    insert_outline: list[Point]
    holder_outline: list[Point]
    stages: list[StageOut]
    map: MapOut


def view(shown: Shown) -> dict[str, Any]:
    """Drawing and map of the present set-up."""
    setup, outcome = shown.setup, shown.outcome
    assert outcome.bow
    return {
        "kind": "turned",
        "scene": plain(outcome.scene),
        "bow": bow_out(outcome.bow),
        "scene_labels": {
            "cutting_force": display(outcome.results["cutting_force"].value, "force"),
            "feed_force": display(outcome.results["feed_force"].value, "force"),
            "passive_force": display(outcome.results["passive_force"].value, "force"),
            "free_length": display(setup.holding.free_length, "length"),
            "start_diameter": display(setup.feature.start_diameter, "length"),
            "end_diameter": display(setup.feature.turned_diameter, "length"),
            "spindle_speed": outcome.results["spindle_speed"].display,
            "springs": display(outcome.results["size_error"].value * 1000.0, "small_length"),
            "overhang": display(float(outcome.scene["overhang"]), "length"),
        },
        "insert_outline": insert_outline(setup.insert, setup.holder.code.cutting_edge_angle),
        "holder_outline": holder_outline(setup.holder, setup.insert),
        "stages": plain(shown.stages),
        "map": map_out(shown),
    }


def map_out(shown: Shown) -> dict[str, Any]:
    """The chip map with its marks."""
    chip_map = shown.explored
    return {
        **plain(chip_map),
        "feed_ticks": ticks(chip_map.feed_axis[1], "feed_per_rev", shown.system),
        "depth_ticks": ticks(chip_map.depth_axis[1], "length", shown.system),
    }


def bow_out(bow: Bow) -> dict[str, Any]:
    """How the part springs along its last cut."""
    return {
        "places": list(bow.places),
        "errors": list(bow.errors),
        "shape": bow.shape,
        **{name: display(1000.0 * getattr(bow, name), "small_length") for name in ("at_chuck", "at_end", "largest")},
    }


VIEWER = Viewer(view, staged=True)
