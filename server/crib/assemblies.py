"""Putting assemblies together and taking them apart."""

from __future__ import annotations

from typing import Any

from django.db import IntegrityError

from cutting.errors import UnknownName, require_between
from cutting.names import plain
from cutting.quantities import read_quantity
from server.crib.models import Assembly, Tool
from server.errors import Refusal
from server.shop import shop

LEAST_OVERHANG, LARGEST_OVERHANG = 2, 1000  # mm


HOLDING_KINDS = ("turning holder", "boring bar")


def holding_tool(name: str) -> Tool:
    """A holder or bar by its designation in any case. Raises `UnknownName`."""
    row = Tool.objects.filter(name_key=plain(name), kind__in=HOLDING_KINDS).order_by("archived_at").first()
    if row is None:
        raise UnknownName("holder", f"no holder or bar is called '{name[:80]}'.")
    return row


def put_together(given: dict[str, Any]) -> Assembly:
    """An insert in a holder, at an overhang, on a machine. Raises `CuttingError`, or 409 for a name that is taken."""
    library = shop().library
    insert, holder = library.insert(given["insert"]), holding_tool(given["holder"])
    machine = library.machine(given["machine"]).name if given["machine"] else ""
    overhang = read_quantity(given["overhang"], "length", system=given["units"], field="overhang").value
    require_between("overhang", overhang, LEAST_OVERHANG, LARGEST_OVERHANG, "mm")
    taken = Refusal(409, f"name: an assembly is called '{given['name']}' already.", [{"field": "name", "message": "is taken"}])
    if Assembly.objects.filter(name=given["name"]).exists():
        raise taken
    try:
        return Assembly.objects.create(
            name=given["name"],
            insert=Tool.objects.get(name_key=plain(insert.name), kind="turning insert"),
            holder=holder,
            overhang=overhang,
            machine=machine,
            pocket=given["pocket"],
            note=given["note"],
        )
    except IntegrityError as error:  # somebody was first by a moment
        raise taken from error


def set_up_on(machine: str) -> dict[tuple[str, str], str]:
    """Insert and holder of each assembly on a machine, with its name and pocket."""
    rows = Assembly.objects.filter(machine=machine, archived_at=None).select_related("insert", "holder")
    return {(a.insert.name, a.holder.name): f"{a.name}, pocket {a.pocket}" if a.pocket else a.name for a in rows}


def take_apart(assembly_id: int) -> None:
    """The tools go back into the crib; nothing else referred to the assembly. Raises a 404 refusal."""
    if not Assembly.objects.filter(pk=assembly_id).delete()[0]:
        raise Refusal(404, "There is no such assembly.")
