"""Feed by diameter on the way to the centre: zones with break points, and their seconds in closed form."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from typing import Any

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.errors import CuttingError, OutOfRange, require_between
from cutting.machine.drive import Spun
from cutting.mechanics.kinematics import facing_time

Array = NDArray[np.float64]


class School(StrEnum):
    """Where good people begin to slow down (common practice, no source)."""

    EARLY = "half from 10 mm, a quarter from 5 mm"  # from about 5 mm before the centre on radius
    LATE = "half from 6 mm, a quarter from 3 mm"


@dataclass(frozen=True)
class FeedZone:
    """A stretch of diameters [mm] cut with one feed [mm/rev]."""

    start: float
    end: float
    feed: Any


_SHARES = {School.EARLY: ((10.0, 0.5), (5.0, 0.25)), School.LATE: ((6.0, 0.5), (3.0, 0.25))}


def zones_of(
    diameter: float, bore: float, feed: Any, school: School | None, own: tuple[tuple[float, float], ...] = ()
) -> tuple[FeedZone, ...]:
    """Zones from a diameter to a bore (0: the centre) [mm]; `feed` [mm/rev] may be an array, then so is that of every zone.

    `own` break points (diameter, feed [mm/rev]) come before the school's; without either the feed stays full, as it may
    in a tube. Raises `CuttingError` naming `settings.feed_zones` for points out of order.
    """
    breaks = own or (tuple((d, share * feed) for d, share in _SHARES[school]) if school else ())
    last = float("inf")
    for place, value in breaks:
        if own:
            require_between("settings.feed_zones", value, 0.002, 2.0, "mm/rev")
        if place > last:
            raise OutOfRange(
                "settings.feed_zones", f"Ø{place:g} comes after Ø{last:g}: break points run towards the centre.", f"at most {last:g} mm"
            )
        last = place
    inside = [(place, value) for place, value in breaks if bore < place < diameter]
    edges = [diameter, *(place for place, _ in inside), bore]
    # a break point at or beyond the rim sets the feed from the start
    first = [value for place, value in breaks if place >= diameter]
    feeds = [first[-1] if first else feed, *(value for _, value in inside)]
    found = tuple(FeedZone(a, b, f) for a, b, f in zip(edges[:-1], edges[1:], feeds, strict=True) if a > b)
    if not found:
        raise CuttingError("feature.bore", "nothing is left to cut off.", f"below {diameter:g} mm")
    return found


def split_at(zones: tuple[FeedZone, ...], diameter: float | None) -> tuple[FeedZone, ...]:
    """The same feeds with a break at a diameter [mm]; None: as they are.

    >>> [(one.start, one.end) for one in split_at((FeedZone(40.0, 10.0, 0.1),), 25.0)]
    [(40.0, 25.0), (25.0, 10.0)]
    """
    if diameter is None:
        return zones
    return tuple(
        FeedZone(start, end, zone.feed)
        for zone in zones
        for start, end in ((zone.start, max(zone.end, diameter)), (min(zone.start, diameter), zone.end))
        if start > end
    )


def zone_seconds(zone: FeedZone, cutting_speed: ArrayLike, spun: Spun) -> Array:
    """Seconds of a zone at constant cutting speed [m/min] as far as the spindle follows: closed form."""
    return np.asarray(facing_time(zone.start, zone.end, cutting_speed, zone.feed, spun.top, spun.low))


def feed_at(zones: tuple[FeedZone, ...], diameters: ArrayLike) -> Array:
    """Feed [mm/rev] at each diameter [mm]; on a break point that of the zone towards the centre."""
    places = np.asarray(diameters, float)
    found = np.full(places.shape, zones[0].feed)
    for zone in zones[1:]:
        found = np.where(places <= zone.start, zone.feed, found)
    return found
