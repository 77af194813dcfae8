"""Cut-off over diameter: speed, feed, force, bending, the face that is left, the pip, the moment the part falls, seconds."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, Protocol

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.errors import require_between
from cutting.machine.drive import Spun
from cutting.mechanics.blade import GROOVE_FORM, STEEL_BLADE, blade_second_moments, plunge_force, side_bend, side_force, side_slope
from cutting.mechanics.force import cutting_force, specific_cutting_force
from cutting.mechanics.tool_setting import pip_diameter
from cutting.operations.slots.cut_off.feed_zones import FeedZone, feed_at, zone_seconds
from cutting.working import SILENT, Silent

Array = NDArray[np.float64]
POINTS = 241
GRAVITY = 9.81
SEAT_FEED, DRIFTS = 0.1, 0.7  # mm/rev at which a drift is told, and the power of the feed with which it grows (common practice)
SLOW = 0.02  # of the radius left uncut: at the centre itself the speed is nothing and the laws end


@dataclass(frozen=True)
class LeaningBlade:
    """A blade with its insert; lengths mm, angles degrees. `lean` is how far it stands out of square, degrees."""

    width: float
    lead_angle: float
    thickness: float
    height: float
    overhang: Any
    lean: float = 0.0
    centre_height: float = 0.0
    stiffness: float = 1.0  # share of a solid steel blade's
    seat: float = 0.0  # how its edge drifts in its seat, mm sideways for each mm of depth at 0.1 mm/rev
    starts_out: float = 0.0  # overhang before it is pulled out, mm
    pulled_out_at: float = 0.0  # Ø, mm; 0: one overhang all the way

    def out_at(self, diameter: Array) -> Array:
        """Its overhang [mm] at diameters [mm] on the way in."""
        early = (self.pulled_out_at > 0) & (diameter > self.pulled_out_at)
        return np.where(early, self.starts_out, self.overhang)


@dataclass(frozen=True)
class Bar:
    """What is cut off: diameters and lengths mm, density g/cm³, tensile strength MPa, Kienzle pair N/mm²."""

    diameter: float
    bore: float
    part_length: float
    density: float
    strength: float
    specific_force_1: float
    force_exponent: float
    held: bool = False  # a sub-spindle or catcher carries the part
    stub: float = 0.0  # Ø at which the blade stops short, mm

    @property
    def innermost(self) -> float:
        """Where the laws end [mm]: bore, stub, or close to the centre."""
        return max(self.bore, self.stub, 0.0 if self.bore > 0 else SLOW * self.diameter)


@dataclass(frozen=True)
class CutOff:
    """The way to the centre: arrays over `diameter` [mm], falling; forces N, deflections mm, seconds from the rim."""

    diameter: Array
    spindle_speed: Array
    cutting_speed: Array
    feed: Array
    cutting_force: Array
    feed_force: Array
    side_force: Array
    side_bend: Array
    height_bend: Array
    tip_path: Array  # sideways, + towards the part
    seconds: Array
    zone_seconds: tuple[float, ...]
    flatness: float
    hollow: bool  # the part's face: hollow or proud
    break_off_diameter: float
    pip_on_part: float
    pip_on_bar: float
    clamp_diameter: float
    spun: Spun

    @property
    def total_seconds(self) -> float:
        return float(sum(self.zone_seconds))


def simulate(
    bar: Bar, blade: LeaningBlade, zones: tuple[FeedZone, ...], cutting_speed: float, spun: Spun, record: Silent = SILENT
) -> CutOff:
    """Cut a bar or tube off at constant cutting speed vc [m/min] as far as the spindle follows. Raises `OutOfRange`.

    Forces after Kienzle with Kform 1.3; the slanted edge turns plunge force into side force, which bends the blade and
    makes it lean; a leaning blade follows its own lean, so the face comes out hollow or proud (common practice, ± 50 %).
    """
    require_between("settings.cutting_speed", cutting_speed, 0.5, 5000, "m/min")
    top_speed = float(spun.top)
    require_between("settings.spindle_clamp", top_speed, 1, 60_000, "rpm")
    require_between("tool.lead_angle", blade.lead_angle, -20, 20, "°")
    d = np.linspace(bar.diameter, bar.innermost, POINTS)
    n = spun.at(cutting_speed, d)
    feed = feed_at(zones, d)
    standing = replace(blade, overhang=blade.out_at(d))
    met = meet(bar, standing, feed, blade.lean, blade.stiffness, record, blade.seat)
    path = tip_path(d, met)
    broken = breaks_at(bar)
    on_part, on_bar = (float(one) for one in pips(broken, blade.width, blade.lead_angle, blade.centre_height))
    return CutOff(
        d,
        n,
        np.pi * d * n / 1000.0,
        feed,
        met.cutting_force,
        met.feed_force,
        met.side_force,
        met.side_bend,
        met.height_bend,
        path,
        _seconds(d, n, feed),
        tuple(float(zone_seconds(zone, cutting_speed, spun)) for zone in zones),
        float(np.ptp(path)),
        bool(path[-1] > path[0]),
        broken,
        on_part if bar.bore <= 0 else 0.0,
        on_bar if bar.bore <= 0 else 0.0,
        float(min(1000.0 * cutting_speed / (np.pi * top_speed), bar.diameter)),
        spun,
    )


def break_off_diameter(bar: Bar) -> float:
    """Diameter [mm] of the stub that no longer carries the part: its own weight bends it beyond the strength.

    m·g·L/2 = σ·π·d³/32 for a part that hangs free; held by sub-spindle or catcher it is cut through. Source: bending of a
    round stub (Roark), strength from the metal's row.
    """
    if bar.held:
        return 0.0
    mass = np.pi / 4.0 * (bar.diameter**2 - bar.bore**2) * bar.part_length * bar.density * 1e-6
    moment = mass * GRAVITY * bar.part_length / 2.0
    return float(np.cbrt(32.0 * moment / (np.pi * bar.strength)))


def breaks_at(bar: Bar) -> float:
    """Diameter [mm] at which the part comes off a solid bar: of itself, or where the blade stops short; 0 for a tube."""
    return max(break_off_diameter(bar), bar.stub) if bar.bore <= 0 else 0.0


def pips(break_off: float, width: ArrayLike, lead_angle: ArrayLike, centre_height: float) -> tuple[Array, Array]:
    """Diameter of the pip left on the part and on the bar [mm]; width of the edge [mm], lead angle [°], height of the tip [mm].

    A tip off centre leaves twice its height on both. A lead angle lets the part's side come through first, so that the
    stub stays on the bar as far as the slant reaches (common practice).
    """
    height = float(pip_diameter(centre_height))
    reach = 2.0 * np.asarray(width) * np.abs(np.tan(np.radians(lead_angle)))
    taken = np.minimum(reach / break_off, 1.0) if break_off > 0 else np.ones_like(reach)
    part, bar = np.maximum(height, break_off * (1.0 - taken)), np.full_like(reach, max(height, break_off))
    first = np.asarray(lead_angle) >= 0
    return np.where(first, part, bar), np.where(first, bar, part)


class Edged(Protocol):
    """A straight edge on a blade: numbers or arrays; lengths mm, angles degrees."""

    @property
    def width(self) -> Any: ...
    @property
    def lead_angle(self) -> Any: ...
    @property
    def thickness(self) -> Any: ...
    @property
    def height(self) -> Any: ...
    @property
    def overhang(self) -> Any: ...


@dataclass(frozen=True)
class Met:
    """What a blade meets at a feed: forces N, bends mm, and the slope [rad] at which its tip leans."""

    cutting_force: Array
    feed_force: Array
    side_force: Array
    side_bend: Array
    height_bend: Array
    slope: Array


def meet(bar: Bar, blade: Edged, feed: Any, lean: float, stiffness: Any = 1.0, record: Silent = SILENT, seat: Any = 0.0) -> Met:
    """Forces and bending at feeds [mm/rev] of a blade that leans by so many degrees; `stiffness` is its share of a solid one's.

    `seat` is how its edge drifts in its seat [mm for each mm of depth at 0.1 mm/rev]: no seat is without play, and no edge square.
    """
    thickness = feed * np.cos(np.radians(blade.lead_angle))
    kc = record.of("force", specific_cutting_force(bar.specific_force_1, thickness, bar.force_exponent, form_factor=GROOVE_FORM))
    fc = cutting_force(kc, feed * blade.width)
    ff = record.of("push", plunge_force(fc, thickness))
    fs = side_force(ff, blade.lead_angle)
    upright, across = blade_second_moments(blade.thickness, blade.height)
    modulus = STEEL_BLADE * stiffness / record.of("give", 1.0)
    return Met(
        fc,
        ff,
        fs,
        side_bend(fs, blade.overhang, across, modulus),
        side_bend(fc, blade.overhang, upright, modulus),
        side_slope(fs, blade.overhang, across, modulus) + np.tan(np.radians(lean)) + seat * (feed / SEAT_FEED) ** DRIFTS,
    )


def tip_path(d: Array, met: Met) -> Array:
    """Sideways place of the tip at falling diameters [mm]: its bend, and what it drifts by following its own lean on the way in."""
    steps = -np.diff(d) / 2.0
    drift = np.concatenate([[0.0], np.cumsum(steps * (met.slope[1:] + met.slope[:-1]) / 2.0)])
    return np.asarray(met.side_bend - met.side_bend[0] + drift)


def zone_dish(starts: Array, ends: Array, met: Met) -> Array:
    """Flatness [mm] of the face over zones of one feed each: the path's span, which lies at their ends; met (..., zones)."""
    bend, slope = np.broadcast_arrays(met.side_bend, met.slope)
    drift = np.cumsum(slope * (starts - ends) / 2.0, axis=-1)
    at_end = bend - bend[..., :1] + drift
    at_start = at_end - slope * (starts - ends) / 2.0
    path = np.concatenate([at_start, at_end], axis=-1)
    return np.asarray(path.max(axis=-1, keepdims=True) - path.min(axis=-1, keepdims=True))


def _seconds(d: Array, n: Array, feed: Array) -> Array:
    """Seconds from the rim to each diameter: ∫ dr/(f·n), by the trapezoid between the points."""
    rate = 60.0 / (feed * n) / 2.0
    steps = -np.diff(d) * (rate[1:] + rate[:-1]) / 2.0
    return np.asarray(np.concatenate([[0.0], np.cumsum(steps)]))
