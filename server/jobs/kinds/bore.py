"""What boring shows: the bar in its bore in section, bent as it bends, and the chip map."""

from __future__ import annotations

from typing import Any, Literal

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Outcome
from cutting.operations.holes.bore.limits import LEAST_ROOM
from cutting.operations.holes.bore.readings import BoreScene
from cutting.quantities import display
from cutting.tooling.bars import body_of
from cutting.tooling.plan_view import insert_outline
from server.jobs.kinds.turned import MapOut, map_out
from server.jobs.kinds.view import Shown, Viewer, drawn, length, same
from server.units import DisplayOut, Plain, Point

CHECKS = (
    "Bar in a sleeve of its own size, gripped over its whole seat, out as little as the depth lets; tip on centre or a little above.",
    "Bore and bar clear of chips before each pass; the bar passes the bore and does not meet its floor.",
)


class BoreView(Plain):
    """What the browser draws of a bored wall."""

    kind: Literal["bore"]
    scene: BoreScene
    scene_labels: dict[str, DisplayOut]
    insert_outline: list[Point]
    map: MapOut


def view(shown: Shown) -> dict[str, Any]:
    """Drawing and map of the present set-up."""
    setup, outcome, results = shown.setup, shown.outcome, shown.outcome.results
    limits = {one.name: one for one in outcome.limits}
    bar = setup.holder.code
    return {
        "kind": "bore",
        "scene": plain(outcome.scene),
        "scene_labels": {
            **{name: results[name].display for name in ("cutting_force", "feed_force", "passive_force", "spindle_speed", "size_after")},
            "springs": display(1000.0 * results["size_error"].value, "small_length"),
            "overhang": display(setup.overhang, "length"),
            "slender": same(f"{setup.overhang / bar.shank_height:.1f} × D"),
            "bar": same(f"{body_of(bar.bar).name} Ø{bar.shank_height:g}"),
            "stiffness": results["bar_stiffness"].display,
            "frequency": same(f"{results['bar_frequency'].value:.0f} Hz"),
            "room": same(f"{limits['chip_room'].value:.0f} % free, {100 * LEAST_ROOM:.0f} wanted"),
            "length": display(setup.feature.length, "length"),
        },
        "insert_outline": [(x, -y) for x, y in insert_outline(setup.insert, bar.cutting_edge_angle)],
        "map": map_out(shown),
    }


def facts(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    """What the set-up sheet says of a bore."""
    f, bar = setup.feature, setup.holder.code
    return [
        ("bore", f"Ø {drawn(f.end_diameter, system)}, {length(f.length, system)} deep, from Ø {length(f.start_diameter, system)}"),
        ("its body", f"{body_of(bar.bar).name} Ø {length(bar.shank_height, system)}"),
    ]


VIEWER = Viewer(view, facts=facts, checks=CHECKS)
