"""What boring with a heavy tool brings to the house."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from cutting.machine.machines import Machine
from cutting.machine.spindle import DRIVEN
from cutting.operations.frame.fields import Nudged
from cutting.operations.frame.kind import Given, Kind, Settled
from cutting.operations.holes.heavy_bore.evaluate import MODEL, explore
from cutting.operations.holes.heavy_bore.path import path
from cutting.operations.holes.heavy_bore.setup import FIELDS, HeavyBoreFeature, HeavyBoreSetup, build, feature_of
from cutting.tooling.heavy.stock import HeavyStock
from cutting.tooling.heavy.tool import HEAVY_KIND
from cutting.tooling.roles import Parts, Role
from cutting.workpiece.solid import Corner, Region, Side, Solid


def removes(feature: HeavyBoreFeature) -> Region:
    """The bores, from the face inward."""
    spans = tuple((one.near, one.far, one.diameter.nominal) for one in feature.bores)
    return Region(Side.BORE, spans, depth=feature.depth, outer=feature.widest)


def settles(given: Given, before: Solid) -> Settled:
    """Nothing: every bore is said whole."""
    return {}


def runs_on(feature: Mapping[str, Any], machine: Machine) -> str:
    """On a turning machine its driven tools bore, as far as they carry it."""
    return DRIVEN if machine.turns and machine.has(DRIVEN) else ""


def area(setup: HeavyBoreSetup, before: Solid) -> tuple[Corner, ...]:
    """What goes in half section, from the part's face: the rings of the bores, joined along what is there."""
    found, back = list[Corner](), list[Corner]()
    for bore, step in zip(setup.feature.bores, setup.steps, strict=True):
        outer, inner = bore.diameter.nominal / 2.0, (bore.diameter.nominal - step.allowance) / 2.0
        found += [(before.face - bore.near, outer), (before.face - bore.far, outer)]
        back += [(before.face - bore.near, inner), (before.face - bore.far, inner)]
    return (*found, *reversed(back))


def gather(parts: Parts, note: str) -> HeavyStock:
    """The heavy tools to choose from."""
    return HeavyStock(tuple(parts["heavy_tool"]), note)


KIND = Kind(
    "heavy bore",
    "Bore in steps",
    MODEL,
    explore,
    FIELDS,
    (
        Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed),
        Nudged("feed_per_rev", "feed", "feed_per_rev", "book_feed", lambda setup, outcome: setup.settings.feed_per_rev),
    ),
    ("operation_time", "operation_cost", "change_parts", "secure", "moment", "coaxiality", "cylindricity"),
    (Role("heavy_tool", "heavy tool", (HEAVY_KIND,)),),
    gather,
    build,
    feature_of,
    path,
    removes=removes,
    settles=settles,
    runs_on=runs_on,
    area=area,
    typed=lambda setup: ("temperature", "temperature_known"),
    shape="bores",
    neutral=(("cutting_speed", 100.0), ("feed_per_rev", 0.1)),
)
