"""How machines and their spindles are kept."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from cutting.exchange.columns import Record
from cutting.exchange.tables import MACHINES, SPINDLES
from cutting.machine.machines import FLAGS, MORE_NUMBERS, NUMBERS
from cutting.machine.spindle import NUMBERS as SPINDLE_NUMBERS
from cutting.names import plain
from server.floor.models import Machine, Spindle
from server.records.keeper import Keeper, unknown_name

_IN_NUMBERS = (*NUMBERS, *MORE_NUMBERS, *FLAGS)


class MachineKeeper(Keeper):
    """Machines between records and rows."""

    table, room, model = MACHINES, "floor", Machine

    def to_record(self, row: Machine) -> Record:
        core = row.to_core()
        return {column.name: getattr(core, column.name) for column in MACHINES.columns}

    def to_fields(self, record: Record, names: dict[str, dict[str, int]]) -> dict[str, Any]:
        fields = {name: value for name, value in record.items() if name not in _IN_NUMBERS}
        lists = {name: _listed(fields[name]) for name in ("power_curve", "coolant", "speeds", "feeds", "gear_set", "feed_set", "seats")}
        return {**fields, **lists, "numbers": {name: record[name] for name in _IN_NUMBERS}}


class SpindleKeeper(Keeper):
    """Further spindles between records and rows."""

    table, room, model, related, owner = SPINDLES, "floor", Spindle, ("machine",), "machine"

    def to_record(self, row: Spindle) -> Record:
        core = row.to_core()
        own = {"machine": row.machine.name, "spindle": row.spindle}
        return {column.name: own.get(column.name) or getattr(core, column.name) for column in SPINDLES.columns}

    def names_needed(self, records: Iterable[Record]) -> dict[str, dict[str, Any]]:
        wanted = {plain(record["machine"]) for record in records}
        return {"machine": {row.key: (row.pk, row.name) for row in Machine.objects.filter(key__in=wanted)}}

    def finish(self, record: Record, names: dict[str, dict[str, Any]]) -> Record:
        made = super().finish(record, names)
        found = names["machine"].get(plain(made["machine"]))
        if found is None:
            raise unknown_name("machine", made["machine"], "machine")
        return {**made, "machine": found[1]}

    def to_fields(self, record: Record, names: dict[str, dict[str, Any]]) -> dict[str, Any]:
        lists = {name: _listed(record[name]) for name in ("power_curve", "coolant", "speeds")}
        words = {name: record[name] for name in ("spindle", "curve_at", "interface", "source")}
        owner = names["machine"][plain(record["machine"])][0]
        return {**words, **lists, "machine_id": owner, "numbers": {name: record[name] for name in SPINDLE_NUMBERS}}

    def used_names(self, row: Any) -> list[tuple[str, str]]:
        return [("machines", row.machine.name)]


def _listed(values: Any) -> list[Any]:
    return [list(v) if isinstance(v, tuple) else v for v in values]
