"""What trepanning brings to the house."""

from __future__ import annotations

from cutting.operations.frame.fields import Nudged
from cutting.operations.frame.kind import Kind
from cutting.operations.slots.shared.roles import gather, slot_roles
from cutting.operations.slots.trepan.evaluate import MODEL, explore
from cutting.operations.slots.trepan.path import path
from cutting.operations.slots.trepan.setup import FIELDS, Keeps, TrepanFeature, TrepanSetup, build, feature_of
from cutting.tooling.blades import TrepanHead
from cutting.workpiece.solid import NOTHING, Corner, Region, Side, Solid

ALL = 1e6  # mm: through whatever there is


def removes(feature: TrepanFeature) -> Region:
    """A ring that goes through leaves the hole, or the disc; a blind one is drawn while it is cut and leaves what the core leaves."""
    if not feature.through:
        return NOTHING
    if feature.circle is not None:
        return Region(Side.RING, depth=ALL, inner=feature.circle - feature.diameter, outer=feature.circle + feature.diameter)
    side = Side.INSIDE if feature.keeps is Keeps.HOLE else Side.OUTSIDE
    return Region(side, ((0.0, ALL, feature.diameter),))


def area(setup: TrepanSetup, before: Solid) -> tuple[Corner, ...]:
    """The ring in half section, from the plate's front."""
    end = before.face
    outer, inner = setup.outer_diameter / 2, setup.inner_diameter / 2
    if (circle := setup.feature.circle) is not None:
        outer, inner = (circle + setup.outer_diameter) / 2, max(circle - setup.outer_diameter, 0.0) / 2
    if (second := setup.feature.inner_ring) is not None and setup.feature.circle is None:
        wall, core = second / 2, second / 2 - setup.ring_width
        floor = end - setup.depth  # both rings, joined by a line without width along the front
        return ((floor, core), (floor, wall), (end, wall), (end, inner), (floor, inner), (floor, outer), (end, outer), (end, core))
    return ((end - setup.depth, inner), (end - setup.depth, outer), (end, outer), (end, inner))


KIND = Kind(
    "trepan",
    "Trepan",
    MODEL,
    explore,
    FIELDS,
    (
        Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed),
        Nudged("feed_per_tooth", "per edge", "feed_per_tooth", "plunge_feed", lambda setup, outcome: setup.feed),
    ),
    ("operation_time", "operation_cost", "median_parts", "change_parts", "secure", "torque", "core_mass"),
    slot_roles("head", TrepanHead),
    gather,
    build,
    feature_of,
    path,
    removes=removes,
    area=area,
    choices=("cartridges",),
    ranked=("cartridges", "overhang"),
    shape="ring",
    neutral=(("cutting_speed", 100.0), ("feed_per_tooth", 0.05)),
)
