"""Set-ups and requests from values that were read: the one way in behind every form of a set-up and every step of a plan."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Mapping
from functools import partial
from typing import Any

from cutting.doors.fields_form import in_own_kind
from cutting.doors.heavy_tool_form import find_grade, find_heavy_tool, shipped_heavy_tools
from cutting.errors import CuttingError
from cutting.machine.machines import Machine, find_machine
from cutting.operations.frame.fields import Base
from cutting.operations.frame.kind import Kind
from cutting.operations.frame.learned import UNTAUGHT, Learned
from cutting.operations.registry import KINDS, kind_of
from cutting.tooling.bought import find_shipped, shipped
from cutting.tooling.heavy.tool import HEAVY_KIND, HeavyTool
from cutting.tooling.items import Grade
from cutting.tooling.roles import Role, Stock, tool_at, with_guests
from cutting.working import Noting
from cutting.workpiece.materials import Material, find_material

Sections = Mapping[str, Mapping[str, Any]]


@dataclasses.dataclass(frozen=True)
class Wanted:
    """What a stock is asked for: the kinds of tool that may play each role of a kind of operation, on a machine in a material."""

    operation: str
    kinds: tuple[tuple[str, tuple[str, ...]], ...]  # by role
    material: Material
    machine: Machine

    @staticmethod
    def of(kind: Kind, feature: Mapping[str, Any], base: Base) -> Wanted:
        kinds = tuple((role.name, kind.kinds_for(role, dict(feature))) for role in kind.roles)
        return Wanted(kind.name, kinds, base.work.material, base.machine)


def from_tables(wanted: Wanted) -> Stock:
    """The shipped tools for an operation."""
    parts = {role: tuple(one for kind in kinds for one in _of_kind(kind)) for role, kinds in wanted.kinds}
    return kind_of(wanted.operation).gather(parts, "")


def _of_kind(kind: str) -> tuple[Any, ...]:
    return shipped_heavy_tools() if kind == HEAVY_KIND else shipped(kind)


def find_tool(role: Role, name: str) -> Any:
    """A shipped tool that plays a role, by name. Raises `UnknownName`."""
    return find_heavy_tool(name) if HEAVY_KIND in role.kinds else find_shipped(role, name)


def untaught(tool: Mapping[str, str], metals: tuple[str, ...]) -> Learned:
    """Nothing was learned of any tool."""
    return UNTAUGHT


@dataclasses.dataclass(frozen=True)
class Library:
    """Where names are looked up: the shipped tables, or a shop's own rows. `learned` tells what trials taught of a tool in metals."""

    material: Callable[[str], Material] = find_material
    machine: Callable[[str], Machine] = find_machine
    tool: Callable[[Role, str], Any] = find_tool
    stock: Callable[[Wanted], Stock] = from_tables
    learned: Callable[[Mapping[str, str], tuple[str, ...]], Learned] = untaught
    grade: Callable[[str], Grade] = find_grade

    def stock_for(self, kind: Kind, feature: Mapping[str, Any], base: Base) -> Any:
        """What there is to choose from for a feature. Raises `CuttingError` where there is nothing."""
        stock = self.stock(Wanted.of(kind, feature, base))
        if not len(stock.places[0]):
            raise CuttingError("crib", stock.note or "the crib stocks no tool for this.")
        return with_guests(stock, {name: partial(self.stock, Wanted.of(KINDS[name], {}, base)) for name in kind.guests})


def assembled(kind: Kind, base: Base, tool: Mapping[str, Any], sections: Sections, library: Library) -> Any:
    """The checked set-up of a kind from what was read: the tool's parts by role, by name or whole, values by section.

    Raises `CuttingError`.
    """
    parts = {role.name: _part(role, tool, library) for role in kind.roles}
    kind.fields.require("settings", sections["settings"])
    setup = kind.build(base, parts, _in_place(kind, base, sections, parts))
    setup.check()
    refuse_untaken(setup)
    return setup


def requested(kind: Kind, base: Base, sections: Sections, library: Library) -> tuple[Any, Any]:
    """The checked request of a kind, whose tool only stands for those that compete, and the stock of them. Raises `CuttingError`."""
    stock = library.stock_for(kind, sections["feature"], base)
    base = dataclasses.replace(base, learned=base.learned.elsewhere())  # of one tool nothing is taken: many compete
    given = _in_place(kind, base, sections, None)
    given["settings"] = {**dict(kind.neutral), **given["settings"]}
    setup = kind.build(base, tool_at(stock.parts, stock.places, 0), given)
    setup.check_case()
    return setup, stock


def _in_place(kind: Kind, base: Base, sections: Sections, parts: Mapping[str, Any] | None) -> dict[str, dict[str, Any]]:
    """The sections with speed and feed in their own kinds, and the coolant that is meant where none was said."""
    settings = in_own_kind(dict(sections["settings"]), dict(sections["feature"]), kind.fields, parts)
    if kind.fields.has("settings", "coolant") and settings.get("coolant") in (None, ""):
        settings["coolant"] = base.machine.usual_coolant
    return {**{name: dict(values) for name, values in sections.items()}, "settings": settings}


def _part(role: Role, tool: Mapping[str, Any], library: Library) -> Any:
    path = f"tool.{role.name}"
    name = tool.get(role.name)
    if name is None:
        raise CuttingError(path, "is missing.")
    if isinstance(name, HeavyTool):
        return name
    if not isinstance(name, str):
        raise CuttingError(path, "enter a name.")
    try:
        return library.tool(role, name)
    except CuttingError as error:
        error.field = path
        raise


def refuse_untaken(setup: Any) -> None:
    """Raise `CuttingError` for what was learned of a quantity that no number of this kind of operation rests on."""
    for name in setup.learned.of_one_tool:
        if name not in setup.TAKES:
            raise CuttingError(f"learned.{name}", f"is of a drill: nothing in '{setup.operation}' rests on it.")
    if not setup.factors:
        return
    noted = Noting(setup.factors)
    kind_of(setup.operation).model.run(setup, noted)
    for quantity in setup.factors:
        if quantity not in noted.stated:
            known = ", ".join(noted.stated)
            said = f"nothing in '{setup.operation}' rests on it; there are {known}."
            raise CuttingError(f"learned.{FORM_NAMES.get(quantity, quantity)}", said, known)


FORM_NAMES = {"margins": "margin"}  # in the form where the form has a name of its own
