"""The blank: what may be put into the machine, and what may be made of it."""

from __future__ import annotations

from typing import Any

from cutting.errors import CuttingError
from cutting.quantities import Asked, read_asked, read_quantity
from cutting.workpiece.layers import split_layers
from server.jobs.document.entries import Entry, length_with_unit
from server.jobs.document.plan import layers_of
from server.shop import shop

BAR = (10.0, 20_000.0)  # mm
LEAST_WALL = 0.4  # mm on diameter that a tube must keep


def blank_of(given: dict[str, Any], units: str) -> dict[str, Entry]:
    """Diameter, length out of the chuck and bore as they were typed, with their unit. Raises `CuttingError`."""
    return {name: length_with_unit(name, given[name], units) for name in ("diameter", "free_length", "bore")}


def layers_as_entered(text: str, units: str) -> str:
    """Layers with the shop's own names of their metals, and thicknesses with their unit. Raises `CuttingError`."""
    found = []
    for metal, thick in split_layers(text, "layers"):
        try:
            name = shop().library.material(metal).name
        except CuttingError as error:
            error.field = "layers"
            raise
        found.append(f"{name}: {length_with_unit('layers', thick, units)}")
    return "; ".join(found)


def check_stock(document: dict[str, Any]) -> None:
    """Raise `CuttingError` for a blank that cannot be: its field, and the bound by machine or by the blank itself."""
    machine, stock = shop().library.machine(document["machine"]), document["stock"]

    def read(name: str, low: float, high: float) -> float:
        return read_asked(stock[name], Asked(name, "length", low, high), field=name)

    diameter = read("diameter", 1.0, machine.swing or machine.x_travel or BAR[1])  # a unit goes to the part, however large
    out = read("free_length", 1.0, machine.turning_length or machine.z_travel)
    if stock.get("length"):
        read("length", out, BAR[1])
    if layers := layers_of(document):
        whole = read_quantity(stock.get("length") or stock["free_length"], "length", field="stock.length").value
        if abs((thick := layers[0].far - layers[-1].near) - whole) > 0.01:
            raise CuttingError(
                "layers", f"the layers are {thick:g} mm thick together, the blank is {whole:g} mm long.", f"{whole:g} mm together"
            )
    read("bore", 0.0, max(diameter - LEAST_WALL, 0.0))
    bar = read("bar_length", *BAR) if stock.get("bar_length") else BAR[1]
    if stock.get("remnant"):
        read("remnant", 0.0, bar)
