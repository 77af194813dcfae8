"""The set-up sheet over HTTP: a page to look at and print, or a PDF, on A4 or Letter."""

from __future__ import annotations

from typing import Any, Literal

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.template.loader import render_to_string
from ninja import Router

from server.jobs import actions
from server.jobs.document import entry_of
from server.jobs.schemas import CardOut
from server.jobs.sheet.content import operation_card, sheet_content
from server.jobs.sheet.pdf import to_pdf
from server.shop import shop
from server.units import Units

router = Router()


@router.get("/{job_id}/setup-sheet")
def read_setup_sheet(
    request: HttpRequest,
    job_id: int,
    operation: str = "",
    paper: Literal["a4", "letter"] = "a4",
    form: Literal["pdf", "page"] = "pdf",
    units: Units = "mm",
) -> HttpResponse:
    """The sheet of the newest revision, of all operations or of one."""
    content = sheet_content(actions.newest(job_id), operation or None, units, shop())
    static = settings.STATIC_URL if form == "page" else ""
    page = render_to_string("setup_sheet.html", {**content, "paper": paper, "static": f"/{static.strip('/')}/" if static else ""})
    if form == "page":
        return HttpResponse(page)
    answer = HttpResponse(to_pdf(page), content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="setup-sheet-{job_id}.pdf"'
    return answer


@router.get("/{job_id}/operations/{operation}/card", response=CardOut)
def read_card(request: HttpRequest, job_id: int, operation: str, units: Units = "mm") -> dict[str, Any]:
    """One operation for the screen at the machine: the words of its set-up sheet."""
    revision = actions.newest(job_id)
    return operation_card(revision, entry_of(revision.document, operation)[1], units, shop())
