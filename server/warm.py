"""What the web processes will need, read once before they part, so that the first question is a quick one."""

from __future__ import annotations

import logging

from django.contrib.auth.models import User
from django.db import connections
from django.test import RequestFactory
from django.urls import get_resolver

from server.crib.index import crib_index
from server.jobs.doors.jobs import evaluate_operation, follow_job
from server.jobs.models import Job
from server.jobs.schemas.job import TryIn

log = logging.getLogger(__name__)


def warm() -> None:
    """Read it. Where that fails they serve without it: the first question reads then."""
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
    except Exception:  # whatever it was, it is no reason not to serve
        log.warning("what the workers need could not be read ahead", exc_info=True)
    finally:
        connections.close_all()  # none is shared
