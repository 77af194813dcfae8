"""What a job shows: every operation evaluated, the outline, the tape and what needs attention."""

from __future__ import annotations

import itertools
from collections import OrderedDict
from collections.abc import Collection, Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

from cutting.advice.wanted import nearest_words, wanted_tool
from cutting.doors.plain import plain
from cutting.doors.plain import problem as core_problem
from cutting.errors import CuttingError
from cutting.operations.frame.outcome import Outcome, Pass, Standing
from cutting.operations.registry import kind_of
from cutting.operations.turned.setup import Setup
from cutting.plan.meeting import meetings
from cutting.plan.sure import plan_sure
from cutting.process.outline import Made, OutlineStage, Stretch, outline, stages_from, stretches_of
from cutting.process.tape import PieceMoney, cycle_tape
from cutting.quantities import display
from cutting.workpiece.solid import DRAWN, Solid
from server.jobs.choice.rankings import ranked
from server.jobs.document.drawing import drawing_of
from server.jobs.document.outcomes import outcome_of
from server.jobs.document.plan import (
    layers_of,
    metals_of,
    other_end,
    part_in_front,
    plan_of,
    request_of,
    request_without_stock,
    setup_of,
    the_blank,
)
from server.jobs.document.tools import told
from server.jobs.models import Revision
from server.sentences import in_both, same
from server.shop import Shop, Version, shop
from server.words import label_of, sentence

NO_TOOL = "no tool"


@dataclass(frozen=True)
class Judged:
    """One operation evaluated, or why it cannot be."""

    row: dict[str, Any]
    outcome: Outcome | None = None
    made: Made | None = None


@dataclass(frozen=True)
class _Kept:
    state: dict[str, Any]
    judged: dict[str, Judged]


def state_of(
    revision: Revision, overrides: dict[str, dict[str, Any]] | None = None, stock: Shop | None = None, tried: dict[str, Any] | None = None
) -> dict[str, Any]:
    """The computed state of a revision; `overrides` by operation id are tried without being saved, `tried` are set-ups of them."""
    stock = stock or shop()
    kept = _as_saved(revision, stock)
    return _compute(revision.document, overrides, stock, kept.judged, tried or {}).state if overrides else kept.state


def state_of_document(document: dict[str, Any], stock: Shop) -> dict[str, Any]:
    """The computed state of a document that is no revision; nothing of it is kept."""
    return _compute(document, {}, stock, {}).state


def _as_saved(revision: Revision, stock: Shop) -> _Kept:
    key = (revision.pk, stock.version)
    if key not in _kept:
        while len(_kept) >= MOST_KEPT:
            _kept.popitem(last=False)
        _kept[key] = _compute(revision.document, {}, stock, {})
    return _kept[key]


_kept: OrderedDict[tuple[int, Version], _Kept] = OrderedDict()
MOST_KEPT = 256


def _compute(
    document: dict[str, Any],
    overrides: dict[str, dict[str, Any]],
    stock: Shop,
    known: dict[str, Judged],
    tried: Mapping[str, Any] = MappingProxyType({}),
) -> _Kept:
    """Of what is `known` only the operations that something is tried on are judged anew: what they are told is the drawing's.

    Twice where the machine runs alone: how many pieces an edge must last depends on the whole piece's time.
    """
    alone = document["batch"]["unattended_hours"] > 0
    standing = {name: one for name, one in known.items() if name not in overrides and not alone}
    judged = standing | _judge(document, overrides, None, stock, standing, {} if alone else tried)
    state = _summed(document, judged, stock)
    if alone:
        judged = _judge(document, overrides, state["tape"]["seconds"], stock, {})
        state = _summed(document, judged, stock)
    return _Kept(state, judged)


def _judge(
    document: dict[str, Any],
    overrides: dict[str, dict[str, Any]],
    piece_seconds: float | None,
    stock: Shop,
    but: Collection[str],
    tried: Mapping[str, Any] = MappingProxyType({}),
) -> dict[str, Judged]:
    found = {}
    for entry in document["operations"]:
        if entry["id"] in but:
            continue
        made = None
        if not entry["tool"]:
            found[entry["id"]] = Judged(_without_tool(document, entry, stock))
            continue
        try:
            more = {**(overrides.get(entry["id"]) or {}), "piece_seconds": piece_seconds}
            setup = tried.get(entry["id"]) or setup_of(document, entry, more, stock)
            made = _made(entry, setup)
            outcome = outcome_of(setup)
            row = _row(entry, outcome, setup) | {"metal": metal_words(document, entry, setup)}
            found[entry["id"]] = Judged(row, outcome, made)
        except CuttingError as error:
            found[entry["id"]] = Judged(_unfinished(entry, error), None, made)
    return found


def _summed(document: dict[str, Any], judged: dict[str, Judged], stock: Shop) -> dict[str, Any]:
    machine = stock.library.machine(document["machine"])
    every = [(entry, judged[entry["id"]]) for entry in document["operations"]]
    rows = [one.row for _, one in every]
    drawing, money = drawing_of(document, rows), document["money"]
    tape = cycle_tape(
        [(entry["id"], entry["title"], one.outcome) for entry, one in every if one.outcome is not None],
        machine,
        document["batch"]["pieces"],
        PieceMoney(money["blank"], money["setup_minutes"], money["good_share"]),
    )
    return {
        "operations": rows,
        "drawing": drawing,
        "spindles": [{"name": one.name, "title": one.title} for one in machine.spindles],
        "tools": _tools(document),
        "pockets": int(machine.pockets),
        "outline": _outline(document, [one.made for _, one in every if one.made is not None], machine.turns),
        "tape": plain(tape),
        **_against(document, tape, rows, drawing, sure := _sure(document, every)),
        "sure": sure,
        "meetings": _meetings(document),
    }


def _meetings(document: dict[str, Any]) -> list[dict[str, str]]:
    """Features that stand on one place, in words."""
    titles = {entry["id"]: f"{entry['number']} {entry['title']}" for entry in document["operations"]}
    found = []
    for one in meetings(plan_of(document)):
        first, second = in_both(titles[one.first]), in_both(titles[one.second])
        said = "have no wall between them" if one.first == one.second else "stand on one place"
        named = {side: first[side] if one.first == one.second else f"{first[side]} and {second[side]}" for side in first}
        found.append({side: f"{name} {said}, {getattr(one.where, side)}" for side, name in named.items()})
    return found


def _sure(document: dict[str, Any], every: list[tuple[dict[str, Any], Judged]]) -> dict[str, Any] | None:
    """How surely the plan holds; None where it is not planned yet, or what no chance tells of is in its way."""
    if not every or any(one.outcome is None or one.outcome.blocked for _, one in every):
        return None
    plan = plan_of(document)
    found = plan_sure([one.outcome for _, one in every if one.outcome is not None], plan.house.asked_chance(plan.goal))
    least = every[found.weakest][0]
    words = f"all hard limits hold in {100 * found.chance:.0f} of 100 runs, {100 * found.asked:.0f} are required"
    weakest = "" if found.enough else f"; least sure is {least['number']} {least['title']}"
    return {"chance": found.chance, "asked": found.asked, "enough": found.enough, "words": words + weakest}


def _tools(document: dict[str, Any]) -> list[dict[str, Any]]:
    """The tools of the part in the order in which they are first used, each with its place in the turret."""
    found: dict[tuple[str, ...], dict[str, Any]] = {}
    for entry in document["operations"]:
        if tool := entry["tool"]:
            row = found.setdefault(tuple(tool.values()), {"pocket": len(found) + 1, **told(tool), "operations": []})
            row["operations"].append(entry["number"])
    return list(found.values())


def sketch_of(document: dict[str, Any], entry: dict[str, Any] | None, stock: Shop) -> tuple[Any, dict[str, Any] | None]:
    """The part with operations that have no tool yet, and why the one that is being entered cannot be, where it cannot."""
    made, problem = [], None
    for one in document["operations"]:
        try:
            bare = one is entry or not one["tool"]
            made.append(_made(one, request_of(document, one, None, stock)[0] if bare else setup_of(document, one, None, stock)))
        except CuttingError as error:
            problem = core_problem(error) if one is entry else problem
    return _outline(document, made, stock.library.machine(document["machine"]).turns), problem


def _row(entry: dict[str, Any], outcome: Outcome, setup: Any) -> dict[str, Any]:
    binding = outcome.binding
    blocked = [w.text for w in outcome.warnings if w.severity == "blocks"]
    status = outcome.standing.value
    if outcome.feasible and any(limit.broken for limit in outcome.limits):
        status = Standing.CLOSE.value  # what is no exclusion is over its bound
    seconds = outcome.results["operation_time"].value
    return {
        "id": entry["id"],
        "number": entry["number"],
        "title": entry["title"],
        "held": held_words(entry),
        "operation": entry["operation"],
        "status": status,
        "seconds": seconds,
        "seconds_display": plain(display(seconds, "duration")),
        "cost": outcome.results["operation_cost"].value,
        "cost_display": plain(outcome.results["operation_cost"].display),
        "binding": binding.label.split(",")[0],
        "utilisation": binding.utilisation,
        "stiffness": (stiff := kind_of(setup.operation).stiffness(setup)),
        "stiffness_display": None if stiff is None else plain(display(stiff, "stiffness", False)),
        "problem": in_both(blocked[0]) if blocked else None,
        "wanted": {},
    }


def _unfinished(entry: dict[str, Any], error: CuttingError) -> dict[str, Any]:
    nothing = {"metric": "–", "inch": "–"}
    return {
        "id": entry["id"],
        "number": entry["number"],
        "title": entry["title"],
        "held": held_words(entry),
        "metal": "",
        "operation": entry["operation"],
        "status": "over",
        "seconds": 0.0,
        "cost": 0.0,
        "seconds_display": nothing,
        "cost_display": nothing,
        "binding": label_of(error.field) or "set-up",
        "utilisation": 9.0,
        "stiffness": None,
        "stiffness_display": None,
        "problem": in_both(sentence(error.field, error.message)),
        "wanted": {},
    }


def _without_tool(document: dict[str, Any], entry: dict[str, Any], stock: Shop) -> dict[str, Any]:
    """An operation that has no tool: what would do it, no seconds, no money."""
    try:
        would = wanted_tool(request_without_stock(document, entry, stock))
        setup, crib = request_of(document, entry, None, stock)
        nearest = nearest_words(setup, ranked(setup, crib, stock))
    except CuttingError as error:
        return _unfinished(entry, error) | {"status": NO_TOOL}
    if nearest is not None:
        row = _unfinished(entry, CuttingError("tool", "")) | {"status": NO_TOOL, "binding": "tool", "problem": plain(nearest)}
        return row | {"wanted": would.record}
    said = {side: f"no tool yet: {getattr(would.words, side)} would do it." for side in ("metric", "inch")}
    return _unfinished(entry, CuttingError("tool", "")) | {"status": NO_TOOL, "binding": "tool", "problem": said, "wanted": would.record}


def held_words(entry: dict[str, Any]) -> str:
    """How an operation finds the part where that is not as it was first held."""
    return "on the sub-spindle" if entry.get("spindle") == "sub" else "turned round" if other_end(entry) else ""


def metal_words(document: dict[str, Any], entry: dict[str, Any], setup: Any) -> str:
    """The metal that an operation is judged in, where the stock is of several."""
    if not document["stock"].get("layers"):
        return ""
    metals = metals_of(document, entry)
    others = f", {len(metals)} layers" if len(metals) > 1 else ""
    return f"in {setup.work.material.name}{others}" if metals else ""


def stages_of(
    document: dict[str, Any], entry: dict[str, Any], setup: Setup, passes: tuple[Pass, ...], stock: Shop
) -> tuple[OutlineStage, ...]:
    """The part in the middle of each pass, after the operations before this one that can be read."""
    before = part_in_front(document, entry, setup.holding.free_length, DRAWN)
    return stages_from(before, setup, passes)


def part_before(document: dict[str, Any], entry: dict[str, Any], stock: Shop) -> Solid:
    """The part in front of an operation."""
    return part_in_front(document, entry, slices=DRAWN)


def _made(entry: dict[str, Any], setup: Any) -> Made:
    return Made(entry["id"], setup, setup.holding.free_length if other_end(entry) else None)


def _outline(document: dict[str, Any], made: list[Made], chucked: bool) -> Any:
    drawn = outline(the_blank(document), made)
    stretches = stretches_of(drawn.finished)
    gaps = [k for k, one in enumerate(stretches) if one.near_radius == 0]  # where it was cut off its bar
    own = stretches[gaps[-1] + 1 :] if gaps else stretches
    labels = [
        {"at": at, "radius": radius, "display": plain(display(round(2 * radius, 1), "length", False))}
        for one in own
        if one.far - one.near > 0.06 * drawn.length
        for at, radius in _measured_at(one)
    ]
    end = drawn.finished[-1][0] if drawn.finished else drawn.length
    walls = [own[0].near] if own and (gaps or drawn.whole) else []
    walls += [
        one.near
        for before, one in itertools.pairwise(own)
        if one.far - one.near > 0.01 * drawn.length and one.near_radius != before.far_radius
    ]
    lengths = [{"at": place, "display": plain(display(round(end - place, 2), "length", False))} for place in walls]
    layers = [
        {"at": (near + far) / 2 + drawn.held, "near": max(near + drawn.held, 0.0), "material": material,
         "thick": plain(display(round(far - near, 3), "length", False))}
        for near, far, material in [(one.near, one.far, one.material) for one in layers_of(document)] or _stacked(made, drawn.length)
    ]  # fmt: skip
    return {**plain(drawn), "labels": labels, "lengths": lengths, "layers": layers, "chucked": chucked}


def _stacked(made: list[Made], face: float) -> list[tuple[float, float, str]]:
    """The layers of a stack that a hole goes through, from its face inward: from, to, material."""
    stack: tuple[Any, ...] = next((found for one in made if (found := getattr(one.setup.feature, "stack", ()))), ())
    found = []
    for layer in stack:
        found.append((face - layer.thickness, face, layer.name))
        face -= layer.thickness + layer.gap
    return found


def _measured_at(one: Stretch) -> tuple[tuple[float, float], ...]:
    """Where a stretch's Ø is told, and the radius there: a cylinder's in its middle, a taper's at both ends."""
    if one.near_radius == one.far_radius:
        return (((one.near + one.far) / 2, one.near_radius),)
    return ((one.near, one.near_radius), (one.far, one.far_radius))


def _against(
    document: dict[str, Any], tape: Any, rows: list[dict[str, Any]], drawing: list[dict[str, Any]], sure: dict[str, Any] | None
) -> dict[str, Any]:
    """Target, present process, and the one line about what needs attention first."""
    target = document["money"].get("target")
    unplanned = [row for row in rows if row["status"] == NO_TOOL]
    broken = unplanned or [row for row in rows if row["status"] == "over"]
    over = target is not None and tape.money > target and bool(rows)
    attention, why = (3, same("in order")) if rows else (4, same("no operations yet"))
    if broken:
        row = broken[0]
        over_it = row["problem"] or same(f"{row['binding']} over its limit")
        named = in_both(f"{row['number']} {row['title']}")
        attention, why = 0, {side: f"{named[side]}: {said}" for side, said in over_it.items()}
    elif still_open := [one["words"] for one in drawing if one["status"] == "open"]:
        more = f" and {len(still_open) - 1} more" if still_open[1:] else ""
        attention, why = 1, {side: f"no operation yet for {words}{more}" for side, words in still_open[0].items()}
    elif over:
        costly = max(rows, key=lambda row: row["seconds"])
        attention, why = 1, in_both(f"most time in {costly['number']} {costly['title']}, governing limit {costly['binding']}")
    elif any(row["status"] == "close" for row in rows):
        row = next(row for row in rows if row["status"] == "close")
        attention, why = 2, in_both(f"{row['number']} {row['title']}: {row['binding']}")
    elif sure and not sure["enough"]:
        attention, why = 2, in_both(sure["words"])
    found: dict[str, Any] = {
        "attention": attention,
        "planned": not unplanned,
        "why": why,
        "over_target": over,
        "target_display": plain(display(target, "money")) if target is not None else None,
        "baseline": None,
    }
    if base := document.get("baseline"):
        saving = base["cost"] - tape.money
        yearly = document["batch"].get("yearly", 0)
        found["baseline"] = {
            "name": base["name"],
            "seconds": plain(display(base["seconds"], "duration")),
            "cost": plain(display(base["cost"], "money")),
            "saving": plain(display(saving, "money")),
            "yearly_saving": plain(display(saving * yearly, "money")) if yearly else None,
            "note": base.get("note", ""),
            "better": saving > 0,
        }
    return found
