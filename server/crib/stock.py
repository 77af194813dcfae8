"""The whole crib as the core wants it, kept until a row changes."""

from __future__ import annotations

from threading import Lock
from typing import Any

from django.db.models import Count, Max

from cutting.names import find, plain
from cutting.tooling.crib import Crib
from cutting.tooling.items import Holder as CoreHolder
from cutting.tooling.items import Insert as CoreInsert
from server.crib.models import Geometry, Grade, Holder, Insert

_kept: dict[str, Any] = {}
_lock = Lock()


def stock() -> Crib:
    """The crib at its present version; one small query when nothing has changed."""
    version = stock_version()
    with _lock:
        if _kept.get("version") != version:
            geometries = {g.pk: g.to_core() for g in Geometry.objects.all()}
            grades = {g.pk: g.to_core() for g in Grade.objects.all()}
            inserts = tuple(i.to_core(geometries, grades) for i in Insert.objects.order_by("pk"))
            holders = tuple(h.to_core() for h in Holder.objects.order_by("pk"))
            _kept.update(
                version=version,
                crib=Crib(inserts, holders),
                inserts={plain(i.name): i for i in inserts},
                holders={plain(h.designation): h for h in holders},
            )
        return _kept["crib"]  # type: ignore[no-any-return]


def stock_version() -> tuple[Any, ...]:
    """Changes whenever a tool does."""
    inserts = Insert.objects.aggregate(n=Count("pk"), at=Max("changed"), last=Max("pk"))
    holders = Holder.objects.aggregate(n=Count("pk"), at=Max("changed"), last=Max("pk"))
    return tuple(inserts.values()) + tuple(holders.values())


def insert_named(name: str) -> CoreInsert:
    """An insert of the crib. Raises `UnknownName`."""
    crib = stock()
    return find(name, _kept["inserts"], "insert", "insert", (i.name for i in crib.inserts))


def holder_named(name: str) -> CoreHolder:
    """A holder of the crib. Raises `UnknownName`."""
    crib = stock()
    return find(name, _kept["holders"], "holder", "holder", (h.designation for h in crib.holders))


__all__ = ["holder_named", "insert_named", "stock", "stock_version"]
