"""A job as a file, out and in."""

from __future__ import annotations

import re

from django.http import HttpRequest, HttpResponse
from ninja import File, Router, Status
from ninja.files import UploadedFile

from server.errors import Refusal
from server.exchange.job_file import job_file, read_job
from server.jobs.kept import actions
from server.people.log import What, note
from server.people.roles import require_engineer
from server.schema import Schema

router = Router()
MOST_BYTES = 8 * 1024 * 1024


class JobRead(Schema):
    """The new job, and how many rows of which table came with it."""

    id: int
    name: str
    brought: dict[str, int]


@router.post("/file", response={201: JobRead})
def bring_job(request: HttpRequest, file: UploadedFile = File(...)) -> Status:  # noqa: B008
    """A new job from a job file, with what it names where that is not kept here; nothing here is overwritten."""
    require_engineer(request)
    if (file.size or 0) > MOST_BYTES:
        raise Refusal(413, "file: larger than 8 MiB.", [{"field": "file", "message": "larger than its bound", "bound": "8 MiB"}])
    job, brought = read_job(file.read(), request.user)
    return Status(201, {"id": job.pk, "name": job.name, "brought": brought})


@router.get("/{job_id}/file", openapi_extra={"responses": {200: {"description": "The file.", "content": {"application/json": {}}}}})
def fetch_job(request: HttpRequest, job_id: int) -> HttpResponse:
    """The job with the tools, materials and machine that it names, as open JSON."""
    revision = actions.newest(job_id)
    note(request, What.EXPORTED, more=f"job {revision.document['name']}")
    answer = HttpResponse(job_file(revision), content_type="application/json")
    plain_name = re.sub(r"[^A-Za-z0-9]+", "-", revision.document["name"]).strip("-").lower() or "job"
    answer["Content-Disposition"] = f'attachment; filename="{plain_name}.job.json"'
    return answer
