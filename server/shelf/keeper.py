"""How materials are kept."""

from __future__ import annotations

from typing import Any

from cutting.exchange.columns import Record
from cutting.exchange.tables import MATERIALS
from cutting.workpiece.materials import groups
from cutting.workpiece.user_material import NUMBERS
from server.records.keeper import Keeper
from server.shelf.models import Material


class MaterialKeeper(Keeper):
    """Materials between records and rows."""

    table, room, model = MATERIALS, "shelf", Material

    def to_record(self, row: Material) -> Record:
        plain_columns = {c.name: getattr(row, c.name) for c in MATERIALS.columns if c.name not in (*NUMBERS, "aliases")}
        return {**plain_columns, "aliases": tuple(a for a in row.aliases.split(";") if a), **{n: row.numbers[n] for n in NUMBERS}}

    def to_fields(self, record: Record, names: dict[str, dict[str, int]]) -> dict[str, Any]:
        fields = {name: value for name, value in record.items() if name not in NUMBERS}
        letter = groups()[record["group"]].letter
        return {**fields, "aliases": ";".join(record["aliases"]), "letter": letter, "numbers": {n: record[n] for n in NUMBERS}}
