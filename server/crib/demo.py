"""Fills the crib from the shipped tables; rows that exist are left as they are."""

from __future__ import annotations

from dataclasses import asdict

from cutting.tooling import items
from server.crib.models import Geometry, Grade, Holder, Insert


def fill_crib() -> None:
    Geometry.objects.bulk_create([Geometry(**asdict(g)) for g in items.geometries().values()], ignore_conflicts=True)
    Grade.objects.bulk_create([Grade(**asdict(g)) for g in items.grades().values()], ignore_conflicts=True)
    Holder.objects.bulk_create([Holder(**asdict(h)) for h in items.holders()], ignore_conflicts=True)
    geometries = {g.name: g for g in Geometry.objects.all()}
    grades = {g.name: g for g in Grade.objects.all()}
    Insert.objects.bulk_create(
        [
            Insert(
                name=i.name,
                designation=i.designation,
                geometry=geometries[i.geometry.name],
                grade=grades[i.grade.name],
                pack_price=i.pack_price,
                pack_size=i.pack_size,
                tipped_edges=i.tipped_edges,
                bin=i.bin,
                quantity=i.quantity,
                price_date="2026-09",
                source=i.source,
            )
            for i in items.inserts()
        ],
        ignore_conflicts=True,
    )
