"""Fills the shelf from the shipped table; rows that exist are left as they are."""

from __future__ import annotations

from cutting.workpiece.materials import materials
from server.shelf.models import Material

NUMBERS = (
    "strength",
    "specific_force_1",
    "force_exponent",
    "speed_row",
    "speed_factor",
    "ductility",
    "adhesion",
    "abrasion",
    "work_hardening",
    "conductivity",
    "density",
    "specific_heat",
    "expansion",
    "elastic_modulus",
)


def fill_shelf() -> None:
    Material.objects.bulk_create(
        [
            Material(
                name=m.name,
                number=m.number,
                aliases=";".join(m.aliases),
                group=m.group.number,
                letter=m.group.letter,
                hardness_low=m.hardness_low,
                hardness_high=m.hardness_high,
                numbers={n: getattr(m, n) for n in NUMBERS},
                source=m.source,
                from_memory=m.from_memory,
            )
            for m in materials()
        ],
        ignore_conflicts=True,
    )
