"""What turning and facing take away from the part, and how that is drawn."""

from __future__ import annotations

import itertools

from cutting.operations.turned.contour import slices
from cutting.operations.turned.feature import Feature
from cutting.operations.turned.setup import Setup
from cutting.workpiece.solid import DRAWN, Corner, Region, Side, Solid, Span, Steps, radius_at


def turned(feature: Feature) -> Region:
    """The spans that turning leaves thinner."""
    return Region(Side.OUTSIDE, tuple(slices(feature, feature.distance_from_chuck + feature.length, DRAWN)))


def faced(feature: Feature) -> Region:
    """What facing takes off the free end; a boss may stay."""
    return Region(Side.FACE, depth=feature.length, inner=feature.end_diameter.nominal)


def turned_area(setup: Setup, before: Solid) -> tuple[Corner, ...]:
    """The band that goes, over the part as it stood."""
    f = setup.feature
    return band_over(before.outside, slices(f, min(f.distance_from_chuck + f.length, before.end), DRAWN))


def faced_area(setup: Setup, before: Solid) -> tuple[Corner, ...]:
    """The slice that goes off the face."""
    f, end = setup.feature, before.face
    start, inner, outer = end - f.length, f.end_diameter.nominal / 2, f.start_diameter / 2
    return ((start, inner), (start, outer), (end, outer), (end, inner))


def band_over(steps: Steps, cuts: list[Span]) -> tuple[Corner, ...]:
    """The area that a row of cuts (from, to, diameter) takes away: along the outside, back along the new surface."""
    tops: list[Corner] = []
    floor: list[Corner] = []
    for near, far, diameter in cuts:
        tops += _band(steps, near, far, diameter / 2)[1:-1]
        floor += [(near, diameter / 2), (far, diameter / 2)]
    return (*tops, *reversed(floor))


def _band(steps: Steps, near: float, far: float, radius: float) -> tuple[Corner, ...]:
    places = sorted({near, far} | {p for p, _ in steps if near < p < far})
    top: list[Corner] = []
    for left, right in itertools.pairwise(places):
        outer = max(radius_at(steps, left), radius)
        top += [(left, outer), (right, outer)]
    return ((near, radius), *top, (far, radius))
