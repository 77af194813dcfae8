"""Big studies of a whole part: how surely the plan holds, and on which machine of the shop it would run best."""

from __future__ import annotations

import copy
from collections.abc import Callable
from typing import Any

from cutting.advice import Advice, advise
from cutting.doors.plain import plain
from cutting.errors import CuttingError
from cutting.operations.registry import kind_of
from cutting.plan.choose import Pick
from cutting.process.chances import Chances, Draw, Ran, draws_for, run_draws, summed
from cutting.quantities import display
from cutting.tooling.roles import to_go
from server.floor.models import Machine
from server.jobs.choice.best import picks_of, set_to, surer_together
from server.jobs.document.plan import as_the_machine_gives, setup_of
from server.jobs.document.tools import NONE
from server.jobs.models import PartStudy, Revision
from server.jobs.shown.state import state_of, state_of_document
from server.shop import Shop, shop
from server.work.progress import Progress
from server.work.spread import each

DRAWS, CHUNK = 1000, 25
Answer = dict[str, Any]


def study(row: PartStudy, progress: Progress) -> Answer:
    """What a study comes to; a worker does this. Raises `CuttingError` where there is nothing to study."""
    revision = Revision.objects.get(job_id=row.job_id, number=row.revision)
    ways = {PartStudy.Kind.CHANCES: chances, PartStudy.Kind.MACHINES: machines}
    return dict(plain(ways[PartStudy.Kind(row.kind)](revision, shop(), progress)))


def carry_out(row: PartStudy, progress: Progress) -> None:
    """Study, and leave what came of it in the row; a worker does this."""
    row.result = study(row, progress)
    row.state, row.message = PartStudy.State.DONE, ""


def chances(revision: Revision, stock: Shop, progress: Progress) -> Answer:
    """How surely the plan holds over deliveries of metal and lots of edges."""
    document, state = revision.document, state_of(revision, None, stock)
    entries, setups = [], []
    for entry in document["operations"]:
        try:
            setups.append(setup_of(document, entry, None, stock))
            entries.append(entry)
        except CuttingError:
            continue
    if not setups:
        raise CuttingError("operations", "there is none that can be run.")
    draws = draws_for(setups, DRAWS, tested=document.get("hardness") is not None)
    chunks = [(setups, draws[start : start + CHUNK]) for start in range(0, len(draws), CHUNK)]
    ran = [row for chunk in each(run_draws, chunks, progress) for row in chunk]
    return _chances_out(document, state, entries, draws, ran)


def _chances_out(document: Answer, state: Answer, entries: list[Answer], draws: tuple[Draw, ...], ran: list[list[Ran]]) -> Answer:
    money, tape = document["money"], state["tape"]
    rows = {row["id"]: row for row in state["operations"]}
    good, target = money["good_share"], money.get("target")
    plan = [rows[entry["id"]] for entry in entries]
    beside = (tape["money"] * good - sum(row["cost"] for row in plan), tape["seconds"] - sum(row["seconds"] for row in plan))
    found: Chances = summed(draws, ran, beside, good, target)
    return {
        "draws": len(draws),
        "left_out": len(document["operations"]) - len(entries),
        "planned_money": tape["money"],
        "target_money": target,
        "planned": display(tape["money"], "money"),
        "target": None if target is None else display(target, "money"),
        "cost": [display(one, "money") for one in found.cost],
        "seconds": [display(one, "duration") for one in found.seconds],
        "edges": found.edges,
        "counts": found.counts,
        "all_hold": found.all_hold,
        "within_target": found.within_target,
        "operations": [
            {
                "operation": entry["id"],
                "number": entry["number"],
                "title": entry["title"],
                "share": held.share,
                "worst": _label(entry["operation"], held.worst),
                "limit": held.worst,
                "worst_share": held.worst_share,
                "cost": [display(one, "money", False) for one in held.cost],
            }
            for entry, held in zip(entries, found.operations, strict=True)
        ],
        "causes": [{"name": name, "share": share} for name, share in found.causes],
    }


def _label(kind: str, limit: str) -> str:
    """What a limit is called, blank for none."""
    return next((rule.label.split(",")[0] for rule in kind_of(kind).model.rules if rule.name == limit), "")


def machines(revision: Revision, stock: Shop, progress: Progress) -> Answer:
    """The part with the best tools of the crib on every machine of the shop: the whole crib, ranked for every operation on each."""
    names = Machine.objects.filter(archived_at=None).order_by("name").values_list("name", flat=True)
    planned = [_moved(revision.document, stock.library.machine(name)) for name in names]
    asked: dict[Any, Any] = {}

    def collect(setup: Any, crib: Any, _stock: Shop) -> Advice:
        asked[setup] = to_go(crib)
        return Advice((), (), (), 0, 0, 0)

    for document in planned:
        for entry in document["operations"]:
            _picks(document, entry, stock, collect)
            progress.step(0)  # where it is cancelled
    made = dict(zip(asked, each(advise, list(asked.items()), progress), strict=True))
    now = state_of(revision, None, stock)

    def ranked(setup: Any, crib: Any, _stock: Shop) -> Advice:
        if setup not in made:  # what the part is worth there changes with the tools before: what risks it is ranked anew
            made[setup] = advise(setup, to_go(crib))
            progress.step(0)
        return made[setup]

    rows = [_on(document, stock, ranked) for document in planned]
    return {
        "rankings": len(made),
        "now": {"machine": revision.document["machine"], **_figures(now)},
        "rows": sorted(rows, key=lambda row: (row["of"] - row["sound"], row["money"])),
    }


def _moved(document: Answer, machine: Any) -> Answer:
    """The job on another machine; where that has not the coolant that is set, its usual one stands in until the ranking chooses."""
    moved = copy.deepcopy(document) | {"machine": machine.name}
    as_the_machine_gives(moved["operations"], machine)
    return moved


def _picks(document: Answer, entry: Answer, stock: Shop, rank: Callable[[Any, Any, Shop], Advice]) -> list[Pick]:
    try:
        return [pick for pick in picks_of(document, entry, stock, rank=rank) if pick.can]
    except CuttingError:  # said of the operation when the part is evaluated
        return []


def _on(document: Answer, stock: Shop, rank: Callable[[Any, Any, Shop], Advice]) -> Answer:
    """The part on one machine, each operation with its best tool there."""
    tools = {entry["id"]: entry["tool"] for entry in document["operations"]}
    found: list[tuple[Answer, Pick | None, str]] = []
    for entry in document["operations"]:
        picks = _picks(document, entry, stock, rank)
        found.append((entry, picks[0] if picks else None, ""))
        if picks:
            set_to(entry, picks[0])
        else:  # nothing stands in for a tool that is not there
            entry["tool"] = NONE
    surely = surer_together(document, found, stock, rank)
    for entry, pick, _ in found:
        if pick is not None and entry["id"] in surely:
            set_to(entry, surely[entry["id"]])
    changed = sum(entry["tool"] not in (tools[entry["id"]], NONE) for entry in document["operations"])
    state = state_of_document(document, stock)
    broken = any(row["status"] in ("over", "no tool") for row in state["operations"])
    said = state["why"] if broken else {"metric": "", "inch": ""}
    return {"machine": document["machine"], **_figures(state), "other_tools": changed, "why": said}


def _figures(state: Answer) -> Answer:
    rows, tape = state["operations"], state["tape"]
    return {
        "money": tape["money"],
        "cost": tape["money_display"],
        "seconds": tape["seconds_display"],
        "sound": sum(row["status"] not in ("over", "no tool") for row in rows),
        "of": len(rows),
        "tools": len(state["tools"]),
        "pockets": state["pockets"],
    }
