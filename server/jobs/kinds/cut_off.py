"""What cut-off shows: blade and bar to scale, everything over diameter, the face that is left, and what the kerf costs."""

from __future__ import annotations

from typing import Any, Literal

import numpy as np

from cutting.doors.plain import plain
from cutting.operations.frame.outcome import Outcome
from cutting.operations.slots.cut_off.readings import CutOffScene
from cutting.operations.slots.cut_off.simulation import CutOff
from cutting.quantities import Display, display, write
from cutting.quantities.kinds import currency
from server.jobs.kinds.view import NARROW_CHECKS, AxisOut, Shown, TableOut, Viewer, axis, both, length, points, same
from server.units import DisplayOut, Plain, Point

__all__ = ["VIEWER", "CutOffView", "TableOut"]
STEP = 4  # of the simulation's points, every fourth is drawn and scrubbed


class MomentOut(Plain):
    """One moment on the way to the centre, in words."""

    diameter: float
    seconds: float
    reach: float
    labels: dict[str, DisplayOut]


class KerfLine(Plain):
    """What a kerf costs a piece."""

    label: DisplayOut
    value: DisplayOut
    saving: bool


class CutOffView(Plain):
    """What the browser draws of a cut-off."""

    kind: Literal["cut off"]
    scene: CutOffScene
    scene_labels: dict[str, DisplayOut]
    part: list[Point]
    diameter_axis: AxisOut
    speed: list[Point]
    spindle: list[Point]
    feed: list[Point]
    force: list[Point]
    peak: dict[str, float]
    moments: list[MomentOut]
    clamp: DisplayOut
    clamp_diameter: float
    break_off: float
    falls: DisplayOut
    face: list[Point]
    face_label: DisplayOut
    face_limit: DisplayOut | None
    pip_part: float
    pip_bar: float
    pip_label: DisplayOut
    kerf: list[KerfLine]


def view(shown: Shown) -> dict[str, Any]:
    """Drawing, curves over diameter, face, kerf."""
    run: CutOff = shown.explored
    setup, outcome = shown.setup, shown.outcome
    d = run.diameter
    pick = slice(None, None, STEP)
    steps = [(zone.start, zone.feed) for zone in setup.zones]
    feed = [pair for k, (start, value) in enumerate(steps) for pair in ((start, value), (setup.zones[k].end, value))]
    return {
        "kind": "cut off",
        "scene": plain(outcome.scene),
        "scene_labels": {
            "width": display(setup.insert.width, "length"),
            "reach": display(min(setup.blade.reach, setup.insert.reach), "length"),
            "needs": display(setup.depth, "length"),
            "distance": display(setup.feature.distance_from_chuck, "length"),
            "overhang": display(setup.overhang, "length"),
            "clamp_diameter": display(round(run.clamp_diameter, 1), "length", False),
        },
        "part": points(shown.part),
        "diameter_axis": axis("diameter", 0.0, float(d[0]), "length", shown.system),
        "speed": points(zip(d[pick], run.cutting_speed[pick], strict=True)),
        "spindle": points(zip(d[pick], run.spindle_speed[pick], strict=True)),
        "feed": points(feed),
        "force": points(zip(d[pick], run.cutting_force[pick], strict=True)),
        "peak": {
            "speed": float(run.cutting_speed.max()),
            "spindle": float(run.spindle_speed.max()),
            "feed": max(value for _, value in steps),
            "force": float(run.cutting_force.max()),
        },
        "moments": [_moment(run, k) for k in range(0, len(d), STEP)],
        "clamp": display(float(run.spun.top), "spindle_speed"),
        "clamp_diameter": run.clamp_diameter,
        "break_off": run.break_off_diameter,
        "falls": display(round(run.break_off_diameter, 2), "length"),
        "face": points(zip(d[pick] / 2.0, 1000.0 * run.tip_path[pick], strict=True)),
        "face_label": outcome.results["flatness"].display,
        "face_limit": display(1000.0 * setup.feature.flatness, "small_length") if setup.feature.flatness else None,
        "pip_part": run.pip_on_part,
        "pip_bar": run.pip_on_bar,
        "pip_label": display(round(run.pip_on_part, 2), "length"),
        "kerf": _kerf(setup, outcome),
    }


def _moment(run: CutOff, k: int) -> dict[str, Any]:
    d = float(run.diameter[k])
    return {
        "diameter": d,
        "seconds": float(run.seconds[k]),
        "reach": float(run.tip_path[k]),
        "labels": {
            "diameter": display(round(d, 2), "length", False),
            "seconds": display(float(run.seconds[k]), "duration"),
            "spindle_speed": display(float(run.spindle_speed[k]), "spindle_speed"),
            "cutting_speed": display(float(run.cutting_speed[k]), "cutting_speed"),
            "feed": display(float(run.feed[k]), "feed_per_rev"),
            "cutting_force": display(float(run.cutting_force[k]), "force"),
            "side_force": display(float(run.side_force[k]), "force"),
            "bends": display(1000.0 * float(run.side_bend[k]), "small_length"),
            "drift": display(1000.0 * abs(float(run.tip_path[k])), "small_length"),
        },
    }


def _kerf(setup: Any, outcome: Outcome) -> list[dict[str, Any]]:
    """What the kerf costs, and what half a millimetre less would save a year."""
    found = outcome.results
    if "kerf_per_piece" not in found:
        return []
    yearly, each = setup.bar.yearly, found["kerf_per_piece"].value
    width = setup.slot
    # a tenth of a cent counts where thousands are parted
    made = [{"label": _said("width {}", width), "value": same(f"{each:.3f} {currency()} per piece"), "saving": False}]
    if yearly:
        paid = same(write(each * yearly, "money"))
        made.append({"label": same(f"{yearly:,} a year".replace(",", "\u202f")), "value": paid, "saving": False})
        narrower = max(width - 0.5, 0.5)
        saved = same(f"{write(each * yearly * (width - narrower) / width, 'money')} a year")
        made.append({"label": _said("saved with {}", narrower), "value": saved, "saving": True})
    rest = found["remnant"].display
    made.append({"label": same("pieces per bar"), "value": found["pieces_per_bar"].display, "saving": False})
    made.append({"label": same("remnant"), "value": rest, "saving": False})
    made.append({"label": same("bar cost per piece"), "value": found["blank_per_piece"].display, "saving": False})
    if setup.bar.price <= 0:
        made.append({"label": same("at a usual bar price of"), "value": same(write(setup.bar_price, "money")), "saving": False})
    return made


def _said(words: str, length: float) -> Display:
    """Words with a length in both systems."""
    return Display(*(words.format(write(length, "length", system)) for system in ("metric", "inch")))


def table(shown: Shown) -> dict[str, Any]:
    """The feed zones with their seconds."""
    run: CutOff = shown.explored
    zones = shown.setup.zones
    rows = [
        {
            "cells": [
                display(zone.start, "length", False),
                display(zone.end, "length", False),
                display(zone.feed, "feed_per_rev", False),
                display(seconds, "duration", False),
            ],
            "good": None,
        }
        for zone, seconds in zip(zones, run.zone_seconds, strict=True)
    ]
    head = [same("from Ø"), same("to Ø"), same("feed"), same("s")]
    return {"caption": "Feed zones", "head": head, "rows": rows}


def facts(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    """What the set-up sheet says of a cut-off."""
    found = [
        ("edge", f"{length(setup.insert.width, system)} wide, lead angle {setup.insert.lead_angle:g}°"),
        ("cut in front of the collet", length(setup.feature.distance_from_chuck, system)),
        ("falls at", f"Ø {both(outcome.results['break_off_diameter'].display, system)}"),
        ("pip on the part", both(outcome.results["pip_on_part"].display, system)),
        ("face dish", f"{both(outcome.results['flatness'].display, system)}, {outcome.scene['hollow']}"),
    ]
    held = [
        said
        for name, said in (
            ("sub_spindle", "sub-spindle"),
            ("part_catcher", "part catcher"),
            ("guide_bush", "guide bush"),
            ("y_axis", "Y axis"),
        )
        if getattr(setup.holding, name)
    ]
    s = setup.settings
    if setup.widened:
        found.append(("slot widened to", length(setup.slot, system)))
    if s.pull_out_at:
        first, last = length(float(setup.starts_out(setup.overhang)), system), length(setup.overhang, system)
        found.append(("blade stands out", f"{first}; spindle stopped at Ø {length(s.pull_out_at, system)}, pulled out to {last}"))
    return [*found, ("holding", ", ".join(held) or "collet or jaws alone")]


def curve_table(run: CutOff, system: str) -> tuple[list[str], list[list[float]]]:
    """Heads and rows of the whole way to the centre, in the units shown."""
    inch = system == "inch"
    shorter, force = (1.0 / 25.4, 0.2248089) if inch else (1.0, 1.0)
    unit, newton, speed = ("in", "lbf", "sfm") if inch else ("mm", "N", "m/min")
    columns: list[tuple[str, Any]] = [
        (f"diameter {unit}", run.diameter * shorter),
        ("time s", run.seconds),
        ("spindle speed rpm", run.spindle_speed),
        (f"cutting speed {speed}", run.cutting_speed * (3.280839895 if inch else 1.0)),
        (f"feed {unit}/rev", run.feed * shorter),
        (f"cutting force {newton}", run.cutting_force * force),
        (f"feed force {newton}", run.feed_force * force),
        (f"side force {newton}", run.side_force * force),
        ("blade deflection " + ("µin" if inch else "µm"), run.side_bend * (39_370.08 if inch else 1000.0)),
        ("tip path " + ("µin" if inch else "µm"), run.tip_path * (39_370.08 if inch else 1000.0)),
    ]
    rows = np.column_stack([values for _, values in columns])
    return [head for head, _ in columns], [[float(f"{value:.6g}") for value in row] for row in rows]


VIEWER = Viewer(view, table, facts, stops=lambda view: [one["seconds"] for one in view["moments"]], checks=NARROW_CHECKS)
