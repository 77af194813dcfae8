"""Find tools, explain designations, show how a tool is drawn, held and recommended, and put assemblies together."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from django.http import HttpRequest
from ninja import Query, Router, Status

from cutting.advice.neighbours import neighbours
from cutting.chips.window import window_sides
from cutting.doors.plain import plain as as_plain
from cutting.errors import CuttingError
from cutting.names import plain
from cutting.nomenclature import source_label
from cutting.quantities import display, read_quantity, refuse_long
from cutting.tooling.decode import decode
from cutting.tooling.drills import CHUCK_KIND
from cutting.tooling.plan_view import holder_outline, insert_outline
from cutting.tooling.records import TOOL_KINDS, properties
from server.crib import schemas
from server.crib.assemblies import checks_of, parts_named, put_together, take_apart
from server.crib.index import FACETS, crib_index
from server.crib.models import Assembly, Geometry, Grade, Tool
from server.crib.round_tools import ROUND_KINDS, held_with, round_drawing, round_tool_out
from server.crib.things import to_core
from server.errors import Refusal
from server.people.roles import require_engineer
from server.shop import shop
from server.units import ticks

router = Router()
ISO_CODED = ("turning insert", "laydown threading insert", "turning holder", "boring bar")  # kinds whose designation says what they are
MOST_ROWS = 200


@router.get("/tools", response=schemas.ToolPage)
def list_tools(request: HttpRequest, filters: Query[schemas.ToolFilter]) -> dict[str, Any]:
    """One page of the crib: any words in any spelling, any combination of facets, with the counts of each facet."""
    index = crib_index()
    chosen = {name: getattr(filters, name) for name in FACETS}
    found = index.search(
        filters.q, chosen, filters.letter, filters.stocked, filters.archived, filters.offset, min(filters.limit, MOST_ROWS)
    )
    rows = Tool.objects.select_related("geometry", "grade").in_bulk(found.ids)
    return {
        "matched": found.matched,
        "total": found.total,
        "offset": filters.offset,
        "rows": [_row(rows[pk]) for pk in found.ids if pk in rows],
        "facets": [
            {"name": name, "values": [{"value": value, "count": count} for value, count in found.counts[name]]}
            for name in FACETS
            if found.counts[name]
        ],
    }


@router.get("/tools/{tool_id}", response=schemas.ToolSheet)
def read_tool(request: HttpRequest, tool_id: int) -> dict[str, Any]:
    """What a tool is: designation explained and drawn, edges and money, what holds it or what it holds, supplier's windows."""
    row = Tool.objects.select_related("geometry", "grade").filter(pk=tool_id).first()
    if row is None:
        raise Refusal(404, "There is no such tool.")
    try:
        said = _decoded(decode(row.designation)) if row.kind in ISO_CODED else None
    except CuttingError:
        said = None
    given = [
        {"symbol": symbol, "name": properties()[symbol].name, "display": _property(symbol, value)}
        for symbol, value in row.properties.items()
    ]
    return {
        **_row(row),
        "decoded": said,
        "properties": given,
        "windows": [_window(w) for w in row.windows.filter(archived_at=None)],
        "partners": _partners(row),
        "geometry_window": row.geometry.window if row.geometry else [],
        "round": round_tool_out(to_core(row)) if row.kind in ROUND_KINDS else None,
        "successor": row.successor,
        "successor_id": Tool.objects.filter(name=row.successor).values_list("pk", flat=True).first() if row.successor else None,
        "neighbours": _neighbours(row),
    }


def _neighbours(row: Tool) -> list[dict[str, Any]]:
    """The same edge in other grades of the crib; none of a tool without a geometry and a grade."""
    if row.grade is None or row.geometry is None:
        return []
    alike = Tool.objects.filter(kind=row.kind, designation=row.designation, geometry=row.geometry, archived_at=None)
    rows = {one.name: one for one in alike.exclude(pk=row.pk).select_related("grade").order_by("pk") if one.grade}
    found = neighbours(row.grade.to_core(), ((name, one.grade.to_core()) for name, one in rows.items() if one.grade))
    return [{"word": word, "id": rows[name].pk, "name": name} for word, name in found]


@router.get("/kinds", response=list[schemas.KindOut])
def list_kinds(request: HttpRequest) -> list[dict[str, Any]]:
    """The kinds of tool and what each may carry."""
    return [
        {"name": k.name, "carries": list(k.carries), "properties": list(k.properties), "required": list(k.required)}
        for k in TOOL_KINDS.values()
    ]


@router.get("/read", response=schemas.Decoded)
def read_designation(request: HttpRequest, designation: str) -> dict[str, Any]:
    """Explain a designation; a wrong one is refused with the position at fault and what is allowed there."""
    found = _decoded(decode(refuse_long(designation.strip(), 60, "designation")))
    holders = Tool.objects.filter(seat=found["seat"], archived_at=None) if found["seat"] else Tool.objects.none()
    wanted = ("turning holder", "boring bar") if found["kind"] == "insert" else ("turning insert",)
    found["partners"] = list(holders.filter(kind__in=wanted).values_list("name", flat=True)[:30])
    key = plain(found["designation"])
    found["in_crib"] = Tool.objects.filter(name_key__startswith=key, archived_at=None).count() if key else 0
    return found


@router.get("/geometries", response=list[schemas.GeometryRow])
def list_geometries(request: HttpRequest) -> list[dict[str, Any]]:
    """The geometries of the crib."""
    return [_geometry(g) for g in Geometry.objects.filter(archived_at=None)]


@router.post("/geometries/hull", response=schemas.Hull)
def read_window(request: HttpRequest, payload: schemas.PointsIn) -> dict[str, Any]:
    """The field that dragged points enclose: its outer corners, as the rules read it."""
    if any(len(point) != 2 or not all(0 < value < 100 for value in point) for point in payload.points):
        raise Refusal(422, "points: each is a feed and a depth above 0.", [{"field": "points", "message": "a feed and a depth each"}])
    try:
        sides = window_sides(tuple((f, a) for f, a in payload.points))
    except ValueError as error:
        raise Refusal(422, f"window: {error}.", [{"field": "window", "message": str(error)}]) from error
    feed_top = max(0.3, 1.25 * max(p[0] for p in payload.points))
    depth_top = max(0.5, 1.25 * max(p[1] for p in payload.points))
    system = "inch" if payload.units == "inch" else "metric"
    return {
        "hull": [list(p) for p in sides.hull],
        "points": [{"feed": display(p[0], "feed_per_rev"), "depth": display(p[1], "length")} for p in payload.points],
        "feed_top": feed_top,
        "depth_top": depth_top,
        "feed_ticks": ticks(feed_top, "feed_per_rev", system, 7),
        "depth_ticks": ticks(depth_top, "length", system, 7),
    }


@router.get("/grades", response=list[schemas.GradeRow])
def list_grades(request: HttpRequest) -> list[dict[str, Any]]:
    """The grades of the crib."""
    return [
        {
            "id": g.pk,
            "name": g.name,
            "tool_class": g.tool_class,
            "substrate": g.substrate,
            "coating": g.coating,
            "spans": [f"{s[0]}{s[1]:02d}–{s[0]}{s[2]:02d}" for s in g.spans],
            "bars": [list(s) for s in g.spans],
            "main_letter": g.main_letter,
            "toughness": g.toughness,
            "temperature_limit": f"{g.temperature_limit:.0f} °C" if g.temperature_limit else "–",
            "source": g.source,
        }
        for g in Grade.objects.filter(archived_at=None)
    ]


@router.post("/fit", response=list[schemas.CheckOut])
def check_fit(request: HttpRequest, payload: schemas.FitIn) -> Any:
    """Every rule of an assembly with its reason."""
    over = payload.overhang
    reach = read_quantity(over, "length", system=payload.units, field="overhang").value if over else None
    on = shop().library.machine(payload.machine) if payload.machine else None
    return [as_plain(c) for c in checks_of(parts_named(payload.tool), on, reach)]


@router.get("/assemblies", response=list[schemas.AssemblyOut])
def list_assemblies(request: HttpRequest) -> list[dict[str, Any]]:
    """The assemblies of the crib."""
    return [_assembly(a) for a in Assembly.objects.filter(archived_at=None).prefetch_related("parts__tool__geometry", "parts__tool__grade")]


@router.post("/assemblies", response={201: schemas.AssemblyOut})
def add_assembly(request: HttpRequest, payload: schemas.AssemblyIn) -> Status:
    """Put an insert into a holder, at an overhang, in a pocket of a machine."""
    require_engineer(request)
    return Status(201, _assembly(put_together(payload.dict())))


@router.delete("/assemblies/{assembly_id}", response={204: None})
def take_apart_assembly(request: HttpRequest, assembly_id: int) -> Status:
    """Take an assembly apart; its tools stay."""
    require_engineer(request)
    take_apart(assembly_id)
    return Status(204, None)


def _row(row: Tool) -> dict[str, Any]:
    each = float(row.pack_price) / row.pack_size
    return {
        "id": row.pk,
        "kind": row.kind,
        "name": row.name,
        "designation": row.designation,
        "inch_designation": row.inch_designation,
        "geometry": row.geometry.name if row.geometry else "",
        "purpose": row.geometry.purpose if row.geometry else "",
        "grade": row.grade.name if row.grade else "",
        "substrate": row.grade.substrate if row.grade else "",
        "edges": row.edges or None,
        "nose_radius": _size(row, "nose_radius", "length"),
        "angle": _size(row, "angle", "angle"),
        "section": _size(row, "section", "length"),
        "width": _size(row, "width", "length"),
        "diameter": _size(row, "diameter", "length"),
        "price": display(each, "money"),
        "edge_price": display(row.edge_price, "money") if row.edges or row.kind in ROUND_KINDS else None,
        "own_number": row.own_number,
        "bin": row.bin,
        "quantity": row.quantity,
        "coolant": row.coolant,
        "source": source_label(row.source),
        "archived": row.archived_at is not None,
    }


def _size(row: Tool, name: str, kind: str) -> Any:
    value = row.said.get(name)
    return None if value is None else display(value, kind)


def _decoded(found: Any) -> dict[str, Any]:
    made = {**as_plain(found), "standard": source_label(found.standard), "partners": [], "in_crib": 0}
    if found.drawing:
        sizes = {"circle": found.drawing.inscribed_circle, "thickness": found.drawing.thickness, "nose": found.drawing.nose_radius}
        made["drawing"] |= {f"{name}_display": display(value, "length") for name, value in sizes.items()}
    return made


def _property(symbol: str, value: Any) -> dict[str, str]:
    if isinstance(value, (int, float)) and properties()[symbol].kind != "text":
        shown = display(value, properties()[symbol].kind)
        return {"metric": shown.metric, "inch": shown.inch}
    return {"metric": str(value), "inch": str(value)}


def _window(w: Any) -> dict[str, Any]:
    def span(name: str, kind: str) -> dict[str, Any]:
        values = {part: getattr(w, f"{name}_{part}") for part in ("min", "start", "max")}
        return {part: display(value, kind) if value is not None else None for part, value in values.items()}

    return {
        "id": w.pk,
        "group": w.group,
        "speed": span("speed", "cutting_speed"),
        "feed": span("feed", "feed_per_rev"),
        "depth": span("depth", "length"),
        "source": w.source,
    }


def _partners(row: Tool) -> list[str]:
    """Holders that take an insert, or inserts that a holder takes; chucks that take a round tool, or tools that a chuck takes."""
    if row.kind in ROUND_KINDS or row.kind == CHUCK_KIND:
        return held_with(row)
    if not row.seat:
        return []
    kinds = ("turning holder", "boring bar") if row.kind == "turning insert" else ("turning insert",)
    if row.kind not in ("turning insert", "turning holder", "boring bar"):
        return []
    return list(Tool.objects.filter(seat=row.seat, kind__in=kinds, archived_at=None).values_list("name", flat=True)[:40])


def _geometry(g: Geometry) -> dict[str, Any]:
    core = g.to_core()
    return {
        "id": g.pk,
        "version": g.version,
        "name": g.name,
        "purpose": g.purpose,
        "suits": g.suits,
        "window": g.window,
        "rake": display(g.groove_rake, "angle"),
        "edge_radius": display(g.edge_radius, "small_length"),
        "curl_radius": display(core.curl_radius, "length") if core.curl_radius else None,
        "wiper": g.wiper,
        "flank": g.flank,
        "source": g.source,
    }


def _assembly(a: Assembly) -> dict[str, Any]:
    library = shop().library
    machine = library.machine(a.machine) if a.machine else None
    tool = a.tool
    checks = checks_of(tool, machine, a.overhang)
    return {
        "id": a.pk,
        "name": a.name,
        "tool": {role: one.name for role, one in tool.items()},
        "overhang": display(a.overhang, "length"),
        "machine": a.machine,
        "pocket": a.pocket,
        "note": a.note,
        "checks": [as_plain(c) for c in checks],
        "fits": all(c.fits for c in checks),
        "drawing": _plan(tool, a.overhang) if "holder" in tool else None,
        "round": round_drawing(tool),
    }


def _plan(tool: dict[str, Tool], overhang: float) -> dict[str, Any]:
    insert, holder = to_core(tool["insert"]), to_core(tool["holder"])
    return {
        "insert": insert_outline(insert, holder.code.cutting_edge_angle),
        "holder": holder_outline(replace(holder, overhang=overhang), insert),
    }
