"""Fills the floor from the shipped table; rows that exist are left as they are."""

from __future__ import annotations

from cutting.exchange.tables import MACHINES
from cutting.machine.machines import machines
from server.records.filling import fill


def fill_floor() -> None:
    fill("machines", [{column.name: getattr(m, column.name) for column in MACHINES.columns} for m in machines()])
