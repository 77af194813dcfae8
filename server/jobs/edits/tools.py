"""Edits that take tools, with what they are set to and what must come before."""

from __future__ import annotations

import uuid
from collections.abc import Collection
from typing import Any, Literal

from pydantic import ConfigDict, Field

from cutting.advice.candidate import Candidate
from cutting.operations.registry import kind_of
from cutting.plan.choose import first_choice
from cutting.plan.chosen import surer
from cutting.quantities import read_dimension
from cutting.workpiece.part import own_entries
from server.jobs.choice.rankings import ranked
from server.jobs.document.drawing import change_told, feature_of
from server.jobs.document.entries import Entry, with_unit
from server.jobs.document.plan import merged, plan_of, request_of, told_of
from server.jobs.document.tools import NONE, ToolNames, in_order, told
from server.jobs.edits.gesture import Gesture
from server.schema import Schema
from server.shop import shop

MOST_WIDER = 0.2  # of its diameter by which a drilled hole is made wider by another drill instead of one more (common practice)


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
    tool: ToolNames = NONE
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


def hole_before(document: dict[str, Any], entry: dict[str, Any], step: ChainStep) -> dict[str, Any]:
    """The operation that makes the hole which must be there before another: the one that makes it now, to its new size, else a new one.

    A hole that the drawing asks by itself stays as it is asked.
    """
    place = document["operations"].index(entry)
    for one in reversed(document["operations"][:place] if step.operation == "drill" else []):
        made, noted = told_of(document, one), one["drawn"] and feature_of(document, one["drawn"])["noted"]
        alike = all(one[name] == entry[name] for name in ("spindle", "turned_round")) and one["operation"] == step.operation
        if alike and not noted and _mm(made.get("circle")) == _mm(step.feature.get("circle")):
            was, now = _mm(made.get("diameter")), _mm(step.feature.get("diameter"))
            if not 0.0 < now / max(was, 1e-9) - 1.0 < MOST_WIDER:
                break  # a hole that is much narrower is opened, and not another hole
            change_told(document, one, {"diameter": step.feature["diameter"]})
            one["tool"] = NONE
            return one
    return put_before(document, entry, [step])[0]


def _mm(entered: Any) -> float:
    """A length that was entered [mm], 0 for none."""
    return 0.0 if entered in (None, "") else read_dimension(str(entered), "metric", "feature").nominal


def take_first_choice(document: dict[str, Any], entry: dict[str, Any]) -> None:
    """Give a new operation the first choice of the crib, with what must come before it; what no tool does gets none.

    Raises `CuttingError` for an operation that cannot be read.
    """
    stock = shop()
    setup, crib = request_of(document, entry, None, stock)
    if (pick := first_choice(setup, crib, lambda asked, tools: ranked(asked, tools, stock))) is None:
        return
    becomes = Becomes(**pick.row.becomes) if pick.row.becomes else None
    before = chain_of(pick.row)
    taken = TakeTool(action="take_tool", operation=entry["id"], tool=pick.tool, settings=pick.settings, becomes=becomes, before=before)
    taken.apply(document)


def take_surer(document: dict[str, Any], known: Collection[str]) -> None:
    """Choose operations anew where the whole plan holds less often than is asked; those that were `known` before stay as they are set."""
    stock = shop()
    new = {one["id"] for one in document["operations"]} - set(known)
    for identity, pick in surer(plan_of(document), stock.library, new, lambda asked, tools: ranked(asked, tools, stock)).items():
        TakeTool(action="take_tool", operation=identity, tool=pick.tool, settings=pick.settings).apply(document)


def chain_of(row: Candidate) -> list[ChainStep]:
    """What must come before a row's own step, as it is entered."""
    return [ChainStep(**{name: getattr(one, name) for name in ChainStep.model_fields}) for one in row.before]


class Taken(Schema):
    """A tool for one of several operations."""

    model_config = ConfigDict(extra="forbid")
    operation: str = Field(max_length=20)
    tool: ToolNames
    settings: dict[str, Entry] = {}
    becomes: Becomes | None = None
    before: list[ChainStep] = Field(default=[], max_length=4)


class TakeTools(Gesture):
    """Take a tool for each of several operations, as one gesture."""

    action: Literal["take_tools"]
    tools: list[Taken] = Field(min_length=1, max_length=60)

    def apply(self, document: dict[str, Any]) -> str:
        """Give several operations their tools."""
        for one in self.tools:
            TakeTool(action="take_tool", **{name: getattr(one, name) for name in Taken.model_fields}).apply(document)
        return f"took {len({tuple(one.tool.values()) for one in self.tools})} tools for {len(self.tools)} operations"
