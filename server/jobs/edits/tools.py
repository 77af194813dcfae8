"""Edits that take tools, with what they are set to and what must come before."""

from __future__ import annotations

import uuid
from typing import Any, Literal

from pydantic import ConfigDict, Field

from cutting.operations.registry import kind_of
from cutting.plan.choose import first_choice
from cutting.workpiece.part import own_entries
from server.jobs.document import merged, request_of
from server.jobs.drawing import change_told, feature_of
from server.jobs.edits.gesture import Gesture
from server.jobs.entries import Entry, with_unit
from server.jobs.rankings import ranked
from server.jobs.tools import ToolNames, in_order, told
from server.schema import Schema
from server.shop import shop


class Becomes(Schema):
    """Another kind of operation that makes the same feature."""

    model_config = ConfigDict(extra="forbid")
    operation: str = Field(max_length=20)
    feature: dict[str, Entry]


class ChainStep(Schema):
    """An operation that comes before the last of a chain, as it is entered."""

    model_config = ConfigDict(extra="forbid")
    operation: str = Field(max_length=20)
    title: str = Field(min_length=1, max_length=80)
    feature: dict[str, Entry]
    tool: ToolNames
    settings: dict[str, Entry] = {}


class TakeTool(Gesture):
    """Take a candidate: tool and its settings, the kind of operation that it belongs to where that is another, and of a chain the
    operations that come `before` it, which prepare the same feature."""

    action: Literal["take_tool"]
    tool: ToolNames
    settings: dict[str, Entry] = {}
    becomes: Becomes | None = None
    before: list[ChainStep] = Field(default=[], max_length=4)

    def apply(self, document: dict[str, Any]) -> str:
        """Give an operation a tool with its settings."""
        entry = self.target(document)
        put_before(document, entry, self.before)
        if self.becomes and self.becomes.operation == entry["operation"]:
            change_told(document, entry, dict(self.becomes.feature))
        elif self.becomes:
            kind = kind_of(self.becomes.operation)
            entry["operation"] = kind.name
            entry["feature"] = dict(self.becomes.feature)
            entry["spindle"] = kind.runs_on(entry["feature"], shop().library.machine(document["machine"])) or entry["spindle"]
            entry["settings"] = {name: entry["settings"][name] for name in ("coolant", "spindle_clamp") if entry["settings"].get(name)}
        entry["tool"] = in_order(entry["operation"], self.tool)
        kept = {name: with_unit(entry["operation"], "settings", name, value, "mm") for name, value in self.settings.items()}
        entry["settings"] = merged(entry["settings"], kept)
        steps = f", after {' and '.join(one.title for one in self.before)}" if self.before else ""
        return f"{entry['number']}: took {told(entry['tool'])['edge']}{steps}"


def put_before(document: dict[str, Any], entry: dict[str, Any], steps: list[ChainStep]) -> list[dict[str, Any]]:
    """New operations in front of another, numbered up to it, which prepare the same feature; what was put there."""
    place, same = document["operations"].index(entry), {name: entry[name] for name in ("drawn", "spindle", "turned_round")}
    asked = feature_of(document, entry["drawn"])["asked"] if entry["drawn"] else {}
    made = []
    for k, step in enumerate(steps):
        kind = kind_of(step.operation)
        settings = {name: value for name, value in step.settings.items() if kind.fields.has("settings", name)}
        settings.setdefault("coolant", entry["settings"].get("coolant"))
        made.append(
            {
                "id": uuid.uuid4().hex[:8],
                "number": max(entry["number"] - len(steps) + k, 1),
                "title": step.title,
                "operation": kind.name,
                "tool": in_order(kind.name, step.tool),
                **same,
                "prepares": True,
                "feature": own_entries(asked, step.feature, kind.fields.told),
                "settings": {name: value for name, value in settings.items() if value not in (None, "")},
                "holding": dict(entry["holding"]),
                "skin": entry["skin"],
            }
        )
    document["operations"][place:place] = made
    return made


def take_first_choice(document: dict[str, Any], entry: dict[str, Any]) -> None:
    """Give a new operation the first choice of the crib, with what must come before it; what no tool does gets none.

    Raises `CuttingError` for an operation that cannot be read.
    """
    stock = shop()
    setup, crib = request_of(document, entry, None, stock)
    if (pick := first_choice(setup, crib, lambda asked, tools: ranked(asked, tools, stock))) is None:
        return
    before = [
        ChainStep(**{name: getattr(one, name) for name in ("operation", "title", "feature", "tool", "settings")}) for one in pick.row.before
    ]
    becomes = Becomes(**pick.row.becomes) if pick.row.becomes else None
    taken = TakeTool(action="take_tool", operation=entry["id"], tool=pick.tool, settings=pick.settings, becomes=becomes, before=before)
    taken.apply(document)


class Taken(Schema):
    """A tool for one of several operations."""

    model_config = ConfigDict(extra="forbid")
    operation: str = Field(max_length=20)
    tool: ToolNames
    settings: dict[str, Entry] = {}
    becomes: Becomes | None = None


class TakeTools(Gesture):
    """Take a tool for each of several operations, as one gesture."""

    action: Literal["take_tools"]
    tools: list[Taken] = Field(min_length=1, max_length=60)

    def apply(self, document: dict[str, Any]) -> str:
        """Give several operations their tools."""
        for one in self.tools:
            taken = TakeTool(action="take_tool", operation=one.operation, tool=one.tool, settings=one.settings, becomes=one.becomes)
            taken.apply(document)
        return f"took {len({tuple(one.tool.values()) for one in self.tools})} tools for {len(self.tools)} operations"
