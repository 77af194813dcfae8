"""The job document: its schema, and the `Setup` form of each of its operations."""

from __future__ import annotations

import itertools
import json
from collections.abc import Callable
from contextlib import suppress
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any, Literal

from pydantic import ConfigDict, Field, ValidationError

from cutting.doors.json_form import read_feature_of, read_points, read_request, read_setup
from cutting.errors import CuttingError
from cutting.machine.machines import Machine
from cutting.operations.frame.kind import Kind
from cutting.operations.registry import KINDS, kind_of
from cutting.process.standing import taken_from_part
from cutting.quantities import read_quantity
from cutting.workpiece.layers import Layer, layers_cut, read_layers, slowest_first
from cutting.workpiece.part import SHAPES, entries_of
from cutting.workpiece.solid import BENT, Blank, Region, Solid, blank_solid
from cutting.workpiece.stack import StackLayer, read_stack, written
from server.errors import Refusal
from server.jobs.entries import Entry, with_unit
from server.jobs.learned import learned_of
from server.jobs.outcomes import outcome_of
from server.jobs.tools import ToolNames
from server.schema import Schema
from server.shop import Shop, shop
from server.words import asked, said, title

Pieces = asked("pieces", "count", 1, 10_000_000, unit="pieces", whole=True)
Yearly = asked("pieces a year", "count", 0, 100_000_000, unit="pieces", whole=True)
Hours = asked("hours alone", low=0, high=168, unit="h")
SetupMinutes = asked("set-up minutes", low=0, high=10_000, unit="min")
GoodShare = asked("good share", low=0.1, high=1)
Price = asked("price", "money", 0, 1e6)
Target = asked("target", "money", 0, 1e6, empty=True)
Paid = asked("cost a piece", "money", 0, 1e6, above=True)
Rate = asked("rate an hour", "money", 0, 10_000)
Seconds = asked("seconds a piece", "duration", 0, 1e6, above=True)


MOST_FEATURES = 120
OperationName = Literal[tuple(KINDS)]  # type: ignore[valid-type]
SpindleChoice = Literal["", "main", "sub", "driven", "tool"]


class Strict(Schema):
    model_config = ConfigDict(extra="forbid")


class FeatureData(Strict):
    """What the drawing asks of one feature, as it was entered."""

    id: str = Field(max_length=20)
    title: str = Field(default="", max_length=80)
    shape: Literal[tuple(SHAPES)]  # type: ignore[valid-type]
    axis: Literal["on the axis", "on a pitch circle", "across"] = "on the axis"
    asked: dict[str, Entry]
    noted: bool = Field(default=False, description="asked before any operation was planned for it: it stays when that goes")


class Operation(Strict):
    """One operation; feature, settings and holding are kept as they were entered.

    It makes or only prepares what is `drawn`; of that it is told all that its own `feature` does not say otherwise.
    """

    id: str = Field(max_length=20)
    number: int = Field(ge=1, le=9999)
    title: str = Field(min_length=1, max_length=80)
    operation: OperationName
    tool: ToolNames
    drawn: str = Field(default="", max_length=20)
    prepares: bool = False
    spindle: SpindleChoice = ""
    turned_round: bool = Field(default=False, description="the other end is machined; on the sub-spindle it always is")
    feature: dict[str, Entry]
    settings: dict[str, Entry]
    holding: dict[str, Entry] = {}
    skin: Literal["clean", "bar", "forged", "cast", "weld", "hardened"] = "clean"
    grinding: GrindingData | None = None


class GrindingData(Strict):
    """Grinding as it is done now: what hard turning is held against."""

    seconds: Seconds
    rate: Rate
    wheel: Price = 0


class StockData(Strict):
    diameter: str = Field(max_length=40)
    free_length: str = Field(max_length=40)
    bore: str = Field(default="0", max_length=40)
    length: str = Field(default="", max_length=40, description="of the whole blank with what is gripped; blank: nobody asked")
    layers: str = Field(default="", max_length=400, description="of several metals: material: thickness from the free face, parted by ;")
    shape: str = Field(default="", max_length=400, description="of a shaped blank: place:diameter from the chuck, parted by ;")
    bar_length: str = Field(default="3000 mm", max_length=40)
    remnant: str = Field(default="120 mm", max_length=40, description="what the chuck keeps of every bar")
    bar_price: Price = Field(default=0, description="of one bar; 0: not cut from a priced bar")


class BatchData(Strict):
    pieces: Pieces = 50
    unattended_hours: Hours = 0
    yearly: Yearly = 0


class Money(Strict):
    """Money per piece or batch; `target` is what a piece may cost."""

    blank: Price = 0
    setup_minutes: SetupMinutes = 0
    good_share: GoodShare = 1
    target: Target = None


class Baseline(Strict):
    """The present process, to beat."""

    name: str = Field(min_length=1, max_length=120)
    seconds: Seconds
    cost: Paid
    note: str = Field(default="", max_length=400)


class Document(Strict):
    """A job's content, version 2."""

    version: Literal[2] = 2
    name: str = Field(min_length=1, max_length=120)
    material: str = Field(max_length=120)
    hardness: float | None = None
    machine: str = Field(max_length=80)
    goal: Literal["cheapest", "fastest", "most secure"] = "cheapest"
    batch: BatchData = BatchData()
    money: Money = Money()
    stock: StockData
    holding: dict[str, Entry] = {}
    house: dict[str, Entry] = {}
    features: list[FeatureData] = Field(default=[], max_length=MOST_FEATURES)
    operations: list[Operation] = Field(max_length=60)
    baseline: Baseline | None = None


def checked(model: type[Strict], given: dict[str, Any], path: str) -> dict[str, Any]:
    """What the model makes of the values. Raises a 422 refusal that names each field below `path` in people's words."""
    try:
        return model(**given).dict()
    except ValidationError as error:
        errors = said([{**one, "loc": (path, *one["loc"]) if path else one["loc"]} for one in error.errors()])
        raise Refusal(422, title(errors), errors) from error


def setup_form(document: dict[str, Any], operation: dict[str, Any], overrides: dict[str, Any] | None = None) -> dict[str, Any]:
    """The JSON form of one operation's set-up; `overrides` may replace parts of settings, holding and tool."""
    more = overrides or {}
    units = more.get("units", "mm")
    kind = kind_of(operation["operation"])
    # entries in the document carry their units; only what is being tried is in the units shown
    tried = {name: with_unit(kind.name, "settings", name, value, units) for name, value in (more.get("settings") or {}).items()}
    held = {name: with_unit(kind.name, "holding", name, value, units) for name, value in (more.get("holding") or {}).items()}
    batch = document["batch"]
    part, held_here = _held(document, operation, {**operation["holding"], **held})
    holding = {**held_here, "steps": [list(step) for step in part.solid.steps]}
    if part.solid.face < part.solid.free_length:
        holding["face"] = f"{part.solid.face:.6g} mm"
    bar = {"bar": _bar(document)} if kind.fields.bar else {}
    made = {**part.complete(kind.name, told_of(document, operation)), **_through_layers(document, operation, part)}
    metal = _metal(document, operation, part)
    return {
        "operation": operation["operation"],
        **metal,
        "machine": document["machine"],
        "spindle": operation.get("spindle") or None,
        "goal": more.get("goal") or document["goal"],
        "batch": {
            "pieces": batch["pieces"],
            "unattended_hours": batch["unattended_hours"],
            "piece_seconds": more.get("piece_seconds"),
            **_worth(document, operation, more),
        },
        "tool": {**operation["tool"], **(more.get("tool") or {})},
        "feature": made,
        "settings": merged(operation["settings"], tried),
        # what the job says of its holding and this kind of operation does not ask is left out
        "holding": {name: value for name, value in holding.items() if kind.fields.has("holding", name)},
        "house": document["house"],
        "skin": operation["skin"],
        "learned": _learned(kind, {**operation["tool"], **(more.get("tool") or {})}, made, metal["material"]),
        "units": "mm",
        **bar,
    }


def _worth(document: dict[str, Any], operation: dict[str, Any], more: dict[str, Any]) -> dict[str, float]:
    """What the part is worth when an operation begins that may lose it: its blank, and what was done before. Nothing for others."""
    if not kind_of(operation["operation"]).risky:
        return {}
    if "part_value" in more:  # summed up by who asks
        return {"part_value": round(more["part_value"], 4)}
    value = float(document["money"]["blank"])
    for entry in document["operations"]:
        if entry["id"] == operation["id"]:
            break
        with suppress(CuttingError):  # what cannot be read has cost nothing yet
            value += outcome_of(setup_of(document, entry, {"part_value": value})).results["operation_cost"].value
    return {"part_value": round(value, 4)}


def _learned(kind: Kind, tool: dict[str, Any], feature: dict[str, Any], material: str) -> dict[str, Any] | None:
    """What traces taught of the tool in the materials that it goes through, None where nothing was accepted."""
    if not any(one.kind == "stack" for one in kind.fields.feature) or not tool:
        return None
    names, library = [material], shop().library
    if stack := feature.get("stack"):
        try:
            names = [library.material(one.name).name for one in read_stack(str(stack))]
        except CuttingError:  # what is wrong with it is said where it is read
            return None
    return learned_of(next(iter(tool.values())), names)


def layers_of(document: dict[str, Any]) -> tuple[Layer, ...]:
    """The layers of the stock from its free face, empty for one metal. Raises `CuttingError`."""
    return read_layers(document["stock"].get("layers") or "", the_blank(document).free_length)


def metals_of(document: dict[str, Any], operation: dict[str, Any], part: PartInFront) -> tuple[str, ...]:
    """The metals that an operation cuts, the slowest to cut first; none where the stock is of one. Raises `CuttingError`."""
    cut = _layers_cut(document, operation, part)
    return tuple(one.name for one in slowest_first(shop().library.material(name) for name in dict.fromkeys(one.material for one in cut)))


def _layers_cut(document: dict[str, Any], operation: dict[str, Any], part: PartInFront) -> tuple[Layer, ...]:
    """The layers of the stock that an operation goes through, from the face that it is cut from."""
    layers, kind, there = layers_of(document), operation["operation"], part.solid
    if not layers:
        return ()
    if other_end(operation):  # told from the chuck that holds it now, as the part in front of it is
        at = (there.butt or 0.0) + layers[0].far
        layers = tuple(Layer(one.material, at - one.far, at - one.near) for one in reversed(layers))
    return layers_cut(layers, region_of(kind, part.complete(kind, told_of(document, operation))), there)


def _through_layers(document: dict[str, Any], operation: dict[str, Any], part: PartInFront) -> dict[str, str]:
    """A stock of layers as the stack that a drill goes through, where its feature says none."""
    told, kind = told_of(document, operation), kind_of(operation["operation"])
    if not any(one.kind == "stack" for one in kind.fields.feature) or told.get("stack"):
        return {}
    cut = _layers_cut(document, operation, part)
    if len(cut) < 2:
        return {}
    face, deep = part.solid.face, region_of(kind.name, part.complete(kind.name, told)).depth
    floor = max(face - deep, part.solid.back if part.solid.back is not None else 0.0)
    found = [StackLayer(one.material, round(min(one.far, face) - max(one.near, floor), 6)) for one in cut]
    return {"stack": written(one for one in found if one.thickness > 0)}


def _metal(document: dict[str, Any], operation: dict[str, Any], part: PartInFront) -> dict[str, Any]:
    """The metal that a cut is judged in: of several layers the slowest to cut, as it is usually delivered."""
    metals = metals_of(document, operation, part)
    own = document["material"]
    return {"material": metals[0], "hardness": None} if metals else {"material": own, "hardness": document.get("hardness")}


def _held(document: dict[str, Any], operation: dict[str, Any], own: dict[str, Any]) -> tuple[PartInFront, dict[str, Any]]:
    """The part in front of an operation, and how it is held: as the job says and the operation's own entries change it."""
    if not other_end(operation):
        stock = document["stock"]
        sizes = {"free_length": stock["free_length"], "grip_diameter": stock["diameter"], "bore": stock.get("bore", "0")}
        holding = {**sizes, **document["holding"], **own}
        part = part_in_front(document, operation, holding["free_length"])
        if part.solid.kerf:
            raise CuttingError("operation", "the part is cut off before: run this earlier, or turn the part round for it.")
        return part, holding
    if spindle := operation.get("spindle"):
        shop().library.machine(document["machine"]).on(spindle)  # one that is not there is said first
    if not kind_of(operation["operation"]).fields.has("holding", "free_length"):
        raise CuttingError("turned_round", "this kind of operation is not made on a part that is turned round.")
    part = part_in_front(document, operation, own.get("free_length"))
    there = part.solid
    sizes = {"free_length": f"{there.free_length:.6g} mm", "grip_diameter": f"{there.at(0.0):.6g} mm", "bore": f"{there.bore:.6g} mm"}
    return part, {**sizes, **own}


def other_end(operation: dict[str, Any]) -> bool:
    """Whether an operation finds the part turned round."""
    return bool(operation.get("turned_round")) or operation.get("spindle") == "sub"


def told_of(document: dict[str, Any], operation: dict[str, Any]) -> dict[str, Any]:
    """What an operation is told of its feature: what the drawing asks, and over that its own entries."""
    drawn = operation.get("drawn")
    asked = next((one["asked"] for one in document.get("features", ()) if one["id"] == drawn), {}) if drawn else {}
    return entries_of(asked, operation["feature"], kind_of(operation["operation"]).fields.told)


def _bar(document: dict[str, Any]) -> dict[str, Any]:
    """The bar that the pieces are cut from."""
    stock = document["stock"]
    yearly = document["batch"]["yearly"] or document["batch"]["pieces"]
    given = {"length": stock.get("bar_length"), "remnant": stock.get("remnant"), "price": stock.get("bar_price")}
    return {**{name: value for name, value in given.items() if value is not None}, "yearly": yearly}


def merged(settings: dict[str, Any], changed: dict[str, Any]) -> dict[str, Any]:
    """Settings with changes; a new depth gives up a list of passes one by one."""
    listed = {"pass_depths": None} if "depth_of_cut" in changed and "pass_depths" not in changed else {}
    return {**settings, **listed, **changed}


def as_the_machine_gives(operations: list[dict[str, Any]], machine: Machine) -> list[str]:
    """Where an operation has a coolant that the machine does not give, its usual one; the numbers of those operations."""
    moved = [one for one in operations if (told := one["settings"].get("coolant")) and machine.pressure(str(told)) is None]
    for one in moved:
        one["settings"]["coolant"] = machine.usual_coolant
    return [str(one["number"]) for one in moved]


@dataclass(frozen=True)
class PartInFront:
    """The part as an operation finds it, for features as they were entered."""

    solid: Solid

    def settled(self, kind: str, feature: dict[str, Any], units: str = "mm") -> dict[str, float | bool]:
        """What of a feature the part settles where it was not entered, mm."""
        return taken_from_part(kind, feature, self.solid, units)

    def complete(self, kind: str, feature: dict[str, Any]) -> dict[str, Any]:
        """The feature with what the part settles."""
        found = {name: value if isinstance(value, bool) else f"{value:.6g} mm" for name, value in self.settled(kind, feature).items()}
        return {**{name: value for name, value in feature.items() if value != ""}, **found}


def region_of(kind: str, complete: dict[str, Any]) -> Region:
    """What an operation takes from the part, by its complete entries. Raises `CuttingError`."""
    return kind_of(kind).removes(read_feature_of(kind, complete))


Cut = tuple[str, str, str | None]  # kind, feature as JSON, and how far the part stands out that was turned round, blank for as usual


@lru_cache(maxsize=4096)
def _behind(blank: Blank, made: tuple[Cut, ...], slices: int) -> Solid:
    """The part behind operations, told as it was first held; what was walked once is kept."""
    if not made:
        return blank_solid(blank, slices)
    before, (kind, entered, around) = _behind(blank, made[:-1], slices), made[-1]
    try:
        there = _seen(before, around)
        region = region_of(kind, PartInFront(there).complete(kind, json.loads(entered)))
        return before.without(region if around is None else replace(region, around=there.free_length))
    except CuttingError:  # what cannot be read takes nothing away
        return before


def _seen(part: Solid, around: str | None) -> Solid:
    """The part as an operation finds it. Raises `CuttingError` where it cannot be turned round."""
    if around is None:
        return part
    far = read_quantity(around, "length", field="holding.free_length").value if around else part.usual_free_length
    return part.turned_round(far)


def the_blank(document: dict[str, Any], free_length: Any = None) -> Blank:
    """The blank, standing out as the job says or by another length. Raises `CuttingError`."""
    stock = document["stock"]
    given = {"diameter": stock["diameter"], "free_length": free_length or stock["free_length"], "bore": stock.get("bore") or "0"}
    sizes = {name: read_quantity(value, "length", field=f"stock.{name}").value for name, value in given.items()}
    long = read_quantity(stock["length"], "length", field="stock.length").value if stock.get("length") else None
    return Blank(sizes["diameter"], sizes["free_length"], sizes["bore"], read_points(stock.get("shape") or "", "stock.shape"), long)


def part_in_front(document: dict[str, Any], operation: dict[str, Any] | None, free_length: Any = None, slices: int = BENT) -> PartInFront:
    """The part as an operation finds it, after the earlier ones that can be read; behind all of them for None.

    It stands out by `free_length` for this operation, or as the job says. A shaped blank comes in so many slices: few for a beam,
    more for a drawing. Raises `CuttingError`.
    """
    turned = operation is not None and other_end(operation)
    earlier = itertools.takewhile(lambda one: operation is None or one["id"] != operation["id"], document["operations"])
    made = tuple((one["operation"], json.dumps(told_of(document, one), sort_keys=True), _around(one)) for one in earlier)
    part = _behind(the_blank(document, None if turned else free_length), made, slices)
    return PartInFront(_seen(part, str(free_length or _around(operation) or "")) if operation and turned else part)


def _around(operation: dict[str, Any]) -> str | None:
    return str(operation["holding"].get("free_length") or "") if other_end(operation) else None


def entry_of(document: dict[str, Any], operation: str) -> tuple[dict[str, Any], dict[str, Any]]:
    """The document and its operation of that id. Raises a 404 refusal."""
    for entry in document["operations"]:
        if entry["id"] == operation:
            return document, entry
    raise Refusal(404, "The job has no such operation.")


def tried_with(tried: dict[str, Any], document: dict[str, Any], piece_seconds: Callable[[], float]) -> dict[str, Any]:
    """What is tried, with the whole piece's time: that matters only where the machine runs alone, and takes its while."""
    return tried | {"piece_seconds": piece_seconds() if document["batch"]["unattended_hours"] > 0 else None}


def way_of(entry: dict[str, Any], tried: dict[str, Any]) -> str:
    """The way that a narrow tool goes as it is set, so that the ranking knows which of its rows is chosen; blank for one way only."""
    kind = kind_of(entry["operation"])
    name = next((name for name in ("way", "cartridges") if kind.fields.has("settings", name)), None)
    return str({**entry["settings"], **tried}.get(name or "") or "")


def setup_of(
    document: dict[str, Any], operation: dict[str, Any], overrides: dict[str, Any] | None = None, stock: Shop | None = None
) -> Any:
    """The checked set-up of one operation. Raises `CuttingError`."""
    return read_setup(setup_form(document, operation, overrides), (stock or shop()).library)


def request_of(
    document: dict[str, Any], operation: dict[str, Any], overrides: dict[str, Any] | None = None, stock: Shop | None = None
) -> tuple[Any, Any]:
    """The advice request of one operation: its set-up and the tools to choose from. Raises `CuttingError`."""
    form = setup_form(document, operation, overrides)
    kind = kind_of(operation["operation"])
    # how the cut is made stays; speed, feed and depth are what the ranking finds
    found = (*(name for name, _ in kind.neutral), *kind.ranked)
    form["settings"] = {name: value for name, value in form["settings"].items() if name not in found and value is not None} or None
    form["learned"] = None  # of one tool; the ranking compares many by the tables
    return read_request(form, (stock or shop()).library)
