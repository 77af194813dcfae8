"""How tools, geometries, grades and supplier's windows are kept."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from cutting.exchange.columns import Record
from cutting.exchange.tables import GEOMETRIES, GRADES, TOOLS, WINDOWS
from cutting.money.cost import solid_tool_cost
from cutting.names import plain
from cutting.tooling.drills import DRILL_KINDS, REGRIND_SHARE
from cutting.tooling.items import read_spans
from cutting.tooling.mills import MILL_KINDS
from cutting.tooling.records import properties, study, tool_name
from cutting.tooling.shapes import SHAPES, edge_length
from cutting.tooling.taps import TAP_KINDS
from cutting.tooling.thread_mills import THREAD_MILL_KINDS
from server.crib.models import Geometry, Grade, Tool, Window
from server.records.keeper import Keeper, unknown_name

SOLID_THREADING = (*TAP_KINDS, *THREAD_MILL_KINDS)  # one edge, not reground
_PLAIN = tuple(column.name for column in TOOLS.columns if column.name not in (*properties(), "geometry", "grade"))


class GeometryKeeper(Keeper):
    """Geometries between records and rows."""

    table, room, model = GEOMETRIES, "crib", Geometry

    def to_record(self, row: Geometry) -> Record:
        return {**super().to_record(row), "window": tuple((f, a) for f, a in row.window)}

    def to_fields(self, record: Record, names: dict[str, dict[str, int]]) -> dict[str, Any]:
        return {**record, "window": [list(point) for point in record["window"]]}

    def used_names(self, row: Any) -> list[tuple[str, str]]:
        return [("tools", name) for name in Tool.objects.filter(geometry=row).values_list("name", flat=True)]


class GradeKeeper(Keeper):
    """Grades between records and rows."""

    table, room, model = GRADES, "crib", Grade

    def to_record(self, row: Grade) -> Record:
        return {**super().to_record(row), "spans": tuple(f"{a}{b:02d}-{a}{c:02d}" for a, b, c in row.spans)}

    def to_fields(self, record: Record, names: dict[str, dict[str, int]]) -> dict[str, Any]:
        spans = read_spans(record["spans"])
        return {**record, "spans": [list(span) for span in spans], "letters": "".join(span[0] for span in spans)}

    def used_names(self, row: Any) -> list[tuple[str, str]]:
        return [("tools", name) for name in Tool.objects.filter(grade=row).values_list("name", flat=True)]


class ToolKeeper(Keeper):
    """Tools between records and rows."""

    table, room, model, related = TOOLS, "crib", Tool, ("geometry", "grade")

    def to_record(self, row: Tool) -> Record:
        record = {name: getattr(row, name) for name in _PLAIN}
        record["pack_price"] = float(row.pack_price)
        record["geometry"] = row.geometry.name if row.geometry else ""
        record["grade"] = row.grade.name if row.grade else ""
        return record | {symbol: row.properties.get(symbol) for symbol in properties()}

    def names_needed(self, records: Iterable[Record]) -> dict[str, dict[str, Any]]:
        return {
            "geometry": {row.key: (row.pk, row.name) for row in Geometry.objects.only("key", "name")},
            "grade": {row.key: (row.pk, row.name) for row in Grade.objects.only("key", "name")},
        }

    def finish(self, record: Record, names: dict[str, dict[str, Any]]) -> Record:
        made = super().finish(record, names)
        for column in ("geometry", "grade"):
            if made[column]:
                found = names[column].get(plain(made[column]))
                if found is None:
                    raise unknown_name(column, made[column], column)
                made[column] = found[1]
        return made

    def to_fields(self, record: Record, names: dict[str, dict[str, Any]]) -> dict[str, Any]:
        added = {symbol: record[symbol] for symbol in properties() if record.get(symbol) is not None}
        found, _ = study(record["kind"], record["designation"], added)
        says = {**found.says, **added}
        edges = int(says.get("CEDC") or 0)
        circle = says.get("IC")
        form = SHAPES.get(found.shape)
        name = tool_name(record["designation"], record["geometry"], record["grade"])
        each = record["pack_price"] / record["pack_size"]
        fields = {column: record[column] for column in _PLAIN}
        return fields | {
            "geometry_id": names["geometry"][plain(record["geometry"])][0] if record["geometry"] else None,
            "grade_id": names["grade"][plain(record["grade"])][0] if record["grade"] else None,
            "name": name,
            "name_key": plain(name),
            "inch_designation": found.inch_designation,
            "properties": added,
            "seat": found.seat,
            "edges": edges,
            "edge_price": _life_price(record, each, edges, found.sides),
            "said": {
                "shape": found.shape,
                "clearance": found.clearance,
                "hand": found.hand,
                "sides": found.sides,
                "tips": found.tips,
                "circle": circle,
                "thickness": says.get("S"),
                "nose_radius": says.get("RE"),
                "edge_length": says.get("L") or (edge_length(form, circle) if form and circle else None),
                "angle": says.get("KAPR"),
                "section": says.get("H") or says.get("DCONMS"),
                "width": says.get("CW"),
                "diameter": says.get("DC"),
                "pitch": says.get("TP"),
            },
        }


def _life_price(record: Record, each: float, edges: int, sides: int) -> float:
    """Money of one edge, or of one life of a tool that is reground."""
    if record["kind"] in (*DRILL_KINDS, *MILL_KINDS) and edges < 2:
        regrind = record.get("REGP")
        return float(solid_tool_cost(each, record.get("NORGMX") or 0, REGRIND_SHARE * each if regrind is None else regrind))
    return each / (edges or (1 if record["kind"] in SOLID_THREADING else 4 * sides))


class WindowKeeper(Keeper):
    """Suppliers' windows between records and rows."""

    table, room, model, related, owner = WINDOWS, "crib", Window, ("tool",), "tool"

    def to_record(self, row: Window) -> Record:
        return {c.name: row.tool.name if c.name == "tool" else getattr(row, c.name) for c in WINDOWS.columns}

    def names_needed(self, records: Iterable[Record]) -> dict[str, dict[str, Any]]:
        wanted = {plain(record["tool"]) for record in records}
        return {"tool": {row.name_key: (row.pk, row.name) for row in Tool.objects.filter(name_key__in=wanted).only("name_key", "name")}}

    def finish(self, record: Record, names: dict[str, dict[str, Any]]) -> Record:
        made = super().finish(record, names)
        found = names["tool"].get(plain(made["tool"]))
        if found is None:
            raise unknown_name("tool", made["tool"], "tool")
        return {**made, "tool": found[1]}

    def to_fields(self, record: Record, names: dict[str, dict[str, Any]]) -> dict[str, Any]:
        fields = {name: value for name, value in record.items() if name != "tool"}
        return {**fields, "tool_id": names["tool"][plain(record["tool"])][0]}

    def used_names(self, row: Any) -> list[tuple[str, str]]:
        return [("tools", row.tool.name)]
