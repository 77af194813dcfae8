"""The narrow edge: its feed window, its life and scatter, how surely it runs, and what it costs."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.errors import CuttingError
from cutting.machine.machines import Machine
from cutting.money.cost import insert_edge_cost, operation_cost, operation_time
from cutting.operations.frame.setup import Batch, Goal, HouseRules
from cutting.tooling.blades import GrooveBlade, GrooveInsert, plunge_feeds
from cutting.wear import life, spread
from cutting.wear.reference import life_law, speed_factors
from cutting.working import Silent
from cutting.workpiece.materials import Work

SLOWER = 0.75  # a slot against turning, middle of 0.6 to 0.8 (common practice)
BOOK_HIGH = 1.1
BRITTLE_SCATTER, EXTRA_SCATTER = 0.1, 0.05  # a narrow edge in a slot scatters more (common practice)
JAM, MOST_JAMS = 0.0003, 0.005  # chance a piece that chips jam the slot, per 10 × width of depth; and at most (common practice)
THROUGH_PRESSURE = 10.0  # bar from which coolant through the tool reaches under the chip (common practice)
PARTLY = 0.8  # of a jet's gain that coolant beside the slot loses


@dataclass(frozen=True)
class Lasting:
    """How long an edge lasts: minutes, Weibull shape, pieces; and the book's speed with its top [m/min]."""

    tool_life: float
    weibull_shape: float
    median_parts: float
    change_parts: float
    secure: float
    start_speed: float

    @property
    def book_high(self) -> float:
        return BOOK_HIGH * self.start_speed


@dataclass(frozen=True)
class Paid:
    """Seconds and money of an operation on one piece, and of one edge."""

    seconds: float
    cost: float
    edge_cost: float


class Judged:
    """What limits, remedies and rankings read of the numbers of a narrow cut: seconds, money, security."""

    lasting: Lasting
    paid: Paid

    @property
    def seconds(self) -> float:
        return self.paid.seconds

    @property
    def cost(self) -> float:
        return self.paid.cost

    @property
    def edge_cost(self) -> float:
        return self.paid.edge_cost

    @property
    def secure(self) -> float:
        return self.lasting.secure

    @property
    def change_parts(self) -> float:
        return self.lasting.change_parts


def reaching_pressure(machine: Machine, delivery: str, blade: GrooveBlade) -> float:
    """Pressure [bar] that acts at the edge in its slot: beside the slot little of a jet arrives, through the blade all of it."""
    pressure = machine.pressure(delivery) or 0.0
    through = blade.coolant == "through" and pressure >= THROUGH_PRESSURE
    return pressure if through or pressure < THROUGH_PRESSURE else (1.0 - PARTLY) * pressure


def feeds_of(insert: GrooveInsert, work: Work) -> tuple[float, float]:
    """The plunge feed window [mm/rev] of an insert in a metal."""
    return plunge_feeds(insert.width, work.material.group.letter, insert.grade.tool_class)


def lasting(
    work: Work,
    machine: Machine,
    insert: GrooveInsert,
    blade: GrooveBlade,
    house: HouseRules,
    goal: Goal,
    batch: Batch,
    cutting_speed: float,
    feed: float,
    engaged: float,
    depth: float,
    delivery: str,
    record: Silent,
    slower: float = SLOWER,
    gain: float = 1.0,
    skin: str = "clean",
    interrupted: bool = False,
) -> Lasting:
    """How long an edge lasts that is `engaged` seconds a piece at a speed [m/min] and feed [mm/rev], `depth` [mm] in its slot.

    `slower` is the share of the turning speed that this kind of cut takes, `gain` a longer life by a thinner chip. Raises
    `CuttingError` where the trade does not run this tool material in the metal.
    """
    law = life_law(work.material.speed_row, insert.grade.tool_class)
    if law is None:
        group = work.material.group
        raise CuttingError("tool.insert", f"no starting speed for {insert.grade.tool_class} in group {group.number} ({group.description}).")
    pressure = reaching_pressure(machine, delivery, blade)
    factors = speed_factors(work, insert.grade, pressure, interrupted, skin, False)
    factor = slower * float(np.prod([one.factor for one in factors]))
    # the book's speed is meant for the middle of the width's feed window
    usual = sum(feeds_of(insert, work)) / 2.0
    minutes = gain * float(
        record(
            life.taylor_life,
            reference_speed=law.reference_speed,
            speed_factor=factor,
            cutting_speed=cutting_speed,
            taylor_exponent=law.taylor_exponent,
            reference_feed=law.reference_feed,
            chip_thickness=law.reference_feed * feed / usual,
            feed_exponent=law.feed_exponent,
            reference_depth=law.reference_depth,
            depth_of_cut=law.reference_depth,
            depth_exponent=law.depth_exponent,
            note=f"a slot at {slower:.2g} of the turning speed; the feed counts against the middle of its width's window",
        )
    )
    scatter = law.coefficient_of_variation + EXTRA_SCATTER + BRITTLE_SCATTER * max(0.0, 0.7 - insert.grade.toughness)
    shape = float(record(spread.weibull_shape, coefficient_of_variation=scatter))
    median = minutes * 60.0 / max(engaged, 1e-6)
    planned = median * float(spread.life_quantile(house.change_probability(goal), shape))
    change = float(np.floor(planned)) if planned >= 1 else planned
    run_parts = float(min(max(change, 1.0), batch.pieces))
    jams = JAM * depth / (10.0 * insert.width) * (0.3 if pressure >= 20 else 1.0) * work.material.ductility
    secure = float(spread.completion_probability(run_parts / median, 1.0, shape)) * (1.0 - min(jams, MOST_JAMS)) ** run_parts
    return Lasting(minutes, shape, median, change, secure, law.reference_speed * factor)


def paid(machine: Machine, insert: GrooveInsert, blade: GrooveBlade, engaged: float, idle: float, change_parts: float) -> Paid:
    """Seconds and money: `engaged` in cut, `idle` for rapid moves and indexing [s], an edge changed every so many pieces."""
    edge = float(insert_edge_cost(insert.price, insert.edges, blade.price))
    seconds = float(operation_time(engaged, idle, machine.edge_change_time, change_parts))
    return Paid(seconds, float(operation_cost(machine.rate, engaged, idle, machine.edge_change_time, edge, change_parts)), edge)


def idle_seconds(machine: Machine, way: float, strokes: int = 1) -> float:
    """Indexing, spindle start and rapid moves [s]: `way` [mm] there and back, `strokes` times."""
    return 60.0 * strokes * way / machine.rapid_rate + machine.index_time + machine.start_time
