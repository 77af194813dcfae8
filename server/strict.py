"""One reader for all JSON that comes in: what is no text, no finite number or no shape is refused before anything else sees it."""

from __future__ import annotations

import json
import math
import re
from collections.abc import Callable
from typing import Any

from django.http import HttpRequest, HttpResponse

from server.errors import problem

LONGEST_NUMBER = 400  # digits: what is longer is no measure of anything, and slow to read
DEEPEST = 60  # objects within objects
WRITES = ("POST", "PUT", "PATCH", "DELETE")
TAKES_A_FILE = re.compile(r"/(prints|imports|file)$")


class Unreadable(ValueError):
    """Why it is no JSON that can be taken, in words."""


def strict_json(content: bytes | str) -> Any:
    """The value. Raises `Unreadable`.

    >>> strict_json('{"a": [1, 2.5]}')
    {'a': [1, 2.5]}
    """
    try:
        text = content.decode("utf-8-sig") if isinstance(content, bytes) else content
        data = json.loads(text, parse_constant=_refused, parse_float=_finite, parse_int=_whole)
    except UnicodeDecodeError as error:
        raise Unreadable("is not UTF-8.") from error
    except RecursionError as error:
        raise Unreadable("goes too deep.") from error
    except json.JSONDecodeError as error:
        raise Unreadable(f"is not JSON: line {error.lineno}, column {error.colno}.") from error
    _check(data, DEEPEST)
    return data


def _refused(name: str) -> float:
    raise Unreadable(f"{name} is not a number that JSON knows.")


def _finite(text: str) -> float:
    value = float(text) if len(text) <= LONGEST_NUMBER else math.inf
    if not math.isfinite(value):
        raise Unreadable(f"{text[:20]} is too large to be a number here.")
    return value


def _whole(text: str) -> int:
    _finite(text)
    return int(text)


def _check(data: Any, deep: int) -> None:
    """Halves of letters (lone surrogates) are no text, and no database takes them."""
    if deep < 0:
        raise Unreadable("goes too deep.")
    if isinstance(data, str):
        if not data.isascii() and any("\ud800" <= letter <= "\udfff" for letter in data):
            raise Unreadable("holds half a letter (a lone surrogate), which is no text.")
    elif isinstance(data, dict):
        for key, value in data.items():
            _check(key, deep)
            _check(value, deep - 1)
    elif isinstance(data, list):
        for value in data:
            _check(value, deep - 1)


def only_what_is_declared(answer: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: a form with parts is opened only at the doors that take a file; all others take JSON."""

    def answered(request: HttpRequest) -> HttpResponse:
        formed = request.method in WRITES and request.path.startswith("/api/") and (request.content_type or "").startswith("multipart/")
        if formed and not TAKES_A_FILE.search(request.path):
            return problem(415, "The body is said to be something else than application/json.")
        return answer(request)

    return answered
