"""Materials of the shelf as the core wants them, kept until a row changes."""

from __future__ import annotations

from typing import Any

from django.db.models import Count, Max

from cutting.names import find, index
from cutting.workpiece.materials import Material as CoreMaterial
from server.shelf.models import Material

_kept: dict[str, Any] = {}


def material_named(name: str) -> CoreMaterial:
    """A material by any of its names. Raises `UnknownName` with near ones."""
    version = tuple(Material.objects.aggregate(n=Count("pk"), at=Max("changed"), last=Max("pk")).values())
    if _kept.get("version") != version:
        known = [row.to_core() for row in Material.objects.order_by("pk")]
        _kept.update(version=version, names=[m.name for m in known], index=index(((m.name, m.number, *m.aliases), m) for m in known))
    return find(name, _kept["index"], "material", "material", _kept["names"])
