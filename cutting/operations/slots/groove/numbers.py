"""The numbers of a groove: every stroke with its speed, seconds and forces; bending, springing, chatter, life and money."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.mechanics import blade, chatter, deflection, force
from cutting.mechanics.kinematics import facing_time
from cutting.operations.slots.groove.moves import Move, moves_of
from cutting.operations.slots.groove.setup import GrooveSetup, Way
from cutting.operations.slots.shared.edge import Judged, Lasting, Paid, feeds_of, idle_seconds, lasting, paid, reaching_pressure
from cutting.operations.slots.shared.face import corner_roughness
from cutting.operations.slots.shared.written import held_torque, written_plunge
from cutting.operations.turned.part import beam_between
from cutting.working import Silent

SIDE_FORM = 1.0  # Kform of a cut sideways: one wall of the slot is gone
INSIDE_FORM = 1.2  # and inside (Tschätsch)
STROKE_IDLE = 0.15  # s between two strokes, beside the rapid way (common practice)
SECOND_TOOL = 1.0  # a full radius leaves its corners to a second tool: one more index


@dataclass(frozen=True)
class Stroke:
    """A move with what it takes: seconds, 1/min, mm/rev, N."""

    move: Move
    seconds: float
    spindle_speed: float
    feed: float
    thickness: float
    cutting_force: float
    push: float  # against the feed in a plunge, towards the axis otherwise
    side_force: float


@dataclass(frozen=True)
class Numbers(Judged):
    """What limits and results read; forces N, lengths mm."""

    setup: GrooveSetup
    strokes: tuple[Stroke, ...]
    feeds: tuple[float, float]
    side_force: float
    sideways: float
    down: float
    size_error: float
    stable_width: float
    power: float
    available: float
    torque: float
    grip: float
    roughness: float
    pressure: float
    lasting: Lasting
    paid: Paid

    @property
    def cutting_force(self) -> float:
        return max(stroke.cutting_force for stroke in self.strokes)

    @property
    def engaged(self) -> float:
        return sum(stroke.seconds for stroke in self.strokes)

    @property
    def widest_plunge(self) -> float:
        return max((s.move.engaged for s in self.strokes if not s.move.sideways and s.move.kind in ("plunge", "ridge")), default=0.0)


def numbers(setup: GrooveSetup, record: Silent) -> Numbers:
    """Everything computed for a set-up. Raises `CuttingError`."""
    setup.check()
    work, machine, s, f = setup.work, setup.machine, setup.settings, setup.feature
    strokes = tuple(_stroke(setup, move) for move in moves_of(setup))
    written_plunge(setup, setup.feed, f.diameter, "a full plunge", record)
    worn = setup.house.wear_factor
    inertia = _second_moments(setup)
    modulus = blade.STEEL_BLADE * setup.blade.stiffness_share
    side = max(stroke.side_force for stroke in strokes)
    plunges = [stroke for stroke in strokes if not stroke.move.sideways]
    push = max((stroke.push for stroke in plunges), default=0.0)
    place = f.distance_from_chuck + f.width.target / 2.0
    beam = beam_between(setup.holding, machine, work, place, place, f.diameter)
    floor = f.diameter if setup.inside else f.floor.target
    give = float(beam.spring(f.diameter, max(floor, 0.5)).ravel()[0])
    last = [stroke for stroke in strokes if stroke.move.kind == "floor"] or plunges or list(strokes)
    error = float(
        record(deflection.size_error, deflection=record(deflection.part_deflection, passive_force=last[-1].push, compliance=give))
    )
    kc = _specific(setup, setup.feed, blade.GROOVE_FORM)
    share = push / max(max(stroke.cutting_force for stroke in strokes), 1e-9)
    slope = record(chatter.force_slope, specific_force=kc, force_exponent=work.material.force_exponent)
    stable = float(record(chatter.stable_width, stiffness=1.0 / give, damping_ratio=chatter.DAMPING, force_slope=slope, mode_share=share))
    speeds = np.array([stroke.spindle_speed for stroke in strokes])
    powers = np.array([worn * stroke.cutting_force * _speed(setup, stroke) / 60_000.0 for stroke in strokes])
    has = machine.spindle_power(speeds)
    hardest = int(np.argmax(powers / np.maximum(has, 1e-9)))
    engaged = sum(stroke.seconds for stroke in strokes)
    mean_feed = sum(stroke.thickness * stroke.seconds for stroke in strokes) / engaged
    holds = held_torque(machine, setup.house, float(speeds.max()), setup.holding.grip_diameter, record, setup.holding.grip_share)
    lasts = lasting(
        work, machine, setup.insert, setup.blade, setup.house, setup.goal, setup.batch, s.cutting_speed, mean_feed, engaged,
        setup.depth, s.coolant, record, skin=setup.skin, interrupted=setup.holding.interrupted,
    )  # fmt: skip
    return Numbers(
        setup,
        strokes,
        feeds_of(setup.insert, work),
        side,
        float(blade.side_bend(worn * side, setup.overhang, inertia[1], modulus)),
        float(blade.side_bend(worn * max(stroke.cutting_force for stroke in strokes), setup.overhang, inertia[0], modulus)),
        error,
        stable,
        float(powers[hardest]),
        float(has[hardest]),
        worn * max(stroke.cutting_force for stroke in strokes) * max(f.diameter, f.floor.target) / 2000.0,
        holds,
        _roughness(setup),
        reaching_pressure(machine, s.coolant, setup.blade),
        lasts,
        paid(machine, setup.insert, setup.blade, engaged, _idle(setup, strokes), lasts.change_parts),
    )


def diameter_at(setup: GrooveSetup, depth: float) -> float:
    """Diameter [mm] at a depth [mm] below the surface."""
    return setup.feature.diameter + (2.0 if setup.inside else -2.0) * depth


def _spindle(setup: GrooveSetup, diameter: float) -> float:
    return float(min(1000.0 * setup.settings.cutting_speed / (np.pi * diameter), setup.top_speed))


def _speed(setup: GrooveSetup, stroke: Stroke) -> float:
    """Cutting speed [m/min] at the larger end of a stroke."""
    ends = (diameter_at(setup, stroke.move.depth), diameter_at(setup, stroke.move.to_depth))
    return float(np.pi * max(ends) * stroke.spindle_speed / 1000.0)


def _specific(setup: GrooveSetup, thickness: float, form: float) -> float:
    shape = form * (INSIDE_FORM / 1.0 if setup.inside and form == SIDE_FORM else 1.0)
    return float(
        force.specific_cutting_force(setup.work.specific_force_1, thickness, setup.work.material.force_exponent, form_factor=shape)
    )


def _stroke(setup: GrooveSetup, move: Move) -> Stroke:
    if move.sideways:
        return _sideways(setup, move)
    feed = setup.feed if move.kind in ("plunge", "ridge") else 0.5 * (setup.feed + setup.side_feed)
    if move.kind in ("wall", "floor"):  # a thin cut along the wall, with the corner
        fc = _specific(setup, feed, SIDE_FORM) * feed * move.engaged
        push = float(blade.plunge_force(fc, feed))
        side = push if move.kind == "floor" else 0.0
        n = _spindle(setup, max(diameter_at(setup, move.to_depth), diameter_at(setup, move.depth)))
        return Stroke(move, 60.0 * move.length / (feed * n), n, feed, feed, fc, push, side)
    start, end = diameter_at(setup, move.depth), diameter_at(setup, move.to_depth)
    large, small = max(start, end), max(min(start, end), 1e-3)
    n = _spindle(setup, large)
    seconds = float(facing_time(large, small, setup.settings.cutting_speed, feed, setup.top_speed))
    dwell = 60.0 * setup.settings.dwell / _spindle(setup, end) if move.dwell else 0.0
    fc = _specific(setup, feed, blade.GROOVE_FORM) * feed * move.engaged
    push = float(blade.plunge_force(fc, feed))
    slant = float(blade.side_force(push, setup.insert.lead_angle))
    # a plunge beside an open wall is held on one side only (common practice: a third of its push goes to the open side)
    open_side = push / 3.0 if move.kind == "plunge" and move.engaged < 0.95 * setup.insert.width else 0.0
    return Stroke(move, seconds + dwell, n, feed, feed, fc, push, slant + open_side)


def _sideways(setup: GrooveSetup, move: Move) -> Stroke:
    """A cut along the axis: a straight edge's flank, or a full radius, whose chip is thin and whose feed is raised for it."""
    n = _spindle(setup, max(diameter_at(setup, move.depth), diameter_at(setup, move.to_depth)))
    feed, angle = setup.side_feed, np.pi / 2.0
    thickness = feed
    if setup.settings.way is Way.ROUND:
        radius = setup.insert.width / 2.0
        reach = float(np.arccos(np.clip(1.0 - move.engaged / radius, -1.0, 1.0)))
        thin = min(move.engaged / (radius * reach), 1.0)
        feed = min(setup.side_feed / thin, 2.5 * setup.side_feed)
        thickness, angle = feed * thin, reach / 2.0
    area = feed * move.engaged
    fc = _specific(setup, thickness, SIDE_FORM) * area
    push = float(blade.plunge_force(fc, thickness))
    seconds = 60.0 * move.length / (feed * n)
    return Stroke(move, seconds, n, feed, thickness, fc, push * float(np.cos(angle)), push * float(np.sin(angle)))


def _second_moments(setup: GrooveSetup) -> tuple[float, float]:
    """Second moments [mm⁴] in height and sideways: a blade's section, or an inside bar's round one."""
    if setup.blade.bar_diameter > 0:
        round_bar = float(deflection.round_second_moment(setup.blade.bar_diameter))
        return round_bar, round_bar
    upright, across = blade.blade_second_moments(setup.blade.thickness, setup.blade.height)
    return float(upright), float(across)


def _roughness(setup: GrooveSetup) -> float:
    """Ra [µm] of walls and floor: feed marks of the corner where they are finished, else what a plunge with dwell leaves."""
    if not setup.finished:
        return 1.6 if setup.settings.dwell >= 1 else 3.2  # common practice
    feed = 0.5 * (setup.feed + setup.side_feed)
    return corner_roughness(feed, setup.insert.corner_radius, setup.settings.cutting_speed, setup.work)


def _idle(setup: GrooveSetup, strokes: tuple[Stroke, ...]) -> float:
    lifts = sum(1 for stroke in strokes if stroke.move.kind in ("plunge", "ridge", "wall"))
    found = idle_seconds(setup.machine, setup.depth + 4.0, lifts) + STROKE_IDLE * len(strokes) + 60.0 * 60.0 / setup.machine.rapid_rate
    left_over = setup.settings.way is Way.ROUND and _corners_left(setup)
    return found + (SECOND_TOOL * setup.machine.index_time + 4.0 if left_over else 0.0)


def _corners_left(setup: GrooveSetup) -> bool:
    radius = setup.feature.corner_radius
    return radius is not None and setup.insert.corner_radius > radius + 1e-9


def corners_left(setup: GrooveSetup) -> bool:
    """Whether a full radius leaves corners that a second tool must clear."""
    return setup.settings.way is Way.ROUND and _corners_left(setup)
