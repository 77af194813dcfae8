"""The API below /api/, and the one page that the interface is."""

from datetime import timedelta
from pathlib import Path

from django.contrib.staticfiles import finders
from django.db import DatabaseError, connection
from django.db.migrations.executor import MigrationExecutor
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render
from django.urls import path, re_path
from django.utils import timezone
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_safe

from server import room
from server.api import api
from server.errors import not_found
from server.work.tasks import kinds

TAKEN_UP = 60.0  # s after which long work that nobody took up means that nobody will

handler404 = "server.errors.not_found"
handler500 = "server.errors.server_error"


@require_safe
@ensure_csrf_cookie
def interface(request: HttpRequest) -> HttpResponse:
    """The page of the interface, whatever the path behind the hash."""
    return render(request, "interface.html")


@require_safe
def keeper(request: HttpRequest) -> HttpResponse:
    """The script that keeps pages at hand where the line breaks; only from here may it answer for all of them."""
    found = finders.find("sw.js")
    if found is None:
        return HttpResponse(status=404)
    return HttpResponse(Path(found).read_bytes(), content_type="text/javascript", headers={"Cache-Control": "no-cache"})


@require_safe
def alive(request: HttpRequest) -> HttpResponse:
    """Whether this process answers."""
    return JsonResponse({"alive": True})


@require_safe
def ready(request: HttpRequest) -> HttpResponse:
    """Whether work can be done here: the database answers, has room, its tables are up to date, and long work is taken up."""
    try:
        since = timezone.now() - timedelta(seconds=TAKEN_UP)
        waits = sum(kind.objects.filter(state=kind.State.WAITING, at__lt=since).exclude(beat__gt=since).count() for kind in kinds())
        plan = MigrationExecutor(connection)
        behind = len(plan.migration_plan(plan.loader.graph.leaf_nodes()))
    except DatabaseError:
        return JsonResponse({"ready": False, "database": False}, status=503)
    says = {"database": True, "migrations": behind == 0, "tasks": waits == 0, "room": room.there_is()}
    return JsonResponse({"ready": all(says.values()), **says}, status=200 if all(says.values()) else 503)


urlpatterns = [
    path("api/", api.urls),
    re_path(r"^api/.*$", not_found),
    path("alive", alive),
    path("ready", ready),
    path("sw.js", keeper),
    path("", interface),
]
