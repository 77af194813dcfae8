"""Edits of the whole part: what it is made of, on what, for whom; and the process that it is held against."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import suppress
from typing import Any, Literal

from pydantic import Field

from cutting.doors.json_form import read_house
from cutting.errors import AmbiguousQuantity, OutOfRange, UnreadableQuantity, require_between
from cutting.operations.frame.kind import Kind
from cutting.operations.registry import kind_of
from cutting.quantities import read_quantity
from cutting.workpiece.hardness import brinell
from server.jobs.document.entries import Entry, length_with_unit
from server.jobs.document.plan import (
    HARDEST,
    SOFTEST,
    Baseline,
    BatchData,
    Money,
    StockData,
    Strict,
    as_the_machine_gives,
    checked,
    kind_for,
    other_end,
    the_blank,
)
from server.jobs.document.stock import check_stock, layers_as_entered
from server.jobs.edits.gesture import Gesture
from server.shop import shop
from server.words import Name, label_of

BATCH_AND_MONEY: dict[str, type[Strict]] = {"batch": BatchData, "money": Money}


class SetPart(Gesture):
    """Material, machine, goal, batch, money, house rules, name: what concerns the whole part."""

    action: Literal["set_part"]
    name: Name | None = None
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
        """Set what the whole part is told."""
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
            said.append(f"machine {machine.name}")
            if moved := as_the_machine_gives(document["operations"], machine):
                said.append(f"there {machine.usual_coolant} in {', '.join(moved)}")
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
        before = the_blank(document).free_length if self.free_length is not None else 0.0
        for name in ("diameter", "free_length", "bore", "length", "bar_length", "remnant"):
            if (given := getattr(self, name)) is not None:
                document["stock"][name] = length_with_unit(name, given, self.units) if given != "" or name != "length" else ""
                said.append(f"{label_of(name)} {given}")
        if self.free_length is not None and (further := the_blank(document).free_length - before):
            _refuse_cuts_in_the_jaws(document, before, further)
            pull_out(document, further)
            said.append("every place goes with the part")
        if self.bar_price is not None:
            document["stock"]["bar_price"] = checked(StockData, {**document["stock"], "bar_price": self.bar_price or 0}, "")["bar_price"]
            said.append(f"price of a bar {self.bar_price}")
        check_stock(document)
        if self.house is not None:
            document["house"].update(self.house)
            read_house(document["house"])
            said.append("house rules")
        return ", ".join(said) or "nothing"


class SetBaseline(Gesture):
    """The present process, to beat; null takes it away."""

    action: Literal["set_baseline"]
    baseline: dict[str, Entry] | None

    def apply(self, document: dict[str, Any]) -> str:
        """Keep, change or drop the present process."""
        document["baseline"] = checked(Baseline, self.baseline, "baseline") if self.baseline else None
        return "present process"


def _brinell(hardness: float | str, material: str) -> float:
    """Hardness as delivered, HB, from any scale; what the standard does not convert is refused."""
    found = brinell(str(hardness), shop().library.material(material).group)
    return round(require_between("hardness", found, SOFTEST, HARDEST, "HB"), 1)


def _told_from_the_jaws(document: dict[str, Any]) -> Iterator[tuple[str, dict[str, Entry], Kind]]:
    """What tells its places from the face of the jaws in this clamping: a name for people, its entries, and its kind."""
    makers: dict[str, dict[str, Any]] = {}
    for operation in document["operations"]:
        makers.setdefault(operation["drawn"], operation)
        if not other_end(operation):
            yield _named(operation), operation["feature"], kind_of(operation["operation"])
    for feature in document["features"]:
        if not (maker := makers.get(feature["id"])) or not other_end(maker):
            yield _named(maker) if maker else feature["title"] or feature["shape"], feature["asked"], kind_for(feature["shape"])


def _named(operation: dict[str, Any]) -> str:
    return f"operation {operation['number']} {operation['title']}"


def _refuse_cuts_in_the_jaws(document: dict[str, Any], before: float, further: float) -> None:
    """Refuse a length [mm] out of the jaws at which a cut that stands would be inside them."""
    for who, entries, kind in _told_from_the_jaws(document):
        for field in kind.fields.feature:
            if not field.place or field.kind == "points" or (told := entries.get(field.name)) in (None, ""):
                continue
            with suppress(UnreadableQuantity, AmbiguousQuantity):  # what cannot be read is no place yet
                place = read_quantity(str(told), "length").value
                if place + further < 0.0 <= place:
                    bound = f"at least {before - place:g} mm"
                    raise OutOfRange("free_length", f"At so little, {who} would end inside the jaws: {bound}, or move it first.", bound)


def pull_out(document: dict[str, Any], further: float) -> None:
    """The part stands out of the jaws by so much more [mm]: what is told from them belongs to the part and goes with it."""
    for _, entries, kind in _told_from_the_jaws(document):
        for field in kind.fields.feature:
            if field.place and (told := entries.get(field.name)) not in (None, ""):
                with suppress(UnreadableQuantity, AmbiguousQuantity):
                    entries[field.name] = _points_moved(str(told), further) if field.kind == "points" else _moved(str(told), further)
    if shape := document["stock"].get("shape"):
        document["stock"]["shape"] = _points_moved(shape, further)


def _points_moved(text: str, further: float) -> str:
    points = [point.partition(":") for point in text.split(";") if point.strip()]
    return "; ".join(f"{_moved(place.strip(), further)}:{size}" for place, _, size in points)


def _moved(told: str, further: float) -> str:
    """A place as it was typed, so much further out, in the unit in which it was meant."""
    place = read_quantity(told, "length").value + further
    inch = any(sign in told for sign in ("in", '"', "″", "thou"))
    return f"{place / 25.4:.10g} in" if inch else f"{place:.10g} mm"
