"""Machines of the floor as the core wants them."""

from __future__ import annotations

from cutting.machine.machines import Machine as CoreMachine
from cutting.names import find, plain
from server.floor.models import Machine


def machine_named(name: str) -> CoreMachine:
    """A machine by name. Raises `UnknownName` with near ones."""
    known = {plain(row.name): row for row in Machine.objects.all()}
    return find(name, known, "machine", "machine", (row.name for row in known.values())).to_core()
