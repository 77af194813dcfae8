"""The shop's own tools, materials and machines as the core's library; what was looked up is kept until a room's stamp moves."""

from __future__ import annotations

import difflib
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass
from functools import cache
from threading import Lock
from typing import Any, TypeVar

from cutting.doors.json_form import Library, Wanted, read_learned
from cutting.errors import CuttingError, UnknownName
from cutting.machine.machines import Machine as CoreMachine
from cutting.names import plain
from cutting.operations.frame.learned import UNTAUGHT, Learned
from cutting.tooling.heavy.tool import HEAVY_KIND
from cutting.tooling.roles import Role, Stock
from cutting.workpiece.materials import Material as CoreMaterial
from cutting.workpiece.names import every_spelling, spellings
from server.crib.heavy_tools import find_grade, find_heavy
from server.crib.in_stock import TURNING, in_stock
from server.crib.models import Tool
from server.crib.narrow import candidates, wanted
from server.crib.things import to_core
from server.floor.models import Machine
from server.jobs.measured.learned import learned_of
from server.records.models import Stamp
from server.shelf.models import Material
from server.trials.held import beliefs

Thing = TypeVar("Thing")
Version = tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class Shop:
    """One state of crib, shelf and floor. `version` changes whenever a row of them does."""

    version: Version
    library: Library


_lock = Lock()
_kept: Shop | None = None


def shop() -> Shop:
    """The shop as it is now: one small query when nothing has changed. Ask once per request and pass it on."""
    global _kept
    version = version_of(Stamp.all())
    with _lock:
        if _kept is None or _kept.version != version:
            _kept = _build(version)
        return _kept


def version_of(stamps: dict[str, str]) -> Version:
    """What names a state of the shop, of the newest marks of its rooms."""
    return tuple(sorted(stamps.items()))


def _build(version: Version) -> Shop:
    stocks: dict[Any, Stock] = {}
    accepted = [one for one in beliefs() if _known(one)]
    material = _remembered(_material)

    def stock(asked: Wanted) -> Stock:
        if asked.kinds == TURNING:
            return candidates(version, wanted(asked.operation, asked.material.group.letter, asked.material.group.number, asked.machine))
        key = (asked.operation, asked.kinds, asked.material.group.letter)
        if key not in stocks:
            stocks[key] = in_stock(asked)
        return stocks[key]

    def tool(role: Role, name: str) -> Any:
        return found(role, plain(str(name)), str(name))

    @cache
    def found(role: Role, key: str, name: str) -> Any:  # what is archived is still found, for the jobs that use it
        if HEAVY_KIND in role.kinds:
            return find_heavy(name, find_grade)
        return to_core(_tool(name, role.title, *role.kinds))

    def learned(tool: Mapping[str, str], metals: tuple[str, ...]) -> Learned:
        """What traces taught of a drill in the metals that it goes through, and what was accepted of trials, for all tools."""
        traced = learned_of(tool["drill"], metals) if tool.get("drill") else None
        if not traced and not accepted:
            return UNTAUGHT
        return read_learned({**(traced or {}), "beliefs": accepted}, Library(material=material))

    return Shop(
        version,
        Library(
            material=material,
            machine=_remembered(_machine),
            tool=tool,
            stock=stock,
            learned=learned,
            grade=_remembered(find_grade),
        ),
    )


def _remembered(find: Callable[[str], Thing]) -> Callable[[str], Thing]:
    """Keep what was found under its spelling; what is archived is still found, for the jobs that use it."""
    known: dict[str, Thing] = {}

    def look_up(name: str) -> Thing:
        key = plain(str(name))
        if key not in known:
            known[key] = find(str(name))
        return known[key]

    return look_up


def _known(belief: dict[str, Any]) -> bool:
    """Whether what a belief is about is still on the shelf."""
    try:
        read_learned({"beliefs": [belief]}, Library(material=_material))
    except CuttingError:
        return False
    return True


def _tool(name: str, what: str, *kinds: str) -> Tool:
    row = Tool.objects.select_related("geometry", "grade").filter(name_key=plain(name), kind__in=kinds).order_by("archived_at").first()
    if row is None:
        alike = Tool.objects.filter(kind__in=kinds, name_key__startswith=plain(name)[:4], archived_at=None)
        near = alike.values_list("name", flat=True)[:200]
        raise _unknown(name, what, list(near))
    return row


def _material(name: str) -> CoreMaterial:
    row = Material.objects.filter(key=plain(name)).first()
    if row is not None:
        return row.to_core()
    # an alias, a number or a shortened name: few enough to look through, whole names first; what is archived comes last
    rows = list(Material.objects.order_by("archived_at", "pk"))
    names = [(row.name, row.number, *row.aliases.split(";")) for row in rows]
    whole, short = ([set(way(some)) for some in names] for way in (_whole, every_spelling))
    for spelled in spellings(name):
        for known in (whole, short):
            if found := next((row for row, some in zip(rows, known, strict=True) if spelled in some), None):
                return found.to_core()
    raise _unknown(name, "material", [row.name for row in rows if row.archived_at is None])


def _whole(names: Iterable[str]) -> Iterable[str]:
    return (plain(name) for name in names if name)


def _machine(name: str) -> CoreMachine:
    row = Machine.objects.filter(key=plain(name)).first()
    if row is None:
        raise _unknown(name, "machine", list(Machine.objects.filter(archived_at=None).values_list("name", flat=True)))
    return row.to_core()


def _unknown(name: str, what: str, names: list[str]) -> UnknownName:
    near: tuple[Any, ...] = tuple(difflib.get_close_matches(name, names, n=3, cutoff=0.4))
    hint = f" Near it: {', '.join(near)}." if near else ""
    return UnknownName(what, f"no {what} is called '{name[:80]}'.{hint}", None, near)
