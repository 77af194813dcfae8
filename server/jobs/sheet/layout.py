"""Laying pages out, in whatever process: it is given the files that a page may use, and needs nothing of the application."""

from __future__ import annotations

import logging
import mimetypes
from collections.abc import Callable, Mapping
from io import BytesIO
from typing import Any
from urllib.parse import urlsplit

from pypdf import PdfReader, PdfWriter
from weasyprint import HTML

logging.getLogger("weasyprint").setLevel(logging.ERROR)  # it warns of what only a screen knows
BASE = "http://sheet.invalid/static/"  # a name that leads nowhere: every link is answered from the files


def lay_out(page: str, files: Mapping[str, bytes]) -> bytes:
    """The PDF of a page; `files` are all that its links may lead to, by their paths."""
    return bytes(HTML(string=page, base_url=BASE, url_fetcher=fetcher(files)).write_pdf())


def fetcher(files: Mapping[str, bytes]) -> Callable[..., dict[str, Any]]:
    """What answers the links of a page. Raises `ValueError` for any other."""

    def own_file(url: str, *args: Any, **kwargs: Any) -> dict[str, Any]:
        split = urlsplit(url)
        path = split.path.removeprefix("/static/")
        if split.hostname != "sheet.invalid" or path not in files:
            raise ValueError("the sheet may only use its own files")
        return {"string": files[path], "mime_type": mimetypes.guess_type(path)[0] or "application/octet-stream"}

    return own_file


def pages_in(parts: list[bytes]) -> int:
    """How many pages a PDF has."""
    return sum(len(PdfReader(BytesIO(part)).pages) for part in parts)


def joined(parts: list[bytes], numbers: bytes) -> bytes:
    """Parts as one document; page k bears page k of `numbers`, on which nothing but its number stands."""
    whole = PdfWriter()
    for part in parts:
        whole.append(BytesIO(part))
    for page, number in zip(whole.pages, PdfReader(BytesIO(numbers)).pages, strict=True):
        page.merge_page(number)
        page.compress_content_streams()
    told = PdfReader(BytesIO(parts[0])).metadata
    if told and (title := told.get("/Title")):
        whole.add_metadata({"/Title": title})
    whole.compress_identical_objects()  # each part brought the same fonts
    out = BytesIO()
    whole.write(out)
    return out.getvalue()
