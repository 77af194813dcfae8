"""What face grooving brings to the house."""

from __future__ import annotations

from cutting.operations.frame.fields import Nudged
from cutting.operations.frame.kind import Kind
from cutting.operations.slots.face_groove.evaluate import MODEL, explore
from cutting.operations.slots.face_groove.path import path
from cutting.operations.slots.face_groove.setup import FIELDS, FaceGrooveFeature, FaceGrooveSetup, build, feature_of
from cutting.operations.slots.shared.roles import gather, slot_roles
from cutting.tooling.blades import FaceBlade
from cutting.workpiece.solid import Corner, Region, Side, Solid


def removes(feature: FaceGrooveFeature) -> Region:
    """A ring in the free face."""
    return Region(Side.RING, depth=feature.depth, inner=feature.inner_diameter, outer=feature.outer_diameter.target)


def area(setup: FaceGrooveSetup, before: Solid) -> tuple[Corner, ...]:
    """The groove in half section, from the part's free end."""
    f, end = setup.feature, before.face
    outer, inner = f.outer_diameter.target / 2, f.inner_diameter / 2
    return ((end - f.depth, inner), (end - f.depth, outer), (end, outer), (end, inner))


KIND = Kind(
    "face groove",
    "Face groove",
    MODEL,
    explore,
    FIELDS,
    (
        Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed),
        Nudged("feed_per_rev", "feed", "feed_per_rev", "plunge_feed", lambda setup, outcome: setup.settings.feed_per_rev),
        Nudged("overhang", "blade overhang", "length", "reach_set", lambda setup, outcome: setup.overhang),
    ),
    ("operation_time", "operation_cost", "median_parts", "change_parts", "secure", "outer_clearance", "inner_clearance"),
    slot_roles("face blade", FaceBlade),
    gather,
    build,
    feature_of,
    path,
    removes=removes,
    area=area,
    choices=("way", "spindle"),
    ranked=("way", "spindle", "overhang"),
    shape="face groove",
)
