"""Reads a section of the open form by its declared fields: every refusal carries the path of its field."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any

from cutting.doors.reader import Reader, number, typed
from cutting.errors import CuttingError, UnknownName, require_between
from cutting.operations.frame.fields import Field, Fields
from cutting.quantities import read_dimension, read_quantity
from cutting.quantities.dimension import Dimension
from cutting.quantities.kinds import KINDS
from cutting.quantities.read import Quantity
from cutting.workpiece.bores import read_bores
from cutting.workpiece.stack import read_stack
from cutting.workpiece.threads.spelling import read_thread
from cutting.workpiece.threads.thread import Thread

LENGTHS = ("small_length", "dimension", "lengths", "points")


def read_section(top: Reader, section: str, fields: tuple[Field, ...], needed: bool) -> dict[str, Any]:
    """The values of a section that were given, by name, in the core's units. Raises `CuttingError`."""
    data = top.need(section) if needed else (top.data.get(section) or {})
    r = Reader(data, section, top.system, tuple(one.name for one in fields))
    given = {one.name for one in fields if r.has(one.name) and r.data[one.name] != ""}
    found = {one.name: _within(one, _value(r, one), r.field(one.name)) for one in fields if one.name in given}
    for one in fields:  # what was typed wrong is said before what is missing
        if one.required and one.name not in given:
            r.need(one.name)
            raise CuttingError(r.field(one.name), "is empty; a value is needed here.")
    return found


def _within(one: Field, value: Any, path: str) -> Any:
    """The value, each of its numbers inside what its field may hold, used or not. Raises `OutOfRange`."""
    if one.physical is None or value is None:
        return value
    unit = one.unit or (KINDS[one.kind].metric if one.kind in KINDS and one.factor == 1.0 else "mm" if one.kind in LENGTHS else "")
    numbers = [value.nominal] if isinstance(value, Dimension) else _numbers(value)
    for number_in in numbers:
        require_between(path, number_in, *one.physical, unit)
    return value


def _numbers(value: Any) -> list[float]:
    if isinstance(value, (tuple, list)):
        return [number_in for part in value for number_in in _numbers(part)]
    return [float(value)] if isinstance(value, (int, float)) and not isinstance(value, bool) else []


def _value(r: Reader, one: Field) -> Any:
    path, given = r.field(one.name), r.data[one.name]
    if one.kind == "flag":
        return r.flag(one.name)
    if one.kind == "number":
        return number(given, path)
    if one.kind == "whole":
        return r.whole(one.name, 0, 0, 100_000_000)
    if one.kind == "choice":
        return _choice(given, one, path)
    if one.kind == "dimension":
        return read_dimension(typed(given, path), r.system, path)
    if one.kind == "points":
        return _points(r, one) if not isinstance(given, str) or given not in one.options else given
    if one.kind == "lengths":
        return r.quantities(one.name, "length")
    if one.kind == "thread":
        return read_thread(str(typed(given, path)), path)
    if one.kind == "stack":
        return read_stack(str(typed(given, path)), r.system, path)
    if one.kind == "bores":
        return read_bores(str(typed(given, path)), r.system, path)
    if one.kind == "text":
        text = str(typed(given, path)).strip()
        if len(text) > 80:
            raise CuttingError(path, "is longer than 80 characters.", "80 characters")
        return text
    quantity = read_quantity(typed(given, path), *one.kinds, system=r.system, field=path)
    return quantity if one.also else quantity.value * one.factor


def _choice(given: Any, one: Field, path: str) -> str:
    text = str(given).strip().lower().replace("_", " ")
    for option in one.options:
        if option.lower() == text:
            return option
    labels = ", ".join(one.options)
    raise UnknownName(path, f"'{given}' is none of: {labels}.", labels, one.options)


def _points(r: Reader, one: Field) -> tuple[tuple[float, float], ...]:
    """Points such as `10:0.06; 5:0.03`, or pairs of numbers."""
    given, path = r.data[one.name], r.field(one.name)
    words = [word.split(":") for word in given.split(";") if word.strip()] if isinstance(given, str) else given
    if not isinstance(words, (list, tuple)) or len(words) > 60 or any(not isinstance(w, (list, tuple)) or len(w) != 2 for w in words):
        said = f" or one of {', '.join(one.options)}" if one.options else ""
        raise CuttingError(path, f"points such as {one.example or '10:0.06; 5:0.03'} are wanted{said}.", one.example or None)
    first, second = one.pair
    return tuple((r.quantity_of(a, one.name, first), r.quantity_of(b, one.name, second)) for a, b in words)


def in_own_kind(settings: dict[str, Any], feature: dict[str, Any], fields: Fields, tool: Mapping[str, Any] | None = None) -> dict[str, Any]:
    """Settings whose speed may be a spindle speed and whose feed may be a feed per minute, turned into their own kinds."""
    found = dict(settings)
    said = feature.get(fields.speed_diameter) or 0.0
    diameter = said.nominal if isinstance(said, Dimension) else said.diameter if isinstance(said, Thread) else said
    if isinstance(said, tuple):
        diameter = max(one.diameter.nominal for one in said)
    if fields.speed_role and tool:
        diameter = tool[fields.speed_role].diameter
    speed = found.get("cutting_speed")
    if isinstance(speed, Quantity):
        turning = speed.kind == "spindle_speed"
        found["cutting_speed"] = math.pi * diameter * speed.value / 1000.0 if turning else speed.value
    feed = found.get("feed_per_rev")
    if isinstance(feed, Quantity):
        if feed.kind == "feed_rate":
            if not found.get("cutting_speed"):
                raise CuttingError("settings.cutting_speed", "must be above zero to turn a feed per minute into feed per revolution.")
            found["feed_per_rev"] = feed.value / (1000.0 * found["cutting_speed"] / (math.pi * diameter))
        else:
            found["feed_per_rev"] = feed.value
    return found
