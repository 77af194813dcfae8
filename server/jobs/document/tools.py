"""The tool of an operation in a job's document: the names of its parts by role, and how it is told."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field

from cutting.operations.registry import kind_of
from server.errors import Refusal
from server.schema import Schema

ToolNames = dict[Annotated[str, Field(max_length=20)], Annotated[str, Field(max_length=180)]]
NONE: dict[str, str] = {}  # an operation that has no tool yet


class ToolWords(Schema):
    """A tool: its parts by role, what carries the edge, and what that sits on."""

    tool: dict[str, str]
    edge: str
    on: str


def told(tool: dict[str, str]) -> dict[str, Any]:
    """The tool with its words."""
    edge, *rest = tool.values() or ("",)
    return {"tool": dict(tool), "edge": edge, "on": " on ".join(rest)}


def in_order(kind: str, tool: dict[str, str]) -> dict[str, str]:
    """The parts in the order of their roles. Raises a 422 refusal for a role that the kind does not have, or one that is missing."""
    roles = [role.name for role in kind_of(kind).roles]
    if tool and set(tool) != set(roles):
        said = f"a tool for {kind} is {' and '.join(roles)}, not {' and '.join(tool)}."
        raise Refusal(422, said.capitalize(), [{"field": "edit.tool", "message": said}])
    return {role: tool[role] for role in roles if role in tool}
