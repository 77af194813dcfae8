"""What drilling brings to the house."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from cutting.machine.machines import Machine
from cutting.machine.spindle import DRIVEN
from cutting.operations.frame.fields import Nudged
from cutting.operations.frame.kind import Given, Kind, Settled
from cutting.operations.holes.drill.evaluate import MODEL, explore
from cutting.operations.holes.drill.limits import broken_exit_of
from cutting.operations.holes.drill.path import path
from cutting.operations.holes.drill.setup import FIELDS, DrillSetup, HoleEntry, HoleFeature, Pecks, build, feature_of
from cutting.tooling.drill_stock import DrillStock
from cutting.tooling.drills import CHUCK_KIND, DRILL_KINDS
from cutting.tooling.roles import Parts, Role
from cutting.workpiece.solid import Corner, Region, Side, Solid

ALL = 1e6  # mm: through whatever there is


def removes(feature: HoleFeature) -> Region:
    """A hole on the axis is part of the inside, one beside it of the face's rings; the cone of a blind one is not told."""
    size, deep = feature.diameter.nominal, ALL if feature.through else feature.depth
    if feature.circle is not None:
        return Region(Side.RING, depth=deep, inner=feature.circle - size, outer=feature.circle + size)
    return Region(Side.BORE, depth=deep, outer=size)


def settles(given: Given, before: Solid) -> Settled:
    """A hole that goes through and whose depth is not said goes through the part; what is there already is its pilot."""
    found: Settled = {}
    through = given.text("through").lower() not in ("false", "no")
    if through and not given.has("stack") and not given.has("depth"):
        long = before.face - (before.back if before.back is not None else 0.0)
        if long > 0:
            found["depth"] = long
    if before.bore > 0 and not given.has("circle"):
        size = given.dimension("diameter")
        if size is not None and before.bore < size:
            found["pilot"] = before.bore
    return found


def runs_on(feature: Mapping[str, Any], machine: Machine) -> str:
    """Holes beside the axis of a turning part want driven tools."""
    return DRIVEN if machine.turns and feature.get("circle") not in (None, "") and machine.has(DRIVEN) else ""


def typed(setup: DrillSetup) -> tuple[str, ...]:
    """The settings that matter here: sizes of pecks, feed at a leaning or broken end, the tip's place, speeds by layer."""
    f, found = setup.feature, list[str]()
    if setup.settings.pecks is not Pecks.NONE:
        found += ["first_peck", "next_peck", "least_peck"]
    if f.entry_angle > 0 or f.entry is HoleEntry.CURVED or setup.settings.entry_feed < 1:
        found.append("entry_feed")
    if broken_exit_of(f) or f.burr is not None or setup.settings.exit_feed < 1:
        found.append("exit_feed")
    if setup.turns_part:
        found.append("offset")
    if len(setup.layers) > 1 and not setup.machine.fixed:
        found.append("per_layer")
    return tuple(found)


def area(setup: DrillSetup, before: Solid) -> tuple[Corner, ...]:
    """The hole in half section, from the part's face."""
    end, deep = before.face, setup.depth
    low, high = setup.feature.pilot / 2, setup.feature.diameter.nominal / 2
    if (circle := setup.feature.circle) is not None:
        low, high = (circle - setup.feature.diameter.nominal) / 2, (circle + setup.feature.diameter.nominal) / 2
    return ((end - deep, low), (end - deep, high), (end, high), (end, low))


def gather(parts: Parts, note: str) -> DrillStock:
    """The drills and chucks to choose from."""
    return DrillStock(tuple(parts["drill"]), tuple(parts["chuck"]), note)


KIND = Kind(
    "drill",
    "Drill",
    MODEL,
    explore,
    FIELDS,
    (
        Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed),
        Nudged("feed_per_rev", "feed", "feed_per_rev", "book_feed", lambda setup, outcome: setup.settings.feed_per_rev),
    ),
    ("operation_time", "operation_cost", "holes", "one_drill", "change_parts", "secure", "torque"),
    (Role("drill", "drill", DRILL_KINDS), Role("chuck", "chuck", (CHUCK_KIND,))),
    gather,
    build,
    feature_of,
    path,
    guests=("trepan", "bore", "mill hole"),
    removes=removes,
    settles=settles,
    runs_on=runs_on,
    area=area,
    choices=("pecks",),
    typed=typed,
    ranked=("pecks", "first_peck", "next_peck", "least_peck", "per_layer"),
    shape="hole",
    neutral=(("cutting_speed", 30.0), ("feed_per_rev", 0.05)),
)
