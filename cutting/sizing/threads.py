"""A thread that was measured or gauged: its pitch diameter, and what to set off before the next one."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from math import radians, tan

from cutting.errors import CuttingError
from cutting.workpiece.threads.limits import Limits
from cutting.workpiece.threads.measuring import gauge_plane_off, pitch_diameter_of
from cutting.workpiece.threads.thread import Thread

FIRST_STEP = 0.25  # of the tolerance that is gone where only a gauge spoke: half way from its limit to the middle (common practice)


class Gauged(StrEnum):
    """What the gauges said."""

    GOOD = "go goes, no-go does not"
    TIGHT = "go does not go"
    LOOSE = "no-go goes"


@dataclass(frozen=True)
class Reading:
    """What was found: a measure over wires or between balls [mm], the wire used (None: the best one), or what the gauges said.

    `turns` are those by which a taper gauge stands from its plane: + where it goes on too far.
    """

    measured: float | None = None
    wire: float | None = None
    gauged: Gauged | None = None
    turns: float | None = None


@dataclass(frozen=True)
class Correction:
    """Where the thread stands and what to do; mm.

    `pitch_diameter` is None where only a gauge spoke. `off` is it less the middle of its zone; `metal` what is still to be taken on
    the pitch diameter, below zero where too much is gone. `deeper` is that on the radius, for the tool's infeed or a mill's path;
    `along` is the shift along the axis that takes it at one flank alone. `state` is good, to be cut on, or beyond.
    """

    pitch_diameter: float | None
    off: float
    metal: float
    deeper: float
    along: float
    state: str
    says: str


def correct(thread: Thread, found: Limits, internal: bool, reading: Reading) -> Correction:
    """What a reading means. Raises `CuttingError` where nothing was read, or where it cannot be this thread."""
    low, high, middle = found.pitch.low, found.pitch.high, found.pitch.middle
    assert low is not None
    assert high is not None
    sign = 1.0 if internal else -1.0  # cutting on makes an inside thread wider, an outside one thinner
    if reading.measured is not None:
        size = pitch_diameter_of(thread, reading.measured, reading.wire, internal)
        if abs(size - middle) > 0.5 * thread.outside_depth:
            raise CuttingError("measured", f"that would be a pitch diameter of {size:.3f} mm: it is not this thread, or not this wire.", "")
        return _told(thread, size, size - middle, sign * (middle - size), low <= size <= high, "")
    if reading.turns is not None:
        off = gauge_plane_off(thread, reading.turns)
        size = middle + sign * off
        return _told(thread, size, size - middle, sign * (middle - size), low <= size <= high, "the gauge's turns are worth the taper")
    if reading.gauged is None:
        raise CuttingError("measured", "enter a measured size, or what the gauges said.", "")
    step = FIRST_STEP * (high - low)
    if reading.gauged is Gauged.GOOD:
        return Correction(None, 0.0, 0.0, 0.0, 0.0, "good", "The gauges pass it; where in its zone it lies only a measure tells.")
    metal = (0.5 * (high - low) + step) if reading.gauged is Gauged.TIGHT else -(0.5 * (high - low) + step)
    return _told(thread, None, -sign * metal, metal, False, "a gauge tells no size: half way into the zone first, then gauge again")


def _told(thread: Thread, size: float | None, off: float, metal: float, inside: bool, note: str) -> Correction:
    half = radians(thread.half_angles[0])
    deeper, along = metal / 2.0, metal * tan(half)
    if inside:
        says = "Inside its zone; set this off to bring the next one to the middle."
        return Correction(size, off, metal, deeper, along, "good", says)
    if metal > 0:
        more = f" ({note})" if note else ""
        return Correction(
            size, off, metal, deeper, along, "cut on", f"Metal is left: cut on by this, in one light pass, and measure again{more}."
        )
    return Correction(size, off, metal, deeper, along, "beyond", "Too much is gone: this one is lost, the next is to be cut less by this.")
