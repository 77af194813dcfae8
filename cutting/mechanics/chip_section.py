"""The uncut chip: thickness, engaged edge and direction, with nose radius and for round inserts."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]


@formula("chip_area", "{feed_per_rev}·{depth_of_cut}", "iso-3002-3")
def chip_area(feed_per_rev: ArrayLike, depth_of_cut: ArrayLike) -> Array:
    """Cross-section of the uncut chip A [mm²] from feed f [mm/rev] and depth ap [mm]. Source: ISO 3002-3."""
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
    """
    nose_angle, straight = _engagement(depth_of_cut, cutting_edge_angle, nose_radius)
    kappa = np.radians(cutting_edge_angle)
    return np.asarray(nose_radius) * nose_angle + straight / np.sin(kappa)


@formula("chip_thickness", "{chip_area}/{engaged_edge}", "iso-3002-3")
def mean_chip_thickness(chip_area: ArrayLike, engaged_edge: ArrayLike) -> Array:
    """Mean uncut chip thickness h [mm] = A/b; equals f·sin κr on a straight edge. Source: ISO 3002-3."""
    return np.asarray(chip_area) / np.asarray(engaged_edge)


@formula(
    "chord_angle",
    "atan({depth_of_cut}/(width of the engaged edge along the feed + {feed_per_rev}/2)), {nose_radius}, {cutting_edge_angle}",
    "colwell-1954",
    Honesty.MODEL,
)
def chord_angle(feed_per_rev: ArrayLike, depth_of_cut: ArrayLike, cutting_edge_angle: ArrayLike, nose_radius: ArrayLike) -> Array:
    """Angle κe [°] between feed direction and the chord of the engaged edge; the in-plane force stands square to it.

    Parameters as in `engaged_edge`, with f [mm/rev]. Source: Colwell 1954; Woxén.
    """
    nose_angle, straight = _engagement(depth_of_cut, cutting_edge_angle, nose_radius)
    kappa = np.radians(cutting_edge_angle)
    along_feed = np.asarray(nose_radius) * np.sin(nose_angle) + straight / np.tan(kappa)
    return np.degrees(np.arctan2(depth_of_cut, along_feed + np.asarray(feed_per_rev) / 2.0))


def _engagement(depth: ArrayLike, cutting_edge_angle: ArrayLike, nose_radius: ArrayLike) -> tuple[Array, Array]:
    """Angle of the nose in cut [rad] and depth left for the straight edge [mm]."""
    depth, radius = np.asarray(depth, float), np.maximum(np.asarray(nose_radius, float), 1e-6)
    kappa = np.radians(cutting_edge_angle)
    by_depth = np.arccos(np.clip(1.0 - depth / radius, -1.0, 1.0))
    nose_angle = np.minimum(by_depth, kappa)
    straight = np.maximum(depth - radius * (1.0 - np.cos(kappa)), 0.0)
    return nose_angle, straight
