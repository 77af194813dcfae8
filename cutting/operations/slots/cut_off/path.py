"""How the blade goes in a cut-off: zone by zone to the centre, with the part's edge broken on the way."""

from __future__ import annotations

from cutting.motion.moves import Frame, Path, SpindleOn
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.slots.cut_off.feed_zones import FeedZone
from cutting.operations.slots.cut_off.numbers import Numbers, bar_of
from cutting.operations.slots.cut_off.setup import CutOffSetup
from cutting.operations.slots.shared.way import NEAR, blade_edge
from cutting.workpiece.solid import Solid

TIP = "corner of the edge at the chuck's side"
HALF = 0.5  # of the feed along the chamfer (common practice)


def path(x: Numbers, before: Solid | None = None) -> Path:
    """The path of a set-up's cut."""
    return cut_path(x.setup, x.setup.zones)


def cut_path(setup: CutOffSetup, zones: tuple[FeedZone, ...]) -> Path:
    """To the centre, the bore or the stub through zones of feed, and out."""
    f, s = setup.feature, setup.settings
    spun = setup.machine.drive(s.spindle_clamp).over(s.cutting_speed, f.diameter)
    spindle = SpindleOn(float(spun.low), float(spun.top), s.cutting_speed, setup.machine.start_time)
    rim, z = f.diameter / 2.0, f.distance_from_chuck
    trace = PathMaker(setup.machine, Frame.TURNED, TIP, (rim + CLEAR, 0.0, z), setup.insert.name, s.coolant, spindle)
    trace.rapid(rim + NEAR, 0.0, z)
    size, inner = f.edge_break, bar_of(setup).innermost / 2.0
    for k, zone in enumerate(zones):
        trace.feed(max(zone.start / 2.0, inner), 0.0, z, zone.feed)
        if k == 0 and size > 0:  # a slot first, then back along the part's edge with the other corner, and in again
            deep = rim - size
            trace.feed(deep, 0.0, z, zone.feed)
            trace.rapid(rim, 0.0, z)
            trace.rapid(rim, 0.0, z + size)
            trace.feed(deep, 0.0, z, HALF * zone.feed)
        trace.feed(max(zone.end / 2.0, inner), 0.0, z, zone.feed)
    trace.rapid(rim + CLEAR, 0.0, z)
    return trace.done(blade_edge(1.0, setup.insert.width))
