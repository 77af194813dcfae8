"""Every failure as problem+json with field paths; registered once."""

from __future__ import annotations

import logging
import sys
from collections.abc import Callable
from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.http.multipartparser import MultiPartParserError
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError

from cutting.doors.plain import problem as core_problem
from cutting.errors import CuttingError
from server import room
from server.sentences import told
from server.words import said, sentence, title

LONGEST_ADDRESS = 4000
CONTENT_TYPE = "application/problem+json"
AWAY = "The database does not answer. Nothing was saved by this request, and nothing typed is lost: try again in a moment."
log = logging.getLogger(__name__)


class Refusal(Exception):
    """A request that is refused for a reason a person can read; `extra` goes into the answer."""

    def __init__(self, status: int, title: str, errors: list[dict[str, Any]] | None = None, **extra: Any) -> None:
        super().__init__(title)
        self.status, self.title, self.errors, self.extra = status, title, errors or [], extra


def problem(status: int, title: str, errors: list[dict[str, Any]] | None = None, **extra: Any) -> JsonResponse:
    """The answer of a refusal: status, title, and each field with its message and bound."""
    # whoever reads inches is told so, whatever the rule was written in
    errors = [
        {name: told(value) if name in ("message", "bound") and value else value for name, value in one.items()} for one in errors or []
    ]
    body = {"type": "about:blank", "title": told(title), "status": status, "errors": errors, **extra}
    return JsonResponse(body, status=status, content_type=CONTENT_TYPE)


def register(api: NinjaAPI) -> None:
    """Turn each kind of failure into its answer."""

    @api.exception_handler(Refusal)
    def refused(request: HttpRequest, error: Refusal) -> HttpResponse:
        return problem(error.status, error.title, error.errors, **error.extra)

    @api.exception_handler(CuttingError)
    def core_refused(request: HttpRequest, error: CuttingError) -> HttpResponse:
        return problem(422, sentence(error.field, error.message), [core_problem(error)])

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        errors = said(error.errors)
        return problem(422, title(errors), errors)

    @api.exception_handler(AuthenticationError)
    def unknown_person(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return problem(401, "Sign in first.")

    @api.exception_handler(Http404)
    def missing(request: HttpRequest, error: Http404) -> HttpResponse:
        return problem(404, "There is nothing here by that name.")

    @api.exception_handler(MultiPartParserError)
    def unreadable(request: HttpRequest, error: MultiPartParserError) -> HttpResponse:
        return problem(400, "The upload is damaged. Send it again.")

    @api.exception_handler(RequestDataTooBig)
    def too_big(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
        return problem(413, "The request is larger than 12 MiB.")

    @api.exception_handler(HttpError)
    def http(request: HttpRequest, error: HttpError) -> HttpResponse:
        # a body that could not be parsed arrives here with the framework's own wording
        if isinstance(error.__cause__, HttpError):
            error = error.__cause__
        return problem(error.status_code, str(error))

    @api.exception_handler(OperationalError)
    def away(request: HttpRequest, error: OperationalError) -> HttpResponse:
        log.error("the database refused at %s: %s", request.path, error)
        return problem(503, room.SAID if room.is_full(error) else AWAY)

    @api.exception_handler(Exception)
    def unforeseen(request: HttpRequest, error: Exception) -> HttpResponse:
        log.exception("unforeseen failure at %s", request.path)
        return problem(500, "Server error; see the server log. Nothing was saved by this request.")


def kept_nowhere(answer: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Middleware: what the API tells is for the one who asked, and is kept by no cache on the way; what it refuses has one form."""

    def answered(request: HttpRequest) -> HttpResponse:
        if len(request.get_full_path()) > LONGEST_ADDRESS:
            return problem(414, f"The address is longer than {LONGEST_ADDRESS} letters.")
        found = answer(request)
        if found.status_code == 405 and request.path.startswith("/api/"):
            allowed = found.get("Allow", "")
            found = problem(405, f"Here goes {allowed or 'another method'}, not {request.method}.")
            found["Allow"] = allowed
        if request.path.startswith("/api/"):
            found.headers.setdefault("Cache-Control", "no-store")
        return found

    return answered


def csrf_failure(request: HttpRequest, reason: str = "") -> HttpResponse:
    """The answer where the token of the session is missing or another's."""
    return problem(403, "The request carries no valid token; reload the page and try again.")


def not_found(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """The answer to a path that nobody serves."""
    return problem(404, "There is nothing here by that name.")


def server_error(request: HttpRequest) -> HttpResponse:
    """The answer where something failed here: a sentence and no trace."""
    if isinstance(sys.exc_info()[1], OperationalError):  # before the API, as where the session is looked up
        return problem(503, AWAY)
    return problem(500, "Server error; see the server log.")
