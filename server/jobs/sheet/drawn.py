"""Sheets on paper, drawn by the workers and kept: the same sheet of the same state is drawn once."""

from __future__ import annotations

import time
from threading import BoundedSemaphore
from typing import Any

from django.conf import settings
from django.db import IntegrityError
from django.http import HttpResponse
from django.shortcuts import render

from server.crib.heavy_sheet import heavy_sheet
from server.crib.heavy_tools import read_form
from server.errors import Refusal
from server.jobs.document.plan import entry_of
from server.jobs.models import Revision, Sheet
from server.jobs.sheet.content import sheet_content
from server.jobs.sheet.pdf import Paper, helpers, to_pdf
from server.jobs.sheet.trouble_card import trouble_card
from server.release import key_of
from server.shop import shop
from server.units import Units
from server.work.progress import Progress
from server.work.tasks import start

LOOK_EVERY = 0.05  # s
_waiting = BoundedSemaphore(2)  # so many at once may wait at the door of a process; the others come again
OVER = (Sheet.State.REFUSED, Sheet.State.CANCELLED)


def pdf_answer(request: Any, subject: dict[str, Any], paper: Paper, units: Units, name: str, *shows: Any) -> HttpResponse:
    """The PDF where it is drawn; a page that asks again where it is being drawn; a refusal where that failed.

    `shows` is what stands on the sheet beside its subject and the shop: where it changes, the sheet is drawn again.
    """
    sheet = _sheet(subject, paper, units, shows)
    if sheet.state not in (Sheet.State.DONE, *OVER) and _waiting.acquire(blocking=False):
        try:
            until = time.monotonic() + settings.SHEET_PATIENCE
            while sheet.state not in (Sheet.State.DONE, *OVER) and time.monotonic() < until:
                time.sleep(LOOK_EVERY)
                sheet = Sheet.objects.defer("result").get(pk=sheet.pk)
        finally:
            _waiting.release()
    if sheet.state in OVER:
        Sheet.objects.filter(pk=sheet.pk).delete()  # asked for again, it is tried again
        raise Refusal(422, sheet.message or "The sheet could not be drawn.")
    if sheet.state != Sheet.State.DONE:
        answer = render(request, "sheet_waits.html", {"sheet": sheet, "name": name}, status=202)
        answer["Refresh"] = answer["Retry-After"] = "1"
        return answer
    answer = HttpResponse(bytes(Sheet.objects.get(pk=sheet.pk).result or b""), content_type="application/pdf")
    answer["Content-Disposition"] = f'inline; filename="{name}.pdf"'
    return answer


def draw(sheet: Sheet, progress: Progress) -> None:
    """Lay the sheet out; a worker does this."""
    kind = sheet.subject["of"]
    if kind == "heavy tool":
        tool = read_form(sheet.subject["form"], shop().library)
        sheet.result = to_pdf("heavy_sheet.html", heavy_sheet(tool, sheet.subject["revision"], sheet.units), sheet.paper, progress)
    else:
        revision = Revision.objects.select_related("author").get(job_id=sheet.subject["job"], number=sheet.subject["revision"])
        only = sheet.subject["operation"] or None
        if kind == "trouble":
            card = trouble_card(revision, entry_of(revision.document, sheet.subject["operation"])[1], sheet.units, shop())
            sheet.result = to_pdf("trouble_card.html", card, sheet.paper, progress)
            sheet.state, sheet.message = Sheet.State.DONE, ""
            return
        with helpers(1 if only else len(revision.document["operations"])) as ready:
            content = sheet_content(revision, only, sheet.units, shop())
            sheet.result = to_pdf("setup_sheet.html", content, sheet.paper, progress, ready)
    sheet.state, sheet.message = Sheet.State.DONE, ""


def _sheet(subject: dict[str, Any], paper: Paper, units: Units, shows: Any) -> Sheet:
    key = key_of(subject, paper, units, shop().version, shows)
    kept = Sheet.objects.defer("result").filter(key=key)
    if (there := kept.first()) is not None:
        return there
    sheet = Sheet(key=key, subject=subject, paper=paper, units=units)
    try:
        start(sheet)
    except IntegrityError:  # somebody asked for it at the same moment
        return kept.get()
    return sheet
