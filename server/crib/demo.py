"""Fills the crib from the shipped tables; rows that exist are left as they are."""

from __future__ import annotations

from typing import Any

from cutting.exchange.columns import Record
from cutting.tables import read_table
from cutting.tooling import items
from cutting.tooling.bought import tool_rows
from cutting.tooling.records import properties
from server.crib.heavy import fill_heavy
from server.crib.models import Assembly, AssemblyPart, Tool
from server.records.filling import fill

PRICED = "2026-09"


def fill_crib() -> None:
    """The shipped tools of the demo."""
    fill("geometries", [_geometry(g) for g in items.geometries().values()])
    fill("grades", [_grade(g) for g in items.grades().values()])
    tools = [_insert(i) for i in items.inserts()] + [_holder(h) for h in items.holders()]
    fill("tools", tools + [_other(dict(row)) for row in tool_rows()])
    fill("windows", [_window(dict(row)) for row in read_table("tooling/windows.csv")])
    _assemblies()
    fill_heavy()


def _window(row: dict[str, str]) -> Record:
    words = ("tool", "source", "from_memory")
    numbers: Record = {name: float(text) if text else None for name, text in row.items() if name not in words}
    return {**numbers, "tool": row["tool"], "group": int(row["group"]), "source": row["source"]}


def _geometry(g: items.Geometry) -> Record:
    return {name: getattr(g, name) for name in g.__dataclass_fields__} | {"from_memory": False}


def _grade(g: items.Grade) -> Record:
    spans = tuple(f"{a}{b:02d}-{a}{c:02d}" for a, b, c in g.spans)
    return {name: getattr(g, name) for name in g.__dataclass_fields__} | {"spans": spans, "from_memory": False}


def _blank(kind: str, designation: str, source: str, **more: Any) -> Record:
    stock = {
        "geometry": "",
        "grade": "",
        "own_number": "",
        "pack_price": 0.0,
        "pack_size": 1,
        "price_date": PRICED,
        "bin": "",
        "successor": "",
        "quantity": 0,
    }
    base = {"kind": kind, "designation": designation, **stock, "coolant": "flood", **dict.fromkeys(properties())}
    return {**base, "source": source, "from_memory": False, **more}


def _insert(i: items.Insert) -> Record:
    return _blank(
        "turning insert",
        i.designation,
        i.source,
        geometry=i.geometry.name,
        grade=i.grade.name,
        pack_price=i.pack_price,
        pack_size=i.pack_size,
        bin=i.bin,
        quantity=i.quantity,
        CEDC=i.tipped_edges,
    )


def _holder(h: items.Holder) -> Record:
    return _blank("turning holder", h.designation, h.source, pack_price=h.price, quantity=1, coolant=h.coolant, OHN=h.overhang)


def _other(row: dict[str, str]) -> Record:
    given = {symbol: _property(symbol, row[symbol]) if row.get(symbol) else None for symbol in properties() if symbol in row}
    more = {name: row[name] for name in ("geometry", "grade", "bin", "coolant") if row[name]}
    stock = {"pack_price": float(row["pack_price"]), "pack_size": int(row["pack_size"]), "quantity": int(row["quantity"])}
    return _blank(row["kind"], row["designation"], row["source"], **more, **stock, **given)


def _property(symbol: str, text: str) -> float | str:
    return text if properties()[symbol].kind == "text" else float(text)


# the two parts, by what cuts; else a drill
ROLES = {"turning insert": ("insert", "holder"), "grooving insert": ("insert", "blade"), "end mill": ("mill", "chuck")}


def _assemblies() -> None:
    for name, insert, held, overhang, machine, pocket in (
        ("Rough right", "CNMG 120412 middle P20 CVD", "PCLNR 2525 M12", 25, "two-axis lathe", "1"),
        ("Bore Ø20 up", "CCMT 09T304 light positive P10 CVD", "A16R-SCLCR 09", 60, "two-axis lathe", "5"),
        ("Finish right", "TNMG 160404 light P10 CVD", "MTJNR 2525 M16", 28, "two-axis lathe", "3"),
        ("Holes Ø8.5", "carbide 5xD 8.5 K30 fine PVD", "shrink BT40 for 10", 62, "machining centre", "12"),
        ("Grooves to 18 deep", "edge 4 turn middle positive K15 CVD", "screw holder 4 reach 18", 24, "two-axis lathe", "7"),
    ):
        rows = {tool.name: tool for tool in Tool.objects.filter(name__in=(insert, held))}
        if len(rows) == 2 and not Assembly.objects.filter(name=name).exists():
            cuts, seat = ROLES.get(rows[insert].kind, ("drill", "chuck"))
            made = Assembly.objects.create(name=name, overhang=overhang, machine=machine, pocket=pocket)
            AssemblyPart.objects.bulk_create(
                [AssemblyPart(assembly=made, role=role, tool=rows[part]) for role, part in ((cuts, insert), (seat, held))]
            )
