"""The breaker window: a convex field in feed × depth, scaled by nose and size, shifted by the metal."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]
REFERENCE_NOSE, REFERENCE_CIRCLE, REFERENCE_SPEED = 0.8, 12.7, 150.0
MAX_SIDES = 10
CIRCLE_EXPONENT = 0.6  # how depths grow with the insert's circle (common practice: a half to the whole)
FORGIVEN = 0.35  # ductility below which a metal breaks outside the window too, and the least of it (common practice)


@dataclass(frozen=True)
class WindowSides:
    """A convex window as half-planes around its middle: gauge = max over sides of nf·(f−cf) + na·(a−ca)."""

    centre: tuple[float, float]
    normals: NDArray[np.float64]  # (MAX_SIDES, 2); unused sides are zero
    hull: tuple[tuple[float, float], ...]


def window_sides(points: tuple[tuple[float, float], ...]) -> WindowSides:
    """Half-planes of the convex hull of (feed, depth) points. Raises ValueError with fewer than three corners.

    >>> window_sides(((0.1, 0.5), (0.5, 0.5), (0.5, 4.0), (0.1, 4.0))).centre
    (0.3, 2.25)
    """
    hull = _hull(points)
    if len(hull) < 3 or len(hull) > MAX_SIDES:
        raise ValueError(f"a window needs 3 to {MAX_SIDES} corners, not {len(hull)}")
    centre = ((min(p[0] for p in hull) + max(p[0] for p in hull)) / 2, (min(p[1] for p in hull) + max(p[1] for p in hull)) / 2)
    normals = np.zeros((MAX_SIDES, 2))
    for k, (p, q) in enumerate(zip(hull, hull[1:] + hull[:1], strict=True)):
        normal = np.array([q[1] - p[1], p[0] - q[0]])
        normals[k] = normal / (normal @ (np.array(p) - np.array(centre)))
    return WindowSides(centre, normals, tuple(hull))


def feed_scale(nose_radius: ArrayLike, ductility: ArrayLike, cutting_speed: ArrayLike, coolant_pressure: ArrayLike) -> Array:
    """How far the metal, nose, speed and jet stretch the window along feed (1: as drawn).

    Ductile metals and high speed want more feed before the chip's strain breaks it (the direction follows
    Nakayama 1962, the size is common practice); a jet of 20 bar gives 6 % back, 70 bar 14 %. rε [mm], vc [m/min], [bar].

    >>> float(feed_scale(0.8, 0.5, 200.0, 70.0)) < float(feed_scale(0.8, 0.5, 200.0, 0.0))  # a jet breaks thinner chips
    True
    """
    metal = np.clip(0.65 + 0.7 * np.asarray(ductility, float), 0.6, 1.35)
    nose = (np.asarray(nose_radius, float) / REFERENCE_NOSE) ** 0.3
    speed = np.clip((np.asarray(cutting_speed, float) / REFERENCE_SPEED) ** 0.08, 0.85, 1.15)
    jet = np.interp(np.asarray(coolant_pressure, float), [0, 5, 20, 70, 150], [1.0, 1.0, 0.94, 0.86, 0.84])
    return metal * nose * speed * jet


def depth_scale(inscribed_circle: ArrayLike) -> Array:
    """How the window stretches along depth with insert size, iC [mm].

    >>> float(depth_scale(12.7))
    1.0
    """
    return (np.asarray(inscribed_circle, float) / REFERENCE_CIRCLE) ** CIRCLE_EXPONENT


@formula(
    "window_gauge",
    "largest of the window's sides at f {feed_per_rev}, ap {depth_of_cut}",
    "nakayama-1962",
    Honesty.RULE,
    "chip",
)
def window_gauge(
    feed_per_rev: ArrayLike,
    depth_of_cut: ArrayLike,
    normals: Array,
    centre: Array,
    scale_feed: ArrayLike,
    scale_depth: ArrayLike,
    ductility: ArrayLike,
    light_chip: ArrayLike = 1.0,
) -> Array:
    """Gauge g: 0 in the window's middle, 1 on its edge, above 1 outside.

    f [mm/rev], ap [mm]; `normals` (..., sides, 2) and `centre` (..., 2) of the drawn window; scales as above.
    Brittle metals break without a breaker, so for them the sides towards thin and shallow cuts count less; so they do by
    `light_chip` [–], where what is asked is not whether a chip breaks but whether it does harm.
    """
    f = np.asarray(feed_per_rev) / np.asarray(scale_feed)
    a = np.asarray(depth_of_cut) / np.asarray(scale_depth)
    x, y = f - centre[..., 0], a - centre[..., 1]
    forgiving = np.clip(np.asarray(ductility, float) / FORGIVEN, FORGIVEN, 1.0) * np.asarray(light_chip, float)
    worst: Array = np.zeros(np.broadcast(x, y).shape)
    # a side is seen as far as it lies towards low depth, against how far towards high feed, each as a share of the farthest that does
    across, down = normals[..., 0].max(axis=-1), np.maximum((-normals[..., 1]).max(axis=-1), 1e-12)
    for side in range(normals.shape[-2]):
        nf, na = normals[..., side, 0], normals[..., side, 1]
        if not nf.any() and not na.any():
            continue  # windows with fewer corners leave sides unused
        thin_or_shallow = (nf < 0) | (nf / across < -na / down)
        place = (nf * x + na * y) * np.where(thin_or_shallow, forgiving, 1.0)
        np.maximum(worst, place, out=worst)
    return worst


# section of a chip [mm²], what its stringing weighs, and what is left of its index (common practice: a thin chip that is led away
# strings and does little harm while somebody is there; nothing curls it)
LIGHT_SECTION, LIGHT_WEIGHT, LIGHT_INDEX = (0.004, 0.012, 0.05), (0.3, 0.5, 1.0), (0.3, 0.6, 1.0)


def light_weight(chip_area: ArrayLike) -> Array:
    """How much it weighs [–] that a chip of a section A [mm²] is not broken: a light one may string.

    >>> light_weight([0.1, 0.02, 0.002]).round(2).tolist()
    [1.0, 0.68, 0.3]
    """
    return np.interp(np.log(np.maximum(np.asarray(chip_area, float), 1e-9)), np.log(LIGHT_SECTION), LIGHT_WEIGHT)


def light_index(chip_area: ArrayLike) -> Array:
    """What is left [–] of the chip index of a chip of a section A [mm²] that is too light to curl in a breaker.

    >>> bool(light_index(0.001) < light_index(1.0) == 1.0)
    True
    """
    return np.interp(np.log(np.maximum(np.asarray(chip_area, float), 1e-9)), np.log(LIGHT_SECTION), LIGHT_INDEX)


def section_that_may_string(gauge: float) -> float:
    """The largest section of a chip [mm²] whose stringing does not count at a gauge above 1; 0 where none is light enough.

    >>> section_that_may_string(1.0) > section_that_may_string(1.5) >= section_that_may_string(9.0) == 0.0
    True
    """
    weight = 1.0 / max(gauge, 1.0)
    if weight < LIGHT_WEIGHT[0]:
        return 0.0
    return float(np.exp(np.interp(weight, LIGHT_WEIGHT, np.log(LIGHT_SECTION))))


def chip_index_of(gauge: ArrayLike) -> Array:
    """Chip index 0 to 100 from the gauge: 100 in the middle, 70 on the edge, 0 far outside (common practice).

    >>> [float(chip_index_of(g)) for g in (0.0, 1.0, 2.0)]  # the middle, the edge, far outside
    [100.0, 70.0, 0.0]
    """
    return np.interp(np.asarray(gauge, float), [0, 0.6, 1.0, 1.3, 2.0], [100, 92, 70, 35, 0])


# ductility and the best index that a breaker reaches in so soft a metal: pure copper and aluminium only bend (common practice)
TOO_SOFT = ((0.75, 0.85, 0.9, 1.0), (100.0, 85.0, 42.0, 25.0))
PRESSED = ((0.0, 20.0, 70.0, 150.0), (0.0, 8.0, 25.0, 30.0))  # what a jet [bar] gives back of that (common practice)


def softest_index(ductility: ArrayLike, coolant_pressure: ArrayLike) -> Array:
    """The best chip index that a metal of this ductility allows, whatever the breaker; a jet [bar] at the edge breaks some more.

    >>> bool(softest_index(1.0, 0.0) < softest_index(1.0, 70.0) <= softest_index(0.3, 0.0))
    True
    """
    by_metal = np.interp(np.asarray(ductility, float), *TOO_SOFT)
    return np.minimum(by_metal + np.interp(np.asarray(coolant_pressure, float), *PRESSED), 100.0)


CHIP_STOP = 0.02  # chance a piece that chips stop the machine when the index is 0 (common practice)
CHIPS_SURE = 90.0  # from this index on, chips are not what stops the machine


def stop_chance(index: ArrayLike) -> Array:
    """Chance a piece that chips of an index stop the machine, 0 to 0.02: it grows with the square of what is missing.

    >>> float(stop_chance(100.0)), float(stop_chance(0.0)) > 0.0
    (0.0, True)
    """
    return CHIP_STOP * (np.maximum(CHIPS_SURE - np.asarray(index, float), 0.0) / 100.0) ** 2


def span_at_depth(sides: WindowSides, depth: float, scale_feed: float, scale_depth: float) -> tuple[float, float] | None:
    """Least and largest feed [mm/rev] of the window at a depth [mm]; None above or below the window.

    >>> sides = window_sides(((0.1, 0.5), (0.5, 0.5), (0.5, 4.0), (0.1, 4.0)))
    >>> [round(float(f), 3) for f in span_at_depth(sides, 2.0, 1.0, 1.0)], span_at_depth(sides, 5.0, 1.0, 1.0)
    ([0.1, 0.5], None)
    """
    a = depth / scale_depth - sides.centre[1]
    low, high = -np.inf, np.inf
    for nf, na in sides.normals:
        room = 1.0 - na * a
        if nf > 1e-12:
            high = min(high, room / nf)
        elif nf < -1e-12:
            low = max(low, room / nf)
        elif room < 0:
            return None
    if low >= high:
        return None
    return (sides.centre[0] + low) * scale_feed, (sides.centre[0] + high) * scale_feed


def _hull(points: tuple[tuple[float, float], ...]) -> list[tuple[float, float]]:
    """Convex hull, counter-clockwise (Andrew's monotone chain)."""
    ordered = sorted(set(points))

    def half(sequence: list[tuple[float, float]]) -> list[tuple[float, float]]:
        chain: list[tuple[float, float]] = []
        for point in sequence:
            while len(chain) > 1 and _turn(chain[-2], chain[-1], point) <= 1e-12:
                chain.pop()
            chain.append(point)
        return chain[:-1]

    return half(ordered) + half(ordered[::-1])


def _turn(o: tuple[float, float], a: tuple[float, float], b: tuple[float, float]) -> float:
    return (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0])
