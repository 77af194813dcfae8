"""What milling a thread shows: the mill on its helix from the side and from above, and what each number of passes gives."""

from __future__ import annotations

from typing import Any, Literal

import numpy as np

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Outcome
from cutting.operations.threads.mill_thread.evaluate import MODEL, ByPasses
from cutting.operations.threads.mill_thread.readings import MillThreadScene
from cutting.quantities import display
from server.jobs.kinds.threads import size_labels, thread_facts
from server.jobs.kinds.view import Shown, TableOut, Viewer, Way, both, length, same, way_of
from server.units import DisplayOut, Plain

__all__ = ["VIEWER", "MillThreadView", "TableOut"]
STOPS = 96
CHECKS = (
    "Sense of the spindle as the mill cuts (a left-cutting one M4), path and way along the axis as on this sheet.",
    "Path's offset set, runout measured at the teeth; the first thread gauged, the offset corrected by what the gauge says.",
)


class PassesOut(Plain):
    """What a number of radial passes and repeats gives."""

    passes: int
    repeats: int
    seconds: float
    taper: float
    present: bool
    sound: bool
    labels: dict[str, DisplayOut]


class ThreadMoment(Plain):
    """The mill at one moment of its way."""

    seconds: float
    turns: float
    labels: dict[str, DisplayOut]


class MillThreadView(Plain):
    """What the browser draws of a milled thread."""

    kind: Literal["mill thread"]
    scene: MillThreadScene
    scene_labels: dict[str, DisplayOut]
    passes: list[PassesOut]
    moments: list[ThreadMoment]
    way: Way


def view(shown: Shown) -> dict[str, Any]:
    """Drawing, passes, moments."""
    setup, results = shown.setup, shown.outcome.results
    s, mill = setup.settings, setup.mill
    spindle = "M4, counter-clockwise" if mill.left_cutting else "M3, clockwise"
    labels = {
        **size_labels(setup.feature),
        "mill": display(mill.diameter, "length", False),
        "middle": results["centre_rate"].display,
        "wall": results["feed_rate"].display,
        "offset": results["offset_wanted"].display,
        "flank": results["flank_error"].display,
        "taper": results["taper"].display,
        "push_off": results["push_off"].display,
        "spindle": same(spindle),
        "path": same(setup.path.value),
        "goes": same(setup.goes.value),
    }
    turns = float(results["turns"].value) * s.passes
    seconds = float(results["helix_time"].value)
    return {
        "kind": "mill thread",
        "scene": plain(shown.outcome.scene),
        "scene_labels": labels,
        "passes": [_passes(one, s) for one in shown.explored],
        "moments": [_moment(share, turns, seconds) for share in np.linspace(0.0, 1.0, STOPS)],
        "way": way_of("mill thread", MODEL.quickly(setup)),
    }


def _passes(one: ByPasses, settings: Any) -> dict[str, Any]:
    labels = {
        "seconds": display(one.seconds, "duration"),
        "push_off": display(one.push_off, "force"),
        "taper": display(1000.0 * one.taper, "small_length"),
        "width": display(1000.0 * one.width, "small_length"),
        "certainty": same(f"{100.0 * one.certainty:.1f} %"),
    }
    present = one.passes == settings.passes and one.repeats == settings.repeats
    found = {name: getattr(one, name) for name in ("passes", "repeats", "seconds", "taper", "sound")}
    return {**found, "present": present, "labels": labels}


def _moment(share: float, turns: float, seconds: float) -> dict[str, Any]:
    labels = {"seconds": display(share * seconds, "duration"), "turns": same(f"{share * turns:.1f} turns")}
    return {"seconds": float(share * seconds), "turns": float(share * turns), "labels": labels}


def facts(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    """What the set-up sheet says of a milled thread."""
    s, mill, results = setup.settings, setup.mill, outcome.results
    spindle = "counter-clockwise (M4): left-cutting mill" if mill.left_cutting else "clockwise (M3)"
    repeats = f", {s.repeats} repeat{'s' if s.repeats > 1 else ''} at size" if s.repeats else ""
    offset = results["offset_wanted"].value if s.offset is None else s.offset
    return [
        *thread_facts(setup.feature, system),
        ("mill", f"Ø {length(mill.diameter, system)}, {mill.flutes} teeth round, reaches {length(mill.reach, system)}"),
        ("spindle turns", spindle),
        ("path", f"{setup.path.value}, {setup.goes.value}"),
        ("in and out", f"on an arc of {s.arc:g}° that climbs its share of the pitch"),
        ("passes", f"{s.passes} radial{repeats}"),
        ("feed of the middle", both(results["centre_rate"].display, system)),
        ("path set outward", f"{both(display(offset, 'length'), system)}: flank error and push-off taken back"),
        *([] if setup.feature.there <= 0 and mill.type.opens else [("tapping hole Ø", f"Ø {length(round(setup.hole, 3), system)}")]),
    ]


VIEWER = Viewer(view, None, facts, stops=lambda view: [one["seconds"] for one in view["moments"]], checks=CHECKS)
