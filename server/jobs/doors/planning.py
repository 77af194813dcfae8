"""From the drawing to a plan over HTTP: what a new feature finds, a whole shaft in one line, the best tools for all. Nothing is saved."""

from __future__ import annotations

import copy
from typing import Any

from django.http import HttpRequest
from ninja import Router
from pydantic import Field

from cutting.doors.plain import problem as core_problem
from cutting.errors import CuttingError
from cutting.plan.plan import settled as settled_by_part
from cutting.plan.read import read_each
from cutting.quantities import display
from server.jobs.choice.best import best_for_all
from server.jobs.choice.turns import turn
from server.jobs.document.entries import Entry, changed_with_unit
from server.jobs.document.plan import SpindleChoice, part_in_front, told_of
from server.jobs.document.tools import NONE, ToolWords, told
from server.jobs.edits import Becomes, ChainStep
from server.jobs.edits.tools import chain_of
from server.jobs.kept import actions
from server.jobs.schemas.job import OutlineOut
from server.jobs.shown.state import sketch_of, state_of
from server.schema import Schema
from server.sentences import Sentence
from server.shop import shop
from server.units import DisplayOut, Units
from server.words import asked

router = Router()
Worth = asked("what a pocket is worth", "money", 0, 1000)


class SketchIn(Schema):
    """A feature that is being entered: for a new operation, or in place of the one of that id."""

    kind: str = Field(max_length=20)
    feature: dict[str, Entry]
    operation: str = Field(default="", max_length=20)
    spindle: SpindleChoice = ""
    turned_round: bool = False
    units: Units = "mm"


class SettledOut(Schema):
    """A field that was left empty and what the part as it stands makes of it."""

    name: str
    display: DisplayOut
    flag: bool | None


class ProblemOut(Schema):
    """What is wrong with an entry, and what would do."""

    field: str
    message: Sentence
    bound: str | None = None


class SketchOut(Schema):
    """The part with a feature that is being entered."""

    outline: OutlineOut
    settled: list[SettledOut]
    problem: ProblemOut | None


class BestRow(Schema):
    """What taking the best tool changes in one operation."""

    operation: str
    number: int
    title: str
    now: ToolWords
    then: ToolWords | None
    settings: dict[str, str]
    becomes: Becomes | None
    before: list[ChainStep]
    seconds_now: DisplayOut
    seconds_then: DisplayOut | None
    cost_now: DisplayOut
    cost_then: DisplayOut | None
    says: DisplayOut
    changes: bool


class BestOut(Schema):
    """Every operation with its best tool, and what taking them all comes to."""

    rows: list[BestRow]
    tools_now: int
    first: int  # operations that had no tool and get one
    tools_then: int
    pockets: int
    cost_now: DisplayOut
    cost_then: DisplayOut


@router.post("/{job_id}/sketch", response=SketchOut)
def sketch_feature(request: HttpRequest, job_id: int, payload: SketchIn) -> dict[str, Any]:
    """How the part looks with a feature that is being entered, and what of it the part settles."""
    document = copy.deepcopy(actions.newest(job_id).document)
    known = next((one for one in document["operations"] if one["id"] == payload.operation), None)
    entry = known or bare("new", payload.kind, {})
    if known is None:
        document["operations"].append(entry)
    was = told_of(document, known) if known else {}
    entry |= {"operation": payload.kind, "feature": {}, "drawn": ""}  # what is being entered is all that it is told
    entry |= {"spindle": payload.spindle, "turned_round": payload.turned_round}
    refused = None
    for name, value in payload.feature.items():
        try:
            entry["feature"] |= changed_with_unit(payload.kind, {name: value}, was, payload.units)
        except CuttingError as error:
            refused = refused or core_problem(error)
    settled: dict[str, float | bool] = {}
    try:
        settled = settled_by_part(payload.kind, read_each(payload.kind, entry["feature"]), part_in_front(document, entry))
    except CuttingError as error:
        refused = refused or core_problem(error)
    outline, problem = sketch_of(document, entry, shop())
    return {
        "outline": outline,
        "settled": [
            {"name": name, "display": display(0.0 if isinstance(value, bool) else round(value, 3), "length"),
             "flag": value if isinstance(value, bool) else None}
            for name, value in settled.items()
        ],
        "problem": refused or problem,
    }  # fmt: skip


class BestIn(Schema):
    """What a pocket of the machine is worth a piece."""

    worth: Worth = 0


@router.post("/{job_id}/best", response=BestOut)
def best_tools(request: HttpRequest, job_id: int, payload: BestIn) -> dict[str, Any]:
    """The best tool for every operation, or fewer tools where sharing one costs less than `worth` a piece each."""
    revision, stock = actions.newest(job_id), shop()
    rows = {row["id"]: row for row in state_of(revision, None, stock)["operations"]}
    found, now, then = [], 0.0, 0.0
    with turn(request, f"best {job_id}"):
        chosen = best_for_all(revision.document, payload.worth, stock)
    for entry, pick, why in chosen:
        row = rows[entry["id"]]
        before, after = row["cost"], pick.row.cost if pick else row["cost"]
        if entry["tool"]:  # what is not planned yet costs nothing now, and is no saving
            now, then = now + before, then + after
        changes = pick is not None and (pick.tool != entry["tool"] or abs(after - before) > 0.004)
        found.append(
            {
                "operation": entry["id"],
                "number": entry["number"],
                "title": entry["title"],
                "now": told(entry["tool"]),
                "then": told(pick.tool) if pick else None,
                "settings": {name: str(value) for name, value in pick.settings.items()} if pick else {},
                "becomes": pick.row.becomes if pick else None,
                "before": chain_of(pick.row) if pick else [],
                "seconds_now": row["seconds_display"],
                "seconds_then": display(pick.row.seconds, "duration") if pick else None,
                "cost_now": row["cost_display"],
                "cost_then": display(after, "money") if pick else None,
                "says": _says(pick, why, changes),
                "changes": changes,
            }
        )
    return {
        "rows": found,
        "tools_now": len({tuple(row["now"]["tool"].values()) for row in found} - {()}),
        "tools_then": len({tuple(tool.values()) for row in found for tool in _tools_then(row)} - {()}),
        "first": sum(not entry["tool"] and pick is not None for entry, pick, _ in chosen),
        "pockets": int(stock.library.machine(revision.document["machine"]).pockets),
        "cost_now": display(now, "money"),
        "cost_then": display(then, "money"),
    }


def _tools_then(row: dict[str, Any]) -> list[dict[str, str]]:
    """The tools of a row as it would be, with those of its chain."""
    return [(row["then"] or row["now"])["tool"], *(step.tool for step in row["before"])]


def _says(pick: Any, why: str, changes: bool) -> dict[str, str]:
    if pick is None:
        return {"metric": why, "inch": why}
    row = pick.row
    words = "" if changes else "as it is; "
    over = f", {row.close} holds in {100 * row.chance:.0f} of 100" if row.close else ""
    speed, feed = display(row.cutting_speed, "cutting_speed"), display(row.feed, row.feed_kind)
    way = f"{row.way}: " if row.becomes and row.way else ""
    return {side: f"{words}{way}{getattr(speed, side)}, {getattr(feed, side)}, {pick.coolant}{over}" for side in ("metric", "inch")}


def bare(identity: str, kind: str, feature: dict[str, Entry]) -> dict[str, Any]:
    """An operation that has no tool and no settings yet."""
    nothing: dict[str, Any] = {"number": 0, "title": "", "settings": {}, "holding": {}, "skin": "clean"}
    return {**nothing, "id": identity, "operation": kind, "feature": feature, "tool": NONE}
