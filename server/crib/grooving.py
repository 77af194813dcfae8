"""Grooving inserts and the blades, bars and heads that carry them, from the crib's rows."""

from __future__ import annotations

from cutting.tooling.blades import USES, GrooveBlade, GrooveInsert, NarrowStock, groove_blade_of, groove_insert_of
from server.crib.models import Tool

MOST_INSERTS = 3000
PRE_ORDER = "in stock first, then the cheapest edge"


def to_groove_insert(row: Tool) -> GrooveInsert:
    """The core's insert of a row."""
    assert row.geometry
    assert row.grade
    price = float(row.pack_price) / row.pack_size
    return groove_insert_of(row.name, row.designation, row.geometry.to_core(), row.grade.to_core(), price, row.properties, row.source)


def to_groove_blade(row: Tool) -> GrooveBlade:
    """The core's blade, bar or head of a row."""
    price = float(row.pack_price) / row.pack_size
    return groove_blade_of(row.kind, row.designation, row.coolant, price, row.properties, row.source)


def grooving_stock(use: str, letter: str) -> NarrowStock:
    """What the crib stocks for a use (outside, inside, face, trepan) and may serve a metal of an ISO 513 letter."""
    kinds = [kind for kind, where in USES.items() if where == use]
    blades = tuple(to_groove_blade(row) for row in Tool.objects.filter(kind__in=kinds, archived_at=None).order_by("pk"))
    rows = Tool.objects.filter(kind="grooving insert", archived_at=None).select_related("geometry", "grade")
    note, count = "", rows.count()
    if count > MOST_INSERTS:
        rows = rows.filter(grade__letters__contains=letter, geometry__suits__contains=letter)
        note = f"{count:,} grooving inserts in the crib; at most {MOST_INSERTS:,} for group {letter} are looked at: {PRE_ORDER}."
    chosen = rows.order_by("-quantity", "edge_price", "pk")[:MOST_INSERTS] if note else rows.order_by("pk")
    return NarrowStock(tuple(to_groove_insert(row) for row in chosen), blades, note)
