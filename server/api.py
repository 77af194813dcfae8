"""The HTTP API: one router per app."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja.errors import HttpError
from ninja.parser import Parser

from server import errors
from server.clinic.doors import of_jobs as troubles
from server.clinic.doors import router as clinic
from server.clinic.exercise_doors import router as exercises
from server.crib.api import router as crib
from server.crib.heavy import router as heavy
from server.crib.shipped import router as shipped
from server.exchange.api import router as exchange
from server.exchange.job_file_api import router as job_files
from server.floor.api import router as floor
from server.help import router as help_router
from server.jobs.doors.chains import router as chains
from server.jobs.doors.holes import router as holes
from server.jobs.doors.jobs import kinds
from server.jobs.doors.jobs import router as jobs
from server.jobs.doors.lines import router as lines
from server.jobs.doors.part_studies import router as part_studies
from server.jobs.doors.planning import router as planning
from server.jobs.doors.programs import pasted
from server.jobs.doors.programs import router as programs
from server.jobs.doors.sheets import router as sheets
from server.jobs.doors.studies import router as studies
from server.jobs.doors.thread_sizes import router as thread_sizes
from server.jobs.doors.traces import router as traces
from server.openapi import DocumentedAPI
from server.people.administration import router as people
from server.people.api import router as session
from server.people.roles import SignedIn
from server.records.api import router as records
from server.shelf.api import router as shelf
from server.shelf.threads import router as threads
from server.strict import Unreadable, strict_json
from server.trials.doors import learning
from server.trials.doors import router as trials
from server.trials.instrument_doors import router as instruments


class StrictParser(Parser):
    """One JSON object as the standard has it: no NaN, no Infinity, no number too large to hold."""

    def parse_body(self, request: HttpRequest) -> Any:
        if request.content_type != "application/json":  # a form of another page could send anything else
            raise HttpError(415, "The body is said to be something else than application/json.")
        try:
            data = strict_json(request.body)
        except Unreadable as error:
            raise HttpError(400, f"The body {error}") from error
        if not isinstance(data, dict):
            raise HttpError(400, "The body is not an object.")
        return data


def _for_insiders(view: Callable[..., HttpResponse]) -> Callable[..., HttpResponse]:
    """The document of all doors is no secret, but where the shop has it so, nobody reads it who is not signed in."""

    def shown(request: HttpRequest, *arguments: Any, **more: Any) -> HttpResponse:
        if settings.OPENAPI_TO_ALL or request.user.is_authenticated:
            return view(request, *arguments, **more)
        return errors.problem(401, "Sign in first.")

    return shown


api = DocumentedAPI(
    title="Arrow Bench",
    version="1",
    docs_url=None,
    openapi_url="/openapi.json",
    docs_decorator=_for_insiders,
    auth=SignedIn(),
    parser=StrictParser(),
    urls_namespace="api",
)
errors.register(api)
api.add_router("/session", session, tags=["people"])
api.add_router("/people", people, tags=["people"])
api.add_router("/kinds", kinds, tags=["jobs"])
api.add_router("/jobs", job_files, tags=["exchange"])  # before "/{job_id}", which would take "/file" for a job
api.add_router("/jobs", jobs, tags=["jobs"])
api.add_router("/jobs", planning, tags=["planning"])
api.add_router("/jobs", lines, tags=["planning"])
api.add_router("/jobs", studies, tags=["studies"])
api.add_router("/jobs", part_studies, tags=["studies"])
api.add_router("/jobs", chains, tags=["planning"])
api.add_router("/jobs", holes, tags=["holes"])
api.add_router("/jobs", traces, tags=["traces"])
api.add_router("/jobs", thread_sizes, tags=["studies"])
api.add_router("/jobs", sheets, tags=["sheets"])
api.add_router("/jobs", programs, tags=["programs"])
api.add_router("/programs", pasted, tags=["programs"])
api.add_router("/trials", trials, tags=["trials"])
api.add_router("/instruments", instruments, tags=["trials"])
api.add_router("/learning", learning, tags=["trials"])
api.add_router("/clinic", clinic, tags=["clinic"])
api.add_router("/jobs", troubles, tags=["clinic"])
api.add_router("/exercises", exercises, tags=["clinic"])
api.add_router("/crib/heavy-tools", heavy, tags=["crib"])
api.add_router("/crib", shipped, tags=["crib"])
api.add_router("/crib", crib, tags=["crib"])
api.add_router("/shelf", shelf, tags=["shelf"])
api.add_router("/shelf", threads, tags=["shelf"])
api.add_router("/floor", floor, tags=["floor"])
api.add_router("/records", records, tags=["records"])
api.add_router("/help", help_router, tags=["help"])
api.add_router("/exchange", exchange, tags=["exchange"])
