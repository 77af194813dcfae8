"""Look up materials, convert hardness, derive a material of one's own from group and hardness."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router

from cutting.doors.plain import plain as as_plain
from cutting.names import plain
from cutting.nomenclature import source_label
from cutting.quantities import refuse_long
from cutting.quantities.write import Display, display
from cutting.wear.reference import life_law
from cutting.workpiece.behaviour import neighbours, traits
from cutting.workpiece.hardness import SCALES, STANDARD, brinell, convert, read_hardness, told
from cutting.workpiece.materials import groups
from cutting.workpiece.user_material import derive
from server.schema import Schema
from server.shelf.models import Material
from server.shop import shop
from server.units import DisplayOut

router = Router()


class MaterialRow(Schema):
    """A material in the list."""

    id: int
    name: str
    number: str
    aliases: list[str]
    group: int
    letter: str
    group_name: str
    hardness: str
    source: str
    from_memory: bool


class MaterialPage(Schema):
    """A page of the list."""

    matched: int
    rows: list[MaterialRow]


class Fact(Schema):
    """A fact of a material with its source."""

    label: str
    display: DisplayOut
    source: str


class TraitOut(Schema):
    """How a material behaves in the cut."""

    name: str
    share: float
    says: str


class NeighbourOut(Schema):
    """A material that cuts alike."""

    name: str
    differs: str


class MaterialSheet(MaterialRow):
    """A material with its facts and its neighbours."""

    facts: list[Fact]
    speeds: list[Fact]
    traits: list[TraitOut]
    neighbours: list[NeighbourOut]


class ScaleOut(Schema):
    """A hardness on every scale."""

    scale: str
    name: str
    value: str
    missing: str


class ConversionOut(Schema):
    """One hardness on every scale, by the standard named."""

    given: str
    standard: str
    scales: list[ScaleOut]


class DerivedRow(Schema):
    """A number that follows from the group."""

    name: str
    value: str
    reason: str


class GroupRow(Schema):
    """A group of machinability."""

    number: int
    letter: str
    name: str
    hardness: str


@router.get("/materials", response=MaterialPage)
def list_materials(
    request: HttpRequest, q: str = "", letter: str = "", archived: bool = False, offset: int = 0, limit: int = 200
) -> dict[str, Any]:
    """Materials by any part of any name, in group order, so many at a time."""
    rows = Material.objects.filter(archived_at__isnull=not archived)
    if letter:
        rows = rows.filter(letter=letter[:1].upper())
    wanted = plain(q)
    found = [m for m in rows if not wanted or wanted in plain(f"{m.name};{m.number};{m.aliases}")]
    start = max(offset, 0)
    return {"matched": len(found), "rows": [_row(m) for m in found[start : start + min(max(limit, 1), 500)]]}


@router.get("/groups", response=list[GroupRow])
def list_groups(request: HttpRequest) -> list[dict[str, Any]]:
    """The 41 machinability groups of VDI 3323."""
    return [
        {
            "number": g.number,
            "letter": g.letter,
            "name": f"{g.description}, {g.condition}",
            "hardness": told(g.hardness) if g.hardness else "–",
        }
        for g in groups().values()
    ]


@router.get("/convert", response=ConversionOut)
def convert_hardness(request: HttpRequest, hardness: str, material: str = "", group: int = 0) -> dict[str, Any]:
    """A hardness or strength on every scale; refused where the standard's table does not hold."""
    what = shop().library.material(material).group if material else groups().get(group)
    value, scale = read_hardness(refuse_long(hardness, 40, "hardness"))
    found = convert(value, scale, what)
    rows = []
    for name, words in SCALES.items():
        number = found.values.get(name)
        shown = "" if number is None else f"{number:.0f}" if name in ("HV", "HB", "Rm") else f"{number:.1f}"
        rows.append({"scale": name, "name": words, "value": shown, "missing": found.missing.get(name, "")})
    return {"given": f"{value:g} {scale}", "standard": f"{source_label(STANDARD)}, table A.1", "scales": rows}


@router.get("/derive", response=list[DerivedRow])
def derive_material(request: HttpRequest, group: int, hardness_low: str, hardness_high: str) -> list[dict[str, Any]]:
    """What a material of a group and hardness would be, each number with its reason."""
    low, high = (_brinell(text, group, name) for text, name in ((hardness_low, "hardness_low"), (hardness_high, "hardness_high")))
    found = derive(group, low, high)
    return [
        {"name": name, "value": value if isinstance(value, str) else f"{value:g}", "reason": found.reasons[name]}
        for name, value in found.numbers.items()
    ]


@router.get("/materials/{name}", response=MaterialSheet)
def read_material(request: HttpRequest, name: str) -> dict[str, Any]:
    """The sheet of a material."""
    row = get_object_or_404(Material, key=plain(name))
    core = row.to_core()
    facts = [
        ("kc1.1", display(core.specific_force_1, "stress")),
        ("mc", display(core.force_exponent, "number")),
        ("tensile strength", display(core.strength, "stress")),
        ("thermal conductivity, W/(m·K)", display(core.conductivity, "number")),
        ("density, g/cm³", display(core.density, "number")),
        ("specific heat, kJ/(kg·K)", display(core.specific_heat, "number")),
        ("expansion, 10⁻⁶/K", display(core.expansion, "number")),
        ("modulus of elasticity", display(core.elastic_modulus, "stress")),
    ]
    speeds = []
    for tool_class in ("carbide", "cermet", "ceramic", "cbn", "pcd", "hss"):
        if law := life_law(core.speed_row, tool_class):
            speeds.append(
                {
                    "label": {"hss": "HSS", "cbn": "CBN", "pcd": "PCD"}.get(tool_class, tool_class),
                    "display": display(law.reference_speed, "cutting_speed"),
                    "source": f"15 min of life at depth {law.reference_depth:g} mm; common practice",
                }
            )
    near = neighbours(core, (m.to_core() for m in Material.objects.filter(archived_at=None)))
    return _row(row) | {
        "facts": [_fact(label, shown, source_label(row.source)) for label, shown in facts],
        "speeds": speeds,
        "traits": [as_plain(t) for t in traits(core)],
        "neighbours": [as_plain(n) for n in near],
    }


def _brinell(text: str, group: int, field: str) -> float:
    if group not in groups():
        return float(read_hardness(refuse_long(text, 40, field), field)[0])  # the group's own refusal comes from `derive`
    return round(brinell(refuse_long(text, 40, field), groups()[group], field), 1)


def _fact(label: str, shown: Display, source: str) -> dict[str, Any]:
    return {"label": label, "display": shown, "source": source}


def _row(m: Material) -> dict[str, Any]:
    core = m.to_core()
    return {
        "id": m.pk,
        "name": m.name,
        "number": m.number,
        "aliases": list(core.aliases),
        "group": m.group,
        "letter": m.letter,
        "group_name": f"{core.group.description}, {core.group.condition}",
        "hardness": told(m.hardness_low, m.hardness_high),
        "source": source_label(m.source),
        "from_memory": m.from_memory,
    }
