"""What is told in whole sentences: in the units that the reader has chosen."""

from __future__ import annotations

from collections.abc import Callable
from contextvars import ContextVar
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from pydantic import PlainSerializer

from cutting.quantities.retell import in_inch

_reads_inch: ContextVar[bool] = ContextVar("reads_inch", default=False)


def reader_units(answer: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: remember for one request which units its reader sees, as the header X-Units says."""

    def answered(request: HttpRequest) -> HttpResponse:
        chosen = _reads_inch.set(request.headers.get("X-Units") == "inch")
        try:
            return answer(request)
        finally:
            _reads_inch.reset(chosen)

    return answered


def told(text: str) -> str:
    """A sentence in the reader's units."""
    return in_inch(text) if _reads_inch.get() else text


def in_both(text: str) -> dict[str, str]:
    """A sentence for readers of either, where an answer is kept for both."""
    return {"metric": text, "inch": in_inch(text)}


def same(text: str) -> dict[str, str]:
    """A sentence without measures, for readers of either."""
    return {"metric": text, "inch": text}


Sentence = Annotated[str, PlainSerializer(told)]
