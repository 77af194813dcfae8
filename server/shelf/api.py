"""Look up materials."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Schema

from cutting.names import plain
from cutting.nomenclature import source_label
from cutting.quantities.write import Display, display
from cutting.wear.reference import life_law
from server.shelf.models import Material
from server.units import DisplayOut

router = Router()


class MaterialRow(Schema):
    name: str
    number: str
    aliases: list[str]
    group: int
    letter: str
    group_name: str
    hardness: str
    source: str
    from_memory: bool


class Fact(Schema):
    label: str
    display: DisplayOut
    source: str


class MaterialSheet(MaterialRow):
    facts: list[Fact]
    speeds: list[Fact]


@router.get("/materials", response=list[MaterialRow])
def list_materials(request: HttpRequest, q: str = "", letter: str = "") -> list[dict[str, Any]]:
    """Materials by any part of any name, in group order."""
    rows = Material.objects.all()
    if letter:
        rows = rows.filter(letter=letter[:1].upper())
    wanted = plain(q)
    return [_row(m) for m in rows if not wanted or wanted in plain(f"{m.name};{m.number};{m.aliases}")]


@router.get("/materials/{name}", response=MaterialSheet)
def read_material(request: HttpRequest, name: str) -> dict[str, Any]:
    row = get_object_or_404(Material, name=name)
    core = row.to_core()
    facts = [
        ("kc1.1", display(core.specific_force_1, "stress")),
        ("mc", display(core.force_exponent, "number")),
        ("tensile strength", display(core.strength, "stress")),
        ("ductility", display(core.ductility, "number")),
        ("adhesion", display(core.adhesion, "number")),
        ("abrasion", display(core.abrasion, "number")),
        ("work hardening", display(core.work_hardening, "number")),
        ("thermal conductivity, W/(m·K)", display(core.conductivity, "number")),
        ("density, g/cm³", display(core.density, "number")),
        ("expansion, 10⁻⁶/K", display(core.expansion, "number")),
        ("modulus of elasticity", display(core.elastic_modulus, "stress")),
    ]
    speeds = []
    for tool_class in ("carbide", "cermet", "ceramic", "cbn", "pcd", "hss"):
        if law := life_law(core.speed_row, tool_class):
            speeds.append(
                {
                    "label": tool_class,
                    "display": display(law.reference_speed, "cutting_speed"),
                    "source": f"15 min of life at depth {law.reference_depth:g} mm; common practice",
                }
            )
    return _row(row) | {"facts": [_fact(label, shown, source_label(row.source)) for label, shown in facts], "speeds": speeds}


def _fact(label: str, shown: Display, source: str) -> dict[str, Any]:
    return {"label": label, "display": shown, "source": source}


def _row(m: Material) -> dict[str, Any]:
    core = m.to_core()
    return {
        "name": m.name,
        "number": m.number,
        "aliases": list(core.aliases),
        "group": m.group,
        "letter": m.letter,
        "group_name": f"{core.group.description}, {core.group.condition}",
        "hardness": f"{m.hardness_low:.0f} – {m.hardness_high:.0f} HB",
        "source": source_label(m.source),
        "from_memory": m.from_memory,
    }
