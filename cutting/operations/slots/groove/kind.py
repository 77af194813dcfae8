"""What grooving brings to the house."""

from __future__ import annotations

import numpy as np

from cutting.operations.frame.fields import Nudged
from cutting.operations.frame.kind import Corner, Kind, Span
from cutting.operations.slots.groove.evaluate import MODEL, explore
from cutting.operations.slots.groove.setup import FIELDS, GrooveFeature, GrooveSetup, Way, Where, build, feature_of


def lowers(feature: GrooveFeature) -> tuple[Span, ...]:
    """An outside groove leaves the part thinner between its walls."""
    if feature.where is Where.INSIDE:
        return ()
    near = feature.distance_from_chuck
    return ((near, near + feature.width.target, feature.floor.target),)


def area(setup: GrooveSetup) -> tuple[Corner, ...]:
    """The groove in half section."""
    f = setup.feature
    near, far = f.distance_from_chuck, f.distance_from_chuck + f.width.target
    lean = float(np.tan(np.radians(f.wall_angle))) * f.depth
    top, floor = f.diameter / 2, f.floor.target / 2
    return ((near - lean, top), (near, floor), (far, floor), (far + lean, top))


KIND = Kind(
    "groove",
    "Groove",
    MODEL.evaluate,
    explore,
    MODEL.relax,
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
            applies=lambda setup: setup.settings.way in (Way.TURNED, Way.RAMP, Way.ROUND),
        ),
    ),
    ("operation_time", "operation_cost", "median_parts", "change_parts", "secure", "side_force", "size_error"),
    ("setting",),
    build,
    feature_of,
    lambda feature: str(feature.get("where") or "outside"),
    lowers,
    area,
    choices=("way",),
    ranked=("way", "overhang", "side_depth"),
)
