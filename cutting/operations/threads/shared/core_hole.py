"""The hole that a thread starts from, cut or formed, and what it leaves of the thread and of its strength."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from math import pi, radians, tan

from cutting.mechanics.threading import groove_area
from cutting.workpiece.threads.limits import limits
from cutting.workpiece.threads.measuring import engagement
from cutting.workpiece.threads.tap_drills import FORMED_PERCENT, FORMING_SHARE, forming_drill, tap_drill
from cutting.workpiece.threads.thread import Thread

FORMED_LEAST, FORMED_MOST = 55.0, 75.0  # % of thread between which a formed one is good (common practice)
SHEAR = 0.577  # of the tensile strength at which metal shears (von Mises)


def usual_hole(thread: Thread, forms: bool) -> float:
    """Diameter of the hole that the trade drills [mm]."""
    return forming_drill(thread).diameter if forms else tap_drill(thread).diameter


@lru_cache(maxsize=1024)
def hole_window(thread: Thread, forms: bool) -> tuple[float, float]:
    """Least and largest hole [mm]: the crest's own limits, or what a formed thread fills between 55 and 75 %."""
    if forms:
        share = FORMING_SHARE * thread.pitch
        return thread.diameter - FORMED_MOST * share, thread.diameter - FORMED_LEAST * share
    found = limits(thread, True).minor
    return found.low or 0.0, found.high or thread.diameter


@lru_cache(maxsize=4096)
def metal_share(thread: Thread, hole: float, forms: bool) -> float:
    """Metal that the tool moves from a hole [mm] over that from the usual one."""
    if forms:
        return max(thread.diameter - hole, 0.0) / (FORMING_SHARE * FORMED_PERCENT * thread.pitch)
    return thread_area(thread, hole) / thread_area(thread, usual_hole(thread, False))


def thread_area(thread: Thread, hole: float) -> float:
    """Cross-section of the groove that an inside thread is cut into a hole [mm²]."""
    slopes = sum(tan(radians(one)) for one in thread.half_angles)
    depth = max((thread.inside_root - hole) / 2.0, 1e-6)
    opening = thread.pitch / 2.0 + (thread.pitch_diameter - hole) / 2.0 * slopes
    return float(groove_area(opening, depth, slopes))


@dataclass(frozen=True)
class Strength:
    """What holds [N]: the nut's thread, the screw's thread over the hole's crest, and the screw itself at its stress area."""

    inside: float
    outside: float
    screw: float

    @property
    def weakest(self) -> str:
        """What gives way first, in words."""
        return min((self.inside, "the thread in the part"), (self.outside, "the screw's thread"), (self.screw, "the screw"))[1]


def strength(thread: Thread, hole: float, length: float, part: float, screw: float = 800.0) -> Strength:  # N/mm², a screw 8.8
    """Loads [N] that strip the threads over an engaged length [mm], and that break the screw; strengths [N/mm²].

    Shear areas of FED-STD-H28, from memory, at the limits that leave least: π·L/P·K·(P/2 + (E − K)·tan α/2) at the hole's crest K
    with the screw's least pitch diameter, and at the screw's least crest with the nut's largest pitch diameter. The smaller the hole,
    the more of the screw's thread is covered.
    """
    half, p = tan(radians(thread.half_angles[0])), thread.pitch
    screw_side, nut_side = limits(thread, False), limits(thread, True)
    crest, least = screw_side.major.low or thread.diameter, screw_side.pitch.low or thread.pitch_diameter
    widest = nut_side.pitch.high or thread.pitch_diameter
    per_thread = length / p
    outside = pi * per_thread * hole * (p / 2.0 + (least - hole) * half)
    inside = pi * per_thread * crest * (p / 2.0 + (crest - widest) * half)
    area = pi / 4.0 * thread.stress_diameter**2
    return Strength(SHEAR * part * inside, SHEAR * screw * max(outside, 0.0), screw * area)


__all__ = ["Strength", "engagement", "hole_window", "metal_share", "strength", "thread_area", "usual_hole"]
