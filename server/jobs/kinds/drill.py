"""What drilling shows: the drill in its layers, thrust and torque over depth, and layer by layer what each asks."""

from __future__ import annotations

from typing import Any, Literal

import numpy as np

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Outcome
from cutting.operations.holes.drill.evaluate import MODEL
from cutting.operations.holes.drill.numbers import Numbers
from cutting.operations.holes.drill.readings import DrillScene, burr_words
from cutting.operations.holes.drill.simulation import DrillRun
from cutting.quantities import Display, display
from server.jobs.kinds.view import AxisOut, Shown, TableOut, Viewer, axis, both, drawn, length, points, same
from server.units import DisplayOut, Plain, Point

__all__ = ["VIEWER", "DrillView", "TableOut"]
MOMENTS = 48
CHECKS = (
    "Drill and chuck clean and undamaged, shank fully in, runout measured at the corner; coolant reaches the point.",
    "Part gripped against the drill's torque; chips clear of the hole and of the chuck.",
)


class DrillMoment(Plain):
    """The tip at one depth, in words."""

    depth: float
    seconds: float
    layer: int
    filled: float
    labels: dict[str, DisplayOut]


class LayerBand(Plain):
    """A layer as it is drawn, mm from the entry."""

    name: str
    near: float
    far: float
    laminate: bool
    label: DisplayOut


class DrillView(Plain):
    """What the browser draws of a drilled hole."""

    kind: Literal["drill"]
    scene: DrillScene
    scene_labels: dict[str, DisplayOut]
    layers: list[LayerBand]
    depth_axis: AxisOut
    thrust_axis: AxisOut
    torque_axis: AxisOut
    thrust: list[Point]
    torque: list[Point]
    margin: list[Point]
    thrust_limit: float | None
    torque_limit: float | None
    pecks: list[float]
    moments: list[DrillMoment]


def view(shown: Shown) -> dict[str, Any]:
    """Drawing, curves over depth, moments."""
    run: DrillRun = shown.explored
    setup, outcome = shown.setup, shown.outcome
    results, limits = outcome.results, {one.name: one for one in outcome.limits}
    low, high = float(run.depth[0]), float(run.depth[-1])
    thrust_limit = _least(limits, "machine_thrust", "buckling", "push_out")
    torque_limit = _least(limits, "twist", "chuck_grip")
    thrust_top = 1.12 * max(float(run.thrust.max()), min(thrust_limit or 0.0, 1.6 * float(run.thrust.max())))
    torque_top = 1.12 * max(float(run.torque.max()), min(torque_limit or 0.0, 1.6 * float(run.torque.max())))
    picked = np.unique(np.linspace(0, len(run.depth) - 1, MOMENTS).astype(int))
    near, bands = 0.0, []
    for layer in setup.layers:
        far = near + layer.thickness
        label = display(layer.thickness, "length")
        bands.append({"name": layer.name, "near": near, "far": far, "laminate": layer.laminate is not None, "label": label})
        near = far + layer.gap
    return {
        "kind": "drill",
        "scene": plain(outcome.scene),
        "scene_labels": {
            "diameter": display(setup.drill.diameter, "length", False),
            "depth": display(setup.depth, "length"),
            "tip": display(round(setup.depth + setup.drill.cone, 2), "length"),
            "reach": display(setup.drill.reach, "length"),
            "thrust": results["thrust"].display,
            "torque": results["torque"].display,
            "cut": results["diameter_cut"].display,
            "pressure": results["pressure"].display,
            "burr": results["burr"].display,
        },
        "layers": bands,
        "depth_axis": axis("tip below the entry", low, high, "length", shown.system),
        "thrust_axis": axis("thrust", 0.0, thrust_top, "force", shown.system, most=3.5),
        "torque_axis": axis("torque", 0.0, torque_top, "torque", shown.system, most=3.5),
        "thrust": points(zip(run.depth, run.thrust, strict=True)),
        "torque": points(zip(run.depth, run.torque, strict=True)),
        "margin": points(zip(run.depth, run.margin, strict=True)),
        "thrust_limit": thrust_limit,
        "torque_limit": torque_limit,
        "pecks": list(run.pecks),
        "moments": [_moment(run, setup, int(k)) for k in picked],
    }


def _least(limits: dict[str, Any], *names: str) -> float | None:
    """The nearest of some upper bounds."""
    return min((limits[name].upper for name in names if name in limits and limits[name].upper is not None), default=None)


def _moment(run: DrillRun, setup: Any, k: int) -> dict[str, Any]:
    layer = int(run.layer[k])
    return {
        "depth": float(run.depth[k]),
        "seconds": float(run.seconds[k]),
        "layer": layer,
        "filled": float(run.filled[k]),
        "labels": {
            "depth": display(round(float(run.depth[k]), 2), "length"),
            "seconds": display(float(run.seconds[k]), "duration"),
            "thrust": display(float(run.thrust[k]), "force"),
            "torque": display(float(run.torque[k]), "torque"),
            "power": display(float(run.power[k]), "power"),
            "temperature": same(f"{float(run.temperature[k]):.0f} °C"),
            "filled": same(f"{float(run.filled[k]):.0%}"),
            "layer": same(_where(setup, float(run.depth[k]))),
        },
    }


def _where(setup: Any, tip: float) -> str:
    """The layers that the lips are in, in words: from the one at the corner to the one at the tip."""
    near, cut = 0.0, []
    for k, layer in enumerate(setup.layers, 1):
        far = near + layer.thickness
        if near < tip and tip - setup.drill.cone < far:
            cut.append(f"{k} {layer.name}" if len(setup.layers) > 1 else layer.name)
        near = far + layer.gap
    if not cut:
        return "before the metal" if tip <= 0 else "behind the metal"
    return cut[0] if len(cut) == 1 else f"{cut[0]} to {cut[-1]}"


def table(shown: Shown) -> dict[str, Any]:
    """What each layer asks: windows, force, heat, its share of the drill's life, the hole's diameter."""
    x: Numbers = MODEL.quickly(shown.setup)
    count = x.layers.count

    def of(values: Any) -> Any:
        return np.ravel(np.broadcast_to(np.asarray(values, float), (count,)))

    used = of(x.wear)
    rows = [
        {
            "cells": [
                same(f"{k + 1} {layer.name}" if count > 1 else layer.name),
                _span(of(x.book_low)[k], of(x.book_high)[k], "cutting_speed"),
                _span(of(x.tool.feed_low)[k], of(x.tool.feed_high)[k], "feed_per_rev"),
                same("–" if x.layers.laminate[k] else f"{of(x.temperature)[k]:.0f}"),
                same(f"{used[k] / used.sum():.0%}"),
                display(round(of(x.diameter_cut)[k], 3), "length", False),
            ],
            "good": None,
        }
        for k, layer in enumerate(shown.setup.layers)
    ]
    head = [same(word) for word in ("layer", "speed", "feed", "°C", "wear", "hole Ø")]
    return {"caption": "What each layer asks", "head": head, "rows": rows}


def _span(low: float, high: float, kind: str) -> Display:
    a, b = display(low, kind, False), display(high, kind, False)
    return Display(f"{a.metric}–{b.metric}", f"{a.inch}–{b.inch}")


def facts(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    """What the set-up sheet says of a drilled hole."""
    f, s, drill, results = setup.feature, setup.settings, setup.drill, outcome.results
    found = [
        ("hole", f"Ø {drawn(f.diameter, system)}, {length(setup.depth, system)} {'through' if f.through else 'to the shoulder'}"),
        (
            "size and point",
            f"Ø {length(setup.drill.diameter, system)}, point {setup.drill.point_angle:g}°, reaches {length(setup.drill.reach, system)}",
        ),
        ("runout", f"at the corner at most {both(display(drill.type.runout, 'length'), system)}"),
        ("feed a minute", both(results["feed_rate"].display, system)),
        ("pecks", s.pecks.value if not results["pecks"].value else f"{results['pecks'].display.metric} {s.pecks.value}"),
    ]
    if f.stack:
        found.append(("layers", " / ".join(f"{one.name} {length(one.thickness, system)}" for one in f.stack)))
    if f.circle is not None:
        found.append(("holes", f"{f.count} on Ø {length(f.circle, system)}"))
    for share, words in ((s.entry_feed, "entry"), (s.exit_feed, "exit")):
        if share < 1:
            found.append((f"feed at the {words}", f"{share:.0%}"))
    height = f", about {both(results['burr'].display, system)}" if f.through else ""
    return [*found, ("burr at the exit", burr_words(MODEL.quickly(setup)) + height)]


VIEWER = Viewer(view, table, facts, stops=lambda view: [one["seconds"] for one in view["moments"]], checks=CHECKS)
