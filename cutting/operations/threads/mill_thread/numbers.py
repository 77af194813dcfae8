"""The numbers of a milled thread over one mill or many: way, chip, push-off and taper, flank error and its offset, life, risk, money."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.mechanics import force
from cutting.mechanics import hole_milling as milling
from cutting.mechanics.threading import flank_error
from cutting.motion.clock import around_seconds, rapid_seconds
from cutting.motion.places import between_seconds
from cutting.motion.trace import CLEAR
from cutting.operations.frame.money import Spent, spend
from cutting.operations.frame.over_passes import of_one
from cutting.operations.threads.mill_thread.setup import MillThreadSetup, ThreadMillSense
from cutting.operations.threads.mill_thread.tool import Array, ThreadMillTool
from cutting.operations.threads.shared.core_hole import thread_area
from cutting.operations.threads.shared.hardness import rockwell
from cutting.operations.threads.shared.risk import breaks, certainty, money_at_risk
from cutting.operations.threads.shared.sense import climbs
from cutting.wear import spread
from cutting.wear.milling import milled_life
from cutting.working import Silent

MILLING_FORM = 1.2  # Tschätsch's correction of the specific force for milling
CIRCLES = 0.012  # mm that the pitch diameter varies by the machine's circle (common practice)
LEFT_OF_PUSH, AFTER_REPEAT = 0.35, 0.4  # of the push-off that still stands in the size once it is set off; what each repeat leaves of it
RETRACT = 2.0  # mm before and after
LOST = 0.04  # of broken thread mills whose part is lost: the pieces fall out, the path is run again (common practice)
LEADS = 1.6  # teeth's worth of the leading tooth of three that follow each other along one groove (common practice)
FRONT_FEED = 0.8  # of the feed at the wall that the end takes where it opens the core (common practice)
DRILL_FEED = 0.012  # of the diameter, feed a turn of the drill in front (common practice)
CHILLS_FROM = 54.0  # HRC above which hot teeth are not quenched: air (common practice)
THINNEST = 5e-4  # mm, below which Kienzle says nothing
SHALLOWEST = 0.3  # of the pitch that a thread is at least deep
MILLED_CHIPS = 95.0  # index: a milled thread's chips are commas
LEAST_RING = 0.995  # of the groove's Ø: there is always something to mill


@dataclass(frozen=True)
class Numbers(Spent):
    """What limits and results read, arrays (..., 1); N, N·m, kW, mm, °, s, money."""

    setup: Any
    tool: ThreadMillTool
    spindle_speed: Array
    cutting_speed: Array
    feed_set: Array
    feed_rate: Array  # at the wall, mm/min
    centre_rate: Array
    path_radius: Array
    turns: Array
    engagement: Array
    chip_thickness: Array
    specific_force: Array
    torque: Array
    power: Array
    available: Array
    push_off: Array
    bend: Array  # N/mm²
    taper: Array  # of the pitch diameter over the length
    size_error: Array  # on the pitch diameter, small where +
    flank_error: Array  # at the crest, axial, each flank
    angle_left: Array  # of the flank error that no offset takes back, on the pitch diameter
    offset_wanted: Array  # of the path, − inward
    width: Array
    certainty: Array
    ratio: Array  # mill over thread
    hardness: Array
    margin: Array
    break_chance: Array
    at_risk: Array
    tool_life: Array
    weibull_shape: Array
    holes: Array
    book_low: Array
    book_high: Array
    helix_time: Array  # one thread, all passes
    opening_time: Array  # of it for the core
    chip_index: Array

    @property
    def strokes_taken(self) -> int:
        """How often it goes round at its length."""
        return int(self.setup.settings.passes + self.setup.settings.repeats)


def numbers(setup: MillThreadSetup, tool: ThreadMillTool, speed: Any, feed: Any, record: Silent) -> Numbers:
    """Everything computed at speeds [m/min] and feeds [mm a tooth at the wall]."""
    f, s, machine, own = setup.feature, setup.settings, setup.machine, tool.own
    t, material, worn, count = f.thread, setup.work.material, setup.house.wear_factor, f.count
    d, z = own["diameter"], own["flutes"]
    big, p = t.diameter, t.pitch
    n = machine.drive().at(speed, d)
    v, fz = np.pi * d * n / 1000.0, np.asarray(feed, float) + 0.0 * n
    hole = np.where(tool.hole > 0, tool.hole, 0.0)
    many, helix = own["type_many"] > 0, (own["type_helix"] > 0) & (hole <= 0)
    path = (big - d) / 2.0
    fed = record(milling.edge_feed_rate, feed_per_tooth=fz, flutes=z, spindle_speed=n)
    middle = record(milling.centre_feed_rate, feed_rate=fed, hole_diameter=big, diameter=d)
    share = (big - d) / big
    inner = np.where(hole > 0, np.maximum(hole, 1e-6), 1e-6)
    angle = record(
        milling.engagement_angle, hole_diameter=big, diameter=d, inner_diameter=np.where(helix, 1e-6, np.minimum(inner, LEAST_RING * big))
    )
    steps = s.passes
    # of several radial passes each is in the metal less; the angle goes with the root of its depth
    angle_each = angle / np.sqrt(steps)
    h = record(milling.mean_chip_thickness, centre_feed=fz * share, engagement_angle=angle_each) * np.sin(np.radians(t.half_angles[0]))
    kc = record(
        force.specific_cutting_force,
        specific_force_1=setup.work.specific_force_1,
        chip_thickness=np.maximum(h, THINNEST),
        force_exponent=material.force_exponent,
        rake_factor=1.0,
        wear_factor=worn,
        form_factor=MILLING_FORM,
        note="worn; milling form, flanks",
    )
    groove = thread_area(t, setup.hole)
    turns = _turns(f.length, p, t.starts, own)
    rows = np.where(many, np.minimum(f.length / p, own["teeth"]), np.where(own["type_three"] > 0, LEADS, 1.0))
    round_ = np.sqrt((np.pi * (big - d)) ** 2 + t.lead**2)
    climb = s.sense is ThreadMillSense.CLIMB or climbs(setup.path, setup.mill.left_cutting)
    arcs = 2.0 * s.arc / 360.0 / 2.0  # of a turn, on half the radius
    speed_share = np.where(helix, FRONT_FEED, 1.0)
    runs = steps + s.repeats
    one = 60.0 * runs * (turns + arcs) * round_ / (middle * speed_share)
    one = one + 60.0 * runs * np.where(many, np.maximum(turns - 1.0, 0.0) * 2.0, 0.0) * RETRACT / machine.feed_rate_max
    drills = (own["type_first"] > 0) & (hole <= 0)
    drilling = np.where(drills, 60.0 * (f.length + 3.0 * p + RETRACT) / np.maximum(DRILL_FEED * d * n, 1e-9), 0.0)
    one = one + drilling
    swept = np.pi * t.pitch_diameter * groove * rows / steps
    swept = swept + np.where(helix, np.pi / 4.0 * t.inside_diameter**2 * t.lead, 0.0)
    removal = swept / (round_ / (middle * speed_share))  # mm³/min
    power = record(milling.milled_power, specific_force=kc, removal_rate=removal)
    torque = 9549.3 * power / n
    wide = rows * groove / steps / np.maximum((big - np.minimum(inner, big - 1e-3)) / 2.0, SHALLOWEST * p)
    pushed = record(
        milling.push_off, specific_force=kc, centre_feed=fz * share * speed_share, flutes=z, height=wide, engagement_angle=angle_each,
        climb=climb, note="worn, of the last pass",
    )  # fmt: skip
    stiff = milling.mill_second_moment(d, np.minimum(own["neck"], d))
    out = own["reach"]
    place = np.where(many, out - np.minimum(f.length, own["teeth"] * p) / 2.0, out)
    tip = milling.bent_by(pushed, place, out, own["modulus"], stiff)
    top = np.where(
        many, milling.bent_by(pushed, place, np.maximum(out - np.minimum(f.length, own["teeth"] * p), 0.0), own["modulus"], stiff), tip
    )
    left = AFTER_REPEAT**s.repeats * record.of("give", 1.0)
    taper, push_size = 2.0 * np.abs(tip - top) * left, 2.0 * tip * left
    bend = np.abs(pushed) * place * milling.FLUTED_BODY * d / 2.0 / stiff / record.of("strength", 1.0)
    half = np.radians(t.half_angles[0])
    overcut = record(flank_error, lead=t.lead, radius=t.pitch_diameter / 2.0, path_radius=path, half_angle=t.half_angles[0])
    at_crest = flank_error(t.lead, t.inside_diameter / 2.0, path, t.half_angles[0])
    at_root = flank_error(t.lead, big / 2.0, path, t.half_angles[0])
    wider = 2.0 * overcut / np.tan(half)  # on the pitch diameter
    wanted = np.round((push_size - wider) / 2.0, 3)
    error = push_size - wider - 2.0 * (wanted if s.offset is None else s.offset)
    angle_left = 2.0 * np.abs(at_root - at_crest) / np.tan(half)
    engaged = count * one
    minutes = milled_life(tool, v, fz, np.maximum(angle_each, 20.0), tool.own["type_life"], record)
    used = engaged / 60.0 / minutes
    shape = record(spread.weibull_shape, coefficient_of_variation=tool.coefficient_of_variation)
    each = float(rapid_seconds(f.length, machine) + rapid_seconds(f.length + RETRACT + CLEAR, machine) + rapid_seconds(CLEAR, machine))
    idle = around_seconds(machine) + count * each + between_seconds(machine, f.circle, count)
    margin = own["type_bends_at"] / np.maximum(bend, 1.0)
    chance = breaks(np.minimum(margin, 4.0), 1.0)
    value = setup.batch.part_value or 0.0
    risk = money_at_risk(chance, LOST, value, count)
    paid = spend(setup, engaged, idle + 0.0 * n, used, shape, own["life_price"], 1.0 - (1.0 - chance) ** count, record)
    width = CIRCLES + LEFT_OF_PUSH * np.abs(push_size) + taper + angle_left / 2.0 + np.maximum(np.abs(error) - f.tolerance / 4.0, 0.0)
    return Numbers(
        **paid, setup=setup, tool=tool, spindle_speed=n, cutting_speed=v, feed_set=fz, feed_rate=fed, centre_rate=middle * speed_share,
        path_radius=path + 0.0 * n, turns=turns + 0.0 * n, engagement=angle_each + 0.0 * n, chip_thickness=h + 0.0 * n,
        specific_force=kc + 0.0 * n, torque=torque, power=power,
        available=record.of("power", machine.spindle_power(n)), push_off=pushed + 0.0 * n,
        bend=bend + 0.0 * n, taper=taper + 0.0 * n, size_error=error + 0.0 * n, flank_error=overcut + 0.0 * n,
        angle_left=angle_left + 0.0 * n, offset_wanted=wanted + 0.0 * n, width=width + 0.0 * n,
        certainty=certainty(width, f.tolerance) + 0.0 * n,
       
        ratio=d / big + 0.0 * n, hardness=record.of("hardness", rockwell(setup.work)) + 0.0 * n,
        margin=margin + 0.0 * n, break_chance=chance + 0.0 * n,
        at_risk=risk + 0.0 * n, tool_life=minutes, weibull_shape=shape, holes=count / used,
        book_low=tool.speed_low * tool.speed_factor, book_high=tool.speed_high * tool.speed_factor, helix_time=one,
        opening_time=drilling + 0.0 * n,
        chip_index=MILLED_CHIPS + 0.0 * n,
    )  # fmt: skip


def _turns(length: float, pitch: float, starts: int, own: dict[str, Array]) -> Array:
    """Turns of the helix: one for each stretch that many rows cover, else one a pitch and one to come in for each start."""
    many = np.maximum(np.ceil(length / np.maximum(own["teeth"] * pitch, 1e-9) - 1e-9), 1.0)
    return np.asarray(np.where(own["type_many"] > 0, many, length / pitch + starts))


def one_of(x: Numbers, k: int, setup: MillThreadSetup) -> Numbers:
    """The numbers of one of many mills, in its own set-up."""
    own: dict[str, Any] = dict(of_one(x, k))
    return replace(x, setup=setup, tool=x.tool.take(k), **own)
