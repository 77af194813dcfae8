"""Fills the shelf from the shipped table; rows that exist are left as they are."""

from __future__ import annotations

from cutting.exchange.tables import MATERIALS
from cutting.workpiece.materials import materials
from server.records.filling import fill


def fill_shelf() -> None:
    """The materials of the demo."""
    columns = [column.name for column in MATERIALS.columns if column.name != "group"]
    fill("materials", [{"group": m.group.number, **{name: getattr(m, name) for name in columns}} for m in materials()])
