"""The numbers of a turned thread over one tool or many: passes, forces, springing, run-in, clearance, life, risk and money."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.mechanics import force
from cutting.mechanics.deflection import Holding, round_second_moment, tool_deflection
from cutting.mechanics.threading import flank_clearance, run_in
from cutting.motion.clock import around_seconds, rapid_seconds
from cutting.motion.trace import CLEAR
from cutting.operations.frame.money import Spent, spend
from cutting.operations.frame.over_passes import of_one
from cutting.operations.threads.shared.hardness import rockwell
from cutting.operations.threads.shared.risk import certainty, money_at_risk
from cutting.operations.threads.turn_thread.groove import ThreadGroove, groove
from cutting.operations.threads.turn_thread.setup import Infeed, TurnThreadSetup
from cutting.operations.threads.turn_thread.tool import Array, ThreadTool
from cutting.wear import life, spread
from cutting.working import Silent

FORM = 1.25  # correction of the specific force for a narrow, enclosed tip (common practice)
FREE_CHIP = 1.3  # times the index of the infeed, in a metal without ductility
STIFF_CHIP = 1.15  # of a chip that both flanks press together (common practice)
PASSIVE = {Infeed.RADIAL: 0.5, Infeed.FLANK: 0.4, Infeed.ALTERNATING: 0.42}  # of the cutting force, away from the part (common practice)
CURLS = {Infeed.RADIAL: 45.0, Infeed.FLANK: 85.0, Infeed.ALTERNATING: 75.0}  # how well chips leave, 0 to 100 (common practice)
SPRINGS_BACK = 0.3  # of what it sprang that a spring pass leaves (common practice)
SETS, LEFT_OF_SPRING = 0.015, 0.3  # mm that a machine sets the pitch diameter; of the springing that still stands in it once set off
ACCELERATES = 0.12  # s until a feed stands at n·lead on a machine that leads it by the spindle's angle (common practice)
FRONT = 2.0  # pitches in front of the thread where the feed begins
RETURNS = 0.4, 4.0  # s to turn round at each pass: led by a control, by hand with the half nut (common practice)
SCRAPS, LOST = 6e-5, 0.35  # chance that a tip breaks in a thread, and of those whose part is lost (common practice)
OVERLOADED, MOST_SCRAP = 40.0, 0.05  # a tip at twice its load breaks forty times as often, never in more than one thread of twenty
THINNEST = 0.005  # mm, below which Kienzle says nothing


@dataclass(frozen=True)
class Numbers(Spent):
    """What limits and results read, arrays (..., 1) or (..., passes); N, kW, mm, °, s, money."""

    setup: Any
    tool: ThreadTool
    groove: ThreadGroove
    spindle_speed: Array
    cutting_speed: Array
    feed_set: Array
    feed_rate: Array
    chip_thickness: Array  # each pass
    cutting_force: Array  # each pass, worn
    passive_force: Array
    load: Array  # N per mm of edge, each pass
    power: Array
    available: Array
    bend: Array  # of tool and part at the last pass [mm on the radius]
    size_error: Array  # on the pitch diameter
    width: Array
    certainty: Array
    clear_leading: Array
    clear_trailing: Array
    run_in: Array
    run_out: Array
    hardness: Array
    break_chance: Array
    at_risk: Array
    tool_life: Array
    weibull_shape: Array
    threads: Array
    book_low: Array
    book_high: Array
    pass_time: Array
    chip_index: Array

    @property
    def strokes_taken(self) -> int:
        """Passes with the spring passes."""
        return len(self.groove.depth)


def numbers(setup: TurnThreadSetup, tool: ThreadTool, speed: Any, feed: Any, record: Silent) -> Numbers:
    """Everything computed at speeds [m/min]; the feed is the lead, whatever is asked."""
    f, s, machine, own = setup.feature, setup.settings, setup.machine, tool.own
    t, material, worn = f.thread, setup.work.material, setup.house.wear_factor
    cut = groove(setup)
    n = machine.drive().at(speed, t.diameter) + 0.0 * np.asarray(feed, float) + 0.0 * tool.lean
    v = np.pi * t.diameter * n / 1000.0
    h = np.maximum(cut.area / np.maximum(cut.edge, 1e-9), 1e-4)
    kc = record(
        force.specific_cutting_force,
        specific_force_1=setup.work.specific_force_1,
        chip_thickness=np.maximum(h, THINNEST),
        force_exponent=material.force_exponent,
        rake_factor=1.0,
        wear_factor=worn,
        form_factor=FORM * (STIFF_CHIP if s.infeed is Infeed.RADIAL else 1.0),
        note="worn; an enclosed tip",
    )
    fc = record(force.cutting_force, specific_force=kc, chip_area=cut.area, note="worn, of the last pass") + 0.0 * n
    fp = PASSIVE[s.infeed] * fc
    last = fp[..., -1 - s.spring, None] if fp.ndim else fp
    soft = _part_compliance(setup)
    sprung = record.of("give", tool_deflection(last, tool.overhang, tool.second_moment, own["holder_modulus"]) + soft * last)
    sprung = sprung * SPRINGS_BACK**s.spring
    per_pass = (f.length + FRONT * t.pitch + f.relief / 2.0) / (t.lead * n) * 60.0
    count = cut.depth.size * t.starts
    by_hand = machine.geared
    way = f.length + FRONT * t.pitch + f.relief / 2.0
    back = RETURNS[by_hand] + float(sum(rapid_seconds([2.0 * CLEAR, way], machine)))
    engaged = count * per_pass
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
        note="of the row of turning speeds, less for a thread",
    )
    used = engaged / 60.0 / minutes
    shape = record(spread.weibull_shape, coefficient_of_variation=tool.coefficient_of_variation)
    idle = around_seconds(machine) + count * back + 0.0 * n
    load = fc / np.maximum(cut.edge, 1e-9) / record.of("strength", 1.0)
    over = np.maximum(load.max(axis=-1, keepdims=True) / own["stands"] - 1.0, 0.0)
    chance = np.clip(SCRAPS * (1.0 + OVERLOADED * over), 0.0, MOST_SCRAP)
    risk = money_at_risk(chance, LOST, setup.batch.part_value or 0.0)
    paid = spend(setup, engaged, idle, used, shape, own["edge_price"] + 0.0 * n, chance, record)
    width = SETS + LEFT_OF_SPRING * 2.0 * np.abs(sprung)
    leading, trailing = t.half_angles
    clear_lead, _ = flank_clearance(own["clearance"], leading, tool.lean, tool.tilt)
    _, clear_trail = flank_clearance(own["clearance"], trailing, tool.lean, tool.tilt)
    ahead = record(run_in, spindle_speed=n, lead=t.lead, acceleration_time=ACCELERATES)
    none = 0.0 * n
    return Numbers(
        **paid, setup=setup, tool=tool, groove=cut, spindle_speed=n, cutting_speed=v, feed_set=t.lead + none, feed_rate=n * t.lead,
        chip_thickness=h + none, cutting_force=fc, passive_force=fp, load=load, power=fc * v / 60_000.0,
        available=record.of("power", machine.spindle_power(n)), bend=sprung + none, size_error=2.0 * sprung + none, width=width + none,
        certainty=certainty(width, f.tolerance) + none, clear_leading=clear_lead + none, clear_trailing=clear_trail + none,
        run_in=ahead + none, run_out=0.5 * ahead + 0.5 * t.pitch + none, hardness=record.of("hardness", rockwell(setup.work)) + none,
        break_chance=chance + none,
        at_risk=risk + none, tool_life=minutes + none, weibull_shape=shape, threads=1.0 / used,
        book_low=tool.speed_low * tool.speed_factor, book_high=tool.speed_high * tool.speed_factor, pass_time=per_pass + none,
        chip_index=none + CURLS[s.infeed] * (FREE_CHIP - 0.5 * material.ductility),
    )  # fmt: skip


def _part_compliance(setup: TurnThreadSetup) -> float:
    """How far the part springs at the thread for a newton [mm/N], of its root's diameter over its free length; inside it is stiff."""
    f, held = setup.feature, setup.holding
    stiff = 1.0 / (setup.machine.chuck_stiffness * 1000.0 * setup.machine.rigidity)
    if f.internal:
        return stiff
    long, at = max(held.free_length, 1.0), min(f.distance + f.length, held.free_length)
    moment = float(round_second_moment(f.thread.root_diameter)) * setup.work.material.elastic_modulus
    if held.style is Holding.CHUCK:
        return float(stiff + at**3 / (3.0 * moment))
    rest = max(long - at, 0.0)
    return float(stiff / 2.0 + (at * rest) ** 2 / (3.0 * moment * long) + 1.0 / (setup.machine.centre_stiffness * 1000.0))


def one_of(x: Numbers, k: int, setup: TurnThreadSetup) -> Numbers:
    """The numbers of one of many tools, in its own set-up."""
    own: dict[str, Any] = dict(of_one(x, k))
    return replace(x, setup=setup, tool=x.tool.take(k), **own)
