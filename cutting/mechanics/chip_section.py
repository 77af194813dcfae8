"""The uncut chip: thickness, engaged edge and direction, with nose radius and for round inserts."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]


@formula("chip_area", "{feed_per_rev}·{depth_of_cut}", "iso-3002-3")
def chip_area(feed_per_rev: ArrayLike, depth_of_cut: ArrayLike) -> Array:
    """Cross-section of the uncut chip A [mm²] from feed f [mm/rev] and depth ap [mm]. Source: ISO 3002-3.

    >>> round(float(chip_area(0.25, 2.0)), 3)
    0.5
    """
    return np.asarray(feed_per_rev) * np.asarray(depth_of_cut)


@formula(
    "engaged_edge",
    "nose arc to depth {depth_of_cut} on {nose_radius}, then the straight edge at {cutting_edge_angle}",
    "iso-3002-3",
)
def engaged_edge(depth_of_cut: ArrayLike, cutting_edge_angle: ArrayLike, nose_radius: ArrayLike) -> Array:
    """Length b [mm] of edge in engagement at depth ap [mm], angle κr [°], corner radius rε [mm].

    Below ap = rε(1 − cos κr) only the nose cuts. A round insert is a nose of iC/2. Exact geometry
    without the feed's own arc.

    >>> round(float(engaged_edge(3.0, 90.0, 0.8)), 3)
    3.457
    """
    nose_angle, straight = _engagement(depth_of_cut, cutting_edge_angle, nose_radius)
    kappa = np.radians(cutting_edge_angle)
    return np.asarray(nose_radius) * nose_angle + straight / np.sin(kappa)


@formula("chip_thickness", "{chip_area}/{engaged_edge}", "iso-3002-3")
def mean_chip_thickness(chip_area: ArrayLike, engaged_edge: ArrayLike) -> Array:
    """Mean uncut chip thickness h [mm] = A/b; equals f·sin κr on a straight edge. Source: ISO 3002-3.

    >>> round(float(mean_chip_thickness(0.5, 2.2)), 4)
    0.2273
    """
    return np.asarray(chip_area) / np.asarray(engaged_edge)


@formula(
    "chord_angle",
    "atan({depth_of_cut}/(width of the engaged edge along the feed + {feed_per_rev}/2)), {nose_radius}, {cutting_edge_angle}",
    "colwell-1954",
    Honesty.MODEL,
    "direction",
)
def chord_angle(feed_per_rev: ArrayLike, depth_of_cut: ArrayLike, cutting_edge_angle: ArrayLike, nose_radius: ArrayLike) -> Array:
    """Angle κe [°] between feed direction and the chord of the engaged edge; the in-plane force stands square to it.

    Parameters as in `engaged_edge`, with f [mm/rev]. Source: Colwell 1954; Woxén.

    >>> round(float(chord_angle(0.2, 5.0, 90.0, 0.0)), 1)  # a sharp corner at 90°: the chord is all but square to the feed
    88.9
    """
    nose_angle, straight = _engagement(depth_of_cut, cutting_edge_angle, nose_radius)
    kappa = np.radians(cutting_edge_angle)
    along_feed = np.asarray(nose_radius) * np.sin(nose_angle) + straight / np.tan(kappa)
    return np.degrees(np.arctan2(depth_of_cut, along_feed + np.asarray(feed_per_rev) / 2.0))


@formula(
    "direction_factor",
    "mean of cos² of the edge's direction over nose arc and straight edge, a thin chip counting more: {depth_of_cut}, {nose_radius}, "
    "{cutting_edge_angle}",
    "altintas-2012",
    Honesty.MODEL,
    "direction",
)
def radial_direction(
    depth_of_cut: ArrayLike, cutting_edge_angle: ArrayLike, nose_radius: ArrayLike, thin_exponent: ArrayLike = 0.0
) -> Array:
    """Mean D [–] of cos²κ over the engaged edge, each bit with its own direction κ: how much of it pushes, and cuts, along the radius.

    Times the engaged edge it is ∫cos²κ dl, which never falls with depth: a deep cut contains the nose as well. The nose cuts
    thinner than the whole, and force grows as chips get thin with their thickness to the power of minus `thin_exponent`.
    Parameters as in `engaged_edge`.

    >>> round(float(radial_direction(2.0, 45.0, 0.0)), 3)  # a straight edge at 45°: cos² 45°
    0.5
    """
    return _direction(depth_of_cut, cutting_edge_angle, nose_radius, thin_exponent, 1.0)


@formula(
    "direction_factor",
    "mean of sin² of the edge's direction over nose arc and straight edge, a thin chip counting more: {depth_of_cut}, {nose_radius}, "
    "{cutting_edge_angle}",
    "altintas-2012",
    Honesty.MODEL,
    "direction",
)
def axial_direction(
    depth_of_cut: ArrayLike, cutting_edge_angle: ArrayLike, nose_radius: ArrayLike, thin_exponent: ArrayLike = 0.0
) -> Array:
    """The same along the feed: mean of sin²κ [–] over the engaged edge; parameters as in `radial_direction`.

    >>> round(float(axial_direction(2.0, 60.0, 0.0)), 3)  # a straight edge at 60°: sin² 60°
    0.75
    """
    return _direction(depth_of_cut, cutting_edge_angle, nose_radius, thin_exponent, -1.0)


def _direction(depth: ArrayLike, cutting_edge_angle: ArrayLike, nose_radius: ArrayLike, thin: ArrayLike, sign: float) -> Array:
    """Mean of (1 ± cos 2κ)/2 over the engaged edge, its parts weighted by how thin they cut."""
    nose_angle, straight = _engagement(depth, cutting_edge_angle, nose_radius)
    radius, kappa = np.maximum(np.asarray(nose_radius, float), 1e-6), np.radians(cutting_edge_angle)
    arc, edge = radius * nose_angle, straight / np.sin(kappa)
    whole = np.asarray(depth, float) / np.maximum(arc + edge, 1e-12)  # chip thickness over feed: of all, of the nose, of the edge
    of_nose = radius * (1.0 - np.cos(nose_angle)) / np.maximum(arc, 1e-12)
    nose_weight = np.maximum(of_nose / whole, 1e-6) ** -np.asarray(thin, float)
    edge_weight = (np.sin(kappa) / whole) ** -np.asarray(thin, float)
    on_nose = (arc + sign * radius * np.sin(2.0 * nose_angle) / 2.0) / 2.0
    on_edge = edge * (1.0 + sign * np.cos(2.0 * kappa)) / 2.0
    return np.asarray((nose_weight * on_nose + edge_weight * on_edge) / np.maximum(arc + edge, 1e-12))


def _engagement(depth: ArrayLike, cutting_edge_angle: ArrayLike, nose_radius: ArrayLike) -> tuple[Array, Array]:
    """Angle of the nose in cut [rad] and depth left for the straight edge [mm]."""
    depth, radius = np.asarray(depth, float), np.maximum(np.asarray(nose_radius, float), 1e-6)
    kappa = np.radians(cutting_edge_angle)
    by_depth = np.arccos(np.clip(1.0 - depth / radius, -1.0, 1.0))
    nose_angle = np.minimum(by_depth, kappa)
    straight = np.maximum(depth - radius * (1.0 - np.cos(kappa)), 0.0)
    return nose_angle, straight
