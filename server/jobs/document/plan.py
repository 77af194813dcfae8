"""The job document: its schema, and the one door between it and the plan that the core reckons with."""

from __future__ import annotations

import copy
from collections.abc import Callable
from dataclasses import replace
from functools import lru_cache
from typing import Annotated, Any, Literal, Self

from pydantic import ConfigDict, Field, ValidationError, model_validator

from cutting.doors.assemble import from_tables
from cutting.doors.json_form import read_house, read_points
from cutting.errors import CuttingError
from cutting.machine.machines import Machine
from cutting.operations.frame.kind import Kind
from cutting.operations.frame.setup import Batch, Goal, Skin
from cutting.operations.registry import KINDS, kind_of
from cutting.plan import setups
from cutting.plan.plan import Ask, Clamping, Plan, Step, before
from cutting.plan.read import read_bar, read_entries
from cutting.plan.setups import Tried
from cutting.plan.values import Values
from cutting.quantities import read_quantity
from cutting.workpiece.layers import Layer, read_layers
from cutting.workpiece.part import SHAPES, entries_of
from cutting.workpiece.solid import BENT, Blank, Solid
from server.errors import Refusal
from server.jobs.document.entries import Entry, with_unit
from server.jobs.document.outcomes import outcome_of
from server.jobs.document.tools import ToolNames
from server.schema import Schema
from server.shop import Shop, shop
from server.words import Name, asked, said, title

Pieces = asked("pieces", "count", 1, 10_000_000, unit="pieces", whole=True)
Yearly = asked("pieces a year", "count", 0, 100_000_000, unit="pieces", whole=True)
Hours = asked("hours alone", low=0, high=168, unit="h")
SetupMinutes = asked("set-up minutes", low=0, high=10_000, unit="min")
GoodShare = asked("good share", low=0.1, high=1)
Price = asked("price", "money", 0, 1e6)
Target = asked("target", "money", 0, 1e6, empty=True)
Paid = asked("cost per piece", "money", 0, 1e6, above=True)
Rate = asked("rate an hour", "money", 0, 10_000)
Seconds = asked("seconds per piece", "duration", 0, 1e6, above=True)
Edges = asked("edges", "count", 1, 100, unit="edges", whole=True)
PerEdge = asked("pieces per edge", "count", 0.01, 1e7, unit="pieces")
Change = asked("edge change, s", "duration", 0, 1e5)


MOST_FEATURES = 120
OperationName = Literal[tuple(KINDS)]
SpindleChoice = Literal["", "main", "sub", "driven", "tool"]


class Strict(Schema):
    """A part of a document: what it does not know is refused."""

    model_config = ConfigDict(extra="forbid")


class FeatureData(Strict):
    """What the drawing asks of one feature, as it was entered."""

    id: str = Field(max_length=20)
    title: str = Field(default="", max_length=80)
    shape: Literal[tuple(SHAPES)]
    axis: Literal["on the axis", "on a pitch circle", "across"] = "on the axis"
    asked: dict[str, Entry]
    noted: bool = Field(default=False, description="asked before any operation was planned for it: it stays when that goes")


MOST_PROGRAM = 200_000  # letters of a program that is kept with an operation
Measured = Literal["tolerance", "finish", "burr", "position", "straightness", "count"]


class OwnProgramData(Strict):
    """A program that somebody wrote for an operation, and the fingerprint of what was planned then."""

    dialect: str = Field(max_length=40)
    units: Literal["mm", "inch"]
    text: str = Field(max_length=MOST_PROGRAM)
    of: str = Field(max_length=64)


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
    process: ProcessesData | None = None
    program: OwnProgramData | None = None
    accepted: dict[Measured, Annotated[float, Field(ge=0, le=1e6)]] = {}  # what was measured of what is asked, in the core's units


class GrindingData(Strict):
    """Grinding as it is done now: what hard turning is held against."""

    seconds: Seconds
    rate: Rate
    wheel: Price = 0


class ProcessData(Strict):
    """How a cut is made, by what drives its cost."""

    seconds: Seconds
    price: Price
    edges: Edges
    pieces: PerEdge
    change: Change
    rate: Rate


class ProcessesData(Strict):
    """The present process, and what is held against it; where that is not given, the plan is."""

    present: ProcessData
    proposed: ProcessData | None = None


Noted = Annotated[str, Field(min_length=1, max_length=120)]


class StockData(Strict):
    """The blank as it was typed, with what its pieces are cut from."""

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
    """How many, and for how long alone."""

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


SOFTEST, HARDEST = 5.0, 1200.0  # HB, of all that is cut: lead to cemented carbide


class Document(Strict):
    """A job's content, version 2."""

    version: Literal[2] = 2
    name: Name
    material: str = Field(max_length=120)
    hardness: float | None = Field(default=None, ge=SOFTEST, le=HARDEST, description="HB")
    machine: str = Field(max_length=80)
    goal: Literal["cheapest", "fastest", "most secure"] = "cheapest"
    batch: BatchData = BatchData()
    money: Money = Money()
    stock: StockData
    holding: dict[str, Entry] = {}
    house: dict[str, Entry] = {}
    features: list[FeatureData] = Field(default=[], max_length=MOST_FEATURES)
    noted: list[Noted] = Field(
        default=[], max_length=30, description="what the drawing asks and nothing here makes, as keyseats and knurls"
    )
    operations: list[Operation] = Field(max_length=60)
    baseline: Baseline | None = None

    @model_validator(mode="after")
    def _each_id_once(self) -> Self:
        for what, ids in (("operations", [one.id for one in self.operations]), ("features", [one.id for one in self.features])):
            if twice := next((one for one in ids if ids.count(one) > 1), None):
                raise ValueError(f"two {what} are called '{twice[:20]}'")
        return self


def checked(model: type[Strict], given: dict[str, Any], path: str) -> dict[str, Any]:
    """What the model makes of the values. Raises a 422 refusal that names each field below `path` in people's words."""
    try:
        return model(**given).dict()
    except ValidationError as error:
        errors = said([{**one, "loc": (path, *one["loc"]) if path else one["loc"]} for one in error.errors()])
        raise Refusal(422, title(errors), errors) from error


def plan_of(document: dict[str, Any]) -> Plan:
    """The document as a plan: every entry read once; what one of an earlier release does not say is as usual.

    Raises `CuttingError` for a blank that cannot be read.
    """
    blank, batch = the_blank(document), {**BatchData().dict(), **document.get("batch", {})}
    return Plan(
        blank=blank,
        material=document["material"],
        machine=document["machine"],
        steps=tuple(step_of(document, one) for one in document["operations"]),
        asks=tuple(
            Ask(one["id"], one["shape"], read_entries(kind_for(one["shape"]).name, "feature", one["asked"]), one.get("title", ""))
            for one in document.get("features", ())
        ),
        layers=read_layers(document["stock"].get("layers") or "", blank.free_length),
        hardness=document.get("hardness"),
        goal=Goal(document.get("goal", Goal.CHEAPEST)),
        batch=Batch(batch["pieces"], batch["unattended_hours"]),
        house=read_house(document.get("house") or {}),
        bar=read_bar(_bar(document, batch)),
        blank_price=float(document.get("money", {}).get("blank", 0.0)),
    )


def step_of(document: dict[str, Any], operation: dict[str, Any], overrides: dict[str, Any] | None = None) -> Step:
    """An operation as a step; `overrides` may replace parts of its settings, holding and tool."""
    more = overrides or {}
    kind, units = operation["operation"], more.get("units", "mm")
    # entries in the document carry their units; only what is being tried is in the units shown
    tried = {name: with_unit(kind, "settings", name, value, units) for name, value in (more.get("settings") or {}).items()}
    held = {name: with_unit(kind, "holding", name, value, units) for name, value in (more.get("holding") or {}).items()}
    turned, own_holding = other_end(operation), operation.get("holding") or {}
    holding = read_entries(kind, "holding", {**({} if turned else document.get("holding") or {}), **own_holding, **held})
    own = read_entries(kind, "holding", own_holding) if turned else Values()
    return Step(
        identity=operation["id"],
        kind=kind,
        told=read_entries(kind, "feature", told_of(document, operation)),
        settings=read_entries(kind, "settings", merged(operation.get("settings") or {}, tried)),
        holding=holding,
        tool=tuple({**(operation.get("tool") or {}), **(more.get("tool") or {})}.items()),
        clamping=Clamping(turned, own.length("free_length") if isinstance(own, Values) else None),
        spindle=operation.get("spindle") or "",
        skin=Skin(operation.get("skin", Skin.CLEAN)),
        makes=operation.get("drawn") or "",
        prepares=bool(operation.get("prepares")),
    )


def setup_of(
    document: dict[str, Any], operation: dict[str, Any], overrides: dict[str, Any] | None = None, stock: Shop | None = None
) -> Any:
    """The checked set-up of one operation. Raises `CuttingError`."""
    more = overrides or {}
    return setups.setup_of(plan_of(document), step_of(document, operation, more), (stock or shop()).library, _tried(more), outcome_of)


def request_of(
    document: dict[str, Any], operation: dict[str, Any], overrides: dict[str, Any] | None = None, stock: Shop | None = None
) -> tuple[Any, Any]:
    """The advice request of one operation: its set-up and the tools to choose from. Raises `CuttingError`."""
    more = overrides or {}
    return setups.request_of(plan_of(document), step_of(document, operation, more), (stock or shop()).library, _tried(more), outcome_of)


def request_without_stock(document: dict[str, Any], operation: dict[str, Any], stock: Shop) -> Any:
    """The request of an operation that no tool of the crib makes, with a shipped tool in its place. Raises `CuttingError`."""
    shipped = replace(stock.library, stock=from_tables)
    return setups.request_of(plan_of(document), step_of(document, operation), shipped, judge=outcome_of)[0]


def readable(document: dict[str, Any], operation: dict[str, Any], stock: Shop) -> Any:
    """The set-up of an operation as far as it is planned: with its own tool, or without one. Raises `CuttingError` for what cannot be."""
    return setup_of(document, operation, None, stock) if operation["tool"] else request_without_stock(document, operation, stock)


def _tried(more: dict[str, Any]) -> Tried:
    goal = Goal(more["goal"]) if more.get("goal") else None
    return Tried(goal, more.get("piece_seconds"), more.get("part_value"))


def metals_of(document: dict[str, Any], operation: dict[str, Any]) -> tuple[str, ...]:
    """The metals that an operation cuts, the slowest to cut first; none where the stock is of one. Raises `CuttingError`."""
    plan, step = plan_of(document), step_of(document, operation)
    return setups.metals(plan, step, before(plan, step), shop().library)


def part_in_front(document: dict[str, Any], operation: dict[str, Any] | None, stands_out: float | None = None, slices: int = BENT) -> Solid:
    """The part as an operation finds it, after the earlier ones that can be read; behind all of them for None. Raises `CuttingError`."""
    plan = plan_of(document)
    return before(plan, None if operation is None else step_of(document, operation), stands_out, slices)


def layers_of(document: dict[str, Any]) -> tuple[Layer, ...]:
    """The layers of the stock from its free face, empty for one metal. Raises `CuttingError`."""
    return read_layers(document["stock"].get("layers") or "", the_blank(document).free_length)


def other_end(operation: dict[str, Any]) -> bool:
    """Whether an operation finds the part turned round."""
    return bool(operation.get("turned_round")) or operation.get("spindle") == "sub"


def told_of(document: dict[str, Any], operation: dict[str, Any]) -> dict[str, Any]:
    """What an operation is told of its feature: what the drawing asks, and over that its own entries."""
    drawn = operation.get("drawn")
    asked: dict[str, Any] = next((one["asked"] for one in document.get("features", ()) if one["id"] == drawn), {}) if drawn else {}
    return entries_of(asked, operation["feature"], kind_of(operation["operation"]).fields.told)


def kind_for(shape: str) -> Kind:
    """The kind of operation that makes a shape and names its fields."""
    return next(kind for kind in KINDS.values() if kind.shape == shape)


def _bar(document: dict[str, Any], batch: dict[str, Any]) -> dict[str, Any]:
    """The bar that the pieces are cut from."""
    stock, yearly = document["stock"], batch["yearly"] or batch["pieces"]
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


@lru_cache(maxsize=1024)
def _blank(diameter: str, free_length: str, bore: str, shape: str, length: str) -> Blank | CuttingError:
    given = {"diameter": diameter, "free_length": free_length, "bore": bore}
    try:
        sizes = {name: read_quantity(value, "length", field=f"stock.{name}").value for name, value in given.items()}
        long = read_quantity(length, "length", field="stock.length").value if length else None
        return Blank(sizes["diameter"], sizes["free_length"], sizes["bore"], read_points(shape, "stock.shape"), long)
    except CuttingError as error:
        return error


def the_blank(document: dict[str, Any]) -> Blank:
    """The blank as it stands out of the chuck. Raises `CuttingError`."""
    stock = document["stock"]
    shape, length = stock.get("shape") or "", stock.get("length") or ""
    found = _blank(str(stock["diameter"]), str(stock["free_length"]), str(stock.get("bore") or "0"), shape, length)
    if isinstance(found, CuttingError):
        raise copy.copy(found)
    return found


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
