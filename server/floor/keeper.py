"""How machines are kept."""

from __future__ import annotations

from typing import Any

from cutting.exchange.columns import Record
from cutting.exchange.tables import MACHINES
from cutting.machine.machines import FLAGS, MORE_NUMBERS, NUMBERS
from server.floor.models import Machine
from server.records.keeper import Keeper

_IN_NUMBERS = (*NUMBERS, *MORE_NUMBERS, *FLAGS)


class MachineKeeper(Keeper):
    table, room, model = MACHINES, "floor", Machine

    def to_record(self, row: Machine) -> Record:
        core = row.to_core()
        return {column.name: getattr(core, column.name) for column in MACHINES.columns}

    def to_fields(self, record: Record, names: dict[str, dict[str, int]]) -> dict[str, Any]:
        fields = {name: value for name, value in record.items() if name not in _IN_NUMBERS}
        lists = {
            name: [list(v) if isinstance(v, tuple) else v for v in fields[name]] for name in ("power_curve", "coolant", "speeds", "feeds")
        }
        return {**fields, **lists, "numbers": {name: record[name] for name in _IN_NUMBERS}}
