"""A whole part in one line: what it asks for, the part that it leaves, and how its operations stand with the best tools of the crib."""

from __future__ import annotations

import copy
import re
from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router
from pydantic import Field

from cutting.doors.json_form import Wanted
from cutting.doors.plain import problem as core_problem
from cutting.errors import CuttingError
from cutting.operations.registry import kind_of
from cutting.process.line_words import Planned
from cutting.process.shaft_line import noted, read_shaft_line
from cutting.quantities import display, read_quantity
from server.errors import Refusal
from server.jobs.choice.turns import turn
from server.jobs.document.entries import Entry, with_unit
from server.jobs.document.tools import told
from server.jobs.doors.planning import bare
from server.jobs.edits.order import AddOperations, New
from server.jobs.kept import actions
from server.jobs.schemas.job import OutlineOut
from server.jobs.shown.state import sketch_of, state_of_document
from server.schema import Schema
from server.sentences import Sentence
from server.shop import shop
from server.units import DisplayOut, Units
from server.words import sentence

router = Router()


class ShaftLineIn(Schema):
    """A part said in one line; `tried` asks for its operations with the best tools, too."""

    line: str = Field(max_length=2000)
    units: Units = "mm"
    tried: bool = False


class PlannedOut(Schema):
    """An operation that a line asks for."""

    kind: str
    title: str
    feature: dict[str, Entry]
    note: Sentence
    turned_round: bool


class TriedOut(Schema):
    """How an operation of a line stands with its best tool."""

    title: str
    edge: str
    status: Literal["holds", "close", "over", "no tool"]
    seconds: DisplayOut
    cost: DisplayOut
    why: DisplayOut


class ShaftLineOut(Schema):
    """The operations that a line asks for, the part that they leave, and what is only noted."""

    operations: list[PlannedOut]
    outline: OutlineOut
    noted: list[str]
    tried: list[TriedOut] | None = None
    seconds: DisplayOut | None = None  # a piece, of all of them


@router.post("/{job_id}/shaft-line", response=ShaftLineOut)
def read_line(request: HttpRequest, job_id: int, payload: ShaftLineIn) -> dict[str, Any]:
    """What operations a part said in one line asks for; a refusal names the place of the words that it is about."""
    document = copy.deepcopy(actions.newest(job_id).document)
    try:
        planned = _planned(document, payload)
    except CuttingError as error:
        found = {**core_problem(error), "where": place_of(payload.line, error.message)}
        raise Refusal(422, sentence(error.field, error.message), [found]) from error
    # whatever the line was said in, the features it asks for are written in millimetres
    features = [{name: with_unit(one.kind, "feature", name, value, "mm") for name, value in one.feature.items()} for one in planned]
    operations: list[dict[str, Any]] = [
        {"kind": one.kind, "title": one.title, "feature": feature, "note": one.note, "turned_round": one.turned_round}
        for one, feature in zip(planned, features, strict=True)
    ]
    tried = None
    if payload.tried:
        with turn(request, f"line {job_id}"):
            tried = _tried(copy.deepcopy(document), operations)
    for k, one in enumerate(operations):
        made = bare(f"new{k}", one["kind"], one["feature"])
        document["operations"].append(made | {"turned_round": one["turned_round"]})
    outline, _ = sketch_of(document, None, shop())
    return {"operations": operations, "outline": outline, "noted": list(noted(payload.line)), **(tried or {})}


def _planned(document: dict[str, Any], payload: ShaftLineIn) -> tuple[Planned, ...]:
    stock = document["stock"]
    blank, free, bore = (read_quantity(stock[name], "length", field=name).value for name in ("diameter", "free_length", "bore"))
    whole = read_quantity(stock["length"], "length", field="length").value if stock.get("length") else None
    system = "inch" if payload.units == "inch" else "metric"
    return read_shaft_line(payload.line, blank, free, system, bore, _drills(document), whole)


def place_of(line: str, message: str) -> list[int] | None:
    """Where in a line the words stand that a message quotes: from and to; None where it quotes none of them.

    Of words that are quoted in others, as 'o' in 'Ø35 x 2o', the inner ones are meant, where the outer ones stand.
    """
    said = line.casefold()
    quoted = re.findall(r"'([^']+)'", message) or re.findall(r"[ØøM]\d[\w.,]*", message)
    found = [word.casefold() for word in quoted if word.casefold() in said]
    if not found:
        return None
    outer = max(found, key=len)
    inner = next((word for word in found if word in outer), outer)
    start = said.index(outer) + outer.rindex(inner)
    return [start, start + len(inner)]


def _tried(document: dict[str, Any], operations: list[dict[str, Any]]) -> dict[str, Any]:
    """The operations with their best tools, on a copy that nobody keeps."""
    before = {entry["id"] for entry in document["operations"]}
    new = [New(**{name: one[name] for name in New.model_fields}) for one in operations]
    AddOperations(action="add_operations", operation="", operations=new).apply(document)
    state = state_of_document(document, shop())
    rows = [row for row in state["operations"] if row["id"] not in before]
    edges = {entry["id"]: told(entry["tool"])["edge"] for entry in document["operations"]}
    tried = [
        {
            "title": row["title"],
            "edge": edges[row["id"]],
            "status": row["status"],
            "seconds": row["seconds_display"],
            "cost": row["cost_display"],
            "why": row["problem"] or {"metric": row["binding"], "inch": row["binding"]},
        }
        for row in rows
    ]
    return {"tried": tried, "seconds": display(sum(row["seconds"] for row in rows), "duration")}


def _drills(document: dict[str, Any]) -> list[tuple[float, float]]:
    """Ø and reach of the shop's drills that open a hole in solid metal."""
    library, kind = shop().library, kind_of("drill")
    kinds = tuple((role.name, role.kinds) for role in kind.roles)
    stock: Any = library.stock(Wanted("drill", kinds, library.material(document["material"]), library.machine(document["machine"])))
    return [(one.diameter, one.reach) for one in stock.drills if not (one.type.enlarges or one.type.spots)]
