"""The contour that a copying cut follows: how long it is, and how steeply it falls and rises."""

from __future__ import annotations

import itertools
import math

import numpy as np

from cutting.operations.turned.feature import Feature

LEAST_SLICES = 4  # of a short slope, such as a chamfer


def path_length(feature: Feature) -> float:
    """Length of the tool's path in one pass [mm]: along the contour where there is one."""
    profile = feature.profile
    if not profile:
        return feature.length
    along = sum(math.hypot(b[0] - a[0], (b[1] - a[1]) / 2) for a, b in itertools.pairwise(profile))
    return along + max(feature.length - (profile[-1][0] - profile[0][0]), 0.0)


def steepest_descent(feature: Feature, away: bool = False) -> float:
    """Steepest angle [°] at which the contour falls under the feeding tool, 0 where it only rises.

    The tool feeds towards the chuck, or away from it.
    """
    return max((angle if away else -angle for angle in _slopes(feature)), default=0.0) if feature.profile else 0.0


def steepest_rise(feature: Feature, away: bool = False) -> float:
    """Steepest angle [°] at which the contour rises in front of the feeding tool."""
    return steepest_descent(feature, not away)


def diameter_at(feature: Feature, place: float) -> float:
    """Diameter of the finished contour [mm] at a place [mm from the chuck]; the end diameter where there is none."""
    if not feature.profile:
        return feature.turned_diameter
    places, diameters = zip(*feature.profile, strict=True)
    return float(np.interp(place, places, diameters)) + feature.grinding_allowance


def slices(feature: Feature, far: float, count: int) -> list[tuple[float, float, float]]:
    """The turned length up to `far` [mm] as (near, far, diameter): each cylinder once, slopes of a contour in `count` slices together."""
    near = feature.distance_from_chuck
    if far <= near:
        return []
    places = [near, *(place for place, _ in feature.profile if near < place < far), far]
    spans = [(a, b, diameter_at(feature, a) != diameter_at(feature, b)) for a, b in itertools.pairwise(places)]
    sloped = sum(b - a for a, b, slopes in spans if slopes)
    found = []
    for a, b, slopes in spans:
        edges = np.linspace(a, b, 1 + (max(round(count * (b - a) / sloped), LEAST_SLICES) if slopes else 1))
        found += [(float(p), float(q), diameter_at(feature, float(p + q) / 2)) for p, q in itertools.pairwise(edges)]
    return found


def _slopes(feature: Feature) -> list[float]:
    """Angle of each stretch against the axis, positive where the part gets thinner away from the chuck."""
    return [math.degrees(math.atan2((a[1] - b[1]) / 2, b[0] - a[0])) for a, b in itertools.pairwise(feature.profile) if a != b]
