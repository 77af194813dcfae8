"""Fills the floor from the shipped table; rows that exist are left as they are."""

from __future__ import annotations

from cutting.machine.machines import NUMBERS, machines
from server.floor.models import Machine

COLUMNS = (
    "name",
    "description",
    "power_curve",
    "curve_at",
    "speeds",
    "feeds",
    "constant_surface_speed",
    "sub_spindle",
    "coolant",
    "condition",
    "source",
)


def fill_floor() -> None:
    Machine.objects.bulk_create(
        [Machine(**{c: getattr(m, c) for c in COLUMNS}, numbers={n: getattr(m, n) for n in NUMBERS}) for m in machines()],
        ignore_conflicts=True,
    )
