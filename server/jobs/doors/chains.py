"""A row of a ranking that has steps, looked at before it is taken: every step as it would stand. Nothing is saved."""

from __future__ import annotations

from copy import deepcopy
from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router
from pydantic import TypeAdapter

from server.jobs.choice.turns import turn
from server.jobs.document.plan import setup_of
from server.jobs.document.tools import told
from server.jobs.kept import actions
from server.jobs.schemas import job as schemas
from server.jobs.shown.cautions import mark_dismissed
from server.jobs.shown.evaluated import evaluated
from server.schema import as_json
from server.sentences import in_both
from server.shop import shop

router = Router()
STEPS = TypeAdapter(list[schemas.PlayedStepOut])


@router.post("/{job_id}/operations/{operation}/chain", response=list[schemas.PlayedStepOut])
def look_at_chain(request: HttpRequest, job_id: int, operation: str, payload: schemas.ChainIn) -> HttpResponse:
    """The operations that a row would add, and its own, in their order, each evaluated in a copy of the job."""
    with turn(request):
        return as_json(STEPS, _steps(request, job_id, operation, payload))


def _steps(request: HttpRequest, job_id: int, operation: str, payload: schemas.ChainIn) -> list[dict[str, Any]]:
    stock, document = shop(), deepcopy(actions.newest(job_id).document)
    others = {one["id"] for one in document["operations"]} - {operation}
    payload.edit.operation = operation
    payload.edit.apply(document)
    steps = [one for one in document["operations"] if one["id"] not in others]
    return [
        {
            "number": entry["number"],
            "title": in_both(entry["title"]),
            "tool": told(entry["tool"])["edge"],
            "evaluation": mark_dismissed(
                evaluated(document, entry, setup_of(document, entry, {}, stock), payload.units, stock), job_id, request.user
            ),
        }
        for entry in steps
    ]
