"""The groove of a turned thread filling up pass by pass: where the tip stands, and what each flank takes."""

from __future__ import annotations

from dataclasses import dataclass
from math import radians, tan

import numpy as np

from cutting.mechanics.threading import Array, depths_of_equal_area
from cutting.operations.threads.shared.tooth import SHARP
from cutting.operations.threads.turn_thread.setup import Infeed, Schedule, TurnThreadSetup
from cutting.workpiece.threads.thread import Thread

POINTED = 50.0  # ° of included angle from which a profile counts as pointed: its passes follow the root law (common practice)
USUAL, BY_PITCH = 2.7, 2.8  # passes, and more for each millimetre of pitch (common practice)
# passes against steel: soft metals need fewer, tough and hardened ones a third to a half more (common practice)
OF_METAL = {"P": 1.0, "M": 1.35, "K": 1.0, "N": 0.8, "S": 1.35, "H": 1.5}
ROWS = 801  # in which a groove is swept
OF_HSS = 1.4


@dataclass(frozen=True)
class ThreadGroove:
    """Passes of one thread: arrays (passes,), spring passes last with nothing to take; mm and mm².

    `depth` after each pass on the radius, `shift` of the tip along the axis from the groove's middle, areas at the leading flank, at
    the trailing one and under the tip, lengths of edge in the metal.
    """

    depth: Array
    shift: Array
    leading: Array
    trailing: Array
    bottom: Array
    edge: Array
    tip: float
    slopes: tuple[float, float]

    @property
    def area(self) -> Array:
        """Cross-section that each pass takes [mm²]."""
        return self.leading + self.trailing + self.bottom

    @property
    def infeed(self) -> Array:
        """Infeed of each pass [mm on the radius]."""
        return np.diff(self.depth, prepend=0.0)


def usual_passes(pitch: float, letter: str, tool_class: str) -> int:
    """How many passes the trade takes for a pitch [mm] in a metal (common practice)."""
    many = (USUAL + BY_PITCH * pitch) * OF_METAL.get(letter, 1.0) * (OF_HSS if tool_class == "hss" else 1.0)
    return int(min(max(round(many), 3), 36))


def root_width(thread: Thread, internal: bool) -> float:
    """Flat of the groove's root [mm]."""
    lead, trail = (tan(radians(one)) for one in thread.half_angles)
    if thread.depth is not None:
        return max(thread.pitch / 2.0 - thread.depth / 2.0 * (lead + trail), SHARP * thread.pitch)
    below = thread.inside_root / 2.0 - thread.pitch_diameter / 2.0 if internal else (thread.pitch_diameter - thread.root_diameter) / 2.0
    return max(thread.pitch / 2.0 - below * (lead + trail), SHARP * thread.pitch)


def whole_depth(setup: TurnThreadSetup) -> float:
    """From what is there to the root [mm on the radius], at the middle of the class; deeper for a tip that is narrower than the root."""
    f, t = setup.feature, setup.feature.thread
    off = (f.limits.pitch.middle - t.pitch_diameter) / 2.0
    plain = (t.inside_root - setup.there) / 2.0 + off if f.internal else (setup.there - t.root_diameter) / 2.0 - off
    slopes = sum(tan(radians(one)) for one in t.half_angles)
    return plain + max(root_width(t, f.internal) - tip_width(setup), 0.0) / slopes


def tip_width(setup: TurnThreadSetup) -> float:
    """Flat of the tip [mm]: the thread's own of a full profile, of its least pitch of a partial one."""
    own = root_width(setup.feature.thread, setup.feature.internal)
    return own if setup.insert.full else min(setup.insert.tip, own)


def depths(setup: TurnThreadSetup) -> Array:
    """Depth after each pass that takes metal [mm on the radius]."""
    s, t, whole = setup.settings, setup.feature.thread, whole_depth(setup)
    if s.infeeds:
        return np.cumsum(s.infeeds)
    passes = s.passes
    if passes is None:
        usual = usual_passes(t.pitch, setup.work.material.group.letter, setup.insert.grade.tool_class)
        passes = max(2, round(usual * s.passes_times))
    if s.schedule is Schedule.DEPTH:
        return np.linspace(whole / passes, whole, passes)
    slopes = sum(tan(radians(one)) for one in t.half_angles)
    tip = 0.0 if t.angle >= POINTED else tip_width(setup)
    return depths_of_equal_area(whole, passes, tip, slopes)


def _swept(x: Array, shift: Array, tip: float, lead: float, trail: float) -> tuple[Array, Array, Array]:
    """What each pass takes at its flanks and under its tip where it comes back to a side that was cut before: row by row [mm²]."""
    rows = np.linspace(0.0, float(x[-1]), ROWS)
    height = rows[1] - rows[0]
    left, right = np.full(ROWS, np.inf), np.full(ROWS, -np.inf)
    found = np.zeros((3, len(x)))
    for k, (deep, at) in enumerate(zip(x, shift, strict=True)):
        inside = rows <= deep + 1e-12
        own_left, own_right = at - tip / 2.0 - (deep - rows) * trail, at + tip / 2.0 + (deep - rows) * lead
        fresh = inside & ~np.isfinite(left)
        cut = inside & ~fresh
        found[0, k] = np.maximum(own_right - right, 0.0)[cut].sum() * height
        found[1, k] = np.maximum(left - own_left, 0.0)[cut].sum() * height
        found[2, k] = (own_right - own_left)[fresh].sum() * height
        left, right = np.where(inside, np.minimum(left, own_left), left), np.where(inside, np.maximum(right, own_right), right)
    return found[0], found[1], found[2]


def groove(setup: TurnThreadSetup) -> ThreadGroove:
    """Every pass of a set-up."""
    s, t = setup.settings, setup.feature.thread
    lead, trail = t.half_angles
    slope_lead, slope_trail, tip = tan(radians(lead)), tan(radians(trail)), tip_width(setup)
    x = depths(setup)
    whole = float(x[-1])
    shift = np.zeros_like(x)
    if s.infeed is Infeed.FLANK:  # down along a line a little steeper than the trailing flank, to end in the middle
        shift = -(whole - x) * tan(radians(max(trail - s.off_flank, 0.0)))
    elif s.infeed is Infeed.ALTERNATING:  # side to side, less as it deepens
        side = np.where(np.arange(len(x)) % 2 == 0, 1.0, -1.0)
        shift = side * (whole - x) * min(slope_lead, slope_trail) * 0.5
    before, at = np.concatenate([[0.0], x[:-1]]), np.concatenate([[shift[0]], shift[:-1]])
    step, moved = x - before, shift - at
    moved[0] = 0.0
    leading = np.maximum(step * slope_lead + moved, 0.0) * before
    trailing = np.maximum(step * slope_trail - moved, 0.0) * before
    bottom = tip * step + (slope_lead + slope_trail) / 2.0 * step**2
    if s.infeed is Infeed.ALTERNATING:
        leading, trailing, bottom = _swept(x, shift, tip, slope_lead, slope_trail)
    edge = (
        tip
        + np.where(leading + bottom > 0, x * (leading > 1e-6), 0.0) / np.cos(radians(lead))
        + x * (trailing > 1e-6) / np.cos(radians(trail))
    )
    edge[0] = tip + x[0] / np.cos(radians(lead)) + x[0] / np.cos(radians(trail))
    idle = np.zeros(s.spring)
    return ThreadGroove(
        np.concatenate([x, np.full(s.spring, whole)]), np.concatenate([shift, idle]), np.concatenate([leading, idle]),
        np.concatenate([trailing, idle]), np.concatenate([bottom, idle]), np.concatenate([edge, np.full(s.spring, edge[-1])]), tip,
        (slope_lead, slope_trail),
    )  # fmt: skip
