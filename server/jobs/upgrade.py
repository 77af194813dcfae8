"""Documents of earlier versions become the newest, with nothing lost."""

from __future__ import annotations

from typing import Any

from server.jobs.drawing import drawn_up

NARROW = ("cut off", "groove", "face groove", "trepan")  # kinds of version 1 whose tool is a grooving insert in a blade


def to_version_2(document: dict[str, Any]) -> dict[str, Any]:
    """Version 1 in version 2: a tool's parts go by their role, and what the drawing asks stands by itself."""
    operations = [{**one, "tool": _by_role(one), "spindle": ""} for one in document["operations"]]
    return drawn_up({**document, "version": 2, "operations": operations})


def _by_role(operation: dict[str, Any]) -> dict[str, str]:
    insert, held = operation["tool"]["insert"], operation["tool"]["holder"]
    if not insert and not held:
        return {}
    return {"insert": insert, "blade" if operation["operation"] in NARROW else "holder": held}
