"""What grooving brings to the house."""

from __future__ import annotations

import numpy as np

from cutting.operations.frame.fields import Nudged
from cutting.operations.frame.kind import Given, Kind, Settled
from cutting.operations.slots.groove.evaluate import MODEL, explore
from cutting.operations.slots.groove.path import path
from cutting.operations.slots.groove.setup import FIELDS, WORKS, GrooveFeature, GrooveSetup, GrooveWay, Where, build, feature_of
from cutting.operations.slots.shared.roles import gather, slot_roles
from cutting.tooling.blades import CutOffBlade, GrooveBar
from cutting.workpiece.solid import Corner, Region, Side, Solid


def removes(feature: GrooveFeature) -> Region:
    """A groove leaves the part thinner between its walls, or its bore wider."""
    near = feature.distance_from_chuck
    side = Side.INSIDE if feature.where is Where.INSIDE else Side.OUTSIDE
    return Region(side, ((near, near + feature.width.target, feature.floor.target),))


def settles(given: Given, part: Solid) -> Settled:
    """It is cut into the diameter at its place, or into the bore."""
    if given.text("where") == "inside":
        return {"diameter": part.bore} if part.bore > 0 else {}
    place, wide = given.length("distance_from_chuck"), given.dimension("width") or 0.1
    return {} if place is None else {"diameter": part.largest(place, place + wide)}


def area(setup: GrooveSetup, before: Solid) -> tuple[Corner, ...]:
    """The groove in half section."""
    f = setup.feature
    near, far = f.distance_from_chuck, f.distance_from_chuck + f.width.target
    lean = float(np.tan(np.radians(f.wall_angle))) * f.depth
    top, floor = f.diameter / 2, f.floor.target / 2
    return ((near - lean, top), (near, floor), (far, floor), (far + lean, top))


KIND = Kind(
    "groove",
    "Groove",
    MODEL,
    explore,
    FIELDS,
    (
        Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed),
        Nudged("feed_per_rev", "feed", "feed_per_rev", "plunge_feed", lambda setup, outcome: setup.settings.feed_per_rev),
        Nudged(
            "side_depth",
            "layer",
            "length",
            "layer_depth",
            lambda setup, outcome: setup.layer,
            applies=lambda setup: setup.settings.way in (GrooveWay.TURNED, GrooveWay.RAMP, GrooveWay.ROUND),
        ),
    ),
    ("operation_time", "operation_cost", "median_parts", "change_parts", "secure", "side_force", "size_error"),
    slot_roles("blade or bar", CutOffBlade, GrooveBar),
    gather,
    build,
    feature_of,
    path,
    lambda feature: {"blade": (WORKS[Where(str(feature.get("where") or "outside"))].KIND,)},
    ("turn",),
    removes,
    settles,
    area,
    choices=("way",),
    ranked=("way", "overhang", "side_depth"),
    shape="groove",
)
