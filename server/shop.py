"""The shop's own tools, materials and machines as the core's library, kept until a row changes."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from threading import Lock
from typing import Any, TypeVar

from django.db.models import Count, Max, Model

from cutting.doors.json_form import Library
from cutting.machine.machines import Machine as CoreMachine
from cutting.names import find, index
from cutting.tooling.crib import Crib
from cutting.workpiece.materials import Material as CoreMaterial
from server.crib.models import Geometry, Grade, Holder, Insert
from server.floor.models import Machine
from server.shelf.models import Material

Thing = TypeVar("Thing")
Version = tuple[Any, ...]


@dataclass(frozen=True)
class Shop:
    """One state of crib, shelf and floor. `version` changes whenever a row of them does."""

    version: Version
    library: Library
    crib: Crib


_lock = Lock()
_kept: Shop | None = None


def shop() -> Shop:
    """The shop as it is now: four small queries when nothing has changed. Ask once per request and pass it on."""
    global _kept
    version = tuple(_version_of(model) for model in (Insert, Holder, Material, Machine))
    with _lock:
        if _kept is None or _kept.version != version:
            _kept = _build(version)
        return _kept


def _version_of(model: type[Model]) -> Version:
    rows = model.objects.aggregate(count=Count("pk"), changed=Max("changed"), last=Max("pk"))  # type: ignore[attr-defined]
    return (rows["count"], rows["changed"], rows["last"])


def _build(version: Version) -> Shop:
    geometries = {g.pk: g.to_core() for g in Geometry.objects.all()}
    grades = {g.pk: g.to_core() for g in Grade.objects.all()}
    crib = Crib(
        tuple(i.to_core(geometries, grades) for i in Insert.objects.order_by("pk")),
        tuple(h.to_core() for h in Holder.objects.order_by("pk")),
    )
    materials: list[CoreMaterial] = [m.to_core() for m in Material.objects.order_by("pk")]
    machines: list[CoreMachine] = [m.to_core() for m in Machine.objects.order_by("pk")]
    library = Library(
        material=_finder("material", [((m.name, m.number, *m.aliases), m) for m in materials]),
        machine=_finder("machine", [((m.name,), m) for m in machines]),
        insert=_finder("insert", [((i.name,), i) for i in crib.inserts]),
        holder=_finder("holder", [((h.designation,), h) for h in crib.holders]),
        crib=lambda: crib,
    )
    return Shop(version, library, crib)


def _finder(what: str, named: list[tuple[Iterable[str], Thing]]) -> Callable[[str], Thing]:
    known = index(named)
    first_names = [next(iter(names)) for names, _ in named]
    return lambda name: find(name, known, what, what, first_names)
