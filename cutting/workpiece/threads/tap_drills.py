"""The hole that a thread is tapped or formed in."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from cutting.quantities.drill_gauges import gauge_sizes
from cutting.workpiece.threads.limits import limits
from cutting.workpiece.threads.measuring import engagement
from cutting.workpiece.threads.thread import INCH, Thread

FINE_STEPS_TO = 3.0  # mm of thread to which drills are had in steps of 0.05
FORMING_SHARE = 0.0068  # of the percentage and the pitch that a formed thread takes off its diameter (Machinery's Handbook, from memory)
FORMED_PERCENT = 65.0  # common practice
PIPE_SHARE = 0.7  # of the minor diameter's tolerance at which drills for parallel pipe threads lie (common practice, as ISO 2306 rounds)


@dataclass(frozen=True)
class TapDrill:
    """A drill for a thread: diameter [mm], its inch name, how much of the thread it leaves by both definitions [%], inside the limits."""

    diameter: float
    name: str
    of_engagement: float
    of_full: float
    within: bool
    source: str


@cache
def _inch_drills() -> tuple[tuple[float, str], ...]:
    numbered = [(size, f"#{name}" if name.isdigit() else name) for name, size in gauge_sizes().items()]
    return tuple(sorted(numbered + [(INCH * k / 64, _fraction(k)) for k in range(4, 193)]))  # sixty-fourths to 3 in


def _fraction(k: int) -> str:
    whole, rest, of = k // 64, k % 64, 64
    while rest and rest % 2 == 0:
        rest, of = rest // 2, of // 2
    return f"{whole}-{rest}/{of}" if whole and rest else f"{rest}/{of}" if rest else str(whole)


def tap_drill(thread: Thread) -> TapDrill:
    """The drill that the trade takes: D − P to the next 0.1 mm (0.05 below 3 mm) as ISO 2306, the nearest inch drill, else a bore."""
    near, name, source = thread.diameter - thread.pitch, "", "iso-2306"
    if thread.system == "unified":
        near, name = min(_inch_drills(), key=lambda one: (round(abs(one[0] - near), 4), -one[0]))  # of two as near the wider
        source = "asme-b94-11m"
    elif thread.system == "metric":
        near = round(near * 20.0) / 20.0 if thread.diameter < FINE_STEPS_TO else round(round(near, 6), 1)
    elif thread.of.taper:
        near = round(thread.inside_diameter * 10.0) / 10.0  # the small end is opened by a taper reamer, or by the tap itself
        source = "common-practice"
    elif thread.system == "pipe":
        found = limits(thread, True).minor
        near, source = round((found.low or 0.0) + PIPE_SHARE * (found.width or 0.0), 1), "common-practice"
    else:
        found = limits(thread, True).minor
        near, source = round(found.middle, 2), "common-practice"
    return told(thread, near, name, source)


def forming_drill(thread: Thread, percent: float = FORMED_PERCENT) -> TapDrill:
    """The drill for a forming tap: D − 0.0068·%·P, to 0.05 mm. Source: Machinery's Handbook, from memory."""
    near = round((thread.diameter - FORMING_SHARE * percent * thread.pitch) * 20.0) / 20.0
    share = 100.0 * (thread.diameter - near) / (FORMING_SHARE * 100.0 * thread.pitch)
    return TapDrill(near, "", share, share, True, "machinerys-handbook")


def formed_holes(thread: Thread) -> tuple[float, ...]:
    """Holes in steps of 0.05 mm that a forming tap fills between 55 and 75 % of thread."""
    share = FORMING_SHARE * thread.pitch
    # 75 to 55 % of thread, as forming taps are run (common practice)
    first, last = thread.diameter - 75.0 * share, thread.diameter - 55.0 * share
    every = (round(k * 0.05, 2) for k in range(int(first * 20.0), int(last * 20.0) + 2))
    return tuple(one for one in every if first <= one <= last)


def told(thread: Thread, diameter: float, name: str = "", source: str = "common-practice") -> TapDrill:
    """Any drill for a thread, with what it leaves and whether the crest stays inside the limits."""
    of_engagement, of_full = engagement(thread, diameter)
    low, high = limits(thread, True).minor.low or 0.0, limits(thread, True).minor.high or 0.0
    return TapDrill(diameter, name, of_engagement, of_full, low - 1e-6 <= diameter <= high + 1e-6, source)


def drills_inside(thread: Thread) -> tuple[float, ...]:
    """Drills in steps of 0.1 mm (0.05 below 3 mm) whose hole stays inside the crest's limits."""
    step = 0.05 if thread.diameter < FINE_STEPS_TO else 0.1  # mm, as drills are sold
    found = limits(thread, True).minor
    low, high = found.low or 0.0, found.high or 0.0
    first = int(low / step)
    every = (round(k * step, 2) for k in range(first, int(high / step) + 2))
    return tuple(one for one in every if low - 1e-6 <= one <= high + 1e-6)
