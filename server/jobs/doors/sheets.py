"""The set-up sheet over HTTP: a page to look at and print, or a PDF, on A4 or Letter."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja import Router

from server.jobs.choice.turns import turn
from server.jobs.document.plan import entry_of
from server.jobs.kept import actions
from server.jobs.models import Measurement
from server.jobs.schemas.job import CardOut
from server.jobs.sheet.content import operation_card, sheet_content
from server.jobs.sheet.drawn import pdf_answer
from server.jobs.sheet.pdf import Form, Paper, page_answer
from server.jobs.sheet.trouble_card import trouble_card
from server.shop import shop
from server.units import Units

router = Router()


@router.get("/{job_id}/setup-sheet")
def read_setup_sheet(
    request: HttpRequest,
    job_id: int,
    operation: str = "",
    paper: Paper = "a4",
    form: Form = "pdf",
    units: Units = "mm",
) -> HttpResponse:
    """The sheet of the newest revision, of all operations or of one."""
    revision = actions.newest(job_id)
    if operation:
        entry_of(revision.document, operation)
    if form == "page":
        with turn(request, f"sheet {job_id} {operation}"):
            return page_answer("setup_sheet.html", sheet_content(revision, operation or None, units, shop()), paper)
    subject = {"of": "job", "job": job_id, "revision": revision.number, "operation": operation}
    measured = list(Measurement.objects.filter(job_id=job_id).values_list("pk", flat=True))
    return pdf_answer(request, subject, paper, units, f"setup-sheet-{job_id}", measured)


@router.get("/{job_id}/operations/{operation}/trouble-card")
def read_trouble_card(
    request: HttpRequest, job_id: int, operation: str, paper: Paper = "a4", form: Form = "pdf", units: Units = "mm"
) -> HttpResponse:
    """What may be seen in an operation, where to look and what to do: one page."""
    revision = actions.newest(job_id)
    _, entry = entry_of(revision.document, operation)
    if form == "page":
        with turn(request, f"trouble {job_id} {operation}"):
            return page_answer("trouble_card.html", trouble_card(revision, entry, units, shop()), paper)
    subject = {"of": "trouble", "job": job_id, "revision": revision.number, "operation": operation}
    return pdf_answer(request, subject, paper, units, f"trouble-card-{job_id}")


@router.get("/{job_id}/operations/{operation}/card", response=CardOut)
def read_card(request: HttpRequest, job_id: int, operation: str, units: Units = "mm") -> dict[str, Any]:
    """One operation for the screen at the machine: the words of its set-up sheet."""
    revision = actions.newest(job_id)
    return operation_card(revision, entry_of(revision.document, operation)[1], units, shop())
