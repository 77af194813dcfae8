"""The thing of the core that a row of the crib is."""

from __future__ import annotations

from typing import Any

from cutting.tooling.bought import Bought, made
from server.crib.models import Tool


def to_core(row: Tool) -> Any:
    """The thing of the core that a row is. Raises `CuttingError` for a kind that no operation uses yet."""
    return made(
        Bought(
            row.kind,
            row.name,
            row.designation,
            row.geometry.to_core() if row.geometry else None,
            row.grade.to_core() if row.grade else None,
            float(row.pack_price),
            row.pack_size,
            row.bin,
            row.quantity,
            row.coolant,
            row.properties,
            row.source,
            tuple(w.to_core() for w in row.windows.all() if w.archived_at is None) if row.grade else (),
        )
    )
