"""The numbers of a tapped thread over one tap or many: way and time, torque against what carries it, chips, life, risk and money."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.mechanics import force
from cutting.mechanics.threading import breaking_torque, tap_torque
from cutting.motion.clock import around_seconds, rapid_seconds
from cutting.motion.places import between_seconds
from cutting.motion.trace import CLEAR
from cutting.operations.frame.money import Spent, spend
from cutting.operations.frame.over_passes import of_one
from cutting.operations.threads.shared.hardness import rockwell
from cutting.operations.threads.shared.risk import breaks, certainty, money_at_risk
from cutting.operations.threads.tap.setup import TapHolding, TapSetup
from cutting.operations.threads.tap.tool import Array, TapTool
from cutting.wear import life, spread
from cutting.working import Silent
from cutting.working.formula import formula

APPROACH = 3.0  # pitches before the metal, and the way back to them
BEYOND = 1.0  # pitches below the chamfer that a hole must leave (common practice: 1 to 2)
# s that a spindle takes to turn back from 1000 1/min; a reversing head does it by its gears (common practice)
TURNS_BACK = {TapHolding.SYNCHRONISED: 0.35, TapHolding.FLOATING: 0.6, TapHolding.REVERSING: 0.1}
STANDS = 0.15  # s at each end
PACKED_FROM, PACKED = 0.6, 0.5  # of the depth that its chips come up from, and what they add to the torque there (common practice)
LOST = 0.9  # of broken taps whose part is lost (common practice: 0.8 to 1)
# µm by which the pitch diameter differs from thread to thread: led by the spindle, by a floating holder (common practice)
SPREAD = {TapHolding.SYNCHRONISED: 0.035, TapHolding.FLOATING: 0.05, TapHolding.REVERSING: 0.05}
# mm of chip for which a tap's specific force is taken, with so many teeth in its chamfer: measured torques go by P²·D from M3 to M16,
# and do not grow with the thin chips of small taps as Kienzle's law would have them (common practice)
USUAL_CHIP, USUAL_TEETH = 0.1, 7.5
LEFT_BACK = 0.3  # of the torque that it takes to come back out (common practice)
PACKED_MOST = 1.5  # times too deep, where chips cannot pack any more
DROPS_OUT = 0.3  # of the packing, where chips fall out ahead (common practice)
FREELY = 1.4  # index 100 up to 0.8 of what the flutes hold, 0 at 2.8 times it


@formula("thread_time", "2·60·({length} + ({passes} + 3)·{pitch})/({lead}·{spindle_speed})", "geometry")
def thread_time(length: Any, passes: Any, pitch: Any, lead: Any, spindle_speed: Any) -> Array:
    """In and out of one thread [s]: length of full thread, chamfer of so many threads and 3 pitches of way, at n·lead [mm, 1/min]."""
    way = np.asarray(length, float) + (np.asarray(passes) + APPROACH) * np.asarray(pitch)
    return np.asarray(2.0 * 60.0 * way / (np.asarray(lead) * np.asarray(spindle_speed, float)))


@dataclass(frozen=True)
class Numbers(Spent):
    """What limits and results read, arrays (..., 1); N·m, kW, mm, s, money."""

    setup: Any
    tool: TapTool
    spindle_speed: Array
    cutting_speed: Array
    feed_set: Array  # the lead
    feed_rate: Array
    thread_time: Array  # one thread
    specific_force: Array
    torque: Array  # worn, at its deepest
    breaking: Array
    margin: Array
    available: Array  # torque of the spindle
    power: Array
    power_available: Array
    way_needed: Array  # of core hole
    way_there: Array
    chip_depth: Array  # share of the depth from which its chips still get away
    hardness: Array  # HRC
    work_strength: Array  # N/mm²
    hole_share: Array  # thread of its engagement height, %
    break_chance: Array
    at_risk: Array  # money
    certainty: Array
    tool_life: Array
    weibull_shape: Array
    holes: Array
    book_low: Array
    book_high: Array
    chip_index: Array

    @property
    def strokes_taken(self) -> int:
        """One tap goes in once."""
        return 1


def numbers(setup: TapSetup, tool: TapTool, speed: Any, feed: Any, record: Silent) -> Numbers:
    """Everything computed at speeds [m/min]; the feed is the lead, whatever is asked."""
    f, s, machine, own = setup.feature, setup.settings, setup.machine, tool.own
    t, material, count = f.thread, setup.work.material, f.count
    d, z, forms = own["diameter"], own["flutes"], own["type_forms"] > 0
    n = machine.drive().at(speed, d) + 0.0 * np.asarray(feed, float)
    v = np.pi * d * n / 1000.0
    h = USUAL_CHIP * USUAL_TEETH / (own["chamfer_threads"] * z)
    kc = record(
        force.specific_cutting_force,
        specific_force_1=setup.work.specific_force_1,
        chip_thickness=h,
        force_exponent=material.force_exponent,
        rake_factor=1.0,
        wear_factor=1.0,
        form_factor=1.0,
        note="of a tooth in the chamfer",
    )
    deep = f.length / np.maximum(own["type_deepest"] * d, 1e-9)
    crowded = np.where(forms, 0.0, np.clip(deep - PACKED_FROM, 0.0, PACKED_MOST)) * (DROPS_OUT if f.through else 1.0)
    drag = own["type_friction"] * setup.house.wear_factor * (1.0 + PACKED * crowded) * own["type_torque"]
    torque = record(tap_torque, pitch=t.pitch, diameter=d, specific_force=kc, friction_factor=drag, area_share=tool.metal, note="worn")
    breaking = record(breaking_torque, shear_strength=own["shear"], core_diameter=own["core"])
    margin = breaking / np.maximum(torque, 1e-9)
    one = record(thread_time, length=f.length, passes=own["chamfer_threads"], pitch=t.pitch, lead=t.lead, spindle_speed=n)
    turning = turning_seconds(setup, n)
    engaged = count * one
    minutes = record(
        life.taylor_life,
        reference_speed=(tool.speed_low + tool.speed_high) / 2.0,
        speed_factor=tool.speed_factor,
        cutting_speed=v,
        taylor_exponent=tool.taylor_exponent,
        reference_feed=1.0,
        chip_thickness=1.0,
        feed_exponent=0.0,
        reference_depth=1.0,
        depth_of_cut=1.0,
        depth_exponent=0.0,
        light_gain=life.LIGHT_GAIN,
        note="of the row of tapping speeds; the feed is the lead",
    )
    minutes = minutes * own["type_life"] / life.REFERENCE_LIFE / np.maximum(tool.metal, 0.5)
    used = engaged / 60.0 / minutes
    shape = record(spread.weibull_shape, coefficient_of_variation=tool.coefficient_of_variation)
    idle = around_seconds(machine) + count * (turning + 2.0 * rapid_seconds(CLEAR, machine)) + between_seconds(machine, f.circle, count)
    worse = 1.0 + 4.0 * crowded + np.where(tool.stays > 0, 1.0, 0.0)
    chance = breaks(margin, worse)
    value = setup.batch.part_value or 0.0
    risk = money_at_risk(chance, LOST, value, count)
    paid = spend(setup, engaged, idle, used, shape, own["life_price"], 1.0 - (1.0 - chance) ** count, record)
    need = f.length + (own["chamfer_threads"] + BEYOND) * t.pitch
    hard = record.of("hardness", rockwell(setup.work))
    sure = certainty(SPREAD[s.held] + 0.0 * n, f.tolerance)
    return Numbers(
        **paid, setup=setup, tool=tool, spindle_speed=n, cutting_speed=v, feed_set=t.lead + 0.0 * n, feed_rate=n * t.lead, thread_time=one,
        specific_force=kc + 0.0 * n, torque=torque + 0.0 * n, breaking=breaking + 0.0 * n, margin=margin + 0.0 * n,
        available=record.of("power", 9549.3 * machine.spindle_power(n) / n), power=torque * n / 9549.3,
        power_available=record.of("power", machine.spindle_power(n)),
        way_needed=need + 0.0 * n, way_there=f.room + 0.0 * n, chip_depth=deep + 0.0 * n, hardness=hard + 0.0 * n,
        work_strength=record.of("hardness", setup.work.strength) + 0.0 * n,
        hole_share=100.0 * (t.diameter - tool.hole) / (2.0 * t.of.inside_depth * t.pitch) + 0.0 * n,
        break_chance=chance + 0.0 * n, at_risk=risk + 0.0 * n, certainty=sure, tool_life=minutes + 0.0 * n, weibull_shape=shape,
        holes=count / used, book_low=tool.speed_low * tool.speed_factor, book_high=tool.speed_high * tool.speed_factor,
        chip_index=100.0 * np.clip(FREELY - np.where(forms, 0.0, deep) / 2.0, 0.0, 1.0) + 0.0 * n,
    )  # fmt: skip


def turning_seconds(setup: TapSetup, spindle_speed: Any) -> Any:
    """Seconds that the spindle takes to turn round at the bottom and again at the mouth, from a speed [1/min]."""
    return 2.0 * TURNS_BACK[setup.settings.held] * spindle_speed / 1000.0 + 2.0 * STANDS


def one_of(x: Numbers, k: int, setup: TapSetup) -> Numbers:
    """The numbers of one of many taps, in its own set-up."""
    own: dict[str, Any] = dict(of_one(x, k))
    return replace(x, setup=setup, tool=x.tool.take(k), **own)
