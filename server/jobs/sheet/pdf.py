"""Sheets as PDF or as a page. Nothing is fetched: styles and fonts come from the application's own static files."""

from __future__ import annotations

import math
from collections.abc import Iterator
from concurrent.futures import Executor
from contextlib import contextmanager
from functools import cache
from pathlib import Path
from typing import Any, Literal

from django.conf import settings
from django.contrib.staticfiles import finders
from django.http import HttpResponse
from django.template.loader import render_to_string

from server.jobs.sheet.layout import joined, lay_out, pages_in
from server.work.progress import Progress
from server.work.spread import each, executor

Paper = Literal["a4", "letter"]
Form = Literal["pdf", "page"]
STYLES = ("setup-sheet.css", "paper-a4.css", "paper-letter.css")
FONTS = {"words": "barlow-semi-condensed-latin-{}-normal.woff2", "figures": "ibm-plex-mono-latin-{}-normal.woff2"}
LONG = 16  # operations from which it is worth while to lay a sheet out in parts
NUMBERED = "<!doctype html><title></title><link rel=stylesheet href=paper-{}.css><link rel=stylesheet href=only-numbers.css>{}"


def page_answer(template: str, content: dict[str, Any], paper: Paper) -> HttpResponse:
    """A sheet as a page to look at."""
    return HttpResponse(render_to_string(template, {**content, "paper": paper, "static": f"/{settings.STATIC_URL.strip('/')}/"}))


@contextmanager
def helpers(operations: int) -> Iterator[Executor | None]:
    """Who lays out the later parts of a long sheet: they read what they need while its content is put together. None for a short one."""
    if (count := _count(operations)) < 2:
        yield None
        return
    with executor(near=True) as pool:
        for _ in range(count - 1):
            pool.submit(lay_out, "<p></p>", own_files())
        yield pool


def to_pdf(template: str, content: dict[str, Any], paper: Paper, progress: Progress, ready: Executor | None = None) -> bytes:
    """A sheet on paper; a long one is laid out in as many parts at once as there are processes for it."""
    parts = [render_to_string(template, {**one, "paper": paper, "static": ""}) for one in _parts(content)]
    if len(parts) == 1:
        return lay_out(parts[0], own_files())
    laid = each(lay_out, [(part, own_files()) for part in parts], progress, 1, ready)
    numbers = NUMBERED.format(paper, "<p></p>" * pages_in(laid))
    return joined(laid, lay_out(numbers, own_files()))


def _count(operations: int) -> int:
    return min(settings.STUDY_PROCESSES, operations // (LONG // 2))


def _parts(content: dict[str, Any]) -> list[dict[str, Any]]:
    operations = content.get("operations", [])
    if (count := _count(len(operations))) < 2:
        return [content]
    size = 2 * math.ceil(len(operations) / (2 * count))  # two share a page, mostly
    chunks = [operations[start : start + size] for start in range(0, len(operations), size)]
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
