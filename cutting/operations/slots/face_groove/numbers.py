"""The numbers of a groove in a face: plunges in order, how the blade stands, forces, life and money."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from cutting.mechanics import blade, force
from cutting.operations.slots.face_groove.blade_fit import Standing, standing
from cutting.operations.slots.face_groove.setup import FaceGrooveSetup, Way
from cutting.operations.slots.groove.moves import layers, ridge_plan
from cutting.operations.slots.groove.setup import ALLOWANCE, LAYER_SHARE
from cutting.operations.slots.shared.edge import SLOWER, Judged, Lasting, Paid, feeds_of, idle_seconds, lasting, paid, reaching_pressure
from cutting.operations.slots.shared.written import held_torque, written_plunge
from cutting.working import Silent

FACE_SHARE = 0.7  # of grooving's feed and of its speed's middle that a face groove takes (common practice)
STROKE_IDLE = 0.15
SIDE_FORM = 1.0


@dataclass(frozen=True)
class Stroke:
    """One stroke: `outer` diameter of the edge's outer corner at its start and end, depth into the face at both; mm, N, s, 1/min."""

    kind: str
    outer: float
    depth: float
    to_outer: float
    to_depth: float
    engaged: float
    seconds: float
    spindle_speed: float
    feed: float
    cutting_force: float
    push: float
    side_force: float

    @property
    def sideways(self) -> bool:
        return self.kind == "turn"


@dataclass(frozen=True)
class Numbers(Judged):
    """What limits and results read; forces N, lengths mm."""

    setup: FaceGrooveSetup
    strokes: tuple[Stroke, ...]
    standing: Standing
    feeds: tuple[float, float]
    side_force: float
    sideways: float
    down: float
    power: float
    available: float
    torque: float
    grip: float
    hub_clearance: float | None
    jaw_clearance: float | None
    pressure: float
    lasting: Lasting
    paid: Paid

    @property
    def first_diameter(self) -> float:
        """Outer diameter of the first plunge, into solid metal [mm]."""
        return self.strokes[0].outer

    @property
    def first_inner(self) -> float:
        return self.strokes[0].outer - 2.0 * self.setup.insert.width

    @property
    def engaged(self) -> float:
        return sum(stroke.seconds for stroke in self.strokes)

    @property
    def cutting_force(self) -> float:
        return max(stroke.cutting_force for stroke in self.strokes)


def numbers(setup: FaceGrooveSetup, record: Silent) -> Numbers:
    """Everything computed for a set-up. Raises `CuttingError`."""
    setup.check()
    work, machine, s = setup.work, setup.machine, setup.settings
    strokes = tuple(_strokes(setup))
    written_plunge(setup, setup.feed, setup.feature.outer_diameter.target, "the first plunge", record)
    worn = setup.house.wear_factor
    upright, across = blade.blade_second_moments(setup.blade.thickness, setup.blade.height)
    modulus = blade.STEEL_BLADE * setup.blade.stiffness_share
    largest = max(stroke.cutting_force for stroke in strokes)
    side = max(stroke.side_force for stroke in strokes)
    speeds = np.array([stroke.spindle_speed for stroke in strokes])
    powers = np.array([worn * x.cutting_force * np.pi * max(x.outer, x.to_outer) * x.spindle_speed / 6e7 for x in strokes])
    has = machine.spindle_power(speeds)
    hardest = int(np.argmax(powers / np.maximum(has, 1e-9)))
    engaged = sum(stroke.seconds for stroke in strokes)
    feed = sum(stroke.feed * stroke.seconds for stroke in strokes) / engaged
    holds = held_torque(machine, setup.house, float(speeds.max()), setup.holding.grip_diameter, record, setup.holding.grip_share)
    lasts = lasting(
        work, machine, setup.insert, setup.blade, setup.house, setup.goal, setup.batch, s.cutting_speed, feed / FACE_SHARE, engaged,
        setup.depth, s.coolant, record, slower=SLOWER * (1.0 + FACE_SHARE) / 2.0, skin=setup.skin,
        interrupted=setup.holding.interrupted,
    )  # fmt: skip
    low, high = feeds_of(setup.insert, work)
    idle = idle_seconds(machine, setup.depth + 4.0, len(strokes)) + STROKE_IDLE * len(strokes) + 60.0 * 60.0 / machine.rapid_rate
    return Numbers(
        setup,
        strokes,
        standing(setup.blade, setup.insert.width, strokes[0].outer),
        (FACE_SHARE * low, FACE_SHARE * high),
        side,
        float(blade.side_bend(worn * side, setup.overhang, across, modulus)),
        float(blade.side_bend(worn * largest, setup.overhang, upright, modulus)),
        float(powers[hardest]),
        float(has[hardest]),
        worn * max(stroke.cutting_force * max(stroke.outer, stroke.to_outer) for stroke in strokes) / 2000.0,
        holds,
        _hub_clearance(setup),
        _jaw_clearance(setup),
        reaching_pressure(machine, s.coolant, setup.blade),
        lasts,
        paid(machine, setup.insert, setup.blade, engaged, idle, lasts.change_parts),
    )


def _spindle(setup: FaceGrooveSetup, diameter: float) -> float:
    return float(min(1000.0 * setup.settings.cutting_speed / (np.pi * diameter), setup.top_speed))


def _strokes(setup: FaceGrooveSetup) -> Iterator[Stroke]:
    """The first plunge at the largest diameter, then inwards: plunges with ridges, or layers turned across; walls and floor last."""
    f, w = setup.feature, setup.insert.width
    widened = f.width.target > w + 0.02
    left = ALLOWANCE if setup.settings.finish and widened else 0.0
    outer, width, depth = f.outer_diameter.target - 2.0 * left, max(f.width.target - 2.0 * left, w), f.depth - left
    far = outer - 2.0 * (width - w)
    if not widened:
        yield _plunge(setup, "plunge", outer, 0.0, depth, w, setup.settings.dwell)
    elif setup.settings.way is Way.INWARDS:
        full, ridge = ridge_plan(width, w)
        step = 2.0 * (w + ridge)
        for k in range(full):
            yield _plunge(setup, "plunge", outer - k * step, 0.0, depth, w if ridge >= 0 or k == 0 else w + ridge)
        for k in range(full - 1):
            if ridge > 1e-6:
                yield _plunge(setup, "ridge", outer - k * step - (w + ridge), 0.0, depth, ridge)
    else:
        count = layers(depth, LAYER_SHARE * w)
        each, place = depth / count, outer
        for k in range(count):
            yield _plunge(setup, "plunge", place, k * each, (k + 1) * each, w)
            other = far if place == outer else outer
            yield _across(setup, place, other, (k + 1) * each, each, "turn")
            place = other
    if left:
        inner = f.outer_diameter.target - 2.0 * (f.width.target - w)
        middle = (f.outer_diameter.target + inner) / 2.0
        yield _plunge(setup, "wall", f.outer_diameter.target, 0.0, f.depth, left)
        yield _across(setup, f.outer_diameter.target, middle, f.depth, left, "floor")
        yield _plunge(setup, "wall", inner, 0.0, f.depth, left)
        yield _across(setup, inner, middle, f.depth, left, "floor")


def _plunge(setup: FaceGrooveSetup, kind: str, outer: float, start: float, end: float, engaged: float, dwell: float = 0.0) -> Stroke:
    n, feed = _spindle(setup, outer), setup.feed
    form = blade.GROOVE_FORM if kind != "wall" else SIDE_FORM
    fc = _specific(setup, form) * feed * engaged
    push = float(blade.plunge_force(fc, feed))
    side = push / 3.0 if kind == "plunge" and engaged < 0.95 * setup.insert.width else 0.0
    seconds = 60.0 * (end - start) / (feed * n) + 60.0 * dwell / n
    return Stroke(kind, outer, start, outer, end, engaged, seconds, n, feed, fc, push, side)


def _across(setup: FaceGrooveSetup, outer: float, to: float, depth: float, engaged: float, kind: str) -> Stroke:
    n, feed = _spindle(setup, max(outer, to)), setup.feed
    fc = _specific(setup, SIDE_FORM) * feed * engaged
    push = float(blade.plunge_force(fc, feed))
    return Stroke(kind, outer, depth, to, depth, engaged, 60.0 * abs(outer - to) / 2.0 / (feed * n), n, feed, fc, 0.0, push)


def _specific(setup: FaceGrooveSetup, form: float) -> float:
    return float(
        force.specific_cutting_force(setup.work.specific_force_1, setup.feed, setup.work.material.force_exponent, form_factor=form)
    )


SHANK_OVER = 6.0  # mm by which a blade's shank stands over its edge towards the axis (common practice)


def _hub_clearance(setup: FaceGrooveSetup) -> float | None:
    """Room [mm] between a hub that stands out and the shank behind the blade's thin part; None where the hub does not reach it."""
    f = setup.feature
    if f.hub_diameter <= 0 or f.hub_height <= setup.blade.reach - f.depth:
        return None
    return (f.inner_diameter - f.hub_diameter) / 2.0 - SHANK_OVER


def _jaw_clearance(setup: FaceGrooveSetup) -> float | None:
    """Room [mm] between jaws that stand out in front of the face and the blade's outer side; None where they stand back."""
    f = setup.feature
    if f.jaw_diameter <= 0 or f.jaw_height <= 0:
        return None
    return (f.jaw_diameter - f.outer_diameter.target) / 2.0
