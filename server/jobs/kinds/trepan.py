"""What trepanning shows: the head over the plate in section, and ring against solid drilling over diameter."""

from __future__ import annotations

from typing import Any, Literal

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Outcome
from cutting.operations.slots.trepan.readings import TrepanScene
from cutting.quantities import display
from server.jobs.kinds.view import NARROW_CHECKS, AxisOut, Shown, Viewer, axis, both, length, points, same
from server.units import DisplayOut, Plain, Point


class TrepanView(Plain):
    """What the browser draws of a trepanned ring."""

    kind: Literal["trepan"]
    scene: TrepanScene
    scene_labels: dict[str, DisplayOut]
    diameter_axis: AxisOut
    torque_axis: AxisOut
    ring: list[Point]
    solid: list[Point]
    can: list[Point]
    at: Point


def view(shown: Shown) -> dict[str, Any]:
    """Drawing, and torque of ring and solid over diameter."""
    setup, outcome, over = shown.setup, shown.outcome, shown.explored
    results = outcome.results
    n = results["spindle_speed"].value
    can = float(setup.machine.spindle_power(n)) * 9549.3 / n
    top = 1.15 * max(results["torque"].value, min(can, 2.0 * results["solid_torque"].value), results["solid_torque"].value)
    # torque that the spindle can give at each diameter's speed: its power over the ring's, times the ring's torque
    held = [
        (d, has * torque / max(power, 1e-9))
        for d, has, torque, power in zip(over.diameters, over.available, over.ring_torque, over.ring_power, strict=True)
    ]
    return {
        "kind": "trepan",
        "scene": plain(outcome.scene),
        "scene_labels": {
            "outer_diameter": display(round(setup.outer_diameter, 2), "length", False),
            "inner_diameter": display(round(setup.inner_diameter, 2), "length", False),
            "ring_width": display(setup.ring_width, "length"),
            "depth": display(setup.depth, "length"),
            "torque": results["torque"].display,
            "solid_torque": results["solid_torque"].display,
            "thrust": results["thrust"].display,
            "core_mass": results["core_mass"].display,
            "overhang": display(setup.overhang, "length"),
            "second": display(setup.feature.inner_ring or 0.0, "length"),
            "web": display(setup.feature.web, "length"),
            "share": results["ring_share"].display,
        },
        "diameter_axis": axis("outer Ø", over.diameters[0], over.diameters[-1], "length", shown.system),
        "torque_axis": axis("torque", 0.0, top, "torque", shown.system),
        "ring": points(zip(over.diameters, over.ring_torque, strict=True)),
        "solid": points(zip(over.diameters, over.solid_torque, strict=True)),
        "can": points(held),
        "at": [setup.outer_diameter, results["torque"].value],
    }


def table(shown: Shown) -> dict[str, Any]:
    """Ring against solid, figure by figure."""
    results = shown.outcome.results
    rows = (
        ("torque, worn", "torque", "solid_torque"),
        ("power, worn", "power", "solid_power"),
    )
    found = [{"cells": [same(label), results[a].display, results[b].display], "good": None} for label, a, b in rows]
    share = results["ring_share"].display
    found.append({"cells": [same("metal to chips"), share, same("100 %")], "good": None})
    found.append({"cells": [same("core left"), results["core_mass"].display, same("none")], "good": None})
    return {"caption": "Ring against solid", "head": [same(""), same("ring"), same("drilled solid")], "rows": found}


def facts(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    """What the set-up sheet says of trepanning."""
    f = setup.feature
    inner = f.inner_ring
    second = [] if inner is None else [("second ring", f"Ø {length(inner, system)} outside, in the same pass")]
    return [
        (
            "ring",
            f"Ø {length(setup.outer_diameter, system)} outside, Ø {length(setup.inner_diameter, system)} inside,"
            f" {length(setup.depth, system)} deep",
        ),
        ("wanted", f.keeps.value),
        *second,
        ("cartridges", setup.standing.value),
        ("feed a turn", both(outcome.results["feed_rev"].display, system)),
        ("core", both(outcome.results["core_mass"].display, system) + (f", web of {length(f.web, system)} left" if f.web else "")),
    ]


VIEWER = Viewer(view, table, facts, checks=NARROW_CHECKS)
