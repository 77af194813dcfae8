"""What is typed at the machine, read by the one reader and kept in the core's units."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from cutting.errors import CuttingError, UnknownName
from cutting.learning.entries import Logged, Size, words
from cutting.quantities import Asked, read_asked
from server.trials.models import Entry

MOST_SIZES = 40
READ: Mapping[str, Asked] = {
    "speed": Asked("cutting speed as set", "cutting_speed", 0.1, 5000.0),
    "feed": Asked("feed as set", "feed_per_rev", 0.0005, 30.0),
    "depth": Asked("depth of cut as set", "length", 0.0005, 200.0),
    "override": Asked("override", "share", 1.0, 250.0),
    "pressure": Asked("coolant pressure", "pressure", 0.0, 2000.0),
    "spacing": Asked("spacing of the marks", "length", 0.001, 100.0),
    "roughness": Asked("finish Ra", "roughness", 0.005, 400.0),
    "rz": Asked("finish Rz", "roughness", 0.01, 1600.0),
    "burr": Asked("burr", "length", 0.0, 20.0),
    "pip": Asked("pip", "length", 0.0, 50.0),
    "dish": Asked("dish of the face", "small_length", -5000.0, 5000.0),
    "wear_land": Asked("wear land VB", "length", 0.0, 10.0),
    "crater": Asked("crater depth KT", "length", 0.0, 5.0),
    "load": Asked("spindle load", "share", 0.0, 400.0),
    "torque": Asked("torque", "torque", 0.0, 1e6),
    "thrust": Asked("thrust", "force", 0.0, 1e7),
}
SEEN = ("chip", "length", "colour", "went", "sound", "marks", "wear", "stop")
SIZE = Asked("size", "length", 0.0, 3150.0, above=True)
TEMPERATURE = Asked("temperature of the part", low=-20.0, high=200.0, unit="°C")
PLAIN_SHARE = ("override", "load")  # per cent, typed bare


def read_entry(read: Mapping[str, Any], seen: Mapping[str, str], sizes: Iterable[Mapping[str, Any]], units: str) -> dict[str, Any]:
    """The readings in the core's units, the words checked against their lists. Raises `CuttingError` that names the field."""
    system = "inch" if units == "inch" else "metric"
    found: dict[str, Any] = {"read": {}, "seen": {}, "sizes": []}
    for name, value in read.items():
        if value in (None, ""):
            continue
        if name not in READ:
            raise UnknownName(f"read.{name}", "there is no such reading.", None, tuple(READ))
        found["read"][name] = read_asked(value, READ[name], system, f"read.{name}")
    for name, word in seen.items():
        if not word:
            continue
        if name not in SEEN or word not in words(name):
            raise UnknownName(
                f"seen.{name}", f"'{word[:40]}' is not a word of this list.", None, tuple(words(name)) if name in SEEN else SEEN
            )
        found["seen"][name] = word
    for k, one in enumerate(sizes):
        if k >= MOST_SIZES:
            raise CuttingError("sizes", f"at most {MOST_SIZES} sizes in one entry.", f"at most {MOST_SIZES}")
        warm = one.get("temperature")
        found["sizes"].append(
            {
                "value": read_asked(one.get("value"), SIZE, system, f"sizes.{k}.value"),
                "at": str(one.get("at") or "")[:40],
                "instrument": str(one.get("instrument") or "")[:60],
                "temperature": read_asked(warm, TEMPERATURE, field=f"sizes.{k}.temperature") if warm not in (None, "") else 20.0,
            }
        )
    return found


def logged(rows: Iterable[Entry], speed: float, feed: float) -> list[Logged]:
    """Entries as the core reads them, struck ones left out; speed and feed as planned where only an override was told."""
    found = []
    for row in rows:
        if row.struck_at is not None:
            continue
        read, seen = row.data.get("read", {}), row.data.get("seen", {})
        share = read.get("override", 100.0) / 100.0
        found.append(
            Logged(
                row.edge,
                row.count,
                speed=read.get("speed", speed),
                feed=read.get("feed", feed * share),
                depth=read.get("depth"),
                roughness=read.get("roughness"),
                burr=read.get("burr"),
                pip=read.get("pip"),
                wear_land=read.get("wear_land"),
                load=read.get("load"),
                torque=read.get("torque"),
                thrust=read.get("thrust"),
                sizes=tuple(Size(one["value"], one["at"], one["temperature"]) for one in row.data.get("sizes", ())),
                stop=seen.get("stop", ""),
                wear=seen.get("wear", ""),
            )
        )
    return found
