"""Charts of a trial: edges that last, readings over pieces, sizes from piece to piece."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np

from cutting.learning.entries import Logged, by_count, edges_of
from cutting.learning.lives import Lives, Weibull, kaplan_meier
from cutting.quantities import write
from server.jobs.document.outcomes import outcome_and_numbers
from server.jobs.kinds.view import axis
from server.jobs.studies.answers import curve
from server.trials.models import Trial
from server.trials.reading import READ
from server.trials.sizes import sizes_in_order, zone_of

Answer = dict[str, Any]
SIDES = ("metric", "inch")
CURVED = 60  # points of a fitted curve


def charts_of(trial: Trial, setup: Any, told: Sequence[Logged], law: Weibull | None, system: str) -> dict[str, Answer]:
    found: dict[str, Answer] = {}
    edges = edges_of(told)
    if any(edges.ended):
        found["edges that last"] = _lasting(trial, edges.lives, law, setup, system)
    for name, label in (("wear_land", "wear over pieces"), ("roughness", "finish over pieces"), ("burr", "burr over pieces")):
        if (lines := by_count(told, name)) and max(len(xs) for _, xs, _ in lines) > 1:
            found[label] = _over_pieces(name, lines, trial, system)
    if (chart := _run_chart(setup, told, system)) is not None:
        found["size from piece to piece"] = chart
    return found


def _lasting(trial: Trial, lives: Lives, law: Weibull | None, setup: Any, system: str) -> Answer:
    """Kaplan and Meier's staircase, the fitted curve, and what the tables said."""
    stairs = kaplan_meier(lives)
    far = 1.25 * float(lives.lasted.max())
    xs, ys = [0.0], [100.0]
    for place, share in zip(stairs.lasted, stairs.share, strict=True):
        xs += [float(place), float(place)]
        ys += [ys[-1], 100.0 * float(share)]
    xs.append(far)
    ys.append(ys[-1])
    curves = [curve("seen", "seen", xs, ys)]
    grid = np.linspace(0.0, far, CURVED)
    if law is not None:
        curves.append(curve("fitted", "fitted", grid.tolist(), (100.0 * law.survival(grid)).tolist()))
    if setup is not None and "median_parts" in trial.prediction:
        median = float(trial.prediction["median_parts"][1])
        shape = float(np.ravel(outcome_and_numbers(setup)[1].weibull_shape)[0])
        curves.append(curve("predicted", "predicted", grid.tolist(), (100.0 * np.exp2(-((grid / median) ** shape))).tolist()))
    return {
        "x": axis("on one edge", 0.0, far, "count", system, "pieces"),
        "y": axis("edges that last", 0.0, 100.0, "share", system),
        "curves": curves,
        "marks": [],
    }


def _over_pieces(name: str, lines: Iterable[tuple[str, Any, Any]], trial: Trial, system: str) -> Answer:
    lines = list(lines)
    top = max(float(ys.max()) for _, _, ys in lines)
    curves = [curve(f"edge {edge}", f"edge {edge}", xs.tolist(), ys.tolist()) for edge, xs, ys in lines]
    far = max(float(xs.max()) for _, xs, _ in lines)
    if trial.watched == name:
        top = max(top, trial.bound)
        curves.append(curve("bound", "bound", [0.0, far], [trial.bound, trial.bound]))
    asked = READ[name]
    return {
        "x": axis("on one edge", 0.0, 1.12 * far, "count", system, "pieces"),
        "y": axis(asked.label, 0.0, 1.3 * max(top, 1e-6), asked.kind, system),
        "curves": curves,
        "marks": [],
    }


def _run_chart(setup: Any, told: Sequence[Logged], system: str) -> Answer | None:
    pieces, sizes = sizes_in_order(told)
    if len(sizes) < 2:
        return None
    zone = zone_of(setup)
    low, high = min(sizes), max(sizes)
    if zone is not None:
        low, high = min(low, zone[0]), max(high, zone[1])
    room = 0.3 * max(high - low, 1e-3)
    curves = [curve("sizes", "size", pieces, sizes)]
    span = [pieces[0], pieces[-1]]
    if zone is not None:
        curves += [curve("least", "least", span, [zone[0]] * 2), curve("largest", "largest", span, [zone[1]] * 2)]
    return {
        "x": axis("pieces made", 0.0, 1.05 * pieces[-1], "count", system, "in all"),
        "y": {**axis("size", low - room, high + room, "size", system), "ticks": _size_marks(low, high, system)},
        "curves": curves,
        "marks": [],
    }


def _size_marks(low: float, high: float, system: str) -> list[Answer]:
    places = np.linspace(low, high, 4)
    return [
        {"value": float(at), **dict(zip(SIDES, (write(float(at), "size", side, False) for side in SIDES), strict=True))} for at in places
    ]
