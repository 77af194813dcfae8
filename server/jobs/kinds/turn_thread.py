"""What turning a thread shows: the tool at its thread, the groove filling up pass by pass, and the table of hands."""

from __future__ import annotations

from typing import Any, Literal

import numpy as np

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Outcome
from cutting.operations.threads.shared.sense import table as hands
from cutting.operations.threads.turn_thread.evaluate import Filling
from cutting.operations.threads.turn_thread.readings import TurnThreadScene
from cutting.quantities import display
from server.jobs.kinds.threads import size_labels, thread_facts
from server.jobs.kinds.view import Shown, TableOut, Viewer, both, length, same
from server.units import DisplayOut, Plain, Point

__all__ = ["VIEWER", "TableOut", "TurnThreadView"]
CHECKS = (
    "Insert on centre, flank square to the axis, shim as on this sheet; sense of the spindle and direction of the feed tried in air.",
    "Constant speed of the spindle; run-in in front of the thread; nobody touches the chips.",
)


class GroovePass(Plain):
    """One pass in the groove: the band that it takes as corners (along the axis, deep), and its figures."""

    number: int
    corners: list[Point]
    depth: float
    shift: float
    spring: bool
    seconds: float
    labels: dict[str, DisplayOut]


class HandOut(Plain):
    """One way to turn a thread of this hand."""

    turns: str
    feeds: str
    tool: str
    with_lead: bool
    present: bool


class TurnThreadView(Plain):
    """What the browser draws of a turned thread."""

    kind: Literal["turn thread"]
    scene: TurnThreadScene
    scene_labels: dict[str, DisplayOut]
    passes: list[GroovePass]
    whole: float
    opening: float
    hands: list[HandOut]


def view(shown: Shown) -> dict[str, Any]:
    """Drawing, groove, hands."""
    found: Filling = shown.explored
    setup, results = shown.setup, shown.outcome.results
    cut = found.groove
    each = float(results["pass_time"].value)
    whole = float(cut.depth[-1])
    return {
        "kind": "turn thread",
        "scene": plain(shown.outcome.scene),
        "scene_labels": {
            **size_labels(setup.feature),
            "there": display(round(setup.there, 3), "length", False),
            "whole": display(round(whole, 3), "length"),
            "run_in": results["run_in"].display,
            "run_out": results["run_out"].display,
            "spindle": results["spindle_speed"].display,
            "turns": same(setup.turns.value),
            "feeds": same(setup.feeds.value),
            "tilt": same(f"seat {setup.tilt:g}°, lead {setup.feature.thread.lead_angle:.2f}°"),
            "clear": same(f"{results['clear_leading'].value:.1f}° and {results['clear_trailing'].value:.1f}°"),
            "infeed": same(setup.settings.infeed.value),
        },
        "passes": [_pass(found, k, each) for k in range(cut.depth.size)],
        "whole": whole,
        "opening": cut.tip + whole * sum(cut.slopes),
        "hands": [
            {"turns": turns.value, "feeds": feeds.value, "tool": "right" if tool == "R" else "left", "with_lead": leans,
             "present": turns is setup.turns and feeds is setup.feeds and tool == setup.holder.hand}
            for turns, feeds, tool, leans in hands(setup.feature.thread.left_hand)
        ],
    }  # fmt: skip


def _pass(found: Filling, k: int, each: float) -> dict[str, Any]:
    cut = found.groove
    lead, trail = cut.slopes
    depth, shift, half = float(cut.depth[k]), float(cut.shift[k]), cut.tip / 2.0
    corners = [[shift - half - depth * trail, 0.0], [shift - half, depth], [shift + half, depth], [shift + half + depth * lead, 0.0]]
    area = float(cut.area[k])
    labels = {
        "infeed": display(round(float(cut.infeed[k]), 4), "length"),
        "depth": display(round(depth, 4), "length"),
        "area": display(area, "area") if area > 0 else same("–"),
        "leading": display(float(cut.leading[k]), "area"),
        "trailing": display(float(cut.trailing[k]), "area"),
        "bottom": display(float(cut.bottom[k]), "area"),
        "force": display(float(np.broadcast_to(found.force, cut.depth.shape)[k]), "force"),
        "chip": display(round(float(np.broadcast_to(found.chip_thickness, cut.depth.shape)[k]), 4), "length") if area > 0 else same("–"),
    }
    return {
        "number": k + 1,
        "corners": corners,
        "depth": depth,
        "shift": shift,
        "spring": area <= 0,
        "seconds": (k + 0.5) * each,
        "labels": labels,
    }


def table(shown: Shown) -> dict[str, Any]:
    """The passes with infeed, depth, area and force."""
    rows = [
        {"cells": [same(str(one["number"])), *(one["labels"][name] for name in ("infeed", "depth", "area", "force"))], "good": None}
        for one in (_pass(shown.explored, k, 1.0) for k in range(shown.explored.groove.depth.size))
    ]
    return {"caption": "Passes", "head": [same(word) for word in ("pass", "infeed", "depth", "area", "force")], "rows": rows}


def facts(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    """What the set-up sheet says of a turned thread."""
    s, results = setup.settings, outcome.results
    steps = [one for one in outcome.passes if one.depth > 0]
    said = ", ".join(
        length(round(one.depth, 3), system) if k == 0 else f"{one.depth / (25.4 if system == 'inch' else 1.0):.3g}"
        for k, one in enumerate(steps)
    )
    return [
        *thread_facts(setup.feature, system),
        ("spindle and feed", f"{setup.turns.value}; {setup.feeds.value}"),
        ("seat", f"tilt {setup.tilt:g}°, lead angle {setup.feature.thread.lead_angle:.2f}°"),
        ("infeed", f"{s.infeed.value}, {len(steps)} passes and {s.spring} spring: {said}"),
        ("depth of all passes", both(results["whole_depth"].display, system)),
        ("run-in, run-out", f"{both(results['run_in'].display, system)}, {both(results['run_out'].display, system)}"),
        ("crest", "topped by the full profile" if setup.insert.full else "as turned before: partial profile"),
    ]


VIEWER = Viewer(view, table, facts, stops=lambda view: [one["seconds"] for one in view["passes"]], checks=CHECKS)
