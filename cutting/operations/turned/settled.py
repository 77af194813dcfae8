"""What the part in front settles of a turned or faced feature that the drawing need not say."""

from __future__ import annotations

from cutting.operations.frame.kind import Given, Settled
from cutting.workpiece.solid import Solid

WALL = 0.4  # mm on diameter from which a step is a wall
JAW_ROOM = 5.0  # mm that a cut keeps from the jaws where the drawing does not say where it ends


def turned(given: Given, part: Solid) -> Settled:
    """It starts at the free face where it is not said where it ends, on the diameter that stands there; a wall may be left."""
    long = given.length("length")
    found: Settled = {}
    place = given.length("distance_from_chuck")
    if long is None:
        return {"distance_from_chuck": min(JAW_ROOM, part.face)} if place is None else {}
    if place is None:
        place = found["distance_from_chuck"] = max(part.face - long, 0.0)
    found["start_diameter"] = part.largest(place, place + long)
    end = given.dimension("end_diameter")
    if end is not None and not given.has("profile"):
        found["shoulder"] = part.largest(max(place - 1.0, 0.0), place) > end + WALL and place > 0
    return found


def faced(given: Given, part: Solid) -> Settled:
    """It takes the whole face, to the bore."""
    stock = given.length("length") or 1.0
    return {"start_diameter": part.largest(part.face - stock, part.face), "end_diameter": part.bore}
