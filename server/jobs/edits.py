"""The edits a person can make, one class per gesture; each changes a document and says in words what it did."""

from __future__ import annotations

import copy
import uuid
from typing import Annotated, Any, Literal

from pydantic import ConfigDict, Field

from cutting.doors.json_form import read_asked, read_house
from cutting.errors import CuttingError
from cutting.operations.registry import kind_of
from cutting.workpiece.hardness import brinell
from cutting.workpiece.part import Axis, entries_of, own_entries
from server.errors import Refusal
from server.jobs.best import take_best
from server.jobs.document import Baseline, BatchData, GrindingData, Money, SpindleChoice, StockData, checked, merged, told_of
from server.jobs.drawing import attach, change_told, feature_of, note_feature, words_of
from server.jobs.entries import Entry, changed_with_unit, length_with_unit, with_unit
from server.jobs.stock import check_stock, layers_as_entered
from server.jobs.tools import NONE, ToolNames, in_order, told
from server.schema import Schema
from server.shop import shop
from server.words import label_of

BATCH_AND_MONEY = {"batch": BatchData, "money": Money}


class Gesture(Schema):
    model_config = ConfigDict(extra="forbid")
    operation: str = Field(default="", max_length=20)

    def target(self, document: dict[str, Any]) -> dict[str, Any]:
        for entry in document["operations"]:
            if entry["id"] == self.operation:
                return entry  # type: ignore[no-any-return]
        raise Refusal(404, "The job has no such operation.", [{"field": "edit.operation", "message": "not in this job"}])


class SetSettings(Gesture):
    """Speed, feed, depth, coolant, clamp, overhang, and holding where a remedy changes both; bare numbers are in `units`."""

    action: Literal["set_settings"]
    settings: dict[str, Entry] = {}
    holding: dict[str, Entry] = {}
    feature: dict[str, Entry] = {}
    tool: ToolNames | None = None
    units: Literal["mm", "inch"] = "mm"

    def apply(self, document: dict[str, Any]) -> str:
        entry = self.target(document)
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
        words = ", ".join(f"{name.replace('_', ' ')} {value}" for name, value in {**took, **kept, **held, **drawn}.items())
        return f"{entry['number']}: {words}"


class Becomes(Schema):
    """Another kind of operation that makes the same feature."""

    model_config = ConfigDict(extra="forbid")
    operation: str = Field(max_length=20)
    feature: dict[str, Entry]


class Step(Schema):
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
    before: list[Step] = Field(default=[], max_length=4)

    def apply(self, document: dict[str, Any]) -> str:
        entry = self.target(document)
        self._put_before(document, entry)
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

    def _put_before(self, document: dict[str, Any], entry: dict[str, Any]) -> None:
        """New operations in front of the target, numbered up to it."""
        place, same = document["operations"].index(entry), {name: entry[name] for name in ("drawn", "spindle", "turned_round")}
        for k, step in enumerate(self.before):
            kind = kind_of(step.operation)
            asked = feature_of(document, entry["drawn"])["asked"] if entry["drawn"] else {}
            settings = {name: value for name, value in step.settings.items() if kind.fields.has("settings", name)}
            settings.setdefault("coolant", entry["settings"].get("coolant"))
            document["operations"].insert(
                place + k,
                {
                    "id": uuid.uuid4().hex[:8],
                    "number": max(entry["number"] - len(self.before) + k, 1),
                    "title": step.title,
                    "operation": kind.name,
                    "tool": in_order(kind.name, step.tool),
                    **same,
                    "prepares": True,
                    "feature": own_entries(asked, step.feature, kind.fields.told),
                    "settings": {name: value for name, value in settings.items() if value not in (None, "")},
                    "holding": dict(entry["holding"]),
                    "skin": entry["skin"],
                },
            )


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
        where = self.target(document) if self.operation else document
        kind = where["operation"] if self.operation else ""
        where["holding"].update({name: with_unit(kind, "holding", name, value, self.units) for name, value in self.holding.items()})
        return "holding: " + ", ".join(f"{name.replace('_', ' ')} {value}" for name, value in self.holding.items())


class SetPart(Gesture):
    """Material, machine, goal, batch, money, house rules, name: what concerns the whole part."""

    action: Literal["set_part"]
    name: str | None = Field(default=None, min_length=1, max_length=120)
    material: str | None = None
    hardness: float | str | None = Field(default=None, description="HB, or text with its scale: 30 HRC, 1000 MPa")
    machine: str | None = None
    goal: Literal["cheapest", "fastest", "most secure"] | None = None
    batch: dict[str, Entry] = Field(default={}, description="what changes of it: pieces, unattended_hours, yearly")
    money: dict[str, Entry] = Field(default={}, description="what changes of it: blank, setup_minutes, good_share, target")
    house: dict[str, Entry] | None = None
    shape: str | None = Field(default=None, max_length=400, description="of a shaped blank, empty for a bar")
    layers: str | None = Field(default=None, max_length=400, description="metal: thickness from the free face; empty for one metal")
    bar_length: Entry = Field(default=None, description="of the bar that pieces are cut from")
    remnant: Entry = None
    bar_price: Entry = None
    diameter: Entry = Field(default=None, description="of the blank")
    free_length: Entry = None
    bore: Entry = None
    length: Entry = Field(default=None, description="of the whole blank, empty where nobody asked")
    units: Literal["mm", "inch"] = "mm"

    def apply(self, document: dict[str, Any]) -> str:
        said = []
        for name in ("name", "goal"):
            if (value := getattr(self, name)) is not None:
                document[name] = value
                said.append(f"{name} {value}")
        if self.material is not None:
            document["material"] = shop().library.material(self.material).name
            document["hardness"] = None  # another metal comes as usually delivered
            said.append(f"material {document['material']}")
        if self.hardness is not None:
            document["hardness"] = _brinell(self.hardness, document["material"])
            said.append(f"hardness {self.hardness}")
        if self.machine is not None:
            machine = shop().library.machine(self.machine)
            document["machine"] = machine.name
            for entry in document["operations"]:
                if machine.pressure(str(entry["settings"].get("coolant", "flood"))) is None:
                    entry["settings"]["coolant"] = "flood"
            said.append(f"machine {machine.name}")
        for name in ("batch", "money"):
            if given := getattr(self, name):
                document[name] = checked(BATCH_AND_MONEY[name], {**document[name], **given}, name)
                said += [f"{label_of(key)} {value if value not in (None, '') else 'none'}" for key, value in given.items()]
        if self.shape is not None:
            document["stock"]["shape"] = length_with_unit("shape", self.shape, self.units) or ""
            said.append("shape of the blank")
        if self.layers is not None:
            document["stock"]["layers"] = layers_as_entered(self.layers, self.units)
            said.append("layers of the blank")
        for name in ("diameter", "free_length", "bore", "length", "bar_length", "remnant"):
            if (given := getattr(self, name)) is not None:
                document["stock"][name] = length_with_unit(name, given, self.units) if given != "" or name != "length" else ""
                said.append(f"{label_of(name)} {given}")
        if self.bar_price is not None:
            document["stock"]["bar_price"] = checked(StockData, {**document["stock"], "bar_price": self.bar_price or 0}, "")["bar_price"]
            said.append(f"price of a bar {self.bar_price}")
        check_stock(document)
        if self.house is not None:
            document["house"].update(self.house)
            read_house(document["house"])
            said.append("house rules")
        return ", ".join(said) or "nothing"


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
        take_best(document, entry)
        return f"added {self.title}"


class Taken(Schema):
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
        for one in self.tools:
            taken = TakeTool(action="take_tool", operation=one.operation, tool=one.tool, settings=one.settings, becomes=one.becomes)
            taken.apply(document)
        return f"took {len({tuple(one.tool.values()) for one in self.tools})} tools for {len(self.tools)} operations"


class New(Schema):
    model_config = ConfigDict(extra="forbid")
    kind: str = Field(max_length=20)
    title: str = Field(min_length=1, max_length=80)
    feature: dict[str, Entry]


class AddOperations(Gesture):
    """Several new operations as one gesture, such as a whole shaft."""

    action: Literal["add_operations"]
    operations: list[New] = Field(min_length=1, max_length=30)

    def apply(self, document: dict[str, Any]) -> str:
        for new in self.operations:
            add = AddOperation(action="add_operation", kind=new.kind, title=new.title, feature=new.feature)
            add.apply(document)
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


class RemoveFeature(Gesture):
    """Take a feature off the drawing; operations that cut it go with it."""

    action: Literal["remove_feature"]
    identity: str = Field(max_length=20)

    def apply(self, document: dict[str, Any]) -> str:
        feature = feature_of(document, self.identity)
        document["features"].remove(feature)
        document["operations"] = [one for one in document["operations"] if one["drawn"] != self.identity]
        return f"the drawing no longer asks {words_of(feature)['metric']}"


class RemoveOperation(Gesture):
    """Take an operation out. What the drawing asks stays; a feature that only this operation brought goes with it."""

    action: Literal["remove_operation"]

    def apply(self, document: dict[str, Any]) -> str:
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
        entry, order = self.target(document), document["operations"]
        place = order.index(entry)
        other = place + self.by
        if not 0 <= other < len(order):
            raise Refusal(422, "It is already at that end of the run order.")
        order[place], order[other] = order[other], order[place]
        order[place]["number"], order[other]["number"] = order[other]["number"], order[place]["number"]
        return f"moved {entry['title']} {'later' if self.by > 0 else 'earlier'}"


class SetGrinding(Gesture):
    """Grinding time and cost, for the comparison with hard turning; null takes it away."""

    action: Literal["set_grinding"]
    grinding: dict[str, Entry] | None

    def apply(self, document: dict[str, Any]) -> str:
        entry = self.target(document)
        entry["grinding"] = checked(GrindingData, self.grinding, "grinding") if self.grinding else None
        return f"{entry['number']}: grinding"


class SetBaseline(Gesture):
    """The present process, to beat; null takes it away."""

    action: Literal["set_baseline"]
    baseline: dict[str, Entry] | None

    def apply(self, document: dict[str, Any]) -> str:
        document["baseline"] = checked(Baseline, self.baseline, "baseline") if self.baseline else None
        return "present process"


Edit = Annotated[
    SetSettings
    | TakeTool
    | TakeTools
    | SetFeature
    | SetHolding
    | SetPart
    | AddOperation
    | AddOperations
    | NoteFeature
    | RemoveFeature
    | RemoveOperation
    | MoveOperation
    | SetGrinding
    | SetBaseline,
    Field(discriminator="action"),
]


def edited(document: dict[str, Any], edit: Any) -> tuple[dict[str, Any], str]:
    """A changed copy of the document and what was done, in words."""
    fresh = copy.deepcopy(document)
    return fresh, edit.apply(fresh)[:200]


def _brinell(hardness: float | str, material: str) -> float:
    """Hardness as delivered, HB, from any scale; what the standard does not convert is refused."""
    return round(brinell(str(hardness), shop().library.material(material).group), 1)
