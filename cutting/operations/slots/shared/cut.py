"""What every narrow cut computes alike, over one tool or many: its life and money, its bending, and the one it is read as."""

from __future__ import annotations

from dataclasses import dataclass, fields, replace
from typing import Any, TypeVar

import numpy as np

from cutting.chips.window import softest_index, stop_chance
from cutting.mechanics import blade
from cutting.money.cost import insert_edge_cost
from cutting.operations.frame.money import Spent, spend
from cutting.operations.slots.shared.setup import SlotSetup
from cutting.operations.slots.shared.tool import Array, SlotTool
from cutting.wear import life, spread
from cutting.working import Silent

SLOWER = 0.75  # a slot against turning, middle of 0.6 to 0.8 (common practice)
BOOK_LOW, BOOK_HIGH = 0.4, 1.1
JAM, MOST_JAMS = 0.0003, 0.005  # chance a piece that chips jam the slot, per 10 × width of depth; and at most (common practice)
JET, JET_SHARE = 20.0, 0.3  # bar from which chips are washed out, and the share of jams that stays (common practice)


@dataclass(frozen=True)
class Lasting:
    """How long an edge lasts: minutes in cut, Weibull shape, and the book's speed [m/min]."""

    tool_life: Array
    weibull_shape: Array
    start_speed: Array


@dataclass(frozen=True)
class SlotCut(Spent, Lasting):
    """What limits, remedies and rankings read of every narrow cut; arrays (..., 1); N, N·m, kW, mm, bar."""

    setup: Any
    tool: SlotTool
    cutting_speed: Array  # reached at the largest diameter, m/min
    feed_set: Array  # mm/rev
    feed: Array  # that the machine has
    feeds: tuple[Array, Array]
    chip_index: Array
    pressure: Array  # bar that acts at the edge
    cutting_force: Array
    side_force: Array
    sideways: Array
    down: Array
    power: Array
    available: Array
    torque: Array
    grip: Array
    gripped_speed: Array  # 1/min at which the jaws hold it

    @property
    def driven_at(self) -> Array:
        """Spindle speeds [1/min] of its strokes."""
        return self.gripped_speed

    @property
    def strokes_taken(self) -> int:
        """How many strokes clear the slot."""
        return 1

    @property
    def book_high(self) -> Array:
        return BOOK_HIGH * self.start_speed

    @property
    def book_low(self) -> Array:
        return BOOK_LOW * self.book_high


SECOND_TOOL, SECOND_CUT = 1.0, 4.0  # a full radius leaves its corners to a second tool: one more index, and its seconds in the corners
RAISED = 2.5  # × the feed sideways that a thin, rolled chip may take at most (common practice)


def rolled_chip(width: float, engaged: Array) -> tuple[Array, Array]:
    """Chip thickness over feed of a full radius of a `width` [mm] at depths of cut [mm], and the angle [rad] at which it pushes."""
    radius = width / 2.0
    reach = np.arccos(np.clip(1.0 - engaged / radius, -1.0, 1.0))
    return np.minimum(engaged / np.maximum(radius * reach, 1e-9), 1.0), reach / 2.0


X = TypeVar("X")


def plain(x: X) -> X:
    """The same numbers of one tool as plain floats, for readings."""
    found: dict[str, Any] = {}
    for field in fields(x):  # type: ignore[arg-type]
        value = getattr(x, field.name)
        if isinstance(value, np.ndarray | np.floating) and value.size == 1:
            found[field.name] = float(value.ravel()[0])
        elif isinstance(value, tuple) and value and all(isinstance(one, np.ndarray) for one in value):
            found[field.name] = tuple(float(one.ravel()[0]) for one in value)
    return replace(x, **found)  # type: ignore[type-var]


def lasting(tool: SlotTool, cutting_speed: Any, feed: Any, record: Silent, slower: float = SLOWER) -> Lasting:
    """How long an edge lasts at speeds [m/min] and feeds [mm/rev]; `slower` is the share of the turning speed that this cut takes."""
    factor = slower * tool.speed_factor
    # the book's speed is meant for the middle of the width's feed window
    usual = (tool.feed_low + tool.feed_high) / 2.0
    minutes = record(
        life.taylor_life,
        reference_speed=tool.reference_speed,
        speed_factor=factor * tool.coolant_gain**tool.taylor_exponent,
        cutting_speed=cutting_speed,
        taylor_exponent=tool.taylor_exponent,
        reference_feed=tool.reference_feed,
        chip_thickness=tool.reference_feed * feed / usual,
        feed_exponent=tool.feed_exponent,
        reference_depth=tool.reference_depth,
        depth_of_cut=tool.reference_depth,
        depth_exponent=tool.depth_exponent,
        light_gain=life.LIGHT_GAIN,
        note=f"a slot at {slower:.2g} of the turning speed; the feed counts against the middle of its width's window",
    )
    shape = record(spread.weibull_shape, coefficient_of_variation=tool.coefficient_of_variation)
    return Lasting(np.asarray(minutes), np.asarray(shape), tool.reference_speed * factor)


def paid(
    setup: SlotSetup, tool: SlotTool, lasts: Lasting, engaged: Array, idle: float, record: Silent, edges: float = 1.0, slot: Any = None
) -> dict[str, Array]:
    """The fields of `Spent`: `engaged` in cut, `idle` for rapid moves and indexing [s]; so many edges are changed together.

    `slot` is its width [mm] where it is wider than the edge.
    """
    price = edges * insert_edge_cost(tool.price, tool.edges, tool.blade_price)
    used = np.maximum(engaged, 1e-6) / 60.0 / lasts.tool_life
    washed = np.where(tool.pressure >= JET, JET_SHARE, 1.0)
    jams = JAM * setup.depth / (10.0 * (tool.width if slot is None else slot)) * washed * setup.work.material.ductility
    stops = np.minimum(jams, MOST_JAMS)
    if setup.batch.unattended_hours > 0:  # chips of a metal that only bends gather where nobody takes them away
        stops = np.maximum(stops, stop_chance(softest_index(setup.work.material.ductility, tool.pressure)))
    return spend(setup, engaged, idle, used, lasts.weibull_shape, price, stops, record)


def leaning(tool: SlotTool, worn_side: Array, worn_cutting: Array, record: Silent) -> tuple[Array, Array]:
    """How far the tip goes sideways and down [mm] under the worn edge's forces [N]."""
    modulus = blade.STEEL_BLADE * tool.stiffness / record.of("give", 1.0)
    sideways = blade.side_bend(worn_side, tool.overhang, tool.second_across, modulus)
    return sideways, blade.side_bend(worn_cutting, tool.overhang, tool.second_upright, modulus)


def hardest(power: Array, available: Array) -> tuple[Array, Array]:
    """Power and what the spindle has [kW] at the stroke that asks for the largest share of it."""
    power, available = np.broadcast_arrays(power, available)
    hardest = np.argmax(power / np.maximum(available, 1e-9), axis=-1)[..., None]
    return np.take_along_axis(power, hardest, axis=-1), np.take_along_axis(available, hardest, axis=-1)
