"""Sheets as PDF or as a page. Nothing is fetched: styles and fonts come from the application's own static files."""

from __future__ import annotations

import math
from functools import cache
from pathlib import Path
from typing import Any, Literal

from django.conf import settings
from django.contrib.staticfiles import finders
from django.http import HttpResponse
from django.template.loader import render_to_string

from server.jobs.sheet.layout import joined, lay_out, pages_in
from server.work.progress import Progress
from server.work.spread import each

Paper = Literal["a4", "letter"]
Form = Literal["pdf", "page"]
STYLES = ("setup-sheet.css", "paper-a4.css", "paper-letter.css")
FONTS = {"words": "barlow-semi-condensed-latin-{}-normal.woff2", "figures": "ibm-plex-mono-latin-{}-normal.woff2"}
HEAD_START = 0.25  # of a part that the first one is larger: it need not wait for a fresh process
LONG = 16  # operations from which it is worth while to lay a sheet out in parts
NUMBERED = "<!doctype html><title></title><link rel=stylesheet href=paper-{}.css><link rel=stylesheet href=only-numbers.css>{}"


def page_answer(template: str, content: dict[str, Any], paper: Paper) -> HttpResponse:
    """A sheet as a page to look at."""
    return HttpResponse(render_to_string(template, {**content, "paper": paper, "static": f"/{settings.STATIC_URL.strip('/')}/"}))


def to_pdf(template: str, content: dict[str, Any], paper: Paper, progress: Progress) -> bytes:
    """A sheet on paper; a long one is laid out in as many parts at once as there are processes for it."""
    parts = [render_to_string(template, {**one, "paper": paper, "static": ""}) for one in _parts(content)]
    if len(parts) == 1:
        return lay_out(parts[0], own_files())
    laid = each(lay_out, [(part, own_files()) for part in parts], progress, mine=1)
    numbers = NUMBERED.format(paper, "<p></p>" * pages_in(laid))
    return joined(laid, lay_out(numbers, own_files()))


def _parts(content: dict[str, Any]) -> list[dict[str, Any]]:
    operations = content.get("operations", [])
    count = min(settings.STUDY_PROCESSES, len(operations) // (LONG // 2))
    if count < 2:
        return [content]
    later = 2 * round(len(operations) / (2 * (count + HEAD_START)))  # two share a page, mostly
    first = 2 * math.ceil((len(operations) - later * (count - 1)) / 2)
    chunks = [operations[:first], *(operations[start : start + later] for start in range(first, len(operations), later))]
    return [
        content | {"operations": chunk, "part": "first" if k == 0 else "later", **({"whole": None} if k else {})}
        for k, chunk in enumerate(chunks)
    ]


@cache
def own_files() -> dict[str, bytes]:
    """Styles and fonts by their paths."""
    names = [*STYLES, "sheet-part.css", "only-numbers.css"]
    names += [f"fonts/{folder}/{name.format(weight)}" for folder, name in FONTS.items() for weight in (400, 600)]
    found = {name: finders.find(name) for name in names}
    return {name: Path(str(path)).read_bytes() for name, path in found.items() if path}
