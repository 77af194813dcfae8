"""What a machine's condition forbids: a loose spindle breaks brittle edges (common practice, no source)."""

from __future__ import annotations

from types import MappingProxyType

CONDITIONS = ("new", "sound", "worn")
FORBIDDEN: MappingProxyType[str, frozenset[str]] = MappingProxyType(
    {"new": frozenset(), "sound": frozenset(), "worn": frozenset({"ceramic", "cbn", "pcd", "cermet"})}
)
NOTES = MappingProxyType(
    {
        "new": "nothing is forbidden",
        "sound": "nothing is forbidden",
        "worn": "no cermet, ceramic, CBN or PCD: play in spindle or slides breaks brittle edges; "
        "carbide lives with more scatter, high-speed steel forgives",
    }
)
