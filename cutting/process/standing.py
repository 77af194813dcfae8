"""What a new feature starts from: the part as it stands in front of it, so that nobody types what the drawing already says."""

from __future__ import annotations

from collections.abc import Mapping
from contextlib import suppress
from typing import Any

from cutting.errors import CuttingError
from cutting.quantities import read_dimension, read_quantity
from cutting.workpiece.solid import Solid

WALL = 0.4  # mm on diameter from which a step is a wall
JAW_ROOM = 5.0  # mm that a cut keeps from the jaws where the drawing does not say where it ends
KERF_ROOM = 10.0  # and a cut-off


def taken_from_part(kind: str, feature: Mapping[str, Any], part: Solid, system: str = "mm") -> dict[str, float | bool]:
    """The values [mm] of a feature that are not given and that the part as it stands settles, by field name.

    Turning starts at the free face where it is not said where it ends, on the diameter that stands there, and leaves a
    square wall where one is left; facing takes the whole face; grooves and cut-off are cut into the diameter at their place.
    Entries that cannot be read settle nothing here: their own field refuses them.
    """
    given = {name: value for name, value in feature.items() if value not in (None, "")}

    def length(name: str) -> float | None:
        with suppress(CuttingError):
            if name in given:
                return read_quantity(given[name], "length", system=system, field=name).value
        return None

    def dimension(name: str) -> float | None:
        with suppress(CuttingError):
            if name in given:
                return read_dimension(given[name], system, name).nominal
        return None

    rule = _RULES.get(kind)
    found = rule(given, part, length, dimension) if rule else {}
    return {name: value for name, value in found.items() if name not in given}


def _turn(given: Any, part: Solid, length: Any, dimension: Any) -> dict[str, float | bool]:
    long = length("length")
    found: dict[str, float | bool] = {}
    place = length("distance_from_chuck")
    if long is None:
        return {"distance_from_chuck": min(JAW_ROOM, part.face)} if place is None else {}
    if place is None:
        place = found["distance_from_chuck"] = max(part.face - long, 0.0)
    found["start_diameter"] = part.largest(place, place + long)
    end = dimension("end_diameter")
    if end is not None and "profile" not in given:
        found["shoulder"] = part.largest(max(place - 1.0, 0.0), place) > end + WALL and place > 0
    return found


def _face(given: Any, part: Solid, length: Any, dimension: Any) -> dict[str, float | bool]:
    stock = length("length") or 1.0
    return {"start_diameter": part.largest(part.face - stock, part.face), "end_diameter": part.bore}


def _groove(given: Any, part: Solid, length: Any, dimension: Any) -> dict[str, float | bool]:
    if given.get("where") == "inside":
        return {"diameter": part.bore} if part.bore > 0 else {}
    place, wide = length("distance_from_chuck"), dimension("width") or 0.1
    return {} if place is None else {"diameter": part.largest(place, place + wide)}


def _cut_off(given: Any, part: Solid, length: Any, dimension: Any) -> dict[str, float | bool]:
    place, long = length("distance_from_chuck"), length("part_length")
    found: dict[str, float | bool] = {"bore": part.bore}
    if place is None:
        place = found["distance_from_chuck"] = KERF_ROOM if long is None else max(part.face - long, 0.0)
    elif long is None:
        found["part_length"] = max(part.face - place, 0.0)
    found["diameter"] = part.at(place)
    return found


_RULES = {"turn": _turn, "face": _face, "groove": _groove, "cut off": _cut_off}
