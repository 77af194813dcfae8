"""What the drawing asks, in a job's document: its features, which operations make or prepare each, and what is still open."""

from __future__ import annotations

import uuid
from contextlib import suppress
from typing import Any

from cutting.errors import CuttingError
from cutting.operations.frame.kind import Kind
from cutting.operations.registry import KINDS, kind_of
from cutting.plan.plan import complete, region
from cutting.plan.read import read_entries
from cutting.plan.values import given
from cutting.quantities import display, read_dimension, read_quantity
from cutting.quantities.dimension import deviations_of
from cutting.workpiece.part import SHAPES, Axis, entries_of, own_entries, prepares
from cutting.workpiece.pattern import number_of
from cutting.workpiece.solid import Region
from server.errors import Refusal
from server.jobs.document.entries import in_either
from server.jobs.document.plan import kind_for, other_end, part_in_front, told_of

BESIDE = ("roughness", "flatness", "pip", "keeps", "side", "circle")  # said behind a comma: no size
INSIDE = {kind.name for kind in KINDS.values() if kind.shape in ("hole", "bore")}  # one of them may prepare what another finishes
WORST_FIRST = ("no tool", "over", "close", "holds")


def feature_of(document: dict[str, Any], identity: str) -> dict[str, Any]:
    """The feature of that id. Raises a 404 refusal."""
    for feature in document["features"]:
        if feature["id"] == identity:
            return feature
    raise Refusal(404, "The drawing has no such feature.", [{"field": "edit.feature", "message": "not on this drawing"}])


def note_feature(document: dict[str, Any], kind: Kind, asked: dict[str, Any], title: str = "") -> dict[str, Any]:
    """A new feature of the drawing."""
    feature = {
        "id": uuid.uuid4().hex[:8],
        "title": title,
        "shape": kind.shape,
        "axis": Axis.of(asked).value,
        "asked": asked,
        "noted": False,
    }
    document["features"].append(feature)
    return feature


def attach(document: dict[str, Any], entry: dict[str, Any]) -> None:
    """Give an operation that was entered with all its values its feature: one that it finishes after another cut, or a new one."""
    kind, told = kind_of(entry["operation"]), entry["feature"]
    asked = {name: value for name, value in told.items() if name in kind.fields.drawn and value not in (None, "")}
    feature = _finished_by(document, entry)
    if feature is None:
        feature = note_feature(document, kind, {})
    before = [(one, told_of(document, one)) for one in document["operations"] if one.get("drawn") == feature["id"]]
    feature["asked"], feature["axis"], feature["shape"] = asked, Axis.of(asked).value, kind.shape
    for one, was in before:  # they read on as they did, beside what is asked now
        one["prepares"], one["feature"] = True, own_entries(asked, was, kind_of(one["operation"]).fields.told)
    entry["drawn"], entry["prepares"], entry["feature"] = feature["id"], False, own_entries(asked, told, kind.fields.told)


def drawn_up(document: dict[str, Any]) -> dict[str, Any]:
    """The document of operations that were entered with all their values, with what the drawing asks standing by itself."""
    made: dict[str, Any] = {**document, "features": [], "operations": []}
    for one in document["operations"]:
        entry = {**one, "drawn": "", "prepares": False, "feature": dict(one["feature"])}
        made["operations"].append(entry)
        attach(made, entry)
    return made


def _finished_by(document: dict[str, Any], entry: dict[str, Any]) -> dict[str, Any] | None:
    """The feature whose one cut only prepares what this operation finishes: it covers it, and nobody asked more of it."""
    for feature in document["features"]:
        cuts = [one for one in document["operations"] if one.get("drawn") == feature["id"] and not one["prepares"]]
        if len(cuts) != 1 or feature["asked"].get("roughness") or cuts[0] is entry:
            continue
        if cuts[0]["operation"] != entry["operation"] and not {cuts[0]["operation"], entry["operation"]} <= INSIDE:
            continue
        if any(_limits(feature, name) for name in ("end_diameter", "diameter")) or other_end(cuts[0]) != other_end(entry):
            continue
        with suppress(CuttingError):  # what cannot be read prepares nothing
            if prepares(_region(document, cuts[0]), _region(document, entry)):
                return feature
    return None


def _limits(feature: dict[str, Any], name: str) -> bool:
    with suppress(CuttingError):
        return bool(read_dimension(str(feature["asked"].get(name, "0")), "mm", name).tolerance)
    return False


def _region(document: dict[str, Any], entry: dict[str, Any]) -> Region:
    kind, told = entry["operation"], given(read_entries(entry["operation"], "feature", told_of(document, entry)))
    return region(kind, complete(kind, told, part_in_front(document, entry)))


def change_told(document: dict[str, Any], entry: dict[str, Any], changes: dict[str, Any]) -> None:
    """Change what an operation is told: a value of the drawing in its feature where the operation makes it, else in the operation."""
    kind = kind_of(entry["operation"])
    feature = next((one for one in document["features"] if one["id"] == entry.get("drawn")), None)
    makes = feature is not None and not entry["prepares"] and feature["shape"] == kind.shape
    for name, value in changes.items():
        if makes and feature is not None and name in kind.fields.drawn:
            feature["asked"][name] = value
            feature["axis"] = Axis.of(feature["asked"]).value
            entry["feature"].pop(name, None)
        elif (
            name in entry["feature"] or feature is None or feature["asked"].get(name) != value
        ):  # what the drawing says goes on being its own
            entry["feature"][name] = value


def drawing_of(document: dict[str, Any], rows: list[dict[str, Any]]) -> list[dict[str, Any]]:
    """Every feature with its words, its operations and how it stands; `rows` are the operations as evaluated."""
    status = {row["id"]: row["status"] for row in rows}
    found = []
    for feature in document["features"]:
        cuts = [one for one in document["operations"] if one.get("drawn") == feature["id"]]
        makers = [one for one in cuts if not one["prepares"]]
        worst = min((status[one["id"]] for one in makers), key=WORST_FIRST.index, default="open")
        found.append(
            {
                "id": feature["id"],
                "shape": feature["shape"],
                "words": words_of(feature),
                "makes": [one["number"] for one in makers],
                "prepares": [one["number"] for one in cuts if one["prepares"]],
                "status": worst,
            }
        )
    return found


def words_of(feature: dict[str, Any]) -> dict[str, str]:
    """A feature as a drawing would say it, in both units."""
    kind = kind_for(feature["shape"])
    told = entries_of(feature["asked"], {}, kind.fields.told)
    parts = [(name, _both(kind, name, told[name])) for name in kind.fields.shown if name in told]
    said = {
        side: "".join((", " if name in BESIDE else " × ") + part[side] for name, part in parts).removeprefix(" × ").removeprefix(", ")
        for side in ("metric", "inch")
    }
    noun = SHAPES[kind.shape]
    title = feature["title"] or ("" if kind.shape == "outside" else kind.title if " " in noun else noun.capitalize())
    alike = f"{many} ×" if (many := number_of(told.get("count"))) > 1 else ""
    return {side: " ".join(word for word in (alike, title, said[side]) if word) for side in said}


def in_either_units(document: dict[str, Any]) -> dict[str, dict[str, dict[str, str]]]:
    """What operations are told and the drawing asks, by identity and field, where it reads otherwise in the other units."""
    told = [(one["id"], one["operation"], told_of(document, one)) for one in document["operations"]]
    told += [(one["id"], kind_for(one["shape"]).name, one["asked"]) for one in document.get("features", ())]
    found = {
        identity: {name: vars(both) for name, entry in entries.items() if (both := in_either(kind, name, entry))}
        for identity, kind, entries in told
    }
    return {identity: entries for identity, entries in found.items() if entries}


def _both(kind: Kind, name: str, value: Any) -> dict[str, str]:
    field = kind.fields.named(name)
    assert field
    sign = "on Ø" if name == "circle" else "Ø" if "Ø" in field.label else "Ra " if name == "roughness" else ""
    said = str(value).removeprefix("Ø").strip()
    if field.kind == "roughness" and said[:1].isalpha():  # Rz, Rt or a class stays in its own word
        return {"metric": said, "inch": said}
    with suppress(CuttingError):
        if field.kind == "dimension":
            read = read_dimension(said, "mm", name)
            nominal, tail = display(read.nominal, "length" if read.tolerance is None else "size", False), deviations_of(said)
            if read.tolerance is None or tail[:1].isalpha():
                return {side: f"{sign}{getattr(nominal, side)} {tail}".strip() for side in ("metric", "inch")}
            upper, lower = (display(one, "size", False) for one in (read.upper_deviation or 0.0, read.lower_deviation or 0.0))
            return {
                side: f"{sign}{getattr(nominal, side)} " + _limits_said(getattr(upper, side), getattr(lower, side))
                for side in ("metric", "inch")
            }
        if field.kind in ("length", "small_length", "roughness"):
            shown = display(read_quantity(said, field.kind, field=name).value, field.kind)
            return {"metric": sign + shown.metric, "inch": sign + shown.inch}
    return {"metric": sign + said, "inch": sign + said}


def _limits_said(upper: str, lower: str) -> str:
    """Deviations as a drawing has them: ± where they are alike, else one over the other with their signs."""
    if lower == f"-{upper}":
        return f"±{upper}"
    return "/".join("0" if float(one) == 0 else one if one.startswith("-") else f"+{one}" for one in (upper, lower))
