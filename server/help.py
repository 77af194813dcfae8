"""What the words on the screen mean, and the pages of `docs`, for the help beside the work and for the search."""

from __future__ import annotations

import re
from functools import cache
from pathlib import Path
from typing import Any

from django.http import HttpRequest
from markdown_it import MarkdownIt
from ninja import Router

from cutting import glossary
from cutting.errors import UnknownName
from server.errors import Refusal
from server.units import Plain

router = Router()
DOCS = Path(__file__).resolve().parents[1] / "docs"
# what a user reads, in the order in which it is offered; the others are for those who build
PAGES = (
    "line", "good-sense", "turning-mistakes", "slot-mistakes", "hole-mistakes", "boring-mistakes", "thread-mistakes", "learning", "clinic",
    "nomenclature", "sources", "exchange", "json-form", "backup",
)  # fmt: skip


class WordOut(Plain):
    """A word and what it means; `also` are other words that it is looked for by."""

    name: str
    means: str
    also: list[str] = []


class PageName(Plain):
    """A page of the documents."""

    name: str
    title: str


class HelpOut(Plain):
    """The terms, the limits of the kind of operation that was asked for, and the pages there are."""

    terms: list[WordOut]
    limits: list[WordOut]
    pages: list[PageName]


class PageOut(PageName):
    """A page as HTML, made from the application's own files."""

    html: str


@router.get("", response=HelpOut)
def help_with(request: HttpRequest, words: str = "", kind: str = "") -> Any:
    """Terms that hold the words (all of them where none are given), with the limits of a kind of operation. Raises a 404 refusal."""
    try:
        limits = glossary.limits_of(kind) if kind else ()
    except UnknownName as error:
        raise Refusal(404, str(error), [{"field": "kind", "message": "no such kind of operation"}]) from error
    asked = words[:80]
    pages = [page for page in _pages() if not asked or asked.lower() in _text(page["name"]).lower()]
    return {"terms": glossary.found(asked), "limits": glossary.found(asked, limits), "pages": pages}


@router.get("/{page}", response=PageOut)
def read_page(request: HttpRequest, page: str) -> Any:
    """A page of the documents. Raises a 404 refusal for one that there is not."""
    if page not in PAGES:
        raise Refusal(404, "There is no such page.", [{"field": "page", "message": "no such page"}])
    return {"name": page, "title": _title(page), "html": _html(page)}


@cache
def _text(page: str) -> str:
    return (DOCS / f"{page}.md").read_text(encoding="utf-8")


def _title(page: str) -> str:
    return _text(page).partition("\n")[0].lstrip("# ")


@cache
def _html(page: str) -> str:
    """Links between pages lead to the page here; to files of the house they are plain words."""
    made = str(MarkdownIt("commonmark", {"html": False}).enable("table").render(_text(page).partition("\n")[2]))
    made = re.sub(r'<a href="([\w-]+)\.md(?:#[\w-]*)?">', _leads_to, made)
    return re.sub(r'<a href="(?!#/)[^"]*">', "<a>", made)


def _leads_to(found: re.Match[str]) -> str:
    return f'<a href="#/help/{found[1]}">' if found[1] in PAGES else "<a>"


def _pages() -> list[dict[str, str]]:
    return [{"name": page, "title": _title(page)} for page in PAGES]
