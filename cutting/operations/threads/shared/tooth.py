"""The outline of a tooth that cuts a thread, in half section."""

from __future__ import annotations

import math

from cutting.motion.moves import CuttingOutline
from cutting.operations.threads.shared.core_hole import thread_area
from cutting.workpiece.threads.thread import Thread

DEEPER = 1.5  # pitches: deeper than any tooth
SHARP = 0.02  # of the pitch: a tooth is never sharper than a grinder makes it


def tooth(thread: Thread, internal: bool, from_axis: bool, radius: float | None = None) -> CuttingOutline:
    """A tooth of a thread's form: its tip at the reference point, or, told from the tool's axis, at a radius [mm] (the thread's own).

    It is as deep as a pitch and a half, so that it reaches past the surface; the root's flat is the thread's own.
    """
    out = (radius if radius is not None else thread.diameter / 2.0) if from_axis else 0.0
    inwards = 1.0 if internal else -1.0
    leading, trailing = (math.tan(math.radians(one)) for one in thread.half_angles)
    flat = _root_flat(thread, internal)
    deep = DEEPER * thread.pitch
    high = out - inwards * deep
    return CuttingOutline(
        ((out, -flat / 2.0), (out, flat / 2.0), (high, flat / 2.0 + deep * leading), (high, -flat / 2.0 - deep * trailing))
    )


def _root_flat(thread: Thread, internal: bool) -> float:
    """Width [mm] of the groove at its bottom: at the major diameter inside, at the minor one outside."""
    slopes = sum(math.tan(math.radians(one)) for one in thread.half_angles)
    root = thread.inside_root if internal else thread.inside_diameter
    return max(thread.pitch / 2.0 - abs(root - thread.pitch_diameter) / 2.0 * slopes, SHARP * thread.pitch)


__all__ = ["thread_area", "tooth"]
