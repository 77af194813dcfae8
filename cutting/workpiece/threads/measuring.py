"""How a thread is measured: wires and balls, gauges, and what errors of pitch and angle do to the fit."""

from __future__ import annotations

from dataclasses import dataclass
from math import atan, cos, degrees, pi, radians, sin, tan

from cutting.errors import CuttingError
from cutting.workpiece.threads.limits import Limits
from cutting.workpiece.threads.thread import TAPER, Thread

TOLD_FROM = 0.001  # mm of lead correction from which it is told
PREFERRED_WIRES = (
    0.170, 0.195, 0.220, 0.250, 0.290, 0.335, 0.390, 0.455, 0.530, 0.620, 0.725, 0.895, 1.100, 1.350, 1.650, 2.050, 2.550, 3.200, 4.000,
    5.050, 6.350,
)  # fmt: skip  # mm, of the usual sets (common practice)
MINUTE = pi / 180.0 / 60.0


@dataclass(frozen=True)
class OverWires:
    """A measurement over three wires outside, between two balls inside; lengths mm.

    `wire` is the best one, which touches at the pitch line, `set_wire` the nearest of a usual set that touches the flanks, and
    `measure` what stands over the wires used at a pitch diameter; `lead_correction` is in it.
    """

    wire: float
    set_wire: float
    used: float
    measure: float
    lead_correction: float
    internal: bool


def best_wire(thread: Thread) -> float:
    """Wire that touches the flanks at the pitch line [mm]: P/(2·cos(α/2)), symmetric flanks. Raises `CuttingError` for others."""
    one, two = thread.half_angles
    if abs(one - two) > 1e-9:
        raise CuttingError("thread", f"flanks of {one:g}° and {two:g}° are not measured with wires: a wire lies against one of them first.")
    return thread.pitch / (2.0 * cos(radians(one)))


def over_wires(thread: Thread, pitch_diameter: float, wire: float | None = None, internal: bool = False) -> OverWires:
    """What is measured over wires (between balls) at a pitch diameter [mm]: d2 + d_w·(1 + 1/sin) − P/2·cot, and the lead's correction.

    Raises `CuttingError` for a wire that does not touch the flanks or that disappears between the crests. Source: any handbook of
    metrology; the correction d_w/2·tan²φ·cos·cot for outside threads (Berndt, first term).
    """
    best, half = best_wire(thread), radians(thread.half_angles[0])
    used = best if wire is None else wire
    above = thread.of.pitch_depth * thread.pitch if thread.depth is None else thread.depth / 2.0
    apex = thread.pitch / 4.0 / tan(half)  # of the groove, below the pitch line
    contact, top = apex - used / 2.0 * cos(half) ** 2 / sin(half), used / 2.0 * (1.0 + 1.0 / sin(half)) - apex
    if not -above - 1e-9 <= contact <= thread.outside_depth - above + 1e-9 or top <= above:
        said = f"Ø{used:g} mm does not touch the flanks and stand out of this thread; the best wire is {best:.3f} mm."
        raise CuttingError("wire", said, f"about {best:.3f} mm")
    tangent = thread.lead / (pi * pitch_diameter)
    correction = used / 2.0 * tangent**2 * cos(half) / tan(half)
    straight = used * (1.0 + 1.0 / sin(half)) - thread.pitch / 2.0 / tan(half)
    nearest = min(PREFERRED_WIRES, key=lambda one: abs(one - best))
    measure = pitch_diameter - straight - correction if internal else pitch_diameter + straight + correction
    return OverWires(best, nearest, used, measure, correction, internal)


def pitch_diameter_of(thread: Thread, measured: float, wire: float | None = None, internal: bool = False) -> float:
    """The pitch diameter [mm] that a measurement over wires says. Raises `CuttingError`."""
    here = over_wires(thread, thread.pitch_diameter, wire, internal)
    return thread.pitch_diameter + measured - here.measure


def virtual_growth(thread: Thread, pitch_error: float, half_angle_error: float) -> float:
    """What errors add to the pitch diameter that a mate feels [mm]: pitch error over the engagement [mm], of each half angle [°].

    δP·cot(α/2), and for flanks that lean 4·t·δ/sin α, where they touch next to the crest (t above the pitch line) or, leaning the other
    way, at the mate's crest. Source: geometry; for 60° it is the textbook's 0.44·P·δ [µm, mm, minutes].
    """
    half = radians(thread.half_angles[0])
    above = thread.of.pitch_depth * thread.pitch
    below = (thread.of.inside_depth - thread.of.pitch_depth) * thread.pitch
    place = above if half_angle_error >= 0 else below
    return abs(pitch_error) / tan(half) + 4.0 * place * radians(abs(half_angle_error)) / sin(2.0 * half)


def engagement(thread: Thread, bore: float) -> tuple[float, float]:
    """How much of the thread a hole [mm] leaves, both definitions [%]: of the engagement height 5/8 H, and of the American full height.

    (D − d)/(2·H1) and (D − d)/(1.299·P) for 60° threads; for others the second is of the outside thread's depth.
    """
    height = 2.0 * thread.of.inside_depth * thread.pitch if thread.depth is None else 2.0 * thread.depth
    # 0.75·√3: the triangle less what is flat at both ends
    full = 1.299038 * thread.pitch if abs(thread.angle - 60.0) < 1e-9 else 2.0 * thread.outside_depth
    open_ = thread.diameter - bore
    return 100.0 * open_ / height, 100.0 * open_ / full


@dataclass(frozen=True)
class GaugeSize:
    """A gauge and its size [mm]: what it checks and what it must do."""

    name: str
    diameter: float
    which: str
    must: str


def gauges(thread: Thread, found: Limits) -> tuple[GaugeSize, ...]:
    """The gauges of one side, at the workpiece's own limits (gauges' own tolerances and wear are ISO 1502's and lie inside these)."""
    if found.gauge_length is not None:
        how = f"within a turn of its step at {found.gauge_length:g} mm"
        return (GaugeSize("taper plug" if found.internal else "taper ring", thread.diameter, "gauge plane", how),)
    low, high = found.pitch.low, found.pitch.high
    assert low is not None
    assert high is not None
    if found.internal:
        plain = (
            GaugeSize("plain plug go", found.minor.low or 0.0, "minor", "enters"),
            GaugeSize("plain plug no-go", found.minor.high or 0.0, "minor", "at most a turn"),
        )
        return (
            GaugeSize("thread plug go", low, "pitch", "screws right through"),
            GaugeSize("thread plug no-go", high, "pitch", "at most two turns"),
            *plain,
        )
    plain = (
        GaugeSize("plain ring go", found.major.high or 0.0, "major", "passes"),
        GaugeSize("plain gap no-go", found.major.low or 0.0, "major", "does not pass"),
    )
    return (
        GaugeSize("thread ring go", high, "pitch", "screws right over"),
        GaugeSize("thread ring no-go", low, "pitch", "at most two turns"),
        *plain,
    )


def gauge_plane_off(thread: Thread, turns: float) -> float:
    """What turns from a taper gauge's plane are worth on the diameter [mm]."""
    return turns * thread.pitch * TAPER


def helix_angle_at(thread: Thread, diameter: float) -> float:
    """Lead angle [°] at a diameter [mm]: steeper at the root than at the crest."""
    return degrees(atan(thread.lead / (pi * diameter)))
