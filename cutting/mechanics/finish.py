"""Surface texture: feed marks, Brammertz' correction, wiper edges, built-up edge."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]

RA_OF_RT = 0.2566  # arithmetic mean of a row of parabolic arcs against their height
SLOW_SHARE, FAST_SHARE, HARD_CHIP_SHARE = 0.32, 0.15, 0.03
SIDE_FLOW = 0.55  # µm of height that side flow and edge marks add in hard turning: 0.4 to 0.7 (common practice)
WIPER_GAIN = 0.5  # common practice: about half the Ra at the same feed


@formula("peak_height", "1000·({nose_radius} − √({nose_radius}² − {feed_per_rev}²/4))", "groover")
def feed_mark_height(feed_per_rev: ArrayLike, nose_radius: ArrayLike) -> Array:
    """Height Rt [µm] of ideal feed marks of circular arcs, feed f [mm/rev], corner radius rε [mm].

    About f²/(8·rε) while f is small against rε; f is held at 2·rε, where arcs end.

    >>> round(float(feed_mark_height(0.2, 0.8)), 2)
    6.27
    """
    radius = np.asarray(nose_radius, float)
    half = np.minimum(np.asarray(feed_per_rev, float) / 2.0, radius)
    return 1000.0 * (radius - np.sqrt(radius**2 - half**2))


@formula(
    "peak_height",
    "{peak_height} + 500·{minimum_chip}·(1 + {nose_radius}·{minimum_chip}/{feed_per_rev}²)",
    "brammertz-1961",
    Honesty.MODEL,
    "finish",
)
def brammertz_height(peak_height: ArrayLike, feed_per_rev: ArrayLike, nose_radius: ArrayLike, minimum_chip: ArrayLike) -> Array:
    """Height Rt [µm] with the ridge that the edge cannot cut (h_min [mm]) added to the feed marks Rt [µm].

    Valid above f* = √(2·rε·h_min), see `least_useful_feed`. Source: Brammertz 1961.

    >>> float(brammertz_height(10.0, 0.1, 0.8, 0.0))  # an edge that cuts however thin the chip adds nothing
    10.0
    """
    h, f, r = (np.asarray(x, float) for x in (minimum_chip, feed_per_rev, nose_radius))
    return np.asarray(peak_height) + 500.0 * h * (1.0 + r * h / f**2)


def least_useful_feed(nose_radius: ArrayLike, minimum_chip: ArrayLike) -> Array:
    """Feed f* [mm/rev] = √(2·rε·h_min) below which a finer feed only rubs. Source: Brammertz 1961.

    >>> round(float(least_useful_feed(0.8, 0.01)), 3)
    0.126
    """
    return np.sqrt(2.0 * np.asarray(nose_radius, float) * np.asarray(minimum_chip, float))


@formula("roughness", "0.2566·{peak_height}·{finish_factor}", "groover", Honesty.MODEL, states="finish")
def arithmetic_roughness(peak_height: ArrayLike, finish_factor: ArrayLike = 1.0) -> Array:
    """Ra [µm] from Rt [µm] and the factor Ki of actual over ideal; wiper edges come in with Ki halved.

    >>> round(float(arithmetic_roughness(4.0)), 3)  # of a parabola's height: 2/(9·√3) = 0.1283 of Rt for two, so 0.2566
    1.026
    """
    return RA_OF_RT * np.asarray(peak_height) * np.asarray(finish_factor)


@formula("finish_factor", "by speed {cutting_speed} m/min and ductility", "groover", Honesty.RULE, "finish")
def finish_factor(cutting_speed: ArrayLike, ductile: ArrayLike) -> Array:
    """Ratio Ki of actual to ideal roughness over vc [m/min]; `ductile` 0 (brittle) to 1 (ductile).

    Read from Groover's chart of the ratio, from memory: ductile metals 2.2 at 30 m/min falling to 1.05 above
    120 m/min as the built-up edge goes; brittle ones 1.6 falling to 1.25.

    >>> float(finish_factor(200.0, 1.0)), float(finish_factor(120.0, 0.0))  # ductile, brittle
    (1.05, 1.3)
    """
    v = np.asarray(cutting_speed, float)
    soft = np.interp(v, [20, 40, 60, 90, 120, 200], [2.3, 2.0, 1.7, 1.3, 1.15, 1.05])
    brittle = np.interp(v, [20, 60, 120, 200], [1.6, 1.45, 1.3, 1.25])
    return soft * np.asarray(ductile) + brittle * (1.0 - np.asarray(ductile))


@formula("peak_height", "{peak_height} + 0.55", "common-practice", Honesty.RULE, "finish")
def hard_turned_height(peak_height: ArrayLike) -> Array:
    """Height Rz [µm] of a hard-turned face: feed marks and a bounded side flow, whatever the feed.

    A worn-in edge at 60 HRC holds Rz about 1 µm at f 0.05, rε 0.8 (common practice, no source).

    >>> round(float(hard_turned_height(0.39)), 2)  # f 0.05, rε 0.8: the feed marks alone are 0.39 µm
    0.94
    """
    return np.asarray(peak_height) + SIDE_FLOW


def minimum_chip_share(cutting_speed: ArrayLike, ductile: ArrayLike = 1.0) -> Array:
    """Share of the edge radius that h_min is, over vc [m/min] as it counts in steel, `ductile` 0 to 1: hot metal flows round an edge less.

    0.2 to 0.4 as a rule; 0.32 where an edge builds up, falling to 0.15 at finishing speeds, where steel is turned to Ra 0.8
    with common inserts (common practice; the direction after L'vov and Sokolowski, from memory).

    >>> round(float(minimum_chip_share(30.0)), 2), round(float(minimum_chip_share(200.0)), 2)
    (0.32, 0.15)
    """
    cold = np.interp(np.asarray(cutting_speed, float), [30.0, 200.0], [1.0, 0.0])
    return FAST_SHARE + (SLOW_SHARE - FAST_SHARE) * cold * np.asarray(ductile)


@formula("minimum_chip", "{minimum_chip_share}·{edge_radius}", "brammertz-1961", Honesty.RULE, "minimum chip")
def minimum_chip_thickness(edge_radius: ArrayLike, minimum_chip_share: ArrayLike) -> Array:
    """Smallest chip thickness h_min [mm] that an edge of radius rn [mm] cuts: a share of it.

    Hardened work does not flow round the edge: hard turning cuts far below its chamfer, 0.03 taken (common practice).

    >>> round(float(minimum_chip_thickness(0.04, 0.35)), 4)
    0.014
    """
    return np.asarray(minimum_chip_share) * np.asarray(edge_radius, float)
