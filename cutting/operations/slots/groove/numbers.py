"""The numbers of a groove, over one tool or many of one width: strokes with their forces, bending, springing, chatter, life."""

from __future__ import annotations

from collections import Counter
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np

from cutting.machine.drive import Spun
from cutting.mechanics import blade, chatter, deflection, force
from cutting.mechanics.kinematics import facing_time
from cutting.motion.clock import clock
from cutting.operations.frame.jaws import held_torque
from cutting.operations.frame.over_passes import over_passes
from cutting.operations.frame.stability import stable_on_part
from cutting.operations.slots.groove.moves import PLUNGE, SIDEWAYS, THIN, GrooveMove, diameter_at, moves_of
from cutting.operations.slots.groove.path import strokes_path
from cutting.operations.slots.groove.setup import NOSE_SHARE, SIDE_FEED, GrooveSetup, GrooveWay
from cutting.operations.slots.shared.cut import RAISED, SECOND_CUT, SECOND_TOOL, SlotCut, hardest, lasting, leaning, paid, rolled_chip
from cutting.operations.slots.shared.face import corner_roughness
from cutting.operations.slots.shared.slot_chip import slot_index
from cutting.operations.slots.shared.tool import Array, Mask, SlotTool
from cutting.operations.slots.shared.written import write_layer, write_plunge
from cutting.operations.turned.part import beam_between
from cutting.working import Recorder, Silent

SIDE_FORM = 1.0  # Kform of a cut sideways: one wall of the slot is gone
INSIDE_FORM = 1.2  # and inside (Tschätsch)
OPEN_SIDE = 1.0 / 3.0  # of a plunge's push that goes to an open wall beside it (common practice)
OPEN_BELOW = 0.95  # of the insert's width from which a plunge has both walls
ROUGH_FLOOR = (1.6, 3.2)  # Ra [µm] that a plunge leaves with a dwell of a turn, and without (common practice)


@dataclass(frozen=True)
class GrooveStroke:
    """One move of one tool with what it takes: seconds, 1/min, mm/rev, N."""

    move: GrooveMove
    seconds: float
    spindle_speed: float
    feed: float
    thickness: float
    cutting_force: float
    push: float
    side_force: float


@dataclass(frozen=True)
class Strokes:
    """The strokes of a groove, alike ones once: arrays (..., strokes); seconds, 1/min, m/min, mm/rev, mm, N."""

    order: tuple[GrooveMove, ...]  # as they are taken
    place: tuple[int, ...]  # of each in the arrays
    count: Array
    sideways: Mask
    seconds: Array
    spindle_speed: Array
    speed: Array  # at the larger end
    feed: Array
    thickness: Array
    cutting_force: Array
    push: Array  # against the feed in a plunge, towards the axis otherwise
    side_force: Array

    def taken(self) -> tuple[GrooveStroke, ...]:
        """The strokes of one tool in their order."""
        columns = (self.seconds, self.spindle_speed, self.feed, self.thickness, self.cutting_force, self.push, self.side_force)
        rows = np.stack([np.broadcast_to(np.ravel(one), len(self.count)) for one in columns], axis=-1)
        return tuple(GrooveStroke(move, *map(float, rows[k])) for move, k in zip(self.order, self.place, strict=True))


@dataclass(frozen=True)
class Numbers(SlotCut):
    """What limits and results read; forces N, lengths mm."""

    strokes: Strokes
    size_error: Array
    stable_width: Array
    roughness: Array
    push: Array  # of the hardest plunge
    widest_plunge: float

    @property
    def driven_at(self) -> Array:
        return self.strokes.spindle_speed

    @property
    def strokes_taken(self) -> int:
        return len(self.strokes.order)


def numbers(setup: GrooveSetup, tool: SlotTool, speed: Any, feed: Any, record: Silent) -> Numbers:
    """Everything computed for tools as wide as the set-up's own, at speeds [m/min] and feeds [mm/rev]; arrays (..., 1)."""
    work, machine, f = setup.work, setup.machine, setup.feature
    real = machine.drive().fed(feed)
    strokes = _strokes(setup, tool, speed, real, record)
    write_plunge(setup, tool, real, f.diameter, "a full plunge", record)
    _write_layers(setup, strokes, record)
    worn = setup.house.wear_factor
    side, cutting = over_passes(strokes.side_force), over_passes(strokes.cutting_force)
    push = over_passes(np.where(strokes.sideways, 0.0, strokes.push))
    place = f.distance_from_chuck + f.width.target / 2.0
    beam = beam_between(setup.holding, machine, work, place, place, f.diameter)
    floor = f.diameter if setup.inside else f.floor.target
    give = record.of("give", float(beam.spring(f.diameter, max(floor, 0.5)).ravel()[0]))
    spring = record(deflection.part_deflection, passive_force=_last_push(strokes), compliance=give)
    error = record(deflection.size_error, deflection=spring)
    power, available = hardest(
        worn * strokes.cutting_force * strokes.speed / 60_000.0, record.of("power", machine.spindle_power(strokes.spindle_speed))
    )
    seconds = strokes.seconds * strokes.count
    engaged = over_passes(seconds, np.add)
    mean_feed = over_passes(strokes.thickness * seconds, np.add) / engaged
    fastest = over_passes(strokes.spindle_speed)
    reached = over_passes(strokes.speed)
    # a plunge pushes straight at the part
    share = push / np.maximum(cutting, 1e-9)
    kc = _specific(setup, real, blade.GROOVE_FORM, record)
    slope = record(chatter.force_slope, specific_force=kc, force_exponent=work.material.force_exponent)
    stable = stable_on_part(give, beam.frequency(max(floor, 0.5)), slope, share, share, reached, fastest, record)
    lasts = lasting(tool, reached, mean_feed, record)
    sideways, down = leaning(tool, worn * side, worn * cutting, record)
    if setup.settings.y_axis:
        down = down / blade.y_axis_gain(cutting, push, tool.overhang, tool.thickness, tool.height, 1e3 * machine.post_stiffness)
    feeds = (tool.feed_low, tool.feed_high)
    slot = tool.width if setup.settings.way in (GrooveWay.ONE, GrooveWay.SIDE_BY_SIDE) else np.maximum(f.width.target, tool.width)
    plunges = [move.engaged for move in strokes.order if move.kind in ("plunge", "ridge")]
    return Numbers(
        **paid(setup, tool, lasts, engaged, _idle(setup), record), **vars(lasts),
        setup=setup, tool=tool, pressure=tool.pressure,
        cutting_speed=reached, feed_set=real, feed=real, feeds=feeds,
        chip_index=slot_index(real, feeds, setup.depth, slot, tool.pressure, work.material.ductility),
        cutting_force=cutting, side_force=side, sideways=sideways, down=down, power=power, available=available,
        torque=worn * cutting * max(f.diameter, f.floor.target) / 2000.0,
        grip=held_torque(setup, fastest, setup.gripped, record), gripped_speed=fastest,
        strokes=strokes, size_error=np.asarray(error), stable_width=stable,
        roughness=record.of("finish", _roughness(setup, tool, reached, real)),
        push=push, widest_plunge=max(plunges, default=0.0),
    )  # fmt: skip


def _write_layers(setup: GrooveSetup, strokes: Strokes, record: Silent) -> None:
    """Of cuts sideways each depth once."""
    if not isinstance(record, Recorder):
        return
    form = INSIDE_FORM if setup.inside else SIDE_FORM
    deep = {round(one.move.engaged, 3): one for one in strokes.taken() if one.move.sideways}
    for depth, one in deep.items():
        write_layer(setup, one.thickness, one.feed * depth, form, f"a layer of {depth:g} mm, sideways", record)


def side_feed(setup: GrooveSetup, corner_radius: Any, feed: Any) -> Array:
    """Feed sideways [mm/rev]: as set, or half as much again as the plunge, within what the corner [mm] stands."""
    if setup.settings.side_feed:
        return setup.machine.drive().fed(setup.settings.side_feed)
    usual = np.minimum(SIDE_FEED * np.asarray(feed), np.maximum(NOSE_SHARE * np.asarray(corner_radius), feed))
    return setup.machine.drive().fed(usual)


def _last_push(strokes: Strokes) -> Array:
    """Push [N] of the stroke that leaves the size: the last along the floor, or the last plunge."""
    places = list(zip(strokes.order, strokes.place, strict=True))
    last = [place for move, place in places if move.kind == "floor"] or [place for move, place in places if not move.sideways]
    place = last[-1] if last else strokes.place[-1]
    return strokes.push[..., place : place + 1]


def _specific(setup: GrooveSetup, thickness: Any, form: float, record: Silent) -> Array:
    shape = INSIDE_FORM * form if setup.inside and form == SIDE_FORM else form
    kc = force.specific_cutting_force(setup.work.specific_force_1, thickness, setup.work.material.force_exponent, form_factor=shape)
    return np.asarray(record.of("force", kc))


def _alike(moves: tuple[GrooveMove, ...]) -> tuple[list[GrooveMove], tuple[int, ...], Array]:
    """Moves that cut alike once, plunges before cuts sideways before walls and floors; the place of each, and how often it is taken."""
    keys = [(m.rank, m.kind, m.depth, m.to_depth, round(m.length, 9), round(m.engaged, 9), m.dwell) for m in moves]
    known = {key: k for k, key in enumerate(sorted(dict.fromkeys(keys)))}
    counts = Counter(keys)
    return [moves[keys.index(key)] for key in known], tuple(known[key] for key in keys), np.array([counts[key] for key in known], float)


@dataclass(frozen=True)
class _Cuts:
    """What cuts of one sort take: arrays (..., strokes)."""

    seconds: Array
    feed: Array
    thickness: Array
    cutting_force: Array
    push: Array
    side_force: Array


def _strokes(setup: GrooveSetup, tool: SlotTool, speed: Any, real: Array, record: Silent) -> Strokes:
    order = moves_of(setup)
    moves, place, count = _alike(order)
    start = np.array([diameter_at(setup, move.depth) for move in moves])
    end = np.array([diameter_at(setup, move.to_depth) for move in moves])
    large = np.maximum(start, end)
    spun = setup.machine.drive(setup.settings.spindle_clamp).over(speed, setup.largest)
    n = spun.at(speed, large)
    across = side_feed(setup, tool.corner_radius, real)
    ranks = np.array([move.rank for move in moves])
    parts = []
    for rank, cuts in ((PLUNGE, _plunges), (SIDEWAYS, _sideways), (THIN, _thin)):
        own = np.flatnonzero(ranks == rank)
        if len(own):
            some = [moves[k] for k in own]
            parts.append(
                (len(own), cuts(setup, tool, some, speed, n[..., own], spun, across if rank == SIDEWAYS else real, across, record))
            )
    shape = np.broadcast_shapes(*(np.shape(one)[:-1] for _, part in parts for one in vars(part).values()), n.shape[:-1])

    def joined(name: str) -> Array:
        each = [(many, np.asarray(getattr(part, name))) for many, part in parts]
        if len(each) == 1 and each[0][1].shape[-1:] == (len(moves),):
            return each[0][1]
        return np.concatenate([np.broadcast_to(one, (*shape, many)) for many, one in each], axis=-1)

    return Strokes(
        order, place, count, ranks == SIDEWAYS, joined("seconds"), n, np.pi * large * n / 1000.0, joined("feed"),
        joined("thickness"), joined("cutting_force"), joined("push"), joined("side_force"),
    )  # fmt: skip


def _engaged(moves: list[GrooveMove]) -> Array:
    return np.array([move.engaged for move in moves])


def _plunges(
    setup: GrooveSetup,
    tool: SlotTool,
    moves: list[GrooveMove],
    speed: Any,
    n: Array,
    spun: Spun,
    feed: Array,
    across: Array,
    record: Silent,
) -> _Cuts:
    """Straight down, with both walls or beside an open one."""
    engaged = _engaged(moves)
    ends = np.array([diameter_at(setup, move.to_depth) for move in moves])
    starts = np.array([diameter_at(setup, move.depth) for move in moves])
    cutting = _specific(setup, feed, blade.GROOVE_FORM, record) * feed * engaged
    against = record.of("push", blade.plunge_force(cutting, feed))
    # a plunge beside an open wall is held on one side only
    beside = np.array([move.kind == "plunge" for move in moves]) & (engaged < OPEN_BELOW * tool.width)
    aside = blade.side_force(against, tool.lead_angle) + np.where(beside, OPEN_SIDE * against, 0.0)
    seconds = facing_time(np.maximum(starts, ends), np.maximum(np.minimum(starts, ends), 1e-3), speed, feed, spun.top, spun.low)
    turns = np.array([setup.settings.dwell if move.dwell else 0.0 for move in moves])
    if turns.any():
        at_floor = spun.at(speed, np.maximum(ends, 1e-3))
        seconds = seconds + 60.0 * turns / at_floor
    return _Cuts(seconds, feed, feed, cutting, against, aside)


def _sideways(
    setup: GrooveSetup,
    tool: SlotTool,
    moves: list[GrooveMove],
    speed: Any,
    n: Array,
    spun: Spun,
    feed: Array,
    across: Array,
    record: Silent,
) -> _Cuts:
    """Along the axis: a straight edge's flank, or a full radius, whose chip is thin and whose feed is raised for it."""
    engaged = _engaged(moves)
    thin, angle = np.ones(1), np.full(1, np.pi / 2.0)
    if setup.settings.way is GrooveWay.ROUND:
        thin, angle = rolled_chip(setup.insert.width, engaged)
        feed = np.minimum(feed / thin, RAISED * feed)
    cutting = _specific(setup, feed * thin, SIDE_FORM, record) * feed * engaged
    against = record.of("push", blade.plunge_force(cutting, feed * thin))
    seconds = 60.0 * np.array([move.length for move in moves]) / (feed * n)
    return _Cuts(seconds, feed, feed * thin, cutting, against * np.cos(angle), against * np.sin(angle))


def _thin(
    setup: GrooveSetup,
    tool: SlotTool,
    moves: list[GrooveMove],
    speed: Any,
    n: Array,
    spun: Spun,
    feed: Array,
    across: Array,
    record: Silent,
) -> _Cuts:
    """The finishing cut along walls and floor, with the corner."""
    feed = 0.5 * (feed + across)
    cutting = _specific(setup, feed, SIDE_FORM, record) * feed * _engaged(moves)
    against = record.of("push", blade.plunge_force(cutting, feed))
    seconds = 60.0 * np.array([move.length for move in moves]) / (feed * n)
    return _Cuts(seconds, feed, feed, cutting, against, np.where([move.kind == "floor" for move in moves], against, 0.0))


def _roughness(setup: GrooveSetup, tool: SlotTool, speed: Any, real: Array) -> Array:
    """Ra [µm] of walls and floor: feed marks of the corner where they are finished, else what a plunge with dwell leaves."""
    if not setup.finished:
        return np.array([ROUGH_FLOOR[0] if setup.settings.dwell >= 1 else ROUGH_FLOOR[1]])
    return corner_roughness(0.5 * (real + side_feed(setup, tool.corner_radius, real)), tool.corner_radius, speed, setup.work)


@lru_cache(maxsize=256)
def _idle(setup: GrooveSetup) -> float:
    """Seconds that do not cut: of the lifts between the strokes, and around them."""
    found = clock(strokes_path(setup), setup.machine).idle
    return found + (SECOND_TOOL * setup.machine.index_time + SECOND_CUT if setup.corners_left else 0.0)
