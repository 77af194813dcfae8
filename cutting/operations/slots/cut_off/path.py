"""How the blade goes in a cut-off: zone by zone to the centre, with the part's edge broken on the way."""

from __future__ import annotations

from cutting.motion.moves import Frame, Path, SpindleOn
from cutting.motion.trace import CLEAR, PathMaker
from cutting.operations.slots.cut_off.feed_zones import FeedZone
from cutting.operations.slots.cut_off.numbers import PULLED_OUT, Numbers, bar_of
from cutting.operations.slots.cut_off.setup import LAYER, CutOffSetup
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
    rim, z = f.diameter / 2.0, f.distance_from_chuck + setup.slot - setup.insert.width
    trace = PathMaker(setup.machine, Frame.TURNED, TIP, (rim + CLEAR, 0.0, z), setup.insert.name, s.coolant, spindle)
    trace.rapid(rim + NEAR, 0.0, z)
    size, inner, spindle_on = f.edge_break, bar_of(setup).innermost / 2.0, True
    for k, zone in enumerate(zones):
        start = max(zone.start / 2.0, inner)
        if s.pull_out_at is not None and 2.0 * start <= s.pull_out_at < f.diameter and spindle_on:
            _pulled_out(trace, rim, start, z, spindle)
            spindle_on = False
        trace.feed(start, 0.0, z, zone.feed)
        if k == 0 and size > 0:  # a slot first, then back along the part's edge with the other corner, and in again
            deep = rim - size
            trace.feed(deep, 0.0, z, zone.feed)
            trace.rapid(rim, 0.0, z)
            trace.rapid(rim, 0.0, z + size)
            trace.feed(deep, 0.0, z, HALF * zone.feed)
        _down(trace, setup, (start, max(zone.end / 2.0, inner)), z, zone.feed)
    trace.rapid(rim + CLEAR, 0.0, z)
    return trace.done(blade_edge(1.0, setup.insert.width))


def _down(trace: PathMaker, setup: CutOffSetup, way: tuple[float, float], z: float, feed: float) -> None:
    """Straight in over a stretch of radii [mm]; a slot that is widened in layers, the last of them at the part's side only."""
    radius, end = way
    last, beside, rim = setup.single_from / 2.0, setup.feature.distance_from_chuck, setup.feature.diameter / 2.0
    while setup.widened and radius > max(last, end) + 1e-9:
        deep = max(radius - LAYER * setup.insert.width, last, end)
        trace.feed(deep, 0.0, z, feed)
        trace.rapid(rim + NEAR, 0.0, z)
        trace.rapid(rim + NEAR, 0.0, beside)
        trace.rapid(radius + NEAR, 0.0, beside)
        trace.feed(deep, 0.0, beside, feed)
        trace.rapid(rim + NEAR, 0.0, beside)
        trace.rapid(rim + NEAR, 0.0, z)
        trace.rapid(deep + NEAR, 0.0, z)
        radius = deep
    trace.feed(end, 0.0, z, feed)


def _pulled_out(trace: PathMaker, rim: float, radius: float, z: float, spindle: SpindleOn) -> None:
    """Out of the slot, where the blade is loosened, pulled out and held again with the spindle stopped; and back to where it was."""
    trace.rapid(rim + CLEAR, 0.0, z)
    trace.switch(SpindleOn(0.0, 0.0))
    trace.dwell(seconds=PULLED_OUT)
    trace.switch(spindle)
    trace.rapid(radius + NEAR, 0.0, z)
