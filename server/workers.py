"""Settings of the web workers (gunicorn): what they will need is read once before they part, so that the first question is a quick one."""

from __future__ import annotations

import gc
import logging
from typing import Any

limit_request_line = 8190  # what is longer than the application takes gets its own answer
keepalive = 75  # s; who asks every other second finds the line open
max_requests, max_requests_jitter = 40_000, 10_000  # answers after which a worker makes room for a fresh one: memory goes back
RARELY = (50_000, 20, 50)  # what is kept of rankings and outcomes holds no cycles; an answer makes a few thousand objects
log = logging.getLogger(__name__)


def when_ready(server: Any) -> None:
    """Called by gunicorn before the workers part from it."""
    _warm()
    gc.collect()


def post_worker_init(worker: Any) -> None:
    """Called by gunicorn in each new worker."""
    # what is read by now stays: walking it again and again for cycles stops a worker for 150 ms, in the middle of somebody's nudge
    gc.freeze()
    gc.set_threshold(*RARELY)


def _warm() -> None:
    from django.contrib.auth.models import User
    from django.db import connections
    from django.test import RequestFactory
    from django.urls import get_resolver

    from server.crib.index import crib_index
    from server.jobs.doors.jobs import evaluate_operation, follow_job
    from server.jobs.models import Job
    from server.jobs.schemas.job import TryIn

    try:
        _ = get_resolver().url_patterns  # with every room behind it
        crib_index()
        request = RequestFactory().get("/")
        request.user = User.objects.first()
        for job in Job.objects.filter(archived_at=None)[:2]:
            for entry in job.revisions.first().document["operations"][:2]:
                if entry["tool"]:
                    evaluate_operation(request, job.pk, entry["id"], TryIn())
                    follow_job(job.pk, entry["id"], TryIn())
    except Exception:  # they serve without it too: the first question reads then
        log.warning("what the workers need could not be read ahead", exc_info=True)
    finally:
        connections.close_all()  # none is shared
