"""The parts of a cut-off's JSON form that no other operation has."""

from __future__ import annotations

from cutting.doors.reader import Reader, number
from cutting.errors import CuttingError
from cutting.operations.cut_off.feed_zones import School
from cutting.operations.cut_off.setup import BarStock, CutOffFeature, CutOffHolding, CutOffSettings

FEATURE = ("diameter", "part_length", "bore", "distance_from_chuck", "flatness", "pip", "roughness")
SETTINGS = ("cutting_speed", "feed_per_rev", "coolant", "spindle_clamp", "feed_zones", "overhang", "centre_height", "lean")
HOLDING = ("sub_spindle", "part_catcher", "guide_bush", "y_axis", "tailstock", "grip_diameter")
BAR = ("length", "remnant", "price", "yearly")
SCHOOLS = {"early": School.EARLY, "late": School.LATE, "full": None}


def feature(top: Reader) -> CutOffFeature:
    """What is cut off. Raises `CuttingError`."""
    r = Reader(top.need("feature"), "feature", top.system, FEATURE)
    lengths = {name: r.quantity(name, "length") for name in ("bore", "distance_from_chuck", "pip") if r.has(name)}
    small = {name: r.quantity(name, "small_length") for name in ("flatness", "roughness") if r.has(name)}
    if "flatness" in small:
        small["flatness"] /= 1000.0
    return CutOffFeature(r.quantity("diameter", "length"), r.quantity("part_length", "length"), **lengths, **small)


def settings(top: Reader) -> CutOffSettings:
    """Speed, feed and its zones: a school by name (early, late, full) or break points such as `10:0.06; 5:0.03`. Raises `CuttingError`."""
    r = Reader(top.need("settings"), "settings", top.system, SETTINGS)
    given = r.data.get("feed_zones", "early")
    school, own = (SCHOOLS[given], ()) if given in SCHOOLS else (None, r.points("feed_zones"))
    return CutOffSettings(
        cutting_speed=r.quantity("cutting_speed", "cutting_speed"),
        feed_per_rev=r.quantity("feed_per_rev", "feed_per_rev"),
        coolant=str(r.data.get("coolant") or "flood"),
        spindle_clamp=r.quantity("spindle_clamp", "spindle_speed") if r.has("spindle_clamp") else None,
        school=school,
        feed_zones=own,
        overhang=r.quantity("overhang", "length") if r.has("overhang") else None,
        centre_height=r.quantity("centre_height", "length") if r.has("centre_height") else 0.0,
        lean=r.quantity("lean", "angle") if r.has("lean") else 0.0,
    )


def holding(top: Reader) -> CutOffHolding:
    """How bar and part are held. Raises `CuttingError`."""
    r = Reader(top.data.get("holding") or {}, "holding", top.system, HOLDING)
    grip = r.quantity("grip_diameter", "length") if r.has("grip_diameter") else None
    return CutOffHolding(**{name: r.flag(name) for name in HOLDING[:-1]}, grip_diameter=grip)


def bar(top: Reader) -> BarStock:
    """The bar that the pieces come from. Raises `CuttingError`."""
    r = Reader(top.data.get("bar") or {}, "bar", top.system, BAR)
    price = number(r.data["price"], r.field("price")) if r.has("price") else 0.0
    if not 0 <= price <= 1e6:
        raise CuttingError(r.field("price"), f"{price:g} is outside 0 to 1000000.", "0 to 1000000")
    return BarStock(
        r.quantity("length", "length") if r.has("length") else 3000.0,
        r.quantity("remnant", "length") if r.has("remnant") else 120.0,
        price,
        r.whole("yearly", 0, 0, 100_000_000),
    )
