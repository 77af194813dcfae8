"""The lobes of a set-up: widths of cut that stay stable over spindle speed, for part and tool, and which speeds help."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cutting.mechanics.chatter import DAMPING, PART_DAMPING, force_slope, lobe_gain, process_damping, sure_gain, wave_length
from cutting.operations.frame.over_passes import last_pass, plain_floats
from cutting.operations.turned.book import book_window
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.run import run
from cutting.operations.turned.setup import Setup

Array = NDArray[np.float64]
POINTS = 260
WORTH = 1.15  # a speed is worth naming from this gain on
UP, BEYOND_BOOK = 2.2, 1.3  # times the present speed, and the book's: how far the map goes
MORE = 1.05  # times the present depth: less is no help
SLOW = 0.12  # turns a wave: so far below the lobes one speed is as good as the next


@dataclass(frozen=True)
class Suggestion:
    """A spindle speed between two lobes: what it allows, and how far the cutting speed moves."""

    spindle_speed: float
    cutting_speed: float
    gain: float


@dataclass(frozen=True)
class Stability:
    """Curves over spindle speed [1/min]; widths of engaged edge in mm, frequencies in Hz."""

    speeds: tuple[float, ...]
    part: tuple[float, ...]
    tool: tuple[float, ...]
    speed: float
    width: float
    limit: float
    part_frequency: float
    tool_frequency: float
    part_floor: float  # stable at every speed
    tool_floor: float
    turns_per_wave: float
    suggestions: tuple[Suggestion, ...]
    says: str


def stability(setup: Setup) -> Stability:
    """Lobes of the last pass of a set-up. Raises `CuttingError`."""
    done = run(setup, setup.silent)
    case, cutter = done.case, done.cutter
    n, width = last_pass(done.spindle_speed), last_pass(done.engaged_edge)
    waves = n / (60.0 * case.frequency)
    tool_frequency = last_pass(cutter.bar_frequency if setup.inside else cutter.side_frequency)
    damping = last_pass(cutter.bar_damping) if setup.inside else DAMPING
    now = np.array([n])
    part_floor = last_pass(done.stable_part) / float(sure_gain(waves, PART_DAMPING))  # at this speed, with the flank's rubbing
    tool_floor = last_pass(done.stable_tool)
    top = min(case.top_speed, max(UP * n, BEYOND_BOOK * _speed_of(last_pass(book_window(done)[1]), done)))
    low = max(setup.machine.speed_min, 0.25 * n, 1.0)
    speeds = np.linspace(low, max(top, 1.2 * low), POINTS)
    part = part_floor * lobe_gain(speeds / (60.0 * case.frequency), PART_DAMPING)
    part = part * _rubbing(done, speeds, case.frequency) / _rubbing(done, now, case.frequency)
    tool = tool_floor * lobe_gain(speeds / (60.0 * tool_frequency), damping)
    tool = tool * _rubbing(done, speeds, tool_frequency) / _rubbing(done, now, tool_frequency)
    offers = _suggest(setup, speeds, sure_gain(speeds / (60.0 * case.frequency), PART_DAMPING), n, done)
    return Stability(
        plain_floats(speeds),
        plain_floats(part),
        plain_floats(tool),
        n,
        width,
        min(last_pass(done.stable_part), tool_floor),
        case.frequency,
        tool_frequency,
        part_floor,
        tool_floor,
        waves,
        offers,
        _says(width, part_floor, tool_floor, waves, offers, "bar" if setup.inside else "shank"),
    )


def _rubbing(done: Cut, speeds: Array, frequency: float) -> Array:
    """How much wider a cut may be at spindle speeds [1/min] for the rubbing of its flank, of a mode [Hz]."""
    slope = force_slope(last_pass(done.specific_force), done.setup.work.material.force_exponent)
    cutting_speed = np.pi * last_pass(done.diameter) * speeds / 1000.0
    return process_damping(wave_length(cutting_speed, frequency), slope, last_pass(done.in_plane_ratio))


def _suggest(setup: Setup, speeds: Array, gain: Array, now: float, done: Cut) -> tuple[Suggestion, ...]:
    """Speeds at the top of a pocket, nearest first; on a gearbox only its own steps."""
    diameter = last_pass(done.diameter)
    if setup.machine.speeds:
        steps = np.array([s for s in setup.machine.speeds if speeds[0] <= s <= speeds[-1]])
        picks = [(float(s), float(np.interp(s, speeds, gain))) for s in steps]
    else:
        inner = np.flatnonzero((gain[1:-1] >= gain[:-2]) & (gain[1:-1] > gain[2:])) + 1
        picks = [(float(speeds[k]), float(gain[k])) for k in inner]
    present = float(np.interp(now, speeds, gain))
    good = [Suggestion(n, float(np.pi * diameter * n / 1000.0), g) for n, g in picks if g > max(WORTH, MORE * present)]
    return tuple(sorted(good, key=lambda one: abs(np.log(one.spindle_speed / now)))[:3])


def _says(width: float, part: float, tool: float, waves: float, offers: tuple[Suggestion, ...], shank: str) -> str:
    weak = "part" if part <= tool else shank
    floor = min(part, tool)
    helps = "Stiffer holding" if shank == "shank" else "A bar that is stiffer, shorter or damped"
    if width <= floor:
        return f"Stable at every speed: {width:.2f} mm of edge against {floor:.2f} mm that the {weak} stands."
    if offers:
        return f"The {weak} sings at most speeds; between the lobes wider cuts stay quiet."
    if waves < SLOW:
        return (
            f"The {weak} swings about {1 / waves:.0f} times a turn: the lobes lie too close together for speed to help. "
            f"{helps}, a smaller nose or a squarer edge does."
        )
    return f"No speed of this machine brings the {weak} to rest: {helps[0].lower()}{helps[1:]}, a smaller nose or a squarer edge does."


def _speed_of(cutting_speed: float, done: Cut) -> float:
    return 1000.0 * cutting_speed / (np.pi * last_pass(done.diameter))
