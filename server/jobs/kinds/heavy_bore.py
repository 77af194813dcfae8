"""What a heavy bore shows: the tool of several steps in its bores, feed over speed with its limits, bore by bore."""

from __future__ import annotations

from typing import Any, Literal

import numpy as np

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Outcome
from cutting.operations.holes.heavy_bore.evaluate import MODEL
from cutting.operations.holes.heavy_bore.limits import grade_of
from cutting.operations.holes.heavy_bore.numbers import RUN_IN, Numbers
from cutting.operations.holes.heavy_bore.readings import HeavyBoreScene
from cutting.quantities import display
from server.jobs.kinds.limit_map import LimitMapOut, limit_map_out
from server.jobs.kinds.view import AxisOut, Shown, Viewer, Way, axis, both, drawn, length, same, way_of
from server.units import DisplayOut, Plain

STOPS = 48
CHECKS = (
    "Weighed with its inserts in, balanced, mass and moment in the machine's tool table; changer on its slow swing.",
    "Every step measured and set as on this sheet; every outlet blows; part gripped by its face or in jaws that reach round.",
)


class HeavyMoment(Plain):
    """The tool at one place of its pass."""

    seconds: float
    depth: float
    labels: dict[str, DisplayOut]


class HeavyBoreView(Plain):
    """What the browser draws of a heavy bore."""

    kind: Literal["heavy bore"]
    scene: HeavyBoreScene
    scene_labels: dict[str, DisplayOut]
    speed_axis: AxisOut
    feed_axis: AxisOut
    map: LimitMapOut
    moments: list[HeavyMoment]
    way: Way


def view(shown: Shown) -> dict[str, Any]:
    """Drawing, map, moments."""
    x: Numbers = MODEL.quickly(shown.setup)
    found, results = shown.explored, shown.outcome.results
    names = ("mass", "moment", "lever", "torque", "coaxiality")
    return {
        "kind": "heavy bore",
        "scene": plain(shown.outcome.scene),
        "scene_labels": {name: results[name].display for name in names},
        "speed_axis": axis("speed", 0.0, float(found.across[-1]), "cutting_speed", shown.system, most=4.5),
        "feed_axis": axis("feed", 0.0, float(found.up[-1]), "feed_per_rev", shown.system, most=4.5),
        "map": limit_map_out(found),
        "moments": [_moment(x, k / (STOPS - 1)) for k in range(STOPS)],
        "way": way_of("heavy bore", x),
    }


def _moment(x: Numbers, share: float) -> dict[str, Any]:
    """The tool after a share of its pass, and the torque of the steps that cut there."""
    seconds = share * float(np.ravel(x.engaged_time)[0])
    gone = seconds * float(np.ravel(x.feed_rate)[0]) / 60.0 - RUN_IN
    enters = np.ravel(x.enters)
    ends = enters + np.array([one.length for one in x.setup.feature.bores])
    torque = float(np.ravel(x.step_torque)[(enters <= gone) & (gone <= ends)].sum())
    labels = {"depth": display(round(max(gone, 0.0), 1), "length"), "seconds": display(seconds, "duration"),
              "torque": display(torque, "torque")}  # fmt: skip
    return {"seconds": seconds, "depth": gone, "labels": labels}


def table(shown: Shown) -> dict[str, Any]:
    """What each bore is set to, and what it keeps."""
    x: Numbers = MODEL.quickly(shown.setup)
    rows = []
    for k, bore in enumerate(shown.setup.feature.bores):
        width, size = bore.diameter.tolerance, bore.diameter.nominal

        def of(values: Any, k: int = k) -> float:
            return float(np.ravel(values)[k])

        cells = [
            same(f"{shown.setup.steps[k].name}{f', {grade_of(size, width)}' if width else ''}"),
            display(round(of(x.set_to), 4), "length", False),
            display(round(of(x.cylindricity), 4), "length", False),
            display(of(x.step_torque), "torque", False),
            display(of(x.flow), "flow", False),
        ]
        rows.append({"cells": cells, "good": None})
    return {"caption": "Bore by bore", "head": [same(word) for word in ("step", "set to Ø", "round within", "N·m", "l/min")], "rows": rows}


def facts(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    """What the set-up sheet says of a heavy bore."""
    results, x = outcome.results, MODEL.quickly(setup)
    found = [
        (f"bore {number}", f"Ø {drawn(one.diameter, system)}, {length(one.length, system)} from {length(one.near, system)}; set to "
                           f"{length(round(float(np.ravel(x.set_to)[number - 1]), 4), system)}")
        for number, one in enumerate(setup.feature.bores, start=1)
    ]  # fmt: skip
    carried = ", ".join(both(results[name].display, system) for name in ("mass", "moment"))
    s = setup.settings
    return [*found, ("on the gripper", carried), ("set at", f"{s.temperature:g} ± {s.temperature_known:g} °C")]


VIEWER = Viewer(view, table, facts, stops=lambda view: [one["seconds"] for one in view["moments"]], checks=CHECKS)
