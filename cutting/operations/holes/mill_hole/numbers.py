"""The numbers of a milled hole over one mill or many: way, engagement, chip, force, what the wall keeps of it, life and money."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.mechanics import force
from cutting.mechanics import hole_milling as milling
from cutting.motion.clock import around_seconds, rapid_seconds
from cutting.motion.places import between_seconds
from cutting.motion.trace import CLEAR
from cutting.operations.frame.money import Spent, spend
from cutting.operations.frame.over_passes import of_one
from cutting.operations.holes.mill_hole.setup import Descent, MillHoleSetup, Sense
from cutting.operations.holes.mill_hole.tool import Array, MillTool
from cutting.operations.holes.shared import reached
from cutting.wear import spread
from cutting.wear.milling import milled_life
from cutting.working import Silent

MILLING_FORM = 1.2  # Tschätsch's correction of the specific force for milling
APPROACH, BELOW = 1.0, 0.5  # mm above the metal, and below a through hole beyond the corner
LAST_TURNS = 1.25  # of a turn at the wall with its way in and out (common practice)
PLUNGED = 0.4  # of the feed a tooth where all of the end cuts: a third to a half (common practice)
CIRCLES = 0.018  # mm that a machine's circle is out of round on the diameter where its axes turn back (common practice)
# of the push-off that still stands in the size once it is set off, of a helix and of a last turn (common practice: it changes with wear)
LEFT_OF_ERROR, LEFT_OF_LAST = 0.4, 0.25
PLACED = 0.02  # mm, zone in which the axes put a hole's middle (common practice)
MOST_THINNED = 1.6  # × the slot's feed that thin chips allow at most (common practice)
SLOT = 2.0 / np.pi  # mean over largest chip thickness of a full slot
RAMP_SHARE, LENGTH_SHARE = 0.8, 0.9  # of the tool's steepest ramp and of its teeth that a usual pitch takes
PITCH_STEP = 0.01  # mm, as finely as a pitch is set
CHAMFERED = 3.0  # s a hole (common practice, as drilling)
TURNS_ROUND = 0.8  # µm Ra of a wall that a mill runs round, before feed and bending (common practice)
WASHED, STANDING = 4.0, 2.5  # hole diameters of depth from which chips come up by themselves: washed through or blown, and not
PACKS_UP = 0.01  # chance a hole that chips which are cut again stop the mill (common practice)
ASIDE = 0.4  # the force aside over that along the cut, of a mill
CROWDS_FROM = 0.8  # of the depth that chips leave of themselves
TOOTH_MARKS, SPRUNG_MARKS = 12.0, 15.0  # µm Ra from each mm of feed a tooth, and of springing: runout and deflection write on a milled wall
FREELY = 1.5  # index 100 up to the depth that chips leave of themselves, 0 at three times it
OPENED = 0.98  # of its Ø: a hole that is opened leaves the mill at least that ring
MOST_HARDER = 30.0  # times thinner: beyond it the edge rubs and Kienzle says nothing


@dataclass(frozen=True)
class Numbers(Spent):
    """What limits and results read, arrays (..., 1); N, N·m, kW, mm, °, s."""

    setup: Any
    tool: MillTool
    spindle_speed: Array
    cutting_speed: Array
    feed_set: Array  # a tooth at the wall
    feed_rate: Array  # at the wall, mm/min
    centre_rate: Array  # of the tool's middle
    pitch: Array
    ramp: Array
    turns: Array
    engagement: Array
    finish_engagement: Array
    chip_thickness: Array
    specific_force: Array
    removal: Array  # cm³/min
    torque: Array  # worn
    power: Array
    available: Array
    push_off: Array  # at the pass that leaves the wall, worn
    bend: Array  # N/mm² in the body
    size_error: Array  # mm on the diameter, + where the hole is small
    taper: Array
    width: Array  # of the tolerance that it reaches
    roughness: Array
    position: Array
    diameter_cut: Array
    ratio: Array  # hole over tool
    tool_life: Array
    weibull_shape: Array
    holes: Array
    book_low: Array
    book_high: Array
    feed_top: Array  # a tooth at the wall, with thin chips
    crowding: Array  # share of the depth from which chips still come up
    helix_time: Array
    finish_time: Array
    chip_index: Array

    @property
    def strokes_taken(self) -> int:
        """How often it goes over the wall."""
        return 2 if self.setup.settings.finish > 0 else 1


def pitch_of(setup: MillHoleSetup, tool: MillTool) -> Array:
    """Pitch [mm]: as set, or the usual one of metal and diameter as far as the tool's ramp and its teeth allow."""
    s, d = setup.settings, tool.own["diameter"]
    if s.pitch is not None:
        return np.full_like(d, s.pitch)
    steepest = milling.pitch_at(RAMP_SHARE * tool.own["ramp"], roughed(setup), d)
    usual = s.pitch_times * tool.usual_pitch
    finest = np.minimum(np.minimum(usual, steepest), LENGTH_SHARE * tool.own["cutting_length"])
    return np.maximum(np.floor(finest / PITCH_STEP + 1e-9) * PITCH_STEP, PITCH_STEP)


def roughed(setup: MillHoleSetup) -> float:
    """Diameter [mm] that the helix leaves, before its last turn."""
    return float(setup.feature.diameter.nominal - 2.0 * setup.settings.finish)


def numbers(setup: MillHoleSetup, tool: MillTool, speed: Any, feed: Any, record: Silent, pitch: Any = None) -> Numbers:
    """Everything computed at speeds [m/min] and feeds [mm a tooth at the wall]; `pitch` [mm] in place of the set-up's."""
    f, s, machine, own = setup.feature, setup.settings, setup.machine, tool.own
    d, z, material, worn = own["diameter"], own["flutes"], setup.work.material, setup.house.wear_factor
    plunges = s.path is Descent.PLUNGE
    n = machine.drive().at(speed, d)
    v, fz = np.pi * d * n / 1000.0, np.asarray(feed, float) + 0.0 * n
    fed = record(milling.edge_feed_rate, feed_per_tooth=fz, flutes=z, spindle_speed=n) * (PLUNGED if plunges else 1.0)
    way = np.asarray(pitch_of(setup, tool) if pitch is None else pitch, float)
    down = (_straight if plunges else _helix)(setup, tool, fz, fed, way + 0.0 * n, record)
    h, angle, share = down.chip_thickness, down.engagement, down.share
    kc = record(
        force.specific_cutting_force,
        specific_force_1=setup.work.specific_force_1,
        chip_thickness=np.maximum(h, 1e-4),
        force_exponent=material.force_exponent,
        rake_factor=1.0,
        wear_factor=worn,
        form_factor=MILLING_FORM,
        note="worn; milling form",
    )
    power = record(milling.milled_power, specific_force=kc, removal_rate=down.removal)
    torque = 9549.3 * power / n
    out, stiff = own["reach"], milling.mill_second_moment(d, own["neck"])
    climb = s.sense is Sense.CLIMB
    pushed = record(milling.push_off, specific_force=kc, centre_feed=fz * share, flutes=z, height=way, engagement_angle=angle, climb=climb)
    swing = kc * fz * np.where(plunges, PLUNGED, share) * np.sin(np.radians(np.minimum(angle, 90.0))) * way * np.sqrt(1.0 + ASIDE**2)
    bend = (
        0.0 * n if plunges else np.maximum(np.abs(pushed), swing) * out * milling.FLUTED_BODY * d / 2.0 / stiff / record.of("strength", 1.0)
    )
    finishing = _finishing(setup, tool, n, fz, fed, kc, climb, record) if s.finish > 0 and not plunges else None
    error = record.of("give", 2.0 * milling.bent_by(pushed, out, out, own["modulus"], stiff)) if not plunges else 0.0 * n
    taper, last, finish_angle, last_push = 0.0 * n, 0.0 * n, angle, pushed
    if finishing is not None:
        error, taper, last, finish_angle, last_push = finishing
    sprung, error = error, error - 2.0 * s.offset * (not plunges)
    engaged = f.count * (down.seconds + last)
    minutes = milled_life(tool, v, fz, angle, tool.own["life"], record)
    used = engaged / 60.0 / minutes
    shape = record(spread.weibull_shape, coefficient_of_variation=tool.coefficient_of_variation)
    each = float(sum(rapid_seconds([CLEAR, setup.depth + APPROACH + CLEAR], machine)))
    idle = around_seconds(machine) + f.count * each + between_seconds(machine, f.circle, f.count)
    idle = idle + (f.count * CHAMFERED + around_seconds(machine) if f.chamfer else 0.0)
    blown = (machine.pressure(s.coolant) or 0.0) >= 20.0
    free = np.where(plunges, own["plunge"], (WASHED if blown else STANDING) * f.diameter.nominal)
    crowding = record.of("chips", setup.depth / np.maximum(free, 1e-9))
    jams = PACKS_UP * np.clip(crowding - CROWDS_FROM, 0.0, 1.0)
    money = spend(setup, engaged, idle + 0.0 * n, used, shape, own["life_price"], 1.0 - (1.0 - jams) ** f.count, record)
    grade_width = reached.tolerance_width(f.diameter.nominal, 10.0) if plunges else 0.0
    width = (
        grade_width
        + (0.0 if plunges else CIRCLES)
        + 2.0 * tool.runout * plunges
        + (LEFT_OF_LAST if s.finish > 0 else LEFT_OF_ERROR) * np.abs(sprung)
        + taper
    )
    left = 0.3 if s.finish > 0 else 1.0  # of the springing that the wall shows
    thinned = np.clip(
        SLOT / np.maximum((1 - np.cos(np.radians(angle))) / np.radians(angle) * np.maximum(share, 1e-9), 1e-9), 1.0, MOST_THINNED
    )
    return Numbers(
        **money, setup=setup, tool=tool,
        spindle_speed=n, cutting_speed=v, feed_set=fz, feed_rate=fed, centre_rate=down.centre_rate,
        pitch=0.0 * n if plunges else way + 0.0 * n,
        ramp=down.ramp, turns=down.turns, engagement=angle, finish_engagement=finish_angle + 0.0 * n,
        chip_thickness=h, specific_force=kc, removal=down.removal / 1000.0, torque=torque, power=power,
        available=record.of("power", machine.spindle_power(n)),
        push_off=last_push, bend=bend, size_error=error, taper=taper, width=width,
        roughness=record.of("finish", TURNS_ROUND + TOOTH_MARKS * fz * (2.0 if plunges else 1.0) + SPRUNG_MARKS * np.abs(sprung) * left),
        position=PLACED + 0.0 * n, diameter_cut=d + 2.0 * tool.runout if plunges else f.diameter.nominal - error,
        ratio=f.diameter.nominal / d + 0.0 * n, tool_life=minutes, weibull_shape=shape, holes=f.count / used,
        book_low=tool.speed_low * tool.speed_factor, book_high=tool.speed_high * tool.speed_factor,
        feed_top=tool.feed_high * (1.0 if plunges else thinned) + 0.0 * n,
        crowding=crowding + 0.0 * n, helix_time=engaged - f.count * last, finish_time=f.count * last + 0.0 * n,
        chip_index=100.0 * np.clip(FREELY - crowding / 2.0, 0.0, 1.0) + 0.0 * n,
    )  # fmt: skip


@dataclass(frozen=True)
class Down:
    """The way down, arrays alike: `share` is the feed of the middle over that at the wall, `removal` mm³/min."""

    centre_rate: Array
    ramp: Array
    turns: Array
    engagement: Array
    share: Array
    chip_thickness: Array
    removal: Array
    seconds: Array


def _deep(setup: MillHoleSetup, tool: MillTool) -> Array:
    """How far the end goes [mm]: through a hole until its corner is out."""
    return np.asarray(setup.depth + (BELOW + tool.own["corner"] if setup.feature.through else 0.0))


def _straight(setup: MillHoleSetup, tool: MillTool, fz: Array, fed: Array, way: Array, record: Silent) -> Down:
    """The end cuts all over, as a flat drill does."""
    d, none = tool.own["diameter"], np.zeros_like(fed)
    ring = np.pi / 4.0 * (d**2 - np.minimum(setup.feature.pilot, OPENED * d) ** 2)
    seconds = 60.0 * (_deep(setup, tool) + APPROACH) / fed
    return Down(fed, none + 90.0, none, none + 180.0, none, PLUNGED * fz, ring * fed, seconds)


def _helix(setup: MillHoleSetup, tool: MillTool, fz: Array, fed: Array, way: Array, record: Silent) -> Down:
    """Round and down; a floor is run round once more without going down."""
    d = tool.own["diameter"]
    hole = np.full_like(d, roughed(setup))
    pilot, share = np.minimum(setup.feature.pilot, OPENED * hole), (hole - d) / hole
    middle = record(milling.centre_feed_rate, feed_rate=fed, hole_diameter=hole, diameter=d)
    ramp = record(milling.ramp_angle, pitch=way, hole_diameter=hole, diameter=d)
    angle = record(milling.engagement_angle, hole_diameter=hole, diameter=d, inner_diameter=pilot)
    h = record(milling.mean_chip_thickness, centre_feed=fz * share, engagement_angle=angle)
    removed = record(milling.removal_rate, hole_diameter=hole, inner_diameter=pilot, pitch=way, centre_rate=middle, diameter=d)
    turns = _deep(setup, tool) / way + (0.0 if setup.feature.through else 1.0)
    travel = record(milling.helix_length, turns=turns, hole_diameter=hole, diameter=d, pitch=way)
    seconds = 60.0 * (travel / middle + APPROACH / (middle * np.sin(np.radians(ramp))))
    flat = np.zeros_like(fed)
    return Down(middle, ramp + flat, turns + flat, angle + flat, share + flat, h, removed, seconds)


def one_of(x: Numbers, k: int, setup: MillHoleSetup) -> Numbers:
    """The numbers of one of many mills, in its own set-up."""
    own: dict[str, Any] = dict(of_one(x, k))
    return replace(x, setup=setup, tool=x.tool.take(k), **own)


def _finishing(
    setup: MillHoleSetup, tool: MillTool, n: Array, fz: Array, fed: Array, kc: Array, climb: bool, record: Silent
) -> tuple[Array, Array, Array, Array, Array]:
    """The last turn over the whole depth: error of size at the floor, taper, seconds, engagement, push-off."""
    own, size = tool.own, setup.feature.diameter.nominal
    d, z, out = own["diameter"], own["flutes"], own["reach"]
    height = np.minimum(setup.depth, own["cutting_length"])
    levels = np.ceil(setup.depth / own["cutting_length"] - 1e-9)
    angle = milling.engagement_angle(size, d, roughed(setup))
    share = (size - d) / size
    thin = milling.mean_chip_thickness(fz * share, angle)
    thick = milling.mean_chip_thickness(fz * share, 180.0)
    harder = np.clip(thick / np.maximum(thin, 1e-6), 1.0, MOST_HARDER) ** setup.work.material.force_exponent
    pushed = record(
        milling.push_off, specific_force=kc * harder, centre_feed=fz * share, flutes=z, height=height, engagement_angle=angle, climb=climb,
        note="of the last turn",
    )  # fmt: skip
    stiff, place = milling.mill_second_moment(d, own["neck"]), out - height / 2.0
    tip = milling.bent_by(pushed, place, out, own["modulus"], stiff)
    top = milling.bent_by(pushed, place, np.maximum(out - height, 0.0), own["modulus"], stiff)
    middle = milling.centre_feed_rate(fed, size, d)
    seconds = 60.0 * LAST_TURNS * levels * np.pi * (size - d) / middle
    soft = record.factor("give")
    return 2.0 * soft * tip, 2.0 * soft * np.abs(tip - top), seconds, angle, pushed
