"""What tapping shows: the tap in its hole, torque over its way against what breaks it, what slips and what drives it."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal

import numpy as np

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Outcome
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.threads.shared.core_hole import engagement, strength
from cutting.operations.threads.tap.evaluate import MODEL
from cutting.operations.threads.tap.readings import TapScene
from cutting.operations.threads.tap.simulation import TapRun
from cutting.quantities import display
from cutting.workpiece.threads.tap_drills import drills_inside, formed_holes
from server.jobs.kinds.threads import size_labels, thread_facts
from server.jobs.kinds.view import AxisOut, Shown, TableOut, Viewer, axis, both, length, points, same
from server.units import DisplayOut, Plain, Point

__all__ = ["VIEWER", "TableOut", "TapView"]
MOMENTS = 60
CHECKS = (
    "Hole drilled, deep enough and chamfered; tap sharp, straight in its holder, oil or rich emulsion at the thread.",
    "Sense of the spindle and lead as on this sheet; the first thread gauged before the next is cut.",
)


class TapMoment(Plain):
    """The tap at one moment, in words."""

    seconds: float
    depth: float
    labels: dict[str, DisplayOut]


class TapView(Plain):
    """What the browser draws of a tapped thread."""

    kind: Literal["tap"]
    scene: TapScene
    scene_labels: dict[str, DisplayOut]
    time_axis: AxisOut
    torque_axis: AxisOut
    torque: list[Point]
    breaking: float
    clutch: float | None
    spindle: float
    turns_back: float
    moments: list[TapMoment]


def view(shown: Shown) -> dict[str, Any]:
    """Drawing, torque over time, moments."""
    run: TapRun = shown.explored
    setup, results = shown.setup, shown.outcome.results
    most = 1.15 * max(float(run.torque.max()), min(run.breaking, 3.0 * float(run.torque.max())), run.clutch or 0.0)
    picked = np.unique(np.linspace(0, len(run.seconds) - 1, MOMENTS).astype(int))
    return {
        "kind": "tap",
        "scene": plain(shown.outcome.scene),
        "scene_labels": {
            **size_labels(setup.feature),
            "hole": display(round(setup.hole, 3), "length", False),
            "needed": results["way_needed"].display,
            "torque": results["torque"].display,
            "breaking": results["breaking"].display,
            "margin": same(f"margin {results['margin'].value:.1f}"),
        },
        "time_axis": axis("time", 0.0, float(run.seconds[-1]), "duration", shown.system, "s", most=6.5),
        "torque_axis": axis("torque", 0.0, most, "torque", shown.system, most=4.5),
        "torque": points(zip(run.seconds, run.torque, strict=True)),
        "breaking": run.breaking,
        "clutch": run.clutch,
        "spindle": run.spindle,
        "turns_back": run.turns_back,
        "moments": [_moment(run, int(k)) for k in picked],
    }


def _moment(run: TapRun, k: int) -> dict[str, Any]:
    torque = abs(float(run.torque[k]))
    labels = {
        "depth": display(round(float(run.depth[k]), 2), "length"),
        "seconds": display(float(run.seconds[k]), "duration"),
        "torque": display(torque, "torque"),
        "margin": same(f"{min(run.breaking / max(torque, 1e-6), 99.0):.1f}"),
        "way": same("in" if float(run.seconds[k]) <= run.turns_back else "back out"),
    }
    return {"seconds": float(run.seconds[k]), "depth": float(run.depth[k]), "labels": labels}


def table(shown: Shown) -> dict[str, Any]:
    """What each core hole would do: how much of the thread it leaves, torque, margin, and what gives way first."""
    setup, f = shown.setup, shown.setup.feature
    sizes = formed_holes(f.thread) if setup.tap.type.forms else drills_inside(f.thread)
    rows = []
    for size in sorted({*sizes, round(setup.hole, 3)}):
        x = MODEL.quickly(replace(setup, feature=replace(f, there=size)))
        weakest = strength(f.thread, size, f.length, setup.work.strength).weakest
        of_engagement, of_full = engagement(f.thread, size)
        now = abs(size - setup.hole) < 1e-6
        cells = [
            display(size, "length", False),
            same(f"{of_engagement:.0f} / {of_full:.0f}"),
            display(last_pass(x.torque), "torque", False),
            same(f"{last_pass(x.margin):.2f}"),
            same(weakest),
        ]
        rows.append({"cells": cells, "good": True if now else None})
    head = [same(word) for word in ("hole Ø", "% 5/8 H / full", "N·m", "margin", "fails first")]
    return {"caption": "What each tapping hole does", "head": head, "rows": rows}


def facts(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    """What the set-up sheet says of a tapped thread."""
    results = outcome.results
    shares = f"{results['percent'].display.metric} of 5/8 H, {results['percent_full'].display.metric} of full height"
    found = [
        *thread_facts(setup.feature, system),
        ("tapping hole Ø", f"Ø {length(round(setup.hole, 3), system)}, {shares}"),
        ("led by", setup.settings.held.value),
        ("feed rate", both(results["feed_rate"].display, system)),
        ("torque, worn", f"{both(results['torque'].display, system)}; breaks at {both(results['breaking'].display, system)}"),
    ]
    if setup.settings.clutch:
        found.append(("clutch", both(display(setup.settings.clutch, "torque"), system)))
    return found


VIEWER = Viewer(view, table, facts, stops=lambda view: [one["seconds"] for one in view["moments"]], checks=CHECKS)
