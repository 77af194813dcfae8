"""Edits of what is made and in which order: operations and features added, moved, removed."""

from __future__ import annotations

import uuid
from typing import Any, Literal

from pydantic import ConfigDict, Field

from cutting.doors.json_form import read_asked
from cutting.errors import CuttingError
from cutting.operations.registry import kind_of
from cutting.workpiece.part import Axis, entries_of, own_entries
from server.errors import Refusal
from server.jobs.document.drawing import attach, feature_of, note_feature, words_of
from server.jobs.document.entries import Entry, changed_with_unit, with_unit
from server.jobs.document.plan import Noted, SpindleChoice
from server.jobs.document.tools import NONE
from server.jobs.edits.gesture import Gesture
from server.jobs.edits.tools import take_first_choice, take_surer
from server.schema import Schema
from server.shop import shop


class AddOperation(Gesture):
    """A new operation behind the last, with the best tool for the job's goal and its settings.

    It makes, or only `prepares`, the feature that is `drawn`; where none is named, the drawing asks what the operation is told.
    """

    action: Literal["add_operation"]
    kind: str = Field(max_length=20)
    title: str = Field(min_length=1, max_length=80)
    feature: dict[str, Entry]
    drawn: str = Field(default="", max_length=20)
    prepares: bool = False
    spindle: SpindleChoice = ""
    turned_round: bool = False
    units: Literal["mm", "inch"] = "mm"

    def apply(self, document: dict[str, Any]) -> str:
        """Put an operation into the run order, with the best tool for it."""
        known = [one["id"] for one in document["operations"]]
        take_first_choice(document, self.put(document))
        take_surer(document, known)
        return f"added {self.title}"

    def put(self, document: dict[str, Any]) -> dict[str, Any]:
        """The operation, behind the last one, without a tool."""
        kind = kind_of(self.kind)
        last = max((entry["number"] for entry in document["operations"]), default=0)
        entry: dict[str, Any] = {
            "id": uuid.uuid4().hex[:8],
            "number": last - last % 10 + 10,
            "title": self.title,
            "operation": kind.name,
            "tool": NONE,
            "drawn": self.drawn,
            "prepares": self.prepares,
            "spindle": self.spindle,
            "turned_round": self.turned_round,
            "feature": {name: with_unit(kind.name, "feature", name, value, self.units) for name, value in self.feature.items()},
            "settings": {},
            "holding": {},
            "skin": "clean",
        }
        if not self.spindle:
            told = {**(feature_of(document, self.drawn)["asked"] if self.drawn else {}), **entry["feature"]}
            entry["spindle"] = kind.runs_on(told, shop().library.machine(document["machine"]))
        document["operations"].append(entry)
        if self.drawn:
            asked = feature_of(document, self.drawn)["asked"]
            entry["feature"] = own_entries(asked, entries_of(asked, entry["feature"], kind.fields.told), kind.fields.told)
        else:
            attach(document, entry)
        return entry


class New(Schema):
    """An operation that is to be added."""

    model_config = ConfigDict(extra="forbid")
    kind: str = Field(max_length=20)
    title: str = Field(min_length=1, max_length=80)
    feature: dict[str, Entry]
    turned_round: bool = False


class AddOperations(Gesture):
    """Several new operations as one gesture, such as a whole shaft."""

    action: Literal["add_operations"]
    operations: list[New] = Field(min_length=1, max_length=30)
    noted: list[Noted] = Field(default=[], max_length=30)

    def apply(self, document: dict[str, Any]) -> str:
        """Put several operations into the run order."""
        document["noted"] = list(dict.fromkeys([*document.get("noted", []), *self.noted]))
        added = [AddOperation(action="add_operation", **{name: getattr(one, name) for name in New.model_fields}) for one in self.operations]
        known = [one["id"] for one in document["operations"]]
        # all of them first: what is asked of each hangs on how many they are
        for entry in [one.put(document) for one in added]:
            take_first_choice(document, entry)
        take_surer(document, known)
        return f"added {len(self.operations)} operations"


class NoteFeature(Gesture):
    """What the drawing asks, before it is planned; `kind` names its fields. With an `identity`, that feature is changed."""

    action: Literal["note_feature"]
    identity: str = Field(default="", max_length=20)
    kind: str = Field(max_length=20)
    title: str = Field(default="", max_length=80)
    feature: dict[str, Entry]
    units: Literal["mm", "inch"] = "mm"

    def apply(self, document: dict[str, Any]) -> str:
        """Write a feature on the drawing that nothing makes yet."""
        kind = kind_of(self.kind)
        known = feature_of(document, self.identity)["asked"] if self.identity else {}
        asked = changed_with_unit(kind.name, self.feature, known, self.units)
        for name in asked:
            if name not in kind.fields.drawn:
                raise CuttingError(f"feature.{name}", "is not said by a drawing, but by the cut.")
        read_asked(kind.name, entries_of({}, asked, kind.fields.drawn))
        feature = feature_of(document, self.identity) if self.identity else note_feature(document, kind, {})
        feature |= {"title": self.title, "noted": True, "asked": entries_of(feature["asked"], asked, kind.fields.drawn)}
        feature["axis"] = Axis.of(feature["asked"]).value
        return f"the drawing asks {words_of(feature)['metric']}"


class SetNoted(Gesture):
    """What the drawing asks beside what is turned, drilled and threaded: keyseats, knurls, centre holes, in words."""

    action: Literal["set_noted"]
    noted: list[Noted] = Field(max_length=30)

    def apply(self, document: dict[str, Any]) -> str:
        """Keep these words in place of those that stand."""
        document["noted"] = list(dict.fromkeys(self.noted))
        return f"noted: {', '.join(self.noted) or 'nothing more'}"


class RemoveFeature(Gesture):
    """Take a feature off the drawing; operations that cut it go with it."""

    action: Literal["remove_feature"]
    identity: str = Field(max_length=20)

    def apply(self, document: dict[str, Any]) -> str:
        """Take a feature off the drawing."""
        feature = feature_of(document, self.identity)
        document["features"].remove(feature)
        document["operations"] = [one for one in document["operations"] if one["drawn"] != self.identity]
        return f"the drawing no longer asks {words_of(feature)['metric']}"


class RemoveOperation(Gesture):
    """Take an operation out. What the drawing asks stays; a feature that only this operation brought goes with it."""

    action: Literal["remove_operation"]

    def apply(self, document: dict[str, Any]) -> str:
        """Take an operation out of the run order."""
        entry = self.target(document)
        document["operations"].remove(entry)
        cut = {one["drawn"] for one in document["operations"]}
        document["features"] = [one for one in document["features"] if one["noted"] or one["id"] != entry["drawn"] or one["id"] in cut]
        return f"removed {entry['number']} {entry['title']}"


class MoveOperation(Gesture):
    """Earlier or later in the run order; numbers stay in their places."""

    action: Literal["move_operation"]
    by: Literal[-1, 1]

    def apply(self, document: dict[str, Any]) -> str:
        """Move an operation in the run order."""
        entry, order = self.target(document), document["operations"]
        place = order.index(entry)
        other = place + self.by
        if not 0 <= other < len(order):
            raise Refusal(422, "It is already at that end of the run order.")
        order[place], order[other] = order[other], order[place]
        order[place]["number"], order[other]["number"] = order[other]["number"], order[place]["number"]
        return f"moved {entry['title']} {'later' if self.by > 0 else 'earlier'}"
