"""The keeper of each open table, in the order in which an import must write them."""

from __future__ import annotations

from types import MappingProxyType

from server.crib.keepers import GeometryKeeper, GradeKeeper, ToolKeeper, WindowKeeper
from server.errors import Refusal
from server.floor.keeper import MachineKeeper, SpindleKeeper
from server.records.keeper import Keeper
from server.shelf.keeper import MaterialKeeper

KEEPERS: MappingProxyType[str, Keeper] = MappingProxyType(
    {
        keeper.table.name: keeper
        for keeper in (GeometryKeeper(), GradeKeeper(), ToolKeeper(), WindowKeeper(), MaterialKeeper(), MachineKeeper(), SpindleKeeper())
    }
)


def keeper_of(table: str) -> Keeper:
    """The keeper of a table. Raises a 404 refusal."""
    if table not in KEEPERS:
        raise Refusal(404, f"There is no table '{table[:40]}'; there are {', '.join(KEEPERS)}.")
    return KEEPERS[table]
