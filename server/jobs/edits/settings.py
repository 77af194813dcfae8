"""Edits of one operation: its settings, its feature, how it is held."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import Field

from cutting.errors import OutOfRange
from cutting.quantities import read_quantity
from cutting.studies.acceptance import MEASURED
from server.floor.controls import dialect_named
from server.jobs.document.drawing import change_told
from server.jobs.document.entries import Entry, changed_with_unit, with_unit
from server.jobs.document.plan import MOST_PROGRAM, GrindingData, Measured, ProcessData, SpindleChoice, checked, merged, told_of
from server.jobs.document.tools import ToolNames, in_order, told
from server.jobs.edits.gesture import Gesture
from server.jobs.edits.tools import ChainStep, hole_before, take_first_choice

MOST_MEASURED = 1e6


class SetSettings(Gesture):
    """Speed, feed, depth, coolant, clamp, overhang, and holding where a remedy changes both; bare numbers are in `units`."""

    action: Literal["set_settings"]
    settings: dict[str, Entry] = {}
    holding: dict[str, Entry] = {}
    feature: dict[str, Entry] = {}
    tool: ToolNames | None = None
    before: ChainStep | None = None  # an operation that has to come first; without a tool it gets the best one
    units: Literal["mm", "inch"] = "mm"

    def apply(self, document: dict[str, Any]) -> str:
        """Set entries of an operation's settings."""
        entry = self.target(document)
        if self.before:
            first = hole_before(document, entry, self.before)
            if not first["tool"]:
                take_first_choice(document, first)
        if self.tool:
            entry["tool"] = in_order(entry["operation"], self.tool)
        kind = entry["operation"]
        kept = {name: with_unit(kind, "settings", name, value, self.units) for name, value in self.settings.items()}
        held = {name: with_unit(kind, "holding", name, value, self.units) for name, value in self.holding.items()}
        drawn = {name: with_unit(kind, "feature", name, value, self.units) for name, value in self.feature.items()}
        change_told(document, entry, drawn)
        entry["settings"] = merged(entry["settings"], kept)
        entry["holding"].update(held)
        took = {"tool": told(entry["tool"])["edge"]} if self.tool else {}
        first_of_all = {self.before.title: "before it"} if self.before else {}
        every = {**first_of_all, **took, **kept, **held, **drawn}
        words = ", ".join(f"{name.replace('_', ' ')} {value}" for name, value in every.items())
        return f"{entry['number']}: {words}"


class SetFeature(Gesture):
    """What the drawing says, and the title."""

    action: Literal["set_feature"]
    title: str | None = Field(default=None, min_length=1, max_length=80)
    feature: dict[str, Entry] = {}
    skin: Literal["clean", "bar", "forged", "cast", "weld", "hardened"] | None = None
    spindle: SpindleChoice | None = None
    turned_round: bool | None = None
    units: Literal["mm", "inch"] = "mm"

    def apply(self, document: dict[str, Any]) -> str:
        """Set entries of an operation's feature."""
        entry = self.target(document)
        kind = entry["operation"]
        change_told(document, entry, changed_with_unit(kind, self.feature, told_of(document, entry), self.units))
        if self.spindle is not None:
            entry["spindle"] = self.spindle
        if self.turned_round is not None:
            entry["turned_round"] = self.turned_round
        if self.title:
            entry["title"] = self.title
        if self.skin:
            entry["skin"] = self.skin
        return f"{entry['number']}: drawing"


class SetHolding(Gesture):
    """How the part is held: for one operation, or for the job where `operation` is empty."""

    action: Literal["set_holding"]
    holding: dict[str, Entry]
    units: Literal["mm", "inch"] = "mm"

    def apply(self, document: dict[str, Any]) -> str:
        """Set how the part is held for an operation."""
        where = self.target(document) if self.operation else document
        kind = where["operation"] if self.operation else ""
        where["holding"].update({name: with_unit(kind, "holding", name, value, self.units) for name, value in self.holding.items()})
        return "holding: " + ", ".join(f"{name.replace('_', ' ')} {value}" for name, value in self.holding.items())


class SetGrinding(Gesture):
    """Grinding time and cost, for the comparison with hard turning; null takes it away."""

    action: Literal["set_grinding"]
    grinding: dict[str, Entry] | None

    def apply(self, document: dict[str, Any]) -> str:
        """Set what grinding takes, for the comparison."""
        entry = self.target(document)
        entry["grinding"] = checked(GrindingData, self.grinding, "grinding") if self.grinding else None
        return f"{entry['number']}: grinding"


class SetMeasured(Gesture):
    """What was measured of one thing that is asked of a hole; null takes it away."""

    action: Literal["set_measured"]
    name: Measured
    value: Entry
    units: Literal["mm", "inch"] = "mm"

    def apply(self, document: dict[str, Any]) -> str:
        """Keep what was measured."""
        entry = self.target(document)
        kept = dict(entry.get("accepted") or {})
        if self.value in (None, ""):
            kept.pop(self.name, None)
            entry["accepted"] = kept
            return f"{entry['number']}: {self.name} not measured"
        system = "inch" if self.units == "inch" else "metric"
        found = read_quantity(str(self.value), MEASURED[self.name], system=system, field=self.name)
        if not 0 <= found.value <= MOST_MEASURED:
            raise OutOfRange(self.name, f"{found.value:g} is outside 0 to {MOST_MEASURED:g}.", f"0 to {MOST_MEASURED:g}")
        entry["accepted"] = {**kept, self.name: found.value}
        return f"{entry['number']}: {self.name} measured"


class SetProgram(Gesture):
    """A program of somebody's own for an operation; null takes it away."""

    action: Literal["set_program"]
    dialect: str = Field(default="", max_length=40)
    units: Literal["mm", "inch"] = "mm"
    text: str | None = Field(default=None, max_length=MOST_PROGRAM)
    of: str = Field(default="", max_length=64)

    def apply(self, document: dict[str, Any]) -> str:
        """Keep the text, or drop it."""
        entry = self.target(document)
        if self.text is None:
            entry["program"] = None
            return f"{entry['number']}: program as planned"
        entry["program"] = {"dialect": dialect_named(self.dialect).name, "units": self.units, "text": self.text, "of": self.of}
        return f"{entry['number']}: own program"


class SetProcess(Gesture):
    """The cut as it is made now, by its drivers, and what is held against it; null takes it away."""

    action: Literal["set_process"]
    present: dict[str, Entry] | None
    proposed: dict[str, Entry] | None = None

    def apply(self, document: dict[str, Any]) -> str:
        """Set the present process of an operation."""
        entry = self.target(document)
        if self.present is None:
            entry["process"] = None
        else:
            present = checked(ProcessData, self.present, "present")
            proposed = checked(ProcessData, self.proposed, "proposed") if self.proposed else None
            entry["process"] = {"present": present, "proposed": proposed}
        return f"{entry['number']}: current process"
