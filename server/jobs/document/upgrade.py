"""Documents of earlier versions become the newest, with nothing lost."""

from __future__ import annotations

from typing import Any

from cutting.doors.json_form import per_tooth
from server.jobs.document.drawing import drawn_up

NARROW = ("cut off", "groove", "face groove", "trepan")  # kinds of version 1 whose tool is a grooving insert in a blade


def to_version_2(document: dict[str, Any]) -> dict[str, Any]:
    """Version 1 in version 2: a tool's parts go by their role, and what the drawing asks stands by itself."""
    operations = [{**one, "tool": _by_role(one), "spindle": "", "settings": _settings(one)} for one in document["operations"]]
    return drawn_up({**document, "version": 2, "operations": operations})


def _settings(operation: dict[str, Any]) -> dict[str, Any]:
    """The feed of trepanning is per edge, and says so."""
    said = dict(operation["settings"])
    if operation["operation"] == "trepan" and "feed_per_rev" in said:
        feed = said.pop("feed_per_rev")
        said["feed_per_tooth"] = per_tooth(feed)
    return said


def _by_role(operation: dict[str, Any]) -> dict[str, str]:
    insert, held = operation["tool"]["insert"], operation["tool"]["holder"]
    if not insert and not held:
        return {}
    return {"insert": insert, "blade" if operation["operation"] in NARROW else "holder": held}
