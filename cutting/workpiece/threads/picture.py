"""A thread drawn to scale: the outlines of its two sides at their limits, and its zones, mm along the axis and from it."""

from __future__ import annotations

from dataclasses import dataclass
from math import radians, tan

from cutting.workpiece.threads.limits import Limits, limits
from cutting.workpiece.threads.thread import Thread

Line = tuple[tuple[float, float], ...]
RIDGES = 3


@dataclass(frozen=True)
class PictureSide:
    """One side of a thread: its limits, and its outline with the most and with the least metal."""

    limits: Limits
    most: Line
    least: Line


def outline(thread: Thread, major: float, pitch: float, minor: float, ridges: int = RIDGES) -> Line:
    """The line of ridges of a thread with three diameters [mm], from the middle of one groove to the middle of another."""
    p, (lead, trail) = thread.pitch, thread.half_angles
    found: list[tuple[float, float]] = []
    for k in range(ridges):
        middle = (k + 0.5) * p
        for radius, side in ((minor, -1), (major, -1), (major, 1), (minor, 1)):
            flank = tan(radians(trail if side < 0 else lead))
            half = max(p / 4.0 - (radius - pitch) / 2.0 * flank, 0.0)
            found.append((middle + side * min(half, p / 2.0), radius / 2.0))
    return ((0.0, minor / 2.0), *found, (ridges * p, minor / 2.0))


def side(thread: Thread, internal: bool, class_name: str = "") -> PictureSide:
    """One side at the limits of a class. Raises `UnknownName` for a class that is not."""
    found = limits(thread, internal, class_name)
    root = thread.root_diameter
    pitch_low, pitch_high = found.pitch.low or 0.0, found.pitch.high or 0.0
    if internal:  # its root may be as wide as the tap makes it: the clearance of the profile is drawn
        first = outline(thread, found.major.low or thread.inside_root, pitch_low, found.minor.low or thread.inside_diameter)
        last = outline(thread, (found.major.low or 0.0) + pitch_high - pitch_low, pitch_high, found.minor.high or thread.inside_diameter)
        return PictureSide(found, first, last)
    off = thread.pitch_diameter - pitch_high  # fundamental deviation
    top = found.minor.high if found.minor.low is not None else root - off
    low = found.minor.low if found.minor.low is not None else root - off - (pitch_high - pitch_low)
    first = outline(thread, found.major.high or 0.0, pitch_high, top or root)
    return PictureSide(found, first, outline(thread, found.major.low or 0.0, pitch_low, low))
