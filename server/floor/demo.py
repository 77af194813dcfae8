"""Fills the floor from the shipped table; rows that exist are left as they are."""

from __future__ import annotations

from cutting.exchange.columns import Record
from cutting.exchange.tables import MACHINES, SPINDLES
from cutting.machine.machines import machines
from cutting.machine.spindle import Spindle
from server.records.filling import fill


def fill_floor() -> None:
    """The invented machines of the demo."""
    fill("machines", [{column.name: getattr(m, column.name) for column in MACHINES.columns} for m in machines()])
    fill("spindles", [_spindle(m.name, one) for m in machines() for one in m.further])


def _spindle(machine: str, one: Spindle) -> Record:
    own = {"machine": machine, "spindle": one.name}
    return {column.name: own.get(column.name) or getattr(one, column.name) for column in SPINDLES.columns}
