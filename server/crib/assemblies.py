"""Putting assemblies together and taking them apart."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from django.db import IntegrityError, transaction

from cutting.errors import CuttingError, UnknownName, require_between
from cutting.machine.machines import Machine
from cutting.names import plain
from cutting.operations.registry import KINDS
from cutting.quantities import read_quantity
from cutting.tooling.fitting import Check, blade_checks, drill_checks, fit_checks
from server.crib.models import Assembly, AssemblyPart, Tool
from server.crib.things import to_core
from server.errors import Refusal
from server.shop import shop

LEAST_OVERHANG, LARGEST_OVERHANG = 2, 1000  # mm


ALSO = {"holder": ("boring bar",)}  # kinds that may be put together before an operation uses them


def roles_of(names: Iterable[str]) -> dict[str, tuple[str, ...]]:
    """The kinds of tool by role for a tool of these parts, what carries the edge first. Raises `CuttingError`."""
    wanted = set(names)
    kinds = [kind for kind in KINDS.values() if {role.name for role in kind.roles} == wanted]
    if not kinds:
        known = " or ".join(sorted({" and ".join(role.name for role in kind.roles) for kind in KINDS.values()}))
        raise CuttingError("tool", f"no tool is put together of {' and '.join(names) or 'nothing'}; there are {known}.")
    return {
        role.name: tuple(dict.fromkeys(one for kind in kinds for one in kind.roles[k].kinds)) + ALSO.get(role.name, ())
        for k, role in enumerate(kinds[0].roles)
    }


def parts_named(names: dict[str, str]) -> dict[str, Tool]:
    """The crib's tools of those names by role. Raises `CuttingError` that names the role."""
    found = {}
    for role, kinds in roles_of(names).items():
        row = Tool.objects.select_related("geometry", "grade").filter(name_key=plain(names[role]), kind__in=kinds)
        found[role] = row.order_by("archived_at").first()
        if found[role] is None:
            raise UnknownName(role, f"no {' or '.join(kinds)} is called '{names[role][:80]}'.")
    return found


def checks_of(tool: dict[str, Tool], machine: Machine | None, overhang: float | None) -> tuple[Check, ...]:
    """Every rule of an assembly with its reason."""
    parts = {role: to_core(row) for role, row in tool.items()}
    if "chuck" in parts:
        return drill_checks(parts.get("drill") or parts["mill"], parts["chuck"], machine, overhang)
    if "blade" in parts:
        return blade_checks(parts["insert"], parts["blade"], machine)
    return fit_checks(parts["insert"], parts["holder"], machine, overhang)


def put_together(given: dict[str, Any]) -> Assembly:
    """A tool of its parts, at an overhang, on a machine. Raises `CuttingError`, or 409 for a name that is taken."""
    library = shop().library
    tool = parts_named(given["tool"])
    machine = library.machine(given["machine"]).name if given["machine"] else ""
    overhang = read_quantity(given["overhang"], "length", system=given["units"], field="overhang").value
    require_between("overhang", overhang, LEAST_OVERHANG, LARGEST_OVERHANG, "mm")
    taken = Refusal(409, f"name: an assembly is called '{given['name']}' already.", [{"field": "name", "message": "is taken"}])
    if Assembly.objects.filter(name=given["name"]).exists():
        raise taken
    try:
        with transaction.atomic():
            words = {name: given[name] for name in ("name", "pocket", "note")}
            made = Assembly.objects.create(overhang=overhang, machine=machine, **words)
            AssemblyPart.objects.bulk_create([AssemblyPart(assembly=made, role=role, tool=row) for role, row in tool.items()])
        return made
    except IntegrityError as error:  # somebody was first by a moment
        raise taken from error


def set_up_on(machine: str) -> dict[tuple[str, ...], str]:
    """The parts of each assembly on a machine, with its name and pocket."""
    parts = AssemblyPart.objects.filter(assembly__machine=machine, assembly__archived_at=None).order_by("pk")
    found: dict[tuple[str, str], list[str]] = {}
    for name, pocket, tool in parts.values_list("assembly__name", "assembly__pocket", "tool__name"):
        found.setdefault((name, pocket), []).append(tool)
    return {tuple(tool): f"{name}, pocket {pocket}" if pocket else name for (name, pocket), tool in found.items()}


def take_apart(assembly_id: int) -> None:
    """The tools go back into the crib; nothing else referred to the assembly. Raises a 404 refusal."""
    if not Assembly.objects.filter(pk=assembly_id).delete()[0]:
        raise Refusal(404, "There is no such assembly.")
