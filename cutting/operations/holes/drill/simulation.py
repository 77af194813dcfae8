"""The way into the hole: thrust, torque, power, heat and chips over depth, as the point's cone crosses every interface."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.operations.holes.drill.numbers import APPROACH, BREAK_THROUGH, CORNER_IN, OPENED, Numbers, free_flutes, peck_sizes
from cutting.operations.holes.drill.setup import Pecks
from cutting.operations.holes.drill.tool import Array
from cutting.operations.holes.shared.layers import Layers
from cutting.operations.holes.shared.pecks import peck_places

STATIONS = 240
FLAT = 1e-6  # tangent below which a point counts as flat


@dataclass(frozen=True)
class DepthPoint:
    """A drill's point: radius, radius of what is there already, of the chisel edge, and the tangent of its half angle; mm."""

    radius: float
    inner: float
    chisel: float
    tangent: float

    @property
    def cone(self) -> float:
        """Length of the lips along the axis [mm], without what the pilot takes."""
        return self.radius / self.tangent


@dataclass(frozen=True)
class Cutting:
    """What a layer asks: arrays (layers,). `force` = kc·f [N/mm], `back` = 0.5·sin(σ/2), chisel share, margin share."""

    force: Array
    back: float
    chisel_share: float
    margin_share: Array


@dataclass(frozen=True)
class DrillRun:
    """Everything over the depth of the tip [mm from the entry]: arrays (stations,); N, N·m, kW, °C, s, shares."""

    depth: Array
    thrust: Array
    torque: Array
    margin: Array
    power: Array
    temperature: Array
    filled: Array
    seconds: Array
    layer: Array  # in which the tip is, −1 outside
    pecks: tuple[float, ...]
    worn: float


def trace(depth: Array, point: DepthPoint, near: Array, far: Array, cutting: Cutting) -> tuple[Array, Array, Array]:
    """Thrust [N], torque [N·m] of lips and of margins with the tip at depths [mm]; layers from `near` to `far` [mm].

    At every depth the lip is a row of rings; the ring at radius r stands r/tan(σ/2) behind the tip, in the layer that is there.
    Each ring gives kc·f·r·dr of torque and its share of thrust, so the sums are closed; the chisel edge is the ring inside its
    radius, the margins rub along all that the corner has passed.
    """
    z = np.asarray(depth, float)[:, None]
    tangent = max(point.tangent, FLAT)
    inner = np.clip((z - far) * tangent, point.inner, point.radius)  # radii between which the lip is in a layer
    outer = np.clip((z - near) * tangent, point.inner, point.radius)
    torque = (cutting.force * (outer**2 - inner**2) / 2000.0).sum(axis=-1)
    thrust = cutting.back * (cutting.force * (outer - inner)).sum(axis=-1)
    if cutting.chisel_share > 0 and point.chisel > point.inner:
        low = np.clip((z - far) * tangent, point.inner, point.chisel)
        high = np.clip((z - near) * tangent, point.inner, point.chisel)
        share = (high - low) / (point.chisel - point.inner)
        full = cutting.back * cutting.force * (point.radius - point.inner)
        thrust = thrust + cutting.chisel_share * (full * share).sum(axis=-1)
    corner = z - point.radius / tangent
    rubbing = np.clip(corner - near, 0.0, far - near)
    lips = cutting.force * (point.radius**2 - point.inner**2) / 2000.0
    margin = (lips * cutting.margin_share * rubbing / (2.0 * point.radius)).sum(axis=-1)
    return thrust, torque, margin


def cutting_of(x: Numbers, worn: float = 1.0) -> tuple[DepthPoint, Cutting]:
    """Point and layers of one set-up's numbers, sharp or worn."""
    drill, f = x.setup.drill, x.setup.feature
    layers: Layers = x.layers
    half = np.radians(drill.point_angle) / 2.0
    tangent = float(min(np.tan(half), 1e6))
    inner = min(f.pilot, OPENED * drill.diameter) / 2.0
    taught = x.setup.learned.chisel_share
    chisel_share = 0.0 if f.pilot >= drill.web else drill.chisel_share if taught is None else taught
    lips = np.broadcast_to(np.asarray(x.lip_torque, float), layers.near.shape)
    per_layer = np.broadcast_to(np.asarray(x.specific_force * x.feed, float), layers.near.shape)
    own = np.diff(np.concatenate([[0.0], np.ravel(np.broadcast_to(x.margin_torque, layers.near.shape))]))
    with np.errstate(divide="ignore", invalid="ignore"):
        shares = np.where(layers.thickness > 0, own / np.maximum(lips, 1e-12) * drill.diameter / np.maximum(layers.thickness, 1e-12), 0.0)
    point = DepthPoint(drill.diameter / 2.0, inner, max(drill.web / 2.0, inner), tangent)
    # margins rub as they do whether the lips are sharp or worn
    return point, Cutting(worn * per_layer, 0.5 * float(np.sin(half)), chisel_share, shares / worn)


def simulate(x: Numbers) -> DrillRun:
    """The way of one set-up's drill into its hole, worn as the limits have it."""
    setup, layers = x.setup, x.layers
    worn = setup.house.wear_factor
    point, cutting = cutting_of(x, worn)
    end = setup.depth + setup.drill.cone + (BREAK_THROUGH if setup.feature.through else 0.0)
    depth = _stations(-APPROACH, end, layers, point)
    thrust, lips, margin = trace(depth, point, layers.near, layers.far, cutting)
    shares = _feed_shares(x, depth)
    thrust, lips = thrust * shares ** _softer(layers), lips * shares ** _softer(layers)
    place = _layer_at(depth, layers)
    known = np.clip(place, 0, layers.count - 1)
    n = np.broadcast_to(x.spindle_speed, layers.near.shape)[known]
    rate = np.broadcast_to(x.feed_rate, layers.near.shape)[known] * shares
    steps = np.diff(depth, prepend=depth[0])
    seconds = np.cumsum(60.0 * steps / rate)
    engaged = np.clip(depth / max(point.cone, 1e-9), 0.0, 1.0)
    hot = np.broadcast_to(x.temperature, layers.near.shape)[known]
    return DrillRun(
        depth, thrust, lips + margin, margin, (lips + margin) * n / 9549.3,
        np.where(place >= 0, 20.0 + (hot - 20.0) * engaged, 20.0), _filled(x, depth), seconds, place.astype(float), pecks_of(x), worn,
    )  # fmt: skip


def _stations(start: float, end: float, layers: Layers, point: DepthPoint) -> Array:
    """Depths at which something is computed: even ones, and every place where a slope changes."""
    bends = [place + behind for place in (*layers.near, *layers.far) for behind in (0.0, point.cone)]
    bends.append(point.cone + CORNER_IN)
    even = np.linspace(start, end, STATIONS)
    return np.unique(np.clip(np.concatenate([even, bends]), start, end))


def _layer_at(depth: Array, layers: Layers) -> Any:
    """The layer that the tip is in; the last one while the cone leaves it, −1 before the entry."""
    inside = np.searchsorted(layers.near, depth, side="right") - 1
    return np.where(depth < 0, -1, inside)


def _feed_shares(x: Numbers, depth: Array) -> Array:
    """Share of the feed that is run at a depth: slower while the cone enters and while it leaves."""
    s, cone = x.setup.settings, x.setup.drill.cone
    entering = (depth > 0) & (depth <= cone + CORNER_IN)
    leaving = (depth > x.setup.depth) & x.setup.feature.breaks_out
    return np.where(entering, s.entry_feed, np.where(leaving, s.exit_feed, 1.0))


def _softer(layers: Layers) -> float:
    """Power of the feed in force: 1 − mc, of the hardest layer."""
    return float(1.0 - layers.force_exponent.min())


def pecks_of(x: Numbers) -> tuple[float, ...]:
    """Depths of the corner [mm] from which the drill comes back."""
    setup = x.setup
    if setup.settings.pecks is Pecks.NONE:
        return ()
    first, following, least = (float(np.ravel(size)[0]) for size in peck_sizes(setup, x.layers, x.tool))
    return peck_places(setup.depth, first, following, least)


def _filled(x: Numbers, depth: Array) -> Array:
    """How full the flutes are [share of what they stand]: from where they were last cleared, or washed out all the way."""
    setup = x.setup
    free = float(np.ravel(free_flutes(setup, x.layers, x.tool))[0])
    corner = np.clip(depth - setup.drill.cone, 0.0, setup.depth)
    if setup.settings.pecks is not Pecks.CLEAR:
        return corner / max(setup.depth, 1e-9) * float(np.max(x.packing))
    cleared = np.array((0.0, *pecks_of(x)))
    return (corner - cleared[np.searchsorted(cleared, corner, side="right") - 1]) / free
