"""Look up tools, and read designations."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router, Schema

from cutting.names import plain
from cutting.quantities.write import display
from cutting.tooling.designation import CLAMPINGS, read_holder_code, read_insert_code
from cutting.tooling.shapes import SHAPES
from server.crib.models import Geometry, Grade, Holder
from server.shop import shop
from server.units import DisplayOut, Point

router = Router()
MOST_ROWS = 300


class InsertRow(Schema):
    name: str
    designation: str
    geometry: str
    purpose: str
    grade: str
    substrate: str
    shape: str
    edges: int
    price: DisplayOut
    edge_price: DisplayOut
    nose_radius: DisplayOut
    bin: str
    quantity: int
    holders: list[str]
    source: str


class HolderRow(Schema):
    designation: str
    clamping: str
    shape: str
    cutting_edge_angle: str
    operations: list[str]
    shank: DisplayOut
    overhang: DisplayOut
    coolant: str
    source: str


class GeometryRow(Schema):
    name: str
    purpose: str
    suits: str
    window: list[Point]
    rake: DisplayOut
    edge_radius: DisplayOut
    wiper: bool
    source: str


class GradeRow(Schema):
    name: str
    substrate: str
    spans: list[str]
    toughness: float
    source: str


class ReadingFact(Schema):
    label: str
    display: DisplayOut


class Reading(Schema):
    """A designation, read: what each part says."""

    designation: str
    kind: str
    facts: list[ReadingFact]


@router.get("/inserts", response=list[InsertRow])
def list_inserts(request: HttpRequest, q: str = "", shape: str = "", letter: str = "") -> list[dict[str, Any]]:
    """Inserts by any words of designation, geometry or grade; by shape letter; by ISO 513 group served."""
    crib = shop().crib
    words = [plain(word) for word in q.split()]
    pairs: dict[int, list[str]] = {}
    left, right = crib.pairs
    for i, h in zip(left.tolist(), right.tolist(), strict=True):
        pairs.setdefault(i, []).append(crib.holders[h].designation)
    found = []
    for place, insert in enumerate(crib.inserts):
        code = insert.code
        text = plain(insert.name)
        if (shape and code.shape != shape) or (letter and letter not in insert.grade.letters):
            continue
        if not all(word in text for word in words):
            continue
        found.append(
            {
                "name": insert.name,
                "designation": insert.designation,
                "geometry": insert.geometry.name,
                "purpose": insert.geometry.purpose,
                "grade": insert.grade.name,
                "substrate": insert.grade.substrate,
                "shape": SHAPES[code.shape].name,
                "edges": insert.edges,
                "price": display(insert.price, "money"),
                "edge_price": display(insert.price / insert.edges, "money"),
                "nose_radius": display(code.nose_radius, "length"),
                "bin": insert.bin,
                "quantity": insert.quantity,
                "holders": pairs.get(place, []),
                "source": insert.source,
            }
        )
    return found[:MOST_ROWS]


@router.get("/holders", response=list[HolderRow])
def list_holders(request: HttpRequest, q: str = "") -> list[dict[str, Any]]:
    found = []
    for row in Holder.objects.all()[:MOST_ROWS]:
        holder = row.to_core()
        code = holder.code
        if plain(q) not in plain(holder.designation):
            continue
        found.append(
            {
                "designation": holder.designation,
                "clamping": CLAMPINGS[code.clamping],
                "shape": SHAPES[code.shape].name,
                "cutting_edge_angle": f"{code.cutting_edge_angle:g}°",
                "operations": list(code.operations),
                "shank": {
                    s: f"{getattr(display(code.shank_height, 'length', False), s)} × {getattr(display(code.shank_width, 'length'), s)}"
                    for s in ("metric", "inch")
                },
                "overhang": display(holder.overhang, "length"),
                "coolant": holder.coolant,
                "source": holder.source,
            }
        )
    return found


@router.get("/geometries", response=list[GeometryRow])
def list_geometries(request: HttpRequest) -> list[dict[str, Any]]:
    return [
        {
            "name": g.name,
            "purpose": g.purpose,
            "suits": g.suits,
            "window": g.window,
            "rake": display(g.groove_rake, "angle"),
            "edge_radius": display(g.edge_radius, "small_length"),
            "wiper": g.wiper,
            "source": g.source,
        }
        for g in Geometry.objects.all()
    ]


@router.get("/grades", response=list[GradeRow])
def list_grades(request: HttpRequest) -> list[dict[str, Any]]:
    return [
        {
            "name": g.name,
            "substrate": g.substrate,
            "spans": [f"{s[0]}{s[1]:02d}–{s[0]}{s[2]:02d}" for s in g.spans],
            "toughness": g.toughness,
            "source": g.source,
        }
        for g in Grade.objects.all()
    ]


@router.get("/read", response=Reading)
def read_designation(request: HttpRequest, designation: str) -> dict[str, Any]:
    """Read an insert or holder designation; a wrong one is refused with the position at fault."""
    text = designation.strip()[:60]
    looks_like_holder = len(plain(text)) > 5 and plain(text)[4].isalpha()
    if looks_like_holder:
        h = read_holder_code(text)
        facts = [
            ("clamping", CLAMPINGS[h.clamping]),
            ("shape", SHAPES[h.shape].name),
            ("κr", display(h.cutting_edge_angle, "angle")),
            ("hand", {"R": "right", "L": "left", "N": "neutral"}[h.hand]),
            ("shank height", display(h.shank_height, "length")),
            ("shank width", display(h.shank_width, "length")),
            ("length", display(h.length, "length")),
        ]
        return {"designation": text, "kind": "holder", "facts": [_both(label, value) for label, value in facts]}
    c = read_insert_code(text)
    facts = [
        ("shape", SHAPES[c.shape].name),
        ("inscribed circle", display(c.inscribed_circle, "length")),
        ("edge length", display(c.edge_length, "length")),
        ("thickness", display(c.thickness, "length")),
        ("corner radius", display(c.nose_radius, "length")),
        ("edges", f"{c.corners} corners × {c.sides} sides = {c.corners * c.sides}" if c.corners else "round: counted by depth"),
    ]
    return {"designation": text, "kind": "insert", "facts": [_both(label, value) for label, value in facts]}


def _both(label: str, value: Any) -> dict[str, Any]:
    return {"label": label, "display": {"metric": value, "inch": value} if isinstance(value, str) else value}
