"""What was accepted of trials, as the core takes it."""

from __future__ import annotations

from typing import Any

from server.trials.models import Taught


def holding() -> list[Taught]:
    """What was accepted and holds."""
    return list(Taught.objects.filter(archived_at=None).select_related("author"))


def beliefs() -> list[dict[str, Any]]:
    """What was accepted, as the open form of the core's beliefs."""
    return [
        {
            "quantity": one.quantity,
            "factor": one.centre,
            "spread": min(one.spread, 1.0),
            "tool": one.tool,
            "metal": one.metal,
            "machine": one.machine,
            "note": f"{one.count} seen; {one.author.get_username()}, {one.at:%Y-%m-%d}",
        }
        for one in holding()
    ]


def exported() -> list[dict[str, Any]]:
    """The same with how many observations each rests on, for another shop."""
    return [{**said, "count": one.count} for said, one in zip(beliefs(), holding(), strict=True)]
