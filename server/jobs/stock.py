"""The blank: what may be put into the machine, and what may be made of it."""

from __future__ import annotations

from typing import Any

from cutting.quantities import Asked, read_asked
from server.jobs.entries import Entry, length_with_unit
from server.shop import shop

BAR = (10.0, 20_000.0)  # mm
LEAST_WALL = 0.4  # mm on diameter that a tube must keep


def blank_of(given: dict[str, Any], units: str) -> dict[str, Entry]:
    """Diameter, length out of the chuck and bore as they were typed, with their unit. Raises `CuttingError`."""
    return {name: length_with_unit(name, given[name], units) for name in ("diameter", "free_length", "bore")}


def check_stock(document: dict[str, Any]) -> None:
    """Raise `CuttingError` for a blank that cannot be: its field, and the bound by machine or by the blank itself."""
    machine, stock = shop().library.machine(document["machine"]), document["stock"]

    def read(name: str, low: float, high: float) -> float:
        return read_asked(stock[name], Asked(name, "length", low, high), field=name)

    diameter = read("diameter", 1.0, machine.swing or machine.x_travel)
    out = read("free_length", 1.0, machine.turning_length or machine.z_travel)
    if stock.get("length"):
        read("length", out, BAR[1])
    read("bore", 0.0, max(diameter - LEAST_WALL, 0.0))
    bar = read("bar_length", *BAR) if stock.get("bar_length") else BAR[1]
    if stock.get("remnant"):
        read("remnant", 0.0, bar)
