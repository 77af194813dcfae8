"""What milling a hole shows: the mill on its helix in section and from above, pitch × feed with its limits, the way down."""

from __future__ import annotations

from typing import Any, Literal

import numpy as np

from cutting.doors.plain import plain
from cutting.operations.frame.limit_map import LimitMap
from cutting.operations.frame.outcome import Outcome
from cutting.operations.holes.mill_hole.evaluate import MODEL
from cutting.operations.holes.mill_hole.limits import helical
from cutting.operations.holes.mill_hole.numbers import Numbers
from cutting.operations.holes.mill_hole.readings import MillHoleScene
from cutting.quantities import display
from server.jobs.kinds.limit_map import LimitMapOut, limit_map_out
from server.jobs.kinds.view import AxisOut, Shown, TableOut, Viewer, Way, axis, both, drawn, length, same, way_of
from server.units import DisplayOut, Plain

__all__ = ["VIEWER", "MillHoleView", "TableOut"]
STOPS = 96
CHECKS = (
    "Mill and chuck clean and undamaged, shank fully in, runout measured at the teeth; nothing loose under a through hole.",
    "Path and radius offset as on this sheet; coolant or air reaches the hole; part gripped against the pull of the mill.",
)


class MillMoment(Plain):
    """The mill at one depth: turns made, in words."""

    seconds: float
    depth: float
    turns: float
    labels: dict[str, DisplayOut]


class MillHoleView(Plain):
    """What the browser draws of a milled hole."""

    kind: Literal["mill hole"]
    scene: MillHoleScene
    scene_labels: dict[str, DisplayOut]
    feed_axis: AxisOut
    pitch_axis: AxisOut
    map: LimitMapOut
    moments: list[MillMoment]
    way: Way


def view(shown: Shown) -> dict[str, Any]:
    """Drawing, map, moments."""
    x: Numbers = MODEL.quickly(shown.setup)
    found: LimitMap = shown.explored
    setup, results = shown.setup, shown.outcome.results
    down = helical(x)
    labels = {
        "diameter": display(setup.mill.diameter, "length", False),
        "hole": display(setup.feature.diameter.nominal, "length", False),
        "depth": display(setup.depth, "length"),
        "pitch": results["pitch"].display if down else same("plunge"),
        "ramp": results["ramp"].display if down else same("90°"),
        "middle": results["centre_rate"].display,
        "wall": results["feed_rate"].display,
        "engagement": results["engagement"].display,
        "chip": results["chip_thickness"].display,
        "push_off": results["push_off"].display if down else same("–"),
        "off_size": results["size_error"].display if down else same("–"),
        "taper": results["taper"].display if down else same("–"),
    }
    return {
        "kind": "mill hole",
        "scene": plain(shown.outcome.scene),
        "scene_labels": labels,
        "feed_axis": axis("feed a tooth", 0.0, float(found.across[-1]), "feed_per_tooth", shown.system, most=4.5),
        "pitch_axis": axis("pitch", 0.0, float(found.up[-1]), "length", shown.system, most=4.5),
        "map": limit_map_out(found),
        "moments": [_moment(x, k / (STOPS - 1)) for k in range(STOPS)],
        "way": way_of("mill hole", x),
    }


def _moment(x: Numbers, share: float) -> dict[str, Any]:
    """The mill after a share of its first hole."""
    setup = x.setup
    depth, turns = share * setup.depth, share * float(np.ravel(x.turns)[0])
    seconds = share * float(np.ravel(x.engaged_time)[0]) / setup.feature.count
    labels = {"depth": display(round(depth, 2), "length"), "seconds": display(seconds, "duration"), "turns": same(f"{turns:.1f} turns")}
    return {"seconds": seconds, "depth": depth, "turns": turns, "labels": labels}


def table(shown: Shown) -> dict[str, Any]:
    """What each pass takes: seconds, feed of wall and middle, how far it is in the metal, its push."""
    x: Numbers = MODEL.quickly(shown.setup)

    def of(values: Any) -> float:
        return float(np.ravel(values)[-1])

    f = shown.setup.feature
    whole = f.diameter.nominal
    rough = whole - 2.0 * shown.setup.settings.finish
    rows = [
        {
            "cells": [
                same("plunge" if not helical(x) else "helix"),
                display(rough if helical(x) else shown.setup.mill.diameter, "length", False),
                display(of(x.centre_rate), "feed_rate", False),
                display(of(x.engagement), "angle", False),
                display(of(x.helix_time), "duration"),
            ],
            "good": None,
        }
    ]
    if shown.setup.settings.finish > 0 and helical(x):
        last = of(x.feed_rate) * (whole - shown.setup.mill.diameter) / whole
        cells = [same("last turn"), display(whole, "length", False), display(last, "feed_rate", False)]
        cells += [display(of(x.finish_engagement), "angle", False), display(of(x.finish_time), "duration")]
        rows.append({"cells": cells, "good": None})
    return {
        "caption": "Way down and round",
        "head": [same(word) for word in ("pass", "hole Ø", "middle", "in metal °", "time")],
        "rows": rows,
    }


def facts(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    """What the set-up sheet says of a milled hole."""
    f, s, mill, results = setup.feature, setup.settings, setup.mill, outcome.results
    said = f"Ø {drawn(f.diameter, system)}, {length(setup.depth, system)} {'through' if f.through else 'to the floor'}"
    found = [
        ("hole", said + (", flat" if f.flat and not f.through else "")),
        ("mill", f"Ø {length(mill.diameter, system)}, {mill.flutes} teeth, reaches {length(mill.reach, system)}"),
    ]
    if "pitch" not in results:
        return [*found, ("way", f"plunge, {both(results['centre_rate'].display, system)}")]
    found += [
        ("way", f"helix, pitch {both(results['pitch'].display, system)}, ramp {results['ramp'].display.metric}, {s.sense.value}"),
        ("feed of the middle", both(results["centre_rate"].display, system)),
        ("feed at the wall", both(results["feed_rate"].display, system)),
        ("path set outward", length(s.offset, system)),
    ]
    if s.finish > 0:
        found.append(("last turn", f"{length(s.finish, system)} on the radius, over the whole depth"))
    if f.circle is not None:
        found.append(("holes", f"{f.count} on Ø {length(f.circle, system)}"))
    return found


VIEWER = Viewer(view, table, facts, stops=lambda view: [one["seconds"] for one in view["moments"]], checks=CHECKS)
