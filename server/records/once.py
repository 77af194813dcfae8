"""A save that was written but not acknowledged is recognised when it is sent again.

The sender makes a key for each save and sends it with every attempt (the header Idempotency-Key, after the IETF draft of that name).
The key is kept in the transaction of the save itself: either both are there or neither.
"""

from __future__ import annotations

import hashlib
import re
import zlib
from collections.abc import Callable
from datetime import timedelta

from django.db import IntegrityError, transaction
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from server.errors import problem
from server.records.models import Answered

KEY = re.compile(r"^[\w-]{8,64}$", re.ASCII)
KEPT = timedelta(days=2)  # longer than anybody goes on trying
SECRET = ("/api/people", "/api/session")  # their answers hold passwords and tokens, which are kept nowhere
Answer = Callable[[HttpRequest], HttpResponse]


def done_once(answer: Answer) -> Answer:
    """Middleware: what carries a key is done once, and answered the same each time."""

    def answered(request: HttpRequest) -> HttpResponse:
        key = request.headers.get("Idempotency-Key")
        if key is None or request.method in ("GET", "HEAD", "OPTIONS") or request.path.startswith(SECRET):
            return answer(request)
        if not request.user.is_authenticated:
            return answer(request)
        if not KEY.match(key):
            return problem(422, "Idempotency-Key: 8 to 64 letters, digits, - or _.", [{"field": "Idempotency-Key", "message": "is no key"}])
        mine = Answered.objects.filter(person=request.user, key=key)
        if (there := mine.first()) is not None:
            return _again(there, request)
        try:
            with transaction.atomic():
                return _first(answer, request, key)
        except IntegrityError:  # the same save is just being done by another worker
            if (there := mine.first()) is None:
                raise
            return _again(there, request)

    return answered


def sweep() -> int:
    """Forget the keys that nobody tries any more; gives how many."""
    return Answered.objects.filter(at__lt=timezone.now() - KEPT).delete()[0]


def _first(answer: Answer, request: HttpRequest, key: str) -> HttpResponse:
    row = Answered.objects.create(key=key, person=request.user, door=_door(request))  # whoever comes second waits here
    found = answer(request)
    if found.status_code >= 500:
        transaction.set_rollback(True)
    elif found.status_code >= 400 or found.streaming:
        row.delete()
    else:
        row.status, row.media_type, row.content = found.status_code, found.get("Content-Type", ""), zlib.compress(found.content, 1)
        row.save()
    return found


def _again(there: Answered, request: HttpRequest) -> HttpResponse:
    if there.door != _door(request):
        return problem(422, "Idempotency-Key: it belongs to another save.", [{"field": "Idempotency-Key", "message": "was used"}])
    return HttpResponse(zlib.decompress(bytes(there.content or b"")), status=there.status, content_type=there.media_type or None)


def _door(request: HttpRequest) -> str:
    """Door and body: under one key only the very same save is answered again."""
    formed = (request.content_type or "").startswith("multipart/")
    body = "" if formed else hashlib.sha256(request.body).hexdigest()[:20]
    return f"{request.method} {request.path[:160]} {body}"
