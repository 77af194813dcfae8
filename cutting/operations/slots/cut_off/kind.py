"""What cut-off brings to the house."""

from __future__ import annotations

from cutting.operations.frame.fields import Nudged
from cutting.operations.frame.kind import Given, Kind, Settled
from cutting.operations.slots.cut_off.evaluate import MODEL, explore
from cutting.operations.slots.cut_off.path import path
from cutting.operations.slots.cut_off.setup import FIELDS, CutOffFeature, CutOffSetup, build
from cutting.operations.slots.shared.roles import gather, slot_roles
from cutting.tooling.blades import CutOffBlade
from cutting.tooling.groove_inserts import usual_width
from cutting.workpiece.solid import Corner, Region, Side, Solid

KERF_ROOM = 10.0  # mm that a cut-off keeps from the jaws where the drawing does not say


def removes(feature: CutOffFeature) -> Region:
    """The part comes off by its length; the kerf goes."""
    return Region(Side.END, ((feature.distance_from_chuck, feature.distance_from_chuck, feature.bore),), feature.part_length)


def settles(given: Given, part: Solid) -> Settled:
    """It is cut into the diameter at its place; what comes off is what stands in front of a usual blade's kerf."""
    place, long = given.length("distance_from_chuck"), given.length("part_length")
    found: Settled = {"bore": part.bore}
    kerf = usual_width(part.at(KERF_ROOM if place is None else place))
    if place is None:
        place = found["distance_from_chuck"] = KERF_ROOM if long is None else max(part.face - long - kerf, 0.0)
    if long is None:
        found["part_length"] = max(part.face - place - kerf, 0.0)
    found["diameter"] = part.at(place)
    return found


def area(setup: CutOffSetup, before: Solid) -> tuple[Corner, ...]:
    """The kerf in half section."""
    f = setup.feature
    near, far = f.distance_from_chuck, f.distance_from_chuck + setup.slot
    return ((near, f.bore / 2), (near, f.diameter / 2), (far, f.diameter / 2), (far, f.bore / 2))


KIND = Kind(
    "cut off",
    "Cut off",
    MODEL,
    explore,
    FIELDS,
    (
        Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed),
        Nudged("feed_per_rev", "feed", "feed_per_rev", "plunge_feed", lambda setup, outcome: setup.settings.feed_per_rev),
        Nudged("overhang", "overhang", "length", "blade_overhang", lambda setup, outcome: setup.overhang),
    ),
    ("operation_time", "operation_cost", "median_parts", "change_parts", "secure", "flatness", "pip_on_part"),
    slot_roles("blade", CutOffBlade),
    gather,
    build,
    lambda values: CutOffFeature(**values),
    path,
    removes=removes,
    settles=settles,
    area=area,
    choices=("feed_zones",),
    ranked=("overhang",),
    shape="end",
)
