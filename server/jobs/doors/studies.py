"""Studies of one operation over HTTP: nothing here is saved, all of it reads the values that are being tried."""

from __future__ import annotations

import csv
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router

from cutting.operations.registry import explore
from cutting.studies.registry import STUDIES
from cutting.studies.study import Study
from server.errors import Refusal
from server.jobs.document.plan import entry_of, request_of, setup_of, tried_with
from server.jobs.kept import actions
from server.jobs.kinds.cut_off import curve_table
from server.jobs.schemas.job import TryIn
from server.jobs.shown.state import state_of
from server.jobs.studies.doors import DOORS, StudyAsked, StudyDoor
from server.shop import shop

router = Router()
PLACE = "/{job_id}/operations/{operation}"


def _door(study: Study, door: StudyDoor) -> None:
    """The way in to a study: its set-up as it is being tried, what the core says to it, and how that goes out."""

    def ask(request: HttpRequest, job_id: int, operation: str, payload: TryIn) -> Any:
        revision, stock = actions.newest(job_id), shop()
        document, entry = operation_with(revision, operation, study.name)
        tried = tried_with(payload.dict(), revision.document, lambda: state_of(revision)["tape"]["seconds"])
        setup = setup_of(document, entry, tried, stock)
        crib = request_of(document, entry, tried, stock)[1] if study.of_stock else None
        found = study.ask(setup, crib) if study.ask else None
        return door.answer(found, StudyAsked(setup, entry, job_id, operation, "inch" if payload.units == "inch" else "metric"))

    ask.__doc__ = door.answer.__doc__
    path = f"{PLACE}/{door.path}"
    router.post(path, response=door.response, operation_id=f"study_{study.name}", summary=study.title.capitalize())(ask)


for _name, _one in DOORS.items():
    _door(STUDIES[_name], _one)


@router.get(PLACE + "/curve.csv")
def export_curve(request: HttpRequest, job_id: int, operation: str, units: Literal["mm", "inch"] = "mm") -> HttpResponse:
    """Everything over diameter on the way to the centre, of a cut-off as it is saved, as CSV."""
    document, entry = entry_of(actions.newest(job_id).document, operation)
    if entry["operation"] != "cut off":
        raise Refusal(422, "Only a cut-off has a curve over diameter.", [{"field": "operation", "message": "not a cut-off"}])
    head, rows = curve_table(explore(setup_of(document, entry, None, shop())), "inch" if units == "inch" else "metric")
    answer = HttpResponse(content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="cut-off-{job_id}-{operation}.csv"'
    csv.writer(answer).writerows([head, *rows])
    return answer


def operation_with(revision: Any, operation: str, study: str) -> tuple[dict[str, Any], dict[str, Any]]:
    """The document and its operation. Raises a 422 refusal for a kind that a study does not belong to."""
    document, entry = entry_of(revision.document, operation)
    if entry["operation"] not in STUDIES[study].kinds:
        said = f"This study does not belong to '{entry['operation']}'."
        raise Refusal(422, said, [{"field": "operation", "message": "of another kind"}])
    return document, entry
