"""Laminates: fibre, ply and what parts their plies, beside what every material has."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from cutting.tables import read_table
from cutting.workpiece.materials import Material

LAMINATES = 29  # group of VDI 3323


@dataclass(frozen=True)
class Laminate:
    """Fibre in words, thickness of a ply [mm], modulus across [N/mm²], Poisson's ratio, energy that parts plies [J/m²]."""

    fibre: str
    ply: float
    modulus: float
    poisson_ratio: float
    opening_energy: float


@cache
def _rows() -> dict[str, Laminate]:
    numbers = ("ply", "transverse_modulus", "poisson_ratio", "opening_energy")
    rows = read_table("workpiece/laminates.csv")
    return {row["material"]: Laminate(row["fibre"], *(row.number(name) for name in numbers)) for row in rows}


def laminate_of(material: Material) -> Laminate | None:
    """What a material is as a laminate, None for a metal; one of the shop's own is taken for glass fibre unless its name says carbon."""
    if material.group.number != LAMINATES:
        return None
    usual = "CFRP laminate" if "carbon" in material.name.lower() or "cfrp" in material.name.lower() else "GFRP laminate"
    return _rows().get(material.name, _rows()[usual])
