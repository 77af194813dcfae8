"""Sheets as PDF or as a page. Nothing is fetched: styles and fonts come from the application's own static files."""

from __future__ import annotations

import logging
import mimetypes
from pathlib import Path
from typing import Any, Literal
from urllib.parse import urlsplit

from django.conf import settings
from django.contrib.staticfiles import finders
from django.http import HttpResponse
from django.template.loader import render_to_string
from weasyprint import HTML

logging.getLogger("weasyprint").setLevel(logging.ERROR)  # it warns of what only a screen knows
Paper = Literal["a4", "letter"]
Form = Literal["pdf", "page"]
BASE = "http://sheet.invalid/static/"  # a name that leads nowhere: every link is answered below


def page_answer(template: str, content: dict[str, Any], paper: Paper) -> HttpResponse:
    """A sheet as a page to look at."""
    return HttpResponse(render_to_string(template, {**content, "paper": paper, "static": f"/{settings.STATIC_URL.strip('/')}/"}))


def to_pdf(page: str) -> bytes:
    """Render a page whose links are relative to the static files."""
    return bytes(HTML(string=page, base_url=BASE, url_fetcher=_own_files).write_pdf())


def _own_files(url: str, *args: Any, **kwargs: Any) -> dict[str, Any]:
    split = urlsplit(url)
    path = finders.find(split.path.removeprefix("/static/")) if split.hostname == "sheet.invalid" else None
    if not path:
        raise ValueError("the sheet may only use its own files")
    return {"string": Path(str(path)).read_bytes(), "mime_type": mimetypes.guess_type(str(path))[0] or "application/octet-stream"}
