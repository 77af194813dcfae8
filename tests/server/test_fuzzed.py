"""Every door met with what its document allows and with what it forbids: no failure on our side, no answer that is not declared."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

import schemathesis
from django.core.signals import request_finished, request_started
from django.db import close_old_connections
from hypothesis import HealthCheck, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import content_type_conformance, response_schema_conformance, status_code_conformance

from benchmarks.doors import LEFT_OUT
from server.wsgi import application
from tests.server.conftest import Api

CALLS = 3  # of each door: about 300 in all; the benchmarks make 10,000
schema = schemathesis.openapi.from_wsgi("/api/openapi.json", application)
schema.config.phases.coverage.enabled = False  # hundreds of calls a door: the benchmarks make them
schema = schema.exclude(path_regex=LEFT_OUT)
CHECKS = (not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance)


@contextmanager
def one_connection() -> Iterator[None]:
    """The test's own transaction stays open over the call, as Django's test client has it."""
    for signal in (request_started, request_finished):
        signal.disconnect(close_old_connections)
    yield
    for signal in (request_started, request_finished):
        signal.connect(close_old_connections)


@schema.parametrize()
@settings(max_examples=CALLS, derandomize=True, deadline=None, suppress_health_check=list(HealthCheck), database=None)
def test_every_door_keeps_to_its_document(case: schemathesis.Case, demo: None) -> None:
    caller = Api("administrator")
    cookies = {name: morsel.value for name, morsel in caller.client.cookies.items()}
    with one_connection():
        case.call_and_validate(cookies=cookies, headers={"X-CSRFToken": caller.token}, checks=CHECKS)
