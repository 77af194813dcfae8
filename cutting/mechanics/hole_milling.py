"""An end mill on a circle in a hole: the helix that it runs on, how far it is in the metal, its chip, what pushes it off the wall."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]
# radial over tangential force of an end mill's tooth (common practice), and the diameter whose round is as stiff as its fluted body
RADIAL_SHARE, FLUTED_BODY = 0.4, 0.8


@formula("ramp_angle", "atan({pitch}/(π·({hole_diameter} − {diameter})))", "geometry")
def ramp_angle(pitch: ArrayLike, hole_diameter: ArrayLike, diameter: ArrayLike) -> Array:
    """Angle α [°] at which the tool's middle goes down its helix: P a turn, D_h and d [mm].

    >>> round(float(ramp_angle(2.0, 30.0, 20.0)), 2)
    3.64
    """
    return np.asarray(np.degrees(np.arctan(np.asarray(pitch, float) / _round(hole_diameter, diameter))))


def pitch_at(angle: ArrayLike, hole_diameter: ArrayLike, diameter: ArrayLike) -> Array:
    """Pitch P [mm] of the helix that goes down at an angle [°]: the other way round of `ramp_angle`.

    >>> round(float(pitch_at(2.0, 24.0, 16.0)), 3)
    0.878
    """
    return np.asarray(np.tan(np.radians(np.asarray(angle, float))) * _round(hole_diameter, diameter))


@formula("centre_feed_rate", "{feed_rate}·({hole_diameter} − {diameter})/{hole_diameter}", "geometry")
def centre_feed_rate(feed_rate: ArrayLike, hole_diameter: ArrayLike, diameter: ArrayLike) -> Array:
    """Feed of the tool's middle [mm/min], where its edge moves along the wall at v_f [mm/min].

    >>> round(float(centre_feed_rate(720.0, 24.0, 16.0)), 1)
    240.0
    """
    hole = np.asarray(hole_diameter, float)
    return np.asarray(feed_rate) * (hole - np.asarray(diameter)) / hole


@formula("travel", "{turns}·√((π·({hole_diameter} − {diameter}))² + {pitch}²)", "geometry")
def helix_length(turns: ArrayLike, hole_diameter: ArrayLike, diameter: ArrayLike, pitch: ArrayLike) -> Array:
    """Way of the tool's middle [mm] over some turns of its helix.

    >>> round(float(helix_length(10.0, 24.0, 16.0, 1.0)), 2)
    251.53
    """
    return np.asarray(np.asarray(turns, float) * np.hypot(_round(hole_diameter, diameter), np.asarray(pitch, float)))


@formula("engagement_angle", "where the tool's circle leaves the hole of {inner_diameter}", "geometry")
def engagement_angle(hole_diameter: ArrayLike, diameter: ArrayLike, inner_diameter: ArrayLike) -> Array:
    """Angle φ [°] that the tool is in the metal, from the wall inward, between D_h and the hole that is there, d2 [mm].

    The cosine theorem at the point where the tool's circle crosses the old hole's; 180° where it cuts from solid. Inside a hole it is
    more than on a flat for the same width of cut.

    >>> round(float(engagement_angle(24.0, 16.0, 0.0)), 1)
    180.0
    """
    r, e, inner = (
        np.asarray(diameter, float) / 2.0,
        _round(hole_diameter, diameter) / (2.0 * np.pi),
        np.asarray(inner_diameter, float) / 2.0,
    )
    cosine = (inner**2 - e**2 - r**2) / (2.0 * e * r)
    return np.asarray(np.degrees(np.arccos(np.clip(cosine, -1.0, 1.0))))


@formula("chip_thickness", "{centre_feed}·(1 − cos({engagement_angle}))/(π·{engagement_angle}/180)", "martellotti-1941")
def mean_chip_thickness(centre_feed: ArrayLike, engagement_angle: ArrayLike) -> Array:
    """Mean chip thickness h_m [mm] of h = f_zc·sin φ over the engagement: feed of the middle per tooth [mm], angle [°].

    >>> round(float(mean_chip_thickness(0.1, 180.0)), 4)
    0.0637
    """
    angle = np.radians(np.asarray(engagement_angle, float))
    return np.asarray(np.asarray(centre_feed) * (1.0 - np.cos(angle)) / angle)


@formula("removal_rate", "π/4·({hole_diameter}² − {inner_diameter}²)·{pitch}·{centre_rate}/(π·({hole_diameter} − {diameter}))", "geometry")
def removal_rate(
    hole_diameter: ArrayLike, inner_diameter: ArrayLike, pitch: ArrayLike, centre_rate: ArrayLike, diameter: ArrayLike
) -> Array:
    """Metal removed Q [mm³/min]: a ring of one pitch for each turn of the helix.

    >>> round(float(removal_rate(24.0, 0.0, 1.0, 240.0, 16.0)), 1)
    4320.0
    """
    ring = np.pi / 4.0 * (np.asarray(hole_diameter, float) ** 2 - np.asarray(inner_diameter, float) ** 2)
    return np.asarray(ring * np.asarray(pitch) * np.asarray(centre_rate) / _round(hole_diameter, diameter))


@formula(
    "push_off",
    "{specific_force}·{centre_feed}·{flutes}·{height}/(2π)·(0.4·sin²φ/2 ± (φ − sinφ·cosφ)/2), φ = {engagement_angle}",
    "altintas-2012",
    Honesty.MODEL,
    "milling",
)
def push_off(
    specific_force: ArrayLike,
    centre_feed: ArrayLike,
    flutes: ArrayLike,
    height: ArrayLike,
    engagement_angle: ArrayLike,
    climb: bool = True,
) -> Array:
    """Mean force F_n [N] that moves the tool from the wall: kc [N/mm²], f_zc and height b [mm], z teeth, φ [°].

    The tangential force of each tooth with a radial one of 0.4 times it, over one turn. Climbing, both push it off and the hole is
    small; against the feed the tangential one pulls it in. Source: Altintas, the force of an end mill over one turn, from memory.

    >>> climbing, against = (float(push_off(2000.0, 0.05, 3, 10.0, 60.0, way)) for way in (True, False))
    >>> climbing > 0 > against  # off the wall, and into it
    True
    """
    angle = np.radians(np.asarray(engagement_angle, float))
    off, along = RADIAL_SHARE * np.sin(angle) ** 2 / 2.0, (angle - np.sin(angle) * np.cos(angle)) / 2.0
    whole = np.asarray(specific_force) * np.asarray(centre_feed) * np.asarray(flutes) * np.asarray(height) / (2.0 * np.pi)
    return np.asarray(whole * (off + (along if climb else -along)))


def mill_second_moment(diameter: ArrayLike, neck: ArrayLike) -> Array:
    """Second moment of area [mm⁴] of a fluted end mill, of its neck where that is thinner: d and d_n [mm].

    >>> bool(mill_second_moment(12.0, 4.0) == mill_second_moment(20.0, 4.0))  # a thin neck bends, whatever the flutes
    True
    """
    stiff = np.minimum(FLUTED_BODY * np.asarray(diameter, float), np.asarray(neck, float))
    return np.asarray(np.pi / 64.0 * stiff**4)


def bent_by(force: ArrayLike, place: ArrayLike, at: ArrayLike, modulus: ArrayLike, second_moment: ArrayLike) -> Array:
    """Deflection [mm] of a cantilever at a distance from its seat, by a force [N] at another: lengths mm, E [N/mm²], I [mm⁴].

    Source: Roark, cantilever with a load anywhere.

    >>> round(float(bent_by(100.0, 50.0, 50.0, 200_000.0, 500.0)), 4)  # F·l³/(3·E·I)
    0.0417
    """
    a, x = np.asarray(place, float), np.asarray(at, float)
    near, far = np.minimum(x, a), np.maximum(x, a)
    return np.asarray(np.asarray(force) * near**2 * (3.0 * far - near) / (6.0 * np.asarray(modulus) * np.asarray(second_moment)))


def _round(hole_diameter: ArrayLike, diameter: ArrayLike) -> Array:
    """Way [mm] of the tool's middle once round."""
    return np.asarray(np.pi * (np.asarray(hole_diameter, float) - np.asarray(diameter, float)))


@formula("feed_rate", "{feed_per_tooth}·{flutes}·{spindle_speed}", "iso-3002-1")
def edge_feed_rate(feed_per_tooth: ArrayLike, flutes: ArrayLike, spindle_speed: ArrayLike) -> Array:
    """Feed v_f [mm/min] of z teeth at f_z [mm] and n [1/min].

    >>> round(float(edge_feed_rate(0.06, 4, 3000.0)), 1)
    720.0
    """
    return np.asarray(feed_per_tooth) * np.asarray(flutes) * np.asarray(spindle_speed, float)


@formula("cutting_power", "{specific_force}·{removal_rate}/60000000", "kienzle-1952", Honesty.MODEL, "milling")
def milled_power(specific_force: ArrayLike, removal_rate: ArrayLike) -> Array:
    """Power P_c [kW] of removing metal: kc [N/mm²], Q [mm³/min].

    >>> round(float(milled_power(2000.0, 30000.0)), 3)
    1.0
    """
    return np.asarray(specific_force) * np.asarray(removal_rate) / 60e6
