"""The numbers of a groove in a face, over one tool or many of one width: plunges in order, how the blade stands, forces, life."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np

from cutting.mechanics import blade, force
from cutting.motion.clock import clock
from cutting.operations.frame.jaws import held_torque
from cutting.operations.frame.over_passes import over_passes
from cutting.operations.slots.face_groove.blade_fit import BladeStanding, standing
from cutting.operations.slots.face_groove.moves import FaceGrooveMove, moves_of
from cutting.operations.slots.face_groove.path import strokes_path
from cutting.operations.slots.face_groove.setup import FaceGrooveSetup, FaceGrooveWay
from cutting.operations.slots.shared.cut import (
    RAISED,
    SECOND_CUT,
    SECOND_TOOL,
    SLOWER,
    SlotCut,
    hardest,
    lasting,
    leaning,
    paid,
    rolled_chip,
)
from cutting.operations.slots.shared.slot_chip import slot_index
from cutting.operations.slots.shared.tool import Array, SlotTool
from cutting.operations.slots.shared.written import write_layer, write_plunge
from cutting.working import Recorder, Silent

FACE_SHARE = 0.7  # of grooving's feed and of its speed's middle that a face groove takes (common practice)
SLOWER_STILL = SLOWER * (1.0 + FACE_SHARE) / 2.0  # of the turning speed
SIDE_FORM = 1.0
OPEN_SIDE, OPEN_BELOW = 1.0 / 3.0, 0.95


@dataclass(frozen=True)
class FaceGrooveStroke(FaceGrooveMove):
    """A move of one tool with what it takes; N, s, 1/min."""

    seconds: float = 0.0
    spindle_speed: float = 0.0
    feed: float = 0.0
    cutting_force: float = 0.0
    push: float = 0.0
    side_force: float = 0.0


@dataclass(frozen=True)
class Numbers(SlotCut):
    """What limits and results read; forces N, lengths mm; arrays over strokes behind."""

    moves: tuple[FaceGrooveMove, ...]
    stroke_seconds: Array
    stroke_speed: Array
    stroke_feed: Array
    stroke_force: Array
    stroke_push: Array
    stroke_side: Array
    hub_clearance: Array
    jaw_clearance: Array

    @property
    def driven_at(self) -> Array:
        return self.stroke_speed

    @property
    def strokes_taken(self) -> int:
        return len(self.moves)

    @property
    def first_diameter(self) -> float:
        """Outer diameter of the first plunge, into solid metal [mm]."""
        return self.moves[0].outer

    @property
    def standing(self) -> BladeStanding:
        """How the set-up's own blade stands in the first plunge."""
        return _standing(self.setup.blade, self.setup.insert.width, self.first_diameter)

    @property
    def strokes(self) -> tuple[FaceGrooveStroke, ...]:
        """The strokes of one tool in their order."""
        columns = (self.stroke_seconds, self.stroke_speed, self.stroke_feed, self.stroke_force, self.stroke_push, self.stroke_side)
        rows = np.stack([np.broadcast_to(np.ravel(one), len(self.moves)) for one in columns], axis=-1)
        return tuple(
            FaceGrooveStroke(move.kind, move.outer, move.depth, move.to_outer, move.to_depth, move.engaged, move.dwell, *row)
            for move, row in zip(self.moves, rows.tolist(), strict=True)
        )


_standing = lru_cache(maxsize=256)(standing)


@lru_cache(maxsize=256)
def _idle(setup: FaceGrooveSetup, moves: tuple[FaceGrooveMove, ...]) -> float:
    """Seconds that do not cut: of the lifts between the strokes, and around them."""
    found = clock(strokes_path(setup, moves), setup.machine).idle
    return found + (SECOND_TOOL * setup.machine.index_time + SECOND_CUT if setup.corners_left else 0.0)


def numbers(setup: FaceGrooveSetup, tool: SlotTool, speed: Any, feed: Any, record: Silent) -> Numbers:
    """Everything computed for tools as wide as the set-up's own, at speeds [m/min] and feeds [mm/rev]; arrays (..., 1)."""
    work, machine = setup.work, setup.machine
    diameter = setup.feature.outer_diameter.target
    moves = tuple(moves_of(setup))
    drive = machine.drive(setup.settings.spindle_clamp)
    real = drive.fed(feed)
    outer = np.array([max(move.outer, move.to_outer) for move in moves])
    engaged = np.array([move.engaged for move in moves])
    plunging = np.array([move.kind in ("plunge", "ridge") for move in moves])
    along = np.array([move.along for move in moves])
    way = np.array([np.hypot((move.outer - move.to_outer) / 2.0, move.to_depth - move.depth) for move in moves])
    n = drive.over(speed, diameter).at(speed, outer)
    form = np.where(plunging, blade.GROOVE_FORM, SIDE_FORM)
    thin, angle = np.ones(len(moves)), np.where(along, np.pi / 2.0, 0.0)
    if setup.settings.way is FaceGrooveWay.ROUND and setup.widened:
        rolls = np.array([move.kind in ("arc", "turn") for move in moves])
        thinner, turned = rolled_chip(setup.insert.width, engaged)
        thin, angle = np.where(rolls, thinner, thin), np.where(rolls, turned, angle)
    fed = np.minimum(real / thin, RAISED * real)
    kc = record.of("force", force.specific_cutting_force(work.specific_force_1, fed * thin, work.material.force_exponent, form_factor=form))
    cutting = kc * fed * engaged
    against = np.asarray(record.of("push", blade.plunge_force(cutting, fed * thin)))
    first = np.array([move.kind == "plunge" for move in moves])
    aside = np.where(along, against * np.sin(angle), np.where(first & (engaged < OPEN_BELOW * tool.width), OPEN_SIDE * against, 0.0))
    seconds = 60.0 * way / (fed * n) + 60.0 * np.array([move.dwell for move in moves]) / n
    write_plunge(setup, tool, real, diameter, "the first plunge", record)
    _write_layers(setup, moves, real, record)
    worn = setup.house.wear_factor
    side, largest = over_passes(aside), over_passes(cutting)
    power, available = hardest(worn * cutting * np.pi * outer * n / 6e7, record.of("power", machine.spindle_power(n)))
    total = over_passes(seconds, np.add)
    fastest = over_passes(n)
    reached = over_passes(np.pi * outer * n / 1000.0)
    lasts = lasting(tool, reached, over_passes(fed * thin * seconds, np.add) / total / FACE_SHARE, record, SLOWER_STILL)
    sideways, down = leaning(tool, worn * side, worn * largest, record)
    feeds = (FACE_SHARE * tool.feed_low, FACE_SHARE * tool.feed_high)
    idle = _idle(setup, moves)
    slot = tool.width if setup.settings.way is FaceGrooveWay.INWARDS else np.maximum(setup.feature.width.target, tool.width)
    return Numbers(
        **paid(setup, tool, lasts, total, idle, record), **vars(lasts),
        setup=setup, tool=tool, pressure=tool.pressure,
        cutting_speed=reached, feed_set=real, feed=real, feeds=feeds,
        chip_index=slot_index(real, feeds, setup.depth, slot, tool.pressure, work.material.ductility),
        cutting_force=largest, side_force=side, sideways=sideways, down=down, power=power, available=available,
        torque=worn * over_passes(cutting * outer) / 2000.0, grip=held_torque(setup, fastest, setup.gripped, record), gripped_speed=fastest,
        moves=moves, stroke_seconds=seconds, stroke_speed=n, stroke_feed=fed, stroke_force=cutting,
        stroke_push=against * np.where(along, np.cos(angle), 1.0),
        stroke_side=aside, hub_clearance=_hub_clearance(setup, tool), jaw_clearance=np.array([_jaw_clearance(setup)]),
    )  # fmt: skip


def _write_layers(setup: FaceGrooveSetup, moves: tuple[FaceGrooveMove, ...], feed: Array, record: Silent) -> None:
    """Of cuts across the face each depth once."""
    if not isinstance(record, Recorder):
        return
    thickness = float(np.ravel(feed)[-1])
    for depth in dict.fromkeys(round(move.engaged, 3) for move in moves if move.kind == "turn"):
        write_layer(setup, thickness, thickness * depth, SIDE_FORM, f"a layer of {depth:g} mm, across", record)


SHANK_OVER = 6.0  # mm by which a blade's shank stands over its edge towards the axis (common practice)


def _hub_clearance(setup: FaceGrooveSetup, tool: SlotTool) -> Array:
    """Room [mm] between a hub that stands out and the shank behind the blade's thin part; nan where the hub does not reach it."""
    f = setup.feature
    clear = (f.hub_diameter <= 0) | (f.hub_height <= tool.blade_reach - f.depth)
    return np.where(clear, np.nan, (f.inner_diameter - f.hub_diameter) / 2.0 - SHANK_OVER)


def _jaw_clearance(setup: FaceGrooveSetup) -> float:
    """Room [mm] between jaws that stand out in front of the face and the blade's outer side; nan where they stand back."""
    f = setup.feature
    if f.jaw_diameter <= 0 or f.jaw_height <= 0:
        return float("nan")
    return (f.jaw_diameter - f.outer_diameter.target) / 2.0
