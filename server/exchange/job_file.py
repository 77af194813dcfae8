"""One job as an open file: its document with the tools, materials and machine that it names, out of one shop and into another."""

from __future__ import annotations

import json
from typing import Any

from django.contrib.auth.base_user import AbstractBaseUser
from django.db import transaction

from cutting.exchange.columns import Record
from cutting.exchange.tables import TABLES
from cutting.names import plain
from server.errors import Refusal
from server.exchange.apply import apply_plan
from server.exchange.files import read_file, write_file
from server.exchange.plan import REFUSED, plan_import
from server.jobs.kept import actions
from server.jobs.kept.uses import names_used
from server.jobs.models import Job, Revision
from server.records.registry import KEEPERS
from server.strict import Unreadable, strict_json
from server.work.progress import Progress

WHAT, FORM = "Arrow Bench job", 1
OWNED = ("windows", "spindles")  # tables whose rows belong to a row of another table and go with it


def job_file(revision: Revision) -> bytes:
    """The file of a job as it stands in a revision."""
    wanted: dict[str, set[str]] = {name: set() for name in TABLES}
    for table, name in names_used(revision.document):
        wanted[table].add(plain(name))
    found: dict[str, list[Record]] = {name: _named(name, wanted[name]) for name in TABLES if name not in OWNED}
    for name in OWNED:
        found[name] = _belonging(name, found)
    for column, other in KEEPERS["tools"].table.needs:
        found[other] = _named(other, {plain(str(record[column])) for record in found["tools"] if record[column]})
    tables = [(KEEPERS[name].table, found[name]) for name in TABLES if found[name]]
    shop = json.loads(write_file("json", tables))
    return json.dumps({"what": WHAT, "form": FORM, "job": revision.document, "shop": shop}, indent=1, ensure_ascii=False).encode()


def read_job(content: bytes, author: AbstractBaseUser) -> tuple[Job, dict[str, int]]:
    """A new job from a file, with what of its shop is not kept here yet; what is kept here stays as it is.

    Gives the job and how many rows came with it. Raises `Refusal` or `CuttingError`; then nothing is written.
    """
    given = _parsed(content)
    plan = plan_import(read_file(json.dumps(given["shop"]).encode(), "json"), Progress())
    if refused := [fate for fate in plan.fates if fate.fate == REFUSED]:
        first = refused[0]
        raise Refusal(422, f"{first.table}, {first.label}: {first.why}", [{"field": f"shop.{first.table}", "message": first.why}])
    for part in plan.tables:
        part.changed = []  # a file from elsewhere overwrites nothing
    with transaction.atomic():
        apply_plan(plan, author, f"job file, {str(given['job'].get('name', ''))[:60]}", Progress())
        document = given["job"]
        if Job.objects.filter(name=document.get("name")).exists():
            document = {**document, "name": actions.free_name(str(document["name"]))}
        job = actions.create_job(document, author)
    return job, {part.keeper.table.name: len(part.fresh) for part in plan.tables if part.fresh}


def _parsed(content: bytes) -> dict[str, Any]:
    try:
        given = strict_json(content)
    except Unreadable as error:
        raise Refusal(422, f"file: {error}", [{"field": "file", "message": f"{error}"}]) from error
    if not isinstance(given, dict) or given.get("what") != WHAT or not all(isinstance(given.get(one), dict) for one in ("job", "shop")):
        raise Refusal(422, "file: not a job file.", [{"field": "file", "message": f"it must hold what, '{WHAT}', job and shop"}])
    if given.get("form") != FORM:
        raise Refusal(422, "file: made by a newer release.", [{"field": "form", "message": "is newer", "bound": str(FORM)}])
    return given


def _named(name: str, wanted: set[str]) -> list[Record]:
    """Rows of a table by name, archived or not; none is read where none is wanted."""
    keeper = KEEPERS[name]
    rows = keeper.rows().order_by("pk") if wanted else ()
    return [keeper.to_record(row) for row in rows if plain(row.name) in wanted]


def _belonging(name: str, found: dict[str, list[Record]]) -> list[Record]:
    """Rows of a table that belong to rows which go along."""
    keeper = KEEPERS[name]
    ((column, owner),) = keeper.table.needs or (("machine", "machines"),)
    owners = {plain(KEEPERS[owner].table.label(record)) for record in found[owner]}
    records = (keeper.to_record(row) for row in keeper.rows().filter(archived_at=None).order_by("pk")) if owners else ()
    return [record for record in records if plain(str(record[column])) in owners]
